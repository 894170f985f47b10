"""A plan that is being proposed: what is known of it, what people have decided, and what is made of it."""

from __future__ import annotations

from collections.abc import Sequence
from dataclasses import dataclass, field
from typing import Any

from calc.identity import Identities
from calc.notebook.proven import Proven
from calc.plan.cuts.inputs import PlannedCut
from calc.plan.document import Document, Setup
from calc.plan.proposed import proposed
from calc.reading import write
from calc.shelf.taken import SetupShelf, Shelf

Facts = dict[str, Any]  # plain values by name


@dataclass(frozen=True)
class Start:
    """A plan as far as it is proposed: its document, and what each set-up takes from the shelf."""

    document: Document
    shelf: Shelf


@dataclass(frozen=True)
class Decided:
    """What people have decided of a plan: every fact that is neither as it began nor as it was proposed."""

    document: Document
    marked: frozenset[str] = field(default_factory=frozenset)

    def free(self, path: str, now: Any, began: Any) -> bool:
        """A fact may be proposed: it is as it began, or as it was proposed."""
        return now == began or path in self.marked

    def cuts_free(self, setup: Setup) -> bool:
        """Nobody has touched an operation of a side."""
        at = f"setups.{setup.id}.cuts"
        return all(f"{at}.{c.id}.{name}" in self.marked for c in setup.cuts for name in facts_of(c))


def decided_of(start: Start) -> Decided:
    """What people have decided of a plan as it is."""
    return Decided(start.document, proposed(start.document, start.shelf))


@dataclass(frozen=True)
class Wanted:
    """What is proposed from: the plan, what each chuck of the machine could carry, ids for new items, the notebook."""

    begun: Start
    holders: Sequence[SetupShelf]
    ids: Identities
    proven: tuple[Proven, ...] = ()

    @property
    def document(self) -> Document:
        """The plan's document as it is."""
        return self.begun.document

    @property
    def shelf(self) -> Shelf:
        """What the plan takes from the shelf as it is."""
        return self.begun.shelf


def facts_of(cut: PlannedCut) -> Facts:
    """The facts of an operation by name, plain."""
    return {name: value for name, value in write(cut).items() if name != "id"}

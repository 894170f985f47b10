"""A card's parts: what is set, the tools by station, and the steps in the order of the work."""

from __future__ import annotations

from dataclasses import dataclass
from typing import Literal

from calc.card.ask import Ask
from calc.quantities import Figure, Sentence

StepKind = Literal["do", "caution", "read"]
SECTION = "section"


@dataclass(frozen=True)
class CardStep:
    """One step on a screen of its own. A caution is never skipped; a reading is ticked by its reading.

    `id` is the same in every card of the same plan; `side`: the set-up it is of, None for the whole;
    `lights`: facts of the picture that it speaks of.
    """

    id: str
    place: str
    title: str
    words: tuple[Sentence, ...]
    side: int | None = None
    kind: StepKind = "do"
    caution: Sentence | None = None
    lights: tuple[str, ...] = ()
    ask: Ask | None = None


@dataclass(frozen=True)
class ToSet:
    """A figure to set at the machine: its label, what it is, the fact of the picture that it is."""

    label: str
    figure: Figure | Sentence
    side: int | None
    fact: str = ""
    prefix: str = ""


@dataclass(frozen=True)
class ToolAt:
    """A tool at its station: offset, edge, holder, how far it stands out, its cuts, and what is on the shelf."""

    turret: str
    station: int
    offset: int
    edge: str
    holder: str
    out: Figure | Sentence
    cuts: tuple[str, ...]
    stock: Sentence
    key: str = ""  # as a plan names it; empty: no tool is chosen


@dataclass(frozen=True)
class Card:
    """A released plan for the machine."""

    to_set: tuple[ToSet, ...]
    tools: tuple[ToolAt, ...]
    steps: tuple[CardStep, ...]
    cautions: tuple[Sentence, ...]

    def step(self, name: str) -> CardStep | None:
        """A step by its id; None where there is none."""
        return next((s for s in self.steps if s.id == name), None)

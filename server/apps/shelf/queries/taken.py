"""What a run takes from the shelf, and finding things there."""

from __future__ import annotations

from collections.abc import Iterable, Iterator
from dataclasses import dataclass
from typing import Any

from calc.shelf.all_kinds import KINDS
from calc.shelf.taken import SetupShelf
from server.apps.shelf.convert import model_of
from server.apps.shelf.models import Tool
from server.apps.shelf.queries.snapshot import Snapshot


def chucks_of(shelf: Snapshot, machine_id: int | None) -> dict[str, str]:
    """Key -> name of the chucks that a machine has; all of them while there is none."""
    keys = [c.key for pk, c in shelf.chucks.items() if machine_id in (None, shelf.machine_of_chuck[pk])]
    return {key: shelf.names["chuck"][key] for key in keys}


@dataclass(frozen=True)
class Taken:
    """What a set-up takes from the shelf, by database id."""

    chuck_id: int | None = None
    jaw_blank_id: int | None = None
    jaw_set_id: int | None = None
    collet_id: int | None = None


def setup_shelf(shelf: Snapshot, machine_id: int | None, taken: Taken) -> SetupShelf:
    """What one set-up takes from the shelf, with everything that its chuck could carry.

    A jaw set brings the blank it was made from.
    """
    chuck_id, blank_id, set_id = taken.chuck_id, taken.jaw_blank_id, taken.jaw_set_id
    chuck = None if chuck_id is None else shelf.chucks[chuck_id]
    blank = shelf.blank_of_set(set_id) if set_id is not None else None if blank_id is None else shelf.blanks[blank_id]
    return SetupShelf(
        chuck=chuck,
        blank=blank,
        collet=None if taken.collet_id is None else shelf.collets[taken.collet_id],
        jaw_set=None if set_id is None else shelf.sets[set_id],
        jaw_sets=() if chuck is None else shelf.sets_of_chuck(chuck.key),
        # Without a machine yet, no chuck is on the wrong one.
        on_machine=chuck_id is None or machine_id is None or shelf.machine_of_chuck[chuck_id] == machine_id,
        **({} if chuck_id is None else shelf.fitting(chuck_id)),
    )


def holders_on(shelf: Snapshot, machine_id: int | None) -> tuple[SetupShelf, ...]:
    """Every chuck of a machine with all that it could carry, nothing chosen yet."""
    keys = chucks_of(shelf, machine_id)
    return tuple(setup_shelf(shelf, machine_id, Taken(pk)) for pk, c in shelf.chucks.items() if c.key in keys)


def fitted(kind: str, item_id: int) -> list[int]:
    """The chucks that an item fits, by database id."""
    rows: Any = model_of(kind)._default_manager
    return list(rows.filter(pk=item_id, chucks__isnull=False).values_list("chucks", flat=True))


def tool_key(tool_id: int) -> str | None:
    """The key of a tool by its row."""
    return Tool.objects.filter(pk=tool_id).values_list("key", flat=True).first()


def find(shelf: Snapshot, words: str) -> list[tuple[str, str, str]]:
    """(kind, key, name) of the items whose kind and name have every one of the words."""
    wanted = words.lower().split()

    def found() -> Iterator[tuple[str, str, str]]:
        for kind, names in shelf.names.items():
            called = f"{kind.replace('_', ' ')} {KINDS[kind].noun}"
            for key, name in names.items():
                text = f"{called} {name}".lower()
                if all(word in text for word in wanted):
                    yield kind, key, name

    return list(found())


def stock_of(keys: Iterable[str]) -> dict[str, int]:
    """How many of each tool's edge are on the shelf, by its key; what has no stock, or is not there, is left out."""
    rows = Tool.objects.filter(key__in=set(keys)).values_list("key", "figures__stock")
    return {key: stock for key, stock in rows if isinstance(stock, int)}

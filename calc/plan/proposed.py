"""What of a plan was proposed and nobody has looked at yet.

A mark keeps what was proposed at a place of the plan: a fact is *proposed* for as long as it is what its mark says. So
whoever touches a fact takes the mark off it by that alone, and undoing that gives it back. Saying "looks right" of a
side takes that side's marks away.
"""

from __future__ import annotations

import json
from collections.abc import Iterable, Iterator, Mapping
from typing import Any

from calc.plan.declared import reference_at
from calc.plan.document import Document, Mark, setup_path
from calc.shelf.taken import SetupShelf, Shelf

OF_THE_PLAN = "sides"  # marked of the plan, looked at with either side


def mark(at: str, facts: Mapping[str, Any]) -> Mark:
    """A mark of facts at a place, by their names below it."""
    return Mark(at, json.dumps(dict(facts), ensure_ascii=False, separators=(",", ":"), sort_keys=True))


def key_of(taken: SetupShelf, kind: str) -> str | None:
    """The key of what a set-up takes of a kind."""
    item = taken.blank if kind == "jaw_blank" else getattr(taken, kind)
    return item.key if item is not None else None


def _now(document: Document, shelf: Shelf, path: str) -> Any:
    """What is at a path now, plain. Raises KeyError."""
    kind = reference_at(path)
    if kind is None:
        return _value(document, path)
    place = next((i for i, s in enumerate(document.setups) if path == f"{setup_path(document, i)}.{kind}"), None)
    if place is None:
        raise KeyError(path)
    return key_of(shelf.setups[place], kind)


def _value(document: Document, path: str) -> Any:
    """A fact by its path. Raises KeyError."""
    here: Any = document
    for name in path.split("."):
        if isinstance(here, tuple):
            here = next((i for i in here if getattr(i, "id", None) == name), None)
            if here is None:
                raise KeyError(path)
        else:
            try:
                here = getattr(here, name)
            except AttributeError as error:
                raise KeyError(path) from error
    return here


def proposed(document: Document, shelf: Shelf) -> frozenset[str]:
    """The paths of all facts that are as they were proposed."""
    return frozenset(path for one in document.proposed for path in _standing(document, shelf, one))


def _standing(document: Document, shelf: Shelf, one: Mark) -> Iterator[str]:
    for name, said in json.loads(one.facts).items():
        path = f"{one.at}.{name}"
        try:
            now = _now(document, shelf, path)
        except KeyError:
            continue  # taken out since
        if now == said:
            yield path


def side_of(mark_at: str) -> str:
    """The id of the set-up that a mark belongs to; "" where it belongs to the plan."""
    parts = mark_at.split(".")
    return parts[1] if parts[0] == "setups" and len(parts) > 1 else ""


def looked_at(marks: Iterable[Mark], setup: str) -> tuple[Mark, ...]:
    """The marks that are left when somebody has said of a side that it looks right."""
    return tuple(m for m in marks if side_of(m.at) not in ("", setup))


def by_side(paths: Iterable[str], sides: tuple[str, ...]) -> dict[str, int]:
    """How many of the facts each set-up has, by its id; what is of the plan counts to the first."""
    found = dict.fromkeys(sides, 0)
    for path in paths:
        side = side_of(path) or sides[0]
        if side in found:
            found[side] += 1
    return {side: n for side, n in found.items() if n}

"""What an edit does to a plan document, plain data: a fact replaced, an item put in, taken out or moved.

A path says what an edit is of. At a fact, a line or a whole list it is a value in place of another. At an item
(`setups.s1.cuts.m1d84xw`) it is `None` where the item is not there, and `Put` (the item and the id that it stands
behind) where it is put in. Where an item stands is a fact of its own, `….behind`: moving one merges with whatever
else is done to it. Every edit has an inverse of the same form.
"""

from __future__ import annotations

from collections.abc import Iterator, Mapping
from dataclasses import dataclass, replace
from typing import Any, TypedDict

from calc.errors import CalcError, FieldError, FieldProblem
from calc.identity import Identities
from calc.plan.across import across as going_across
from calc.plan.across import moved_across
from calc.plan.cuts.inputs import PlannedCut
from calc.plan.document import Document, setup_path
from calc.plan.lists import item_at, items_at, list_at
from calc.plan.paths import parts_of, place_of, value_at, with_value
from calc.profile.steps import NAME_MOST
from calc.reading import read, write

BEHIND = "behind"  # the last name of the path of an item's place; "" as its value: the first
FIRST = ""


@dataclass(frozen=True)
class Change:
    """One fact, line, item, place or list, and what is to be there."""

    path: str
    new: Any


class Put(TypedDict):
    """An item that is put in, as it is kept."""

    item: Mapping[str, object]
    behind: str


def put(item: Mapping[str, object], behind: str) -> Put:
    """An item to be put in, as it is kept: the item, and the id of the one it stands behind."""
    return {"item": item, "behind": behind}


def is_put(value: Any) -> bool:
    """Whether a kept value is an item that is put in."""
    return isinstance(value, dict) and value.keys() == {"item", BEHIND}


def place_at(path: str) -> str | None:
    """The path of the item whose place the path is; None where it is no place."""
    head, _, last = path.rpartition(".")
    return head if last == BEHIND and item_at(head) is not None else None


def behind_of(document: Any, path: str) -> str:
    """The id that the item at a path stands behind, FIRST for the first. Raises KeyError."""
    found = item_at(path)
    if found is None:
        raise KeyError(path)
    items = value_at(document, found[0])
    at = place_of(items, parts_of(path)[-1])
    return items[at - 1]["id"] if at else FIRST


def state_at(document: Any, path: str, new: Any) -> Any:
    """What is at a path now, in the form of what is to be there. Raises KeyError where there is no such thing."""
    item = place_at(path)
    if item is not None:
        return behind_of(document, item)
    if item_at(path) is not None and (new is None or is_put(new)):
        try:
            return put(value_at(document, path), behind_of(document, path))
        except KeyError:
            value_at(document, path.rpartition(".")[0])
            return None
    return value_at(document, path)


def with_change(document: Any, path: str, new: Any) -> Any:
    """A copy of plain data with an edit made. Raises KeyError where what it is of is not there."""
    item = place_at(path)
    if item is not None:
        return _moved(document, item, str(new))
    if item_at(path) is not None:
        if new is None:
            return _without(document, path)
        if is_put(new):
            return _with(document, path, new)
    return with_value(document, path, new)


def _list_of(path: str) -> tuple[str, str]:
    head, _, last = path.rpartition(".")
    return head, last


def _without(document: Any, path: str) -> Any:
    at, key = _list_of(path)
    items = list(value_at(document, at))
    items.pop(place_of(items, key))
    return with_value(document, at, items)


def _with(document: Any, path: str, new: Put) -> Any:
    at, key = _list_of(path)
    items = list(value_at(document, at))
    if any(i["id"] == key for i in items):
        raise KeyError(path)
    items.insert(_after(items, new["behind"]), new["item"])
    return with_value(document, at, items)


def _moved(document: Any, path: str, behind: str) -> Any:
    at, key = _list_of(path)
    items = list(value_at(document, at))
    item = items.pop(place_of(items, key))
    items.insert(_after(items, behind), item)
    return with_value(document, at, items)


def _after(items: list[Any], behind: str) -> int:
    """Where an item comes that stands behind another; at the end where that is not there any more."""
    if behind == FIRST:
        return 0
    return next((n for n, i in enumerate(items, 1) if i["id"] == behind), len(items))


def last_of(document: Any, path: str) -> str:
    """The id of the last item of a list, FIRST where it is empty. Raises FieldProblem at the list."""
    items = items_at(document, path)
    return items[-1]["id"] if items else FIRST


def move(document: Any, path: str, behind: str) -> Change:
    """An item of a list put behind another. Raises FieldProblem at the list."""
    found = item_at(path)
    if found is None or not found[1].ordered:
        raise FieldProblem(path, "Only operations are put in an order of their own.")
    at, rule = found
    ids, mine = [i["id"] for i in items_at(document, at)], parts_of(path)[-1]
    if mine not in ids:
        raise FieldProblem(at, f"There is no such {rule.noun} any more.")
    if behind not in (FIRST, *ids) or behind == mine or behind_of(document, path) == behind:
        raise FieldProblem(at, "It is there already.")
    return Change(f"{path}.{BEHIND}", behind)


def across(document: Any, path: str) -> Iterator[Change]:
    """An operation, with what goes along, done from the other end of the part. Raises FieldProblem."""
    plan: Document = read(Document, document)
    mine = parts_of(path)[-1]
    index = next((i for i, s in enumerate(plan.setups) if any(c.id == mine for c in s.cuts)), None)
    cuts = () if index is None else going_across(plan, index, mine)
    if index is None or not cuts:
        words = (
            "Only what works in a hole of one size that goes through, or on the largest diameter, can be done from the "
            "other end."
        )
        raise FieldProblem(path, words)
    after = write(moved_across(plan, index, cuts))
    for place, setup in enumerate(after["setups"]):
        yield Change(f"{setup_path(plan, place)}.cuts", setup["cuts"])


def _cut(document: Any, path: str) -> PlannedCut:
    found = item_at(path)
    if found is None or found[1].stop != "cuts":
        raise FieldProblem(path, "There is no such list in this plan.")
    try:
        return read(PlannedCut, value_at(document, path))  # type: ignore[no-any-return]
    except KeyError as error:
        raise FieldProblem(found[0], "There is no such cut any more.") from error


def split(document: Any, path: str, leave_mm: float, ids: Identities) -> list[Change]:
    """One operation as two: it roughs and leaves `leave_mm` a side, a new one behind it finishes.

    Raises CalcError at the list.
    """
    cut, at = _cut(document, path), _list_of(path)[0]
    a, b, rule = cut.from_diameter_mm, cut.to_diameter_mm, list_at(at)
    if cut.kind not in ("turn", "bore") or a is None or b is None:
        raise FieldProblem(at, "Turning and boring are split, once both diameters are there.")
    if abs(a - b) / 2 <= leave_mm * (1 + 1e-9):
        raise FieldProblem(at, "There is too little stock to rough and finish it: it is one cut.")
    if len(items_at(document, at)) >= rule.most:
        raise FieldProblem(at, f"A plan takes {rule.most} of these; take one out first.")
    middle = round(b + (2 * leave_mm if a > b else -2 * leave_mm), 6)
    names = [f"{cut.name}, {word}"[:NAME_MOST] for word in ("roughing", "finishing")]
    try:
        rough = replace(cut, name=names[0], to_diameter_mm=middle, stage="rough")
        finish = replace(
            cut, id=ids.new(), name=names[1], from_diameter_mm=middle, stage="finish", tool="", depth_mm=leave_mm
        )
    except CalcError as error:
        raise CalcError(FieldError(at, e.sentence) for e in error.errors) from error
    changes = list(changed(write(cut), write(rough), path))
    return [*changes, Change(f"{at}.{finish.id}", put(write(finish), cut.id))]


def with_figures(document: Any, path: str, figures: Mapping[str, object]) -> list[Change]:
    """An operation's figures replaced. Raises CalcError at its list."""
    cut = _cut(document, path)
    before = write(cut)
    try:
        after = write(read(PlannedCut, before | dict(figures)))
    except CalcError as error:
        raise CalcError(FieldError(_list_of(path)[0], e.sentence) for e in error.errors) from error
    return list(changed(before, after, path))


def changed(before: Any, after: Any, at: str = "") -> Iterator[Change]:
    """Every fact in which plain data differs from what it was; lists must have the same items in the same order."""
    if isinstance(before, dict) and isinstance(after, dict):
        for name, value in after.items():
            yield from changed(before[name], value, f"{at}.{name}" if at else name)
    elif isinstance(before, list) and isinstance(after, list) and before != after:
        for one, two in zip(before, after, strict=True):
            yield from changed(one, two, f"{at}.{one['id']}")
    elif before != after:
        yield Change(at, after)

"""The order of a set-up's operations: moving one, and splitting one into roughing and finishing."""

from __future__ import annotations

from typing import Any

from calc.errors import CalcError, FieldError, FieldProblem
from calc.plan.lists import list_at
from calc.plan.paths import value_at
from calc.plan.planned_cut import PlannedCut
from calc.profile.steps import NAME_MOST
from calc.quantities import Sentence
from calc.reading import read, write

SPLITS = ("turn", "bore")


def _cuts(document: Any, path: str, index: int) -> list[Any]:
    if list_at(path).stop != "cuts":
        raise FieldProblem(path, "Only operations are put in an order of their own.")
    try:
        items = list(value_at(document, path))
    except KeyError as error:
        raise FieldProblem(path, "There is no such list in this plan.") from error
    if not 0 <= index < len(items):
        raise FieldProblem(path, "There is no such cut any more.")
    return items


def moved_item(document: Any, path: str, index: int, to: int) -> list[Any]:
    """The list with one operation at another place. `document` is plain data. Raises FieldProblem at the list."""
    items = _cuts(document, path, index)
    if not 0 <= to < len(items):
        raise FieldProblem(path, "It is at the end already.")
    items.insert(to, items.pop(index))
    return items


def split_item(document: Any, path: str, index: int, leave_mm: float) -> list[Any]:
    """The list with one operation as two: roughing that leaves `leave_mm` a side, and finishing.

    Raises CalcError at the list.
    """
    items = _cuts(document, path, index)
    rule = list_at(path)
    cut: PlannedCut = read(PlannedCut, items[index])
    a, b = cut.from_diameter_mm, cut.to_diameter_mm
    if cut.kind not in SPLITS or a is None or b is None:
        raise FieldProblem(path, "Turning and boring are split, once both diameters are there.")
    if abs(a - b) / 2 <= leave_mm * (1 + 1e-9):
        raise FieldProblem(path, "There is too little stock to rough and finish it: it is one cut.")
    if len(items) >= rule.most:
        raise FieldProblem(path, f"A plan takes {rule.most} of these; take one out first.")
    middle = round(b + (2 * leave_mm if a > b else -2 * leave_mm), 6)
    taken = {str(i["name"]).casefold() for i in items}
    words = (_free(f"{cut.name}, roughing", taken), _free(f"{cut.name}, finishing", taken))
    plain = write(cut)
    try:
        rough = read(PlannedCut, plain | {"name": words[0], "to_diameter_mm": middle, "stage": "rough"})
        finish = read(
            PlannedCut,
            plain | {"name": words[1], "from_diameter_mm": middle, "stage": "finish", "tool": "", "depth_mm": leave_mm},
        )
    except CalcError as error:
        raise CalcError(FieldError(path, e.sentence) for e in error.errors) from error
    return [*items[:index], write(rough), write(finish), *items[index + 1 :]]


def _free(name: str, taken: set[str]) -> str:
    """A name that is not taken yet, no longer than a name may be."""
    short = name[:NAME_MOST]
    return next(
        n for n in (short, *(f"{short[: NAME_MOST - 3]} {i}" for i in range(2, 99))) if n.casefold() not in taken
    )


def with_figures(document: Any, path: str, index: int, figures: dict[str, Any]) -> list[Any]:
    """The list with an operation's figures replaced. Raises CalcError at the list."""
    items = _cuts(document, path, index)
    try:
        changed = read(PlannedCut, items[index] | figures)
    except CalcError as error:
        raise CalcError(FieldError(path, Sentence("{s}", s=e.sentence)) for e in error.errors) from error
    return [*items[:index], write(changed), *items[index + 1 :]]

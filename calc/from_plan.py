"""What a plan asked its calculators: taken to look at by itself, and back into the plan's facts that it came from."""

from __future__ import annotations

from collections.abc import Iterator, Mapping
from dataclasses import dataclass, fields, is_dataclass
from typing import Any

from calc.catalog import CALCULATORS
from calc.fields import Quantity, fields_of
from calc.plan.compute import PlanResult
from calc.plan.cuts.solve import CUTS, CutFigures
from calc.plan.document import Setup
from calc.plan.force.held import LoadHeld
from calc.plan.force.solve import FORCE
from calc.plan.hold.solve import HOLD
from calc.plan.jaws.solve import JAWS
from calc.plan.outcome import Solved
from calc.plan.route.solve import ROUTE
from calc.plan.view import View
from calc.results import Explained

STOPS: tuple[tuple[Solved[Any], str], ...] = ((HOLD, "Hold"), (JAWS, "Jaws"), (CUTS, "Cuts"), (FORCE, "Force"))
INPUTS = frozenset(c.input for c in CALCULATORS.values())
PARTS = ("hold", "jaws", "force")  # of a set-up
DEEP = 6  # figures within figures: further down there are no answers


@dataclass(frozen=True)
class Taken:
    """What a stop of a plan asked: where, the calculator's input, and the facts of the plan that fields of it are."""

    words: str
    given: Any
    paths: Mapping[str, str]


def taken(result: PlanResult, name: str) -> list[Taken]:
    """Everything that a plan asked one calculator, in the order of its sides and stops; the same question once.

    Raises KeyError where there is no such calculator.
    """
    kind = CALCULATORS[name].input
    # Two calculators may share an input: each takes what the other was asked.
    found: dict[Any, Taken] = {}
    for place, view in enumerate(result.views):
        side = view.setup.name.split(",")[0] if len(result.views) > 1 else ""
        for words, cut, given in _asked(view, whole=place == 0):
            if isinstance(given, kind) and given not in found:
                where = " · ".join(w for w in (side, words) if w)
                found[given] = Taken(where, given, _paths(view, cut, given))
    return list(found.values())


@dataclass(frozen=True)
class _Where:
    """What of a stop a figure is of: a cut by its name, or a load."""

    words: str = ""
    cut: CutFigures | None = None


def _asked(view: View, *, whole: bool) -> Iterator[tuple[str, CutFigures | None, Any]]:
    """(where, the cut it is of, what a calculator was given) of every answer in a set-up's figures."""
    seen: set[int] = set()
    for solved, title in (*STOPS, *([(ROUTE, "Route")] if whole else [])):
        for where, given in _within(view[solved], _Where(), seen, DEEP):
            words = where.words if where.cut is not None else ", ".join(w for w in (title, where.words) if w)
            yield words, where.cut, given


def _within(value: Any, where: _Where, seen: set[int], deep: int) -> Iterator[tuple[_Where, Any]]:
    if deep == 0 or id(value) in seen:
        return
    seen.add(id(value))
    if type(value) in INPUTS:
        yield where, value
    elif isinstance(value, Explained):
        if value.given is not None:
            yield where, value.given
    elif isinstance(value, tuple):
        for one in value:
            yield from _within(one, where, seen, deep - 1)
    elif is_dataclass(value) and not isinstance(value, type):
        match value:
            case CutFigures():
                where = _Where(value.name, value)
            case LoadHeld():
                where = _Where(value.name)
        for field in fields(value):
            yield from _within(getattr(value, field.name, None), where, seen, deep - 1)


def _paths(view: View, cut: CutFigures | None, given: Any) -> dict[str, str]:
    """Which fields are facts that were entered in the plan: of the same name there, with the same value.

    A term has one name throughout, so that what has another value is another thing: it is then not put back.
    """
    found = {}
    owners = list(_owners(view.setup, view.at, cut))
    owners.append((view.document.part, "part"))
    for field in fields_of(type(given)):
        if not isinstance(field.spec, Quantity) or field.many:
            continue
        value = getattr(given, field.name)
        for owner, at in owners:
            if value is not None and getattr(owner, field.name, None) == value:
                found[field.key] = f"{at}.{field.name}"
                break
    return found


def _owners(setup: Setup, at: str, cut: CutFigures | None) -> Iterator[tuple[Any, str]]:
    if cut is not None:
        # As it was entered: what its tool says is not the cut's own.
        yield from ((c, f"{at}.cuts.{c.id}") for c in setup.cuts if c.id == cut.id)
        return
    for part in PARTS:
        yield getattr(setup, part, None), f"{at}.{part}"

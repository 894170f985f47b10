"""How a plan stands, in little: what the bench lists and what an edit's history tells, without the drawing."""

from __future__ import annotations

from collections.abc import Mapping, Sequence
from dataclasses import dataclass
from typing import Any

from calc.plan.all_stops import ALL_STOPS
from calc.plan.compute import PlanResult, compute
from calc.plan.document import Document
from calc.plan.outcome import State
from calc.plan.route.solve import ROUTE
from calc.plan.stop import Stop
from calc.plan.stop_kind import Headline
from calc.plan.view import View
from calc.quantities import Figure, System
from calc.shelf.taken import Shelf


def headlines() -> dict[str, Headline]:
    """The figures of the stops that the history tells, by name."""
    return {h.name: h for kind in ALL_STOPS for h in kind.headlines if h.told}


def bench_figures() -> tuple[Headline, ...]:
    """The figures of the stops that the bench shows of every side, in the order of its columns."""
    shown = [h for kind in ALL_STOPS for h in kind.headlines if h.place is not None]
    return tuple(sorted(shown, key=lambda h: h.place or 0))


ATTENTION: dict[State, int] = {"stopped": 0, "open": 1, "settled": 2}


@dataclass(frozen=True)
class RunMinutes:
    """What the board counts of a run [min]: its set-up, the run, and how long it goes on without people."""

    setup: float
    run: float
    alone: float


@dataclass(frozen=True)
class Standing:
    """Every stop in one line, the verdict, how many values are proposed still, and figures in core units (None: not
    known): those that the history tells, and those that the bench shows of each side; minutes and tools for the board.
    """

    stops: tuple[Stop, ...]
    verdict: State
    headlines: dict[str, float | None]
    sides: tuple[dict[str, float | None], ...]
    proposed: int = 0
    minutes: RunMinutes | None = None
    turret: tuple[str, ...] = ()  # the keys of the tools that it puts in

    @property
    def attention(self) -> int:
        """0 stopped, 1 open, 2 settled: the order of the bench."""
        return ATTENTION[self.verdict]

    @property
    def needs(self) -> Stop | None:
        """The stop to look at next."""
        for state in ("stopped", "open"):
            for stop in self.stops:
                if stop.state == state:
                    return stop
        return None


def figures_of(view: View) -> dict[str, float | None]:
    """What the bench shows of a side, by name."""
    return {h.name: h.value(view) for h in bench_figures()}


def headline_text(name: str, value: float | None, system: System) -> str:
    """A headline figure as it reads, such as "2 480 rpm"."""
    told = headlines()[name]
    return "not known" if value is None else Figure(value, told.unit, told.rounding).text(system)


def bench_words(figures: Mapping[str, float | None], system: System) -> dict[str, str]:
    """What the bench shows of a side as it reads, such as "2 480 rpm"; empty where it is not known."""
    return {
        h.name: "" if (value := figures.get(h.name)) is None else Figure(value, h.unit, h.rounding).text(system)
        for h in bench_figures()
    }


def moved_words(pairs: Mapping[str, Sequence[float | None]], system: System) -> list[str]:
    """Headline figures that moved, each as "cap 2 350 rpm → 2 480 rpm"; what is told no more is left out."""
    return [
        f"{h.label} {headline_text(name, pairs[name][0], system)} → {headline_text(name, pairs[name][1], system)}"
        for name, h in headlines().items()
        if name in pairs
    ]


def standing(document: Document, shelf: Shelf) -> Standing:
    """How a plan stands. Never raises for bad facts."""
    return standing_of(compute(document, shelf))


def standing_of(result: PlanResult) -> Standing:
    """The same of a plan already computed."""
    last = {name: h.value(result.views[-1]) for name, h in headlines().items()}
    sides = tuple(figures_of(view) for view in result.views)
    route = result.views[0][ROUTE]
    minutes = RunMinutes(route.run.setup_min, route.run.run_min, route.run.alone_min) if route else None
    turret = tuple(dict.fromkeys(c.tool for s in result.views[0].document.setups for c in s.cuts if c.tool))
    return Standing(result.stops, result.verdict, last, sides, len(result.proposed), minutes, turret)


def moved(before: dict[str, Any], after: dict[str, float | None]) -> dict[str, list[float | None]]:
    """Headline figures that differ: name -> [before, after]."""
    return {
        name: [before[name], value]
        for name, value in after.items()
        if name in before and not _same(before[name], value)
    }


def _same(a: float | None, b: float | None) -> bool:
    if a is None or b is None:
        return a is b
    return abs(a - b) <= 1e-9 * max(1.0, abs(a), abs(b))

"""Settle a whole set-up: all operations together with the chuck's pressure and the spindle clamp."""

from __future__ import annotations

from collections.abc import Callable
from dataclasses import dataclass, replace

import numpy as np

from calc.errors import CalcError, FieldProblem
from calc.plan.cuts.solve import CUTS
from calc.plan.document import Document, setup_path
from calc.plan.force.demand import DEMAND
from calc.plan.force.load import load_of
from calc.plan.force.solve import FORCE
from calc.plan.hold.solve import HOLD
from calc.plan.outcome import Figures
from calc.plan.part.solve import PART
from calc.plan.paths import replaced
from calc.plan.solve import solve
from calc.quantities import Figure, Sentence
from calc.settle.candidates import COARSE, Candidates, Settling, candidates
from calc.settle.operation import Settled, figures_of, given_up, keeps_all, kept_by, loss_of, settle_operation, with_cut
from calc.shelf.taken import Shelf

PRESSURES, CLAMPS = 12, 16
PRESSURE_STEP_BAR, CLAMP_STEP_RPM = 0.5, 10.0
TRIED = 40
CLOSE = 1.0 + 1e-6


@dataclass(frozen=True)
class SetupSettled:
    """A set-up settled: the document as it would be, each cut, and the whole time in cut before and after [min]."""

    document: Document
    cuts: tuple[Settled, ...]
    pressure_bar: float
    clamp_rpm: float
    minutes_before: float
    minutes: float
    words: Sentence


@dataclass(frozen=True, eq=False)
class _Frontier:
    """Least time of one operation by the grip that it may need, at one clamp."""

    needed: np.ndarray
    minutes: np.ndarray
    rows: np.ndarray
    found: Candidates

    def best(self, grip_n: float) -> tuple[float, int] | None:
        """(minutes, row) of the fastest candidate that needs no more than this grip; None where there is none."""
        k = int(np.searchsorted(self.needed, grip_n * (1 + 1e-12), side="right")) - 1
        return None if k < 0 else (float(self.minutes[k]), int(self.rows[k]))


def _frontier(found: Candidates, *, strict: bool) -> _Frontier | None:
    gone = given_up(found, found.limits) if strict else found.soft
    rows = np.flatnonzero(kept_by(found.limits, gone))
    if rows.size == 0:
        return None
    rows = rows[np.lexsort((found.minutes[rows], found.needed[rows]))]
    times = found.minutes[rows]
    best = np.minimum.accumulate(times)
    first = np.r_[True, best[1:] < best[:-1]]  # each row that is faster than every one that needs less
    keep = np.flatnonzero(first)
    return _Frontier(found.needed[rows[keep]], times[keep], rows[keep], found)


def _pressures(document: Document, shelf: Shelf, index: int, figures: Figures) -> list[tuple[float, Figures]]:
    """Pressures that wall, guides and cylinder allow, each with the plan's figures at it."""
    setup, hold = document.setups[index], figures[HOLD]
    assert hold is not None
    now = setup.force.pressure_bar
    chart = hold.chuck.force.chart
    least = chart[0].pressure_bar if chart else 2.0
    values = np.unique(
        np.round(np.linspace(least, hold.chuck.force.max_pressure_bar, PRESSURES) / PRESSURE_STEP_BAR)
        * PRESSURE_STEP_BAR
    )
    wanted = [float(v) for v in values if least - 1e-9 <= v <= hold.chuck.force.max_pressure_bar + 1e-9]
    if setup.force.pin_pressure and now is not None:
        wanted = [now]
    elif now is not None:
        wanted = sorted({*wanted, now})
    found = []
    for pressure in wanted:
        tried = solve(replaced(document, f"{setup_path(document, index)}.force.pressure_bar", pressure), shelf, index)
        force = tried[FORCE]
        if (
            force is not None
            and not force.grip.overloaded
            and not any(n.code in ("wall-limit", "overload") and n.level == "stop" for n in force.notes)
        ):
            found.append((pressure, tried))
    return found


def settle_setup(
    document: Document, shelf: Shelf, index: int, tell: Callable[[int, int], None] = lambda *_: None
) -> SetupSettled:
    """The fastest figures of all cuts of a set-up together, with pressure and clamp.

    Parameters
        document, shelf: the plan; index: the set-up
        tell: is told how far it has come, as steps done of all steps
    Returns
        the document as it would be, each cut's figures and what binds it, pressure [bar], clamp [rpm], time in cut
        [min]
    Raises
        FieldProblem where figures are missing, or where no pressure and clamp hold every cut
    Notes
        Pressure and clamp are tried on a grid; at each the cuts are independent of one another, because the worst of
        them rules the grip. Each cut is then settled finely. The winner is put to the whole plan and must pass.

    Reference
        docs/method.md, “Settling”
    """
    at, setup = setup_path(document, index), document.setups[index]
    figures = solve(document, shelf, index)
    part, cuts, demand, hold, force = (figures[PART], figures[CUTS], figures[DEMAND], figures[HOLD], figures[FORCE])
    if cuts is None or part is None or not cuts.cuts:
        raise FieldProblem(
            f"{at}.cuts",
            Sentence("{why}: settle the set-up when its figures are there.", why=figures.outcome(CUTS).line),
        )
    if force is None or demand is None or hold is None:
        raise FieldProblem(f"{at}.cuts", Sentence("Settling needs the grip: {why}.", why=figures.outcome(FORCE).line))
    most = min(v for v in (part.machine.max_rpm, hold.chuck.max_rpm, setup.force.user_max_rpm) if v is not None)
    steps = np.unique(np.floor(np.geomspace(most / 12, most, CLAMPS) / CLAMP_STEP_RPM) * CLAMP_STEP_RPM)
    clamps = [float(c) for c in steps if c > 0]
    pressures = _pressures(document, shelf, index, figures)
    if not pressures:
        raise FieldProblem(
            f"{at}.force.pressure_bar", "No pressure is allowed by wall, guides and cylinder: see Force."
        )
    given = [Settling(c, part, document.in_force, demand.asked, load_of(c, hold, setup.hold.seat)) for c in cuts.cuts]
    ways, steps_of = [], len(clamps) + len(given)  # the grid, then each cut finely
    for done, clamp in enumerate(clamps):
        tell(done, steps_of)
        ways.append([candidates(one, clamp, COARSE) for one in given])
    # With all that breaks a chip; where the grip does not stand that, without.
    for strict in (True, False):
        plans = _plans(list(zip(clamps, ways, strict=True)), pressures, hold.side, strict=strict)
        for _, pressure, clamp, rows in plans[:TRIED]:
            made = _made(document, index, pressure, clamp, rows)
            if made is not None and keeps_all(solve(made, shelf, index)):
                return _refined(document, made, shelf, index, lambda cut: tell(len(clamps) + cut, steps_of))
    raise FieldProblem(
        f"{at}.cuts",
        "No pressure and clamp hold every cut with figures that its edge takes: see Force for what would help.",
    )


Way = tuple[float, float, float, list[tuple[_Frontier, int]]]


def _plans(
    ways: list[tuple[float, list[Candidates]]], pressures: list[tuple[float, Figures]], side: str, *, strict: bool
) -> list[Way]:
    """(minutes, pressure, clamp, a candidate of each cut), the fastest first; among equals the lower pressure, the
    slower clamp.
    """
    plans: list[Way] = []
    for clamp, cuts in ways:
        fronts = [f for f in (_frontier(c, strict=strict) for c in cuts) if f is not None]
        if len(fronts) < len(cuts):
            continue
        for pressure, tried in pressures:
            held = tried[FORCE]
            assert held is not None
            grip = held.grip.grip_n - loss_of(held, side) * clamp**2
            best = [f.best(grip) for f in fronts]
            rows = [(f, b[1]) for f, b in zip(fronts, best, strict=True) if b is not None]
            if len(rows) == len(fronts):
                plans.append((sum(b[0] for b in best if b is not None), pressure, clamp, rows))
    return sorted(plans, key=lambda p: (round(p[0], 6), p[1], p[2]))


def _made(
    document: Document, index: int, pressure: float, clamp: float, rows: list[tuple[_Frontier, int]]
) -> Document | None:
    at = setup_path(document, index)
    try:
        made = replaced(replaced(document, f"{at}.force.pressure_bar", pressure), f"{at}.clamp_rpm", clamp)
        for front, row in rows:
            made = with_cut(made, index, front.found.cut.id, figures_of(front.found.cut, front.found, row))
    except CalcError:
        return None
    return made


def _refined(before: Document, made: Document, shelf: Shelf, index: int, tell: Callable[[int], None]) -> SetupSettled:
    """Each cut settled finely at this pressure and clamp, one after the other."""
    settled: list[Settled] = []
    was = solve(before, shelf, index)[CUTS]
    before_by_id = {c.id: c.minutes for c in was.cuts} if was else {}
    minutes_before = was.minutes if was else 0.0
    for place, cut in enumerate([c.id for c in made.setups[index].cuts]):
        tell(place)
        one = settle_operation(made, shelf, index, cut)
        made = with_cut(
            made,
            index,
            cut,
            {
                n: getattr(one.planned, n)
                for n in ("feed_mm_rev", "depth_mm", "speed_m_min", "passes", "slow_feed_mm_rev")
            },
        )
        settled.append(replace(one, minutes_before=before_by_id.get(cut, one.minutes_before)))
    setup = made.setups[index]
    pressure, clamp = setup.force.pressure_bar or 0.0, setup.clamp_rpm or 0.0
    after = sum(s.minutes for s in settled)
    words = Sentence(
        "{p}, clamp {n}: {a} in cut instead of {b}",
        p=Figure(pressure, "bar"),
        n=Figure(clamp, "rpm"),
        a=Figure(after, "min", "up"),
        b=Figure(minutes_before, "min", "up"),
    )
    return SetupSettled(made, tuple(settled), pressure, clamp, minutes_before, after, words)

"""Settle a whole set-up: every operation with a clamp of its own, and the chuck's pressure."""

from __future__ import annotations

from collections.abc import Callable, Iterator
from dataclasses import dataclass, replace

import numpy as np

from calc.chuck.grip import ChuckGripInput, chuck_grip
from calc.errors import CalcError, FieldProblem
from calc.plan.cuts.cleaning import thread_of
from calc.plan.cuts.clear import CLEAR
from calc.plan.cuts.inputs import PlannedCut
from calc.plan.document import Document, setup_path
from calc.plan.paths import replaced
from calc.plan.solve import solve
from calc.quantities import Figure, Sentence
from calc.settle.binding import given_up, kept_by
from calc.settle.candidates import Candidates, Goal, Settling, candidates
from calc.settle.grid import COARSE, Tried, tried_on
from calc.settle.grip import Grip
from calc.settle.known import Known, grip_of, known_of, settling_of
from calc.settle.operation import settle_one
from calc.settle.trial import Trial, keeps_all, with_cut
from calc.settle.winner import Settled
from calc.shelf.taken import Shelf

PRESSURES, NEAR = 12, 10
PRESSURE_STEP_BAR = 0.1
LEAST_BAR = 4.0  # typical: below it a cylinder without a chart does not move surely
SPARE = 1.15  # of the least pressure that is as quick, where the others allow it: grease and gauge drift
TRIED = 5
APART = 0.015  # of a pressure that the whole plan does not take: one as near to it is not taken either
SAME = 1.0 + 1e-4  # of the time: pressures that differ by less are as good, and the lowest is taken
KEPT = ("feed_mm_rev", "depth_mm", "speed_m_min", "passes", "slow_feed_mm_rev", "clamp_rpm")


@dataclass(frozen=True)
class SetupSettled:
    """A set-up settled: the document as it would be, each cut, and the whole time in cut before and after [min]."""

    document: Document
    cuts: tuple[Settled, ...]
    pressure_bar: float
    clamp_rpm: float
    minutes_before: float
    minutes: float
    gains: bool
    words: Sentence


@dataclass(frozen=True, eq=False)
class _Way:
    """A pressure [bar] with its grip, and the least counted time [min] of all cuts at it."""

    pressure: float
    grip: Grip
    counted: float


def _least(given: Settling, tried: Tried, grip: Grip) -> float | None:
    """The least counted time [min] of a cut with a grip; None where nothing is held."""
    found: Candidates = candidates(given, tried, grip)
    keep = kept_by(found.limits, given_up(found))
    return float(found.counted[keep].min()) if keep.any() else None


@dataclass(frozen=True, eq=False)
class _Search:
    """What pressures are searched with."""

    known: Known
    document: Document
    index: int
    given: tuple[Settling, ...]
    tried: tuple[Tried, ...]

    def grip(self, pressure: float) -> Grip | None:
        """The grip at a pressure [bar]; None where chuck, cylinder or wall do not allow it."""
        hold, force = self.known.hold, self.known.force
        try:
            found = chuck_grip(
                ChuckGripInput(pressure, hold.grip_height_mm, hold.chuck.force, force.condition, hold.chuck.jaws)
            )
        except CalcError:
            return None
        wall = force.wall.limit_n if force.wall else None
        if found.overloaded or any(n.level == "stop" for n in found.notes):
            return None
        if wall is not None and found.grip_n > wall * (1 + 1e-9):
            return None
        return grip_of(self.known, self.document, self.index, found.grip_n)

    def way(self, pressure: float) -> _Way | None:
        """What a pressure allows; None where it does not hold every cut."""
        grip = self.grip(pressure)
        if grip is None:
            return None
        times = []
        for given, tried in zip(self.given, self.tried, strict=True):
            least = _least(given, tried, grip)
            if least is None:
                return None
            times.append(least)
        return _Way(pressure, grip, sum(times))


def _pressures(document: Document, index: int, known: Known) -> list[float]:
    """Pressures [bar] over what the chuck has, the planned one among them; that alone where it is pinned."""
    setup, force = document.setups[index], known.hold.chuck.force
    now = setup.force.pressure_bar
    if setup.force.pin_pressure and now is not None:
        return [now]
    least = force.chart[0].pressure_bar if force.chart else LEAST_BAR
    most = min(force.max_pressure_bar, force.chart[-1].pressure_bar if force.chart else force.max_pressure_bar)
    values = {_stepped(float(p)) for p in np.linspace(least, most, PRESSURES)} | {least, most}
    return sorted(p for p in values | ({now} if now is not None else set()) if least - 1e-9 <= p <= most + 1e-9)


def _stepped(pressure: float) -> float:
    return round(float(np.floor(pressure / PRESSURE_STEP_BAR + 1e-6)) * PRESSURE_STEP_BAR, 6)


def _ways(search: _Search, tell: Callable[[int], None]) -> list[_Way]:
    """Ways at every pressure, then between the neighbours of the best, best first; of equals the lowest pressure."""
    pressures = _pressures(search.document, search.index, search.known)
    found: dict[float, _Way | None] = {}

    def look(values: list[float]) -> None:
        for p in values:
            if p not in found:
                tell(len(found))
                found[p] = search.way(p)

    look(pressures)
    for _ in range(2):
        ways = _ranked(found)
        if not ways or len(pressures) == 1:
            break
        known = sorted(found)
        at = known.index(ways[0].pressure)
        low, high = known[max(0, at - 1)], known[min(len(known) - 1, at + 1)]
        look(sorted({_stepped(float(p)) for p in np.linspace(low, high, NEAR)}))
    return _ranked(found)


def _ranked(found: dict[float, _Way | None]) -> list[_Way]:
    """The quickest first; of those that are as quick the one with a little to spare over the lowest."""
    ways = [w for w in found.values() if w is not None]
    if not ways:
        return []
    best = min(w.counted for w in ways)
    wanted = SPARE * min(w.pressure for w in ways if w.counted <= best * SAME)

    def key(way: _Way) -> tuple[float, float, float]:
        as_quick = way.counted <= best * SAME
        return (best if as_quick else way.counted, abs(way.pressure - wanted), way.pressure)

    return sorted(ways, key=key)


def settle_setup(
    document: Document,
    shelf: Shelf,
    index: int,
    tell: Callable[[int, int], None] = lambda *_: None,
    goal: Goal = "quickest",
) -> SetupSettled:
    """The best figures of all cuts of a set-up together, each with a clamp of its own, and the pressure.

    Parameters
        document, shelf: the plan; index: the set-up
        tell: is told how far it has come, as steps done of all steps
        goal: the quickest piece, edge changes counted; the cheapest, edges counted as the minutes that they cost; or
            long edge life
    Returns
        the document as it would be, each cut's figures and what binds it, pressure [bar], the lowest clamp [rpm],
        time in cut [min]
    Raises
        FieldProblem where figures are missing, where a cut cannot be run as it lies, or where no pressure holds every
        cut
    Notes
        At a pressure the cuts are independent of one another: each has its own clamp and is judged at its own speed.
        Pressures are tried over the whole range and again about the best. Each cut is then settled finely. The winner
        is put to the whole plan and must pass.

    Reference
        docs/method.md, “Settling”
    """
    at = setup_path(document, index)
    known = known_of(document, shelf, index, f"{at}.cuts")
    _can_be_run(known, at)
    given = tuple(settling_of(known, document, index, c, goal) for c in known.cuts)
    search = _Search(known, document, index, given, tuple(tried_on(g.cut, g.part, COARSE) for g in given))
    steps = PRESSURES + 2 * NEAR + len(given)
    ways = _ways(search, lambda done: tell(min(done, steps), steps))
    if not ways and not any(search.grip(p) for p in _pressures(document, index, known)):
        raise FieldProblem(
            f"{at}.force.pressure_bar", "No pressure is allowed by wall, guides and cylinder: see Force."
        )
    for way in _apart(ways):
        made = _settled_at(search, shelf, way, lambda cut: tell(min(PRESSURES + 2 * NEAR + cut, steps), steps))
        if made is not None:
            return made
    raise FieldProblem(
        f"{at}.cuts", "No pressure holds every cut with figures that its edge takes: see Force for what would help."
    )


def _apart(ways: list[_Way]) -> Iterator[_Way]:
    """The best ways, none with nearly the pressure of one before it."""
    seen: list[float] = []
    for way in ways:
        if len(seen) == TRIED:
            return
        if all(abs(way.pressure - p) > APART * p for p in seen):
            seen.append(way.pressure)
            yield way


def _can_be_run(known: Known, at: str) -> None:
    """Raise where a cut would run into something, or into nothing that figures could change."""
    clear = known.figures[CLEAR]
    for cut, notes in clear.by_cut.items() if clear else ():
        for note in notes:
            if note.level == "stop":
                raise FieldProblem(f"{at}.cuts.{cut}", note.sentence)


def _settled_at(search: _Search, shelf: Shelf, way: _Way, tell: Callable[[int], None]) -> SetupSettled | None:
    """Every cut settled finely at a pressure; None where the whole plan does not take it."""
    index, at = search.index, setup_path(search.document, search.index)
    made = replaced(search.document, f"{at}.force.pressure_bar", way.pressure)
    settled: list[Settled] = []
    try:
        for place, free in enumerate(search.given):
            tell(place)
            given = _as_its_thread(free, [s.planned for s in settled])
            one = settle_one(Trial(made, shelf, index, given.cut.id), given, way.grip)
            made = with_cut(made, index, given.cut.id, {n: getattr(one.planned, n) for n in KEPT})
            settled.append(one)
        clamps = list(_clamps(made, index))
        if clamps:
            made = replaced(made, f"{at}.clamp_rpm", min(clamps))
    except CalcError:
        return None
    figures = solve(made, shelf, index)
    if not keeps_all(figures):
        return None
    return _told(search, made, tuple(settled), way)


def _as_its_thread(given: Settling, settled: list[PlannedCut]) -> Settling:
    """A spring pass turns as its thread does, and is judged by the chip of its passes; any other cut as it is."""
    planned = given.cut.planned
    thread = thread_of(planned, settled) if planned.springs else None
    if thread is None:
        return given
    same = replace(planned, passes=thread.passes, speed_m_min=thread.speed_m_min, rpm=thread.rpm, pin_speed=True)
    return replace(given, cut=replace(given.cut, planned=same))


def _clamps(document: Document, index: int) -> Iterator[float]:
    for cut in document.setups[index].cuts:
        if cut.clamp_rpm is not None and cut.rpm is None:
            yield cut.clamp_rpm


def _told(search: _Search, made: Document, settled: tuple[Settled, ...], way: _Way) -> SetupSettled:
    clamp = made.setups[search.index].clamp_rpm or 0.0
    before, after = sum(c.minutes for c in search.known.cuts), sum(s.minutes for s in settled)
    could_run = keeps_all(search.known.figures)
    gains = not could_run or (any(s.gains for s in settled) and after < before * (1 - 1e-3)) or _life_gains(settled)
    words = Sentence(
        "{p}, each cut with its own clamp: {a} in cut instead of {b}"
        if gains
        else "{p}: {a} in cut; as planned it is as good, {b}",
        p=Figure(way.pressure, "bar"),
        a=Figure(after, "min", "up"),
        b=Figure(before, "min", "up"),
    )
    whole = tuple(replace(s, minutes_before=b.minutes) for s, b in zip(settled, search.known.cuts, strict=True))
    return SetupSettled(made, whole, way.pressure, clamp, before, after, gains, words)


def _life_gains(settled: tuple[Settled, ...]) -> bool:
    """What is gained is edge life: as planned, a cut's edge does not last."""
    return any(s.gains and s.minutes >= s.minutes_before for s in settled)

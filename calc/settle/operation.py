"""Settle one operation: the best passes, feed, speed and clamp inside every limit at once, and what binds."""

from __future__ import annotations

from collections.abc import Callable
from dataclasses import dataclass, replace
from functools import cached_property
from typing import Any

import numpy as np

from calc.errors import CalcError, FieldProblem
from calc.plan.cuts.clear import CLEAR
from calc.plan.cuts.inputs import PlannedCut
from calc.plan.cuts.solve import CUTS, CutFigures
from calc.plan.document import Document, setup_path
from calc.plan.force.demand import BRAKING, DEMAND, DemandFigures
from calc.plan.force.held import FASTEST_RPM, crossing
from calc.plan.force.load import load_of, pressed_n
from calc.plan.force.solve import FORCE, ForceFigures
from calc.plan.hold.figures import HoldFigures
from calc.plan.hold.solve import HOLD
from calc.plan.outcome import Figures
from calc.plan.part.solve import PartFigures
from calc.plan.paths import place_of
from calc.plan.sides.driven import DRIVEN
from calc.plan.solve import solve
from calc.quantities import Figure, Sentence, counted
from calc.settle.binding import GAIN, Binding, Times, binding, forbidden, given_up, holds_back, kept_by
from calc.settle.candidates import CAP, GRIP, Candidates, Goal, Mask, Settling, candidates
from calc.settle.grid import FINE, Grid, tried_near, tried_on
from calc.settle.grip import Asking, Grip
from calc.shelf.taken import Shelf

TRIED = 60  # how many of the best are put to the whole plan before it is given up
# What is said of a single load: another cut's does not speak against this one.
OF_LOADS = ("over-cap", "little-grip-kept", "corner-slips", "grip-too-small")


@dataclass(frozen=True)
class Why:
    """What holds a settled operation back, and what would next; all of it in words."""

    binds: Binding | None
    then: Binding | None
    words: Sentence


@dataclass(frozen=True)
class Settled:
    """What an operation was settled at. `gives_up`: limits that clash and are not kept, each told; `figures` alone,
    and in `words` with what holds them back, which is looked for when it is asked. `gains`: it is better than what was
    planned, or that could not run.
    """

    id: str
    name: str
    planned: PlannedCut
    minutes_before: float
    minutes: float
    passes: int
    gives_up: tuple[str, ...]
    tried: int
    gains: bool
    figures: Sentence
    find_why: Callable[[], Why]

    @cached_property
    def why(self) -> Why:
        """What holds it back."""
        return self.find_why()

    @property
    def binds(self) -> Binding | None:
        """The limit that holds it back."""
        return self.why.binds

    @property
    def then(self) -> Binding | None:
        """The limit that would next."""
        return self.why.then

    @property
    def words(self) -> Sentence:
        """Its figures with what holds them back."""
        return self.why.words


@dataclass(frozen=True, eq=False)
class Known:
    """The figures of a set-up that settling starts from."""

    figures: Figures
    part: PartFigures
    hold: HoldFigures
    force: ForceFigures
    demand: DemandFigures
    cuts: tuple[CutFigures, ...]


def known_of(document: Document, shelf: Shelf, index: int, at: str) -> Known:
    """What settling starts from. Raises FieldProblem at a path where figures are missing."""
    figures = solve(document, shelf, index)
    part, cuts, demand, hold, force = figures[DRIVEN], figures[CUTS], figures[DEMAND], figures[HOLD], figures[FORCE]
    if cuts is None or part is None or not cuts.cuts:
        why = figures.outcome(CUTS).line
        raise FieldProblem(at, Sentence("{why}: settle it when its figures are there.", why=why))
    if force is None or demand is None or hold is None:
        raise FieldProblem(at, Sentence("Settling needs the grip: {why}.", why=figures.outcome(FORCE).line))
    return Known(figures, part, hold, force, demand, cuts.cuts)


def asking_of(known: Known, document: Document, index: int, cut: CutFigures) -> Asking:
    """What a cut asks of the grip."""
    rules = document.in_force
    factor = rules.interrupted if cut.job.interrupted else 1.0
    entered = document.setups[index].hold
    load, pressed = load_of(cut, known.hold, entered), pressed_n(known.hold, entered)
    second = known.force.second_rpm if cut.planned.kind == "part" else None
    most = FASTEST_RPM if second is None else second
    return Asking(known.demand.asked, known.demand.corner_asked, load, rules, factor, pressed, most)


def settling_of(known: Known, document: Document, index: int, cut: CutFigures, goal: Goal) -> Settling:
    """What a cut is settled in."""
    hold = document.setups[index].hold
    thrust = hold.centre_thrust_n if hold.live_centre else None
    return Settling(cut, known.part, document.in_force, goal, asking_of(known, document, index, cut), thrust)


def grip_of(known: Known, document: Document, index: int, static_n: float) -> Grip:
    """The grip at a static force [N], with everything that limits the spindle at it."""
    part, hold, force, setup = known.part, known.hold, known.force, document.setups[index]
    most = [
        ("the machine's speed", part.machine.max_rpm),
        ("the chuck's speed", hold.chuck.max_rpm),
        *((("your own limit", setup.force.user_max_rpm),) if setup.force.user_max_rpm is not None else ()),
        *_inside_limits(known, static_n),
    ]
    for place, load in enumerate(force.loads):
        if load.cut is not None or force.top_rpm <= 0:
            continue
        if load.name != BRAKING:
            if not _holds_parting(known, place, static_n):
                most.append((load.name, 0.0))
            continue

        def needed(rpm: float, beside: int = place) -> float:  # braking grows with the speed that it stops
            return known.demand.each(beside, rpm) * max(rpm / force.top_rpm, 1.0)

        meets = crossing(static_n, force.loss, needed, min(rpm for _, rpm in most))
        if meets is not None:
            most.append(("braking", meets))
    return Grip(static_n, force.loss, hold.side == "od", tuple(most))


def _holds_parting(known: Known, place: int, static_n: float) -> bool:
    """Whether a grip holds the piece at the speed at which the other spindle's side parts it off."""
    demand, force, rpm = known.demand, known.force, known.force.loads[place].top_rpm
    taken = force.loss * rpm * rpm
    worst = force.corner_condition * static_n - taken
    return static_n - taken >= demand.each(place, rpm) and worst >= demand.each_at_corner(place, rpm) / force.safety


def _inside_limits(known: Known, static_n: float) -> list[tuple[str, float]]:
    """Inside grip: where the wall or the guides carry no more of what speed adds."""
    force, hold = known.force, known.hold
    if hold.side == "od":
        return []
    pull = force.fastest.at_top.centrifugal_n / max(force.top_rpm, 1.0) ** 2 * max(1.0, force.transmission)
    found = [
        ("the guides", load.limit.step("n_guides").value)
        for load in force.loads[:1]
        if any(s.symbol == "n_guides" for s in load.limit.working)
    ]
    wall = force.wall.limit_n if force.wall else None
    if wall is not None and pull > 0:
        found.append(("the wall", float(np.sqrt(max(0.0, wall - static_n) / pull))))
    return found


def _order(found: Candidates, keep: Mask) -> Any:
    """Candidates that keep every limit, the best first; the longer life, then the fewer passes decide a tie."""
    rows = np.flatnonzero(keep)
    keys = (found.feed[rows], found.passes[rows], -np.round(found.life[rows], 6), np.round(found.counted[rows], 9))
    return rows[np.lexsort(keys)]


def figures_of(cut: CutFigures, found: Candidates, row: int) -> dict[str, Any]:
    """What a candidate enters into the plan."""
    planned = cut.planned
    feed, speed = round(float(found.feed[row]), 6), round(float(found.speed[row]), 6)
    changed: dict[str, Any] = {}
    if planned.kind != "thread":
        changed["feed_mm_rev"] = feed
        if planned.by_depth:
            changed["depth_mm"] = round(float(found.depth[row]), 6)
        if planned.slow_feed_mm_rev is not None and planned.feed_mm_rev:
            changed["slow_feed_mm_rev"] = round(feed * planned.slow_feed_mm_rev / planned.feed_mm_rev, 6)
    else:
        changed["passes"] = int(found.passes[row])
    if planned.rpm is None:
        changed["speed_m_min"] = speed
        changed["clamp_rpm"] = float(found.clamp[row])
    return changed


def with_cut(document: Document, index: int, cut: str, changed: dict[str, Any]) -> Document:
    """The document with the figures of a cut changed, by its id. Raises CalcError."""
    setup = document.setups[index]
    cuts = tuple(replace(c, **changed) if c.id == cut else c for c in setup.cuts)
    return replace(
        document, setups=tuple(replace(s, cuts=cuts) if i == index else s for i, s in enumerate(document.setups))
    )


def keeps_all(figures: Figures, cut: str | None = None) -> bool:
    """The whole plan's own word: nothing of the side's cuts, jaws' force, clearances or spindle is stopped.

    `cut`: only what is of this one, and what is of no cut.
    """
    force, cuts, clear = figures[FORCE], figures[CUTS], figures[CLEAR]
    if force is None or cuts is None or clear is None:
        return False
    if cut is None:
        return not any(n.level == "stop" for n in (*force.notes, *cuts.notes, *clear.notes))
    load, one = force.load_of(cut), next(c for c in cuts.cuts if c.id == cut)
    if load is None or load.is_over or load.held_corner < 1 - 1e-9:
        return False
    of_all = (n for n in force.notes if n.code not in OF_LOADS)
    return not any(n.level == "stop" for n in (*of_all, *one.notes, *clear.by_cut.get(cut, ())))


@dataclass(frozen=True, eq=False)
class Trial:
    """A plan in which a cut is settled: the document, the shelf, the set-up and the cut's id."""

    document: Document
    shelf: Shelf
    index: int
    cut: str

    def accepted(self, found: Candidates, row: int) -> PlannedCut | None:
        """The cut with a candidate's figures, where the whole plan takes it."""
        try:
            changed = with_cut(self.document, self.index, self.cut, figures_of(found.cut, found, row))
        except CalcError:
            return None
        if not keeps_all(solve(changed, self.shelf, self.index), self.cut):
            return None
        cuts = changed.setups[self.index].cuts
        return cuts[place_of(cuts, self.cut)]


def settle_operation(
    document: Document, shelf: Shelf, index: int, cut: str, goal: Goal = "quickest", grid: Grid = FINE
) -> Settled:
    """The best figures of one cut that every limit allows, with a clamp of its own; all else stays as it is.

    Parameters
        document, shelf: the plan; index: the set-up; cut: the operation's id
        goal: the quickest piece, edge changes counted; the cheapest, edges counted as the minutes that they cost; or
            long edge life
    Returns
        the cut with its figures, the time before and after [min], the limit that binds and the next one
    Raises
        FieldProblem where figures are missing, or where no candidate keeps every limit: told with what forbids it
    Notes
        Exhaustive over its grid and then over every step about its best, the same answer every time; the winner is put
        to the whole plan and must pass.

    Reference
        docs/method.md, “Settling”
    """
    at = f"{setup_path(document, index)}.cuts.{cut}"
    if all(c.id != cut for c in document.setups[index].cuts):
        raise FieldProblem(at, "There is no such cut in this plan any more.")
    known = known_of(document, shelf, index, at)
    one = next(c for c in known.cuts if c.id == cut)
    clear = known.figures[CLEAR]
    for note in clear.by_cut.get(cut, ()) if clear else ():
        if note.level == "stop":
            raise FieldProblem(at, note.sentence)
    given = settling_of(known, document, index, one, goal)
    return settle_one(
        Trial(document, shelf, index, cut), given, grip_of(known, document, index, known.force.grip.grip_n), grid
    )


def settle_one(trial: Trial, given: Settling, grip: Grip, grid: Grid = FINE) -> Settled:
    """A cut settled with a grip. Raises FieldProblem as `settle_operation`."""
    known = tried_on(given.cut, given.part, grid)
    found = candidates(given, known, grip)
    gone = given_up(found)
    rows = _order(found, kept_by(found.limits, gone))
    if len(rows):
        near = candidates(given, tried_near(given.cut, given.part, known, int(rows[0]), grid), grip)
        for one in (near, found):
            for row in _order(one, kept_by(one.limits, gone))[:TRIED]:
                settled = trial.accepted(one, int(row))
                if settled is not None:
                    return _Winner(given, grip, one, int(row), settled, found, gone).settled()
    at = f"{setup_path(trial.document, trial.index)}.cuts.{trial.cut}"
    raise FieldProblem(at, forbidden(given.cut.name, found.limits, gone))


@dataclass(frozen=True, eq=False)
class _Winner:
    """What was found of an operation, among what was tried: its candidates, the row, the limits given up."""

    given: Settling
    grip: Grip
    one: Candidates
    row: int
    planned: PlannedCut
    found: Candidates
    gone: tuple[str, ...]

    @property
    def times(self) -> Times:
        """Its time, with edge changes and without [min]."""
        return Times(float(self.one.counted[self.row]), float(self.one.minutes[self.row]))

    @property
    def gains(self) -> bool:
        """It is better than what was planned, or that could not run."""
        before = _counted_before(self.given)
        return before is None or self.times.counted < before * (1 - GAIN)

    @property
    def figures(self) -> Sentence:
        """What it is settled at."""
        return _told(self.planned, int(self.one.passes[self.row]))

    def why(self) -> Why:
        """What holds it back: each limit lifted in turn, on the fine grid."""
        grid = tried_on(self.given.cut, self.given.part, FINE)
        lifted = {
            GRIP: candidates(self.given, grid, self.grip.endless()),
            CAP: candidates(self.given, grid, self.grip.unlimited(2.0)),
        }
        binds = binding(self.found, self.times, self.gone, lifted)
        then = binding(self.found, self.times, (*self.gone, binds.name), lifted) if binds else None
        held_back = holds_back(binds, then, {CAP: self.grip.most_by})
        if not self.gains:
            words = Sentence("as planned it is as good: {b}.", b=held_back)
        elif self.gone:
            told = "{s}; {b}; not kept, because nothing keeps them all: {g}."
            words = Sentence(told, s=self.figures, b=held_back, g=", ".join(self.gone))
        else:
            words = Sentence("{s}; {b}.", s=self.figures, b=held_back)
        return Why(binds, then, words)

    def settled(self) -> Settled:
        """As it is told."""
        cut = self.given.cut
        return Settled(
            cut.id,
            cut.name,
            self.planned,
            cut.minutes,
            self.times.minutes,
            int(self.one.passes[self.row]),
            self.gone,
            len(self.found.feed),
            self.gains,
            self.figures,
            self.why,
        )


def _counted_before(given: Settling) -> float | None:
    """The time [min] of what is planned with its edge changes; None where it is stopped."""
    cut = given.cut
    if any(n.level == "stop" for n in cut.notes):
        return None
    life = cut.consulted.life
    if life is None:
        return cut.minutes
    if life.life_min < given.least_life_min * (1 - 1e-9):
        return None
    return cut.minutes * (1 + given.change_min / life.life_min)


def _told(planned: PlannedCut, passes: int) -> Sentence:
    """The figures that a cut is settled at."""
    feed = Figure(planned.feed_mm_rev or 0, "mm/rev", exact=True)
    speed = Figure(planned.speed_m_min or 0, "m/min")
    clamp = Sentence("")
    if planned.clamp_rpm is not None and planned.rpm is None:
        clamp = Sentence(", clamp {n}", n=Figure(planned.clamp_rpm, "rpm", "down"))
    if not planned.by_depth:
        return Sentence("{f}, {v}{c}", f=feed, v=speed, c=clamp)
    depth = Figure(planned.depth_mm or planned.width_mm or 0, "mm")
    count = counted(passes, "pass", "passes")
    return Sentence("{f}, {p} of {a}, {v}{c}", f=feed, p=count, a=depth, v=speed, c=clamp)

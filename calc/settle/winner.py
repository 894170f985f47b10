"""What an operation is settled at, and in words what holds it back."""

from __future__ import annotations

from collections.abc import Callable
from dataclasses import dataclass
from functools import cached_property

from calc.plan.cuts.inputs import PlannedCut
from calc.quantities import Figure, Sentence, counted
from calc.settle.binding import GAIN, Binding, Times, binding, holds_back
from calc.settle.candidates import CAP, GRIP, Candidates, Settling, candidates
from calc.settle.grid import FINE, tried_on
from calc.settle.grip import Grip


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
class Winner:
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

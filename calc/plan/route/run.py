"""The run that the pieces make: how many, of what, in how many minutes, after which set-up, and when by the clock."""

from __future__ import annotations

import math
from collections.abc import Iterator, Sequence
from dataclasses import dataclass
from datetime import datetime
from functools import cached_property

from calc.calendar.calendar import Calendar
from calc.calendar.working_time import ends_at, first_hour, moment
from calc.plan.cuts.solve import CutFigures
from calc.plan.hold.bar import BarFigures, bar_figures
from calc.plan.hold.solve import HOLD, JAW_HOLD
from calc.plan.jaws.solve import JAWS
from calc.plan.outcome import Asked
from calc.plan.part.solve import PART
from calc.plan.route.edges import EdgeNeed, needs_of, tool_of
from calc.plan.route.inputs import when
from calc.route.bars import pieces_to_make
from calc.route.cycle import piece_cost, run_minutes, run_minutes_seen
from calc.working import Step, Working


@dataclass(frozen=True)
class Task:
    """Something of the set-up [min], in words. `key`: hold.PLACE of its side, tools, prove or first."""

    key: str
    words: str
    minutes: float


@dataclass(frozen=True)
class Clock:
    """When it happens [s since 1970, UTC]; None where it does not within the years that are looked at.

    `planned`: somebody said when the set-up begins; else it is as if that were today.
    """

    calendar: Calendar
    planned: bool
    begins: float | None
    running: float | None
    done: float | None


@dataclass(frozen=True)
class RunFigures:
    """The run: what it takes, and its minutes."""

    pieces: int
    needs: tuple[EdgeNeed, ...]
    edges: int
    bars: BarFigures | None
    bars_needed: int | None
    edge_min: float
    bar_min: float
    run_min: float
    used: float  # share of the time that the machine runs
    seen: bool  # a piece's time is what was seen: changes of edges and bars, and checks, are in it
    alone_min: float  # how long it goes on by itself: to the next edge, or the end of the bar
    unsure: tuple[str, ...]  # cuts whose edges last nobody knows how long
    tasks: tuple[Task, ...]
    steps: tuple[Step, ...]
    clock: Clock | None
    check_min: float  # what checks that stop the machine take
    cost: float | None  # of a good piece, in the shop's money; None where it counts none
    cost_steps: tuple[Step, ...]

    @cached_property
    def setup_min(self) -> float:
        """The set-up."""
        return sum(t.minutes for t in self.tasks)


def _alone(needs: Sequence[EdgeNeed], bars: BarFigures | None, piece_s: float) -> float:
    """For how long [min] it runs without people: bar work, until the first edge is due or the bar is used up.

    An edge whose life nobody knows is not counted: `unsure` names its cut.
    """
    if bars is None:
        return 0.0
    return min([bars.pieces, *(need.per_edge for need in needs if need.per_edge is not None)]) * piece_s / 60


def _tasks(asked: Asked, tools: int) -> Iterator[Task]:
    rules, stay = asked.rules, min(asked.document.route.stay, tools)
    for place, setup in enumerate(asked.document.setups):
        of = asked.of(place)
        name, key = setup.name.split(",")[0], f"hold.{place}"
        if place > 0 and asked.document.one_set:
            continue
        jaws, bored = of.figures[JAW_HOLD], of.figures[JAWS]
        refitted = bored is not None and bored.keep is not None and bored.keep.verdict == "refit"
        if jaws is None:
            yield Task(key, f"{name}: collet put in", rules.mount_min)
        elif jaws.blank.is_hard:  # it comes with its step
            yield Task(key, f"{name}: hard jaws mounted", rules.mount_min)
        elif refitted:
            yield Task(key, f"{name}: jaws refitted, not bored", rules.mount_min)
        else:
            yield Task(key, f"{name}: jaws mounted and bored", rules.mount_min + rules.bore_min)
    new = tools - stay
    if new:
        words = f"{new} tools put in and touched off" + (f", {stay} stay" if stay else "")
        yield Task("tools", words, new * (rules.tool_min + rules.touch_min))
    yield Task("prove", "program proved", rules.prove_min)
    yield Task("first", "first-off measured", rules.first_off_min)


def _clock(asked: Asked, setup_min: float, run_min: float, alone_min: float) -> Clock | None:
    """By the clock: people set it up, then it runs. None where no day is known to begin on."""
    calendar, said = asked.shelf.calendar, asked.document.route.start
    start = when(said) if said is not None else datetime.fromisoformat(asked.shelf.today) if asked.shelf.today else None
    if start is None:
        return None
    begins = first_hour(calendar, moment(calendar, start))
    running = None if begins is None else ends_at(calendar, begins, setup_min)
    done = None if running is None else ends_at(calendar, running, run_min, alone_min)
    return Clock(calendar, said is not None, begins, running, done)


def _unsure(turrets: Sequence[Sequence[CutFigures]]) -> Iterator[str]:
    """Cuts whose edges last nobody knows how long."""
    for cuts in turrets:
        seen = {tool_of(c) for c in cuts if c.planned.lasted_pieces is not None}
        yield from (c.name for c in cuts if c.consulted.life is None and tool_of(c) not in seen)


def run_of(every: Sequence[Asked], piece_s: float, turrets: Sequence[Sequence[CutFigures]]) -> RunFigures:
    """The run of a part whose pieces come every so many seconds, from the cuts of each turret."""
    asked, w = every[0], Working()
    rules, part, quantity = asked.rules, asked.need(PART), asked.document.part.quantity
    assert quantity is not None  # asked for before
    pieces = pieces_to_make(w, quantity, rules.scrap_pct / 100)
    needs = tuple(need for cuts in turrets for need in needs_of(cuts, pieces))
    edges = sum(need.edges for need in needs)
    bars = bar_figures(asked, asked.need(HOLD), part)
    needed = math.ceil(pieces / bars.pieces) if bars and bars.pieces else None
    edge_min = bar_min = check_min = 0.0
    seen_s = asked.document.route.seen_s
    if seen_s is not None:
        used = piece_s / seen_s
        minutes = run_minutes_seen(w, seen_s, pieces)
    else:
        # The first edges and the first bar are put in at the set-up.
        edge_min = (edges - len(needs)) * rules.edge_change_min
        bar_min = max(0, (needed or 1) - 1) * rules.bar_change_min
        used = rules.utilisation_pct / 100
        check_min = (pieces - 1) // rules.check_pieces * rules.check_s / 60
        minutes = run_minutes(w, piece_s, pieces, used, edge_min + bar_min + check_min)
    alone = _alone(needs, bars, piece_s)
    unsure = tuple(_unsure(turrets))
    tasks = tuple(_tasks(asked, len(needs)))
    setup = sum(t.minutes for t in tasks)
    clock, money, cost = _clock(asked, setup, minutes, alone), Working(), None
    if rules.minute_cost:
        cost = piece_cost(money, setup + minutes, edges, (rules.minute_cost, rules.edge_cost), quantity)
    return RunFigures(
        pieces,
        needs,
        edges,
        bars,
        needed,
        edge_min,
        bar_min,
        minutes,
        used,
        seen_s is not None,
        alone,
        unsure,
        tasks,
        tuple(w.steps),
        clock,
        check_min,
        cost,
        tuple(money.steps),
    )

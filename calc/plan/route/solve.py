"""Stop Route solved: what each operation takes, the cycle of a piece, the run and its set-up."""

from __future__ import annotations

import math
from collections.abc import Iterator, Sequence
from dataclasses import dataclass
from functools import cached_property, lru_cache

from calc.plan.cuts.minutes import path_of
from calc.plan.cuts.solve import CUTS, CUTS_KEPT, CutFigures
from calc.plan.hold.bar import BarFigures, bar_figures
from calc.plan.hold.solve import HOLD, JAW_HOLD
from calc.plan.outcome import Asked, Missing, Solved, naming
from calc.plan.part.solve import PART
from calc.plan.sides.driven import DRIVEN
from calc.route.bars import pieces_to_make
from calc.route.between import Moved, Slide, moves_of, spindle_seconds
from calc.route.cycle import Lanes, Pieces, cycle_seconds, run_minutes
from calc.route.turret import TurretOrderInput, TurretOrderResult, TurretTool, indexing_of, turret_order
from calc.rules import Rules
from calc.shelf.machine import Machine
from calc.working import Step, Working

ORDERS_KEPT = 128  # a feed that changes leaves the stations as they are


@dataclass(frozen=True)
class Operation:
    """A cut in time [s]: in cut, on the slide's moves, at index before it, on the spindle's change of speed."""

    cut: CutFigures
    tool: str
    station: int
    moved: Moved
    index_s: float
    spindle_s: float

    @property
    def cut_s(self) -> float:
        """In cut."""
        return self.cut.minutes * 60

    @property
    def between_s(self) -> float:
        """Beside the cutting."""
        return self.moved.seconds + self.index_s + self.spindle_s

    @property
    def seconds(self) -> float:
        """All of it."""
        return self.cut_s + self.between_s


@dataclass(frozen=True)
class Handling:
    """What a piece takes that is no operation, in words."""

    words: str
    seconds: float


@dataclass(frozen=True)
class SideTime:
    """A side in time: what comes before its operations, these, and what comes after."""

    index: int
    name: str
    before: tuple[Handling, ...]
    operations: tuple[Operation, ...]
    after: tuple[Handling, ...]

    @property
    def seconds(self) -> float:
        """All of it."""
        handled = sum(h.seconds for h in (*self.before, *self.after))
        return handled + sum(o.seconds for o in self.operations)

    @property
    def part_off_s(self) -> float:
        """Of that, the parting."""
        return sum(o.seconds for o in self.operations if o.cut.planned.kind == "part")


@dataclass(frozen=True)
class Task:
    """Something of the set-up [min], in words."""

    words: str
    minutes: float


@dataclass(frozen=True)
class RouteFigures:
    """The whole of it: seconds of a piece, minutes of the run and of the set-up."""

    sides: tuple[SideTime, ...]
    turrets: tuple[TurretOrderResult, ...]  # one, or one at each spindle
    lanes: Lanes
    transfer_s: float
    cycle_s: float
    piecewise_s: float  # the same where both sides of a piece follow one another on one spindle
    pieces: int
    edges: int
    bars: BarFigures | None
    bars_needed: int | None
    edge_min: float
    bar_min: float
    run_min: float
    tasks: tuple[Task, ...]
    cycle_steps: tuple[Step, ...]
    run_steps: tuple[Step, ...]

    @cached_property
    def setup_min(self) -> float:
        """The set-up."""
        return sum(t.minutes for t in self.tasks)

    @property
    def waits_s(self) -> tuple[str, float] | None:
        """Which lane waits for the other in a cycle, and how long; None where nothing waits."""
        if self.lanes != "together":
            return None
        main, other = self.sides[0].seconds - self.sides[0].part_off_s, self.sides[1].seconds
        return ("second" if main > other else "main", abs(main - other))


def tool_of(cut: CutFigures) -> str:
    """What stands at a station for a cut: its tool, or its own where none is chosen."""
    return cut.planned.tool or cut.name


def slide_of(machine: Machine) -> Slide:
    """How the machine's slide moves."""
    return Slide(
        machine.rapid_x_m_min,
        machine.rapid_z_m_min,
        machine.acceleration_m_s2,
        machine.change_x_mm,
        machine.change_z_mm,
    )


def _turret(machine: Machine, cuts: Sequence[CutFigures]) -> TurretOrderInput:
    """The tools of these cuts on a turret, in the order of the work."""
    tools = {tool_of(c): TurretTool(tool_of(c)) for c in cuts}
    return TurretOrderInput(
        machine.turret_stations,
        tuple(tools.values()),
        tuple(tool_of(c) for c in cuts),
        machine.turret_turns == "both",
        machine.index_first_s,
        machine.index_further_s,
    )


@lru_cache(maxsize=CUTS_KEPT)
def _moved(cut: CutFigures, slide: Slide) -> Moved:
    """A cut's moves; a cut that stays has those that it had."""
    path = path_of(cut.planned, cut.passes, cut.length_mm)
    assert path is not None  # a cut that has figures has a path
    return moves_of(slide, path, cut.planned.start_mm)


@lru_cache(maxsize=ORDERS_KEPT)
def _ordered(order: TurretOrderInput) -> TurretOrderResult:
    return turret_order(order)


def _operations(
    asked: Asked, cuts: Sequence[CutFigures], order: TurretOrderInput, at: dict[str, int]
) -> Iterator[Operation]:
    """A side's operations, each after the one before it, the first after the last."""
    machine, slide = asked.need(DRIVEN).machine, slide_of(asked.need(DRIVEN).machine)
    before = cuts[-1]
    for cut in cuts:
        tool, came = tool_of(cut), tool_of(before)
        index = indexing_of(order).seconds(Working(), (at[tool] - at[came]) % machine.turret_stations)
        spin = spindle_seconds(Working(), before.top_rpm, cut.result.rpm, machine.max_rpm, machine.spindle_s)
        # The spindle changes its speed while the turret turns: only what is over counts.
        yield Operation(cut, tool, at[tool], _moved(cut, slide), index, max(0.0, spin - index))
        before = cut


def _handling(asked: Asked, rules: Rules) -> tuple[list[Handling], list[Handling]]:
    """What a side takes before and after its operations."""
    hold, part = asked.need(HOLD), asked.need(PART)
    if asked.index == 1 and asked.takes_over:
        return [], [Handling("let go and catch", rules.chuck_s + rules.catch_s)]
    if hold.stick_out_mm is not None:
        last = [] if asked.takes_over else [Handling("catch", rules.catch_s)]
        return [Handling("open, feed the bar, close", rules.chuck_s + rules.bar_feed_s)], last
    load = rules.load_s + rules.load_s_kg * part.held_mass_kg
    return [Handling("door, unload and load, chuck", rules.door_s + load + rules.chuck_s)], []


def _edges(cuts: Sequence[CutFigures], pieces: int) -> int:
    """Edges of all cuts for the run; a cut without a known life needs one."""
    lives = (c.consulted.life for c in cuts)
    return sum(math.ceil(pieces / max(1, life.pieces_per_edge)) if life else 1 for life in lives)


def _tasks(asked: Asked, rules: Rules, tools: int) -> Iterator[Task]:
    for place, setup in enumerate(asked.document.setups):
        of = asked.of(place)
        name = setup.name.split(",")[0]
        if place > 0 and asked.document.one_set:
            continue
        jaws = of.figures[JAW_HOLD]
        if jaws is None:
            yield Task(f"{name}: collet put in", rules.mount_min)
        elif jaws.blank.is_hard:  # it comes with its step
            yield Task(f"{name}: hard jaws mounted", rules.mount_min)
        else:
            yield Task(f"{name}: jaws mounted and bored", rules.mount_min + rules.bore_min)
    yield Task(f"{tools} tools put in and touched off", tools * (rules.tool_min + rules.touch_min))
    yield Task("program proved", rules.prove_min)
    yield Task("first-off measured", rules.first_off_min)


def solve_route(asked: Asked) -> RouteFigures:
    """The route. Raises Missing, Waiting or CalcError."""
    part, rules, quantity = asked.need(PART), asked.rules, asked.document.part.quantity
    machine = part.machine
    every = [asked.of(i) for i in range(len(asked.document.setups))]
    cuts = [of.need(CUTS).cuts for of in every]
    for of in every:
        of.need(HOLD)
    if quantity is None:
        raise Missing(("part.quantity", "Quantity"))
    two = len(every) > 1 and every[0].takes_over
    lanes: Lanes = ("together" if machine.turrets > 1 else "in-turn") if two else "one"
    orders = [_turret(machine, c) for c in (cuts if lanes == "together" else [[c for mine in cuts for c in mine]])]
    with naming({"stations": "machine"}):
        turrets = tuple(_ordered(order) for order in orders)
    sides = []
    for place, (of, mine) in enumerate(zip(every, cuts, strict=True)):
        at = min(place, len(orders) - 1)
        before, after = _handling(of, rules)
        made = tuple(_operations(of, mine, orders[at], turrets[at].stations))
        name = of.document.setups[of.index].name.split(",")[0]
        sides.append(SideTime(of.index, name, tuple(before), made, tuple(after)))
    transfer = rules.transfer_s if two else 0.0
    w = Working()
    main, parting = sides[0].seconds - sides[0].part_off_s, sides[0].part_off_s
    other = sides[1].seconds if len(sides) > 1 else 0.0
    cycle = cycle_seconds(w, lanes, Pieces(main, parting, other, transfer))
    run = Working()
    pieces = pieces_to_make(run, quantity, rules.scrap_pct / 100)
    edges = sum(_edges(mine, pieces) for mine in cuts)
    bars = bar_figures(every[0], every[0].need(HOLD), part)
    needed = math.ceil(pieces / bars.pieces) if bars and bars.pieces else None
    # The first edges and the first bar are put in at the set-up.
    edge_min = max(0, edges - sum(len(mine) for mine in cuts)) * rules.edge_change_min
    bar_min = max(0, (needed or 1) - 1) * rules.bar_change_min
    minutes = run_minutes(run, cycle, pieces, rules.utilisation_pct / 100, edge_min + bar_min)
    return RouteFigures(
        tuple(sides),
        turrets,
        lanes,
        transfer,
        cycle,
        cycle + 2 * 60 * rules.mount_min * (lanes == "one" and len(every) > 1 and not asked.document.one_set),
        pieces,
        edges,
        bars,
        needed,
        edge_min,
        bar_min,
        minutes,
        tuple(_tasks(asked, rules, sum(len(order.tools) for order in orders))),
        tuple(w.steps),
        tuple(run.steps),
    )


ROUTE = Solved("route", "Route", solve_route, per_side=False)

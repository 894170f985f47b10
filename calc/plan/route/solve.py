"""Stop Route solved: what each operation takes, the cycle of a piece, the run and its set-up."""

from __future__ import annotations

from collections.abc import Iterable, Iterator, Sequence
from dataclasses import dataclass
from functools import lru_cache
from typing import Literal

from calc.errors import CalcError, FieldError
from calc.plan.cuts.minutes import path_of
from calc.plan.cuts.solve import CUTS, CUTS_KEPT, CutFigures
from calc.plan.hold.solve import HOLD
from calc.plan.outcome import Asked, Missing, Solved
from calc.plan.part.solve import PART
from calc.plan.route.edges import tool_of
from calc.plan.route.neighbours import Held, Struck, side_by_side, struck
from calc.plan.route.run import RunFigures, run_of
from calc.plan.sides.driven import DRIVEN
from calc.quantities import Sentence
from calc.route.between import Moved, Slide, moves_of, spindle_seconds
from calc.route.cycle import Lanes, Pieces, cycle_seconds
from calc.route.stations import Apart, StationKind, TurretOrderInput, TurretTool, indexing_of
from calc.route.turret import TurretOrderResult, turret_order
from calc.rules import Rules
from calc.shelf.machine import Machine
from calc.working import Note, Step, Working

ORDERS_KEPT = 128  # a feed that changes leaves the stations as they are


@dataclass(frozen=True)
class Operation:
    """A cut in time [s], by its path in the plan: in cut, on the slide's moves, at index before it, on the spindle's
    change of speed.
    """

    cut: CutFigures
    path: str
    tool: str
    station: int
    moved: Moved
    index_s: float
    spindle_s: float

    @property
    def clocked(self) -> bool:
        """The shop timed it at the machine: that counts, cutting and moves in one."""
        return self.cut.planned.clocked_s is not None

    @property
    def cut_s(self) -> float:
        """In cut; with its moves where it was timed."""
        clocked = self.cut.planned.clocked_s
        return self.cut.minutes * 60 if clocked is None else clocked

    @property
    def moves_s(self) -> float:
        """On the slide's moves."""
        return 0.0 if self.clocked else self.moved.seconds

    @property
    def between_s(self) -> float:
        """Beside the cutting."""
        return self.moves_s + self.index_s + self.spindle_s

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
class RouteFigures:
    """The whole of it: seconds of a piece, and the run that they make."""

    sides: tuple[SideTime, ...]
    turrets: tuple[TurretOrderResult, ...]  # one, or one at each spindle
    lanes: Lanes
    transfer_s: float
    cycle_s: float
    batches_s: float  # the same with all first sides made before all second ones
    piecewise_s: float  # and with both sides of each piece after one another, on one spindle
    cycle_steps: tuple[Step, ...]
    run: RunFigures
    beside: tuple[Note, ...] = ()  # what tools run into while their neighbours work

    @property
    def waits_s(self) -> tuple[str, float] | None:
        """Which lane waits for the other in a cycle, and how long; None where nothing waits."""
        if self.lanes != "together":
            return None
        main, other = self.sides[0].seconds - self.sides[0].part_off_s, self.sides[1].seconds
        return ("second" if main > other else "main", abs(main - other))


def slide_of(machine: Machine) -> Slide:
    """How the machine's slide moves."""
    return Slide(
        machine.rapid_x_m_min,
        machine.rapid_z_m_min,
        machine.acceleration_m_s2,
        machine.change_x_mm,
        machine.change_z_mm,
    )


def _turret(machine: Machine, cuts: Sequence[CutFigures], apart: Iterable[Apart]) -> TurretOrderInput:
    """The tools of these cuts on a turret, in the order of the work. Raises CalcError where two want one station."""
    stations: dict[str, tuple[int, str]] = {}
    for cut in cuts:
        wanted, tool = cut.planned.station, tool_of(cut)
        if wanted is None:
            continue
        other, name = stations.setdefault(tool, (wanted, cut.name))
        if other != wanted:
            words = "The tool of {a} is the one of {b}, which stays at station {n}."
            raise CalcError([FieldError(f"{cut.id}.station", Sentence(words, a=cut.name, b=name, n=str(other)))])
    tools: dict[str, TurretTool] = {}
    for cut in cuts:
        kind: Literal["inside", "outside"] = "inside" if cut.planned.inside else "outside"
        tools.setdefault(tool_of(cut), TurretTool(tool_of(cut), kind, stations.get(tool_of(cut), (None, ""))[0]))
    return TurretOrderInput(
        machine.turret_stations,
        tuple(tools.values()),
        tuple(tool_of(c) for c in cuts),
        machine.turret_turns == "both",
        machine.index_first_s,
        machine.index_further_s,
        _station_kinds(machine),
        tuple(apart),
    )


def _station_kinds(machine: Machine) -> tuple[StationKind, ...]:
    if machine.turret_takes == "any":
        return ()
    return tuple("outside" if n % 2 else "inside" for n in range(1, machine.turret_stations + 1))


@lru_cache(maxsize=CUTS_KEPT)
def _moved(cut: CutFigures, slide: Slide) -> Moved:
    """A cut's moves; a cut that stays has those that it had."""
    path = path_of(cut.planned, cut.passes, cut.length_mm)
    assert path is not None  # a cut that has figures has a path
    return moves_of(slide, path, cut.planned.start_mm, cut.planned.peck_mm)


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
        yield Operation(
            cut, f"{asked.at}.cuts.{cut.id}", tool, at[tool], _moved(cut, slide), index, max(0.0, spin - index)
        )
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


@dataclass(frozen=True, eq=False)
class _Turret:
    """A turret with its tools at their stations, and which of them would strike side by side."""

    order: TurretOrderInput
    found: TurretOrderResult
    struck: tuple[Struck, ...]

    @property
    def notes(self) -> Iterator[Note]:
        """What does strike: pins and too few stations leave it side by side."""
        at = self.found.stations
        return (s.note(at) for s in self.struck if side_by_side(at, s.pair, self.order.stations))


def _turrets(every: Sequence[Asked], machine: Machine, shared: Sequence[Sequence[CutFigures]]) -> list[_Turret]:
    """The stations of each turret. Raises CalcError at the station of a cut, or at the machine."""
    found = []
    for which, cuts in enumerate(shared):
        sides = every if len(shared) == 1 else [every[which]]
        holds = [(of.need(CUTS).cuts, Held.of(of.need(HOLD), of.rules.clearance_mm)) for of in sides]
        every_pair = {s.pair: s for mine, held in reversed(holds) for s in struck(mine, cuts, machine, held)}
        try:
            order = _turret(machine, cuts, every_pair)
            found.append(_Turret(order, _ordered(order), tuple(every_pair.values())))
        except CalcError as error:
            raise error.renamed(_paths(every, cuts)) from error
    return found


def _paths(every: Sequence[Asked], cuts: Sequence[CutFigures]) -> dict[str, str]:
    """Where the fields of a turret's order are in the plan: the station of each cut, the first of each tool, the
    machine.
    """
    at = {c.id: f"{of.at}.cuts.{c.id}.station" for of in every for c in of.setup.cuts}
    firsts = {tool_of(c): c for c in reversed(cuts)}
    names = dict.fromkeys(tool_of(c) for c in cuts)
    pinned = {f"tools.{i}.pinned": at[firsts[name].id] for i, name in enumerate(names)}
    return {"stations": "machine", **{f"{c.id}.station": at[c.id] for c in cuts}, **pinned}


def _sides(every: Sequence[Asked], turrets: Sequence[_Turret]) -> Iterator[SideTime]:
    for place, of in enumerate(every):
        turret = turrets[min(place, len(turrets) - 1)]
        before, after = _handling(of, of.rules)
        made = tuple(_operations(of, of.need(CUTS).cuts, turret.order, turret.found.stations))
        name = of.document.setups[of.index].name.split(",")[0]
        yield SideTime(of.index, name, tuple(before), made, tuple(after))


def solve_route(asked: Asked) -> RouteFigures:
    """The route. Raises Missing, Waiting or CalcError."""
    part, rules = asked.need(PART), asked.rules
    every = [asked.of(i) for i in range(len(asked.document.setups))]
    cuts = [of.need(CUTS).cuts for of in every]
    for of in every:
        of.need(HOLD)
    if asked.document.part.quantity is None:
        raise Missing(("part.quantity", "Quantity"))
    two = len(every) > 1 and every[0].takes_over
    lanes: Lanes = ("together" if part.machine.turrets > 1 else "in-turn") if two else "one"
    shared = cuts if lanes == "together" else [[c for mine in cuts for c in mine]]
    turrets = _turrets(every, part.machine, shared)
    sides = tuple(_sides(every, turrets))
    transfer = rules.transfer_s if two else 0.0
    w = Working()
    main, parting = sides[0].seconds - sides[0].part_off_s, sides[0].part_off_s
    other = sides[1].seconds if len(sides) > 1 else 0.0
    cycle = cycle_seconds(w, lanes, Pieces(main, parting, other, transfer))
    # Two sets of jaws on one spindle change twice for each piece.
    changes = lanes == "one" and len(every) > 1 and not asked.document.one_set
    piecewise = cycle + 2 * 60 * rules.mount_min * changes
    a_piece = piecewise if asked.document.route.follow == "pieces" else cycle
    run = run_of(every, a_piece, shared)
    found, beside = tuple(t.found for t in turrets), tuple(n for t in turrets for n in t.notes)
    return RouteFigures(sides, found, lanes, transfer, a_piece, cycle, piecewise, tuple(w.steps), run, beside)


ROUTE = Solved("route", "Route", solve_route, per_side=False)

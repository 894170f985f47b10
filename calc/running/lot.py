"""What of a released plan is counted together: its pieces, the sizes to measure, and the edges that make them."""

from __future__ import annotations

from collections.abc import Iterator, Sequence
from dataclasses import dataclass
from typing import Literal

from calc.card.proving import first_piece
from calc.card.readings.size import FinishAsk, SizeAsk, ThreadAsk
from calc.plan.compute import PlanResult
from calc.plan.cuts.edge import edges_of
from calc.plan.cuts.solve import CutFigures
from calc.plan.cuts.tooling import edge_name
from calc.plan.route.edges import per_edge, tool_of
from calc.plan.route.solve import ROUTE, RouteFigures

Kind = Literal["size", "finish", "thread"]


@dataclass(frozen=True)
class Dimension:
    """Something to measure: a size between limits, a finish below one, or a thread by its gauges.

    `id` is the step of the card that reads it first; `edge`: the one that cuts it.
    """

    id: str
    ask: SizeAsk | FinishAsk | ThreadAsk
    edge: str

    @property
    def kind(self) -> Kind:
        """What is measured."""
        match self.ask:
            case SizeAsk():
                return "size"
            case FinishAsk():
                return "finish"
        return "thread"


@dataclass(frozen=True)
class EdgeAt:
    """A tool at its station: what it is, how many pieces one of its edges lasts by the plan, and what the shelf has.

    `key`: turret and station; `insert`: the shelf's key of what carries the edge, `edges` of them on one; `cuts` and
    `keys`: its cuts by name, and by set-up and id.
    """

    key: str
    station: int
    name: str
    per_edge: int | None
    edges: int
    insert: str
    cuts: tuple[str, ...]
    keys: tuple[str, ...]


@dataclass(frozen=True)
class Lot:
    """Pieces that are counted together: all sides of a part, or one side where they are made in batches.

    `piece_s`: a piece every so many seconds by the plan, of which the machine is in use the share `used`; `stock`:
    pieces with the scrap that was planned for.
    """

    key: str
    name: str
    sides: tuple[int, ...]
    quantity: int
    stock: int
    piece_s: float
    used: float
    alone_min: float
    check_every: int
    dimensions: tuple[Dimension, ...]
    edges: tuple[EdgeAt, ...]

    def dimension(self, name: str) -> Dimension | None:
        """A dimension by its id; None where there is none."""
        return next((d for d in self.dimensions if d.id == name), None)

    def edge(self, key: str) -> EdgeAt | None:
        """An edge by its key; None where there is none."""
        return next((e for e in self.edges if e.key == key), None)

    @property
    def minutes_planned(self) -> float:
        """From one piece to the next [min], stops in it."""
        return self.piece_s / 60 / self.used


def lots_of(result: PlanResult) -> tuple[Lot, ...]:
    """The lots of a plan that has a route, in the order they are made; none where it has none."""
    route, setups = result.views[0][ROUTE], result.views[0].document.setups
    if route is None:
        return ()
    if len(setups) == 1 or route.lanes != "one" or result.views[0].document.route.follow == "pieces":
        name = setups[0].name if len(setups) == 1 else "Both sides"
        return (_lot(result, route, tuple(range(len(setups))), name, route.cycle_s),)
    return tuple(_lot(result, route, (side.index,), setups[side.index].name, side.seconds) for side in route.sides)


def _lot(result: PlanResult, route: RouteFigures, sides: tuple[int, ...], name: str, piece_s: float) -> Lot:
    document = result.views[0].document
    assert document.part.quantity is not None  # it has a route
    edges = tuple(_edges(result, route, sides))
    return Lot(
        key=document.setups[sides[0]].id,
        name=name,
        sides=sides,
        quantity=document.part.quantity,
        stock=route.run.pieces,
        piece_s=piece_s,
        used=route.run.used,
        alone_min=route.run.alone_min,
        check_every=document.in_force.check_pieces,
        dimensions=tuple(d for i in sides for d in _dimensions(result, route, i)),
        edges=edges,
    )


def _turret(route: RouteFigures, side: int) -> str:
    return "second" if len(route.turrets) > 1 and side == 1 else "main"


def _dimensions(result: PlanResult, route: RouteFigures, side: int) -> Iterator[Dimension]:
    for step in first_piece(result.views[side], route):
        match step.ask:
            case SizeAsk() | ThreadAsk() as ask:
                yield Dimension(step.id, ask, f"{_turret(route, side)}.{ask.offset}")
            case FinishAsk() as ask:
                at = next(o.station for o in route.sides[side].operations if o.cut.planned.tool == ask.tool_key)
                yield Dimension(step.id, ask, f"{_turret(route, side)}.{at}")


def _edges(result: PlanResult, route: RouteFigures, sides: Sequence[int]) -> Iterator[EdgeAt]:
    """Every tool of these sides by turret and station."""
    setups = result.views[0].document.setups
    found: dict[tuple[str, int, str], list[tuple[str, CutFigures]]] = {}
    for side in route.sides:
        if side.index in sides:
            for o in side.operations:
                at = (_turret(route, side.index), o.station, tool_of(o.cut))
                found.setdefault(at, []).append((f"{setups[side.index].id}.{o.cut.id}", o.cut))
    for (turret, station, _), made in sorted(found.items(), key=lambda one: one[0]):
        keys, cuts = zip(*made, strict=True)
        tool = cuts[0].tool
        yield EdgeAt(
            f"{turret}.{station}",
            station,
            edge_name(tool) or "no tool chosen",
            per_edge(cuts),
            edges_of(tool),
            tool.edge.key if tool is not None else "",
            tuple(c.name for c in cuts),
            keys,
        )

"""A plan value in, every stop's results, working, notes and verdict out, in one call, with no state."""

from __future__ import annotations

from collections.abc import Mapping
from dataclasses import dataclass, replace

from calc.chuck.speed import StackPart
from calc.errors import FieldError
from calc.plan.chart import ForceChart, force_chart
from calc.plan.choices import Tried, blanks_table, try_blanks
from calc.plan.cuts_stop import cuts_stop
from calc.plan.document import Document
from calc.plan.force_stop import force_stop
from calc.plan.helps import cuts_helps, force_helps, jaws_helps
from calc.plan.hold_stop import hold_stop
from calc.plan.jaws_stop import jaws_stop
from calc.plan.part import part_stop
from calc.plan.program import JawProgram, jaw_program
from calc.plan.sides import end_name, sides_stop
from calc.plan.solve import Figures, setup_path, shelf_for, solve_all
from calc.plan.stops import State, Stop
from calc.plan.tools_stop import tools_stop
from calc.quantities import Figure
from calc.scene.shapes import Scene
from calc.scene.views import scenes_of
from calc.shelf.taken import Shelf

Options = Mapping[str, Mapping[str, str]]
NO_OPTIONS: Options = {"machine": {}, "material": {}, "chuck": {}}


@dataclass(frozen=True)
class Carry:
    """The figures a setter carries to the machine; None while not known."""

    pressure: Figure | None
    clamp: Figure | None
    bore: Figure | None
    depth: Figure | None


@dataclass(frozen=True)
class Side:
    """One set-up as it is drawn and carried: `title` such as "Side 1", `end` the end that is worked."""

    index: int
    title: str
    end: str
    verdict: State
    carry: Carry
    scenes: tuple[Scene, ...]
    chart: ForceChart | None
    program: JawProgram


@dataclass(frozen=True)
class PlanResult:
    """The whole computed plan: the part's stops, then each side's."""

    stops: tuple[Stop, ...]
    sides: tuple[Side, ...]
    verdict: State
    figures: tuple[Figures, ...]

    def stop(self, name: str, setup: int = 0) -> Stop:
        """The stop called `name`, of a set-up where it is a side's. Raises KeyError."""
        for stop in self.stops:
            if stop.name == name and stop.setup in (None, setup):
                return stop
        raise KeyError(name)

    @property
    def problems(self) -> tuple[FieldError, ...]:
        """Every problem of every stop."""
        return tuple(p for stop in self.stops for p in stop.problems)


def _carry(document: Document, figures: Figures, index: int) -> Carry:
    setup, hold = document.setups[index], figures.hold.value
    pressure, clamp = setup.force.pressure_bar, setup.clamp_rpm
    return Carry(
        pressure=None if pressure is None else Figure(pressure, "bar", "near"),
        clamp=None if clamp is None else Figure(clamp, "rpm", "down"),
        bore=Figure(hold.pocket.bore_diameter_mm, "mm", places=hold.places) if hold else None,
        depth=Figure(hold.pocket.bore_depth_mm, "mm") if hold else None,
    )


def _other_stacks(figures: Figures, tried: tuple[Tried, ...]) -> dict[str, tuple[StackPart, ...]]:
    """Jaw stacks in the other metal, or of pie jaws, to overlay on the chart."""
    hold, force = figures.hold.value, figures.force.value
    if hold is None or force is None:
        return {}
    found: dict[str, tuple[StackPart, ...]] = {}
    for one in tried:
        jaws, mine = one.figures.jaws.value, hold.blank
        same_size = one.blank.height_mm == mine.height_mm and one.blank.kind == mine.kind
        if one.chosen or jaws is None or not (same_size or one.blank.kind != mine.kind):
            continue
        label = f"with {one.blank.metal} {'pie ' if one.blank.kind == 'pie' else ''}jaws"
        found.setdefault(label, (StackPart(jaws.mass.mass_kg, jaws.mass.radius_mm), *force.stack[1:]))
    return dict(list(found.items())[:2])


def _chart(figures: Figures, tried: tuple[Tried, ...], index: int) -> ForceChart | None:
    force, hold, part, cuts = figures.force.value, figures.hold.value, figures.part.value, figures.cuts.value
    if force is None or hold is None or part is None or cuts is None:
        return None
    most = max(min(hold.chuck.max_rpm, part.machine.max_rpm), force.top_rpm)
    chart = force_chart(force, hold.chuck, most, hold.side, _other_stacks(figures, tried))
    at, fastest = setup_path(index), cuts.fastest
    fixed = f"{at}.cuts.{cuts.cuts.index(fastest)}.rpm" if fastest.planned.rpm is not None else f"{at}.clamp_rpm"
    return replace(chart, pressure_path=f"{at}.force.pressure_bar", speed_path=fixed)


def _side_stops(
    document: Document,
    shelf: Shelf,
    figures: Figures,
    index: int,
    names: Options,
    tried: tuple[Tried, ...],
    *,
    helps: bool,
) -> tuple[Stop, ...]:
    at, setup, chosen = setup_path(index), document.setups[index], shelf_for(document, shelf, index)
    hold, cuts = figures.hold.value, figures.cuts.value
    shared = document.jaws_of(index) != index
    held = hold_stop(at, setup, chosen, figures.hold, dict(names["chuck"]), figures.sides.value, index, shared)
    stops = (
        replace(held, tables=blanks_table(document, shelf, tried, index)) if hold else held,
        jaws_stop(
            at, setup, chosen, hold, figures.jaws, jaws_helps(document, shelf, figures, index, tried) if helps else ()
        ),
        force_stop(
            at,
            setup,
            hold,
            cuts,
            figures.force,
            force_helps(document, shelf, figures, index, tried) if helps else (),
            document,
        ),
        tools_stop(at, setup, figures.cuts, shelf.tools, shelf.machine.turret_stations if shelf.machine else 0),
        cuts_stop(
            at,
            setup,
            figures.cuts,
            cuts_helps(document, shelf, figures, index) if helps else (),
            shelf.machine.max_rpm if shelf.machine else 0.0,
        ),
    )
    return tuple(_with_reason(replace(stop, setup=index)) for stop in stops)


def _plan_stops(document: Document, shelf: Shelf, figures: Figures, names: Options) -> tuple[Stop, ...]:
    stops = (part_stop(document, shelf, figures.part, names), sides_stop(document, figures.sides))
    return tuple(_with_reason(stop) for stop in stops)


def stops_of(document: Document, shelf: Shelf, figures: tuple[Figures, ...]) -> tuple[Stop, ...]:
    """The stops of a solved plan in route order; nothing is tried out for helps."""
    stops = _plan_stops(document, shelf, figures[0], NO_OPTIONS)
    for index, one in enumerate(figures):
        stops += _side_stops(document, shelf, one, index, NO_OPTIONS, (), helps=False)
    return stops


def _with_reason(stop: Stop) -> Stop:
    """A stop that something said about it stops tells that in its line, as Force does in words of its own."""
    if stop.state != "stopped" or stop.problems or stop.name == "force":
        return stop
    return replace(stop, line=next(n.sentence for n in stop.notes if n.level == "stop"))


def verdict_of(stops: tuple[Stop, ...]) -> State:
    """The worst of the stops' states."""
    states = {s.state for s in stops}
    return "stopped" if "stopped" in states else "open" if "open" in states else "settled"


def _title(document: Document, figures: Figures, index: int) -> tuple[str, str]:
    """(what the side is called, which end it works)."""
    sides = figures.sides.value
    held = sides.held_end(index) if sides else "a"
    worked = end_name(document, "b" if held == "a" else "a")
    return f"Side {index + 1}", worked


def compute(document: Document, shelf: Shelf, options: Options | None = None) -> PlanResult:
    """Every stop of a plan.

    Parameters
        document: what the setter entered; shelf: what it takes from the shelf
        options: names of what may be chosen, by kind ("machine", "material", "chuck"): key -> name
    Returns
        stops in route order, each settled, open or stopped; the plan's verdict is the worst of them;
        for each side the drawing in mm, the figures to carry, the force chart where Force has figures
    Raises
        nothing for bad facts: they are the stops' problems, each at its path
    """
    names: Options = {**NO_OPTIONS, **(options or {})}
    figures = solve_all(document, shelf)
    stops = _plan_stops(document, shelf, figures[0], names)
    sides: list[Side] = []
    for index, one in enumerate(figures):
        tried = try_blanks(document, shelf, one, index)
        mine = _side_stops(document, shelf, one, index, names, tried, helps=True)
        title, end = _title(document, one, index)
        program = jaw_program(document, figures, index, mine[1])
        sides.append(
            Side(
                index,
                title,
                end,
                verdict_of(mine),
                _carry(document, one, index),
                scenes_of(document, one, index, shelf_for(document, shelf, index), program.boring),
                _chart(one, tried, index),
                program,
            )
        )
        stops += mine
    return PlanResult(stops, tuple(sides), verdict_of(stops), figures)

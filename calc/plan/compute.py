"""A plan value in, every stop's results, working, notes and verdict out, in one call, with no state."""

from __future__ import annotations

from collections.abc import Callable, Mapping
from dataclasses import dataclass, replace

from calc.chuck.speed import StackPart
from calc.errors import CalcError, FieldError
from calc.plan.chart import ForceChart, force_chart
from calc.plan.cuts import cuts_stop
from calc.plan.document import Document
from calc.plan.force_stop import force_stop
from calc.plan.helps import cuts_helps, force_helps, jaws_helps
from calc.plan.hold import hold_stop, solve_hold
from calc.plan.jaws import jaws_stop, solve_jaws
from calc.plan.part import part_stop
from calc.plan.shelf import Shelf
from calc.plan.solve import Figures, setup_path, solve
from calc.plan.stops import Help, Missing, State, Stop
from calc.quantities import Figure
from calc.scene.section import section
from calc.scene.shapes import Scene

Options = Mapping[str, Mapping[str, str]]


@dataclass(frozen=True)
class Carry:
    """The three figures a setter carries to the machine; None while not known."""

    pressure: Figure | None
    clamp: Figure | None
    bore: Figure | None
    depth: Figure | None


@dataclass(frozen=True)
class PlanResult:
    """The whole computed plan."""

    stops: tuple[Stop, ...]
    verdict: State
    carry: Carry
    scene: Scene
    chart: ForceChart | None
    figures: Figures

    def stop(self, name: str) -> Stop:
        """The stop called `name`. Raises KeyError."""
        for stop in self.stops:
            if stop.name == name:
                return stop
        raise KeyError(name)

    @property
    def problems(self) -> tuple[FieldError, ...]:
        """Every problem of every stop."""
        return tuple(p for stop in self.stops for p in stop.problems)


def _carry(document: Document, figures: Figures, index: int) -> Carry:
    setup, hold, part = document.setups[index], figures.hold.value, figures.part.value
    pressure, clamp = setup.force.pressure_bar, setup.clamp_rpm
    return Carry(
        pressure=None if pressure is None else Figure(pressure, "bar", "near"),
        clamp=None if clamp is None else Figure(clamp, "rpm", "down"),
        bore=Figure(hold.pocket.bore_diameter_mm, "mm", places=part.places) if hold and part else None,
        depth=Figure(hold.pocket.bore_depth_mm, "mm") if hold else None,
    )


def _other_stacks(document: Document, shelf: Shelf, figures: Figures, index: int) -> dict[str, tuple[StackPart, ...]]:
    """Jaw stacks of the same size in the other metal, to overlay on the chart."""
    hold, part, force = figures.hold.value, figures.part.value, figures.force.value
    if hold is None or part is None or force is None:
        return {}
    mine = hold.blank
    for blank in shelf.setups[index].blanks:
        if (
            blank.metal != mine.metal
            and blank.height_mm == mine.height_mm
            and blank.face_radius_mm == mine.face_radius_mm
        ):
            try:
                other = solve_hold(
                    setup_path(index), document.setups[index], replace(shelf.setups[index], blank=blank), part
                )
                mass = solve_jaws(setup_path(index), other).mass
            except (CalcError, Missing):
                return {}
            return {f"with {blank.metal} jaws": (StackPart(mass.mass_kg, mass.radius_mm), *force.stack[1:])}
    return {}


def _chart(document: Document, shelf: Shelf, figures: Figures, index: int) -> ForceChart | None:
    force, hold, part = figures.force.value, figures.hold.value, figures.part.value
    if force is None or hold is None or part is None:
        return None
    most = max(min(hold.chuck.max_rpm, part.machine.max_rpm), force.top_rpm)
    return force_chart(force, hold.chuck.jaws, most, _other_stacks(document, shelf, figures, index))


def stops_of(
    document: Document, shelf: Shelf, figures: Figures, index: int = 0, options: Options | None = None, *,
    helps: bool = True,
) -> tuple[Stop, ...]:  # fmt: skip
    """The stops of a solved plan in route order; without `helps`, nothing is tried out for them."""
    names: Options = {"machine": {}, "material": {}, "chuck": {}} | dict(options or {})
    at, setup, chosen = setup_path(index), document.setups[index], shelf.setups[index]
    hold, cuts = figures.hold.value, figures.cuts.value

    def tried(find: Callable[[Document, Shelf, Figures, int], tuple[Help, ...]]) -> tuple[Help, ...]:
        return find(document, shelf, figures, index) if helps else ()

    stops = (
        part_stop(document, shelf, figures.part, names),
        hold_stop(at, setup, chosen, figures.hold, dict(names["chuck"])),
        jaws_stop(at, setup, figures.part.value, hold, figures.jaws, tried(jaws_helps)),
        force_stop(at, setup, hold, cuts, figures.force, tried(force_helps)),
        cuts_stop(at, setup, figures.cuts, tried(cuts_helps)),
    )
    return tuple(_with_reason(stop) for stop in stops)


def _with_reason(stop: Stop) -> Stop:
    """A stop that something said about it stops tells that in its line, as Force does in words of its own."""
    if stop.state != "stopped" or stop.problems or stop.name == "force":
        return stop
    return replace(stop, line=next(n.sentence for n in stop.notes if n.level == "stop"))


def verdict_of(stops: tuple[Stop, ...]) -> State:
    """The worst of the stops' states."""
    states = {s.state for s in stops}
    return "stopped" if "stopped" in states else "open" if "open" in states else "settled"


def compute(document: Document, shelf: Shelf, options: Options | None = None, index: int = 0) -> PlanResult:
    """Every stop of a plan.

    Parameters
        document: what the setter entered; shelf: what it takes from the shelf
        options: names of what may be chosen, by kind ("machine", "material", "chuck"): key -> name
    Returns
        stops in route order, each settled, open or stopped; the plan's verdict is the worst of them;
        the drawing in mm; the force chart where Force has figures
    Raises
        nothing for bad facts: they are the stops' problems, each at its path
    """
    figures = solve(document, shelf, index)
    stops = stops_of(document, shelf, figures, index, options)
    return PlanResult(
        stops=stops, verdict=verdict_of(stops), carry=_carry(document, figures, index),
        scene=section(document, figures, index), chart=_chart(document, shelf, figures, index), figures=figures,
    )  # fmt: skip

"""What is drawn, as it is sent: the views of a side in mm, and its force chart in the units shown."""

from __future__ import annotations

from collections.abc import Callable
from dataclasses import dataclass
from itertools import pairwise
from typing import Literal

from calc.plan.pictures import ForceChart
from calc.quantities import Figure, System, from_core, shown_as
from calc.scene.shapes import Dimension, Label, Role, Scene, Shape

Points = list[list[float]]


@dataclass(frozen=True)
class ShapeSaid:
    """A shape of the drawing, in mm."""

    name: str
    role: Role
    points: Points
    closed: bool
    facts: list[str]
    stops: list[str]
    group: str = ""
    slides: list[float] | None = None


@dataclass(frozen=True)
class DimensionSaid:
    """A dimension of the drawing, in mm; its text in the units asked for."""

    name: str
    fact: str
    start: list[float]
    end: list[float]
    offset: float
    text: str
    stops: list[str]
    outside: Literal["before", "after"]
    group: str = ""


@dataclass(frozen=True)
class LabelSaid:
    """Words on the drawing, at a point in mm."""

    point: list[float]
    text: str
    fact: str
    stops: list[str]
    anchor: Literal["start", "middle", "end"]
    group: str = ""


@dataclass(frozen=True)
class SceneSaid:
    """A view of the drawing, and the same in words."""

    shapes: list[ShapeSaid]
    dimensions: list[DimensionSaid]
    labels: list[LabelSaid]
    words: list[str]


def _point(p: tuple[float, float]) -> list[float]:
    return [round(p[0], 3), round(p[1], 3)]


def _shape(s: Shape) -> ShapeSaid:
    points, slides = [_point(p) for p in s.points], _point(s.slides) if s.slides != (0.0, 0.0) else None
    return ShapeSaid(s.name, s.role, points, s.closed, list(s.facts), list(s.stops), s.group, slides)


def _dimension(d: Dimension, system: System) -> DimensionSaid:
    after = d.suffix if isinstance(d.suffix, str) else d.suffix.text(system)
    text = f"{d.prefix}{d.figure.number(system)}{after}"
    ends = _point(d.start), _point(d.end)
    return DimensionSaid(d.name, d.fact, *ends, d.offset, text, list(d.stops), d.outside, d.group)


def _label(x: Label, system: System) -> LabelSaid:
    return LabelSaid(_point(x.point), x.text.text(system), x.fact, list(x.stops), x.anchor, x.group)


def scene_said(scene: Scene, system: System) -> SceneSaid:
    """A view of the drawing."""
    return SceneSaid(
        [_shape(s) for s in scene.shapes],
        [_dimension(d, system) for d in scene.dimensions],
        [_label(x, system) for x in scene.labels],
        [w.text(system) for w in scene.words],
    )


@dataclass(frozen=True)
class CurveSaid:
    """A line of the force chart."""

    name: str
    label: str
    points: Points


@dataclass(frozen=True)
class CutPointSaid:
    """A cut in the chart: where it turns fastest, what it needs there and what there is; `nearest` to its grip."""

    name: str
    rpm: float
    force: float
    grip: float
    text: str
    cap_text: str
    nearest: bool
    over: bool
    path: str | None
    words: str


@dataclass(frozen=True)
class ChartSaid:
    """Grip against speed: forces as (rpm, force) points in the unit shown; a path is null where it may not be changed.

    `pressures` are pressure and grip in even steps of the pressure, so that the nearest one is what a hand holds.
    """

    unit: str
    rpm_most: float
    force_most: float
    curves: list[CurveSaid]
    demand: Points
    demand_corner: Points
    demand_text: str
    static_text: str
    allowable: float
    allowable_text: str
    cap: float
    cap_force: float
    cap_text: str
    wall: float | None
    wall_text: str
    top: float
    top_text: str
    over: bool
    pressures: Points
    pressure: float
    pressure_unit: str
    pressure_path: str | None
    points: list[CutPointSaid]


PRESSURE_STEPS = {"bar": 0.5, "psi": 5.0}


def _steps(chart: ForceChart, system: System) -> Points:
    """Pressure and grip at every step of the pressure shown, both ends and the plan's own included."""
    bar, force = shown_as("bar", system), shown_as("N", system)
    shown = [(from_core(p, "bar", bar), from_core(n, "N", force)) for p, n in chart.pressures]
    low, high, step = shown[0][0], shown[-1][0], PRESSURE_STEPS[bar.unit]
    first, last = int(low // step) + 1, int(-(-high // step))
    wanted = {low, high, from_core(chart.pressure_bar, "bar", bar), *(k * step for k in range(first, last))}
    return [[round(p, 4), round(_between(shown, p), 4)] for p in sorted(wanted) if low <= p <= high]


def _between(points: list[tuple[float, float]], at: float) -> float:
    """The value at a place of a rising line of straight pieces, which these are exactly."""
    for (x0, y0), (x1, y1) in pairwise(points):
        if at <= x1:
            return y1 if x1 == x0 else y0 + (y1 - y0) * (at - x0) / (x1 - x0)
    return points[-1][1]


def chart_said(chart: ForceChart, system: System, takes: Callable[[str | None], str | None]) -> ChartSaid:
    """The force chart."""
    shown, bar = shown_as("N", system), shown_as("bar", system)

    def force(n: float) -> float:
        return round(from_core(n, "N", shown), 4)

    def line(points: tuple[tuple[float, float], ...]) -> Points:
        return [[round(x, 2), force(y)] for x, y in points]

    return ChartSaid(
        unit=shown.unit,
        rpm_most=chart.rpm_most,
        force_most=force(chart.force_most_n),
        curves=[CurveSaid(c.name, c.label, line(c.points)) for c in chart.curves],
        demand=line(chart.demand),
        demand_corner=line(chart.demand_corner),
        demand_text=Figure(chart.demand_n, "N", "up").text(system),
        static_text=Figure(chart.curves[0].points[0][1], "N", "down").text(system),
        allowable=force(chart.allowable_n),
        allowable_text=Figure(chart.allowable_n, "N", "down").text(system),
        cap=chart.cap_rpm,
        cap_force=force(chart.cap_n),
        cap_text=Figure(chart.cap_rpm, "rpm", "down").number(),
        wall=None if chart.wall_n is None else force(chart.wall_n),
        wall_text="" if chart.wall_n is None else Figure(chart.wall_n, "N", "down").text(system),
        top=chart.top_rpm,
        top_text=Figure(chart.top_rpm, "rpm", "up").number(),
        over=chart.over,
        pressures=_steps(chart, system),
        pressure=round(from_core(chart.pressure_bar, "bar", bar), 4),
        pressure_unit=bar.unit,
        pressure_path=takes(chart.pressure_path),
        points=[
            CutPointSaid(
                p.name,
                p.rpm,
                force(p.needed_n),
                force(p.grip_n),
                Figure(p.rpm, "rpm", "up").text(system),
                Figure(p.cap_rpm, "rpm", "down").text(system),
                p.nearest,
                p.over,
                takes(p.path or None),
                f"{'Clamp' if p.is_clamp else 'Fixed speed'} of {p.name}",
            )
            for p in chart.points
        ],
    )

"""What a chuck's book says: its force at a pressure, what height costs, what its guides may carry."""

from __future__ import annotations

from collections.abc import Iterator
from dataclasses import dataclass
from itertools import pairwise
from typing import Annotated

from calc import terms
from calc.chuck.collet import FRICTION, cone_grip
from calc.errors import FieldError, FieldProblem
from calc.fields import Checked, Group, Quantity
from calc.quantities import Figure, Sentence
from calc.working import BOOK, Working, derived

CLOSE = 1e-9
HEIGHT = derived("What height costs")
ALLOWED = derived("What the chuck can stand")
TABLE = "The chuck's table of technical data"


@dataclass(frozen=True)
class ChartPoint(Checked):
    """One point of the chuck's chart."""

    pressure_bar: Annotated[float, terms.PRESSURE.called("Pressure", "Gauge pressure of the point", low=0, above=None)]
    grip_n: Annotated[float, Quantity("Grip", "N", "Sum over all jaws", low=0, high=2_000_000)]


@dataclass(frozen=True)
class ChuckForce(Checked):
    """What the chuck's book says of its force: a chart, or the actuator's figures."""

    max_grip_n: Annotated[
        float,
        Quantity(
            "Highest grip",
            "N",
            "Sum over all jaws",
            above=0,
            high=2_000_000,
            where=TABLE + "; multiply a figure for one jaw by the jaws",
        ),
    ]
    max_pressure_bar: Annotated[
        float,
        Quantity(
            "Highest pressure",
            "bar",
            "Of the cylinder",
            above=0,
            high=400,
            where="The cylinder's plate; take the lower where chuck and cylinder differ",
        ),
    ]
    reference_height_mm: Annotated[
        float,
        Quantity(
            "Rated at height",
            "mm",
            "Above the guide: where the chart was measured; 0 for a collet chuck",
            low=0,
            high=500,
            where="Beside the grip chart, often as h or H",
        ),
    ]
    guide_length_mm: Annotated[
        float,
        Quantity(
            "Guide length",
            "mm",
            "Of the master jaw in the body; 0 for a collet chuck, which has none",
            low=0,
            high=500,
            where="The chuck's dimension drawing, or measure a master jaw",
        ),
    ]
    guide_friction: Annotated[
        float,
        Quantity(
            "Guide friction",
            "",
            "0.08 well greased",
            low=0,
            high=0.5,
            where="Not on a data sheet: typical until you have measured grip at two heights",
        ),
    ] = 0.08
    chart: Annotated[tuple[ChartPoint, ...], Group("Chart", "Pressure and grip, rising", most=60)] = ()
    piston_area_mm2: Annotated[
        float | None,
        Quantity(
            "Piston area",
            "mm2",
            "Of the side in use",
            above=0,
            high=1_000_000,
            where="The cylinder's table; the pulling side is smaller",
        ),
    ] = None
    force_ratio: Annotated[
        float | None,
        Quantity(
            "Force ratio",
            "",
            "Highest grip ÷ highest draw",
            above=0,
            high=20,
            where="Divide the chuck's highest grip by its highest draw-bar pull",
        ),
    ] = None
    efficiency: Annotated[
        float,
        Quantity(
            "Actuator efficiency",
            "",
            "Share of the piston's pull that arrives",
            above=0,
            high=1,
            where="Not on most data sheets: typical until measured",
        ),
    ] = 1.0
    max_draw_n: Annotated[
        float | None, Quantity("Highest draw force", "N", "Pull at the draw-bar", above=0, high=2_000_000, where=TABLE)
    ] = None
    half_angle_deg: Annotated[
        float | None,
        Quantity(
            "Half angle of the cone",
            "deg",
            "Of a collet chuck, against the axis",
            above=0,
            high=45,
            where="The collet chuck's drawing; halve the angle across the cone",
        ),
    ] = None
    cone_friction: Annotated[
        float,
        Quantity(
            "Friction on the cone",
            "",
            "Greased steel on steel",
            low=0,
            high=1,
            where="Not on a data sheet: typical until measured",
        ),
    ] = FRICTION

    def contradictions(self) -> Iterator[FieldError]:
        if self.chart:
            for a, b in pairwise(self.chart):
                if b.pressure_bar <= a.pressure_bar or b.grip_n < a.grip_n:
                    yield FieldError("chart", Sentence("Chart points must rise: higher pressure, no less grip."))
                    return
            if len(self.chart) < 2:
                yield FieldError("chart", Sentence("A chart needs two points at least."))
        elif self.piston_area_mm2 is None or (self.force_ratio is None and self.half_angle_deg is None):
            words = "Give the chart, or piston area and force ratio, of a collet its half angle: grip is not known."
            yield FieldError("chart", Sentence(words))
        if (self.reference_height_mm > 0) != (self.guide_length_mm > 0):
            words = "Give both height and guide length, or 0 for both: only a chuck without guides has neither."
            yield FieldError("guide_length_mm", Sentence(words))


def book_grip(pressure_bar: float, chuck: ChuckForce, w: Working) -> float:
    """The book's grip [N over all jaws] at a pressure [bar] on the chart, before height and condition.

    >>> book_grip(20, ChuckForce(90000, 30, 60, 80, chart=(ChartPoint(5, 15000), ChartPoint(30, 90000))), Working())
    60000.0
    >>> book_grip(20, ChuckForce(90000, 30, 60, 80, piston_area_mm2=15000, force_ratio=2), Working())
    60000.0

    Raises FieldProblem off the chart.
    Reference: the chuck's chart, straight between its points; or piston area × pressure × efficiency × ratio.
    """
    if chuck.chart:
        return _from_chart(pressure_bar, chuck, w)
    draw = draw_force(pressure_bar, chuck, w)
    if chuck.half_angle_deg is not None:
        return cone_grip(w, draw, chuck.half_angle_deg, chuck.cone_friction, chuck.efficiency)
    assert chuck.force_ratio is not None
    return w.step("F_chart", "Grip by the book", "F_draw * i", "N", BOOK, F_draw=draw, i=chuck.force_ratio)


def draw_force(p: float, chuck: ChuckForce, w: Working) -> float:
    """Pull of the actuator [N] at a pressure [bar]; of a chuck that is known by its piston.

    What a cone loses is counted on the cone: its draw-bar is pulled with all that the piston gives.
    """
    assert chuck.piston_area_mm2 is not None
    if chuck.half_angle_deg is not None:
        return w.step("F_draw", "Draw force", "p * 0.1 * A", "N", BOOK, p=p, A=chuck.piston_area_mm2)
    return w.step(
        "F_draw", "Draw force", "p * 0.1 * A * η", "N", BOOK, p=p, A=chuck.piston_area_mm2, η=chuck.efficiency
    )


def _from_chart(p: float, chuck: ChuckForce, w: Working) -> float:
    first, last = chuck.chart[0], chuck.chart[-1]
    if not first.pressure_bar <= p <= last.pressure_bar:
        raise FieldProblem(
            "pressure_bar",
            Sentence(
                "{p} is off the chuck's chart, which runs from {low} to {high}; stay on it.",
                p=Figure(p, "bar", exact=True),
                low=Figure(first.pressure_bar, "bar", "up", exact=True),
                high=Figure(last.pressure_bar, "bar", "down", exact=True),
            ),
        )
    a, b = next((a, b) for a, b in pairwise(chuck.chart) if p <= b.pressure_bar)
    return w.step(
        "F_chart",
        "Grip on the chart",
        "F_1 + (F_2 - F_1) * (p - p_1) / (p_2 - p_1)",
        "N",
        BOOK,
        F_1=a.grip_n,
        F_2=b.grip_n,
        p=p,
        p_1=a.pressure_bar,
        p_2=b.pressure_bar,
    )


def height_factor(chuck: ChuckForce, grip_height_mm: float, w: Working) -> float:
    """Share [-] of the charted grip that arrives at a height [mm] above the guide; 1 up to the rated height.

    >>> book = ChuckForce(90000, 30, 60, 80, chart=(ChartPoint(5, 15000), ChartPoint(30, 90000)))
    >>> height_factor(book, 60, Working()), round(height_factor(book, 120, Working()), 3)
    (1.0, 0.868)

    Reference: derived in docs/method.md, “What height costs”; a collet has no guides and acts at its nose.
    """
    if chuck.guide_length_mm == 0:
        return w.step("k_h", "Height factor, a collet acts at its nose", "k", "", HEIGHT, k=1.0)
    return w.step(
        "k_h",
        "Height factor",
        "min(1, (1 + 3*μ_g*h_ref/l_g) / (1 + 3*μ_g*h/l_g))",
        "",
        HEIGHT,
        μ_g=chuck.guide_friction,
        h_ref=chuck.reference_height_mm,
        l_g=chuck.guide_length_mm,
        h=grip_height_mm,
    )


def allowable_grip(chuck: ChuckForce, grip_height_mm: float, w: Working) -> float:
    """Grip [N] that the rated moment of the guides allows at a height [mm] above the guide.

    >>> book = ChuckForce(90000, 30, 60, 80, chart=(ChartPoint(5, 15000), ChartPoint(30, 90000)))
    >>> allowable_grip(book, 90, Working())
    60000.0

    Reference: derived in docs/method.md, “What the chuck can stand”; a collet has no guides to load.
    """
    if chuck.guide_length_mm == 0:
        return w.step("F_allow", "Grip the collet chuck may give", "F_max", "N", ALLOWED, F_max=chuck.max_grip_n)
    return w.step(
        "F_allow",
        "Grip the chuck may give at this height",
        "F_max * min(1, h_ref / h)",
        "N",
        ALLOWED,
        F_max=chuck.max_grip_n,
        h_ref=chuck.reference_height_mm,
        h=max(grip_height_mm, CLOSE),
    )

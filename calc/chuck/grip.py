"""Static grip from the chuck's pressure, at the height where it acts: calculator `chuck-grip`."""

from __future__ import annotations

from collections.abc import Iterator
from dataclasses import dataclass
from itertools import pairwise
from typing import Annotated

from calc import terms
from calc.describing import documented
from calc.errors import FieldError, FieldProblem
from calc.fields import Checked, Group, Quantity
from calc.quantities import Figure, Sentence
from calc.results import Explained, Found
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
            "Above the guide: where the chart was measured",
            above=0,
            high=500,
            where="Beside the grip chart, often as h or H",
        ),
    ]
    guide_length_mm: Annotated[
        float,
        Quantity(
            "Guide length",
            "mm",
            "Of the master jaw in the body",
            above=0,
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

    def contradictions(self) -> Iterator[FieldError]:
        if self.chart:
            for a, b in pairwise(self.chart):
                if b.pressure_bar <= a.pressure_bar or b.grip_n < a.grip_n:
                    yield FieldError("chart", Sentence("Chart points must rise: higher pressure, no less grip."))
                    return
            if len(self.chart) < 2:
                yield FieldError("chart", Sentence("A chart needs two points at least."))
        elif self.piston_area_mm2 is None or self.force_ratio is None:
            yield FieldError(
                "chart", Sentence("Give the chart, or piston area and force ratio: without them grip is not known.")
            )


@dataclass(frozen=True)
class ChuckGripInput(Checked):
    """Input of `chuck-grip`."""

    pressure_bar: Annotated[float, terms.PRESSURE]
    grip_height_mm: Annotated[
        float, Quantity("Grip height", "mm", "Middle of the grip above the guide", low=0, high=500)
    ]
    chuck: Annotated[ChuckForce, Group("Chuck")]
    condition_factor: Annotated[float, terms.CONDITION] = 1.0
    jaws: Annotated[int, terms.JAWS] = 3


@dataclass(frozen=True, slots=True, kw_only=True)
class ChuckGripResult(Explained):
    """Static grip, the sum over all jaws, and what the chuck allows at that height."""

    grip_n: Annotated[float, Found("Static grip, all jaws", "N", "down")]
    per_jaw_n: Annotated[float, Found("Static grip, one jaw", "N", "down")]
    height_factor: Annotated[float, Found("Height factor", places=(3, 3), safe="down")]
    allowable_grip_n: Annotated[float, Found("Grip the chuck may give at this height", "N", "down")]
    overloaded: Annotated[bool, Found("Chuck overloaded")]
    charted_n: Annotated[float, Found("Grip by the book", "N", "down")]


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
    assert chuck.force_ratio is not None
    draw = _draw(pressure_bar, chuck, w)
    return w.step("F_chart", "Grip by the book", "F_draw * i", "N", BOOK, F_draw=draw, i=chuck.force_ratio)


def _draw(p: float, chuck: ChuckForce, w: Working) -> float:
    assert chuck.piston_area_mm2 is not None
    return w.step(
        "F_draw", "Draw force", "p * 0.1 * A * η", "N", BOOK, p=p, A=chuck.piston_area_mm2, η=chuck.efficiency
    )


def _refuse_beyond(p: float, chuck: ChuckForce) -> None:
    """Raise FieldProblem for a pressure that the cylinder may not have, or that pulls more than the draw-bar may."""
    if p > chuck.max_pressure_bar:
        raise FieldProblem(
            "pressure_bar",
            Sentence(
                "{p} is above the {limit} that the cylinder may have; lower the pressure.",
                p=Figure(p, "bar", exact=True),
                limit=Figure(chuck.max_pressure_bar, "bar", "down", exact=True),
            ),
        )
    draw = 0.0 if chuck.chart else _draw(p, chuck, Working())
    if chuck.max_draw_n is not None and draw > chuck.max_draw_n * (1 + 1e-9):
        raise FieldProblem(
            "pressure_bar",
            Sentence(
                "{p} would pull {draw}, above the {limit} stated; lower the pressure.",
                p=Figure(p, "bar", exact=True),
                draw=Figure(draw, "N", "up"),
                limit=Figure(chuck.max_draw_n, "N", "down"),
            ),
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

    Reference: derived in docs/method.md, “What height costs”.
    """
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

    Reference: derived in docs/method.md, “What the chuck can stand”.
    """
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


@documented(ChuckGripInput)
def chuck_grip(given: ChuckGripInput) -> ChuckGripResult:
    """Static grip of a chuck at a pressure, at the height where the jaws hold.

    Parameters
        {parameters}
    Returns
        grip_n [N] sum over all jaws, per_jaw_n [N], height_factor [-] ≤ 1,
        allowable_grip_n [N] by the rated moment, overloaded: charted grip × height above it
    Raises
        CalcError at `pressure_bar` outside the chart, above cylinder or chuck limits
    Validity
        Straight lines between chart points, never beyond them. Below the rated height nothing is
        gained. Condition is left out of `overloaded`: a pessimistic guess must not hide an overload.
    Example
        >>> book = ChuckForce(90000, 30, 60, 80, chart=(ChartPoint(5, 15000), ChartPoint(30, 90000)))
        >>> round(chuck_grip(ChuckGripInput(20, 60, book)).grip_n)
        60000

    Reference
        derived in docs/method.md, “What height costs” and “What the chuck can stand”
    """
    w = Working()
    chuck = given.chuck
    _refuse_beyond(given.pressure_bar, chuck)
    charted = book_grip(given.pressure_bar, chuck, w)
    if charted > chuck.max_grip_n * (1 + 1e-9):
        raise FieldProblem(
            "pressure_bar",
            Sentence(
                "{p} would grip with {grip}, above the chuck's {limit}; lower the pressure.",
                p=Figure(given.pressure_bar, "bar", exact=True),
                grip=Figure(charted, "N", "up"),
                limit=Figure(chuck.max_grip_n, "N", "down"),
            ),
        )
    factor = height_factor(chuck, given.grip_height_mm, w)
    allowable = allowable_grip(chuck, given.grip_height_mm, w)
    grip = w.step(
        "F_0",
        "Static grip, all jaws",
        "F_chart * k_h * c",
        "N",
        HEIGHT,
        F_chart=charted,
        k_h=factor,
        c=given.condition_factor,
    )
    per_jaw = w.step("F_jaw", "Static grip, one jaw", "F_0 / z", "N", HEIGHT, F_0=grip, z=given.jaws)
    overloaded = charted * factor > allowable * (1 + 1e-9)
    if overloaded:
        w.note(
            "stop",
            "chuck-overloaded",
            "The chuck may give {allow} at this height and is asked for {asked}: lower the pressure, "
            "or take a shorter jaw or a deeper pocket.",
            allow=Figure(allowable, "N", "down"),
            asked=Figure(charted * factor, "N", "up"),
        )
    return ChuckGripResult(
        grip_n=grip,
        per_jaw_n=per_jaw,
        height_factor=factor,
        allowable_grip_n=allowable,
        overloaded=overloaded,
        charted_n=charted,
        working=tuple(w.steps),
        notes=tuple(w.notes),
    )

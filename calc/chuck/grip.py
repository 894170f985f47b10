"""Static grip from the chuck's pressure, at the height where it acts: calculator `chuck-grip`."""

from __future__ import annotations

from dataclasses import dataclass
from typing import Annotated

from calc import terms
from calc.chuck.book import HEIGHT, ChuckForce, allowable_grip, book_grip, draw_force, height_factor
from calc.describing import calculator
from calc.errors import FieldProblem
from calc.fields import Checked, Group, Quantity
from calc.quantities import Figure, Sentence
from calc.results import Explained, Found
from calc.working import Working


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
    draw = 0.0 if chuck.chart else draw_force(p, chuck, Working())
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


@calculator(ChuckGripInput)
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
        >>> from calc.chuck.book import ChartPoint
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

"""From a wanted speed to the pressure: calculator `pressure-needed`."""

from __future__ import annotations

import math
from dataclasses import dataclass
from itertools import pairwise
from typing import Annotated, Literal

from calc import terms
from calc.chuck.book import ALLOWED, CLOSE, ChuckForce, allowable_grip, book_grip, height_factor
from calc.chuck.speed import StackParts, Transmission, centrifugal, stack_moment
from calc.describing import calculator
from calc.errors import CalcError, FieldError
from calc.fields import Checked, Group, Quantity
from calc.quantities import Figure, Sentence
from calc.results import Explained, Found
from calc.terms import SIDE, Side
from calc.working import BOOK, Working, derived

INVERSE = derived("From speed to pressure")
LimitedBy = Literal["moment", "wall", "cylinder", "chart", "chuck", "draw"]


LIMIT_WORDS = {
    "moment": "the guides' rated moment",
    "chuck": "the chuck's highest grip",
    "cylinder": "the cylinder's highest pressure",
    "chart": "the end of the chart",
    "draw": "the draw-bar's limit",
    "wall": "the wall",
}


@dataclass(frozen=True)
class PressureNeededInput(Checked):
    """Input of `pressure-needed`."""

    required_grip_n: Annotated[float, terms.REQUIRED_GRIP.called(help="Of the worst cut, safety included, all jaws")]
    side: Annotated[Side, SIDE]
    stack: StackParts
    rpm: Annotated[float, terms.SPINDLE_SPEED]
    grip_height_mm: Annotated[
        float, Quantity("Grip height", "mm", "Middle of the grip above the guide", low=0, high=500)
    ]
    chuck: Annotated[ChuckForce, Group("Chuck")]
    condition_factor: Annotated[float, terms.CONDITION] = 1.0
    jaws: Annotated[int, terms.JAWS] = 3
    transmission: Transmission = 1.0
    wall_limit_n: Annotated[float | None, terms.WALL_LIMIT] = None
    jaw_height_mm: Annotated[
        float | None,
        Quantity(
            "Jaw's centre of mass",
            "mm",
            "Above the guide; inside grip: its pull at speed loads the guides",
            low=0,
            high=500,
        ),
    ] = None


@dataclass(frozen=True, slots=True, kw_only=True)
class PressureNeededResult(Explained):
    """The least pressure that holds at the speed, or what forbids it."""

    pressure_bar: Annotated[float | None, Found("Gauge pressure", "bar", "up")]
    limited_by: Annotated[LimitedBy | None, Found("Limited by", options=LIMIT_WORDS)]
    margin_n: Annotated[float, Found("Room to that limit", "N", "down")]
    static_grip_n: Annotated[float, Found("Static grip needed", "N", "up")]
    highest_bar: Annotated[float, Found("Highest pressure the limits allow", "bar", "down")]


def _pressure_for(charted: float, chuck: ChuckForce) -> float | None:
    """The least pressure [bar] whose book grip is `charted` [N]; None beyond the chart's end, or beyond all numbers."""
    if not chuck.chart:
        per_bar = book_grip(1.0, chuck, Working())
        found = charted / per_bar if per_bar > 0 else math.inf
        return found if math.isfinite(found) else None
    if charted <= chuck.chart[0].grip_n:
        return chuck.chart[0].pressure_bar
    for a, b in pairwise(chuck.chart):
        if charted <= b.grip_n:
            rise = b.grip_n - a.grip_n
            return a.pressure_bar + (b.pressure_bar - a.pressure_bar) * (charted - a.grip_n) / rise
    return None


def _limits(given: PressureNeededInput, factor: float, centrifugal: float, w: Working) -> dict[LimitedBy, float]:
    """The static grip [N over all jaws, condition counted] at which each limit is reached."""
    chuck, c = given.chuck, given.condition_factor
    here = max(given.grip_height_mm, CLOSE)
    allowed = allowable_grip(chuck, given.grip_height_mm, w)
    # The moment and the chuck's own limit are held against the book: a guess about grease hides no overload.
    if given.side == "id" and given.jaw_height_mm is not None:
        pull = max(1.0, given.transmission) * centrifugal * max(0.0, given.grip_height_mm - given.jaw_height_mm)
        allowed = w.step(
            "F_allow′",
            "The same, less what the jaws' own pull takes of the moment",
            "max(0, F_allow - M/h)",
            "N",
            ALLOWED,
            F_allow=allowed,
            M=pull,
            h=here,
        )
    limits: dict[LimitedBy, float] = {"moment": allowed * c, "chuck": chuck.max_grip_n * factor * c}
    if not chuck.chart:
        limits["cylinder"] = book_grip(chuck.max_pressure_bar, chuck, Working()) * factor * c
        if chuck.max_draw_n is not None and chuck.force_ratio is not None:
            limits["draw"] = chuck.max_draw_n * chuck.force_ratio * factor * c
    elif chuck.max_pressure_bar < chuck.chart[-1].pressure_bar:
        within = max(chuck.max_pressure_bar, chuck.chart[0].pressure_bar)
        limits["cylinder"] = book_grip(within, chuck, Working()) * factor * c
    else:
        limits["chart"] = chuck.chart[-1].grip_n * factor * c
    if given.wall_limit_n is not None:
        # Inside, the wall carries the full gain of the speed; outside it carries most standing still.
        gain = 0.0 if given.side == "od" else max(1.0, given.transmission) * centrifugal
        limits["wall"] = max(0.0, given.wall_limit_n - gain)
    return limits


SAYS: dict[LimitedBy, str] = {
    "moment": "the chuck may give {limit} at this height",
    "chuck": "the chuck gives no more than {limit} here",
    "cylinder": "the cylinder's highest pressure gives {limit}",
    "chart": "the chuck's chart ends at {limit}",
    "draw": "the draw-bar's limit gives {limit}",
    "wall": "the wall leaves room for {limit} standing still",
}


@calculator(PressureNeededInput)
def pressure_needed(given: PressureNeededInput) -> PressureNeededResult:
    """The least gauge pressure at which the grip meets a demand at a speed.

    Parameters
        {parameters}
    Returns
        pressure_bar [bar], None where a limit forbids it; limited_by the limit that is reached first:
        moment, wall, cylinder, chart, chuck or draw; margin_n [N] from the static grip needed to that
        limit, below zero where it is passed; static_grip_n [N] needed; highest_bar [bar] that the
        limits allow
    Raises
        CalcError for a chart that begins above the cylinder's pressure
    Validity
        The exact inverse of `chuck-grip` with `grip-at-speed`. Outside, speed's loss is added to the
        demand; inside, its gain is not credited. Where less than the chart's first point is needed, that
        point is the answer: below it the chart says nothing.
    Example
        >>> from calc.chuck.book import ChartPoint
        >>> from calc.chuck.speed import StackPart
        >>> book = ChuckForce(90000, 30, 60, 80, chart=(ChartPoint(5, 15000), ChartPoint(30, 90000)))
        >>> r = pressure_needed(PressureNeededInput(30844, "od", (StackPart(2.45, 65.5),), 2350, 60, book))
        >>> round(r.static_grip_n), round(r.pressure_bar, 1)
        (60000, 20.0)

    Reference
        derived in docs/method.md, “From speed to pressure”
    """
    w = Working()
    chuck = given.chuck
    if chuck.chart and chuck.chart[0].pressure_bar > chuck.max_pressure_bar:
        words = Sentence(
            "The chart begins above the {p} that the cylinder may have.",
            p=Figure(chuck.max_pressure_bar, "bar", "down"),
        )
        raise CalcError([FieldError("chuck.max_pressure_bar", words)])
    moment = stack_moment(given.stack, w)
    taken = centrifugal(w, given.jaws, moment, given.rpm)
    if given.side == "od":
        need = w.step(
            "F_0",
            "Grip needed standing still",
            "F_req + λ*F_c",
            "N",
            INVERSE,
            F_req=given.required_grip_n,
            λ=given.transmission,
            F_c=taken,
        )
    else:
        need = w.step(
            "F_0",
            "Grip needed standing still: the gain is not credited",
            "F_req",
            "N",
            INVERSE,
            F_req=given.required_grip_n,
        )
    factor = height_factor(chuck, given.grip_height_mm, w)
    limits = _limits(given, factor, taken, w)
    by = min(limits, key=lambda name: limits[name])
    margin = w.step("m", "Room to the limit reached first", "F_lim - F_0", "N", INVERSE, F_lim=limits[by], F_0=need)
    book = w.step(
        "F_chart", "Grip by the book", "F_0 / (k_h*c)", "N", INVERSE, F_0=need, k_h=factor, c=given.condition_factor
    )
    highest = _pressure_for(limits[by] / (factor * given.condition_factor), chuck)
    most = chuck.max_pressure_bar if highest is None else min(highest, chuck.max_pressure_bar)
    pressure = None
    # At the chart's first point a wall may already be passed: no pressure of the chart is low enough then.
    least_static = (chuck.chart[0].grip_n if chuck.chart else 0.0) * factor * given.condition_factor
    if margin >= -CLOSE * max(need, 1.0) and least_static <= limits[by] * (1 + CLOSE):
        found = _pressure_for(book, chuck)
        pressure = w.step("p", "Pressure for it", "p", "bar", BOOK, p=min(most if found is None else found, most))
    else:
        w.note(
            "stop",
            f"limited-by-{by}",
            "It would take {need} standing still, and " + SAYS[by] + ": no pressure does it.",
            need=Figure(max(need, least_static), "N", "up"),
            limit=Figure(limits[by], "N", "down"),
        )
    return PressureNeededResult(
        pressure_bar=pressure,
        limited_by=by,
        margin_n=margin,
        static_grip_n=need,
        highest_bar=most,
        working=tuple(w.steps),
        notes=tuple(w.notes),
    )

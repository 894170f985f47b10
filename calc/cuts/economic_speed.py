"""The speed for the most pieces and for the cheapest piece: calculator `economic-speed`."""

from __future__ import annotations

from dataclasses import dataclass
from typing import Annotated

from calc import terms
from calc.describing import calculator
from calc.fields import Checked, Quantity
from calc.quantities import Figure
from calc.results import Explained, Found
from calc.working import Working, derived

GILBERT = derived("Tool life and the cheapest speed")
LEAST_LIFE_MIN, MOST_LIFE_MIN = 5.0, 60.0


@dataclass(frozen=True)
class EconomicSpeedInput(Checked):
    """Input of `economic-speed`."""

    exponent: Annotated[float, terms.TAYLOR_EXPONENT]
    speed_ref_m_min: Annotated[float, Quantity("Known speed", "m/min", "That lasts the known life", above=0, high=3000)]
    change_min: Annotated[float, terms.EDGE_CHANGE]
    edge_cost: Annotated[float, Quantity("An edge costs", "", "In the shop's money", low=0, high=100_000)]
    minute_cost: Annotated[
        float, Quantity("A minute costs", "", "Of the machine, in the same money", above=0, high=100_000)
    ]
    life_ref_min: Annotated[float, Quantity("Known life", "min", "", above=0, high=600)] = 15.0


@dataclass(frozen=True, slots=True, kw_only=True)
class EconomicSpeedResult(Explained):
    """Life and speed for the most pieces, and for the cheapest piece."""

    life_fast_min: Annotated[float, Found("Life for the most pieces", "min", "near")]
    speed_fast_m_min: Annotated[float, Found("Speed for the most pieces", "m/min", "down")]
    life_cheap_min: Annotated[float, Found("Life for the cheapest piece", "min", "near")]
    speed_cheap_m_min: Annotated[float, Found("Speed for the cheapest piece", "m/min", "down")]


@dataclass(frozen=True)
class Known:
    """What is known of an edge: Taylor's exponent, and a speed [m/min] with the life [min] it gives."""

    exponent: float
    speed_m_min: float
    life_min: float = 15.0


def fastest(w: Working, known: Known, change_min: float) -> tuple[float, float]:
    """(life [min], speed [m/min]) for the most pieces an hour.

    >>> [round(x, 1) for x in fastest(Working(), Known(0.25, 200.0), 2.0)]
    [6.0, 251.5]

    Reference: Gilbert; derived in docs/method.md, “Tool life and the cheapest speed”.
    """
    values = {"n": known.exponent, "t_x": change_min}
    life = w.step("T_f", "Life for the most pieces", "(1/n - 1) * t_x", "min", GILBERT, **values)
    label, text = "Speed for the most pieces", "v_r * (T_r/T_f)**n"
    speed = w.step("v_f", label, text, "m/min", GILBERT, T_f=life, **_taylor(known))
    return life, speed


def cheapest(w: Working, known: Known, change_min: float, edge_cost: float, minute_cost: float) -> tuple[float, float]:
    """(life [min], speed [m/min]) for the cheapest piece; the costs in one money.

    >>> [round(x, 1) for x in cheapest(Working(), Known(0.25, 200.0), 2.0, 4.0, 1.0)]
    [18.0, 191.1]

    Reference: Gilbert; derived in docs/method.md, “Tool life and the cheapest speed”.
    """
    values = {"n": known.exponent, "t_x": change_min, "C_e": edge_cost, "C_m": minute_cost}
    life = w.step("T_c", "Cheapest life", "(1/n - 1) * (t_x + C_e/C_m)", "min", GILBERT, **values)
    speed = w.step("v_c", "Cheapest speed", "v_r * (T_r/T_c)**n", "m/min", GILBERT, T_c=life, **_taylor(known))
    return life, speed


def _taylor(known: Known) -> dict[str, float]:
    return {"v_r": known.speed_m_min, "T_r": known.life_min, "n": known.exponent}


@calculator(EconomicSpeedInput)
def economic_speed(given: EconomicSpeedInput) -> EconomicSpeedResult:
    """The surface speeds for the most pieces an hour and for the cheapest piece.

    Parameters
        {parameters}
    Returns
        life and speed of both: life_fast_min, life_cheap_min [min]; speed_fast_m_min, speed_cheap_m_min [m/min]
    Raises
        CalcError for values outside these ranges
    Validity
        Taylor's law around a quarter of an hour; a life under 5 or over 60 min is told. Every other limit of the speed
        (spindle, grip, material, insert) still holds.
    Example
        >>> r = economic_speed(EconomicSpeedInput(0.25, 200, 2, 4, 1))
        >>> [round(x, 1) for x in (r.life_fast_min, r.speed_fast_m_min, r.life_cheap_min, r.speed_cheap_m_min)]
        [6.0, 251.5, 18.0, 191.1]

    Reference
        Gilbert's minimum-cost speed; derived in docs/method.md, “Tool life and the cheapest speed”
    """
    w = Working()
    known = Known(given.exponent, given.speed_ref_m_min, given.life_ref_min)
    fast_life, fast = fastest(w, known, given.change_min)
    cheap_life, cheap = cheapest(w, known, given.change_min, given.edge_cost, given.minute_cost)
    for what, life in (("the most pieces", fast_life), ("the cheapest piece", cheap_life)):
        if not LEAST_LIFE_MIN <= life <= MOST_LIFE_MIN:
            words = "The life for {what}, {t}, is outside the {a} to {b} from which the law is good."
            bounds = {"a": Figure(LEAST_LIFE_MIN, "min"), "b": Figure(MOST_LIFE_MIN, "min")}
            w.note("caution", "life-outside-law", words, what=what, t=Figure(life, "min"), **bounds)
    return EconomicSpeedResult(
        life_fast_min=fast_life,
        speed_fast_m_min=fast,
        life_cheap_min=cheap_life,
        speed_cheap_m_min=cheap,
        working=tuple(w.steps),
        notes=tuple(w.notes),
    )

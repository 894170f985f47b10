"""Time of a rapid move: calculator `move-time`."""

from __future__ import annotations

from dataclasses import dataclass
from typing import Annotated

from calc.describing import calculator
from calc.fields import Checked, Quantity
from calc.results import Explained, Found
from calc.working import N, Steps, Working, derived

MOVES = derived("Moving and indexing")


@dataclass(frozen=True)
class MoveTimeInput(Checked):
    """Input of `move-time`."""

    distance_mm: Annotated[float, Quantity("Distance", "mm", "In X the travel on radius", low=0, high=50_000)]
    rapid_m_min: Annotated[float, Quantity("Rapid", "m/min", "Of the slide", above=0, high=200)]
    acceleration_m_s2: Annotated[float, Quantity("Acceleration", "m/s2", "Of the slide", above=0, high=50)]


@dataclass(frozen=True, slots=True, kw_only=True)
class MoveTimeResult(Explained):
    """How long the slide takes."""

    seconds: Annotated[float, Found("Time", "s", "up", places=(3, 3))]


def move_seconds(w: Steps[N], distance: N, rapid_m_min: float, acceleration_m_s2: float) -> N:
    """Time [s] of a move of `distance` [mm, 0 or more] from rest to rest, at one acceleration both ways.

    >>> round(move_seconds(Working(), 100.0, 24.0, 3.0), 3), round(move_seconds(Working(), 10.0, 24.0, 3.0), 3)
    (0.383, 0.115)

    Reference: derived in docs/method.md, “Moving and indexing”.
    """
    rapid = w.step("v_s", "Rapid", "v/60", "m/s", MOVES, v=rapid_m_min)
    ramps = w.step(
        "s_a", "Travel for speeding up and stopping", "1000*v_s**2/a", "mm", MOVES, v_s=rapid, a=acceleration_m_s2
    )
    values = {"s": distance, "a": acceleration_m_s2}
    return w.case(
        distance >= ramps,
        lambda: w.step("t_m", "Time, at full rapid between", "s/(1000*v_s) + v_s/a", "s", MOVES, v_s=rapid, **values),
        lambda: w.step("t_m", "Time, full rapid is not reached", "2*sqrt(s/(1000*a))", "s", MOVES, **values),
    )


@calculator(MoveTimeInput)
def move_time(given: MoveTimeInput) -> MoveTimeResult:
    """How long a rapid move takes, from rest to rest.

    Parameters
        {parameters}
    Returns
        seconds [s]
    Raises
        CalcError for values outside these ranges
    Validity
        One axis at one acceleration; two axes together take the longer of the two. What the control adds between
        blocks is not in it.
    Example
        >>> round(move_time(MoveTimeInput(100, 24, 3)).seconds, 3)
        0.383

    Reference
        derived in docs/method.md, “Moving and indexing”
    """
    w = Working()
    seconds = move_seconds(w, given.distance_mm, given.rapid_m_min, given.acceleration_m_s2)
    return MoveTimeResult(seconds=seconds, working=tuple(w.steps), notes=tuple(w.notes))

"""Narrower limits for the machine, from the print's: calculator `working-limits`."""

from __future__ import annotations

from collections.abc import Iterator
from dataclasses import dataclass
from typing import Annotated, Literal

from calc.describing import calculator
from calc.errors import FieldError
from calc.fields import Checked, Choice, Quantity, When
from calc.quantities import Figure, Sentence, about
from calc.results import Explained, Found
from calc.working import Source, Working, derived

LIMITS = derived("Working limits")
DECISION = Source("standard", "ISO 14253-1: the limits less the uncertainty of measuring", "ISO 14253-1")
LIMIT_PLACES = (4, 5)

Rule = Literal["print", "narrowed", "uncertainty"]
RULE = Choice(
    "Limits at the machine",
    {
        "print": "the print's",
        "narrowed": "narrowed by a share",
        "uncertainty": "the print's less measurement uncertainty",
    },
    "What a piece is judged by while the run goes on",
)


@dataclass(frozen=True)
class WorkingLimitsInput(Checked):
    """Input of `working-limits`."""

    low: Annotated[float, Quantity("Lower limit", "mm", "Of the print", low=-10_000, high=10_000, places=LIMIT_PLACES)]
    high: Annotated[float, Quantity("Upper limit", "mm", "Of the print", low=-10_000, high=10_000, places=LIMIT_PLACES)]
    keep_fraction: Annotated[
        float,
        Quantity("Share kept back", "", "Of the whole tolerance, half at each end; a third is usual", 0, 0.95),
        When("rule", ("narrowed",)),
    ] = 1 / 3
    uncertainty: Annotated[
        float,
        Quantity("Uncertainty", "mm", "Of measuring, at each limit", low=0, high=100, places=LIMIT_PLACES),
        When("rule", ("uncertainty",)),
    ] = 0.0
    rule: Annotated[Rule, RULE] = "narrowed"

    def contradictions(self) -> Iterator[FieldError]:
        if self.low > self.high:
            yield FieldError("low", about("The lower limit cannot be above the upper one, {x}.", self.high))
            yield FieldError("high", about("The upper limit cannot be below the lower one, {x}.", self.low))
        elif self.rule == "uncertainty" and 2 * self.uncertainty > self.high - self.low:
            width = Figure(self.high - self.low, "mm", exact=True)
            words = "Nothing is left between the limits, which are {w} apart: measure better, to under half of that."
            yield FieldError("uncertainty", Sentence(words, w=width))


@dataclass(frozen=True, slots=True, kw_only=True)
class WorkingLimitsResult(Explained):
    """The limits to work to."""

    low: Annotated[float, Found("Lower working limit", "mm", "up", places=LIMIT_PLACES)]
    high: Annotated[float, Found("Upper working limit", "mm", "down", places=LIMIT_PLACES)]


@calculator(WorkingLimitsInput)
def working_limits(given: WorkingLimitsInput) -> WorkingLimitsResult:
    """The limits that a size is held to at the machine.

    Parameters
        {parameters}
    Returns
        low, high [mm]: the print's own, or narrower by the rule; never wider
    Raises
        CalcError: limits the wrong way round, an uncertainty that leaves nothing between them
    Validity
        A share kept back is taken from both ends alike; the uncertainty is that of one measurement, expanded.
    Example
        >>> r = working_limits(WorkingLimitsInput(83.965, 84.0))
        >>> round(r.low, 4), round(r.high, 4)
        (83.9708, 83.9942)

    Reference
        ISO 14253-1; derived in docs/method.md, “Working limits”
    """
    w = Working()
    low, high = given.low, given.high
    if given.rule == "narrowed":
        held = w.step(
            "g",
            "Kept back at each end",
            "k * (D_u - D_l) / 2",
            "mm",
            LIMITS,
            k=given.keep_fraction,
            D_u=given.high,
            D_l=given.low,
        )
        low = w.step("W_l", "Lower working limit", "D_l + g", "mm", LIMITS, D_l=given.low, g=held)
        high = w.step("W_u", "Upper working limit", "D_u - g", "mm", LIMITS, D_u=given.high, g=held)
    elif given.rule == "uncertainty":
        low = w.step("W_l", "Lower working limit", "D_l + U", "mm", DECISION, D_l=given.low, U=given.uncertainty)
        high = w.step("W_u", "Upper working limit", "D_u - U", "mm", DECISION, D_u=given.high, U=given.uncertainty)
    return WorkingLimitsResult(low=low, high=high, working=tuple(w.steps), notes=tuple(w.notes))

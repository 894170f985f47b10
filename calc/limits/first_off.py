"""The first piece measured, and how far the offset moves for it: calculator `first-off`."""

from __future__ import annotations

from collections.abc import Iterator
from dataclasses import dataclass
from typing import Annotated, Literal

from calc.describing import calculator
from calc.errors import FieldError
from calc.fields import Checked, Choice, Quantity
from calc.quantities import Figure, Sentence
from calc.results import Explained, Found
from calc.working import ENTERED, Source, Working, derived

FIRST_OFF = derived("The first piece")
REFERENCE_C = Source("standard", "ISO 1: sizes hold at 20 °C", "ISO 1")
AT_C = 20.0
PLACES = (4, 5)
SMALL_MM = 0.0005  # less than this no control takes

Measured = Literal["diameter", "from-chuck", "from-face"]
MEASURED = Choice(
    "What was measured",
    {
        "diameter": "a diameter",
        "from-chuck": "a length to the cut face, from the chuck's side",
        "from-face": "a length from the finished front face back to a shoulder",
    },
    "It says which offset moves, and which way",
)


@dataclass(frozen=True)
class FirstOffInput(Checked):
    """Input of `first-off`."""

    measured_mm: Annotated[
        float, Quantity("Measured", "mm", "As the piece is now", above=0, high=10_000, places=PLACES)
    ]
    target_mm: Annotated[
        float, Quantity("Target", "mm", "The working middle, at 20 °C", above=0, high=10_000, places=PLACES)
    ]
    expansion_1e6_k: Annotated[float, Quantity("Expansion", "", "µm for each metre and kelvin", low=0, high=500)] = 11.5
    part_temp_c: Annotated[float, Quantity("Temperature, °C", "", "Of the piece when measured", low=-20, high=150)] = (
        AT_C
    )
    measured: Annotated[Measured, MEASURED] = "diameter"

    def contradictions(self) -> Iterator[FieldError]:
        if abs(self.measured_mm - self.target_mm) > self.target_mm:
            words = "That is more than twice the target, {t}: read it again, or look which dimension it is."
            yield FieldError("measured_mm", Sentence(words, t=Figure(self.target_mm, "mm", exact=True)))


@dataclass(frozen=True, slots=True, kw_only=True)
class FirstOffResult(Explained):
    """The size at 20 °C, and what is added to the offset."""

    at_20_mm: Annotated[float, Found("At 20 °C", "mm", places=PLACES)]
    correction_mm: Annotated[float, Found("Add to the offset", "mm", places=PLACES)]


@calculator(FirstOffInput)
def first_off(given: FirstOffInput) -> FirstOffResult:
    """The size that a warm piece has at 20 °C, and the correction of the offset that cut it.

    Parameters
        {parameters}
    Returns
        at_20_mm [mm]; correction_mm [mm], added to the wear offset: in X as a diameter, outside and inside alike, in Z
        along the axis
    Raises
        CalcError: a size more than twice the target
    Validity
        X+ away from the axis on the tool's side, Z+ away from the chuck. The piece is as warm inside as outside.
    Example
        >>> r = first_off(FirstOffInput(84.031, 83.982, 13, 35))
        >>> round(r.at_20_mm, 4), round(r.correction_mm, 4)
        (84.0146, -0.0326)

    Reference
        ISO 1; derived in docs/method.md, “The first piece”
    """
    w = Working()
    size = w.step(
        "D_20",
        "Size at 20 °C",
        "D / (1 + alpha*(T_t - T_20)/1000000)",
        "mm",
        REFERENCE_C if given.part_temp_c != AT_C else ENTERED,
        D=given.measured_mm,
        alpha=given.expansion_1e6_k,
        T_t=given.part_temp_c,
        T_20=AT_C,
    )
    text = "D_20 - D_t" if given.measured == "from-face" else "D_t - D_20"
    correction = w.step("c_o", "Add to the offset", text, "mm", FIRST_OFF, D_20=size, D_t=given.target_mm)
    if abs(correction) < SMALL_MM:
        w.note("info", "on-size", "It is on its target: leave the offset as it is.")
    return FirstOffResult(at_20_mm=size, correction_mm=correction, working=tuple(w.steps), notes=tuple(w.notes))

"""Coolant: its strength from a refractometer, and how to bring it right: calculator `coolant`."""

from __future__ import annotations

from collections.abc import Iterator
from dataclasses import dataclass
from typing import Annotated

from calc.describing import calculator
from calc.errors import FieldError
from calc.fields import Checked, Quantity
from calc.quantities import Sentence
from calc.results import Explained, Found
from calc.working import Source, Working, derived

BRIX = Source("book", "the concentrate's data sheet")
MIXING = derived("Coolant")


@dataclass(frozen=True)
class CoolantInput(Checked):
    """Input of `coolant`."""

    reading: Annotated[float, Quantity("Refractometer", "", "Reading on its scale", low=0, high=80)]
    factor: Annotated[float, Quantity("Factor", "", "Of the concentrate, from its data sheet", above=0, high=10)]
    target_percent: Annotated[float, Quantity("Strength wanted", "%", "", above=0, high=50)]
    volume_l: Annotated[float, Quantity("In the tank", "l", "Coolant there is", above=0, high=100_000)]

    def contradictions(self) -> Iterator[FieldError]:
        if self.reading * self.factor >= 100:
            yield FieldError(
                "reading", Sentence("Reading times factor is 100 % or more: check the factor on the data sheet.")
            )


@dataclass(frozen=True, slots=True, kw_only=True)
class CoolantResult(Explained):
    """How strong it is, and either what to add, or what to drain and fill up with water."""

    percent: Annotated[float, Found("Concentration", "%")]
    add_concentrate_l: Annotated[float, Found("Add concentrate", "l", "up")]
    add_water_l: Annotated[float, Found("Add water", "l", "up")]
    drain_l: Annotated[float, Found("Drain", "l", "up")]


@calculator(CoolantInput)
def coolant(given: CoolantInput) -> CoolantResult:
    """How strong the coolant is, and what brings it to the strength wanted.

    Parameters
        {parameters}
    Returns
        percent [%]; add_concentrate_l [l] where it is too weak; add_water_l [l] where it is too strong and
        the tank has room; drain_l [l] to drain and fill up with water instead where it has none
    Raises
        CalcError for values outside these ranges, or a reading that means 100 % or more
    Validity
        Tramp oil makes a refractometer read high: skim it off first.
    Example
        >>> r = coolant(CoolantInput(4, 1.5, 8, 200))
        >>> r.percent, round(r.add_concentrate_l, 3)
        (6.0, 4.348)

    Reference
        Derived in docs/method.md, “Coolant”
    """
    w = Working()
    percent = w.step("c", "Strength", "R * k", "%", BRIX, R=given.reading, k=given.factor)
    target, volume = given.target_percent, given.volume_l
    concentrate = water = drain = 0.0
    if percent < target:
        concentrate = w.step(
            "V_k", "Concentrate to add", "V * (c_2 - c) / (100 - c_2)", "l", MIXING, V=volume, c_2=target, c=percent
        )
        w.note(
            "caution",
            "coolant-weak",
            "Too weak: rust, bacteria and wear. Mix concentrate into water, never water into concentrate.",
        )
    elif percent > target:
        water = w.step("V_w", "Water to add", "V * (c/c_2 - 1)", "l", MIXING, V=volume, c=percent, c_2=target)
        drain = w.step(
            "V_d", "Or drain, and fill up with water", "V * (1 - c_2/c)", "l", MIXING, V=volume, c=percent, c_2=target
        )
        w.note("caution", "coolant-strong", "Too strong: residue, skin trouble and money.")
    w.note("caution", "coolant-skin", "Coolant and its mist irritate skin and lungs: doors shut, skin washed.")
    return CoolantResult(
        percent=percent,
        add_concentrate_l=concentrate,
        add_water_l=water,
        drain_l=drain,
        working=tuple(w.steps),
        notes=tuple(w.notes),
    )

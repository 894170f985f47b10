"""What opening is left to load and what closing is left to grip: calculator `jaw-stroke`."""

from __future__ import annotations

from collections.abc import Iterator
from dataclasses import dataclass
from typing import Annotated

from calc import terms
from calc.describing import calculator
from calc.errors import FieldError
from calc.fields import Checked, Quantity
from calc.quantities import Figure, Sentence
from calc.results import Explained, Found
from calc.terms import SIDE, Side
from calc.working import Working, derived, typical

STROKE = derived("Stroke")
TO_LOAD_MM = 1.0  # typical, on diameter
TO_GRIP_MM = 0.5
LOADING = typical("1.0 mm more than the piece to load it")
GRIPPING = typical("0.5 mm more than the piece to grip it")
CLOSE = 1e-9


@dataclass(frozen=True)
class JawStrokeInput(Checked):
    """Input of `jaw-stroke`."""

    side: Annotated[Side, SIDE]
    stroke_mm: Annotated[float, Quantity("Jaw stroke", "mm", "Of one jaw, on the radius", above=0, high=500)]
    position: Annotated[float, terms.BORED_AT.called(help="Share of the stroke used, from released toward clamped")]
    nominal_mm: Annotated[float, Quantity("Bored to", "mm", "Diameter the jaws are bored to", above=0, high=4000)]
    largest_mm: Annotated[float, terms.LARGEST.called(help="Diameter")]
    smallest_mm: Annotated[float, terms.SMALLEST.called(help="Diameter")]

    def contradictions(self) -> Iterator[FieldError]:
        if self.smallest_mm > self.largest_mm:
            largest = Figure(self.largest_mm, "mm", exact=True)
            yield FieldError("smallest_mm", Sentence("The smallest piece cannot be above the largest, {d}.", d=largest))


@dataclass(frozen=True, slots=True, kw_only=True)
class JawStrokeResult(Explained):
    """Travel on diameter either side of the bored size, and what the pieces ask of it."""

    load_clearance_mm: Annotated[float, Found("Clearance for loading", "mm", "down")]
    closing_travel_mm: Annotated[float, Found("Travel left to close", "mm", "down")]
    clearance_wanted_mm: Annotated[float, Found("Clearance wanted", "mm", "up")]
    travel_wanted_mm: Annotated[float, Found("Travel wanted", "mm", "up")]
    ok: Annotated[bool, Found("Both are there")]


@calculator(JawStrokeInput)
def jaw_stroke(given: JawStrokeInput) -> JawStrokeResult:
    """The opening left to load the largest piece and the closing left to grip the smallest.

    Parameters
        {parameters}
    Returns
        load_clearance_mm, closing_travel_mm [mm on diameter]; clearance_wanted_mm, travel_wanted_mm
        with the typical allowances; ok: both are there
    Raises
        CalcError: the smallest piece above the largest, figures out of range
    Validity
        “Closing” is toward clamped on either side: inside jaws move outward to clamp.
    Example
        >>> r = jaw_stroke(JawStrokeInput("od", 5.5, 0.5, 122, 123.2, 121.4))
        >>> r.load_clearance_mm, r.closing_travel_mm, r.ok
        (5.5, 5.5, True)

    Reference
        derived in docs/method.md, “Stroke”
    """
    w = Working()
    opens = w.step(
        "o", "Opens beyond the bore, on diameter", "2*p*s", "mm", STROKE, p=given.position, s=given.stroke_mm
    )
    closes = w.step(
        "c", "Closes beyond the bore, on diameter", "2*(1 - p)*s", "mm", STROKE, p=given.position, s=given.stroke_mm
    )
    outside = given.side == "od"
    worst = {"d_max": given.largest_mm, "d_min": given.smallest_mm, "d": given.nominal_mm}
    to_load = "max(0, d_max - d) + e" if outside else "max(0, d - d_min) + e"
    to_grip = "max(0, d - d_min) + e" if outside else "max(0, d_max - d) + e"
    need = w.step("o_n", "Opening wanted to load", to_load, "mm", LOADING, e=TO_LOAD_MM, **_used(to_load, worst))
    travel = w.step("c_n", "Closing wanted to grip", to_grip, "mm", GRIPPING, e=TO_GRIP_MM, **_used(to_grip, worst))
    loads, grips = opens >= need - CLOSE, closes >= travel - CLOSE
    loose, tight = ("largest", "smallest") if outside else ("smallest", "largest")
    if not loads:
        blocked = opens < need - TO_LOAD_MM - CLOSE
        w.note(
            "stop" if blocked else "caution",
            "hard-to-load",
            "Opened, the jaws clear the bore by {o} and {n} is wanted for the {which} piece: "
            + ("it cannot be loaded. " if blocked else "loading is a fight. ")
            + "Bore nearer to clamped.",
            o=Figure(opens, "mm", "down"),
            n=Figure(need, "mm", "up"),
            which=loose,
        )
    if not grips:
        blocked = closes < travel - TO_GRIP_MM - CLOSE
        w.note(
            "stop" if blocked else "caution",
            "no-travel-left",
            "{c} of closing is left and {n} is wanted for the {which} piece: "
            + ("it is not gripped. " if blocked else "hardly any travel is left for it. ")
            + "Bore nearer to released.",
            c=Figure(closes, "mm", "down"),
            n=Figure(travel, "mm", "up"),
            which=tight,
        )
    if (given.nominal_mm < given.smallest_mm) if given.side == "od" else (given.nominal_mm > given.largest_mm):
        w.note(
            "info",
            "beyond-nominal",
            "The jaws are bored beyond every piece: what that would add to the travel is never credited.",
        )
    if not 0.25 <= given.position <= 0.75:
        w.note(
            "caution", "off-mid-stroke", "A power chuck grips best at mid-stroke; this is near the end of its travel."
        )
    return JawStrokeResult(
        load_clearance_mm=opens,
        closing_travel_mm=closes,
        clearance_wanted_mm=need,
        travel_wanted_mm=travel,
        ok=loads and grips,
        working=tuple(w.steps),
        notes=tuple(w.notes),
    )


def _used(formula: str, values: dict[str, float]) -> dict[str, float]:
    """Those of the values that the formula names."""
    names = set(formula.replace("(", " ").replace(")", " ").replace(",", " ").split())
    return {k: v for k, v in values.items() if k in names}

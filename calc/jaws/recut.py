"""A jaw set that has been used, skimmed again: calculator `jaw-recut`."""

from __future__ import annotations

from collections.abc import Iterator
from dataclasses import dataclass
from typing import Annotated, Literal

from calc import terms
from calc.describing import calculator
from calc.errors import FieldError
from calc.fields import Checked, Quantity
from calc.quantities import Figure, Sentence
from calc.results import Explained, Found
from calc.terms import SIDE, Side
from calc.working import Working, derived

RECUT = derived("Re-cutting a jaw set")
CLOSE = 1e-9
Verdict = Literal["cut", "close-in", "open-out"]


VERDICT_WORDS = {"cut": "cut", "close-in": "clamp them further in first", "open-out": "open them first"}


@dataclass(frozen=True)
class JawRecutInput(Checked):
    """Input of `jaw-recut`."""

    side: Annotated[Side, SIDE]
    reading_mm: Annotated[float, terms.TOUCH_OFF.called("Touch-off reading", "X, a diameter from the spindle axis")]
    target_mm: Annotated[float, Quantity("Size wanted", "mm", "Diameter to bore or turn to", above=0, high=4000)]
    paper_mm: Annotated[float, terms.PAPER] = 0.08
    damage_mm: Annotated[float, terms.DAMAGE.called("Damage", "Deepest mark to take out, per side")] = 0.10
    limit_mm: Annotated[float, Quantity("Most to take", "mm", "Per side, so that the set lasts", above=0, high=20)] = (
        1.0
    )
    wall_left_mm: Annotated[
        float | None, terms.WALL_LEFT.called(help="Metal between bore and the last usable size, per side")
    ] = None

    def contradictions(self) -> Iterator[FieldError]:
        if self.damage_mm > self.limit_mm:
            most = Figure(self.limit_mm, "mm", exact=True)
            yield FieldError(
                "damage_mm", Sentence("The damage is deeper than the most to take, {x}: allow more.", x=most)
            )
        if self.side == "id" and self.reading_mm <= 2 * self.paper_mm:
            yield FieldError("reading_mm", Sentence("The reading must be more than twice the paper."))


@dataclass(frozen=True, slots=True, kw_only=True)
class JawRecutResult(Explained):
    """Where the jaws stand, what comes off, or how far to move them first."""

    size_mm: Annotated[float, Found("Size now", "mm")]
    removal_mm: Annotated[float, Found("To take off, per side", "mm", "up")]
    verdict: Annotated[Verdict, Found("What to do", options=VERDICT_WORDS)]
    move_mm: Annotated[float, Found("Move the jaws by, per side", "mm")]
    recuts_left: Annotated[int | None, Found("Re-cuts left")] = None


@calculator(JawRecutInput)
def jaw_recut(given: JawRecutInput) -> JawRecutResult:
    """The size a jaw set stands at, what to remove, and whether to move the jaws first.

    Parameters
        {parameters}
    Returns
        size_mm [mm]; removal_mm [mm per side], below zero where the jaws already stand beyond the
        target; verdict cut, close-in or open-out; move_mm [mm on diameter] to clamp them by first;
        recuts_left: whole re-cuts of this removal in the wall that is left, None while not known
    Raises
        CalcError: damage deeper than the most to take
    Validity
        Jaws clamped on a slug or ring at about the target; the paper is drawn tight, not torn.
    Example
        >>> r = jaw_recut(JawRecutInput("od", 83.62, 84))
        >>> round(r.size_mm, 2), round(r.removal_mm, 4), r.verdict
        (83.78, 0.11, 'cut')

    Reference
        derived in docs/method.md, “Re-cutting a jaw set”
    """
    w = Working()
    outside = given.side == "od"
    size = w.step(
        "D", "The jaws stand at", "X + 2*t" if outside else "X - 2*t", "mm", RECUT, X=given.reading_mm, t=given.paper_mm
    )
    removal = w.step(
        "a",
        "Comes off, per side",
        "(D_t - D) / 2" if outside else "(D - D_t) / 2",
        "mm",
        RECUT,
        D_t=given.target_mm,
        D=size,
    )
    verdict: Verdict = "cut"
    move = 0.0
    if removal < given.damage_mm - CLOSE:
        verdict = "close-in" if outside else "open-out"
        move = w.step("m", "Move them by, on diameter", "2*(d - a)", "mm", RECUT, d=given.damage_mm, a=removal)
    elif removal > given.limit_mm + CLOSE:
        verdict = "open-out" if outside else "close-in"
        move = w.step("m", "Move them by, on diameter", "2*(a - a_max)", "mm", RECUT, a=removal, a_max=given.limit_mm)
    how = {
        "close-in": "Clamp them closed by {m} more on diameter, then touch off again.",
        "open-out": "Open them by {m} on diameter, then touch off again.",
        "cut": "Cut {a} per side; skim the floor 0.2 mm.",
    }[verdict]
    figures = (
        {"a": Figure(removal, "mm", places=(3, 4))} if verdict == "cut" else {"m": Figure(move, "mm", places=(3, 4))}
    )
    w.note("info", verdict, how, **figures)
    left = None
    if given.wall_left_mm is not None:
        each = max(removal, given.damage_mm) if verdict == "cut" else given.damage_mm
        left = int((given.wall_left_mm + CLOSE) // each) if each > CLOSE else None
        if left == 0:
            w.note(
                "stop",
                "no-recut-left",
                "{x} of wall is left: this set has no re-cut in it any more.",
                x=Figure(given.wall_left_mm, "mm", "down"),
            )
    return JawRecutResult(
        size_mm=size,
        removal_mm=removal,
        verdict=verdict,
        move_mm=move,
        recuts_left=left,
        working=tuple(w.steps),
        notes=tuple(w.notes),
    )

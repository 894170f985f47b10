"""Limits of unified inch threads: ASME B1.1, in inches, rounded as the standard rounds them."""

from __future__ import annotations

from dataclasses import dataclass
from decimal import ROUND_HALF_EVEN, Decimal

from calc.errors import FieldProblem
from calc.quantities import Sentence

# (major [in], threads per inch): the series with a length of engagement of one diameter.
UNC = (
    (0.073, 64),
    (0.086, 56),
    (0.099, 48),
    (0.112, 40),
    (0.125, 40),
    (0.138, 32),
    (0.164, 32),
    (0.19, 24),
    (0.216, 24),
    (0.25, 20),
    (0.3125, 18),
    (0.375, 16),
    (0.4375, 14),
    (0.5, 13),
    (0.5625, 12),
    (0.625, 11),
    (0.75, 10),
    (0.875, 9),
    (1.0, 8),
    (1.125, 7),
    (1.25, 7),
    (1.375, 6),
    (1.5, 6),
    (1.75, 5),
    (2.0, 4.5),
    (2.25, 4.5),
    (2.5, 4),
    (2.75, 4),
    (3.0, 4),
    (3.25, 4),
    (3.5, 4),
    (3.75, 4),
    (4.0, 4),
)
UNF = (
    (0.06, 80),
    (0.073, 72),
    (0.086, 64),
    (0.099, 56),
    (0.112, 48),
    (0.125, 44),
    (0.138, 40),
    (0.164, 36),
    (0.19, 32),
    (0.216, 28),
    (0.25, 28),
    (0.3125, 24),
    (0.375, 24),
    (0.4375, 20),
    (0.5, 20),
    (0.5625, 18),
    (0.625, 18),
    (0.75, 16),
    (0.875, 14),
    (1.0, 12),
    (1.125, 12),
    (1.25, 12),
    (1.375, 12),
    (1.5, 12),
)
CLASSES = {False: ("1A", "2A", "3A"), True: ("1B", "2B", "3B")}
PITCH_FACTOR = {"1A": 1.5, "2A": 1.0, "3A": 0.75, "1B": 1.95, "2B": 1.3, "3B": 0.975}
_SAME = 1e-4
FOUR_PLACES_BELOW_IN = 0.138  # minor diameters of inside threads have three places from here up


@dataclass(frozen=True, slots=True)
class Tolerances:
    """Tolerances and allowance [in], rounded to four places; `crest`: major outside, minor inside."""

    pitch_in: float
    crest_in: float
    allowance_in: float


def is_standard(diameter_in: float, per_inch: float) -> bool:
    """Whether a size and its threads per inch are of UNC, UNF or 8UN.

    >>> is_standard(0.75, 16), is_standard(0.75, 14)
    (True, False)
    """
    pairs = (*UNC, *UNF)
    return any(abs(d - diameter_in) < _SAME and abs(n - per_inch) < _SAME * n for d, n in pairs) or (
        abs(per_inch - 8) < _SAME and diameter_in >= 1
    )


def tolerances(
    diameter_in: float, per_inch: float, text: str, *, internal: bool, engagement_in: float | None = None
) -> Tolerances:
    """Tolerances and allowance of a unified thread of a class, 2A or 3B.

    Parameters: diameter [in], threads per inch, the class; engagement [in], None for the standard length: one
    diameter in UNC, UNF and 8UN, nine pitches elsewhere. Raises FieldProblem for unknown classes.

    >>> t = tolerances(0.75, 16, "2A", internal=False)
    >>> t.pitch_in, t.crest_in, t.allowance_in
    (0.005, 0.0094, 0.0015)

    Reference: ASME B1.1, section on formulas.
    """
    name = text.strip().upper()
    if name not in CLASSES[internal]:
        known = ", ".join(CLASSES[internal])
        raise FieldProblem(
            "class",
            Sentence(
                "{c} is no class of {kind} unified thread: give {known}.",
                c=text or "Nothing",
                known=known,
                kind="an inside" if internal else "an outside",
            ),
        )
    p, d = 1 / per_inch, diameter_in
    length = engagement_in if engagement_in is not None else d if is_standard(d, per_inch) else 9 * p
    basic = round(0.0015 * d ** (1 / 3) + 0.0015 * length**0.5 + 0.015 * p ** (2 / 3), 6)  # as the standard does
    # Of the tolerance as the tables have it, a half to the even digit: 5/8-11 has 0.3 × 0.0055 = 0.0016.
    allowance = _even(Decimal("0.3") * _even(Decimal(repr(basic)))) if name in ("1A", "2A") else Decimal(0)
    crest = minor_tolerance(d, per_inch, name) if internal else (0.09 if name == "1A" else 0.06) * p ** (2 / 3)
    return Tolerances(_places(basic * PITCH_FACTOR[name]), _places(crest), float(allowance))


def _even(value: Decimal) -> Decimal:
    return value.quantize(Decimal("0.0001"), ROUND_HALF_EVEN)


def _places(value: float) -> float:
    """Four places, a half upward as in the tables: 0.00675 is 0.0068."""
    return round(value + 1e-9, 4)


def minor_tolerance(diameter_in: float, per_inch: float, name: str) -> float:
    """Tolerance [in] of an inside thread's minor diameter, class 1B, 2B or 3B.

    >>> round(minor_tolerance(0.25, 20, "2B"), 4)  # 1/4-20: 0.196 to 0.207
    0.0115

    Reference: ASME B1.1, section on formulas, minor diameter of internal threads.
    """
    p, d = 1 / per_inch, diameter_in
    bent: float = 0.05 * p ** (2 / 3) + 0.03 * p / d - 0.002
    if name == "3B":
        least = 0.23 * p - 1.5 * p**2 if per_inch >= 13 else 0.12 * p
        return max(min(bent, 0.394 * p), least)
    straight: float = 0.25 * p - 0.4 * p**2 if per_inch >= 4 else 0.15 * p
    if d >= 0.25:
        return straight
    return max(min(bent, 0.394 * p), 0.25 * p - 0.4 * p**2)

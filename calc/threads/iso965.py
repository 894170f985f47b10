"""Limits of metric threads: ISO 965-1, by its formulas, rounded as the standard rounds them."""

from __future__ import annotations

import math
import re
from bisect import bisect_left
from dataclasses import dataclass
from itertools import pairwise

from calc.errors import FieldProblem
from calc.quantities import Sentence

# Bands of the major diameter [mm]; a band counts with the geometric mean of its ends.
BANDS = (0.99, 1.4, 2.8, 5.6, 11.2, 22.4, 45.0, 90.0, 180.0, 355.0)
R40 = (
    1.00,
    1.06,
    1.12,
    1.18,
    1.25,
    1.32,
    1.40,
    1.50,
    1.60,
    1.70,
    1.80,
    1.90,
    2.00,
    2.12,
    2.24,
    2.36,
    2.50,
    2.65,
    2.80,
    3.00,
    3.15,
    3.35,
    3.55,
    3.75,
    4.00,
    4.25,
    4.50,
    4.75,
    5.00,
    5.30,
    5.60,
    6.00,
    6.30,
    6.70,
    7.10,
    7.50,
    8.00,
    8.50,
    9.00,
    9.50,
    10.0,
)
PITCH_EXTERNAL = {3: 0.5, 4: 0.63, 5: 0.8, 6: 1.0, 7: 1.25, 8: 1.6, 9: 2.0}
PITCH_INTERNAL = {4: 0.85, 5: 1.06, 6: 1.32, 7: 1.7, 8: 2.12}
MAJOR_EXTERNAL = {4: 0.63, 6: 1.0, 8: 1.6}
MINOR_INTERNAL = {4: 0.63, 5: 0.8, 6: 1.0, 7: 1.25, 8: 1.6}
DEVIATIONS = {"e": (50, 11), "f": (30, 11), "g": (15, 11), "h": (0, 0), "G": (15, 11), "H": (0, 0)}
PITCHES = (0.2, 8.0)
# Published grade-6 values [µm] that differ from the rounded formula: by (lower end of band, pitch), or pitch alone.
PUBLISHED_TD2 = {(2.8, 0.5): 75.0, (45.0, 5.0): 250.0}
PUBLISHED_TD2_INTERNAL = {
    (2.8, 0.5): 100.0,
    (2.8, 0.75): 118.0,
    (5.6, 1.5): 180.0,
    (11.2, 1.25): 180.0,
    (11.2, 1.5): 190.0,
    (22.4, 4.5): 315.0,
}
PUBLISHED_TD = {4.0: 475.0}
PUBLISHED_TD1 = {0.5: 140.0, 1.0: 236.0, 2.5: 450.0}
PUBLISHED_G = {0.75: 22.0}
_CLASS = re.compile(r"(?:(\d)([a-hA-H]))?(\d)([a-hA-H])")


@dataclass(frozen=True, slots=True)
class Tolerances:
    """Tolerances and fundamental deviation [mm]; `crest` is of the major diameter outside, of the minor one inside."""

    pitch_mm: float
    crest_mm: float
    deviation_mm: float


def nearest_r40(value: float) -> float:
    """The R40 preferred number nearest to a value.

    >>> nearest_r40(149.1), nearest_r40(0.0163)
    (150.0, 0.016)

    Reference: ISO 3, series R40; the value above 0.
    """
    decade = 10 ** math.floor(math.log10(value))
    x = value / decade
    i = bisect_left(R40, x)
    best = min(R40[max(0, i - 1) : i + 1], key=lambda n: abs(n - x))
    return float(f"{best * decade:.6g}")


def band_of(diameter_mm: float) -> tuple[float, float]:
    """(lower end, geometric mean) of the band a major diameter [mm] falls in.

    Raises FieldProblem outside 1 to 355 mm.

    >>> low, mean = band_of(20)
    >>> low, round(mean, 2)
    (11.2, 15.84)

    Reference: ISO 965-1, bands of basic major diameter.
    """
    for low, high in pairwise(BANDS):
        if low < diameter_mm <= high:
            return low, math.sqrt(low * high)
    raise FieldProblem("diameter_mm", "ISO 965-1 gives limits from 1 mm to 355 mm.")


def read_class(text: str, *, internal: bool) -> tuple[int, int, str]:
    """(grade of the pitch diameter, grade of the crest, position) of a class such as 6g, 5g6g or 6H."""
    found = _CLASS.fullmatch(text.strip())
    known = "4H, 5H, 6H, 7H or 6G" if internal else "4g, 6g, 8g, 6h, 6e or two such as 5g6g"
    words = Sentence(
        "{c} is no class of {kind} thread: give {known}.",
        c=text or "Nothing",
        known=known,
        kind="an inside" if internal else "an outside",
    )
    if found is None:
        raise FieldProblem("class", words)
    first, one, second, two = found.groups()
    pitch, crest = int(first or second), int(second)
    letters = {one or two, two}
    if len(letters) != 1 or not letters <= set("GH" if internal else "efgh"):
        raise FieldProblem("class", words)
    grades = (PITCH_INTERNAL, MINOR_INTERNAL) if internal else (PITCH_EXTERNAL, MAJOR_EXTERNAL)
    if pitch not in grades[0] or crest not in grades[1]:
        what = "the minor diameter" if internal else "the major diameter"
        have = ", ".join(str(g) for g in grades[1])
        raise FieldProblem(
            "class",
            Sentence(
                "There is no grade {g} for {what}: {have}.",
                g=str(crest if pitch in grades[0] else pitch),
                what=what if pitch in grades[0] else "the pitch diameter",
                have=have if pitch in grades[0] else ", ".join(str(g) for g in grades[0]),
            ),
        )
    return pitch, crest, two


def tolerances(diameter_mm: float, pitch_mm: float, text: str, *, internal: bool) -> Tolerances:
    """Tolerances of a metric thread of a class, such as 6g.

    Parameters: diameter [mm] 1…355, pitch [mm] 0.2…8. Raises FieldProblem outside these and for unknown classes.

    >>> t = tolerances(24, 1.5, "6g", internal=False)
    >>> t.pitch_mm, t.crest_mm, t.deviation_mm
    (0.15, 0.236, -0.032)

    Reference: ISO 965-1; published values where they differ from the rounded formula.
    """
    p = pitch_mm
    if not PITCHES[0] <= p <= PITCHES[1]:
        raise FieldProblem("pitch_mm", "ISO 965-1 gives limits for pitches from 0.2 mm to 8 mm.")
    low, d = band_of(diameter_mm)
    grade, crest_grade, position = read_class(text, internal=internal)
    base = 90 * p**0.4 * d**0.1
    if internal:
        pitch = PUBLISHED_TD2_INTERNAL.get((low, p)) if grade == 6 else None
        pitch = pitch or nearest_r40(base * PITCH_INTERNAL[grade])
        crest = PUBLISHED_TD1.get(p) if crest_grade == 6 else None
        minor = 433 * p - 190 * p**1.22 if p < 0.9 else 230 * p**0.7
        crest = crest or nearest_r40(minor * MINOR_INTERNAL[crest_grade])
    else:
        pitch = PUBLISHED_TD2.get((low, p)) if grade == 6 else None
        pitch = pitch or nearest_r40(base * PITCH_EXTERNAL[grade])
        crest = PUBLISHED_TD.get(p) if crest_grade == 6 else None
        crest = crest or nearest_r40((180 * p ** (2 / 3) - 3.15 / math.sqrt(p)) * MAJOR_EXTERNAL[crest_grade])
    fixed, slope = DEVIATIONS[position]
    # The R40 number first, then whole micrometres: 31.5 becomes 32.
    deviation = float(round(nearest_r40(fixed + slope * p))) if fixed else 0.0
    if position in "gG":
        deviation = PUBLISHED_G.get(p, deviation)
    sign = 1 if internal else -1
    return Tolerances(pitch / 1000, crest / 1000, sign * deviation / 1000 if deviation else 0.0)


def engagement(diameter_mm: float, pitch_mm: float) -> tuple[float, float]:
    """(from, to) [mm]: the length of engagement that the classes are given for.

    >>> [round(x, 1) for x in engagement(20, 2.5)]
    [9.1, 27.2]

    Reference: ISO 965-1, group N: 2.24·P·d^0.2 to 6.7·P·d^0.2, d the lower end of the band; the table rounds them.
    """
    low = min((b for b in BANDS if b < diameter_mm), default=BANDS[0], key=lambda b: diameter_mm - b)
    d = max(low, 0.99)
    return 2.24 * pitch_mm * d**0.2, 6.7 * pitch_mm * d**0.2

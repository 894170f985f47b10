"""Limits of size from an ISO 286 tolerance class, such as h7 or H7."""

from __future__ import annotations

import csv
import re
from bisect import bisect_left
from functools import cache
from pathlib import Path

from calc.errors import FieldProblem
from calc.quantities import Figure, Sentence

MOST_MM = 500.0
_DATA = Path(__file__).parent.parent / "data"
_CLASS = re.compile(r"(js|[a-z])(\d{1,2})", re.ASCII)
CLASSES = "c to h, js, k to s for shafts, C to H, JS, K to S for holes, with grades 1 to 18"


@cache
def _table(name: str) -> tuple[tuple[float, ...], dict[str, tuple[float, ...]]]:
    """(upper ends of the size ranges [mm], row name -> figures [µm])."""
    with (_DATA / name).open(encoding="utf-8") as file:
        rows = list(csv.reader(line for line in file if not line.startswith("#")))
    ends = tuple(float(cell) for cell in rows[0][1:])
    return ends, {row[0]: tuple(float(cell) for cell in row[1:]) for row in rows[1:]}


def _cell(name: str, row: str, diameter: float) -> float | None:
    ends, rows = _table(name)
    return rows[row][bisect_left(ends, diameter)] if row in rows else None


def grade_um(diameter_mm: float, grade: int) -> float:
    """The standard tolerance ITn [µm]. `diameter_mm` up to 500; grade 1 … 18."""
    found = _cell("iso286_grades.csv", str(grade), diameter_mm)
    assert found is not None
    return found


def _shaft(letter: str, diameter: float, grade: int) -> tuple[float, float] | None:
    width = grade_um(diameter, grade)
    if letter == "js":
        return -width / 2, width / 2
    nearest = _cell("iso286_shafts.csv", letter, diameter)
    if nearest is None:
        return None
    if letter <= "h":
        return nearest - width, nearest
    if letter == "k" and not 4 <= grade <= 7:
        nearest = 0.0
    return nearest, nearest + width


def _hole(letter: str, diameter: float, grade: int) -> tuple[float, float] | None:
    width = grade_um(diameter, grade)
    if letter == "js":
        return -width / 2, width / 2
    shaft = _cell("iso286_shafts.csv", letter, diameter)
    if shaft is None:
        return None
    if letter <= "h":
        return -shaft, -shaft + width
    if letter == "k" and grade > 8:
        return None
    if letter == "n" and grade > 8:
        upper = 0.0 if diameter > 3 else -shaft
    else:
        # ISO 286-1, 4.3.2.5: K, M, N up to grade 8 and P … up to 7 get the step between their grade and the finer one.
        stepped = diameter > 3 and 3 <= grade <= (8 if letter in "kmn" else 7)
        upper = -shaft + (grade_um(diameter, grade) - grade_um(diameter, grade - 1) if stepped else 0.0)
    if (letter, grade) == ("m", 6) and 250 < diameter <= 315:
        upper = -9.0  # the one exception that the table makes
    return upper - width, upper


def class_limits(diameter_mm: float, name: str, field: str = "fit") -> tuple[float, float]:
    """(lower, upper) deviation [mm] of a tolerance class at a nominal size.

    Parameters
        diameter_mm [mm] above 0 and up to 500; name such as "h7" (shaft) or "H7" (hole)
    Raises
        FieldProblem at `field`: a class that is not in the table, a size above 500 mm
    Validity
        Figures of ISO 286-1:2010 up to 500 mm: shafts c to h, js, k, m to s; holes the same in capitals.
        Never computed where the table has none.
    Example
        >>> class_limits(84, "h7"), class_limits(52, "H7"), class_limits(40, "K7")
        ((-0.035, 0.0), (0.0, 0.03), (-0.018, 0.007))

    Reference
        ISO 286-1:2010, tables 1 to 5
    """
    found = _CLASS.fullmatch(name.lower())
    hole = name[:1].isupper()
    mixed = name[:1].isalpha() and name.rstrip("0123456789") not in (
        name.rstrip("0123456789").lower(),
        name.rstrip("0123456789").upper(),
    )
    grade = int(found[2]) if found else 0
    limits = None
    if found and not mixed and 1 <= grade <= 18:
        if diameter_mm > MOST_MM:
            raise FieldProblem(
                field,
                Sentence(
                    "The table of tolerance classes ends at Ø{d}: give the limits as figures.",
                    d=Figure(MOST_MM, "mm", exact=True),
                ),
            )
        limits = (_hole if hole else _shaft)(found[1], diameter_mm, grade)
    if limits is None:
        raise FieldProblem(
            field,
            Sentence(
                "“{name}” is not a tolerance class known here: {known}. Or give the limits as figures.",
                name=name,
                known=CLASSES,
            ),
        )
    lower, upper = limits
    return lower / 1000 + 0.0, upper / 1000 + 0.0

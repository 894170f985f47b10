"""The application range of a cutting material, as ISO 513 writes it: a letter for the work, a number from hard to
tough.
"""

from __future__ import annotations

import re

from calc.errors import FieldProblem
from calc.quantities import Sentence

_ONE = re.compile(r"([PMKNSH])\s?(\d{2})(?:\s?[-–]\s?\1?(\d{2}))?")
EXAMPLE = "P10-P30 M15-M25"


def read_range(text: str, field: str = "application") -> dict[str, tuple[int, int]]:
    """Group -> (hardest, toughest number) of a text such as "P10-P30 M20". Raises FieldProblem.

    >>> read_range("P10-P30, M20")
    {'P': (10, 30), 'M': (20, 20)}

    Reference: ISO 513.
    """
    found: dict[str, tuple[int, int]] = {}
    for word in re.split(r"[,;\s]+(?=[A-Za-z])", text.strip()):
        match = _ONE.fullmatch(word.strip().upper())
        if match is None:
            raise FieldProblem(
                field,
                Sentence("“{w}” is no range: write letter and figures, such as {e}.", w=word or "nothing", e=EXAMPLE),
            )
        letter, low, high = match[1], int(match[2]), int(match[3] or match[2])
        if low > high or not 1 <= low <= 50 or high > 50:
            raise FieldProblem(field, Sentence("“{w}”: the numbers go from 01, hard, to 50, tough.", w=word))
        found[letter] = (low, high)
    return found

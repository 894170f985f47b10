"""Rules and preferences that several kinds of cut share."""

from __future__ import annotations

import numpy as np

from calc.quantities import Figure, Sentence
from calc.tools.choose import Preference
from calc.tools.rules import turning
from calc.tools.rules.turning_columns import coolant, tough

BY_CODE = {r.code: r for r in turning.RULES}
GRADE, SHANK, TURRET, BAR_SEAT, SIDE = (BY_CODE[c] for c in ("grade", "shank", "turret", "bar-seat", "side"))
COOLANT = Preference(lambda c, j: 2.0 * c.of(coolant), lambda t, j: Sentence("coolant through it"), 2.0)
SHARP_GRADE = Preference(
    lambda c, j: 4 * (1 - np.abs(np.nan_to_num(tough(c, j), nan=25.0) - 25) / 30), lambda t, j: None
)
SAME_MM = 0.005


def mm(x: float, rounding: str = "near") -> Figure:
    """A length as it is printed."""
    return Figure(x, "mm", rounding)  # type: ignore[arg-type]

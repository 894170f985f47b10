"""The formulas of the working for many candidates at once: the same text, compiled for arrays."""

from __future__ import annotations

from collections.abc import Callable
from functools import reduce
from typing import Any

import numpy as np
from numpy.typing import NDArray

from calc.working import FUNCTIONS, Source, Steps, compiled

Array = NDArray[np.float64]

# The functions of the working, element by element.
OF_ARRAYS: dict[str, Any] = {
    "sqrt": np.sqrt,
    "hypot": np.hypot,
    "sin": np.sin,
    "cos": np.cos,
    "tan": np.tan,
    "asin": np.arcsin,
    "acos": np.arccos,
    "atan": np.arctan,
    "radians": np.radians,
    "ceil": np.ceil,
    "pi": np.pi,
    "abs": np.abs,
    "min": lambda *values: reduce(np.minimum, values),
    "max": lambda *values: reduce(np.maximum, values),
}
assert OF_ARRAYS.keys() == FUNCTIONS.keys()
_COMPILED: dict[str, Callable[..., Any]] = {}


class Many(Steps[Array]):
    """Evaluates formulas for arrays; no steps are kept, and what is beyond all numbers is left to the limits."""

    # What names a step is of no use here; the base asks for it.
    def step(self, symbol: str, label: str, formula: str, unit: str, source: Source, /, **values: Any) -> Array:
        del symbol, label, unit, source
        function = _COMPILED.get(formula)
        if function is None:
            function = _COMPILED[formula] = compiled(formula, tuple(values), OF_ARRAYS)
        with np.errstate(all="ignore"):
            found: Array = function(**values)
        return found

    def case(self, holds: Any, yes: Callable[[], Array], no: Callable[[], Array]) -> Array:
        if holds is True or holds is False:
            return yes() if holds else no()
        found: Array = np.where(holds, yes(), no())
        return found

    def most(self, values: Array) -> float:
        return float(np.max(values))


MANY = Many()

"""How far pieces scatter: from the moving range of a series."""

from __future__ import annotations

import numpy as np

D2 = 1.128379167  # mean range of two normal values in units of their spread: 2/√π


def sigma_of(sizes: np.ndarray) -> float:
    """Spread σ of a series: its mean moving range ÷ 1.128; 0 for fewer than two.

    >>> round(sigma_of(np.array([10.0, 10.002, 10.0, 10.002])), 6)
    0.001772

    Reference: ISO 7870-2 (individuals); derived in docs/method.md, “The chart of single pieces”.
    """
    return float(np.abs(np.diff(sizes)).mean()) / D2 if len(sizes) > 1 else 0.0

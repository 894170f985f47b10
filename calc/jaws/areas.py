"""Exact areas and first moments of a jaw's plan view and of the disc bored out of it.

Plan view: x runs radially outward from the spindle axis, y across the jaw, both in mm.
"""

from __future__ import annotations

import math


def _antiderivative(radius: float, y: float) -> float:
    """∫ sqrt(R² − y²) dy from 0 to y, for |y| ≤ R [mm²]."""
    inside = max(0.0, radius * radius - y * y)
    return 0.5 * (y * math.sqrt(inside) + radius * radius * math.asin(max(-1.0, min(1.0, y / radius))))


def block_in_disc(width: float, near: float, far: float, radius: float) -> tuple[float, float]:
    """(area [mm²], first moment about the axis [mm³]) of a rectangle's share inside a disc.

    The rectangle spans x from `near` to `far` (0 ≤ near < far) and is `width` across, centred on
    y = 0; the disc of `radius` is centred on the axis.

    >>> block_in_disc(2, 0, 1, 10)  # whole: 2 × 1, its middle half a millimetre out
    (2.0, 1.0)

    Reference: elementary integrals of the circle; derived in docs/method.md, “Jaw mass and centre”.
    """
    if radius <= near:
        return 0.0, 0.0
    half = width / 2
    reach = min(half, math.sqrt(radius * radius - near * near))  # where the arc meets the near face
    full = min(reach, math.sqrt(radius * radius - far * far)) if radius > far else 0.0  # full depth inside
    # Both integrals are over one half (y ≥ 0) and doubled.
    area = full * (far - near)
    moment = full * (far * far - near * near) / 2
    area += _antiderivative(radius, reach) - _antiderivative(radius, full) - near * (reach - full)
    cubes = (reach**3 - full**3) / 3
    moment += ((radius * radius - near * near) * (reach - full) - cubes) / 2
    return 2 * area, 2 * moment


def sector(inner: float, outer: float, angle_deg: float) -> tuple[float, float]:
    """(area [mm²], first moment along its middle line [mm³]) of an annular sector: radii [mm], angle 0 to 360°.

    >>> area, moment = sector(0, 1, 180)  # half a disc: π/2, its centroid 4/(3π) out
    >>> round(area, 4), round(moment / area, 4)
    (1.5708, 0.4244)

    Reference: centroid of a sector, 2/3·(R³ − r³)/(R² − r²)·sin(α/2)/(α/2).
    """
    if outer <= inner:
        return 0.0, 0.0
    half = math.radians(angle_deg) / 2
    area = half * (outer**2 - inner**2)
    return area, 2 / 3 * math.sin(half) * (outer**3 - inner**3)

"""The formulas of `cut` and `grip-demand` for many candidates at once.

Tests hold them to the calculators' own answers.
"""

from __future__ import annotations

import math
from dataclasses import dataclass
from typing import Any

import numpy as np
from numpy.typing import NDArray

from calc.chuck.demand import GRAVITY, GripDemandInput
from calc.cuts.turning import FORCE_FLOOR

Array = NDArray[np.float64]


@dataclass(frozen=True, eq=False)
class Forces:
    """Tangential, feed and passive force [N] of every candidate."""

    tangential: Array
    feed: Array
    passive: Array


def forces(  # noqa: PLR0913 - the terms of one formula
    feed: Array,
    depth: Array,
    corner: float,
    approach_deg: float,
    rake_deg: float,
    rake_reference_deg: float,
    kc11: float,
    mc: float,
    wear: float,
) -> Forces:
    """Chip forces of candidates; feed [mm/rev], depth [mm per side] as arrays, the rest as in `cut`.

    Reference: docs/method.md, “The chip of a rounded corner”.
    """
    k = math.radians(approach_deg)
    r, f, a = corner, feed, depth
    extra = r * np.arcsin(np.minimum(1.0, f / (2 * r))) if r > 0 else np.zeros_like(f)
    long = a >= r * (1 - math.cos(k))
    beyond = a - r * (1 - math.cos(k))
    edge_long = beyond / math.sin(k) + r * k + extra
    width_long = r * math.sin(k) + beyond * math.cos(k) / math.sin(k) + (f / 2 if r > 0 else 0.0)
    if r > 0:
        inside = np.minimum(a, r * (1 - math.cos(k)))
        edge = np.where(long, edge_long, r * np.arccos(np.clip(1 - inside / r, -1, 1)) + extra)
        width = np.where(long, width_long, np.sqrt(np.maximum(0.0, 2 * r * inside - inside**2)) + f / 2)
    else:
        edge, width = edge_long, width_long
    h = f * a / edge
    tangential = kc11 * edge * h ** (1 - mc) * (1 - 0.015 * (rake_deg - rake_reference_deg)) * wear
    return Forces(
        tangential,
        np.maximum(FORCE_FLOOR * tangential, 0.5 * tangential * a / edge),
        np.maximum(FORCE_FLOOR * tangential, 0.5 * tangential * width / edge),
    )


def required(  # noqa: PLR0913 - the terms of one formula
    given: GripDemandInput,
    tangential: Array,
    axial: Array,
    radial: Array,
    unseated: Array,
    diameter: float,
    overhang: float,
    rpm: Array,
    *,
    torque_only: bool,
) -> Array:
    """The grip [N] that each candidate needs at its top speed, safety included.

    Reference: docs/method.md, “What the cut asks”.
    """
    mu, d, length = given.friction, given.grip_diameter_mm, given.grip_length_mm
    slip = np.hypot(tangential * diameter / d, unseated) / mu
    if given.tailstock:
        alone: Array = given.safety * slip
        return alone
    beside: Any = 0.0
    if given.part_mass_kg > 0:
        beside = given.part_mass_kg * (given.offset_mm / 1000 * (2 * np.pi * rpm / 60) ** 2 + GRAVITY)
    across = np.hypot(np.zeros_like(tangential) if torque_only else tangential, radial)
    arm = mu * length / 4 if given.jaws == 2 else (length + mu * d) / 4
    tilt = (overhang * across + axial * diameter / 2 + given.centre_overhang_mm * beside) / arm
    side = (across + beside) * (1 / mu if given.jaws == 2 else 1 / math.cos(math.pi / given.jaws))
    whole: Array = given.safety * np.sqrt(slip**2 + tilt**2 + side**2)
    return whole

"""The chip of a rounded corner and its forces: for one cut and for many at once."""

from __future__ import annotations

import math
from dataclasses import dataclass
from typing import Any, Generic

from calc.cuts.spindle import KIENZLE
from calc.working import N, Steps, derived, typical

CHIP = derived("The chip of a rounded corner")
SHARE = typical("passive and feed force from half the tangential force")
FORCE_FLOOR = 0.2  # typical: passive and feed force are never reported below a fifth of the tangential one


@dataclass(frozen=True, eq=False)
class Engaged(Generic[N]):
    """How an edge is engaged: feed [mm/rev], depth [mm per side], corner radius [mm], approach angle [deg]."""

    feed: N
    depth: N
    corner: float = 0.0
    approach_deg: float = 90.0


@dataclass(frozen=True, eq=False)
class Metal:
    """What the chip's force comes from: k_c1.1 [N/mm²] and its exponent, rake and the table's rake [deg], wear."""

    kc11: float
    mc: float
    rake_deg: float = 6.0
    rake_reference_deg: float = 6.0
    wear: float = 1.0


@dataclass(frozen=True, eq=False)
class Chip(Generic[N]):
    """Active edge, width seen along the axis and mean thickness [mm]."""

    edge: N
    width: N
    thickness: N


@dataclass(frozen=True, eq=False)
class Forces(Generic[N]):
    """Tangential, feed and passive force [N]."""

    tangential: N
    feed: N
    passive: N


def chip_of(w: Steps[N], cut: Engaged[N]) -> Chip[N]:
    """The chip of an edge; the corner's arc counted.

    Parameters: feed above 0…5 [mm/rev], depth above 0…50 [mm], corner 0…12 [mm], approach 10…135°.

    >>> from calc.working import Working
    >>> c = chip_of(Working(), Engaged(0.3, 2.0, 0.8, 95.0))
    >>> round(c.edge, 3), round(c.thickness, 4)
    (2.612, 0.2297)

    Reference: derived in docs/method.md, “The chip of a rounded corner”.
    """
    r, a, f, kappa = cut.corner, cut.depth, cut.feed, cut.approach_deg
    extra: Any = 0.0
    if r > 0:
        extra = w.step(
            "b_f", "Edge behind the corner that the feed brings in", "r * asin(min(1, f/(2*r)))", "mm", CHIP, r=r, f=f
        )
    deep = a >= r * (1 - math.cos(math.radians(kappa)))
    edge = w.case(
        deep,
        lambda: w.step(
            "b",
            "Active edge",
            "(a - r*(1 - cos(radians(κ)))) / sin(radians(κ)) + r*radians(κ) + b_f",
            "mm",
            CHIP,
            a=a,
            r=r,
            κ=kappa,
            b_f=extra,
        ),
        lambda: w.step("b", "Active edge, within the corner", "r*acos(1 - a/r) + b_f", "mm", CHIP, r=r, a=a, b_f=extra),
    )
    # cos/sin for 1/tan: a 90° approach has no tangent.
    width = w.case(
        deep,
        lambda: w.step(
            "w_f",
            "Width seen along the axis",
            "r*sin(radians(κ)) + (a - r*(1 - cos(radians(κ)))) * cos(radians(κ))/sin(radians(κ))"
            + (" + f/2" if r > 0 else ""),
            "mm",
            CHIP,
            r=r,
            κ=kappa,
            a=a,
            **({"f": f} if r > 0 else {}),
        ),
        lambda: w.step("w_f", "Width seen along the axis", "sqrt(2*r*a - a**2) + f/2", "mm", CHIP, r=r, a=a, f=f),
    )
    thickness = w.step("h", "Mean chip thickness", "f*a / b", "mm", CHIP, f=f, a=a, b=edge)
    return Chip(edge, width, thickness)


def forces_of(w: Steps[N], cut: Engaged[N], chip: Chip[N], metal: Metal) -> Forces[N]:
    """Forces of a chip [N]; feed and passive force at least a fifth of the tangential one.

    Parameters: k_c1.1 above 0…10 000 [N/mm²], exponent 0…0.6, rake −30…40°, wear 1…3.

    >>> from calc.working import Working
    >>> w, cut = Working(), Engaged(0.3, 2.0, 0.8, 95.0)
    >>> round(forces_of(w, cut, chip_of(w, cut), Metal(2220, 0.14, -6)).tangential)
    1931

    Reference: Kienzle; ISO 3002.
    """
    rake = w.step(
        "K_γ", "Rake factor", "1 - 0.015*(γ - γ_0)", "", KIENZLE, γ=metal.rake_deg, γ_0=metal.rake_reference_deg
    )
    tangential = w.step(
        "F_t",
        "Tangential force",
        "k * b * h**(1 - m) * K_γ * K_w",
        "N",
        KIENZLE,
        k=metal.kc11,
        b=chip.edge,
        h=chip.thickness,
        m=metal.mc,
        K_γ=rake,
        K_w=metal.wear,
    )
    shared = {"F_t": tangential, "floor": FORCE_FLOOR, "b": chip.edge}
    feed = w.step("F_f", "Feed force", "max(floor*F_t, 0.5*F_t*a/b)", "N", SHARE, a=cut.depth, **shared)
    passive = w.step("F_p", "Passive force", "max(floor*F_t, 0.5*F_t*w_f/b)", "N", SHARE, w_f=chip.width, **shared)
    return Forces(tangential, feed, passive)

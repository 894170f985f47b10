"""Speed, chip, forces, power and finish of a turning, facing or boring cut: calculator `cut`."""

from __future__ import annotations

import math
from collections.abc import Iterator
from dataclasses import dataclass
from typing import Annotated

from calc.cuts.chips import SEEN, Seen, read_chip
from calc.cuts.feed_window import Breaker
from calc.errors import FieldError
from calc.fields import Checked, Group, Quantity
from calc.quantities import Figure, Sentence
from calc.results import Explained
from calc.working import Source, Working, derived, typical

KIENZLE = Source("standard", "Kienzle; terms of ISO 3002")
CHIP = derived("The chip of a rounded corner")
SHARE = typical("passive and feed force from half the tangential force")
FINISH = derived("Theoretical finish")
FORCE_FLOOR = 0.2  # typical: passive and feed force are never reported below a fifth of the tangential one
CHIP_THICKNESS_FITTED_MM = 0.05  # k_c1.1 is fitted on chips from about here up


@dataclass(frozen=True)
class CutInput(Checked):
    """Input of `cut`."""

    diameter_mm: Annotated[float, Quantity("Diameter", "mm", "Where the edge cuts", above=0, high=5000)]
    feed_mm_rev: Annotated[float, Quantity("Feed", "mm/rev", "", above=0, high=5)]
    depth_mm: Annotated[float, Quantity("Depth of cut", "mm", "Per side", above=0, high=50)]
    corner_radius_mm: Annotated[float, Quantity("Corner radius", "mm", "", low=0, high=12)]
    kc11: Annotated[float, Quantity("k_c1.1", "N/mm2", "Specific force at h = 1 mm, b = 1 mm", above=0, high=10_000)]
    mc: Annotated[float, Quantity("m_c", "", "Rise of the specific force for thin chips", low=0, high=0.6)]
    speed_m_min: Annotated[float | None, Quantity("Surface speed", "m/min", "Or rpm", above=0, high=3000)] = None
    rpm: Annotated[float | None, Quantity("Spindle speed", "rpm", "Or surface speed", above=0, high=20_000)] = None
    approach_deg: Annotated[float, Quantity("Approach angle κ", "deg", "", low=10, high=135)] = 95.0
    rake_deg: Annotated[float, Quantity("Rake", "deg", "Effective, the chip-breaker's", low=-30, high=40)] = 6.0
    rake_reference_deg: Annotated[float, Quantity("Rake of k_c1.1", "deg", "6; cast iron 2", low=-10, high=20)] = 6.0
    wear: Annotated[float, Quantity("Wear factor", "", "1.0 fresh, 1.3 worn", low=1, high=3)] = 1.0
    max_rpm: Annotated[float | None, Quantity("Highest rpm", "rpm", "Clamp or machine", above=0, high=20_000)] = None
    efficiency: Annotated[float, Quantity("Drive efficiency", "", "", above=0, high=1)] = 0.8
    breaker: Annotated[Breaker | None, Group("Breaker window", "From the insert's box")] = None
    chip_seen: Annotated[Seen | None, SEEN] = None

    def contradictions(self) -> Iterator[FieldError]:
        if self.speed_m_min is None and self.rpm is None:
            yield FieldError("speed_m_min", Sentence("Give a surface speed or a spindle speed."))
        elif self.speed_m_min is not None and self.rpm is not None:
            yield FieldError("rpm", Sentence("Give surface speed or rpm, not both: the other follows."))
        if self.rpm is not None and self.max_rpm is not None and self.rpm > self.max_rpm:
            yield FieldError(
                "rpm",
                Sentence(
                    "This is above the {most} allowed; give that or less.", most=Figure(self.max_rpm, "rpm", "down")
                ),
            )


@dataclass(frozen=True, slots=True, kw_only=True)
class CutResult(Explained):
    """Figures of the cut at this diameter."""

    rpm: float
    speed_m_min: float
    feed_mm_min: float
    chip_thickness_mm: float
    chip_width_mm: float
    tangential_n: float
    feed_n: float
    passive_n: float
    power_kw: float
    torque_nm: float
    ra_um: float | None
    chip_breaks: bool | None = None


def _speeds(given: CutInput, w: Working) -> tuple[float, float]:
    """(rpm, surface speed): from whichever was given, held to max_rpm with a note."""
    d = given.diameter_mm
    if given.rpm is not None:
        rpm = w.step("n", "Spindle speed", "n_e", "rpm", Source("entered", "entered"), n_e=given.rpm)
    else:
        assert given.speed_m_min is not None
        wanted = w.step(
            "n_v", "Spindle speed for the surface speed", "1000*v / (pi*d)", "rpm", CHIP, v=given.speed_m_min, d=d
        )
        rpm = wanted
        if given.max_rpm is not None and wanted > given.max_rpm:
            rpm = w.step(
                "n", "Held to the highest rpm", "min(n_v, n_max)", "rpm", CHIP, n_v=wanted, n_max=given.max_rpm
            )
            w.note(
                "info",
                "speed-held",
                "Here the spindle is held to {rpm}, so surface speed falls below the {v} asked.",
                rpm=Figure(rpm, "rpm", "down"),
                v=Figure(given.speed_m_min, "m/min"),
            )
    speed = w.step("v", "Surface speed", "pi*d*n / 1000", "m/min", CHIP, d=d, n=rpm)
    return rpm, speed


def _chip(given: CutInput, w: Working) -> tuple[float, float, float]:
    """(active edge b, projected width w_f, mean thickness h) in mm; the corner's arc counted."""
    r, a, f = given.corner_radius_mm, given.depth_mm, given.feed_mm_rev
    kappa = given.approach_deg
    extra = (
        w.step(
            "b_f", "Edge behind the corner that the feed brings in", "r * asin(min(1, f/(2*r)))", "mm", CHIP, r=r, f=f
        )
        if r > 0
        else 0.0
    )
    if a >= r * (1 - math.cos(math.radians(kappa))):
        b = w.step(
            "b",
            "Active edge",
            "(a - r*(1 - cos(radians(κ)))) / sin(radians(κ)) + r*radians(κ) + b_f",
            "mm",
            CHIP,
            a=a,
            r=r,
            κ=kappa,
            b_f=extra,
        )
        # cos/sin for 1/tan: a 90° approach has no tangent.
        width = w.step(
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
        )
    else:
        b = w.step("b", "Active edge, within the corner", "r*acos(1 - a/r) + b_f", "mm", CHIP, r=r, a=a, b_f=extra)
        width = w.step("w_f", "Width seen along the axis", "sqrt(2*r*a - a**2) + f/2", "mm", CHIP, r=r, a=a, f=f)
    h = w.step("h", "Mean chip thickness", "f*a / b", "mm", CHIP, f=f, a=a, b=b)
    return b, width, h


def _chip_breaks(given: CutInput, w: Working) -> bool | None:
    """Whether depth and feed lie where the chip breaks; None where neither corner nor breaker tells."""
    b, a, f = given.breaker, given.depth_mm, given.feed_mm_rev
    rolls = a >= given.corner_radius_mm * (1 - 1e-9)
    if b is None:
        return None if rolls else False
    inside = b.depth_min <= a <= b.depth_max and b.feed_min <= f <= b.feed_max
    if not inside:
        w.note(
            "caution",
            "outside-breaker",
            "The breaker works from {f1} to {f2} and {a1} to {a2} deep: here the chip may not break.",
            f1=Figure(b.feed_min, "mm/rev"),
            f2=Figure(b.feed_max, "mm/rev"),
            a1=Figure(b.depth_min, "mm"),
            a2=Figure(b.depth_max, "mm"),
        )
    return rolls and inside


def cut(given: CutInput) -> CutResult:
    """Speed, chip, forces, power, torque and theoretical finish of a cut.

    Parameters
        given.diameter_mm [mm] above 0; given.speed_m_min [m/min] or given.rpm [rpm], one of them
        given.feed_mm_rev [mm/rev] 0…5; given.depth_mm [mm] per side 0…50; corner radius [mm] 0…12
        given.approach_deg 10…135°, given.rake_deg −30…40°; given.kc11 [N/mm²], given.mc 0…0.6
        given.wear 1…3; given.max_rpm [rpm] holds a surface speed, refuses a fixed rpm above it
        given.efficiency 0…1 of the drive; given.breaker, its window of feed and depth; given.chip_seen
    Returns
        rpm, speed_m_min, feed_mm_min; chip_thickness_mm (mean), chip_width_mm (active edge);
        tangential_n, feed_n, passive_n [N], the latter two at least a fifth of the first;
        power_kw at the motor; torque_nm at the spindle; ra_um theoretical, None for a sharp corner;
        chip_breaks: depth at least the corner radius and both inside the breaker's window, None where not known
    Raises
        CalcError for values outside these ranges, both or neither of speed and rpm
    Validity
        Fitted on chips from about 0.05 mm; thinner ones get a note.
    Example
        >>> r = cut(CutInput(80, 0.3, 2, 0.8, 2220, 0.14, speed_m_min=200, rake_deg=-6))
        >>> round(r.chip_thickness_mm, 4), round(r.chip_width_mm, 3), round(r.tangential_n)
        (0.2297, 2.612, 1931)

    Reference
        Kienzle; ISO 3002; chip of a rounded corner derived in docs/method.md
    """
    w = Working()
    rpm, speed = _speeds(given, w)
    feed_rate = w.step("v_f", "Feed rate", "n * f", "mm/min", CHIP, n=rpm, f=given.feed_mm_rev)
    b, width, h = _chip(given, w)
    rake = w.step(
        "K_γ", "Rake factor", "1 - 0.015*(γ - γ_0)", "", KIENZLE, γ=given.rake_deg, γ_0=given.rake_reference_deg
    )
    tangential = w.step(
        "F_t",
        "Tangential force",
        "k * b * h**(1 - m) * K_γ * K_w",
        "N",
        KIENZLE,
        k=given.kc11,
        b=b,
        h=h,
        m=given.mc,
        K_γ=rake,
        K_w=given.wear,
    )
    shared = {"F_t": tangential, "floor": FORCE_FLOOR, "b": b}
    feed_n = w.step("F_f", "Feed force", "max(floor*F_t, 0.5*F_t*a/b)", "N", SHARE, a=given.depth_mm, **shared)
    passive = w.step("F_p", "Passive force", "max(floor*F_t, 0.5*F_t*w_f/b)", "N", SHARE, w_f=width, **shared)
    power = w.step(
        "P", "Power at the motor", "F_t*v / 60000 / η", "kW", KIENZLE, F_t=tangential, v=speed, η=given.efficiency
    )
    torque = w.step("M", "Torque at the spindle", "F_t*d / 2000", "N*m", KIENZLE, F_t=tangential, d=given.diameter_mm)
    ra = None
    if given.corner_radius_mm > 0:
        ra = w.step(
            "Ra",
            "Theoretical finish",
            "1000 * f**2 / (18*sqrt(3)*r)",
            "um",
            FINISH,
            f=given.feed_mm_rev,
            r=given.corner_radius_mm,
        )
    if h < CHIP_THICKNESS_FITTED_MM:
        w.note(
            "caution",
            "thin-chip",
            "The chip is {h} thick; below {least} the force table is not fitted and may read low.",
            h=Figure(h, "mm", places=(3, 4)),
            least=Figure(CHIP_THICKNESS_FITTED_MM, "mm", exact=True),
        )
    read_chip(given.chip_seen, w)
    return CutResult(
        rpm=rpm,
        speed_m_min=speed,
        feed_mm_min=feed_rate,
        chip_thickness_mm=h,
        chip_width_mm=b,
        tangential_n=tangential,
        feed_n=feed_n,
        passive_n=passive,
        power_kw=power,
        torque_nm=torque,
        ra_um=ra,
        chip_breaks=_chip_breaks(given, w),
        working=tuple(w.steps),
        notes=tuple(w.notes),
    )

"""Speed, chip, forces, power and finish of a turning, facing or boring cut: calculator `cut`."""

from __future__ import annotations

from collections.abc import Iterator
from dataclasses import dataclass
from typing import Annotated

from calc import terms
from calc.cuts.chip import CHIP, Engaged, Metal, chip_of, forces_of
from calc.cuts.chips import SEEN, Seen, read_chip
from calc.cuts.feed_window import Breaker
from calc.cuts.spindle import DRIVE_EFFICIENCY, motor_power, spindle_torque
from calc.describing import calculator
from calc.errors import FieldError
from calc.fields import Checked, Group, Quantity
from calc.quantities import Figure, Sentence
from calc.results import Explained, Found
from calc.working import ENTERED, Working, derived

FINISH = derived("Theoretical finish")
CHIP_THICKNESS_FITTED_MM = 0.05  # k_c1.1 is fitted on chips from about here up


@dataclass(frozen=True)
class CutInput(Checked):
    """Input of `cut`."""

    diameter_mm: Annotated[float, Quantity("Diameter", "mm", "Where the edge cuts", above=0, high=5000)]
    feed_mm_rev: Annotated[float, terms.FEED]
    depth_mm: Annotated[float, terms.DEPTH_OF_CUT]
    corner_radius_mm: Annotated[float, terms.CORNER_RADIUS.called(help="")]
    kc11: Annotated[float, terms.KC11]
    mc: Annotated[float, terms.MC]
    speed_m_min: Annotated[float | None, terms.SURFACE_SPEED.called(help="Or rpm")] = None
    rpm: Annotated[float | None, terms.SPINDLE_SPEED.called(help="Or surface speed", low=None, above=0)] = None
    approach_deg: Annotated[float, terms.APPROACH.called("Approach angle κ", "")] = 95.0
    rake_deg: Annotated[float, terms.RAKE.called("Rake", "Effective, the chip-breaker's")] = 6.0
    rake_reference_deg: Annotated[float, terms.RAKE_REFERENCE.called(help="6; cast iron 2")] = 6.0
    wear: Annotated[float, Quantity("Wear factor", "", "1.0 fresh, 1.3 worn", low=1, high=3)] = 1.0
    max_rpm: Annotated[float | None, terms.SPEED_LIMIT] = None
    efficiency: Annotated[float, terms.DRIVE_EFFICIENCY] = DRIVE_EFFICIENCY
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

    rpm: Annotated[float, Found("Spindle speed", "rpm")]
    speed_m_min: Annotated[float, Found("Surface speed", "m/min")]
    feed_mm_min: Annotated[float, Found("Feed rate", "mm/min")]
    chip_thickness_mm: Annotated[float, Found("Chip thickness", "mm")]
    chip_width_mm: Annotated[float, Found("Chip width", "mm")]
    tangential_n: Annotated[float, Found("Cutting force", "N", "up")]
    feed_n: Annotated[float, Found("Feed force", "N", "up")]
    passive_n: Annotated[float, Found("Passive force", "N", "up")]
    power_kw: Annotated[float, Found("Power at the motor", "kW", "up")]
    torque_nm: Annotated[float, Found("Spindle torque", "N*m", "up")]
    ra_um: Annotated[float | None, Found("Finish Ra", "um", "up")]
    chip_breaks: Annotated[bool | None, Found("Chip breaks")] = None


def _speeds(given: CutInput, w: Working) -> tuple[float, float]:
    """(rpm, surface speed): from whichever was given, held to max_rpm with a note."""
    d = given.diameter_mm
    if given.rpm is not None:
        rpm = w.step("n", "Spindle speed", "n_e", "rpm", ENTERED, n_e=given.rpm)
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


@calculator(CutInput)
def cut(given: CutInput) -> CutResult:
    """Speed, chip, forces, power, torque and theoretical finish of a cut.

    Parameters
        {parameters}
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
    engaged = Engaged(given.feed_mm_rev, given.depth_mm, given.corner_radius_mm, given.approach_deg)
    chip = chip_of(w, engaged)
    metal = Metal(given.kc11, given.mc, given.rake_deg, given.rake_reference_deg, given.wear)
    forces = forces_of(w, engaged, chip, metal)
    power = motor_power(w, forces.tangential, speed, given.efficiency)
    torque = spindle_torque(w, forces.tangential, given.diameter_mm)
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
    h = chip.thickness
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
        chip_width_mm=chip.edge,
        tangential_n=forces.tangential,
        feed_n=forces.feed,
        passive_n=forces.passive,
        power_kw=power,
        torque_nm=torque,
        ra_um=ra,
        chip_breaks=_chip_breaks(given, w),
        working=tuple(w.steps),
        notes=tuple(w.notes),
    )

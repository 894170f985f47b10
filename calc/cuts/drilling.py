"""Speed, torque, thrust, power and pecks of a drill on centre: calculator `drill`."""

from __future__ import annotations

import math
from collections.abc import Iterator
from dataclasses import dataclass
from typing import Annotated, Any

from calc import terms
from calc.cuts.spindle import DRIVE_EFFICIENCY, KIENZLE
from calc.describing import calculator
from calc.errors import FieldError, FieldProblem
from calc.fields import Checked, Quantity
from calc.quantities import Figure, Sentence
from calc.results import Explained, Found
from calc.working import N, Steps, Working, derived

DRILL = derived("Drilling, grooving, threading")
FLAT_DEG = 180.0  # a flat point has no cone
DEEP = 3.0  # depth over diameter from which chips must be flushed or pecked out (typical)
FIRST_PECK, LATER_PECK = 3.0, 1.0  # of the diameter (typical)
MOST_PECKS = 200


@dataclass(frozen=True)
class DrillInput(Checked):
    """Input of `drill`."""

    diameter_mm: Annotated[float, Quantity("Drill", "mm", "Diameter", above=0, high=500)]
    speed_m_min: Annotated[float, terms.SURFACE_SPEED.called(help="At its corner")]
    feed_mm_rev: Annotated[float, terms.FEED.called(help="Of both edges together")]
    kc11: Annotated[float, terms.KC11]
    mc: Annotated[float, terms.MC]
    pilot_mm: Annotated[float, Quantity("Pilot hole", "mm", "0 in solid", low=0, high=500)] = 0.0
    point_deg: Annotated[float, terms.POINT_ANGLE.called(help="")] = 140.0
    depth_mm: Annotated[
        float | None, Quantity("Depth", "mm", "Of the hole, for time and pecks", above=0, high=5000)
    ] = None
    wear: Annotated[float, Quantity("Wear factor", "", "1.0 fresh, 1.3 worn", low=1, high=3)] = 1.0
    max_rpm: Annotated[float | None, terms.SPEED_LIMIT] = None
    efficiency: Annotated[float, terms.DRIVE_EFFICIENCY] = DRIVE_EFFICIENCY

    def contradictions(self) -> Iterator[FieldError]:
        if self.pilot_mm >= self.diameter_mm:
            words = Sentence(
                "The pilot must be smaller than the drill, {d}.", d=Figure(self.diameter_mm, "mm", exact=True)
            )
            yield FieldError("pilot_mm", words)


@dataclass(frozen=True, slots=True, kw_only=True)
class DrillResult(Explained):
    """Figures of the drill; `pecks_mm`: how deep each peck goes, empty where it goes in one."""

    rpm: Annotated[float, Found("Spindle speed", "rpm")]
    feed_mm_min: Annotated[float, Found("Feed rate", "mm/min")]
    chip_thickness_mm: Annotated[float, Found("Chip thickness", "mm")]
    torque_nm: Annotated[float, Found("Torque", "N*m", "up")]
    thrust_n: Annotated[float, Found("Thrust", "N", "up")]
    power_kw: Annotated[float, Found("Power at the motor", "kW", "up")]
    minutes: Annotated[float | None, Found("Time", "min", "up")]
    pecks_mm: Annotated[tuple[float, ...], Found("Comes out at", "mm")]


@dataclass(frozen=True)
class Drilled:
    """What a drill makes: its size and the pilot hole before it [mm], the angle of its point [deg]."""

    size: float | Any
    pilot: float
    point_deg: float


def pecks(diameter_mm: float, depth_mm: float) -> tuple[float, ...]:
    """Depths [mm] at which the drill comes out to clear its chips; none up to three diameters deep.

    >>> pecks(10, 25), pecks(10, 55)
    ((), (30.0, 40.0, 50.0, 55.0))

    Raises FieldProblem deeper than two hundred diameters behind the first peck.
    Reference: typical; docs/method.md, “Drilling, grooving, threading”.
    """
    if depth_mm <= DEEP * diameter_mm * (1 + 1e-9):
        return ()
    step = LATER_PECK * diameter_mm
    if depth_mm - FIRST_PECK * diameter_mm > MOST_PECKS * step:
        words = Sentence("A hole deeper than {n} diameters is no work for a pecking drill.", n=str(MOST_PECKS))
        raise FieldProblem("depth_mm", words)
    count = math.ceil((depth_mm - FIRST_PECK * diameter_mm) / step - 1e-9)
    found = [FIRST_PECK * diameter_mm + i * step for i in range(count)] + [float(depth_mm)]
    return tuple(found)


def drill_forces(w: Steps[N], one_edge: N, drill: Drilled) -> tuple[N, N]:
    """(torque [N·m], thrust [N]) of a drill from the tangential force [N] of one of its two edges.

    The chisel edge is left out. Parameters: size above 0…500, pilot 0…size [mm], point 60…180°.

    >>> from calc.working import Working
    >>> torque, thrust = drill_forces(Working(), 2008.9, Drilled(13.0, 0.0, 140.0))
    >>> round(torque, 2), round(thrust)
    (13.06, 1888)

    Reference: derived in docs/method.md, “Drilling, grooving, threading”.
    """
    both = w.step("F_e", "Force on both edges", "2*F_t", "N", DRILL, F_t=one_edge)
    torque = w.step(
        "M", "Torque of the drill", "F_e*(d + d_0)/4000", "N*m", DRILL, F_e=both, d=drill.size, d_0=drill.pilot
    )
    thrust = w.step("F_f", "Thrust", "F_e/2 * sin(radians(σ/2))", "N", DRILL, F_e=both, σ=drill.point_deg)
    return torque, thrust


def drill_power(w: Steps[N], torque: N, rpm: N, efficiency: float = DRIVE_EFFICIENCY) -> N:
    """Power at the motor [kW] of a torque [N·m] at a speed [rpm]; efficiency 0…1 of the drive.

    >>> from calc.working import Working
    >>> round(drill_power(Working(), 13.06, 2204.0), 2)
    3.77

    Reference: P = M·ω.
    """
    return w.step("P", "Power at the motor", "M*2*pi*n/60000 / η", "kW", DRILL, M=torque, n=rpm, η=efficiency)


def travel(w: Steps[N], depth: float, drill: Drilled) -> N:
    """How far [mm] a drill goes at feed: the depth of its full diameter, and its point.

    >>> from calc.working import Working
    >>> round(travel(Working(), 30.0, Drilled(13.0, 0.0, 140.0)), 3)
    32.366

    Reference: the cone of its point.
    """
    if drill.point_deg >= FLAT_DEG:
        return w.step("L", "Depth and point", "t", "mm", DRILL, t=depth)
    return w.step(
        "L",
        "Depth and point",
        "t + (d - d_0)/2 / tan(radians(σ/2))",
        "mm",
        DRILL,
        t=depth,
        d=drill.size,
        d_0=drill.pilot,
        σ=drill.point_deg,
    )


@calculator(DrillInput)
def drill(given: DrillInput) -> DrillResult:
    """Speed, feed rate, chip, torque, thrust, power and time of a drill on centre, in solid or from a pilot.

    Parameters
        {parameters}
    Returns
        rpm, feed_mm_min, chip_thickness_mm, torque_nm, thrust_n, power_kw at the motor,
        minutes (None without a depth), pecks_mm
    Raises
        CalcError for values outside these ranges, or a pilot as large as the drill
    Validity
        Two edges. Thrust leaves the chisel edge out: in solid the grip is planned with 1.3 times of it.
    Example
        >>> r = drill(DrillInput(13, 90, 0.2, 2220, 0.14))
        >>> round(r.rpm), round(r.torque_nm, 2), round(r.thrust_n)
        (2204, 13.06, 1888)

    Reference
        Kienzle; derived in docs/method.md, “Drilling, grooving, threading”
    """
    w = Working()
    d, d_0, f = given.diameter_mm, given.pilot_mm, given.feed_mm_rev
    rpm = w.step(
        "n",
        "Spindle speed",
        "min(1000*v / (pi*d), n_max)",
        "rpm",
        DRILL,
        v=given.speed_m_min,
        d=d,
        n_max=given.max_rpm if given.max_rpm is not None else 1e9,
    )
    rate = w.step("v_f", "Feed rate", "n * f", "mm/min", DRILL, n=rpm, f=f)
    h = w.step("h", "Chip thickness", "f/2 * sin(radians(σ/2))", "mm", DRILL, f=f, σ=given.point_deg)
    k = w.step(
        "k_c", "Specific force", "k * h**(-m) * K_w", "N/mm2", KIENZLE, k=given.kc11, h=h, m=given.mc, K_w=given.wear
    )
    drilled = Drilled(d, d_0, given.point_deg)
    edge = w.step("F_t", "Force on one edge", "k_c * f/2 * (d - d_0)/2", "N", KIENZLE, k_c=k, f=f, d=d, d_0=d_0)
    torque, thrust = drill_forces(w, edge, drilled)
    power = drill_power(w, torque, rpm, given.efficiency)
    minutes: float | None = None
    out: tuple[float, ...] = ()
    if given.depth_mm is not None:
        far = travel(w, given.depth_mm, drilled)
        minutes = w.step("t_c", "Time in cut", "L / v_f", "min", DRILL, L=far, v_f=rate)
        out = pecks(d, given.depth_mm)
        if out:
            w.note(
                "info",
                "deep-hole",
                "{r} diameters deep: coolant through the drill, or peck to flush the chips.",
                r=Figure(given.depth_mm / d, "", "up", (1, 1)),
            )
    if d_0 == 0:
        w.note(
            "info",
            "chisel-edge",
            "In solid the chisel edge adds to the thrust: the grip is planned with 1.3 times of it.",
        )
    return DrillResult(
        rpm=rpm,
        feed_mm_min=rate,
        chip_thickness_mm=h,
        torque_nm=torque,
        thrust_n=thrust,
        power_kw=power,
        minutes=minutes,
        pecks_mm=out,
        working=tuple(w.steps),
        notes=tuple(w.notes),
    )

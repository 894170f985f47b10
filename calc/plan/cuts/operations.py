"""What each kind of cut asks of edge, chuck and spindle, all by the same chip force."""

from __future__ import annotations

from dataclasses import dataclass, replace

from calc.cuts.drilling import Drilled, drill_forces, drill_power
from calc.cuts.turning import CutInput, CutResult, cut
from calc.plan.cuts.inputs import PlannedCut
from calc.rules import Rules
from calc.shelf.material import Material
from calc.threads.chip import thread_chip
from calc.working import N, Steps, Working, derived, typical

OTHER = derived("Drilling, grooving, threading")
CHISEL = typical("the chisel edge of a drill in solid pushes 1.3 times as hard")
CHISEL_TIMES = 1.3

# Facts that say nothing about a kind of cut, and what others are called there.
_ONLY_PART, _ONLY_THREAD, _ONLY_DRILL = ("slow_feed_mm_rev", "slow_below_mm"), ("thread",), ("peck_mm",)
_CLEANS = ("cleans",)
LEAVES_OUT = {
    "turn": ("width_mm", "point_deg", "passes", *_ONLY_PART, *_ONLY_THREAD, *_ONLY_DRILL),
    "face": (
        "width_mm",
        "point_deg",
        "passes",
        "feeds",
        "start_mm",
        "length_mm",
        *_CLEANS,
        *_ONLY_PART,
        *_ONLY_THREAD,
        *_ONLY_DRILL,
    ),
    "bore": ("width_mm", "point_deg", "passes", *_ONLY_PART, *_ONLY_THREAD, *_ONLY_DRILL),
    "groove": (
        "depth_mm",
        "corner_radius_mm",
        "approach_deg",
        "point_deg",
        "passes",
        "stage",
        *_ONLY_PART,
        *_ONLY_THREAD,
        *_ONLY_DRILL,
    ),
    "part": (
        "depth_mm",
        "corner_radius_mm",
        "approach_deg",
        "point_deg",
        "passes",
        "interrupted",
        "stage",
        "length_mm",
        *_CLEANS,
        *_ONLY_THREAD,
        *_ONLY_DRILL,
    ),
    "drill": (
        "depth_mm",
        "corner_radius_mm",
        "approach_deg",
        "width_mm",
        "passes",
        "interrupted",
        "stage",
        *_CLEANS,
        *_ONLY_PART,
        *_ONLY_THREAD,
    ),
    "thread": (
        "depth_mm",
        "corner_radius_mm",
        "approach_deg",
        "width_mm",
        "point_deg",
        "stage",
        *_ONLY_PART,
        *_ONLY_DRILL,
    ),
}
CALLED = {
    ("face", "depth_mm"): "Depth of a pass",
    ("drill", "from_diameter_mm"): "Pilot hole",
    ("drill", "to_diameter_mm"): "Drill",
    ("thread", "from_diameter_mm"): "Before the thread",
    ("thread", "to_diameter_mm"): "Thread's other diameter",
    ("thread", "feed_mm_rev"): "Pitch",
    ("groove", "feed_mm_rev"): "Plunge feed",
    ("part", "feed_mm_rev"): "Plunge feed",
}
ASKED = {
    "turn": ("depth_mm",),
    "face": ("depth_mm",),
    "bore": ("depth_mm",),
    "groove": ("width_mm",),
    "part": ("width_mm",),
}


@dataclass(frozen=True)
class Operation:
    """A cut's figures and the sizes of its forces on the part [N]; diameter [mm] where the edge cuts hardest.

    `smallest_mm` is where a constant surface speed turns fastest.
    """

    result: CutResult
    axial_n: float
    radial_n: float
    diameter_mm: float
    smallest_mm: float
    torque_only: bool = False


def operation(planned: PlannedCut, material: Material, held_to: float, rules: Rules) -> Operation:
    """The figures of a planned cut, with a worn edge. Raises CalcError at the cut's fields.

    Reference: derived in docs/method.md, “Drilling, grooving, threading”.
    """
    a, b, feed = planned.from_diameter_mm, planned.to_diameter_mm, planned.feed_mm_rev
    assert a is not None and b is not None and feed is not None
    largest, smallest = max(a, b), min(a, b)

    def chip(diameter: float, feed: float, depth: float, corner: float = 0.0, approach: float = 90.0) -> CutResult:
        return cut(
            CutInput(
                diameter_mm=diameter,
                feed_mm_rev=feed,
                depth_mm=depth,
                corner_radius_mm=corner,
                kc11=material.kc11,
                mc=material.mc,
                speed_m_min=None if planned.rpm is not None else planned.speed_m_min,
                rpm=planned.rpm,
                approach_deg=approach,
                rake_deg=planned.rake_deg,
                rake_reference_deg=material.rake_reference_deg,
                wear=rules.worn,
                max_rpm=held_to if planned.rpm is None else None,
            )
        )

    if planned.kind == "drill":
        return _drilled(planned, a, b, chip(b, feed / 2, (b - a) / 2, approach=planned.point_deg / 2))
    if planned.kind == "thread":
        thin = thread_chip(Working(), feed, planned.passes, internal=b > a)
        found = replace(chip(largest, thin.thickness, thin.edge), ra_um=None)
        return Operation(found, found.passive_n, found.feed_n, largest, largest)
    if planned.kind in ("groove", "part"):
        assert planned.width_mm is not None
        found = replace(chip(largest, feed, blade_in_cut(planned)), ra_um=None)
        return Operation(found, found.passive_n, found.feed_n, largest, smallest)
    assert planned.depth_mm is not None
    found = chip(largest, feed, planned.depth_mm, planned.corner_radius_mm, planned.approach_deg)
    if planned.kind == "face":  # fed across: what pushes back along the axis is the passive force
        return Operation(found, found.passive_n, found.feed_n, largest, smallest)
    return Operation(found, found.feed_n, found.passive_n, largest, smallest)


def blade_in_cut(planned: PlannedCut) -> float:
    """How much [mm] of a blade cuts: all of it, or as far as it breaks an edge."""
    if planned.cleans:
        return abs((planned.from_diameter_mm or 0.0) - (planned.to_diameter_mm or 0.0)) / 2
    return planned.width_mm or 1.0


def _drilled(planned: PlannedCut, pilot: float, size: float, one: CutResult) -> Operation:
    """A drill from the force of one of its two edges."""
    w = Working()
    torque, thrust = drill_forces(w, one.tangential_n, Drilled(size, pilot, planned.point_deg))
    power = drill_power(w, torque, one.rpm)
    thrust = in_solid(w, thrust, pilot)
    across = torque_across(w, torque, size)
    found = replace(
        one,
        tangential_n=across,
        feed_n=thrust,
        passive_n=0.0,
        power_kw=power,
        torque_nm=torque,
        ra_um=None,
        working=(*one.working, *w.steps),
    )
    return Operation(found, thrust, 0.0, size, size, torque_only=True)


def in_solid(w: Steps[N], thrust: N, pilot: float) -> N:
    """Thrust [N] with what the chisel edge of a drill in solid adds.

    >>> in_solid(Working(), 1000.0, 0.0), in_solid(Working(), 1000.0, 5.0)
    (1300.0, 1000.0)

    Reference: typical; docs/method.md, “Drilling, grooving, threading”.
    """
    if pilot > 0:
        return thrust
    return w.step("F_f*", "Thrust, in solid", "k*F_f", "N", CHISEL, k=CHISEL_TIMES, F_f=thrust)


def torque_across(w: Steps[N], torque: N, size: float) -> N:
    """A drill's torque [N·m] as a force [N] at its diameter [mm].

    >>> torque_across(Working(), 10.0, 20.0)
    1000.0

    Reference: F = 2·M/d.
    """
    label = "The torque as a force at the drill's diameter"
    return w.step("F_d", label, "2000*M/d", "N", OTHER, M=torque, d=size)

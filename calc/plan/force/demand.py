"""What the cuts of a set-up, the part's imbalance and braking ask of the grip."""

from __future__ import annotations

from collections.abc import Callable
from dataclasses import dataclass, replace
from functools import cached_property

from calc.chuck.demand import CutLoad, GripDemandInput, GripDemandResult, each_required_at, grip_demand, required_at
from calc.plan.cuts.solve import CUTS
from calc.plan.force.load import load_of, pressed_n
from calc.plan.force.transfer import parting_load, partings
from calc.plan.hold.figures import HoldFigures
from calc.plan.hold.solve import HOLD
from calc.plan.outcome import Asked, Solved, naming
from calc.plan.part.solve import PART, PartFigures
from calc.rules import Rules
from calc.working import Step, Working, derived

BESIDE = derived("Loads beside the cuts")
BRAKING = "Braking"


@dataclass(frozen=True)
class DemandFigures:
    """What the loads ask at the program's top speed, as planned and at the worst credible corner [N]."""

    asked: GripDemandInput
    nominal: GripDemandResult
    corner_asked: GripDemandInput
    corner: GripDemandResult
    braking: tuple[Step, ...]
    tops: tuple[float, ...]  # the highest speed [rpm] at which each load is met

    @cached_property
    def at(self) -> Callable[[float], float]:
        """The grip needed [N] at a speed [rpm]."""
        return required_at(self.nominal, self.asked)

    @cached_property
    def at_corner(self) -> Callable[[float], float]:
        """The same at the worst credible corner."""
        return required_at(self.corner, self.corner_asked)

    @cached_property
    def each(self) -> Callable[[int, float], float]:
        """The grip that one load needs [N], by its place, at a speed [rpm]."""
        return each_required_at(self.nominal, self.asked)

    @cached_property
    def each_at_corner(self) -> Callable[[int, float], float]:
        """The same at the worst credible corner."""
        return each_required_at(self.corner, self.corner_asked)

    @property
    def governs(self) -> int:
        """The place of the load that asks most: of the cuts first, then of what is no cut."""
        return max(range(len(self.nominal.cuts)), key=lambda i: self.nominal.cuts[i].required_n)

    @property
    def grows(self) -> bool:
        """The part's imbalance makes the demand rise with speed."""
        return self.asked.offset_mm > 0 and self.asked.part_mass_kg > 0 and not self.asked.tailstock


def _braking(seconds: float, rpm: float, part: PartFigures, hold: HoldFigures) -> tuple[CutLoad, tuple[Step, ...]]:
    """Stopping the part with the spindle: a torque that the grip passes on."""
    w = Working()
    inertia = w.step(
        "J",
        "Inertia of the part as it is held",
        "m * (r_o**2 + r_i**2) / 2 / 1e6",
        "kg*m2",
        BESIDE,
        m=part.held_mass_kg,
        r_o=part.held_radii_mm[0],
        r_i=part.held_radii_mm[1],
    )
    torque = w.step("M", "Torque that stops it", "J * 2*pi*n/60 / t", "N*m", BESIDE, J=inertia, n=rpm, t=seconds)
    across = w.step("F_t", "At the grip's diameter", "2000 * M / d_g", "N", BESIDE, M=torque, d_g=hold.grip.diameter_mm)
    return CutLoad(BRAKING, across, 0, 0, hold.grip.diameter_mm, 0, torque_only=True), tuple(w.steps)


def _centre_lever(part: PartFigures, hold: HoldFigures) -> float:
    """From the middle of the grip to the centre of mass [mm]: of the finished part or of its middle, the farther."""
    middle = hold.middle_mm
    finished = part.figures.centre_mm if hold.held_end == "a" else part.length_mm - part.figures.centre_mm
    return max(abs(finished - middle), abs(part.length_mm / 2 - middle))


def solve_demand(asked: Asked) -> DemandFigures:
    """What every load asks of the grip, at the program's top speed. Raises CalcError, Waiting."""
    at, setup, rules = asked.at, asked.setup, asked.rules
    part, hold, cuts, force = asked.need(PART), asked.need(HOLD), asked.need(CUTS), setup.force
    loads = tuple(load_of(c, hold, setup.hold) for c in cuts.cuts)
    tops = tuple(c.top_rpm for c in cuts.cuts)
    if asked.index == 1:  # in the second spindle it is held while it is parted off, too
        parted = partings(asked)
        loads += tuple(parting_load(asked, hold, c) for c in parted)
        tops += tuple(c.top_rpm for c in parted)
    cut_loads = len(loads)
    braking: tuple[Step, ...] = ()
    if force.brake_s is not None:
        with naming({"tangential_n": f"{at}.force.brake_s"}):
            stopping, braking = _braking(force.brake_s, cuts.top_rpm, part, hold)
        tops += (cuts.top_rpm,)
        loads += (replace(stopping, unseated_axial_n=pressed_n(hold, setup.hold)),)
    with naming({"jaws": f"{at}.chuck"}):
        given = GripDemandInput(
            cuts=loads,
            grip_diameter_mm=hold.grip.diameter_mm,
            grip_length_mm=hold.touches_mm,
            friction=hold.friction,
            safety=rules.safety,
            tailstock=setup.hold.live_centre,
            jaws=hold.chuck.jaws,
            flats=hold.flats,
            part_mass_kg=part.held_mass_kg,
            offset_mm=force.offset_mm,
            centre_overhang_mm=_centre_lever(part, hold),
            rpm=cuts.top_rpm,
        )
    worse = _at_corner(given, cut_loads, rules)
    return DemandFigures(given, grip_demand(given), worse, grip_demand(worse), braking, tops)


def _at_corner(asked: GripDemandInput, cuts: int, rules: Rules) -> GripDemandInput:
    """The same with less friction and more cutting force in the first `cuts` loads; braking and weight stay."""
    more_force = rules.heavier
    more = tuple(
        replace(
            c,
            tangential_n=c.tangential_n * more_force,
            axial_n=c.axial_n * more_force,
            radial_n=c.radial_n * more_force,
            unseated_axial_n=c.unseated_axial_n * more_force,
        )
        for c in asked.cuts[:cuts]
    )
    return replace(
        asked, cuts=(*more, *asked.cuts[cuts:]), friction=asked.friction * (1 - rules.corner_friction_pct / 100)
    )


# A person gives what it lacks at Cuts.
DEMAND = Solved("demand", "Cuts", solve_demand)

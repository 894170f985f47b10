"""Stop Force: pressure to grip, what height, neglect and speed take, what the cuts ask, the cap."""

from __future__ import annotations

import math
from dataclasses import dataclass

from calc.chuck.demand import GripDemandInput, GripDemandResult, grip_demand
from calc.chuck.grip import ChuckGripInput, ChuckGripResult, chuck_grip
from calc.chuck.speed import (
    GripAtSpeedInput,
    GripAtSpeedResult,
    SpeedLimitInput,
    SpeedLimitResult,
    StackPart,
    grip_at_speed,
    speed_limit,
)
from calc.errors import CalcError, FieldError
from calc.plan.cuts import CutsFigures, load_of
from calc.plan.document import Force, Setup
from calc.plan.hold import HoldFigures
from calc.plan.jaws import JawsFigures
from calc.plan.part import PartFigures
from calc.plan.stops import Missing, naming
from calc.quantities import Figure, Sentence
from calc.working import Note, Source, Step, Working, derived, typical

CONDITION_TYPICAL = {"unknown": 0.5, "week": 0.85, "today": 1.0}
CORNER_CONDITION, CORNER_FRICTION, CORNER_FORCE = 0.85, 0.75, 1.20  # typical: the worst credible corner
NEAR_OVERLOAD = 0.95  # more pressure is never offered from here up
CORNER = typical("condition −15 %, friction −25 %, cutting force +20 %")
HOLDING = derived("Margins")


@dataclass(frozen=True)
class ForceFigures:
    """Grip, demand, cap and margins of a set-up. Forces are sums over all jaws."""

    pressure_bar: float
    condition: float
    condition_source: Source
    grip: ChuckGripResult
    demand: GripDemandResult
    stack: tuple[StackPart, ...]
    limit: SpeedLimitResult
    at_top: GripAtSpeedResult
    top_rpm: float
    safety: float
    corner_grip_n: float
    corner_demand_n: float
    held: float
    held_corner: float
    margin_steps: tuple[Step, ...]
    notes: tuple[Note, ...]

    @property
    def stopped(self) -> bool:
        """Something here is unsafe or impossible."""
        return any(n.level == "stop" for n in self.notes)


def condition_of(at: str, force: Force) -> tuple[float, Source]:
    """The condition factor in use and where it comes from. Raises Missing."""
    if force.condition != "measured":
        return CONDITION_TYPICAL[force.condition], typical(
            {"unknown": "grease unknown or older", "week": "greased within a week", "today": "greased today"}[
                force.condition
            ]
        )
    missing = []
    if force.condition_measured is None:
        missing.append((f"{at}.force.condition_measured", "Measured factor"))
    if force.condition_date is None:
        missing.append((f"{at}.force.condition_date", "Measured on"))
    if missing or force.condition_measured is None:
        raise Missing(*missing)
    return force.condition_measured, Source("measured", f"measured {force.condition_date}")


def _grip(at: str, pressure: float, condition: float, hold: HoldFigures) -> ChuckGripResult:
    with naming({"pressure_bar": f"{at}.force.pressure_bar", "condition_factor": f"{at}.force.condition_measured"}):
        return chuck_grip(
            ChuckGripInput(
                pressure_bar=pressure, grip_height_mm=hold.grip_height_mm, chuck=hold.chuck.force,
                condition_factor=condition, jaws=hold.chuck.jaws,
            )
        )  # fmt: skip


def _stack(hold: HoldFigures, jaws: JawsFigures) -> tuple[StackPart, ...]:
    chuck = hold.chuck
    if chuck.master_mass_kg is None or chuck.master_radius_mm is None:
        words = "The mass and centre of master jaw, T-nut and bolts are not on the chuck's record: weigh them."
        raise CalcError([FieldError("", Sentence(words))])
    return (
        StackPart(jaws.mass.mass_kg, jaws.mass.radius_mm),
        StackPart(chuck.master_mass_kg, chuck.master_radius_mm),
    )


@dataclass(frozen=True)
class DemandFigures:
    """What the cuts ask, as planned and at the worst credible corner."""

    nominal: GripDemandResult
    corner_n: float


def solve_demand(setup: Setup, part: PartFigures, hold: HoldFigures, cuts: CutsFigures) -> DemandFigures:
    """What every cut asks of the grip. Raises CalcError."""
    asked = GripDemandInput(
        cuts=tuple(load_of(c, part, hold, setup.hold.seat) for c in cuts.cuts),
        grip_diameter_mm=part.grip_diameter_mm, grip_length_mm=hold.pocket.grip_length_mm, friction=hold.friction,
        safety=setup.force.safety, tailstock=setup.hold.live_centre,
    )  # fmt: skip
    nominal = grip_demand(asked)
    return DemandFigures(nominal, corner_demand(nominal, asked))


def solve_force(
    at: str, setup: Setup, part: PartFigures, hold: HoldFigures, jaws: JawsFigures, cuts: CutsFigures,
    asked: DemandFigures,
) -> ForceFigures:  # fmt: skip
    """Figures of the force. Raises Missing or CalcError."""
    force = setup.force
    if force.pressure_bar is None:
        raise Missing((f"{at}.force.pressure_bar", "Gauge pressure"))
    condition, source = condition_of(at, force)
    grip = _grip(at, force.pressure_bar, condition, hold)
    demand, corner_demand = asked.nominal, asked.corner_n
    stack = _stack(hold, jaws)
    limit = speed_limit(
        SpeedLimitInput(
            static_grip_n=grip.grip_n, required_grip_n=demand.required_grip_n, side="od", stack=stack,
            chuck_max_rpm=hold.chuck.max_rpm, machine_max_rpm=part.machine.max_rpm, user_max_rpm=force.user_max_rpm,
            jaws=hold.chuck.jaws,
        )
    )  # fmt: skip
    at_top = grip_at_speed(
        GripAtSpeedInput(static_grip_n=grip.grip_n, side="od", stack=stack, rpm=cuts.top_rpm, jaws=hold.chuck.jaws)
    )
    w = Working()
    s = force.safety
    corner_grip = w.step(
        "F_n′", "Grip at top speed, worst corner", "max(0, k_c*F_0 - F_c)", "N", CORNER,
        k_c=CORNER_CONDITION, F_0=grip.grip_n, F_c=at_top.centrifugal_n,
    )  # fmt: skip
    held = w.step("S_n", "Holds times what the worst cut asks", "F_n / (F_req / S)", "", HOLDING,
                  F_n=at_top.grip_n, F_req=demand.required_grip_n, S=s)  # fmt: skip
    held_corner = w.step("S_c", "The same at the worst credible corner", "F_n / (F_req / S)", "", CORNER,
                         F_n=corner_grip, F_req=corner_demand, S=s)  # fmt: skip
    return ForceFigures(
        pressure_bar=force.pressure_bar, condition=condition, condition_source=source, grip=grip, demand=demand,
        stack=stack, limit=limit, at_top=at_top, top_rpm=cuts.top_rpm, safety=s, corner_grip_n=corner_grip,
        corner_demand_n=corner_demand, held=held, held_corner=held_corner, margin_steps=tuple(w.steps),
        notes=_notes(force, grip, limit, at_top, cuts, held_corner),
    )  # fmt: skip


def corner_demand(nominal: GripDemandResult, asked: GripDemandInput) -> float:
    """The demand [N] with less friction and more cutting force, safety included.

    All three terms grow with the force; slip also with 1/μ, and tilt with the part of its arm
    that is friction.
    """
    arm, rubbing = asked.grip_length_mm / 4, asked.friction * asked.grip_diameter_mm / 4
    slip = CORNER_FORCE / CORNER_FRICTION
    tilt = CORNER_FORCE * (arm + rubbing) / (arm + CORNER_FRICTION * rubbing)
    worst = max(math.hypot(slip * d.slip_n, tilt * d.tilt_n, CORNER_FORCE * d.side_n) for d in nominal.cuts)
    return asked.safety * worst


def _notes(
    force: Force, grip: ChuckGripResult, limit: SpeedLimitResult, at_top: GripAtSpeedResult, cuts: CutsFigures,
    held_corner: float,
) -> tuple[Note, ...]:  # fmt: skip
    notes = [*grip.notes, *limit.notes, *at_top.notes]
    cap = limit.speed_cap_rpm
    if cap > 0 and cuts.top_rpm > cap * (1 + 1e-9):
        notes.append(
            Note("stop", "over-cap", "{cut} reaches {top}; the cap is {cap}, set by {by}.", cut=cuts.fastest.name,
                 top=Figure(cuts.top_rpm, "rpm", "up"), cap=Figure(cap, "rpm", "down"), by=BY[limit.capped_by])
        )  # fmt: skip
    if held_corner < 1:
        notes.append(
            Note("caution", "corner-slips",
                 "At the worst credible corner the grip is {held} of what the worst cut asks: it could slip.",
                 held=Figure(100 * held_corner, "%", "down"))
        )  # fmt: skip
    notes.append(
        Note("info", "not-counted", "The part's imbalance and the spindle's braking are not counted in the demand yet.")
    )
    if force.condition == "unknown":
        notes.append(
            Note("caution", "condition-unknown",
                 "The chuck's condition is not known and half its force is counted. Grease it, or measure the grip.")
        )  # fmt: skip
    notes.append(Note("caution", "never-exceed", "Never exceed the chuck's stated speed, pressure or jaw weight. "
                      "Check the grip with a gauge at intervals and after a crash; start slow and stand clear."))  # fmt: skip
    return tuple(notes)


BY = {"grip": "the grip", "chuck": "the chuck", "machine": "the machine", "user": "your own limit"}

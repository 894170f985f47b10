"""Stop Force: pressure to grip, what height, neglect and speed take, what the cuts ask, the cap."""

from __future__ import annotations

import math
from collections.abc import Callable
from dataclasses import dataclass

from calc.chuck.demand import GripDemandResult
from calc.chuck.grip import ChuckGripInput, ChuckGripResult, chuck_grip
from calc.chuck.pressure import PressureNeededInput, PressureNeededResult, pressure_needed
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
from calc.plan.condition import Condition, Known, condition_of
from calc.plan.cuts import CutsFigures
from calc.plan.demand import DemandFigures
from calc.plan.document import Force, Setup
from calc.plan.hold import HoldFigures
from calc.plan.jaws import JawsFigures
from calc.plan.part import PartFigures
from calc.plan.stops import Missing, naming
from calc.plan.wall import WallFigures, solve_wall
from calc.quantities import Figure, Sentence
from calc.working import Note, Source, Step, Working, derived, typical

NEAR_OVERLOAD = 0.95  # more pressure is never offered from here up
CORNER = typical("the worst credible corner of the house rules")
HOLDING = derived("Margins")
DEMAND_MOST = 1e7  # N: no chuck comes near, and what is above is stopped all the same


@dataclass(frozen=True)
class ForceFigures:
    """Grip, demand, cap and margins of a set-up. Forces are sums over all jaws."""

    pressure_bar: float
    condition: float
    condition_source: Source
    transmission: float
    grip: ChuckGripResult
    demand: GripDemandResult
    stack: tuple[StackPart, ...]
    limit: SpeedLimitResult
    at_top: GripAtSpeedResult
    top_rpm: float
    safety: float
    corner_condition: float
    corner_grip_n: float
    asked: DemandFigures
    held: float
    held_corner: float
    margin_steps: tuple[Step, ...]
    wall: WallFigures | None
    wanted_rpm: float
    wanted: PressureNeededResult
    notes: tuple[Note, ...]

    @property
    def window_bar(self) -> tuple[float, float] | None:
        """Pressures [bar] that hold the worst cut and that every limit allows, at the wanted speed; None where there
        are none.
        """
        low = self.wanted.pressure_bar
        return None if low is None else (low, self.wanted.highest_bar)

    @property
    def stopped(self) -> bool:
        """Something here is unsafe or impossible."""
        return any(n.level == "stop" for n in self.notes)


def _grip(at: str, pressure: float, condition: float, hold: HoldFigures) -> ChuckGripResult:
    with naming({"pressure_bar": f"{at}.force.pressure_bar", "condition_factor": f"{at}.force.condition_measured"}):
        return chuck_grip(
            ChuckGripInput(
                pressure_bar=pressure,
                grip_height_mm=hold.grip_height_mm,
                chuck=hold.chuck.force,
                condition_factor=condition,
                jaws=hold.chuck.jaws,
            )
        )


def _stack(hold: HoldFigures, jaws: JawsFigures) -> tuple[StackPart, ...]:
    chuck = hold.chuck
    if chuck.master_mass_kg is None or chuck.master_radius_mm is None:
        words = "The mass and centre of master jaw, T-nut and bolts are not on the chuck's record: weigh them."
        raise CalcError([FieldError("", Sentence(words))])
    return (StackPart(jaws.mass.mass_kg, jaws.mass.radius_mm), StackPart(chuck.master_mass_kg, chuck.master_radius_mm))


def _crossing(static: float, loss: float, needed: Callable[[float], float], most: float) -> float | None:
    """The speed [rpm] up to `most` where a falling grip meets a rising demand; None where it does not.

    Grip is static − loss·n², demand rises with n: their difference falls, so halving the interval finds its one root.
    """

    def short(n: float) -> bool:
        return static - loss * n * n < needed(n)

    if short(0.0):
        return 0.0
    if not short(most):
        return None
    low, high = 0.0, most
    for _ in range(60):
        middle = (low + high) / 2
        low, high = (low, middle) if short(middle) else (middle, high)
    return low  # the last speed that holds


def solve_force(
    at: str,
    setup: Setup,
    part: PartFigures,
    hold: HoldFigures,
    jaws: JawsFigures,
    cuts: CutsFigures,
    asked: DemandFigures,
    known: Known,
) -> ForceFigures:
    """Figures of the force. Raises Missing or CalcError."""
    force = setup.force
    if force.pressure_bar is None:
        raise Missing((f"{at}.force.pressure_bar", "Gauge pressure"))
    rules, found = known.rules, condition_of(at, force, known)
    condition, transmission = found.factor, found.transmission
    grip = _grip(at, force.pressure_bar, condition, hold)
    demand = asked.nominal
    stack = _stack(hold, jaws)
    made = frozenset((c.planned.kind, c.planned.to_diameter_mm or 0.0) for c in cuts.cuts)
    standing = solve_wall(part, hold, grip.grip_n, made, rules.wall_share_pct / 100)
    meets = _meets(grip.grip_n, asked, hold, part, stack, transmission)
    limit = speed_limit(
        SpeedLimitInput(
            static_grip_n=grip.grip_n,
            required_grip_n=min(DEMAND_MOST, asked.at(meets) if meets is not None else demand.required_grip_n),
            side=hold.side,
            stack=stack,
            demand_max_rpm=meets,
            chuck_max_rpm=hold.chuck.max_rpm,
            machine_max_rpm=part.machine.max_rpm,
            user_max_rpm=force.user_max_rpm,
            jaws=hold.chuck.jaws,
            wall_limit_n=standing.limit_n if standing else None,
            transmission=transmission,
            guides_max_rpm=_guides_rpm(grip, stack, hold, transmission),
        )
    )
    at_top = grip_at_speed(
        GripAtSpeedInput(
            static_grip_n=grip.grip_n,
            side=hold.side,
            stack=stack,
            rpm=cuts.top_rpm,
            jaws=hold.chuck.jaws,
            transmission=transmission,
        )
    )
    w = Working()
    s = rules.safety
    # Inside grip gains with speed, but guides stick: the gain is never credited toward the demand.
    taken = transmission * at_top.centrifugal_n if hold.side == "od" else 0.0
    counted = at_top.grip_n if hold.side == "od" else grip.grip_n
    corner_grip = w.step(
        "F_n′",
        "Grip counted at top speed, worst corner",
        "max(0, k_c*F_0 - F_c)",
        "N",
        CORNER,
        k_c=1 - rules.corner_condition_pct / 100,
        F_0=grip.grip_n,
        F_c=taken,
    )
    held = w.step(
        "S_n",
        "Holds times what the worst cut asks",
        "F_n / (F_req / S)",
        "",
        HOLDING,
        F_n=counted,
        F_req=demand.required_grip_n,
        S=s,
    )
    held_corner = w.step(
        "S_c",
        "The same at the worst credible corner",
        "F_n / (F_req / S)",
        "",
        CORNER,
        F_n=corner_grip,
        F_req=asked.corner.required_grip_n,
        S=s,
    )
    wall = (
        standing
        if hold.side == "od"
        else solve_wall(
            part, hold, grip.grip_n + max(1.0, transmission) * at_top.centrifugal_n, made, rules.wall_share_pct / 100
        )
    )
    wanted_rpm = force.wanted_rpm or cuts.top_rpm
    wanted = pressure_needed(
        PressureNeededInput(
            required_grip_n=min(DEMAND_MOST, asked.at(wanted_rpm)),
            side=hold.side,
            stack=stack,
            rpm=wanted_rpm,
            grip_height_mm=hold.grip_height_mm,
            chuck=hold.chuck.force,
            condition_factor=condition,
            jaws=hold.chuck.jaws,
            transmission=transmission,
            wall_limit_n=standing.limit_n if standing else None,
            jaw_height_mm=hold.chuck.guide_to_jaw_base_mm + hold.jaw_height_mm / 2,
        )
    )
    return ForceFigures(
        pressure_bar=force.pressure_bar,
        condition=condition,
        condition_source=found.source,
        transmission=transmission,
        grip=grip,
        demand=demand,
        stack=stack,
        limit=limit,
        at_top=at_top,
        top_rpm=cuts.top_rpm,
        safety=s,
        corner_condition=1 - rules.corner_condition_pct / 100,
        corner_grip_n=corner_grip,
        asked=asked,
        held=held,
        held_corner=held_corner,
        margin_steps=tuple(w.steps),
        wall=wall,
        wanted_rpm=wanted_rpm,
        wanted=wanted,
        notes=(
            *_notes(force, found, known, grip, limit, at_top, cuts, held_corner),
            *_inside_notes(grip, at_top, hold, cuts, transmission),
            *(wall.notes if wall else ()),
        ),
    )


def _rated_moment(hold: HoldFigures) -> float:
    return hold.chuck.force.max_grip_n * hold.chuck.force.reference_height_mm


def _static_moment(grip: ChuckGripResult, hold: HoldFigures) -> float:
    """The guide moment standing still [N·mm], without the condition factor: grease must not hide an overload."""
    return grip.charted_n * grip.height_factor * hold.grip_height_mm


def _lever(hold: HoldFigures) -> float:
    """From the jaw's centre to the grip, along the spindle [mm].

    The centre is counted at half the jaw's height: turning takes metal off its top, so it lies no higher.
    """
    return max(0.0, hold.grip_height_mm - hold.chuck.guide_to_jaw_base_mm - hold.jaw_height_mm / 2)


def _guides_rpm(
    grip: ChuckGripResult, stack: tuple[StackPart, ...], hold: HoldFigures, transmission: float
) -> float | None:
    """Inside grip: the speed where the guides carry their rated moment; None where speed adds none, or not that
    much.
    """
    pull = (
        max(1.0, transmission) * hold.chuck.jaws * sum(p.mass_kg * p.radius_mm for p in stack) / 1000 * _lever(hold)
    )  # N·mm per (rad/s)²
    room = _rated_moment(hold) - _static_moment(grip, hold)
    if hold.side == "od" or pull <= 0:
        return None
    return min(100_000.0, 60 / (2 * math.pi) * math.sqrt(max(0.0, room) / pull))


def _inside_notes(
    grip: ChuckGripResult, at_top: GripAtSpeedResult, hold: HoldFigures, cuts: CutsFigures, transmission: float
) -> tuple[Note, ...]:
    """Inside grip: what the jaws' own pull at speed adds to the moment on the guides."""
    if hold.side == "od":
        return ()
    rated, moment = (
        _rated_moment(hold),
        _static_moment(grip, hold) + max(1.0, transmission) * at_top.centrifugal_n * _lever(hold),
    )
    if moment > rated * (1 + 1e-9):
        return (
            Note(
                "stop",
                "guide-moment",
                "At {n} the guides carry {m} of the moment they are rated for: lower the pressure or the speed, or "
                "take a lower jaw.",
                n=Figure(cuts.top_rpm, "rpm", "up"),
                m=Figure(100 * moment / rated, "%", "up"),
            ),
        )
    return ()


def _meets(
    static: float,
    asked: DemandFigures,
    hold: HoldFigures,
    part: PartFigures,
    stack: tuple[StackPart, ...],
    transmission: float,
) -> float | None:
    """Where a demand that grows with speed meets the grip [rpm]; None where it does not grow, or not that far."""
    if not asked.grows:
        return None
    most = min(hold.chuck.max_rpm, part.machine.max_rpm)
    moment = sum(p.mass_kg * p.radius_mm for p in stack) / 1000
    # Inside, the gain of speed is not credited: the grip counts as level.
    loss = transmission * hold.chuck.jaws * moment * (2 * math.pi / 60) ** 2 if hold.side == "od" else 0.0
    return _crossing(static, loss, asked.at, most)


def _notes(
    force: Force,
    found: Condition,
    known: Known,
    grip: ChuckGripResult,
    limit: SpeedLimitResult,
    at_top: GripAtSpeedResult,
    cuts: CutsFigures,
    held_corner: float,
) -> tuple[Note, ...]:
    notes = [*grip.notes, *limit.notes, *at_top.notes]
    cap = limit.speed_cap_rpm
    if cap > 0 and cuts.top_rpm > cap * (1 + 1e-9):
        notes.append(
            Note(
                "stop",
                "over-cap",
                "{cut} reaches {top}; the cap is {cap}, set by {by}.",
                cut=cuts.fastest.name,
                top=Figure(cuts.top_rpm, "rpm", "up"),
                cap=Figure(cap, "rpm", "down"),
                by=BY[limit.capped_by],
            )
        )
    if held_corner < 1:
        notes.append(
            Note(
                "caution",
                "corner-slips",
                "At the worst credible corner the grip is {held} of what the worst cut asks: it could slip.",
                held=Figure(100 * held_corner, "%", "down"),
            )
        )
    if force.brake_s is None:
        notes.append(
            Note("info", "braking-not-counted", "The spindle's braking is not counted: give the time it takes to stop.")
        )
    if found.is_expired:
        notes.append(
            Note(
                "caution", "gauge-expired", "The last gauge run of this chuck no longer counts: measure its grip again."
            )
        )
    if force.condition == "auto" and found.source.basis != "measured" and known.grease == "week":
        notes.append(
            Note(
                "info",
                "grease-due",
                "The chuck was greased on {on}, not today: grease it before the run.",
                on=known.greased_on or "",
            )
        )
    if force.condition == "unknown" or (
        force.condition == "auto" and found.source.basis != "measured" and known.grease == "unknown"
    ):
        notes.append(
            Note(
                "caution",
                "condition-unknown",
                "The chuck's condition is not known and half its force is counted. Grease it, or measure the grip.",
            )
        )
    notes.append(
        Note(
            "caution",
            "never-exceed",
            "Never exceed the chuck's stated speed, pressure or jaw weight. "
            "Check the grip with a gauge at intervals and after a crash; start slow and stand clear.",
        )
    )
    return tuple(notes)


BY = {
    "wall": "the wall",
    "guides": "the guides",
    "grip": "the grip",
    "chuck": "the chuck",
    "machine": "the machine",
    "user": "your own limit",
}

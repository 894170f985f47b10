"""Stop Force solved: pressure to grip, what height, neglect and speed take, what the cuts ask, the cap."""

from __future__ import annotations

import math
from collections.abc import Callable, Iterator
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
    pull_of,
    speed_limit,
)
from calc.errors import CalcError, FieldError
from calc.plan.chuck_condition import Condition, Known, condition_of, known_of
from calc.plan.cuts.solve import CUTS, CutsFigures
from calc.plan.force.demand import DEMAND, DemandFigures
from calc.plan.force.wall import WallFigures, solve_wall
from calc.plan.hold.solve import HOLD, HoldFigures
from calc.plan.jaws.solve import JAWS, JawsFigures
from calc.plan.outcome import Asked, Missing, Solved, naming
from calc.plan.part.solve import PART
from calc.quantities import Figure, Sentence
from calc.working import Note, Source, Step, Working, derived, typical

NEAR_OVERLOAD = 0.95  # more pressure is never offered from here up
FASTEST_RPM = 20_000.0  # of any spindle that can be declared
CORNER = typical("the worst credible corner of the house rules")
HOLDING = derived("Margins")


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


@dataclass(frozen=True, eq=False)
class _Held:
    """A part in its jaws: what the force of a set-up is found from."""

    asked: Asked
    known: Known
    found: Condition
    grip: ChuckGripResult
    stack: tuple[StackPart, ...]

    @property
    def hold(self) -> HoldFigures:
        """How it is held."""
        return self.asked.need(HOLD)

    @property
    def cuts(self) -> CutsFigures:
        """What is done to it."""
        return self.asked.need(CUTS)

    @property
    def demand(self) -> DemandFigures:
        """What that asks."""
        return self.asked.need(DEMAND)

    @property
    def outside(self) -> bool:
        """The jaws push inward."""
        return self.hold.side == "od"

    @property
    def presses(self) -> float:
        """Share of the jaws' own pull that presses on wall and guides: never counted as less than all of it."""
        return max(1.0, self.found.transmission)

    def wall(self, grip_n: float) -> WallFigures | None:
        """The wall at a grip [N]."""
        cut = frozenset((c.planned.kind, c.planned.to_diameter_mm or 0.0) for c in self.cuts.cuts)
        return solve_wall(self.asked.need(PART), self.hold, grip_n, cut, self.known.rules.wall_share_pct / 100)


def solve_force(asked: Asked) -> ForceFigures:
    """Figures of the force. Raises Missing, Waiting or CalcError."""
    at, force, part, hold = asked.at, asked.setup.force, asked.need(PART), asked.need(HOLD)
    jaws, cuts, demand = asked.need(JAWS), asked.need(CUTS), asked.need(DEMAND)
    if force.pressure_bar is None:
        raise Missing((f"{at}.force.pressure_bar", "Gauge pressure"))
    known = known_of(asked)
    found = condition_of(at, force, known)
    grip = _grip(at, force.pressure_bar, found.factor, hold)
    held = _Held(asked, known, found, grip, _stack(hold, jaws))
    standing = held.wall(grip.grip_n)
    meets = _meets(held)
    needed = demand.at(meets) if meets is not None else demand.nominal.required_grip_n
    limit = speed_limit(
        SpeedLimitInput(
            static_grip_n=grip.grip_n,
            required_grip_n=needed,
            side=hold.side,
            stack=held.stack,
            demand_max_rpm=meets,
            chuck_max_rpm=hold.chuck.max_rpm,
            machine_max_rpm=part.machine.max_rpm,
            user_max_rpm=force.user_max_rpm,
            jaws=hold.chuck.jaws,
            wall_limit_n=standing.limit_n if standing else None,
            transmission=found.transmission,
            guides_max_rpm=_guides_rpm(held),
        )
    )
    at_top = grip_at_speed(
        GripAtSpeedInput(grip.grip_n, hold.side, held.stack, cuts.top_rpm, hold.chuck.jaws, found.transmission)
    )
    margins = _margins(held, at_top)
    wall = standing if held.outside else held.wall(grip.grip_n + held.presses * at_top.centrifugal_n)
    wanted_rpm = force.wanted_rpm or cuts.top_rpm
    return ForceFigures(
        pressure_bar=force.pressure_bar,
        condition=found.factor,
        condition_source=found.source,
        transmission=found.transmission,
        grip=grip,
        demand=demand.nominal,
        stack=held.stack,
        limit=limit,
        at_top=at_top,
        top_rpm=cuts.top_rpm,
        safety=asked.rules.safety,
        corner_condition=1 - asked.rules.corner_condition_pct / 100,
        corner_grip_n=margins.corner_grip_n,
        asked=demand,
        held=margins.held,
        held_corner=margins.held_corner,
        margin_steps=margins.steps,
        wall=wall,
        wanted_rpm=wanted_rpm,
        wanted=_wanted(held, wanted_rpm, standing),
        notes=(
            *grip.notes,
            *limit.notes,
            *at_top.notes,
            *_speed_notes(held, limit, margins.held_corner),
            *_condition_notes(held),
            *_inside_notes(held, at_top),
            *(wall.notes if wall else ()),
        ),
    )


@dataclass(frozen=True, eq=False)
class _Margins:
    """How many times the worst cut is held, as planned and at the worst credible corner."""

    corner_grip_n: float
    held: float
    held_corner: float
    steps: tuple[Step, ...]


def _margins(held: _Held, at_top: GripAtSpeedResult) -> _Margins:
    w, s, demand, grip = Working(), held.known.rules.safety, held.demand, held.grip.grip_n
    # Inside grip gains with speed, but guides stick: the gain is never credited toward the demand.
    taken = held.found.transmission * at_top.centrifugal_n if held.outside else 0.0
    counted = at_top.grip_n if held.outside else grip
    corner = w.step(
        "F_n′",
        "Grip counted at top speed, worst corner",
        "max(0, k_c*F_0 - F_c)",
        "N",
        CORNER,
        k_c=1 - held.known.rules.corner_condition_pct / 100,
        F_0=grip,
        F_c=taken,
    )
    text, need = "F_n / (F_req / S)", demand.nominal.required_grip_n
    times = w.step("S_n", "Holds times what the worst cut asks", text, "", HOLDING, F_n=counted, F_req=need, S=s)
    worst = demand.corner.required_grip_n
    label = "The same at the worst credible corner"
    times_corner = w.step("S_c", label, text, "", CORNER, F_n=corner, F_req=worst, S=s)
    return _Margins(corner, times, times_corner, tuple(w.steps))


def _wanted(held: _Held, rpm: float, standing: WallFigures | None) -> PressureNeededResult:
    hold = held.hold
    return pressure_needed(
        PressureNeededInput(
            required_grip_n=held.demand.at(rpm),
            side=hold.side,
            stack=held.stack,
            rpm=rpm,
            grip_height_mm=hold.grip_height_mm,
            chuck=hold.chuck.force,
            condition_factor=held.found.factor,
            jaws=hold.chuck.jaws,
            transmission=held.found.transmission,
            wall_limit_n=standing.limit_n if standing else None,
            jaw_height_mm=hold.chuck.guide_to_jaw_base_mm + hold.jaw_height_mm / 2,
        )
    )


def _rated_moment(hold: HoldFigures) -> float:
    return hold.chuck.force.max_grip_n * hold.chuck.force.reference_height_mm


def _static_moment(held: _Held) -> float:
    """The guide moment standing still [N·mm], without the condition factor: grease must not hide an overload."""
    return held.grip.charted_n * held.grip.height_factor * held.hold.grip_height_mm


def _lever(hold: HoldFigures) -> float:
    """From the jaw's centre to the grip, along the spindle [mm].

    The centre is counted at half the jaw's height: turning takes metal off its top, so it lies no higher.
    """
    return max(0.0, hold.grip_height_mm - hold.chuck.guide_to_jaw_base_mm - hold.jaw_height_mm / 2)


def _guides_rpm(held: _Held) -> float | None:
    """Inside grip: the speed where the guides carry their rated moment; None where speed adds none, or not that
    much.
    """
    hold = held.hold
    pull = held.presses * pull_of(held.stack, hold.chuck.jaws) * _lever(hold)  # N·mm per rpm²
    room = _rated_moment(hold) - _static_moment(held)
    if held.outside or pull <= 0:
        return None
    speed = math.sqrt(max(0.0, room) / pull)
    # Light jaws load the guides at no speed that a spindle can be asked for: then they limit nothing.
    return speed if speed <= FASTEST_RPM else None


def _inside_notes(held: _Held, at_top: GripAtSpeedResult) -> tuple[Note, ...]:
    """Inside grip: what the jaws' own pull at speed adds to the moment on the guides."""
    if held.outside:
        return ()
    rated = _rated_moment(held.hold)
    moment = _static_moment(held) + held.presses * at_top.centrifugal_n * _lever(held.hold)
    if moment <= rated * (1 + 1e-9):
        return ()
    return (
        Note(
            "stop",
            "guide-moment",
            "At {n} the guides carry {m} of the moment they are rated for: lower the pressure or the speed, or "
            "take a lower jaw.",
            n=Figure(held.cuts.top_rpm, "rpm", "up"),
            m=Figure(100 * moment / rated, "%", "up"),
        ),
    )


def _meets(held: _Held) -> float | None:
    """Where a demand that grows with speed meets the grip [rpm]; None where it does not grow, or not that far."""
    if not held.demand.grows:
        return None
    hold = held.hold
    most = min(hold.chuck.max_rpm, held.asked.need(PART).machine.max_rpm)
    # Inside, the gain of speed is not credited: the grip counts as level.
    loss = held.found.transmission * pull_of(held.stack, hold.chuck.jaws) if held.outside else 0.0
    return _crossing(held.grip.grip_n, loss, held.demand.at, most)


def _speed_notes(held: _Held, limit: SpeedLimitResult, held_corner: float) -> Iterator[Note]:
    cap, cuts = limit.speed_cap_rpm, held.cuts
    if cap > 0 and cuts.top_rpm > cap * (1 + 1e-9):
        yield Note(
            "stop",
            "over-cap",
            "{cut} reaches {top}; the cap is {cap}, set by {by}.",
            cut=cuts.fastest.name,
            top=Figure(cuts.top_rpm, "rpm", "up"),
            cap=Figure(cap, "rpm", "down"),
            by=BY[limit.capped_by],
        )
    if held_corner < 1:
        yield Note(
            "caution",
            "corner-slips",
            "At the worst credible corner the grip is {held} of what the worst cut asks: it could slip.",
            held=Figure(100 * held_corner, "%", "down"),
        )
    if held.asked.setup.force.brake_s is None:
        yield Note(
            "info", "braking-not-counted", "The spindle's braking is not counted: give the time it takes to stop."
        )


def _condition_notes(held: _Held) -> Iterator[Note]:
    condition, known = held.asked.setup.force.condition, held.known
    guessed = condition == "auto" and held.found.source.basis != "measured"
    if held.found.is_expired:
        yield Note(
            "caution", "gauge-expired", "The last gauge run of this chuck no longer counts: measure its grip again."
        )
    if guessed and known.grease == "week":
        yield Note(
            "info",
            "grease-due",
            "The chuck was greased on {on}, not today: grease it before the run.",
            on=known.greased_on or "",
        )
    if condition == "unknown" or (guessed and known.grease == "unknown"):
        yield Note(
            "caution",
            "condition-unknown",
            "The chuck's condition is not known and half its force is counted. Grease it, or measure the grip.",
        )
    yield Note(
        "caution",
        "never-exceed",
        "Never exceed the chuck's stated speed, pressure or jaw weight. "
        "Check the grip with a gauge at intervals and after a crash; start slow and stand clear.",
    )


BY = {
    "wall": "the wall",
    "guides": "the guides",
    "grip": "the grip",
    "chuck": "the chuck",
    "machine": "the machine",
    "user": "your own limit",
}


FORCE = Solved("force", "Force", solve_force)

"""A part in its jaws: the grip at each load's own speed, how far it holds, and the cap of each."""

from __future__ import annotations

import math
from collections.abc import Callable
from dataclasses import dataclass
from functools import cached_property

from calc.chuck.demand import CutDemand
from calc.chuck.grip import ChuckGripResult
from calc.chuck.speed import KEPT_LEAST, GripAtSpeedInput, GripAtSpeedResult, StackPart, grip_at_speed, pull_of
from calc.chuck.speed_limit import SpeedLimitInput, SpeedLimitResult, speed_limit
from calc.plan.chuck_condition import Condition, Known
from calc.plan.cuts.carried import CARRIED
from calc.plan.cuts.solve import CUTS, CutFigures, CutsFigures
from calc.plan.force.demand import DEMAND, DemandFigures
from calc.plan.force.wall import Walled, WallFigures, solve_wall
from calc.plan.hold.figures import HoldFigures, JawHold
from calc.plan.hold.solve import HOLD
from calc.plan.outcome import Asked
from calc.plan.part.solve import PART
from calc.plan.sides.driven import DRIVEN
from calc.working import Step, Working, derived, typical

FASTEST_RPM = 20_000.0  # of any spindle that can be declared
CORNER = typical("the worst credible corner of the house rules")
HOLDING = derived("Margins")


@dataclass(frozen=True, eq=False)
class LoadHeld:
    """One load at the highest speed that it is met at: the grip there, what it needs, and its cap.

    `cut` is None for what is no cut. `held` is the grip counted there over what is needed without the safety,
    `held_corner` the same at the worst credible corner.
    """

    name: str
    cut: CutFigures | None
    top_rpm: float
    needs: CutDemand
    needed_n: float
    at_top: GripAtSpeedResult
    counted_n: float
    held: float
    held_corner: float
    limit: SpeedLimitResult
    steps: tuple[Step, ...]

    @property
    def cap_rpm(self) -> float:
        """The highest speed at which it may turn."""
        return self.limit.speed_cap_rpm

    @property
    def is_over(self) -> bool:
        """It turns faster than its cap."""
        return self.top_rpm > self.cap_rpm * (1 + 1e-9)


def crossing(static: float, loss: float, needed: Callable[[float], float], most: float) -> float | None:
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
class Held:
    """A part in its jaws: what the force of a set-up is found from."""

    asked: Asked
    known: Known
    found: Condition
    grip: ChuckGripResult
    stack: tuple[StackPart, ...]
    second_rpm: float | None = None  # up to where the second spindle holds the piece while it is parted off

    @cached_property
    def hold(self) -> HoldFigures:
        """How it is held."""
        return self.asked.need(HOLD)

    @cached_property
    def cuts(self) -> CutsFigures:
        """What is done to it."""
        return self.asked.need(CUTS)

    @cached_property
    def demand(self) -> DemandFigures:
        """What that asks."""
        return self.asked.need(DEMAND)

    @cached_property
    def outside(self) -> bool:
        """The jaws push inward."""
        return self.hold.side == "od"

    @cached_property
    def presses(self) -> float:
        """Share of the jaws' own pull that presses on wall and guides: never counted as less than all of it."""
        return max(1.0, self.found.transmission)

    @cached_property
    def corner_static_n(self) -> float:
        """The grip standing still [N] at the worst credible corner."""
        return self.grip.grip_n * (1 - self.known.rules.corner_condition_pct / 100)

    @cached_property
    def loss(self) -> float:
        """What speed takes of the grip [N/rpm²]; an inside grip's gain is never credited."""
        return self.found.transmission * pull_of(self.stack, self.hold.chuck.jaws) if self.outside else 0.0

    @cached_property
    def most_rpm(self) -> float:
        """What chuck and machine may turn [rpm]."""
        return min(self.hold.chuck.max_rpm, self.asked.need(DRIVEN).machine.max_rpm)

    def parts(self, place: int) -> bool:
        """The load at this place parts the piece off."""
        cuts = self.cuts.cuts
        return place < len(cuts) and cuts[place].planned.kind == "part"

    def wall(self, grip_n: float) -> WallFigures | None:
        """The wall at a grip [N]."""
        cut = frozenset((c.planned.kind, c.planned.to_diameter_mm or 0.0) for c in self.cuts.cuts)
        share = self.known.rules.wall_share_pct / 100
        return solve_wall(Walled(self.asked.need(PART), self.hold, self.asked.need(CARRIED), cut, share), grip_n)

    def needed_static(self, needed_n: float, corner_n: float, rpm: float) -> float:
        """What counts as needed at a speed [N]: the load itself, the share that is to be kept, the worst corner.

        As the grip left at that speed, so that pressure follows from it as from a load.
        """
        taken = self.loss * rpm * rpm
        worst = 1 - self.known.rules.corner_condition_pct / 100
        kept = KEPT_LEAST / (1 - KEPT_LEAST) * taken if self.outside else 0.0
        return max(needed_n, kept, (corner_n / self.known.rules.safety + taken) / worst - taken)


def loads_of(held: Held, standing: WallFigures | None) -> tuple[LoadHeld, ...]:
    """Every load at its own speed; what is no cut at the highest."""
    guides = _guides_rpm(held)
    limit_n = standing.limit_n if standing else None
    return tuple(_load(held, place, top, (limit_n, guides)) for place, top in enumerate(held.demand.tops))


def _load(held: Held, place: int, top: float, walls: tuple[float | None, float | None]) -> LoadHeld:
    demand, rules, cuts = held.demand, held.known.rules, held.cuts.cuts
    cut = cuts[place] if place < len(cuts) else None
    limit = speed_limit(_limit_input(held, place, walls))
    at_top = grip_at_speed(
        GripAtSpeedInput(
            held.grip.grip_n, held.hold.side, held.stack, top, held.hold.chuck.jaws, held.found.transmission
        )
    )
    # Inside grip gains with speed, but guides stick: the gain is never credited toward the demand.
    taken = held.found.transmission * at_top.centrifugal_n if held.outside else 0.0
    counted = at_top.grip_n if held.outside else held.grip.grip_n
    need, worst = demand.each(place, top), demand.each_at_corner(place, top)
    w = Working()
    corner = w.step(
        "F_n′",
        "Grip counted at its speed, worst corner",
        "max(0, k_c*F_0 - F_c)",
        "N",
        CORNER,
        k_c=1 - rules.corner_condition_pct / 100,
        F_0=held.grip.grip_n,
        F_c=taken,
    )
    text = "F_n / (F_req / S)"
    label = "Holds times what the cut asks"
    times = w.step("S_n", label, text, "", HOLDING, F_n=counted, F_req=need, S=rules.safety)
    label = "The same at the worst credible corner"
    times_corner = w.step("S_c", label, text, "", CORNER, F_n=corner, F_req=worst, S=rules.safety)
    needs = demand.nominal.cuts[place]
    return LoadHeld(needs.name, cut, top, needs, need, at_top, counted, times, times_corner, limit, tuple(w.steps))


def _limit_input(held: Held, place: int, walls: tuple[float | None, float | None]) -> SpeedLimitInput:
    hold, demand, rules = held.hold, held.demand, held.known.rules
    wall_n, guides = walls
    meets = corner = None
    if demand.grows:

        def needed_at_corner(rpm: float) -> float:
            return demand.each_at_corner(place, rpm) / rules.safety

        meets = crossing(held.grip.grip_n, held.loss, lambda n: demand.each(place, n), held.most_rpm)
        corner = crossing(held.corner_static_n, held.loss, needed_at_corner, held.most_rpm)
    return SpeedLimitInput(
        static_grip_n=held.grip.grip_n,
        required_grip_n=demand.each(place, meets or 0.0),
        side=hold.side,
        stack=held.stack,
        demand_max_rpm=meets,
        chuck_max_rpm=hold.chuck.max_rpm,
        machine_max_rpm=held.asked.need(DRIVEN).machine.max_rpm,
        user_max_rpm=held.asked.setup.force.user_max_rpm,
        jaws=hold.chuck.jaws,
        wall_limit_n=wall_n,
        transmission=held.found.transmission,
        guides_max_rpm=guides,
        keep_share=KEPT_LEAST,
        corner_static_n=held.corner_static_n,
        corner_required_n=demand.each_at_corner(place, corner or 0.0) / rules.safety,
        corner_max_rpm=corner,
        other_max_rpm=held.second_rpm if held.parts(place) else None,
    )


def rated_moment(hold: HoldFigures) -> float:
    """The guide moment that the chuck is rated for [N·mm]."""
    return hold.chuck.force.max_grip_n * hold.chuck.force.reference_height_mm


def static_moment(held: Held) -> float:
    """The guide moment standing still [N·mm], without the condition factor: grease must not hide an overload."""
    return held.grip.charted_n * held.grip.height_factor * held.hold.grip_height_mm


def jaw_centre_mm(hold: HoldFigures) -> float:
    """Where a top jaw's centre is counted, above the guide: at half its height; a collet has none."""
    return hold.chuck.guide_to_jaw_base_mm + hold.jaw_height_mm / 2 if isinstance(hold, JawHold) else 0.0


def lever(hold: HoldFigures) -> float:
    """From the jaw's centre to the grip, along the spindle [mm].

    The centre is counted at half the jaw's height: turning takes metal off its top, so it lies no higher.
    """
    return max(0.0, hold.grip_height_mm - jaw_centre_mm(hold))


def _guides_rpm(held: Held) -> float | None:
    """Inside grip: the speed where the guides carry their rated moment; None where speed adds none, or not that
    much.
    """
    hold = held.hold
    pull = held.presses * pull_of(held.stack, hold.chuck.jaws) * lever(hold)  # N·mm per rpm²
    room = rated_moment(hold) - static_moment(held)
    if held.outside or pull <= 0:
        return None
    speed = math.sqrt(max(0.0, room) / pull)
    # Light jaws load the guides at no speed that a spindle can be asked for: then they limit nothing.
    return speed if speed <= FASTEST_RPM else None

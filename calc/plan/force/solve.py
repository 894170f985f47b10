"""Stop Force solved: pressure to grip, what height, neglect and speed take, what the cuts ask, the cap."""

from __future__ import annotations

from collections.abc import Iterator
from dataclasses import dataclass

from calc.chuck.grip import ChuckGripInput, ChuckGripResult, chuck_grip
from calc.chuck.pressure import PressureNeededInput, PressureNeededResult, pressure_needed
from calc.chuck.speed import KEPT_LEAST, StackPart
from calc.plan.chuck_condition import condition_of, known_of
from calc.plan.cuts.solve import CUTS
from calc.plan.force.centre import centre_notes
from calc.plan.force.demand import DEMAND, DemandFigures
from calc.plan.force.held import Held, LoadHeld, jaw_centre_mm, lever, loads_of, rated_moment, static_moment
from calc.plan.force.stack import stack_of
from calc.plan.force.transfer import OPEN, SLIPS, partings
from calc.plan.force.wall import WallFigures
from calc.plan.hold.figures import HoldFigures
from calc.plan.hold.solve import HOLD
from calc.plan.outcome import Asked, Missing, Solved, naming
from calc.plan.part.solve import PART
from calc.quantities import Figure
from calc.working import Note, Source

NEAR_OVERLOAD = 0.95  # more pressure is never offered from here up


@dataclass(frozen=True)
class ForceFigures:
    """Grip, demand, caps and margins of a set-up. Forces are sums over all jaws.

    `loss` is what speed takes of the grip [N/rpm²]. Each load is judged at its own speed.
    """

    pressure_bar: float
    condition: float
    condition_source: Source
    transmission: float
    grip: ChuckGripResult
    loads: tuple[LoadHeld, ...]
    stack: tuple[StackPart, ...]
    second_rpm: float | None  # up to where a second spindle holds the parting
    loss: float
    safety: float
    corner_condition: float
    asked: DemandFigures
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
    def lowest(self) -> LoadHeld:
        """The load with the lowest cap."""
        return min(self.loads, key=lambda load: (load.cap_rpm, load.held))

    @property
    def worst(self) -> LoadHeld:
        """The load that is held with the least margin."""
        return min(self.loads, key=lambda load: load.held)

    @property
    def weakest(self) -> LoadHeld:
        """The load that is held with the least margin at the worst credible corner."""
        return min(self.loads, key=lambda load: load.held_corner)

    @property
    def fastest(self) -> LoadHeld:
        """The load that turns fastest."""
        return max(self.loads, key=lambda load: load.top_rpm)

    @property
    def top_rpm(self) -> float:
        """The highest speed that is reached."""
        return self.fastest.top_rpm

    @property
    def cap_rpm(self) -> float:
        """The lowest cap of all loads."""
        return self.lowest.cap_rpm

    def load_of(self, cut: str) -> LoadHeld | None:
        """The load of a cut, by its id."""
        return next((load for load in self.loads if load.cut is not None and load.cut.id == cut), None)

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


def _second_cap(asked: Asked) -> tuple[float | None, tuple[Note, ...]]:
    """(up to which speed the second spindle holds the parting, what is wrong about it) of the first side."""
    parted = partings(asked) if asked.index == 0 else ()
    if not parted:
        return None, ()
    other = asked.every[1][FORCE]
    if other is None:
        return None, (OPEN,)
    first = len(asked.document.setups[1].cuts)
    cap = min(load.cap_rpm for load in other.loads[first : first + len(parted)])
    return cap, () if cap > 0 else (SLIPS,)


def solve_force(asked: Asked) -> ForceFigures:
    """Figures of the force. Raises Missing, Waiting or CalcError."""
    at, force, hold = asked.at, asked.setup.force, asked.need(HOLD)
    asked.need(PART)
    stack = stack_of(asked, hold)
    cuts, demand = asked.need(CUTS), asked.need(DEMAND)
    if force.pressure_bar is None:
        raise Missing((f"{at}.force.pressure_bar", "Gauge pressure"))
    known = known_of(asked)
    found = condition_of(at, force, known)
    grip = _grip(at, force.pressure_bar, found.factor, hold)
    second, about_second = _second_cap(asked)
    held = Held(asked, known, found, grip, stack, second)
    standing = held.wall(grip.grip_n)
    loads = loads_of(held, standing)
    fastest = max(loads, key=lambda load: load.top_rpm)
    wall = standing if held.outside else held.wall(grip.grip_n + held.presses * fastest.at_top.centrifugal_n)
    return ForceFigures(
        pressure_bar=force.pressure_bar,
        condition=found.factor,
        condition_source=found.source,
        transmission=found.transmission,
        grip=grip,
        loads=loads,
        stack=held.stack,
        second_rpm=second,
        loss=held.loss,
        safety=asked.rules.safety,
        corner_condition=1 - asked.rules.corner_condition_pct / 100,
        asked=demand,
        wall=wall,
        wanted_rpm=force.wanted_rpm or cuts.top_rpm,
        wanted=_wanted(held, loads, standing),
        notes=(
            *grip.notes,
            *_too_small(loads),
            *_load_notes(held, loads),
            *_condition_notes(held),
            *_inside_notes(held, fastest),
            *(wall.notes if wall else ()),
            *centre_notes(asked),
            *about_second,
        ),
    )


def _too_small(loads: tuple[LoadHeld, ...]) -> tuple[Note, ...]:
    """What the grip standing still does not hold: told of the load that asks most, and how many more there are."""
    notes: list[Note] = []
    for code in ("grip-too-small", "corner-slips"):
        short = [load for load in loads if any(n.code == code for n in load.limit.notes)]
        if not short or notes:
            continue
        worst = max(short, key=lambda load: load.needed_n)
        note = next(n for n in worst.limit.notes if n.code == code)
        more = f" and {len(short) - 1} more" if len(short) > 1 else ""
        notes.append(note.named(f"{worst.name}{more}"))
    return tuple(notes)


def _wanted(held: Held, loads: tuple[LoadHeld, ...], standing: WallFigures | None) -> PressureNeededResult:
    """The pressure that every load asks for at its own speed, or at the one that is wanted: the highest of them."""
    wanted, asked = held.asked.setup.force.wanted_rpm, []
    for place, load in enumerate(loads):
        rpm = wanted or load.top_rpm
        needed = held.needed_static(held.demand.each(place, rpm), held.demand.each_at_corner(place, rpm), rpm)
        asked.append((needed + held.loss * rpm * rpm, needed, rpm))
    _, needed, rpm = max(asked)  # pressure rises with the grip that is asked for standing still
    return _pressure(held, needed, rpm, standing)


def _pressure(held: Held, needed_n: float, rpm: float, standing: WallFigures | None) -> PressureNeededResult:
    hold = held.hold
    return pressure_needed(
        PressureNeededInput(
            required_grip_n=needed_n,
            side=hold.side,
            stack=held.stack,
            rpm=rpm,
            grip_height_mm=hold.grip_height_mm,
            chuck=hold.chuck.force,
            condition_factor=held.found.factor,
            jaws=hold.chuck.jaws,
            transmission=held.found.transmission,
            wall_limit_n=standing.limit_n if standing else None,
            jaw_height_mm=jaw_centre_mm(hold),
        )
    )


def _inside_notes(held: Held, fastest: LoadHeld) -> tuple[Note, ...]:
    """Inside grip: what the jaws' own pull at speed adds to the moment on the guides."""
    if held.outside:
        return ()
    rated = rated_moment(held.hold)
    moment = static_moment(held) + held.presses * fastest.at_top.centrifugal_n * lever(held.hold)
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


def _load_notes(held: Held, loads: tuple[LoadHeld, ...]) -> Iterator[Note]:
    """What is wrong at each load's own speed."""
    for load in loads:
        kept = load.at_top.kept_fraction
        if held.outside and kept < KEPT_LEAST * (1 - 1e-9):
            yield Note(
                "stop",
                "little-grip-kept",
                "{cut}: at {n} only {kept} of the grip is left; a third is the least. Hold its clamp to {cap}."
                if load.cap_rpm > 0
                else "{cut}: at {n} only {kept} of the grip is left; a third is the least. It needs more pressure.",
                cut=load.name,
                n=Figure(load.top_rpm, "rpm", "up"),
                kept=Figure(100 * kept, "%", "down"),
                cap=Figure(load.cap_rpm, "rpm", "down"),
            )
        if load.held_corner < 1 - 1e-9 and load.cap_rpm > 0:
            yield Note(
                "stop",
                "corner-slips",
                "{cut}: at the worst credible corner the grip at {n} is {held} of what it asks: it could slip.",
                cut=load.name,
                n=Figure(load.top_rpm, "rpm", "up"),
                held=Figure(100 * load.held_corner, "%", "down"),
            )
        told = load.limit.capped_by in ("kept", "corner")
        if load.cap_rpm > 0 and load.is_over and not told:
            yield Note(
                "stop",
                "over-cap",
                "{cut} reaches {top}; the cap is {cap}, set by {by}.",
                cut=load.name,
                top=Figure(load.top_rpm, "rpm", "up"),
                cap=Figure(load.cap_rpm, "rpm", "down"),
                by=BY[load.limit.capped_by],
            )
    if held.asked.setup.force.brake_s is None:
        yield Note(
            "info", "braking-not-counted", "The spindle's braking is not counted: give the time it takes to stop."
        )


def _condition_notes(held: Held) -> Iterator[Note]:
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
    "kept": "the third of the grip that must be kept",
    "corner": "the worst credible corner",
    "other": "the second spindle",
}


FORCE = Solved("force", "Force", solve_force)

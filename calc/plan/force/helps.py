"""What would lift the cap, or take away what stops Force."""

from __future__ import annotations

import math
from collections.abc import Iterator

from calc.plan.cuts.solve import CUTS
from calc.plan.force.centre import lifts_n
from calc.plan.force.solve import FORCE, NEAR_OVERLOAD, ForceFigures
from calc.plan.hold.solve import HOLD, JAW_HOLD
from calc.plan.jaws.solve import JAWS
from calc.plan.part.solve import PART
from calc.plan.stop import Help
from calc.plan.trying import LENGTH_STEP_MM, MOST, Idea, floor_to, other_blanks, with_idea
from calc.plan.view import View
from calc.quantities import Figure, Sentence

CLAMP_STEP_RPM = 10.0
THRUST_STEP_N = 50.0
CENTRE_STOPS = ("centre-thrust-unknown", "centre-lifts", "centre-overloaded")
PRESSURE_STEP_BAR, FINE_BAR = 1.0, 0.1
LOWER_BY_MM = 12.0


def _deeper(view: View) -> Iterator[Idea]:
    hold = view[JAW_HOLD]
    if hold is None or view.setup.hold.seat == "face" or hold.blank.is_hard:
        return
    most = min(hold.grip.plain_mm, hold.usable_height_mm - hold.mouth_mm - view.setup.jaws.floor_min_mm)
    deepest = floor_to(most, LENGTH_STEP_MM)
    if deepest > hold.pocket.bore_depth_mm + 1e-9:
        label = Sentence("Grip {d} deep", d=Figure(deepest, "mm"))
        yield Idea(label, f"{view.at}.hold.depth_mm", deepest)


def _pressures(view: View) -> Iterator[Idea]:
    force, hold = view[FORCE], view[HOLD]
    if force is None or hold is None:
        return
    wall = force.wall.limit_n if force.wall else None
    if wall is not None and force.wall is not None and force.wall.given.total_grip_n > wall:
        lower = floor_to(force.pressure_bar * wall / force.wall.given.total_grip_n, PRESSURE_STEP_BAR / 2)
        if lower > 0:
            yield Idea(
                Sentence("Lower the pressure to {p}", p=Figure(lower, "bar")), f"{view.at}.force.pressure_bar", lower
            )
        return
    needed = force.wanted.pressure_bar
    if needed is not None and needed > force.pressure_bar * (1 + 1e-9):
        # To half a bar; finer where little room is left below what chuck and wall stand.
        rounded = [-floor_to(-needed, step) for step in (PRESSURE_STEP_BAR / 2, FINE_BAR)]
        enough = next((p for p in rounded if p <= force.wanted.highest_bar), None)
        if enough is not None:
            label = Sentence("{p}, the least that holds every cut", p=Figure(enough, "bar", "up"))
            yield Idea(label, f"{view.at}.force.pressure_bar", enough)
    used = force.grip.charted_n * force.grip.height_factor / force.grip.allowable_grip_n
    now = force.pressure_bar
    path = f"{view.at}.force.pressure_bar"
    if used > 1:
        lower = floor_to(now / used, PRESSURE_STEP_BAR / 2)
        if lower > 0:
            yield Idea(Sentence("Lower the pressure to {p}", p=Figure(lower, "bar")), path, lower)
    elif used < NEAR_OVERLOAD:
        most = min(hold.chuck.force.max_pressure_bar, now * NEAR_OVERLOAD / used)
        higher = floor_to(min(most, now * 1.15), PRESSURE_STEP_BAR)
        if higher > now:
            yield Idea(Sentence("{p} of pressure", p=Figure(higher, "bar")), path, higher)


def _clamp(view: View) -> Iterator[Idea]:
    """Each cut that turns faster than its cap, held to it; the side's own clamp where that does for all."""
    force = view[FORCE]
    if force is None:
        return
    over = [load for load in force.loads if load.is_over and load.cap_rpm > 0 and load.cut is not None]
    if len(over) > 1:
        held = floor_to(force.cap_rpm, CLAMP_STEP_RPM) or math.floor(force.cap_rpm)
        yield Idea(Sentence("Hold the side's clamp to {n}", n=Figure(held, "rpm")), f"{view.at}.clamp_rpm", held)
    for load in over:
        assert load.cut is not None
        held = floor_to(load.cap_rpm, CLAMP_STEP_RPM) or math.floor(load.cap_rpm)
        fixed = load.cut.planned.rpm is not None
        words = "Run {cut} at {n}" if fixed else "Hold the clamp of {cut} to {n}"
        path = f"{view.at}.cuts.{load.cut.id}.{'rpm' if fixed else 'clamp_rpm'}"
        yield Idea(Sentence(words, cut=load.name, n=Figure(held, "rpm")), path, held)


def _lighter(view: View) -> Iterator[Idea]:
    force = view[FORCE]
    if force is None or force.asked.governs >= len(view.setup.cuts):  # braking governs
        return
    cut = view.setup.cuts[force.asked.governs]
    depth = cut.depth_mm if cut.kind in ("turn", "face", "bore") else None
    if depth is not None and depth >= 0.4:
        less = floor_to(depth * 0.75, 0.1)
        label = Sentence("{cut}: {a} deep per pass", cut=cut.name, a=Figure(less, "mm"))
        yield Idea(label, f"{view.at}.cuts.{cut.id}.depth_mm", less)


def _lower(view: View) -> Iterator[Idea]:
    hold = view[JAW_HOLD]
    if hold is None or hold.blank.is_hard or hold.jaw_height_mm <= 2 * LOWER_BY_MM:
        return
    lower = floor_to(hold.jaw_height_mm - LOWER_BY_MM, LENGTH_STEP_MM)
    yield Idea(
        Sentence("Jaws turned {d} lower", d=Figure(LOWER_BY_MM, "mm", places=(0, 2))),
        f"{view.jaws_at}.hold.jaw_height_mm",
        lower,
    )


def _other_facts(view: View) -> Iterator[Idea]:
    setup = view.setup
    if setup.force.condition in ("unknown", "week"):
        yield Idea(Sentence("Grease the chuck, then plan with “greased today”"), f"{view.at}.force.condition", "today")
    if setup.hold.seat == "none":
        yield Idea(Sentence("Seat the part on the pocket floor"), f"{view.at}.hold.seat", "floor")
    if not setup.hold.live_centre and all(c.kind == "turn" for c in setup.cuts):
        yield Idea(Sentence("Support it with a live centre"), f"{view.at}.hold.live_centre", True)


def _centre(view: View) -> Iterator[Idea]:
    """A thrust that keeps the live centre in its hole and that its bearing carries."""
    force, cuts, part = view[FORCE], view[CUTS], view[PART]
    if force is None or cuts is None or part is None or all(n.code not in CENTRE_STOPS for n in force.notes):
        return
    least = -floor_to(-max(lifts_n(c, view.document.in_force) for c in cuts.cuts), THRUST_STEP_N)
    path = f"{view.at}.hold.centre_thrust_n"
    yield Idea(Sentence("Press the centre with {x}", x=Figure(least, "N", "up")), path, least)


def _wall_stops(force: ForceFigures) -> bool:
    return any(n.code in ("wall-limit", "crushed") and n.level == "stop" for n in force.notes)


def force_helps(view: View) -> tuple[Help, ...]:
    """Changes that lift the cap or take the stop away, with the cap each would give [rpm]."""
    force = view[FORCE]
    if force is None:
        return ()
    before = [*_clamp(view), *_pressures(view)]
    after_blanks = [*_deeper(view), *_lower(view), *_other_facts(view), *_lighter(view)]
    before += _centre(view)
    trials = [*((idea, None) for idea in before), *other_blanks(view), *((idea, None) for idea in after_blanks)]
    helps: list[tuple[tuple[int, float], Help]] = []
    for idea, known in trials:
        tried = known or with_idea(view, idea)
        after, jaws = (tried[FORCE], tried[JAWS]) if tried else (None, None)
        if after is None:
            continue
        settles = not after.stopped
        worse = jaws is not None and any(n.level == "stop" for n in jaws.notes)
        lifts = after.cap_rpm > force.cap_rpm * 1.005
        is_fix = force.stopped and settles
        frees = _wall_stops(force) and not _wall_stops(after)  # the wall stands then, whatever else is left to mend
        if _wall_stops(force) and not frees:
            continue
        if worse or not (is_fix or frees or (lifts and (settles or force.stopped) and not after.grip.overloaded)):
            continue
        outcome = Sentence("cap {n}", n=Figure(after.cap_rpm, "rpm", "down"))
        if _wall_stops(force) and after.wall is not None:
            outcome = Sentence("out of round {x}", x=Figure(after.wall.lobing.out_of_round_mm, "mm", "up", (3, 4)))
            if not settles:
                left = sum(n.level == "stop" for n in after.notes)
                outcome = Sentence("the wall stands; {n} left to mend", n=str(left))
        # What settles comes first, in the order of the ideas; then what lifts the cap most.
        rank = (0, len(helps)) if is_fix else (1, -after.cap_rpm)
        helps.append((rank, idea.help(outcome, settles=settles)))
    return tuple(h for _, h in sorted(helps, key=lambda pair: pair[0])[:MOST])

"""What would help: single changes, each tried by recomputing the plan with that one change."""

from __future__ import annotations

import math
from collections.abc import Iterator
from dataclasses import dataclass
from typing import Any

from calc.errors import CalcError
from calc.plan.choices import Tried
from calc.plan.document import Document
from calc.plan.force import NEAR_OVERLOAD, ForceFigures
from calc.plan.paths import replaced
from calc.plan.solve import Figures, setup_path, solve
from calc.plan.stops import Help
from calc.quantities import Figure, Sentence
from calc.shelf.taken import Shelf

CLAMP_STEP_RPM = 10.0
PRESSURE_STEP_BAR = 1.0
LENGTH_STEP_MM = 0.5
LOWER_BY_MM = 12.0
FEED_STEP_MM = 0.01
MOST = 5


@dataclass(frozen=True)
class Idea:
    """A change to try: a fact of the document, or a blank from the shelf."""

    label: Sentence
    path: str
    value: Any


def _floor_to(value: float, step: float) -> float:
    return round(math.floor(value / step + 1e-9) * step, 9)


def _with(document: Document, shelf: Shelf, idea: Idea, index: int) -> Figures | None:
    """The figures with one change made; None where the change itself is refused."""
    try:
        changed = replaced(document, idea.path, idea.value)
    except CalcError:
        return None
    return solve(changed, shelf, index)


def _others(tried: tuple[Tried, ...], document: Document, index: int) -> Iterator[tuple[Idea, Figures]]:
    """The blanks that were tried, as ideas with their figures."""
    path = f"{setup_path(document.jaws_of(index))}.jaw_blank"
    for one in tried:
        if not one.chosen:
            yield Idea(Sentence("{name}", name=one.blank.name), path, one.blank.key), one.figures


def _deeper(document: Document, figures: Figures, at: str, index: int) -> Iterator[Idea]:
    hold = figures.hold.value
    if hold is None or document.setups[index].hold.seat == "face":
        return
    most = min(hold.grip.plain_mm, hold.usable_height_mm - hold.mouth_mm - document.setups[index].jaws.floor_min_mm)
    deepest = _floor_to(most, LENGTH_STEP_MM)
    if deepest > hold.pocket.bore_depth_mm + 1e-9:
        label = Sentence("Grip {d} deep", d=Figure(deepest, "mm"))
        yield Idea(label, f"{at}.hold.depth_mm", deepest)


def _pressures(figures: Figures, at: str) -> Iterator[Idea]:
    force, hold = figures.force.value, figures.hold.value
    if force is None or hold is None:
        return
    wall = force.wall.limit_n if force.wall else None
    if wall is not None and force.wall is not None and force.wall.given.total_grip_n > wall:
        lower = _floor_to(force.pressure_bar * wall / force.wall.given.total_grip_n, PRESSURE_STEP_BAR / 2)
        if lower > 0:
            yield Idea(Sentence("Lower the pressure to {p}", p=Figure(lower, "bar")), f"{at}.force.pressure_bar", lower)
        return
    used = force.grip.charted_n * force.grip.height_factor / force.grip.allowable_grip_n
    now = force.pressure_bar
    path = f"{at}.force.pressure_bar"
    if used > 1:
        lower = _floor_to(now / used, PRESSURE_STEP_BAR / 2)
        if lower > 0:
            yield Idea(Sentence("Lower the pressure to {p}", p=Figure(lower, "bar")), path, lower)
    elif used < NEAR_OVERLOAD:
        most = min(hold.chuck.force.max_pressure_bar, now * NEAR_OVERLOAD / used)
        higher = _floor_to(min(most, now * 1.15), PRESSURE_STEP_BAR)
        if higher > now:
            yield Idea(Sentence("{p} of pressure", p=Figure(higher, "bar")), path, higher)


def _clamp(document: Document, figures: Figures, at: str) -> Iterator[Idea]:
    force, cuts = figures.force.value, figures.cuts.value
    if force is None or cuts is None:
        return
    cap = force.limit.speed_cap_rpm
    if not 0 < cap < cuts.top_rpm:
        return
    held = _floor_to(cap, CLAMP_STEP_RPM) or math.floor(cap)
    fixed = cuts.fastest.planned.rpm is not None
    if fixed:
        i = cuts.cuts.index(cuts.fastest)
        label = Sentence("Run {cut} at {n}", cut=cuts.fastest.name, n=Figure(held, "rpm"))
        yield Idea(label, f"{at}.cuts.{i}.rpm", held)
    else:
        yield Idea(Sentence("Hold the clamp to {n}", n=Figure(held, "rpm")), f"{at}.clamp_rpm", held)


def _lighter(document: Document, figures: Figures, at: str, index: int) -> Iterator[Idea]:
    force = figures.force.value
    if force is None:
        return
    names = [c.name for c in document.setups[index].cuts]
    if force.demand.governing_cut not in names:  # braking governs
        return
    i = names.index(force.demand.governing_cut)
    cut = document.setups[index].cuts[i]
    depth = cut.depth_mm if cut.kind in ("turn", "face", "bore") else None
    if depth is not None and depth >= 0.4:
        less = _floor_to(depth * 0.75, 0.1)
        label = Sentence("{cut}: {a} deep per pass", cut=names[i], a=Figure(less, "mm"))
        yield Idea(label, f"{at}.cuts.{i}.depth_mm", less)


def _lower(figures: Figures, at: str) -> Iterator[Idea]:
    hold = figures.hold.value
    if hold is None or hold.jaw_height_mm <= 2 * LOWER_BY_MM:
        return
    lower = _floor_to(hold.jaw_height_mm - LOWER_BY_MM, LENGTH_STEP_MM)
    yield Idea(
        Sentence("Jaws turned {d} lower", d=Figure(LOWER_BY_MM, "mm", places=(0, 2))), f"{at}.hold.jaw_height_mm", lower
    )


def _other_facts(document: Document, at: str, index: int) -> Iterator[Idea]:
    setup = document.setups[index]
    if setup.force.condition in ("unknown", "week"):
        yield Idea(Sentence("Grease the chuck, then plan with “greased today”"), f"{at}.force.condition", "today")
    if setup.hold.seat == "none":
        yield Idea(Sentence("Seat the part on the pocket floor"), f"{at}.hold.seat", "floor")
    if not setup.hold.live_centre and all(c.kind == "turn" for c in setup.cuts):
        yield Idea(Sentence("Support it with a live centre"), f"{at}.hold.live_centre", True)


def _wall_stops(force: ForceFigures) -> bool:
    return any(n.code == "wall-limit" for n in force.notes)


def force_helps(
    document: Document, shelf: Shelf, figures: Figures, index: int, blanks: tuple[Tried, ...]
) -> tuple[Help, ...]:
    """Changes that lift the cap or take the stop away, with the cap each would give [rpm]."""
    force = figures.force.value
    if force is None:
        return ()
    at = setup_path(index)
    before = [*_clamp(document, figures, at), *_pressures(figures, at)]
    after_blanks = [
        *_deeper(document, figures, at, index),
        *_lower(figures, setup_path(document.jaws_of(index))),
        *_other_facts(document, at, index),
        *_lighter(document, figures, at, index),
    ]
    trials = [
        *((idea, None) for idea in before),
        *_others(blanks, document, index),
        *((idea, None) for idea in after_blanks),
    ]
    helps: list[tuple[tuple[int, float], Help]] = []
    for idea, known in trials:
        tried = known or _with(document, shelf, idea, index)
        after = tried.force.value if tried else None
        if tried is None or after is None or tried.jaws.value is None:
            continue
        settles = not after.stopped
        worse = any(n.level == "stop" for n in tried.jaws.value.notes)
        lifts = after.limit.speed_cap_rpm > force.limit.speed_cap_rpm * 1.005
        is_fix = force.stopped and settles
        if _wall_stops(force) and not settles:
            continue
        if worse or not (is_fix or (lifts and (settles or force.stopped) and not after.grip.overloaded)):
            continue
        outcome = Sentence("cap {n}", n=Figure(after.limit.speed_cap_rpm, "rpm", "down"))
        if _wall_stops(force) and after.wall is not None:
            outcome = Sentence("out of round {x}", x=Figure(after.wall.lobing.out_of_round_mm, "mm", "up", (3, 4)))
        # What settles comes first, in the order of the ideas; then what lifts the cap most.
        rank = (0, len(helps)) if is_fix else (1, -after.limit.speed_cap_rpm)
        helps.append((rank, Help(idea.label, idea.path, idea.value, outcome, settles)))
    return tuple(h for _, h in sorted(helps, key=lambda pair: pair[0])[:MOST])


def jaws_helps(
    document: Document, shelf: Shelf, figures: Figures, index: int, blanks: tuple[Tried, ...]
) -> tuple[Help, ...]:
    """Changes that take away a stop of the jaws: a shallower pocket or another blank."""
    jaws, hold = figures.jaws.value, figures.hold.value
    if jaws is None or hold is None or not any(n.level == "stop" for n in jaws.notes):
        return ()
    at = setup_path(index)
    shallow = _floor_to(
        hold.usable_height_mm - hold.mouth_mm - document.setups[index].jaws.floor_min_mm, LENGTH_STEP_MM
    )
    trials: list[tuple[Idea, Figures | None]] = list(_others(blanks, document, index))
    if 0 < shallow < hold.pocket.bore_depth_mm:
        trials.insert(
            0, (Idea(Sentence("Grip {d} deep", d=Figure(shallow, "mm")), f"{at}.hold.depth_mm", shallow), None)
        )
    helps = []
    for idea, known in trials:
        tried = known or _with(document, shelf, idea, index)
        if tried is None or tried.jaws.value is None or any(n.level == "stop" for n in tried.jaws.value.notes):
            continue
        assert tried.hold.value is not None
        outcome = Sentence("floor {f}", f=Figure(tried.hold.value.pocket.floor_mm, "mm", "down"))
        helps.append(Help(idea.label, idea.path, idea.value, outcome, True))
    return tuple(helps[:MOST])


def cuts_helps(document: Document, shelf: Shelf, figures: Figures, index: int) -> tuple[Help, ...]:
    """For a cut beyond the spindle: the largest feed that it stands, or half the depth."""
    cuts = figures.cuts.value
    if cuts is None or not any(n.code == "spindle-too-weak" for n in cuts.notes):
        return ()
    at = setup_path(index)
    i = max(range(len(cuts.cuts)), key=lambda j: cuts.cuts[j].over)
    planned = cuts.cuts[i].planned
    # Both are upper guesses (force falls slower than feed): each is tried, then walked down.
    tries = (
        ("feed_mm_rev", planned.feed_mm_rev, FEED_STEP_MM, "mm/rev", "{cut}: feed {x}"),
        ("depth_mm", planned.depth_mm, 0.1, "mm", "{cut}: {x} deep per pass"),
    )
    helps = []
    for name, value, step, unit, words in tries:
        if value is None or (name == "depth_mm" and planned.kind not in ("turn", "face", "bore")):
            continue
        guess = _floor_to(value / cuts.cuts[i].over, step)
        while guess > 0:
            label = Sentence(words, cut=planned.name, x=Figure(guess, unit))
            idea = Idea(label, f"{at}.cuts.{i}.{name}", guess)
            tried = _with(document, shelf, idea, index)
            after = tried.cuts.value if tried else None
            if after is not None and after.cuts[i].over <= 1:
                outcome = Sentence("power {p}", p=Figure(after.cuts[i].result.power_kw, "kW", "up"))
                settles = not any(n.level == "stop" for n in after.notes)
                helps.append(Help(idea.label, idea.path, guess, outcome, settles))
                break
            guess = _floor_to(guess * 0.9, step)
    return tuple(helps)

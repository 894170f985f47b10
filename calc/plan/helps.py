"""What would help: single changes, each tried by recomputing the plan with that one change."""

from __future__ import annotations

import math
from collections.abc import Iterator
from dataclasses import dataclass, replace
from typing import Any

from calc.errors import CalcError
from calc.plan.document import Document, replaced
from calc.plan.force import NEAR_OVERLOAD
from calc.plan.shelf import Shelf
from calc.plan.solve import Figures, Near, setup_path, solve
from calc.plan.stops import Help
from calc.quantities import Figure, Sentence
from calc.working import without_steps

CLAMP_STEP_RPM = 10.0
PRESSURE_STEP_BAR = 1.0
LENGTH_STEP_MM = 0.5
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


def _with(document: Document, shelf: Shelf, idea: Idea, near: Near, index: int) -> Figures | None:
    """The figures with one change made, without working; None where the change itself is refused."""
    with without_steps():
        return _solved(document, shelf, idea, near, index)


def _solved(document: Document, shelf: Shelf, idea: Idea, near: Near, index: int) -> Figures | None:
    if idea.path == f"{setup_path(index)}.jaw_blank":
        setup = shelf.setups[index]
        blank = next(b for b in setup.blanks if b.key == idea.value)
        setups = list(shelf.setups)
        setups[index] = replace(setup, blank=blank)
        return solve(document, replace(shelf, setups=tuple(setups)), index, near)
    try:
        changed = replaced(document, idea.path, idea.value)
    except CalcError:
        return None
    return solve(changed, shelf, index, near)


def _blanks(shelf: Shelf, at: str, index: int) -> Iterator[Idea]:
    setup = shelf.setups[index]
    for blank in setup.blanks:
        if setup.blank is not None and blank.key != setup.blank.key:
            yield Idea(Sentence("{name}", name=blank.name), f"{at}.jaw_blank", blank.key)


def _deeper(document: Document, figures: Figures, at: str) -> Iterator[Idea]:
    hold, part = figures.hold.value, figures.part.value
    if hold is None or part is None or document.setups[0].hold.seat == "face":
        return
    most = min(part.plain_length_mm, hold.usable_height_mm - document.setups[0].jaws.floor_min_mm)
    deepest = _floor_to(most, LENGTH_STEP_MM)
    if deepest > hold.pocket.bore_depth_mm + 1e-9:
        label = Sentence("Grip {d} deep", d=Figure(deepest, "mm"))
        yield Idea(label, f"{at}.hold.depth_mm", deepest)


def _pressures(figures: Figures, at: str) -> Iterator[Idea]:
    force, hold = figures.force.value, figures.hold.value
    if force is None or hold is None:
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


def _lighter(document: Document, figures: Figures, at: str) -> Iterator[Idea]:
    force = figures.force.value
    if force is None:
        return
    names = [c.name for c in document.setups[0].cuts]
    i = names.index(force.demand.governing_cut)
    depth = document.setups[0].cuts[i].depth_mm
    if depth is not None and depth >= 0.4:
        less = _floor_to(depth * 0.75, 0.1)
        label = Sentence("{cut}: {a} deep per pass", cut=names[i], a=Figure(less, "mm"))
        yield Idea(label, f"{at}.cuts.{i}.depth_mm", less)


def _other_facts(document: Document, at: str) -> Iterator[Idea]:
    setup = document.setups[0]
    if setup.force.condition in ("unknown", "week"):
        yield Idea(Sentence("Grease the chuck, then plan with “greased today”"), f"{at}.force.condition", "today")
    if setup.hold.seat == "none":
        yield Idea(Sentence("Seat the part on the pocket floor"), f"{at}.hold.seat", "floor")
    if not setup.hold.live_centre and all(c.kind == "turn" for c in setup.cuts):
        yield Idea(Sentence("Support it with a live centre"), f"{at}.hold.live_centre", True)


def force_helps(document: Document, shelf: Shelf, figures: Figures, index: int = 0) -> tuple[Help, ...]:
    """Changes that lift the cap or take the stop away, with the cap each would give [rpm]."""
    force = figures.force.value
    if force is None:
        return ()
    at, near = setup_path(index), Near(document, shelf, figures)
    ideas = [
        *_clamp(document, figures, at), *_pressures(figures, at), *_blanks(shelf, at, index),
        *_deeper(document, figures, at), *_other_facts(document, at), *_lighter(document, figures, at),
    ]  # fmt: skip
    helps: list[tuple[tuple[int, float], Help]] = []
    for idea in ideas:
        tried = _with(document, shelf, idea, near, index)
        after = tried.force.value if tried else None
        if tried is None or after is None or tried.jaws.value is None:
            continue
        settles = not after.stopped
        worse = any(n.level == "stop" for n in tried.jaws.value.notes)
        lifts = after.limit.speed_cap_rpm > force.limit.speed_cap_rpm * 1.005
        is_fix = force.stopped and settles
        if worse or not (is_fix or (lifts and (settles or force.stopped) and not after.grip.overloaded)):
            continue
        outcome = Sentence("cap {n}", n=Figure(after.limit.speed_cap_rpm, "rpm", "down"))
        # What settles comes first, in the order of the ideas; then what lifts the cap most.
        rank = (0, len(helps)) if is_fix else (1, -after.limit.speed_cap_rpm)
        helps.append((rank, Help(idea.label, idea.path, idea.value, outcome, settles)))
    return tuple(h for _, h in sorted(helps, key=lambda pair: pair[0])[:MOST])


def jaws_helps(document: Document, shelf: Shelf, figures: Figures, index: int = 0) -> tuple[Help, ...]:
    """Changes that take away a stop of the jaws: a shallower pocket or another blank."""
    jaws, hold = figures.jaws.value, figures.hold.value
    if jaws is None or hold is None or not any(n.level == "stop" for n in jaws.notes):
        return ()
    at, near = setup_path(index), Near(document, shelf, figures)
    shallow = _floor_to(hold.usable_height_mm - document.setups[index].jaws.floor_min_mm, LENGTH_STEP_MM)
    ideas = list(_blanks(shelf, at, index))
    if 0 < shallow < hold.pocket.bore_depth_mm:
        ideas.insert(0, Idea(Sentence("Grip {d} deep", d=Figure(shallow, "mm")), f"{at}.hold.depth_mm", shallow))
    helps = []
    for idea in ideas:
        tried = _with(document, shelf, idea, near, index)
        if tried is None or tried.jaws.value is None or any(n.level == "stop" for n in tried.jaws.value.notes):
            continue
        assert tried.hold.value is not None
        outcome = Sentence("floor {f}", f=Figure(tried.hold.value.pocket.floor_mm, "mm", "down"))
        helps.append(Help(idea.label, idea.path, idea.value, outcome, True))
    return tuple(helps[:MOST])


def cuts_helps(document: Document, shelf: Shelf, figures: Figures, index: int = 0) -> tuple[Help, ...]:
    """For a cut beyond the spindle: the largest feed that it stands, or half the depth."""
    cuts = figures.cuts.value
    if cuts is None or not any(n.code == "spindle-too-weak" for n in cuts.notes):
        return ()
    at, near = setup_path(index), Near(document, shelf, figures)
    i = max(range(len(cuts.cuts)), key=lambda j: cuts.cuts[j].over)
    planned = cuts.cuts[i].planned
    assert planned.feed_mm_rev is not None and planned.depth_mm is not None
    # Both are upper guesses (force falls slower than feed): each is tried, then walked down.
    tries = (
        ("feed_mm_rev", planned.feed_mm_rev, FEED_STEP_MM, "mm/rev", "{cut}: feed {x}"),
        ("depth_mm", planned.depth_mm, 0.1, "mm", "{cut}: {x} deep per pass"),
    )
    helps = []
    for name, value, step, unit, words in tries:
        guess = _floor_to(value / cuts.cuts[i].over, step)
        while guess > 0:
            label = Sentence(words, cut=planned.name, x=Figure(guess, unit))
            idea = Idea(label, f"{at}.cuts.{i}.{name}", guess)
            tried = _with(document, shelf, idea, near, index)
            after = tried.cuts.value if tried else None
            if after is not None and after.cuts[i].over <= 1:
                outcome = Sentence("power {p}", p=Figure(after.cuts[i].result.power_kw, "kW", "up"))
                settles = not any(n.level == "stop" for n in after.notes)
                helps.append(Help(idea.label, idea.path, guess, outcome, settles))
                break
            guess = _floor_to(guess * 0.9, step)
    return tuple(helps)

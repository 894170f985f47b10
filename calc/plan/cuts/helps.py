"""What would help a cut: one that asks more than the spindle has, runs into something, or cuts the wrong metal."""

from __future__ import annotations

from collections.abc import Iterator

from calc.plan.cuts.clear import CLEAR
from calc.plan.cuts.inputs import PlannedCut
from calc.plan.cuts.solve import CUTS
from calc.plan.cuts.taken import CutShape
from calc.plan.cuts.tooling import worked_steps
from calc.plan.hold.figures import JawHold
from calc.plan.hold.solve import HOLD
from calc.plan.hold.stand import things_of
from calc.plan.outcome import Figures
from calc.plan.part.solve import PART
from calc.plan.sides.solve import OTHER, SIDES
from calc.plan.stop import Help
from calc.plan.trying import MOST, Idea, floor_to, mended, with_idea
from calc.plan.view import View
from calc.quantities import Figure, Sentence

FEED_STEP_MM = 0.01
WINDOW_STEP_MM = 0.005
OVERFED = ("feed-over-corner", "finish-missed", "feed-over-breaker")
LENGTH_MM = 0.1  # what lengths are offered to


def cuts_helps(view: View) -> tuple[Help, ...]:
    """Changes that take away what stops a cut, each tried by recomputing the plan with it."""
    found = (*_other_way(view), *_clear_helps(view), *_spindle_helps(view), *_slower_fed(view))
    return tuple(sorted(found, key=lambda h: (not h.settles, h.takes_out))[:MOST])


def _stops(figures: Figures | None) -> int | None:
    """How many things stop the cuts; None without figures."""
    cuts, clear = (figures[CUTS], figures[CLEAR]) if figures else (None, None)
    if cuts is None or clear is None:
        return None
    return sum(n.level == "stop" for n in (*cuts.notes, *clear.notes))


def _clear_helps(view: View) -> Iterator[Help]:
    clear = view[CLEAR]
    if clear is None:
        return
    ideas = [
        idea
        for left in view.setup.cuts
        if any(n.level == "stop" for n in clear.by_cut.get(left.id, ()))
        or any(n.level == "stop" and str(n.text).startswith(f"{left.name}:") for n in clear.rest)
        for idea in _ideas(view, left)
    ]
    seen: set[tuple[str, object]] = set()
    for idea in ideas:
        if (idea.path, idea.value) in seen:
            continue
        seen.add((idea.path, idea.value))
        found = mended(view, idea, _stops, "nothing is in its way")
        if found is not None:
            yield found


def _ideas(view: View, cut: PlannedCut) -> Iterator[Idea]:
    """What could be changed about a cut that runs into something, or cuts the wrong metal."""
    at = f"{view.at}.cuts.{cut.id}"
    yield from _shorter(view, cut, at)
    yield from _of_the_print(view, cut, at)
    yield from _held_otherwise(view, cut)
    yield from _beside_the_centre(view, cut, at)
    if len(view.setup.cuts) > 1:
        yield Idea(Sentence("Take {cut} out", cut=cut.name), at, None, takes_out=True)


def _other_way(view: View) -> Iterator[Help]:
    """For a cut against the hand of its tool, drill or thread: the spindle or the feed the other way."""
    cuts = view[CUTS]
    for made in cuts.cuts if cuts else ():
        planned, at = made.planned, f"{view.at}.cuts.{made.id}"
        if all(n.code != "wrong-way" for n in made.notes):
            continue
        other = "M04" if planned.turns == "M03" else "M03"
        ideas = [Idea(Sentence("{cut}: in {m}", cut=made.name, m=other), f"{at}.turns", other)]
        if planned.kind not in ("face", "drill"):
            way = "chuck" if planned.feeds == "away" else "away"
            words = "{cut}: fed toward the chuck" if way == "chuck" else "{cut}: fed away from the chuck"
            ideas.append(Idea(Sentence(words, cut=made.name), f"{at}.feeds", way))
        yield from (h for idea in ideas if (h := mended(view, idea, _stops, "it winds rightly")) is not None)


def _slower_fed(view: View) -> Iterator[Help]:
    """For a feed that its corner or the print's finish does not stand: the most that its window has."""
    cuts = view[CUTS]
    for made in cuts.cuts if cuts else ():
        window = made.consulted.window
        if window is None or all(n.code not in OVERFED for n in made.notes):
            continue
        feed = floor_to(window.feed_max_mm_rev, WINDOW_STEP_MM)
        label = Sentence("{cut}: feed {x}", cut=made.name, x=Figure(feed, "mm/rev", "down"))
        found = mended(view, Idea(label, f"{view.at}.cuts.{made.id}.feed_mm_rev", feed), _stops, "its corner stands it")
        if found is not None:
            yield found


def _shape(view: View, cut: PlannedCut) -> CutShape | None:
    clear = view[CLEAR]
    near = clear.nearest.get(cut.id) if clear else None
    return near.cut if near is not None else None


def _room(view: View) -> float | None:
    """How far from the finished face a tool may go before the jaws [mm]."""
    hold = view[HOLD]
    if hold is None:
        return None
    return min(z for z, _ in things_of(hold).jaw) - view.document.in_force.clearance_mm


def _shorter(view: View, cut: PlannedCut, at: str) -> Iterator[Idea]:
    room, shape = _room(view), _shape(view, cut)
    if room is None or shape is None or cut.kind not in ("turn", "bore", "drill", "thread"):
        return
    long = floor_to(room - cut.start_mm, LENGTH_MM)
    if 0 < long < shape.length:
        label = Sentence("{cut}: {x} long", cut=cut.name, x=Figure(long, "mm", "down"))
        yield Idea(label, f"{at}.length_mm", long)


def _of_the_print(view: View, cut: PlannedCut, at: str) -> Iterator[Idea]:
    """The step's own end and size, and what really stands before the cut."""
    part, sides, clear, shape = view[PART], view[SIDES], view[CLEAR], _shape(view, cut)
    if part is None or sides is None or clear is None or shape is None:
        return
    worked = OTHER[sides.held_end(view.index)]
    for span in worked_steps(part, worked, inside=cut.inside):
        d = span.step.diameter_mm or 0.0
        if span.start < shape.end and span.end > shape.start and cut.kind in ("turn", "bore"):
            long = round(span.end - cut.start_mm, 3)
            if 0 < long < shape.length:
                label = Sentence("{cut}: to the end of {step}", cut=cut.name, step=span.step.name)
                yield Idea(label, f"{at}.length_mm", long)
            if abs(d - shape.after) > 1e-6:
                label = Sentence("{cut}: to Ø{d}", cut=cut.name, d=Figure(d, "mm", exact=True))
                yield Idea(label, f"{at}.to_diameter_mm", d)
    before = clear.meets.get(cut.id)
    if before is not None and cut.kind in ("turn", "bore", "face"):
        label = Sentence("{cut}: from Ø{d}", cut=cut.name, d=Figure(before, "mm", "up"))
        yield Idea(label, f"{at}.from_diameter_mm", round(before, 3))
    if cut.kind == "face":
        hole = 2 * min((r for r in clear.left_from if r * 2 < (cut.to_diameter_mm or 0.0)), default=0.0)
        label = Sentence("{cut}: to Ø{d}", cut=cut.name, d=Figure(hole, "mm", "down"))
        yield Idea(label, f"{at}.to_diameter_mm", floor_to(hole, LENGTH_MM))


def _held_otherwise(view: View, cut: PlannedCut) -> Iterator[Idea]:
    """A grip less deep, a bar farther out, a recess behind the part."""
    hold, shape, least = view[HOLD], _shape(view, cut), view.document.in_force.clearance_mm
    if hold is None or shape is None:
        return
    past = shape.end + least - (min(z for z, _ in things_of(hold).jaw))
    if past > 0 and hold.stick_out_mm is not None:
        out = -floor_to(-(hold.stick_out_mm + past), LENGTH_MM)
        label = Sentence("Let the bar stick out {x}", x=Figure(out, "mm", "up"))
        yield Idea(label, f"{view.at}.hold.stick_out_mm", out)
    elif past > 0 and view.setup.hold.seat == "floor":
        depth = floor_to(hold.deep_mm - past, LENGTH_MM)
        if depth > 0:
            yield Idea(Sentence("Grip {d} deep", d=Figure(depth, "mm", "down")), f"{view.at}.hold.depth_mm", depth)
    if cut.inside and isinstance(hold, JawHold) and hold.side == "od" and view.setup.hold.seat == "floor":
        deep = -floor_to(-max(2 * least + 1.0, shape.end - hold.length_mm + 2 * least), 0.5)
        label = Sentence("Bore a recess {x} deep behind the part", x=Figure(deep, "mm", "up"))
        yield Idea(label, f"{view.jaws_at}.jaws.recess_mm", deep)


def _beside_the_centre(view: View, cut: PlannedCut, at: str) -> Iterator[Idea]:
    """A face that ends outside the live centre, or no centre."""
    clear, least = view[CLEAR], view.document.in_force.clearance_mm
    near = clear.nearest.get(cut.id) if clear else None
    if near is None or near.distance_mm >= least or not view.setup.hold.live_centre:
        return
    if cut.kind == "face":
        ends = -floor_to(-2 * (near.other[1] + least), LENGTH_MM)
        yield Idea(Sentence("{cut}: to Ø{d}", cut=cut.name, d=Figure(ends, "mm", "up")), f"{at}.to_diameter_mm", ends)
    yield Idea(Sentence("Without the live centre"), f"{view.at}.hold.live_centre", False)


def _spindle_helps(view: View) -> tuple[Help, ...]:
    """For a cut beyond the spindle: the largest feed that it stands, or half the depth."""
    cuts = view[CUTS]
    if cuts is None or not any(n.code == "spindle-too-weak" for n in cuts.notes):
        return ()
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
        guess = floor_to(value / cuts.cuts[i].over, step)
        while guess > 0:
            label = Sentence(words, cut=planned.name, x=Figure(guess, unit))
            idea = Idea(label, f"{view.at}.cuts.{planned.id}.{name}", guess)
            tried = with_idea(view, idea)
            after = tried[CUTS] if tried else None
            if after is not None and after.cuts[i].over <= 1:
                outcome = Sentence("power {p}", p=Figure(after.cuts[i].result.power_kw, "kW", "up"))
                helps.append(idea.help(outcome, settles=_stops(tried) == 0))
                break
            guess = floor_to(guess * 0.9, step)
    return tuple(helps)

"""What would take away what stops Hold."""

from __future__ import annotations

from collections.abc import Iterator

from calc.plan.cuts.clear import GRIPPED
from calc.plan.hold.figures import HoldFigures, JawHold
from calc.plan.hold.judged import least_held_mm
from calc.plan.hold.solve import HOLD
from calc.plan.outcome import Figures
from calc.plan.sides.solve import SIDES
from calc.plan.stop import Help
from calc.plan.trying import LENGTH_STEP_MM, MOST, Idea, floor_to, mended
from calc.plan.view import View
from calc.quantities import Figure, Sentence

DEEPER_STEPS = (0.4, 0.5, 0.6, 0.75)  # shares of the part's length that are tried as a deeper grip


def _stops(figures: Figures | None) -> int | None:
    """How many things stop the hold; None without figures."""
    hold = figures[HOLD] if figures else None
    if figures is None or hold is None:
        return None
    return sum(n.level == "stop" for n in (*hold.notes, *(figures[GRIPPED] or ())))


def hold_helps(view: View) -> tuple[Help, ...]:
    """Changes that take away a stop of the hold, each tried by recomputing the plan with it."""
    hold = view[HOLD]
    if hold is None or not _stops(view.figures):
        return ()
    found = [one for idea in _ideas(view, hold) if (one := mended(view, idea, _stops, "held")) is not None]
    return tuple(sorted(found, key=lambda h: not h.settles)[:MOST])


def _ideas(view: View, hold: HoldFigures) -> Iterator[Idea]:
    setup, at = view.setup, view.at
    codes = {n.code for n in (*hold.notes, *(view[GRIPPED] or ()))}
    if "grip-not-made" in codes:
        yield from _other_grips(view, hold)
    if codes & {"too-slender", "held-by-its-end"}:
        if hold.stick_out_mm is not None and setup.hold.stick_out_mm is not None:
            yield Idea(Sentence("Let the bar stick out what the part asks"), f"{at}.hold.stick_out_mm", None)
        if not setup.hold.live_centre:
            yield Idea(Sentence("Support it with a live centre"), f"{at}.hold.live_centre", True)
        for wanted in (least_held_mm(hold) + hold.grip.offset_mm, *(share * hold.length_mm for share in DEEPER_STEPS)):
            deep = -floor_to(-wanted, LENGTH_STEP_MM)
            if hold.stick_out_mm is None and isinstance(hold, JawHold) and deep > hold.pocket.bore_depth_mm:
                yield Idea(Sentence("Grip {d} deep", d=Figure(deep, "mm")), f"{at}.hold.depth_mm", deep)
    if "no-centre-hole" in codes:
        yield Idea(Sentence("Without the live centre"), f"{at}.hold.live_centre", False)
    if "recess-too-deep" in codes and isinstance(hold, JawHold):
        most = floor_to(hold.pocket.floor_mm - setup.jaws.floor_min_mm, LENGTH_STEP_MM)
        if most > 0:
            label = Sentence("Bore the recess {x} deep", x=Figure(most, "mm", "down"))
            yield Idea(label, f"{view.jaws_at}.jaws.recess_mm", most)
    if codes & {"recess-too-deep", "no-floor-left"}:
        yield Idea(Sentence("Without a recess"), f"{view.jaws_at}.jaws.recess_mm", None)
        yield Idea(Sentence("Seat it on its shoulder, on the jaw face"), f"{at}.hold.seat", "face")
        yield from _other_grips(view, hold)


def _other_grips(view: View, hold: HoldFigures) -> Iterator[Idea]:
    """Whatever else of the part is fit to be gripped on this side."""
    sides = view[SIDES]
    for grip in sides.grips(view.index) if sides else ():
        if grip.fit and grip.key != hold.grip.key:
            where = "inside " if grip.side == "id" else ""
            yield Idea(Sentence("Grip {what}", what=f"{where}{grip.name}"), f"{view.at}.hold.grip", grip.key)

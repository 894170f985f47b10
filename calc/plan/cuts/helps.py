"""What would help a cut that asks more than the spindle has."""

from __future__ import annotations

from calc.plan.cuts.solve import CUTS
from calc.plan.stop import Help
from calc.plan.trying import Idea, floor_to, with_idea
from calc.plan.view import View
from calc.quantities import Figure, Sentence

FEED_STEP_MM = 0.01


def cuts_helps(view: View) -> tuple[Help, ...]:
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
                settles = not any(n.level == "stop" for n in after.notes)
                helps.append(idea.help(outcome, settles=settles))
                break
            guess = floor_to(guess * 0.9, step)
    return tuple(helps)

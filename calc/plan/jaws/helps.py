"""What would take away what stops Jaws."""

from __future__ import annotations

from collections.abc import Iterator

from calc.plan.hold.solve import JAW_HOLD
from calc.plan.jaws.solve import JAWS
from calc.plan.outcome import Figures
from calc.plan.stop import Help
from calc.plan.trying import LENGTH_STEP_MM, MOST, Idea, floor_to, other_blanks, with_idea
from calc.plan.view import View
from calc.quantities import Figure, Sentence

POSITIONS = (0.4, 0.3, 0.2)  # in the stroke, 0 open


def _farther_in(view: View) -> Iterator[Idea]:
    """More travel left to close, where the jaws do not reach what they are bored against."""
    jaws, position = view[JAWS], view.setup.jaws.position
    if jaws is None or not any(n.code == "nothing-to-close-on" for n in jaws.notes):
        return
    for share in POSITIONS:
        if share < position:
            label = Sentence("Grip at {p} of the stroke", p=Figure(100 * share, "%", places=(0, 0)))
            yield Idea(label, f"{view.jaws_at}.jaws.position", share)


def jaws_helps(view: View) -> tuple[Help, ...]:
    """Changes that take away a stop of the jaws: a shallower pocket or another blank."""
    jaws, hold = view[JAWS], view[JAW_HOLD]
    if jaws is None or hold is None or not any(n.level == "stop" for n in jaws.notes):
        return ()
    shallow = floor_to(hold.usable_height_mm - hold.mouth_mm - view.setup.jaws.floor_min_mm, LENGTH_STEP_MM)
    trials: list[tuple[Idea, Figures | None]] = list(other_blanks(view))
    if 0 < shallow < hold.pocket.bore_depth_mm:
        trials.insert(
            0, (Idea(Sentence("Grip {d} deep", d=Figure(shallow, "mm")), f"{view.at}.hold.depth_mm", shallow), None)
        )
    trials = [*((idea, None) for idea in _farther_in(view)), *trials]
    helps = []
    for idea, known in trials:
        tried = known or with_idea(view, idea)
        bored, held = (tried[JAWS], tried[JAW_HOLD]) if tried else (None, None)
        if bored is None or held is None or any(n.level == "stop" for n in bored.notes):
            continue
        outcome = Sentence("floor {f}", f=Figure(held.pocket.floor_mm, "mm", "down"))
        helps.append(idea.help(outcome, settles=True))
    return tuple(helps[:MOST])

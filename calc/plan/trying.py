"""Single changes, each tried by recomputing the plan with that one change: what the helps of the stops share."""

from __future__ import annotations

import math
from collections.abc import Callable, Iterator
from dataclasses import dataclass
from typing import Any

from calc.errors import CalcError
from calc.plan.comparing import blanks_tried
from calc.plan.outcome import Figures
from calc.plan.paths import replaced, without
from calc.plan.stop import Help
from calc.plan.view import View
from calc.quantities import Sentence

LENGTH_STEP_MM = 0.5
MOST = 5


@dataclass(frozen=True)
class Idea:
    """A change to try: a fact of the document, a blank from the shelf, or a cut that is taken out."""

    label: Sentence
    path: str
    value: Any
    takes_out: bool = False

    def help(self, outcome: Sentence, *, settles: bool) -> Help:
        """The idea with what it would do."""
        return Help(self.label, self.path, self.value, outcome, settles, self.takes_out)


def floor_to(value: float, step: float) -> float:
    """The value rounded down to a step."""
    return round(math.floor(value / step + 1e-9) * step, 9)


def with_idea(view: View, idea: Idea) -> Figures | None:
    """The figures with one change made; None where the change itself is refused."""
    try:
        changed = (
            without(view.document, idea.path) if idea.takes_out else replaced(view.document, idea.path, idea.value)
        )
    except CalcError:
        return None
    return view.tried(changed)


def mended(view: View, idea: Idea, stops: Callable[[Figures | None], int | None], done: str) -> Help | None:
    """The idea as a help where fewer things stop with it than without it, None elsewhere; `done`: said where none is
    left. `stops` counts them, None without figures.
    """
    before, after = stops(view.figures), stops(with_idea(view, idea))
    if before is None or after is None or after >= before:
        return None
    said = Sentence("{d}", d=done) if after == 0 else Sentence("{n} left to mend", n=str(after))
    return idea.help(said, settles=after == 0)


def other_blanks(view: View) -> Iterator[tuple[Idea, Figures]]:
    """The blanks that were tried, as ideas with their figures."""
    for one in view.once(blanks_tried):
        if not one.chosen:
            yield Idea(Sentence("{name}", name=one.blank.name), f"{view.jaws_at}.jaw_blank", one.blank.key), one.figures

"""The grip gauge, at rest."""

from __future__ import annotations

from dataclasses import dataclass
from typing import Annotated

from calc.card.ask import Ask, Told
from calc.fields import Checked, Quantity
from calc.quantities import Figure, Sentence
from calc.working import Working, derived

GRIP = derived("Readings at the machine")
FAR_TIMES = 2.0
LESS = 0.95  # of what is predicted: below it the chuck wants grease or a look


@dataclass(frozen=True)
class GripEntry(Checked):
    """What the grip gauge shows."""

    grip_n: Annotated[float, Quantity("Grip, all jaws", "N", "At rest, at the production pressure", above=0, high=1e7)]


@dataclass(frozen=True, kw_only=True)
class GripAsk(Ask):
    """The grip at rest against what the plan counts with, and against what its cuts need."""

    kind = "grip"
    title = "Grip gauge"
    entry = GripEntry
    instrument = "gauge"
    predicted_n: float
    needed_n: float  # at rest, below which a cut is not held at its speed
    wanted_n: float  # at rest, with which every cut has the safety wanted
    condition: float

    @property
    def expected(self) -> Sentence:
        """What the plan counts with."""
        return Sentence("the plan counts with {f}", f=Figure(self.predicted_n, "N", "down"))

    def told(self, entered: GripEntry) -> Told:
        """The chuck's condition by this reading, and whether its cuts are held."""
        w = Working()
        ratio = w.step("q", "Of what is counted", "F_m/F_c", "", GRIP, F_m=entered.grip_n, F_c=self.predicted_n)
        factor = w.step("k_c", "Condition by this reading", "k*q", "", GRIP, k=self.condition, q=ratio)
        held = entered.grip_n >= self.needed_n * (1 - 1e-9)
        safe = entered.grip_n >= self.wanted_n * (1 - 1e-9)
        words = []
        if not held:
            need = Figure(self.needed_n, "N", "up")
            words.append(Sentence("It takes {n} at rest to hold every cut: do not cut. Grease, measure again.", n=need))
        elif not safe:
            want = Figure(self.wanted_n, "N", "up")
            words.append(Sentence("Held, without the safety wanted: that takes {n}. Grease, measure again.", n=want))
        elif ratio < LESS:
            words.append(Sentence("Less than the plan counts with: grease the chuck, measure again."))
        else:
            words.append(Sentence("As good as the plan counts with."))
        words.append(Sentence("Keep it as a gauge run of this chuck, and every plan counts with it."))
        return Told(
            "Condition of the chuck",
            Figure(factor, "", "down", (2, 2)),
            tuple(words),
            level="stop" if not held else "do" if ratio < LESS or not safe else "good",
            measured=entered.grip_n,
            predicted=self.predicted_n,
            done=held,
            steps=tuple(w.steps),
        )

    def far(self, entered: GripEntry) -> Sentence | None:
        """Twice as much, or half."""
        if self.predicted_n / FAR_TIMES <= entered.grip_n <= self.predicted_n * FAR_TIMES:
            return None
        words = "The plan counts with {f}, the sum over all jaws. Is it one jaw's, or another unit?"
        return Sentence(words, f=Figure(self.predicted_n, "N", "down"))

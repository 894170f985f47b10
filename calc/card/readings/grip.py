"""The grip gauge, at rest."""

from __future__ import annotations

from collections.abc import Mapping
from dataclasses import dataclass
from typing import Annotated, Any

from calc.card.ask import Ask, Gauged, Told
from calc.chuck.book import ChuckForce
from calc.chuck.calibration import condition_of_fit
from calc.errors import CalcError, FieldProblem
from calc.fields import Checked, Quantity
from calc.quantities import Figure, Sentence
from calc.terms import Side
from calc.working import Working, derived

GRIP = derived("Readings at the machine")
FAR_TIMES = 2.0
LESS = 0.95  # of what is predicted: below it the chuck wants grease or a look
POSSIBLE = 0.05, 1.2  # of the book: outside, pressure, height or gauge is wrong
MOST = 1.0  # one reading is not trusted beyond the book: what a fit of many may say, it may not


@dataclass(frozen=True)
class GripEntry(Checked):
    """What the grip gauge shows, and the pressure it shows it at."""

    grip_n: Annotated[float, Quantity("Grip, all jaws", "N", "At rest, the sum over all jaws", above=0, high=1e7)]
    pressure_bar: Annotated[
        float | None, Quantity("At a pressure of", "bar", "Where it is not the production pressure", above=0, high=400)
    ] = None


@dataclass(frozen=True, kw_only=True)
class GripAsk(Ask):
    """The grip at rest against what the plan counts with, and against what its cuts need; the chuck's condition.

    `predicted_n`, `needed_n` (below which a cut is not held at its speed) and `wanted_n` (with which every cut has the
    safety wanted) are of all jaws, at rest, at `pressure_bar` and `height_mm`.
    """

    kind = "grip"
    title = "Grip gauge"
    entry = GripEntry
    instrument = "gauge"
    predicted_n: float
    needed_n: float
    wanted_n: float
    pressure_bar: float
    height_mm: float
    chuck: ChuckForce
    side: Side
    jaw: tuple[float, float] | None = None  # mass [kg] and centre [mm] of a top jaw

    @property
    def defaults(self) -> Mapping[str, Any]:
        """The production pressure."""
        return {"pressure_bar": self.pressure_bar}

    @property
    def expected(self) -> Sentence:
        """What the plan counts with."""
        words = "the plan counts with {f} at {p}"
        return Sentence(words, f=Figure(self.predicted_n, "N", "down"), p=Figure(self.pressure_bar, "bar"))

    def _book(self, pressure_bar: float) -> float:
        """Grip [N] by the book at a pressure and at this height. Raises FieldProblem off the chart."""
        try:
            return 1.0 / condition_of_fit(1.0, pressure_bar, self.height_mm, self.chuck)
        except CalcError as error:
            raise FieldProblem("pressure_bar", error.errors[0].sentence) from error

    def told(self, entered: GripEntry) -> Told:
        """The chuck's condition by this reading, and whether its cuts are held at the production pressure."""
        w, pressure = Working(), entered.pressure_bar or self.pressure_bar
        book = self._book(pressure)
        factor = w.step("k_c", "Condition by this reading", "F_m/F_b", "", GRIP, F_m=entered.grip_n, F_b=book)
        grip = entered.grip_n
        if pressure != self.pressure_bar:
            there = self._book(self.pressure_bar)
            grip = w.step("F", "Grip at the production pressure", "k_c*F_p", "N", GRIP, k_c=factor, F_p=there)
        ratio = w.step("q", "Of what is counted", "F/F_c", "", GRIP, F=grip, F_c=self.predicted_n)
        held = grip >= self.needed_n * (1 - 1e-9)
        safe = grip >= self.wanted_n * (1 - 1e-9)
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
        gauged = None
        if POSSIBLE[0] <= factor <= POSSIBLE[1]:
            counts = w.step("k", "What counts of it", "min(k_1, k_c)", "", GRIP, k_1=MOST, k_c=factor)
            text = "Plans that go by this chuck's latest gauge run count {k} of the book's grip from then on."
            words.append(Sentence(text, k=Figure(counts, "", "down", (2, 2))))
            gauged = Gauged(counts, entered.grip_n, pressure, self.height_mm, self.side, self.jaw)
        else:
            text = "Counted in no plan: outside {a} to {b} of the book, pressure, place or gauge is wrong."
            low, high = (Figure(x, "", places=(2, 2)) for x in POSSIBLE)
            words.append(Sentence(text, a=low, b=high))
        return Told(
            "Condition of the chuck",
            Figure(factor, "", "down", (2, 2)),
            tuple(words),
            level="stop" if not held else "do" if ratio < LESS or not safe else "good",
            measured=entered.grip_n,
            predicted=self.predicted_n * book / self._book(self.pressure_bar),
            done=held,
            steps=tuple(w.steps),
            gauged=gauged,
        )

    def far(self, entered: GripEntry) -> Sentence | None:
        """Twice as much, or half."""
        book = self._book(entered.pressure_bar or self.pressure_bar)
        predicted = self.predicted_n * book / self._book(self.pressure_bar)
        if predicted / FAR_TIMES <= entered.grip_n <= predicted * FAR_TIMES:
            return None
        words = "The plan counts with {f}, the sum over all jaws. Is it one jaw's, or another unit?"
        return Sentence(words, f=Figure(predicted, "N", "down"))

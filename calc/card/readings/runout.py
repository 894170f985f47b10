"""The indicator on the held part, and the height of a blade's edge."""

from __future__ import annotations

from dataclasses import dataclass
from typing import Annotated

from calc.card.ask import Ask, Told
from calc.fields import Checked, Quantity
from calc.quantities import Figure, Sentence
from calc.working import Working, derived

RUNOUT = derived("Readings at the machine")
FAR_MM = 0.5
HEIGHT_MM = 0.1  # typical: a blade further off the axis rubs, or leaves a pip
PLACES = (3, 4)


@dataclass(frozen=True)
class RunoutEntry(Checked):
    """What the indicator swings in a turn."""

    reading_mm: Annotated[
        float, Quantity("The indicator swings", "mm", "From least to most in one slow turn", 0, 20, places=PLACES)
    ]


@dataclass(frozen=True, kw_only=True)
class RunoutAsk(Ask):
    """How far the held part is off the axis, and whether that may be."""

    kind = "runout"
    title = "Indicator on the held part"
    entry = RunoutEntry
    instrument = "indicator"
    allowed_mm: float  # of the reading
    why: str  # where that comes from

    @property
    def expected(self) -> Sentence:
        """What may be."""
        return Sentence("up to {x}: {why}", x=Figure(self.allowed_mm, "mm", "down", PLACES), why=self.why)

    def told(self, entered: RunoutEntry) -> Told:
        """Half of it is how far the axis is off."""
        w = Working()
        off = w.step("e", "Off the axis", "R/2", "mm", RUNOUT, R=entered.reading_mm)
        good = entered.reading_mm <= self.allowed_mm * (1 + 1e-9)
        words = Sentence("It runs true enough: go on.")
        if not good:
            words = Sentence(
                "Take it out, wipe part and jaws, turn it by a third, clamp again. A high spot that stays at one jaw "
                "is the jaws': cut them again. One that goes with the part is the part's."
            )
        return Told(
            "Off the axis by",
            Figure(off, "mm", "up", PLACES),
            (words,),
            level="good" if good else "do",
            measured=entered.reading_mm,
            predicted=self.allowed_mm,
            done=good,
            steps=tuple(w.steps),
        )

    def far(self, entered: RunoutEntry) -> Sentence | None:
        """So much that nothing sits right."""
        if entered.reading_mm <= FAR_MM:
            return None
        return Sentence("That is more than {x}. Does the part sit on its seat? Is that right?", x=Figure(FAR_MM, "mm"))


@dataclass(frozen=True)
class HeightEntry(Checked):
    """How high the edge stands."""

    height_mm: Annotated[float, Quantity("Above the axis", "mm", "Below it with a minus", -5, 5, places=PLACES)]


@dataclass(frozen=True, kw_only=True)
class HeightAsk(Ask):
    """The height of a blade's or groover's edge against the axis."""

    kind = "height"
    title = "Height of the blade's edge"
    entry = HeightEntry

    @property
    def expected(self) -> Sentence:
        """On the axis."""
        return Sentence("on the axis, within {x}", x=Figure(HEIGHT_MM, "mm"))

    def told(self, entered: HeightEntry) -> Told:
        """What it leaves, and whether it is brought to height."""
        w = Working()
        pip = w.step("d", "Pip that it leaves", "2*abs(h)", "mm", RUNOUT, h=entered.height_mm)
        good = abs(entered.height_mm) <= HEIGHT_MM + 1e-9
        if good:
            words = Sentence("Near enough.")
        elif entered.height_mm > 0:
            words = Sentence("Too high: below its edge it rubs, and the blade breaks near the middle. Bring it down.")
        else:
            words = Sentence("Too low: it leaves a pip and may climb under the part. Bring it up.")
        return Told(
            "It leaves a pip of Ø",
            Figure(pip, "mm", "up"),
            (words,),
            level="good" if good else "do",
            measured=entered.height_mm,
            predicted=0.0,
            done=good,
            steps=tuple(w.steps),
        )

    def far(self, entered: HeightEntry) -> Sentence | None:
        """A millimetre."""
        if abs(entered.height_mm) <= 1.0:
            return None
        return Sentence("A whole millimetre off the axis? Is that right?")

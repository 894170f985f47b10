"""The refractometer."""

from __future__ import annotations

from collections.abc import Mapping
from dataclasses import dataclass
from typing import Annotated, Any

from calc.card.ask import Ask, Told
from calc.coolant.mixing import CoolantInput, coolant
from calc.fields import Checked, Quantity
from calc.quantities import Figure, Sentence

NEAR_PERCENT = 1.0  # typical: as near as a tank is kept
FAR_TIMES = 3.0


@dataclass(frozen=True)
class CoolantEntry(Checked):
    """The scale, and what is in the tank."""

    reading: Annotated[float, Quantity("Refractometer", "", "Reading on its scale", low=0, high=80)]
    factor: Annotated[float, Quantity("Factor", "", "Of the concentrate, from its data sheet", above=0, high=10)] = 1.0
    target_percent: Annotated[float, Quantity("Strength wanted", "%", "", above=0, high=50)] = 8.0
    volume_l: Annotated[float, Quantity("In the tank", "l", "Coolant there is", above=0, high=100_000)] = 200.0


@dataclass(frozen=True, kw_only=True)
class CoolantAsk(Ask):
    """How strong the coolant is, and the litres that bring it right. `before`: what counted last on this machine."""

    kind = "coolant"
    title = "Coolant by the refractometer"
    entry = CoolantEntry
    instrument = "coolant"
    before: tuple[tuple[str, float], ...] = ()

    @property
    def defaults(self) -> Mapping[str, Any]:
        """Factor, strength and tank as they were last."""
        return dict(self.before)

    def told(self, entered: CoolantEntry) -> Told:
        """Litres of concentrate or water."""
        found = coolant(CoolantInput(entered.reading, entered.factor, entered.target_percent, entered.volume_l))
        answer: Figure | Sentence
        words = [Sentence("It is at {c}.", c=Figure(found.percent, "%", places=(1, 1)))]
        target = entered.target_percent
        if abs(found.percent - target) <= NEAR_PERCENT:
            answer, label = Sentence("as it is"), "Leave it"
        elif found.percent < target:
            label, answer = "Add concentrate", Figure(found.add_concentrate_l, "l", "up")
            words.append(Sentence("Mix it into water first: concentrate into water, never water into concentrate."))
        else:
            label, answer = "Add water", Figure(found.add_water_l, "l", "up")
            words.append(Sentence("No room: drain {d}, fill up with water.", d=Figure(found.drain_l, "l", "up")))
        return Told(
            label,
            answer,
            tuple(words),
            level="good" if label == "Leave it" else "do",
            measured=found.percent,
            predicted=target,
            steps=found.working,
        )

    def far(self, entered: CoolantEntry) -> Sentence | None:
        """Three times as strong as wanted, or a third."""
        strong = entered.reading * entered.factor
        if entered.target_percent / FAR_TIMES <= strong <= FAR_TIMES * entered.target_percent:
            return None
        words = "That is {c}. Is the scale read right, and the factor this concentrate's?"
        return Sentence(words, c=Figure(strong, "%", places=(1, 1)))

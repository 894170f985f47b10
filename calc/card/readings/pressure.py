"""The gauge at production pressure."""

from __future__ import annotations

from dataclasses import dataclass
from typing import Annotated

from calc import terms
from calc.card.ask import Ask, Told, Trial
from calc.fields import Checked
from calc.quantities import Figure, Sentence

SAME_BAR = 0.2  # typical: as near as a gauge is read
FAR_SHARE = 0.25  # of what is planned


@dataclass(frozen=True)
class PressureEntry(Checked):
    """What the gauge shows."""

    pressure_bar: Annotated[float, terms.PRESSURE.called("The gauge shows", "At rest, jaws closed on the piece")]


@dataclass(frozen=True, kw_only=True)
class PressureAsk(Ask):
    """The pressure that is set, against the plan's; one that differs has the plan computed with it."""

    kind = "pressure"
    title = "Gauge pressure"
    entry = PressureEntry
    planned_bar: float
    path: str

    @property
    def expected(self) -> Sentence:
        """The plan's."""
        return Sentence("planned {p}", p=Figure(self.planned_bar, "bar"))

    def told(self, entered: PressureEntry) -> Told:
        """Whether it is the plan's."""
        p, planned = entered.pressure_bar, self.planned_bar
        same = abs(p - planned) <= SAME_BAR + 1e-9
        words = Sentence("As planned.") if same else Sentence("The plan is computed with it:")
        return Told(
            "Off the plan by",
            Figure(p - planned, "bar"),
            (words,),
            level="good" if same else "do",
            measured=p,
            predicted=planned,
            trial=None if same else Trial(self.path, p),
        )

    def far(self, entered: PressureEntry) -> Sentence | None:
        """More than a quarter off."""
        if abs(entered.pressure_bar - self.planned_bar) <= FAR_SHARE * self.planned_bar:
            return None
        return Sentence("The plan has {p}. Is the gauge read right, in its unit?", p=Figure(self.planned_bar, "bar"))

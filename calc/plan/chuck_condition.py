"""The chuck's condition: which share of the charted grip is counted, and why."""

from __future__ import annotations

from dataclasses import dataclass
from datetime import date
from typing import Literal

from calc.chuck.calibration import Calibration
from calc.plan.force.inputs import Force
from calc.plan.outcome import Asked, Missing
from calc.rules import Rules
from calc.working import Source, typical

WEEK_DAYS = 7
Grease = Literal["unknown", "week", "today"]
SAID: dict[Grease, str] = {
    "unknown": "grease unknown or older",
    "week": "greased within a week",
    "today": "greased today",
}


@dataclass(frozen=True)
class Known:
    """The house rules, and what is known of a chuck on a day: its latest gauge run, when it was greased, which jaw set
    is on it.
    """

    rules: Rules
    calibration: Calibration | None = None
    greased_on: str | None = None
    today: str = ""
    jaw_set: str | None = None

    @property
    def grease(self) -> Grease:
        """How long ago it was greased, as the house rules count it."""
        if self.greased_on is None or not self.today:
            return "unknown"
        days = (date.fromisoformat(self.today) - date.fromisoformat(self.greased_on)).days
        return "today" if days == 0 else "week" if 0 < days <= WEEK_DAYS else "unknown"

    @property
    def counting(self) -> Calibration | None:
        """The gauge run, while it counts."""
        run = self.calibration
        return run if run is not None and self.today and self.today <= run.counts_until(self.rules.gauge_days) else None


def known_of(asked: Asked) -> Known:
    """What is known of a set-up's chuck. Only where the best that is known is asked for does a plan rest on the day."""
    if asked.setup.force.condition != "auto":
        return Known(asked.rules)
    taken = asked.taken
    on = taken.jaw_set.key if taken.jaw_set else None
    return Known(asked.rules, taken.calibration, taken.greased_on, asked.shelf.today, on)


@dataclass(frozen=True)
class Condition:
    """The factor in use, where it comes from, and the transmission measured with these jaws (1 unless measured)."""

    factor: float
    source: Source
    transmission: float = 1.0
    is_expired: bool = False


def condition_of(at: str, force: Force, known: Known) -> Condition:
    """The condition in use. Raises Missing."""
    rules = known.rules
    if force.condition == "auto":
        run = known.counting
        if run is not None:
            said = f"gauge run of {run.on}, counts until {run.counts_until(rules.gauge_days)}"
            return Condition(run.condition, Source("measured", said), run.transmission_for(known.jaw_set))
        return Condition(
            _greased(known.grease, rules), typical(SAID[known.grease]), is_expired=known.calibration is not None
        )
    if force.condition != "measured":
        return Condition(_greased(force.condition, rules), typical(SAID[force.condition]))
    missing = []
    if force.condition_measured is None:
        missing.append((f"{at}.force.condition_measured", "Measured factor"))
    if force.condition_date is None:
        missing.append((f"{at}.force.condition_date", "Measured on"))
    if missing or force.condition_measured is None:
        raise Missing(*missing)
    return Condition(force.condition_measured, Source("measured", f"measured {force.condition_date}"))


def _greased(grease: Grease, rules: Rules) -> float:
    return {"unknown": rules.condition_unknown, "week": rules.condition_week, "today": rules.condition_today}[grease]

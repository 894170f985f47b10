"""How hard it is held and what is asked of it."""

from __future__ import annotations

from collections.abc import Iterator
from dataclasses import dataclass
from datetime import date
from typing import Annotated, Literal

from calc import terms
from calc.errors import FieldError
from calc.fields import Checked, Choice, Flag, Quantity, Text
from calc.quantities import Sentence

CONDITION = Choice(
    "Chuck condition",
    {
        "auto": "the best that is known",
        "unknown": "longer or unknown",
        "week": "greased within a week",
        "today": "greased today",
        "measured": "measured with a grip gauge",
    },
    "Without grease it can lose half its force",
)


@dataclass(frozen=True)
class Force(Checked):
    """How hard it is held and what is asked of it."""

    pressure_bar: Annotated[float | None, terms.PRESSURE] = None
    condition: Annotated[Literal["auto", "unknown", "week", "today", "measured"], CONDITION] = "unknown"
    condition_measured: Annotated[
        float | None, Quantity("Measured factor", "", "Measured ÷ charted grip", above=0.05, high=1.2)
    ] = None
    condition_date: Annotated[str | None, Text("Measured on", "Such as 2026-11-20", most=10)] = None
    user_max_rpm: Annotated[float | None, terms.OWN_LIMIT.called("Own speed limit", "Empty: none")] = None
    wanted_rpm: Annotated[
        float | None, Quantity("Wanted speed", "rpm", "Empty: the program's top speed", above=0, high=20_000)
    ] = None
    offset_mm: Annotated[
        float, terms.OUT_OF_BALANCE.called(help="The part's centre of mass off the axis", places=(3, 4))
    ] = 0.0
    pin_pressure: Annotated[bool, Flag("Pressure pinned", "Settling the set-up leaves it as it is")] = False
    brake_s: Annotated[
        float | None,
        Quantity("Spindle stops in", "s", "From the program's top speed; empty: not counted", low=0.1, high=600),
    ] = None

    def contradictions(self) -> Iterator[FieldError]:
        if self.condition_date is not None and not _is_date(self.condition_date):
            yield FieldError("condition_date", Sentence("Write the date as year-month-day, such as 2026-11-20."))


def _is_date(text: str) -> bool:
    try:
        date.fromisoformat(text)
    except ValueError:
        return False
    return len(text) == 10

"""When the run begins, what stays on the turret, and how a part's sides follow one another."""

from __future__ import annotations

import re
from collections.abc import Iterator
from dataclasses import dataclass
from datetime import datetime
from typing import Annotated, Literal

from calc.errors import FieldError
from calc.fields import Checked, Choice, Quantity, Text
from calc.quantities import Sentence

FOLLOW = Choice(
    "Both sides",
    {"batches": "in two batches", "pieces": "piece by piece"},
    "Where one spindle makes both: all first sides and then all second, or each piece to its end",
)
_WHEN = re.compile(r"(\d{4}-\d{2}-\d{2})(?:[ T](\d{1,2}):(\d{2}))?")


@dataclass(frozen=True)
class Route(Checked):
    """How the pieces come about in time."""

    start: Annotated[
        str | None, Text("Set-up begins", "By the shop's clock, such as 2026-12-01 06:00; empty: today", most=16)
    ] = None
    stay: Annotated[
        int,
        Quantity("Tools that stay", "", "On the turret from the run before, touched off already", 0, 60, whole=True),
    ] = 0
    follow: Annotated[Literal["batches", "pieces"], FOLLOW] = "batches"
    order: Annotated[
        str, Text("Why this order", "Where it is another than usual: the reason, for who reads it next", most=160)
    ] = ""
    seen_s: Annotated[
        float | None,
        Quantity("A piece every, seen", "s", "At the machine, with every stop in it; empty: as computed", 0.1, 864_000),
    ] = None

    def contradictions(self) -> Iterator[FieldError]:
        if self.start is not None and when(self.start) is None:
            yield FieldError("start", Sentence("Write a day and a time, such as 2026-12-01 06:00."))


def when(text: str) -> datetime | None:
    """The time on the shop's clock that a person wrote; a day alone is its midnight. None where it is no time.

    >>> when("2026-12-01 6:05"), when("2026-02-30")
    (datetime.datetime(2026, 12, 1, 6, 5), None)
    """
    match = _WHEN.fullmatch(text.strip())
    if match is None:
        return None
    try:
        day = datetime.fromisoformat(match[1])
        return day.replace(hour=int(match[2] or 0), minute=int(match[3] or 0))
    except ValueError:
        return None

"""A shop's calendar: its time zone, its week, and the days on which nobody works."""

from __future__ import annotations

import re
from collections.abc import Iterator
from dataclasses import dataclass
from datetime import date
from functools import lru_cache
from typing import Annotated
from zoneinfo import ZoneInfo

from calc.calendar.hours import Window, windows_of
from calc.errors import CalcError, FieldError, FieldProblem
from calc.fields import Checked, Group, Quantity, Text
from calc.quantities import Sentence

OFF_MOST = 400  # days off in a line
AWAY_MOST = 5000  # stretches that a calendar file brings
_DAY = r"(\d{4}-\d{2}-\d{2})"
_OFF = re.compile(rf"{_DAY}(?:\s*(?:to|\.\.)\s*{_DAY})?")


@dataclass(frozen=True)
class Away(Checked):
    """A stretch in which nobody works and nothing runs, as a calendar file brings it: seconds since 1970, UTC."""

    begins: Annotated[float, Quantity("Begins", "s", "", low=-1e11, high=1e11)]
    ends: Annotated[float, Quantity("Ends", "s", "", low=-1e11, high=1e11)]


@dataclass(frozen=True)
class Calendar(Checked):
    """When the shop works. Hours are those of the clock on its wall: where that is put on or back, a shift over the
    change is an hour shorter or longer.
    """

    zone: Annotated[str, Text("Time zone", "Of the clock on the wall, such as Europe/Berlin or UTC", most=60)] = "UTC"
    shifts: Annotated[
        str, Text("Shifts", "When people are there, such as Mon-Fri 06:00-14:00, 14:00-22:00", most=300)
    ] = "Mon-Fri 07:00-15:30"
    breaks: Annotated[
        str, Text("Breaks", "Within the shifts, nothing runs: such as Mon-Fri 09:30-09:45, 12:00-12:30", most=300)
    ] = "Mon-Fri 12:00-12:30"
    unattended: Annotated[
        str, Text("Without people", "When bar work runs on alone, such as Mon-Fri 22:00-02:00; empty: never", most=300)
    ] = ""
    off: Annotated[
        str, Text("Days off", "Days and stretches, such as 2026-12-24 to 2027-01-01; 2027-05-01", most=2000)
    ] = ""
    away: Annotated[
        tuple[Away, ...], Group("From a calendar file", "Its events, as days and hours off", most=AWAY_MOST)
    ] = ()

    def __hash__(self) -> int:
        # Months are kept by it, and a calendar file brings thousands of stretches: counted once.
        known: int | None = self.__dict__.get("_hash")
        if known is None:
            known = hash((self.zone, self.shifts, self.breaks, self.unattended, self.off, self.away))
            object.__setattr__(self, "_hash", known)
        return known

    def contradictions(self) -> Iterator[FieldError]:
        try:
            zone_of(self.zone)
        except CalcError as error:
            yield from error.errors
        for name in ("shifts", "breaks", "unattended"):
            try:
                windows_of(name, getattr(self, name))
            except CalcError as error:
                yield from error.errors
        try:
            days_off(self.off)
        except CalcError as error:
            yield from error.errors
        if not self.shifts.strip():
            yield FieldError("shifts", Sentence("A calendar without hours never ends a run. Write one shift at least."))

    @property
    def day_windows(self) -> tuple[tuple[Window, ...], tuple[Window, ...], tuple[Window, ...]]:
        """The week's shifts, breaks, and hours without people."""
        return (
            windows_of("shifts", self.shifts),
            windows_of("breaks", self.breaks),
            windows_of("unattended", self.unattended),
        )


@lru_cache(maxsize=16)
def zone_of(name: str) -> ZoneInfo:
    """The time zone of this name. Raises FieldProblem."""
    try:
        return ZoneInfo(name)
    except (KeyError, ValueError, OSError) as error:
        raise FieldProblem(
            "zone", f"“{name[:40]}” is no time zone. Write one such as Europe/Berlin, or UTC."
        ) from error


@lru_cache(maxsize=16)
def days_off(text: str) -> tuple[tuple[date, date], ...]:
    """First and last day of each stretch off that a line tells. Raises FieldProblem at "off".

    >>> days_off("2026-12-24 to 2027-01-01; 2027-05-01")[1]
    (datetime.date(2027, 5, 1), datetime.date(2027, 5, 1))
    """
    found = []
    for part in re.split(r"[;,\n]", text):
        if not part.strip():
            continue
        match = _OFF.fullmatch(part.strip())
        if match is None:
            raise FieldProblem(
                "off", f"Write a day such as 2027-05-01, or 2026-12-24 to 2027-01-01, not “{part.strip()[:40]}”."
            )
        try:
            first = date.fromisoformat(match[1])
            last = date.fromisoformat(match[2] or match[1])
        except ValueError as error:
            raise FieldProblem("off", f"“{part.strip()[:40]}” is no day of any year.") from error
        if last < first:
            raise FieldProblem("off", f"“{part.strip()[:40]}” ends before it begins.")
        found.append((first, last))
    if len(found) > OFF_MOST:
        raise FieldProblem("off", f"These are {len(found)} stretches; {OFF_MOST} at most.")
    return tuple(found)

"""A calendar of another program, as iCalendar text (RFC 5545): its events are days and hours off."""

from __future__ import annotations

from dataclasses import dataclass
from datetime import UTC, date, datetime, time, timedelta
from typing import Any

import icalendar
import recurring_ical_events

from calc.calendar.calendar import AWAY_MOST, Away, zone_of
from calc.calendar.working_time import YEARS_MOST
from server.foundation.problems import BadValue

FIELD = "file"
TEXT_MOST = 400_000  # letters
# An event that recurs without end is read as far as a finish is told, and a month more.
LOOKED_BACK, LOOKED_ON = timedelta(31), timedelta(YEARS_MOST * 366 + 60)
# Nobody has an hour off each hour; such an event would be thousands.
TOO_OFTEN = ("SECONDLY", "MINUTELY", "HOURLY")


@dataclass(frozen=True)
class Event:
    """A stretch off, with what its event is called."""

    name: str
    away: Away


def _instant(value: date | datetime, zone: str) -> float:
    """An event's time without a zone, and a whole day, are of the shop's own clock."""
    if not isinstance(value, datetime):
        value = datetime.combine(value, time())
    return (value if value.tzinfo else value.replace(tzinfo=zone_of(zone))).timestamp()


def _read(text: str) -> Any:
    if len(text) > TEXT_MOST:
        raise BadValue(FIELD, f"This file has {len(text):,} letters; {TEXT_MOST:,} at most. Export fewer years.")
    try:
        return icalendar.Calendar.from_ical(text)
    except (ValueError, TypeError, KeyError, IndexError, AttributeError) as error:
        words = "This is no calendar. Export it as iCalendar (.ics): its text begins with BEGIN:VCALENDAR."
        raise BadValue(FIELD, words) from error


def events_of(text: str, zone: str, today: date) -> tuple[Event, ...]:
    """The stretches off that a file tells around a day, in order; those that are free or called off are left out.

    Raises BadValue at the file, with what to do.
    """
    found = _read(text)
    if not found.walk("VEVENT"):
        raise BadValue(FIELD, "There is no event in this calendar.")
    begins = datetime.combine(today, time(), UTC) - LOOKED_BACK
    try:
        _refuse_too_often(found)
        occurring = recurring_ical_events.of(found).between(begins, begins + LOOKED_BACK + LOOKED_ON)
        stretches = [_event(one, zone) for one in occurring if _is_off(one)]
    except (ValueError, TypeError, KeyError, OverflowError, AttributeError) as error:
        raise BadValue(FIELD, "An event of this calendar cannot be read: its times or its rule are wrong.") from error
    stretches = [e for e in stretches if e.away.ends > e.away.begins]
    return tuple(sorted(stretches, key=lambda e: (e.away.begins, e.away.ends, e.name)))


def refuse_too_many(events: tuple[Event, ...]) -> None:
    """Raise BadValue where a file makes more stretches off than a calendar takes."""
    if len(events) > AWAY_MOST:
        many = f"{len(events):,} stretches off in {YEARS_MOST} years"
        raise BadValue(FIELD, f"This makes {many}; {AWAY_MOST:,} at most.")


def _refuse_too_often(calendar: Any) -> None:
    for event in calendar.walk("VEVENT"):
        rules = event.get("RRULE") or []
        for rule in rules if isinstance(rules, list) else [rules]:
            if any(str(often).upper() in TOO_OFTEN for often in rule.get("FREQ", [])):
                name = str(event.get("SUMMARY", ""))[:40]
                raise BadValue(FIELD, f"“{name}” recurs more often than daily: that is no day off. Take it out first.")


def _is_off(event: Any) -> bool:
    return str(event.get("TRANSP", "OPAQUE")).upper() != "TRANSPARENT" and str(event.get("STATUS", "")) != "CANCELLED"


def _event(event: Any, zone: str) -> Event:
    starts, ends = event.start, event.end
    return Event(str(event.get("SUMMARY", ""))[:80], Away(_instant(starts, zone), _instant(ends, zone)))

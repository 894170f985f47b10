"""How fast pieces really come, and when the lot is done by that."""

from __future__ import annotations

from dataclasses import dataclass

from calc.calendar.calendar import Calendar
from calc.calendar.working_time import ends_at, worked_between
from calc.running.lot import Lot

TELL_FROM = 5  # pieces: fewer say nothing about the pace


@dataclass(frozen=True)
class Clocked:
    """When the lot began, its last piece came, and now [s since 1970, UTC]; what it stood still for [min]."""

    began: float
    last: float
    now: float
    stopped_min: float


@dataclass(frozen=True)
class Pace:
    """From one piece to the next [min], stops with it, and whether that is what was seen or the plan's; pieces an
    hour; when the lot is done [s since 1970, UTC], None where it is not within the years that are looked at.
    """

    minutes: float
    seen: bool
    per_hour: float
    done: float | None
    stopped_min: float


def pace_of(lot: Lot, counted: int, left: int, clocked: Clocked | None, calendar: Calendar, now: float) -> Pace:
    """The pace of a lot and its finish.

    From five pieces on: the shop's hours from the first piece's beginning to the last piece, by the pieces. A lot that
    ran where nobody works by the calendar is clocked by the plain clock.

    Reference: docs/method.md, “Running”
    """
    minutes, seen, stopped = lot.minutes_planned, False, clocked.stopped_min if clocked else 0.0
    if clocked is not None and counted >= TELL_FROM and clocked.last > clocked.began:
        by_hours = worked_between(calendar, clocked.began, clocked.last) / 60
        # The first piece's own time is before it was counted.
        minutes = (by_hours or (clocked.last - clocked.began) / 60) / (counted - 1)
        seen = True
    done = ends_at(calendar, now, left * minutes, lot.alone_min)
    return Pace(minutes, seen, 60 / minutes if minutes > 0 else 0.0, done, stopped)

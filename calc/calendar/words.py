"""Moments as the shop says them, by the clock on its wall."""

from __future__ import annotations

import math

from calc.calendar.calendar import Calendar
from calc.calendar.hours import DAYS
from calc.calendar.working_time import wall

MONTHS = ("Jan", "Feb", "Mar", "Apr", "May", "Jun", "Jul", "Aug", "Sep", "Oct", "Nov", "Dec")


def clock_words(calendar: Calendar, at: float, year: int | None = None) -> str:
    """A moment by the clock, up to the full minute, with its year where that is another: "Thu 3 Dec 14:20".

    >>> clock_words(Calendar(), 1796307599.5, 2026), clock_words(Calendar(), 1796307599.5, 2027)
    ('Thu 3 Dec 14:20', 'Thu 3 Dec 2026 14:20')
    """
    shown = wall(calendar, math.ceil(at / 60 - 1e-6) * 60)
    of_year = "" if shown.year == year else f" {shown.year}"
    return f"{DAYS[shown.weekday()]} {shown.day} {MONTHS[shown.month - 1]}{of_year} {shown:%H:%M}"

"""Hours of a week as a person writes them: "Mon-Fri 06:00-14:00, 14:00-22:00; Sat 06:00-12:00"."""

from __future__ import annotations

import re
from dataclasses import dataclass

from calc.errors import FieldProblem

DAYS = ("Mon", "Tue", "Wed", "Thu", "Fri", "Sat", "Sun")
DAY_MIN = 24 * 60
SHOWN = "Mon-Fri 06:00-14:00, 14:00-22:00; Sat 06:00-12:00"
_PART = re.compile(r"(?P<days>[a-z]+(?:\s*-\s*[a-z]+)?)\s+(?P<hours>\d.*)", re.IGNORECASE)
_HOURS = re.compile(r"(\d{1,2}):(\d{2})\s*-\s*(\d{1,2}):(\d{2})")


@dataclass(frozen=True)
class Window:
    """Hours of one day of the week (0 Monday), in minutes from its midnight; one that ends on the next day goes on past
    1 440.
    """

    day: int
    begins: int
    ends: int


def windows_of(field: str, text: str) -> tuple[Window, ...]:
    """The windows that a line tells; an empty line tells none. A dash of any kind is a dash.

    Raises FieldProblem at `field` with what to write.

    >>> windows_of("shifts", "Fri-Sat 22:00-06:00")
    (Window(day=4, begins=1320, ends=1800), Window(day=5, begins=1320, ends=1800))
    """
    found: list[Window] = []
    for part in re.split(r"[;\n]", re.sub(r"[‐-―−]", "-", text)):
        if not part.strip():
            continue
        match = _PART.fullmatch(part.strip())
        if match is None:
            raise FieldProblem(field, f"Write days and hours, such as {SHOWN}; “{part.strip()[:40]}” is neither.")
        days = _days(field, match["days"])
        for hours in match["hours"].split(","):
            found += [Window(day, *_hours(field, hours)) for day in days]
    return tuple(found)


def _days(field: str, text: str) -> list[int]:
    if text.lower() == "daily":
        return list(range(7))
    ends = [_day(field, name) for name in text.split("-")]
    first, last = ends[0], ends[-1]
    return [(first + i) % 7 for i in range((last - first) % 7 + 1)]


def _day(field: str, name: str) -> int:
    short = name.strip()[:3].title()
    if short not in DAYS:
        raise FieldProblem(field, f"“{name.strip()[:20]}” is no day. Write Mon, Tue, Wed, Thu, Fri, Sat, Sun or daily.")
    return DAYS.index(short)


def _hours(field: str, text: str) -> tuple[int, int]:
    match = _HOURS.fullmatch(text.strip())
    if match is None:
        raise FieldProblem(field, f"Write hours from and to, such as 06:00-14:00, not “{text.strip()[:40]}”.")
    h, m, to_h, to_m = (int(g) for g in match.groups())
    begins, ends = h * 60 + m, to_h * 60 + to_m
    if m > 59 or to_m > 59 or begins >= DAY_MIN or ends > DAY_MIN:
        raise FieldProblem(field, f"A day has 24 hours of 60 minutes: “{text.strip()}” is not in it.")
    if begins == ends:
        raise FieldProblem(field, f"“{text.strip()}” is no time at all. For a whole day write 00:00-24:00.")
    return begins, ends if ends > begins else ends + DAY_MIN

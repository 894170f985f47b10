"""Where work ends by the clock: so many minutes from a moment on, through shifts, breaks and days off.

Moments are seconds since 1970, UTC, so that an hour is an hour also where the clock on the wall is put on or back.
"""

from __future__ import annotations

from collections.abc import Iterator, Sequence
from dataclasses import dataclass
from datetime import UTC, date, datetime, time, timedelta
from functools import cached_property, lru_cache

from calc.calendar.calendar import Calendar, days_off, zone_of
from calc.calendar.hours import Window

YEARS_MOST = 5  # further than this no finish is told: nobody's calendar is that sure
MONTHS_KEPT = 512
DAY_S = 86_400.0
Span = tuple[float, float]


@dataclass(frozen=True)
class Hours:
    """Spans of a month [s], apart from each other and in order: with people, and those of bar work without them."""

    with_people: tuple[Span, ...]
    alone: tuple[Span, ...]

    @cached_property
    def in_order(self) -> tuple[tuple[Span, bool], ...]:
        """All of them, each with whether people are there."""
        return tuple(sorted([(s, True) for s in self.with_people] + [(s, False) for s in self.alone]))


def merged(spans: Sequence[Span]) -> list[Span]:
    """The same time in spans that neither touch nor overlap, in order.

    >>> merged([(5, 9), (0, 3), (3, 4), (8, 10)])
    [(0, 4), (5, 10)]
    """
    found: list[Span] = []
    for begins, ends in sorted(s for s in spans if s[1] > s[0]):
        if found and begins <= found[-1][1]:
            found[-1] = (found[-1][0], max(found[-1][1], ends))
        else:
            found.append((begins, ends))
    return found


def without(spans: Sequence[Span], taken: Sequence[Span]) -> list[Span]:
    """What of merged spans is left without others, also merged.

    >>> without([(0, 10)], [(2, 3), (9, 12)])
    [(0, 2), (3, 9)]
    """
    found: list[Span] = []
    for span in spans:
        begins, ends = span
        for off, on in taken:
            if on <= begins or off >= ends:
                continue
            if off > begins:
                found.append((begins, off))
            begins = max(begins, on)
        if begins < ends:
            found.append((begins, ends))
    return found


def moment(calendar: Calendar, at: datetime) -> float:
    """The moment of a time on the shop's wall; of one that is there twice the first, of one that is left out the same
    long after the hour before it.
    """
    return at.replace(tzinfo=zone_of(calendar.zone)).timestamp()


def wall(calendar: Calendar, at: float) -> datetime:
    """What the clock on the shop's wall shows at a moment."""
    return datetime.fromtimestamp(at, UTC).astimezone(zone_of(calendar.zone)).replace(tzinfo=None)


def _spans(calendar: Calendar, windows: Sequence[Window], first: date, days: int) -> list[Span]:
    found = []
    for n in range(days):
        day = first + timedelta(n)
        midnight = datetime.combine(day, time())
        for w in windows:
            if w.day == day.weekday():
                begins, ends = (moment(calendar, midnight + timedelta(minutes=m)) for m in (w.begins, w.ends))
                found.append((begins, ends))
    return merged(found)


@lru_cache(maxsize=MONTHS_KEPT)
def hours_of(calendar: Calendar, year: int, month: int) -> Hours:
    """A month's hours. A shift that goes on past midnight counts where its hours are, not where it began."""
    first = date(year, month, 1)
    following = date(year + month // 12, month % 12 + 1, 1)
    days = (following - first).days
    bounds = (moment(calendar, datetime.combine(first, time())), moment(calendar, datetime.combine(following, time())))
    shifts, breaks, alone = (_spans(calendar, w, first - timedelta(1), days + 1) for w in calendar.day_windows)
    # The day before a stretch off may work past midnight only where it is not off itself: what is off is off.
    off = [
        (moment(calendar, datetime.combine(a, time())), moment(calendar, datetime.combine(b + timedelta(1), time())))
        for a, b in days_off(calendar.off)
        if a < following and b >= first - timedelta(1)
    ]
    off += [(a.begins, a.ends) for a in calendar.away if a.begins < bounds[1] and a.ends > bounds[0]]
    outside = [(bounds[0] - 40 * DAY_S, bounds[0]), (bounds[1], bounds[1] + 40 * DAY_S)]
    closed = merged([*off, *outside])
    people = without(shifts, merged([*breaks, *closed]))
    return Hours(tuple(people), tuple(without(alone, merged([*people, *closed]))))


def _from(calendar: Calendar, begins: float) -> Iterator[tuple[float, float, bool]]:
    """Spans from a moment on, each with whether people are there, for as long as is looked."""
    at = wall(calendar, begins)
    for n in range(12 * YEARS_MOST + 1):
        month = at.month - 1 + n
        for (start, end), people in hours_of(calendar, at.year + month // 12, month % 12 + 1).in_order:
            if end > begins:
                yield max(start, begins), end, people


def first_hour(calendar: Calendar, begins: float) -> float | None:
    """The first moment from this one on at which people work; None where there is none within `YEARS_MOST` years."""
    return next((start for start, _, people in _from(calendar, begins) if people), None)


def worked_between(calendar: Calendar, begins: float, ends: float) -> float:
    """Seconds with people between two moments [s]; 0 where the second is not after the first."""
    found = 0.0
    for start, end, people in _from(calendar, begins):
        if start >= ends:
            break
        found += (min(end, ends) - start) if people else 0.0
    return found


def ends_at(calendar: Calendar, begins: float, minutes: float, alone_min: float = 0.0) -> float | None:
    """When work that begins at a moment [s] is done.

    `minutes` of work [min, ≥ 0]; `alone_min`: for how long it goes on by itself each time that people leave [min,
    ≥ 0], in the hours without people. Gives seconds since 1970, UTC; None where it is not done within `YEARS_MOST`
    years. No work ends where it begins.

    Reference: the working time is the union of the shifts less breaks and days off; by hand in
    calc/tests/calendar/test_working_time.py.
    """
    left, budget = minutes * 60, alone_min * 60
    if left <= 0:
        return begins
    for start, end, people in _from(calendar, begins):
        if people:
            budget = alone_min * 60
        worked = end - start if people else min(end - start, budget)
        # A microsecond is no work: the last piece of a shift is not put off to the next by rounding.
        if left <= worked + 1e-6:
            return start + min(left, worked)
        left -= worked
        budget -= 0.0 if people else worked
    return None

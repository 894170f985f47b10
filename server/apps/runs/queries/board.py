"""The board: which run is on which machine when, one after another by the shop's calendar."""

from __future__ import annotations

import math
from collections import defaultdict
from collections.abc import Iterator
from dataclasses import dataclass, replace
from datetime import date, datetime, time, timedelta
from typing import Any

from django.db.models import F
from django.utils import timezone
from icalendar import Calendar as FileCalendar
from icalendar import Event

from calc.calendar.calendar import Calendar
from calc.calendar.hours import DAYS
from calc.calendar.words import MONTHS, clock_words
from calc.calendar.working_time import hours_of, moment, wall
from calc.plan.outcome import State
from calc.plan.route.inputs import when
from calc.route.board import Job, Placed, Really, follow
from server.apps.house import queries as house
from server.apps.runs.models import Run
from server.apps.runs.schemas import BoardDay, BoardHours, BoardMachine, BoardOut, BoardRun, BoardWaiting
from server.apps.shelf import queries as shelf

NO_MINUTES = "its route has no time yet"


@dataclass(frozen=True)
class Row:
    """A run as it is kept, without its plan."""

    pk: int
    name: str
    drawing_number: str
    machine: int
    revision: int
    start: str | None
    minutes: dict[str, float] | None
    verdict: State
    really: dict[str, Any] | None


def shop_calendar() -> Calendar:
    """When the shop works."""
    return house.calendar(shelf.token())


def rows(machine: int | None = None) -> list[Row]:
    """Runs that are planned for a machine and not put away. What they take is as it is kept: it is computed again in
    the background where the shelf has changed.
    """
    found = Run.objects.filter(put_away=False, machine__isnull=False)
    if machine is not None:
        found = found.filter(machine_id=machine)
    values = found.annotate(
        start=F("document__route__start"), minutes=F("standing__minutes"), verdict=F("standing__verdict")
    ).values_list("pk", "name", "drawing_number", "machine_id", "revision", "start", "minutes", "verdict", "really")
    return [Row(*row) for row in values]


def job_of(row: Row, calendar: Calendar) -> Job | None:
    """The run as the board counts it; None while it has no start, or no time. One that pieces come of is on it."""
    start, really, minutes = when(row.start or ""), _really(row), row.minutes
    begins = None if start is None else moment(calendar, start)
    if really is not None and not really.left_min and begins is not None and begins > really.at:
        really = None  # it is made, and planned once more
    if begins is None and really is not None:
        begins = really.began
    if minutes is None or begins is None:
        return None
    return Job(row.pk, begins, minutes["setup"], minutes["run"], minutes["alone"], really)


def is_on_it(row: Row) -> bool:
    """Pieces of it come: it is where it is."""
    return row.really is not None and row.really["left_min"] > 0


def _really(row: Row) -> Really | None:
    """How it goes now: where pieces are left, none of them came since it was told."""
    if row.really is None:
        return None
    left = row.really["left_min"]
    return Really(row.really["began"], left, timezone.now().timestamp() if left else row.really["at"])


def placed_by_machine(every: list[Row], calendar: Calendar) -> dict[int, list[Placed]]:
    """The runs of each machine in the order they follow."""
    jobs: dict[int, list[Job]] = defaultdict(list)
    for row in every:
        job = job_of(row, calendar)
        if job is not None:
            jobs[row.machine].append(job)
    return {machine: follow(calendar, mine) for machine, mine in jobs.items()}


def _words(calendar: Calendar, at: float | None) -> str:
    return "not within five years" if at is None else clock_words(calendar, at, timezone.now().year)


def slipped(calendar: Calendar, placed: Placed, names: dict[int, str]) -> str:
    """Why a run begins later than planned; empty where it does not."""
    if placed.after is None:
        return ""
    before = names[placed.after]
    if placed.begins is None:
        return f"{before} before it never ends by the calendar"
    return f"waits for {before}, planned for {_words(calendar, placed.job.start)}"


def _run(row: Row, placed: Placed, calendar: Calendar, names: dict[int, str]) -> BoardRun:
    return BoardRun(
        id=row.pk,
        name=row.name,
        drawing_number=row.drawing_number,
        revision=row.revision,
        verdict=row.verdict,
        start=placed.job.start,
        begins=placed.begins,
        running=placed.running,
        done=placed.done,
        begins_said=_words(calendar, placed.begins),
        done_said=_words(calendar, placed.done),
        slips=slipped(calendar, placed, names),
        goes=_goes(row, placed, calendar),
        moves=not is_on_it(row),
    )


def _goes(row: Row, placed: Placed, calendar: Calendar) -> str:
    """How it goes at the machine beside what was planned; empty while no piece has come."""
    if row.really is None or placed.job.really is None:
        return ""
    said = str(row.really["said"])
    if row.start is None:
        return said
    planned = follow(calendar, [replace(placed.job, really=None)])[0].done
    return f"{said}; planned for {_words(calendar, planned)}"


def board(first: date | None, days: int, *, may_edit: bool, told: str = "") -> BoardOut:
    """The board from a day on [None: today], for so many days; `told` is what was just done to it."""
    calendar, every = shop_calendar(), rows()
    machines = shelf.current().machines
    names = {row.pk: f"{row.drawing_number} {row.name}" for row in every}
    by_pk = {row.pk: row for row in every}
    placed = placed_by_machine(every, calendar)
    on_board = {p.job.key for mine in placed.values() for p in mine}
    begins = first or wall(calendar, timezone.now().timestamp()).date()
    bounds = [moment(calendar, datetime.combine(begins + timedelta(n), time())) for n in range(days + 1)]
    return BoardOut(
        may_edit=may_edit,
        told=told,
        zone=calendar.zone,
        now=timezone.now().timestamp(),
        days=[_day(begins + timedelta(n), bounds[n], bounds[n + 1]) for n in range(days)],
        hours=list(_hours(calendar, begins, days, bounds)),
        machines=[
            BoardMachine(
                name=machine.name,
                runs=[
                    _run(by_pk[p.job.key], p, calendar, names)
                    for p in placed.get(pk, [])
                    if p.begins is None or (p.begins < bounds[-1] and (p.done is None or p.done > bounds[0]))
                ],
                later=sum(1 for p in placed.get(pk, []) if p.begins is not None and p.begins >= bounds[-1]),
                free=_free(placed.get(pk, []), timezone.now().timestamp()),
            )
            for pk, machine in sorted(machines.items(), key=lambda m: m[1].name)
        ],
        waiting=[
            BoardWaiting(
                id=row.pk,
                name=row.name,
                drawing_number=row.drawing_number,
                revision=row.revision,
                machine=machines[row.machine].name,
                why="" if row.minutes is not None else NO_MINUTES,
            )
            for row in every
            if row.pk not in on_board
        ],
    )


def _free(placed: list[Placed], now: float) -> float | None:
    """From when on a machine has nothing to do [s]; None where one never ends."""
    ends = [p.done for p in placed]
    return None if None in ends else max([now, *(e for e in ends if e is not None)])


def _day(day: date, begins: float, ends: float) -> BoardDay:
    said = f"{DAYS[day.weekday()]} {day.day} {MONTHS[day.month - 1]}"
    return BoardDay(said=said, date=day.isoformat(), begins=begins, ends=ends)


def _hours(calendar: Calendar, first: date, days: int, bounds: list[float]) -> Iterator[BoardHours]:
    last = first + timedelta(days)
    months = range(first.year * 12 + first.month - 1, last.year * 12 + last.month)
    for month in months:
        for (begins, ends), people in hours_of(calendar, month // 12, month % 12 + 1).in_order:
            if begins < bounds[-1] and ends > bounds[0]:
                yield BoardHours(begins=max(begins, bounds[0]), ends=min(ends, bounds[-1]), people=people)


def board_file() -> bytes:
    """The board as iCalendar text: an event for each run, from its set-up to its last piece."""
    calendar, every = shop_calendar(), rows()
    machines = shelf.current().machines
    by_pk = {row.pk: row for row in every}
    file: Any = FileCalendar()
    file.add("prodid", "-//Noble Anvil//Board//EN")
    file.add("version", "2.0")
    for mine in placed_by_machine(every, calendar).values():
        for placed in mine:
            if placed.begins is None or placed.done is None or placed.running is None:
                continue
            row, event = by_pk[placed.job.key], Event()
            event.add("uid", f"run-{row.pk}@noble-anvil")
            event.add("summary", f"{row.drawing_number} {row.name}, {machines[row.machine].name}")
            event.add("dtstart", _instant(placed.begins))
            event.add("dtend", _instant(placed.done))
            event.add("dtstamp", timezone.now())
            event.add("location", machines[row.machine].name)
            event.add("description", f"Set-up until {_words(calendar, placed.running)}, then the run.")
            file.add_component(event)
    return bytes(file.to_ical())


def _instant(at: float) -> datetime:
    """Up to the full minute: nothing is promised earlier than it is done."""
    return datetime.fromtimestamp(math.ceil(at / 60 - 1e-6) * 60, tz=timezone.get_default_timezone())

"""Changing the house rules and the shop's calendar."""

from __future__ import annotations

from typing import Any

from django.db import connection, transaction
from django.utils import timezone

from calc.calendar.calendar import Calendar
from calc.errors import CalcError, FieldError
from calc.quantities import Sentence
from calc.reading import read, write
from calc.rules import Rules
from calc.typed import typed_value
from server.apps.house import queries
from server.apps.house.calendar_file import refuse_too_many
from server.apps.house.models import HouseRules, ShopCalendar
from server.apps.house.schemas import CalendarOut, RulesOut
from server.apps.shelf.actions.load import renew
from server.foundation import trail
from server.foundation.problems import BadValue, Conflict
from server.foundation.roles import require_planner

REASON_LEAST = 4
LOCK = 7_305_001  # of the one row of rules to come


def _lock() -> None:
    with connection.cursor() as cursor:
        cursor.execute("select pg_advisory_xact_lock(%s)", [LOCK])


@transaction.atomic
def change_rules(given: dict[str, str], reason: str, base_number: int, person: Any) -> RulesOut:
    """Keep changed rules as the next revision. Raises NotAllowed, Conflict, BadValue, or CalcError at the rules."""
    planner = require_planner(person)
    _lock()
    now = queries.current()
    if now.number != base_number:
        row = HouseRules.objects.select_related("by").first()
        who = row.by.username if row else "Somebody"
        raise Conflict(f"{who} changed the house rules since you looked. Look at them again, then change yours.")
    said = " ".join(reason.split())
    if len(said) < REASON_LEAST:
        raise BadValue("reason", "Write why, in a few words: whoever plans next must understand it.")
    after = _changed(now, given)
    if not queries.changes(now, after):
        raise BadValue("", "Nothing is changed yet.")
    HouseRules.objects.create(number=after.number, values=write(after), reason=said, by=planner)
    trail.note("rules", planner, "; ".join(queries.changes(now, after)))
    return queries.page(may_edit=True)


def _changed(now: Rules, given: dict[str, str]) -> Rules:
    """The rules with what was typed put in. Raises CalcError naming every rule that is wrong."""
    known = {f.name: f for f in queries.FIELDS}
    problems: list[FieldError] = []
    values: dict[str, float | str] = {}
    for name, typed in given.items():
        if name not in known:
            problems.append(FieldError(name, Sentence("There is no such house rule.")))
            continue
        try:
            values[name] = typed_value(name, known[name].spec, typed, nullable=False, system="metric")
        except CalcError as error:
            problems += error.errors
    if problems:
        raise CalcError(problems)
    after: Rules = read(Rules, write(now) | values | {"number": now.number + 1})
    return after


@transaction.atomic
def change_calendar(given: dict[str, str], file: str | None, base_number: int, person: Any) -> CalendarOut:
    """Keep a changed calendar, for all plans from now on; `file` None leaves what was brought.

    Raises NotAllowed, Conflict, BadValue at the file, or CalcError at the lines.
    """
    planner = require_planner(person)
    _lock()
    row = ShopCalendar.objects.select_related("by").first()
    number = row.number if row else 1
    if number != base_number:
        who = row.by.username if row else "Somebody"
        raise Conflict(f"{who} changed the calendar since you looked. Look at it again, then change yours.")
    before = row.values if row else {name: getattr(Calendar(), name) for name in queries.CALENDAR}
    values = before | _hours_given(given)
    read(Calendar, values)
    text = (row.file if row else "") if file is None else file.strip().replace("\x00", "")
    refuse_too_many(queries.events(text, values["zone"], timezone.localdate().replace(day=1)))
    if (before, row.file if row else "") == (values, text):
        raise BadValue("", "Nothing is changed yet.")
    ShopCalendar.objects.create(number=number + 1, values=values, file=text, by=planner)
    trail.note("calendar", planner, f"revision {number + 1}")
    renew()
    return queries.calendar_page(may_edit=True)


def _hours_given(given: dict[str, str]) -> dict[str, str]:
    """The lines as typed, spaces in order. Raises CalcError at those that are none, or too long."""
    problems = []
    for name, text in given.items():
        spec = queries.CALENDAR.get(name)
        if spec is None or "\x00" in text:
            problems.append(FieldError(name, Sentence("A calendar has no such line.")))
        elif len(text) > spec.most:
            problems.append(FieldError(name, Sentence("This is too long: {n} letters at most.", n=str(spec.most))))
    if problems:
        raise CalcError(problems)
    return {name: " ".join(text.split()) for name, text in given.items()}


def load_calendar(values: dict[str, str], person: Any) -> None:
    """The calendar that a shop is begun with. Raises CalcError."""
    read(Calendar, values)
    ShopCalendar.objects.create(number=2, values=values, by=person)
    renew()

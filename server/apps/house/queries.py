"""Reads of the house rules and of the shop's calendar."""

from __future__ import annotations

import json
from datetime import date
from functools import lru_cache
from itertools import pairwise
from typing import Any
from uuid import UUID

from django.utils import timezone

from calc.calendar.calendar import AWAY_MOST, Calendar
from calc.calendar.words import clock_words
from calc.fields import Choice, FieldSpec, Quantity, Text, fields_of
from calc.quantities import Figure
from calc.reading import read
from calc.rules import Rules
from server.apps.house.calendar_file import Event, events_of
from server.apps.house.models import HouseRules, ShopCalendar
from server.apps.house.schemas import (
    CalendarFieldOut,
    CalendarOut,
    ChangedOut,
    ChangeOut,
    OffOut,
    RuleOption,
    RuleOut,
    RulesOut,
)
from server.apps.shelf.queries import NO_STATE

FIELDS: tuple[FieldSpec, ...] = tuple(f for f in fields_of(Rules) if f.name != "number")


def current() -> Rules:
    """The rules of today; revision 1 while nobody has changed any."""
    latest = HouseRules.objects.values_list("values", flat=True).first()
    return _read(json.dumps(latest)) if latest else Rules()


@lru_cache(maxsize=4)
def _read(values: str) -> Rules:
    return read(Rules, json.loads(values))  # type: ignore[no-any-return]


def value_text(field: FieldSpec, value: Any) -> str:
    """A rule's value as it reads."""
    if isinstance(field.spec, Choice):
        return field.spec.options[value]
    assert isinstance(field.spec, Quantity)
    return Figure(value, field.spec.unit, exact=field.spec.whole, places=None if field.spec.whole else (2, 2)).text()


def changes(before: Rules, after: Rules) -> list[str]:
    """What differs, in words: "Safety on the grip 2.00 → 2.50"."""
    return [
        f"{f.spec.label} {value_text(f, getattr(before, f.name))} → {value_text(f, getattr(after, f.name))}"
        for f in FIELDS
        if getattr(before, f.name) != getattr(after, f.name)
    ]


def page(may_edit: bool) -> RulesOut:
    """The page of the house rules: each with its meaning, its default, and who changed it last and why."""
    rows = list(HouseRules.objects.select_related("by").order_by("number"))
    states = [Rules(), *(read(Rules, row.values) for row in rows)]
    last: dict[str, HouseRules] = {}
    for row, (before, after) in zip(rows, pairwise(states), strict=True):
        last |= {f.name: row for f in FIELDS if getattr(before, f.name) != getattr(after, f.name)}
    now, first = states[-1], states[0]
    return RulesOut(
        number=now.number,
        may_edit=may_edit,
        rules=[
            RuleOut(
                name=f.name,
                label=f.spec.label,
                help=f.spec.help,
                value=getattr(now, f.name),
                unit=f.spec.unit if isinstance(f.spec, Quantity) else "",
                text=value_text(f, getattr(now, f.name)),
                usual=value_text(f, getattr(first, f.name)),
                options=[RuleOption(value=k, label=v) for k, v in f.spec.options.items()]
                if isinstance(f.spec, Choice)
                else None,
                changed=_who(last[f.name]) if f.name in last else None,
            )
            for f in FIELDS
        ],
        history=[
            ChangeOut(**_who(row).model_dump(), changes=changes(before, after))
            for row, (before, after) in reversed(list(zip(rows, pairwise(states), strict=True)))
        ],
    )


def _who(row: HouseRules) -> ChangedOut:
    return ChangedOut(number=row.number, by=row.by.username, at=row.at, reason=row.reason)


CALENDAR: dict[str, Text] = {f.name: f.spec for f in fields_of(Calendar) if isinstance(f.spec, Text)}
OFF_SHOWN = 20


def calendar(token: UUID) -> Calendar:
    """When the shop works; every change of it renews the shelf's token."""
    today = timezone.localdate()
    month = today.replace(day=1)  # what recurs is read anew each month
    return _calendar(month) if token == NO_STATE else _kept_calendar(token, month)


@lru_cache(maxsize=2)
def _kept_calendar(token: UUID, month: date) -> Calendar:
    return _calendar(month)


def _calendar(month: date) -> Calendar:
    latest = ShopCalendar.objects.first()
    return Calendar() if latest is None else calendar_of(latest, month)


def calendar_of(row: ShopCalendar, month: date) -> Calendar:
    """A kept calendar, with what its file tells."""
    # It was within bounds when it was kept; a month on it may be a stretch over, and no plan may stop for that.
    away = tuple(e.away for e in events(row.file, row.values["zone"], month)[:AWAY_MOST])
    return Calendar(**row.values, away=away)


@lru_cache(maxsize=4)
def events(file: str, zone: str, day: date) -> tuple[Event, ...]:
    """What a calendar file tells around a day; nothing without one. Raises BadValue."""
    return events_of(file, zone, day) if file else ()


def calendar_page(may_edit: bool) -> CalendarOut:
    """The shop's calendar with what each line means, and what its file brings from today on."""
    row, now = ShopCalendar.objects.select_related("by").first(), timezone.now()
    month = timezone.localdate().replace(day=1)
    in_force, first = (Calendar() if row is None else calendar_of(row, month)), Calendar()
    told = events(row.file, in_force.zone, month) if row else ()
    coming = [e for e in told if e.away.ends > now.timestamp()]
    shown = [
        OffOut(
            name=e.name,
            begins=clock_words(in_force, e.away.begins, now.year),
            ends=clock_words(in_force, e.away.ends, now.year),
        )
        for e in coming[:OFF_SHOWN]
    ]
    return CalendarOut(
        number=row.number if row else 1,
        may_edit=may_edit,
        fields=[
            CalendarFieldOut(
                name=name,
                label=spec.label,
                help=spec.help,
                most=spec.most,
                text=getattr(in_force, name),
                usual=getattr(first, name),
            )
            for name, spec in CALENDAR.items()
        ],
        has_file=bool(row and row.file),
        off=shown,
        off_count=len(coming),
        changed=None if row is None else f"{row.by.username} on {timezone.localtime(row.at):%Y-%m-%d}",
    )

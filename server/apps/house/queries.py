"""Reads of the house rules."""

from __future__ import annotations

import json
from functools import lru_cache
from itertools import pairwise
from typing import Any

from calc.fields import Choice, FieldSpec, Quantity, fields_of
from calc.quantities import Figure
from calc.reading import read
from calc.rules import Rules
from server.apps.house.models import HouseRules
from server.apps.house.schemas import ChangedOut, ChangeOut, RuleOption, RuleOut, RulesOut

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

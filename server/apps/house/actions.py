"""Changing the house rules."""

from __future__ import annotations

from typing import Any

from django.db import connection, transaction

from calc.errors import CalcError, FieldError
from calc.quantities import Sentence
from calc.reading import read, write
from calc.rules import Rules
from calc.typed import typed_value
from server.apps.house import queries
from server.apps.house.models import HouseRules
from server.apps.house.schemas import RulesOut
from server.foundation import trail
from server.foundation.problems import BadValue, Conflict
from server.foundation.roles import require_planner

REASON_LEAST = 4
LOCK = 7_305_001  # of the one row of rules to come


@transaction.atomic
def change_rules(given: dict[str, str], reason: str, base_number: int, person: Any) -> RulesOut:
    """Keep changed rules as the next revision. Raises NotAllowed, Conflict, BadValue, or CalcError at the rules."""
    planner = require_planner(person)
    with connection.cursor() as cursor:
        cursor.execute("select pg_advisory_xact_lock(%s)", [LOCK])
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

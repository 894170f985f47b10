"""A fresh edge, an offset moved, a stop, and going on."""

from __future__ import annotations

from typing import Any

from django.db import transaction

from calc.fields import Quantity, check_range
from calc.running.story import STOPPED
from calc.tools.all_kinds import TOOL_KINDS
from calc.written import parse
from server.apps.running.actions.at_lot import answer, held, kept
from server.apps.running.actions.heard import tell
from server.apps.running.actions.measure import said_when
from server.apps.running.models import Happening, Lot
from server.apps.running.queries.page import happening_words
from server.apps.running.schemas import ChangeIn, KeptOut, StopIn
from server.apps.shelf import queries as shelf
from server.apps.shelf.actions.learn import learn
from server.foundation.models import Person
from server.foundation.problems import BadValue

AMOUNT = Quantity("Added", "mm", "To the wear offset, X as a diameter", low=-2, high=2, places=(3, 4))


@transaction.atomic
def change(run_id: int, given: ChangeIn, person: Any) -> KeptOut:
    """Note a fresh edge or a moved offset: a stretch of the chart begins. A fresh insert is taken from the shelf.

    Raises NotAllowed, NotFound, CalcError, BadValue.
    """
    somebody, at, row, sent = held(run_id, given, person)
    if sent:
        return answer(at, row, given, person, (None, [], "good"))
    edge = at.lot.edge(given.edge)
    if edge is None:
        raise BadValue("edge", "This lot has no such tool.")
    amount = _amount(given) if given.kind == "offset" else 0.0
    made = Happening.objects.create(
        lot=row,
        kind=given.kind,
        edge=given.edge,
        after=row.counted,
        amount_mm=amount,
        why=given.why if given.kind == "edge" else "",
        note=edge.name if given.kind == "edge" else "",
        key=given.key,
        by=somebody,
        at=said_when(given, row),
    )
    told = [happening_words(made, given.units) + "."]
    tell(at, f"NEWS {given.kind} {edge.station}" + (f" {amount:.4f}" if given.kind == "offset" else ""))
    if given.kind == "edge":
        told += _taken(row, edge.insert, edge.edges, given.edge, somebody)
    kept(row)
    return answer(at, row, given, person, (None, told, "good"))


def _amount(given: ChangeIn) -> float:
    """How much an offset was moved [mm]. Raises CalcError, BadValue."""
    if given.amount is None or (isinstance(given.amount, str) and not given.amount.strip()):
        raise BadValue("amount", "Write how much was added to the offset, with its sign.")
    value = parse(given.amount, "mm", given.units, "amount") if isinstance(given.amount, str) else given.amount
    check_range("amount", AMOUNT, value)
    if value == 0:
        raise BadValue("amount", "Nothing was added: then nothing is to note.")
    return value


def _taken(row: Lot, key: str, edges: int, at: str, by: Person) -> list[str]:
    """An insert whose edges are used up: a fresh one is taken from the shelf, whose stock goes down."""
    changes = Happening.objects.filter(lot=row, kind="edge", edge=at).count()
    kind = next((k for k in TOOL_KINDS if key in shelf.current().ids[k]), None)
    if kind is None or changes % edges:
        return []
    left: list[int] = []

    def fewer(now: Any) -> int:
        left.append(max(0, int(now or 0) - 1))
        return left[0]

    learn(kind, key, "stock", fewer, by)
    return [f"A fresh one from the shelf: {left[0]} left there."]


@transaction.atomic
def stop(run_id: int, given: StopIn, person: Any) -> KeptOut:
    """Note that it stopped and why, or that it goes on. Raises NotAllowed, NotFound, BadValue."""
    somebody, at, row, sent = held(run_id, given, person)
    if sent:
        return answer(at, row, given, person, (None, [], "good"))
    moment, still = said_when(given, row), row.happenings.filter(kind="stop", until=None).last()
    if given.what == "on":
        told = _on(still, moment)
    else:
        note = " ".join(given.note.split())
        if given.why == "other" and not note:
            raise BadValue("note", "Say in a few words why it stopped.")
        if still is not None:  # it stood still already: what is said last is why
            still.why, still.note = given.why, note
            still.save(update_fields=["why", "note"])
        else:
            Happening.objects.create(
                lot=row, kind="stop", after=row.counted, why=given.why, note=note, key=given.key, by=somebody, at=moment
            )
        told = [f"Stopped: {STOPPED[given.why]}."]
    kept(row)
    return answer(at, row, given, person, (None, told, "good"))


def _on(still: Happening | None, moment: Any) -> list[str]:
    if still is None:
        return ["It runs already."]
    still.until = max(moment, still.at)
    still.save(update_fields=["until"])
    return [f"It goes on after {round((still.until - still.at).total_seconds() / 60)} min."]

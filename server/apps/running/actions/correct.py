"""What was wrong of a piece is put right, and what stood there before is kept beside it."""

from __future__ import annotations

from typing import Any

from django.db import transaction

from calc.running.entry import Entered
from calc.running.watch import verdict
from server.apps.running.actions.at_lot import Level, answer, held, kept
from server.apps.running.actions.measure import OUTSIDE, judge, piece_of, read_values
from server.apps.running.models import Correction, Lot, Measured, Piece
from server.apps.running.schemas import CorrectIn, KeptOut
from server.foundation.models import Person
from server.foundation.problems import BadValue, Conflict

TEMP_C = 20.0


@transaction.atomic
def correct(run_id: int, given: CorrectIn, person: Any) -> KeptOut:
    """Correct a piece: whether it is good, or values that were measured of it.

    Raises NotAllowed, NotFound, CalcError, BadValue, and Conflict for a value that looks wrong and was not said twice.
    """
    somebody, at, row, sent = held(run_id, given, person)
    if sent:
        return answer(at, row, given, person, (given.piece, [], "good"))
    why = " ".join(given.why.split())
    if not why:
        raise BadValue("why", "Say in a few words why it is corrected.")
    number = piece_of(row, given.piece)
    found = read_values(at, given.values, TEMP_C, given.units)
    far = [e.far.text(given.units) for e in found if e.far is not None]
    if far and not given.sure:
        raise Conflict(" ".join(far), asks="sure")
    for e in found:
        _value(row, number, e, given, why, somebody)
    if given.good is not None:
        _good(at.lot.dimensions, row, number, given, why, somebody)
    judge(row, number, found, somebody)
    kept(row)
    level: Level = "stop" if any(e.level == "stop" for e in found) else "good"
    return answer(at, row, given, person, (number, [f"Piece {number} is corrected."], level))


def _value(row: Lot, number: int, e: Entered, given: CorrectIn, why: str, by: Person) -> None:
    mine = Measured.objects.filter(lot=row, dimension=e.dimension.id, piece=number).first()
    if mine is None:
        raise BadValue(e.dimension.id, f"Piece {number} has none here: measure it, there is nothing to correct.")
    Correction.objects.create(
        lot=row, piece=number, dimension=e.dimension.id, before=mine.value, now=e.value, why=why, by=by
    )
    mine.value, mine.typed = e.value, str(given.values[e.dimension.id])[:60]
    mine.temp_c = TEMP_C
    mine.save(update_fields=["value", "typed", "temp_c"])


def _good(dimensions: Any, row: Lot, number: int, given: CorrectIn, why: str, by: Person) -> None:
    piece = Piece.objects.get(lot=row, number=number)
    if given.good == piece.good:
        return
    reason = " ".join(given.reason.split())
    if not given.good and not reason:
        raise BadValue("reason", "Say why it is scrap.")
    values = {m.dimension: m.value for m in Measured.objects.filter(lot=row, piece=number)}
    if given.good and any(verdict(d, values[d.id])[0] == "stop" for d in dimensions if d.id in values):
        raise BadValue("good", OUTSIDE)
    Correction.objects.create(lot=row, piece=number, before=piece.good, now=given.good, why=why, by=by)
    row.good += 1 if given.good else -1
    row.save(update_fields=["good"])
    piece.good, piece.reason = bool(given.good), reason
    piece.save(update_fields=["good", "reason"])

"""What was measured of pieces: as they are counted, after it, and from a file."""

from __future__ import annotations

from collections.abc import Iterable, Mapping
from datetime import datetime
from typing import Any

from django.db import transaction

from calc.errors import CalcError, FieldError
from calc.running.entry import Entered, entered
from calc.running.said import title_of, value_said
from server.apps.running.actions.at_lot import Level, answer, came, held, kept, worst
from server.apps.running.models import Correction, Lot, Measured, Piece
from server.apps.running.queries.page import LotAt
from server.apps.running.schemas import AtLot, KeptOut, MeasureIn, PieceIn, Value
from server.apps.runs.actions.place import moved_on
from server.foundation.models import Person
from server.foundation.problems import BadValue, Conflict
from server.foundation.said_time import when

OUTSIDE = "This piece is outside what the print asks: count it as scrap, or work on it and measure it again first."
BY_MEASURING = "measured outside the print"


def read_values(at: LotAt, values: Mapping[str, Value], temp_c: float, system: Any) -> list[Entered]:
    """What was measured, each by its dimension. Raises CalcError at every dimension that cannot be read."""
    found: list[Entered] = []
    errors: list[FieldError] = []
    for name, given in values.items():
        if isinstance(given, str) and not given.strip():
            continue
        dimension = at.lot.dimension(name)
        if dimension is None:
            raise BadValue(name, "This lot has no such dimension.")
        try:
            found.append(entered(dimension, given, system, temp_c, at.lot.dimensions))
        except CalcError as error:
            errors += error.errors
    if errors:
        raise CalcError(errors)
    return found


def _sure(found: Iterable[Entered], given: PieceIn | MeasureIn) -> None:
    far = [e.far.text(given.units) for e in found if e.far is not None]
    if far and not given.sure:
        raise Conflict(" ".join(far), asks="sure")


def _told(found: Iterable[Entered], at: LotAt, system: Any) -> tuple[list[str], Level]:
    words = [f"{title_of(e.dimension, system)}: {e.told.text(system)}" for e in found]
    levels: list[Level] = [e.level for e in found if e.level != "none"]
    return words, worst(levels)


def keep_values(row: Lot, piece: int, found: Iterable[Entered], given: PieceIn | MeasureIn, by: Person | None) -> None:
    """Keep what was measured of a piece."""
    at = when(given.at, row.began_at or row.release.at)
    Measured.objects.bulk_create(
        Measured(
            lot=row,
            piece=piece,
            dimension=e.dimension.id,
            value=e.value,
            typed=str(given.values[e.dimension.id])[:60],
            temp_c=given.temp_c,
            instrument=given.instrument,
            by=by,
            at=at,
        )
        for e in found
    )


def add_piece(row: Lot, given: AtLot, by: Person | None, *, good: bool, reason: str, source: str = "") -> Piece:
    """Count a piece."""
    at = when(given.at, row.release.at)
    row.counted += 1
    row.good += good
    row.closed_at = None  # one more piece: it goes on
    came(row, at)
    row.save(update_fields=["counted", "good", "began_at", "last_at", "closed_at"])
    row.happenings.filter(kind="stop", until=None).update(until=at)  # it runs
    return Piece.objects.create(
        lot=row, number=row.counted, good=good, reason=reason, source=source, key=given.key, by=by, at=at
    )


@transaction.atomic
def count(run_id: int, given: PieceIn, person: Any) -> KeptOut:
    """Count a piece, with what was measured of it; the same key counts once.

    Raises NotAllowed, NotFound, CalcError, BadValue, and Conflict for a value that looks wrong and was not said twice.
    """
    somebody, at, row, sent = held(run_id, given, person)
    if sent:
        before = Piece.objects.filter(key=given.key).first()
        return answer(at, row, given, person, (before.number if before else None, [], "good"))
    reason = " ".join(given.reason.split())
    if not given.good and not reason:
        raise BadValue("reason", "Say why it is scrap.")
    found = read_values(at, given.values, given.temp_c, given.units)
    _sure(found, given)
    told, level = _told(found, at, given.units)
    if given.good and level == "stop":
        raise BadValue("good", f"{' '.join(told)} {OUTSIDE}")
    piece = add_piece(row, given, somebody, good=given.good, reason=reason)
    keep_values(row, piece.number, found, given, somebody)
    moved_on(at.run.pk, "running", somebody)
    kept(row)
    return answer(at, row, given, person, (piece.number, told, level))


def piece_of(row: Lot, number: int | None) -> int:
    """The number of a piece that was counted; none: the last. Raises BadValue."""
    if row.counted == 0:
        raise BadValue("piece", "No piece was counted yet: count the first one.")
    if number is None:
        return row.counted
    if number > row.counted:
        raise BadValue("piece", f"Pieces 1 to {row.counted} were counted: choose one of them.")
    return number


def refuse_twice(at: LotAt, row: Lot, piece: int, found: Iterable[Entered], system: Any) -> None:
    """A value is corrected, not written over. Raises BadValue."""
    for e in found:
        before = Measured.objects.filter(lot=row, dimension=e.dimension.id, piece=piece).first()
        if before is not None:
            was = value_said(e.dimension, before.value, system)
            words = f"Piece {piece} has {was} here already: correct that, or choose another piece."
            raise BadValue(e.dimension.id, words)


def judge(row: Lot, piece: int, found: Iterable[Entered], by: Person | None) -> None:
    """A piece that was measured outside the print is none of the good ones."""
    if not any(e.level == "stop" for e in found):
        return
    mine = Piece.objects.filter(lot=row, number=piece, good=True).first()
    if mine is None:
        return
    mine.good, mine.reason = False, BY_MEASURING
    mine.save(update_fields=["good", "reason"])
    row.good -= 1
    row.save(update_fields=["good"])
    Correction.objects.create(lot=row, piece=piece, before=True, now=False, why=BY_MEASURING, by=by)


@transaction.atomic
def measure(run_id: int, given: MeasureIn, person: Any) -> KeptOut:
    """Keep what was measured of a piece that was counted; one outside the print becomes scrap.

    Raises NotAllowed, NotFound, CalcError, BadValue, and Conflict for a value that looks wrong and was not said twice.
    """
    somebody, at, row, sent = held(run_id, given, person)
    if sent:
        return answer(at, row, given, person, (given.piece, [], "good"))
    piece = piece_of(row, given.piece)
    found = read_values(at, given.values, given.temp_c, given.units)
    if not found:
        raise BadValue("values", "Write what was measured.")
    refuse_twice(at, row, piece, found, given.units)
    _sure(found, given)
    keep_values(row, piece, found, given, somebody)
    judge(row, piece, found, somebody)
    kept(row)
    told, level = _told(found, at, given.units)
    return answer(at, row, given, person, (piece, told, level))


def said_when(given: AtLot, row: Lot) -> datetime:
    """When it was done."""
    return when(given.at, row.began_at or row.release.at)

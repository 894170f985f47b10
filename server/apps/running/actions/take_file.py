"""Measured pieces from a CSV file: what can be read is kept, every other row is told."""

from __future__ import annotations

import csv
import io
from typing import Any

from django.db import transaction

from calc.errors import CalcError
from calc.running.entry import Entered, entered
from calc.running.lot import Dimension
from calc.running.said import title_of
from server.apps.running.actions.at_lot import held, kept
from server.apps.running.actions.measure import judge, said_when
from server.apps.running.models import Lot, Measured
from server.apps.running.queries.page import LotAt, page_of
from server.apps.running.queries.pieces import heading
from server.apps.running.schemas import PiecesFileIn, PiecesFileLine, PiecesFileOut
from server.foundation.problems import BadValue

LINES_MOST, TOLD_MOST = 100_001, 200
Known = set[tuple[int, str]]  # piece and dimension
PIECE = ("piece", "no", "number", "#")


@transaction.atomic
def take_file(run_id: int, given: PiecesFileIn, person: Any) -> PiecesFileOut:
    """Keep what a file says of pieces that were counted. Raises NotAllowed, NotFound, BadValue."""
    somebody, at, row, sent = held(run_id, given, person)
    rows = _rows(given.text)
    columns = _columns(at, rows[0], given)
    lines: list[PiecesFileLine] = []
    made: list[Measured] = []
    have = set(Measured.objects.filter(lot=row).values_list("piece", "dimension"))
    moment = said_when(given, row)
    for n, cells in enumerate(rows[1:], 2):
        if sent or not any(c.strip() for c in cells):
            continue
        told, piece, found = _line(at, row, cells, columns, given, have)
        if told:
            lines.append(PiecesFileLine(line=n, piece=piece, outcome="bad", told=told))
            continue
        assert piece is not None
        have |= {(piece, e.dimension.id) for e in found}
        made += [
            Measured(
                lot=row, piece=piece, dimension=e.dimension.id, value=e.value, instrument="file", by=somebody, at=moment
            )
            for e in found
        ]
        judge(row, piece, found, somebody)
        lines.append(PiecesFileLine(line=n, piece=piece, outcome="kept", told=""))
    Measured.objects.bulk_create(made, batch_size=2000)
    kept(row)
    bad = [one for one in lines if one.outcome == "bad"]
    return PiecesFileOut(
        kept=len(lines) - len(bad),
        bad=len(bad),
        lines=bad[:TOLD_MOST],
        page=page_of(LotAt(at.run, at.release, at.lot, row, at.before), given.units, person),
    )


def _rows(text: str) -> list[list[str]]:
    text = text.lstrip("\ufeff").strip()
    if not text:
        raise BadValue("text", "The file is empty.")
    first = text.splitlines()[0]
    parted = max(";,\t", key=first.count)
    rows = list(csv.reader(io.StringIO(text), delimiter=parted))
    if len(rows) > LINES_MOST:
        raise BadValue("text", f"A file holds {LINES_MOST - 1} pieces at most: part it.")
    return rows


def _columns(at: LotAt, head: list[str], given: PiecesFileIn) -> dict[int, Dimension]:
    """Which column is which dimension, by what it is called. Raises BadValue."""
    if not head or head[0].strip().lower() not in PIECE:
        raise BadValue("text", "The first column is “piece”, the number of the piece; then one for each dimension.")
    names: dict[str, Dimension] = {}
    for d in at.lot.dimensions:
        for name in (d.id, d.ask.name, title_of(d, given.units), heading(d, given.units)):
            names.setdefault(name.lower(), d)
    found = {i: names[c.strip().lower()] for i, c in enumerate(head) if i and c.strip().lower() in names}
    if not found:
        known = ", ".join(title_of(d, given.units) for d in at.lot.dimensions)
        raise BadValue("text", f"No column is called like a dimension of this lot: {known or 'it has none'}.")
    return found


def _line(
    at: LotAt, row: Lot, cells: list[str], columns: dict[int, Dimension], given: PiecesFileIn, have: Known
) -> tuple[str, int | None, list[Entered]]:
    """(what is wrong, the piece, what was measured of it) of a row."""
    number = cells[0].strip()
    if not number.isdigit() or not 1 <= int(number) <= row.counted:
        return f"“{number[:20]}” is no piece that was counted: 1 to {row.counted} were.", None, []
    piece, found = int(number), []
    for i, dimension in columns.items():
        text = cells[i].strip() if i < len(cells) else ""
        if not text:
            continue
        if (piece, dimension.id) in have:
            return f"Piece {piece} has a {title_of(dimension, given.units)} already.", piece, []
        try:
            found.append(entered(dimension, text, given.units, others=at.lot.dimensions))
        except CalcError as error:
            return error.errors[0].sentence.text(given.units), piece, []
        if found[-1].far is not None:
            return found[-1].far.text(given.units), piece, []
    return "" if found else "There is no value in this row.", piece, found

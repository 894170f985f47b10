"""One piece with what was measured of it, and every piece as a file."""

from __future__ import annotations

import csv
import io
from typing import Any

from calc.quantities import Figure, System
from calc.running.entry import READ
from calc.running.lot import Dimension
from calc.running.said import title_of, value_said
from server.apps.running.models import Measured, Piece
from server.apps.running.queries.page import LotAt, lot_at
from server.apps.running.schemas import CorrectedOut, PieceOut, ValueOut
from server.apps.runs.queries.find import run_by_id
from server.apps.runs.queries.releases import release_for
from server.foundation.problems import NotFound


def _at(run_id: int, number: int, key: str, person: Any) -> LotAt:
    run = run_by_id(run_id)
    return lot_at(run, release_for(run, number, person), key)


def piece_out(run_id: int, release: int, key: str, number: int, system: System, person: Any) -> PieceOut:
    """A piece by its number. Raises NotFound, NotAllowed."""
    at = _at(run_id, release, key, person)
    piece = Piece.objects.filter(lot=at.row, number=number).select_related("by").first() if at.row else None
    if piece is None or at.row is None:
        raise NotFound("No piece of that number was counted.")
    values = Measured.objects.filter(lot=at.row, piece=number).select_related("by")
    return PieceOut(
        number=number,
        good=piece.good,
        reason=piece.reason,
        by=piece.by.username if piece.by else piece.source,
        at=piece.at,
        values=[_value(at, m, system) for m in values],
        corrected=[
            CorrectedOut(words=_corrected(at, c, system), why=c.why, by=c.by.username if c.by else "", at=c.at)
            for c in at.row.corrections.filter(piece=number).select_related("by")
        ],
    )


def _value(at: LotAt, m: Measured, system: System) -> ValueOut:
    of = at.lot.dimension(m.dimension)
    return ValueOut(
        dimension=m.dimension,
        title=title_of(of, system) if of else m.dimension,
        shown=value_said(of, m.value, system) if of else str(m.value),
        typed=m.typed,
        instrument=m.instrument,
        by=m.by.username if m.by else m.instrument,
        at=m.at,
    )


def _corrected(at: LotAt, c: Any, system: System) -> str:
    of = at.lot.dimension(c.dimension) if c.dimension else None
    if of is None:
        return "good, was scrap" if c.now else "scrap, was good"
    return f"{title_of(of, system)} {value_said(of, c.now, system)}, was {value_said(of, c.before, system)}"


def heading(dimension: Dimension, system: System) -> str:
    """What a dimension's column is called in a file."""
    unit = Figure(0.0, READ[dimension.kind].unit).unit_shown(system) if dimension.kind != "thread" else ""
    return f"{title_of(dimension, system)}{f' ({unit})' if unit else ''}"


def as_file(run_id: int, release: int, key: str, system: System, person: Any) -> tuple[str, str]:
    """(name, every piece of a lot as CSV). Raises NotFound, NotAllowed."""
    at = _at(run_id, release, key, person)
    text = io.StringIO()
    out = csv.writer(text, lineterminator="\n")
    out.writerow(["piece", "good", "reason", "at", *(heading(d, system) for d in at.lot.dimensions)])
    if at.row is not None:
        by_piece: dict[int, dict[str, float]] = {}
        measured = Measured.objects.filter(lot=at.row).values_list("piece", "dimension", "value")
        for number, dimension, value in measured.iterator(chunk_size=5000):
            by_piece.setdefault(number, {})[dimension] = value
        pieces = Piece.objects.filter(lot=at.row).values_list("number", "good", "reason", "at")
        for number, good, reason, moment in pieces.iterator(chunk_size=5000):
            mine = by_piece.get(number, {})
            cells = [_cell(d, mine[d.id], system) if d.id in mine else "" for d in at.lot.dimensions]
            out.writerow(
                [number, "yes" if good else "no", _plain(reason), moment.isoformat(timespec="seconds"), *cells]
            )
    return f"{at.run.drawing_number}-pieces.csv", text.getvalue()


def _plain(text: str) -> str:
    """A text that no spreadsheet takes for a formula."""
    return f"'{text}" if text[:1] in ("=", "+", "-", "@") else text


def _cell(dimension: Dimension, value: float, system: System) -> str:
    if dimension.kind == "thread":
        return {0.0: "good", -1.0: "tight", 1.0: "loose"}[value]
    spec = READ[dimension.kind]
    return Figure(value, spec.unit, places=spec.places).number(system).replace("\u202f", "").replace("−", "-")

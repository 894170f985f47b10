"""Loading what a lot has behind it, for the demo: pieces, what was measured of them, edges, offsets and stops."""

from __future__ import annotations

from collections.abc import Mapping, Sequence
from dataclasses import dataclass, field
from datetime import datetime, timedelta
from typing import Any
from uuid import UUID, uuid5

from django.db import transaction

from server.apps.running.actions.at_lot import told_board
from server.apps.running.models import Happening, Lot, Measured, Piece
from server.apps.runs.actions.place import moved_on
from server.apps.runs.queries.releases import latest


@dataclass(frozen=True)
class Past:
    """A lot's past: pieces that ended at a time, so many minutes each; values by dimension and piece, scrap by piece,
    and what happened after which piece.
    """

    pieces: int
    minutes: float
    ended: datetime
    values: Mapping[str, Mapping[int, float]]
    scrap: Mapping[int, str] = field(default_factory=dict)
    happened: Sequence[Mapping[str, Any]] = ()
    source: str = ""


@transaction.atomic
def load_past(run: Any, release: int, key: str, past: Past, by: Any, names: UUID) -> None:
    """Put a past in."""

    def at(piece: float) -> datetime:
        return past.ended - timedelta(minutes=(past.pieces - piece) * past.minutes)

    row = Lot.objects.create(
        release_id=release,
        key=key,
        counted=past.pieces,
        good=past.pieces - len(past.scrap),
        began_at=at(1),
        last_at=past.ended,
        revision=past.pieces,
    )
    Piece.objects.bulk_create(
        Piece(
            lot=row,
            number=n,
            good=n not in past.scrap,
            reason=past.scrap.get(n, ""),
            source=past.source,
            key=uuid5(names, f"piece {n}"),
            by=None if past.source else by,
            at=at(n),
        )
        for n in range(1, past.pieces + 1)
    )
    Measured.objects.bulk_create(
        Measured(lot=row, piece=n, dimension=dimension, value=value, by=by, at=at(n))
        for dimension, values in past.values.items()
        for n, value in values.items()
    )
    for i, one in enumerate(past.happened):
        more = dict(one)
        until = more.pop("minutes", None)
        Happening.objects.create(
            lot=row,
            key=uuid5(names, f"happening {i}"),
            by=by,
            at=at(more["after"] + 0.4),
            until=None if until is None else at(more["after"] + 0.4) + timedelta(minutes=until),
            **more,
        )
    moved_on(run.pk, "running", by)
    standing = latest(run)
    assert standing is not None  # the lot is of it
    row.release = standing
    told_board(row)

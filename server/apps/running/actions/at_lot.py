"""What every change of a lot begins with and ends with."""

from __future__ import annotations

from dataclasses import replace
from typing import Any, Literal

from django.utils import timezone

from server.apps.card.actions.mark import AWAY
from server.apps.running.models import Lot
from server.apps.running.queries.page import LotAt, how_it_goes, lot_at, page_of
from server.apps.running.schemas import AtLot, KeptOut
from server.apps.runs.actions.place import goes
from server.apps.runs.queries.find import run_by_id
from server.apps.runs.queries.releases import release_for
from server.foundation.models import Person
from server.foundation.once import digest_of, was_sent
from server.foundation.problems import Conflict
from server.foundation.roles import require_at_machine

Level = Literal["good", "watch", "stop"]
WORST: tuple[Level, ...] = ("good", "watch", "stop")


def held(run_id: int, given: AtLot, person: Any) -> tuple[Person, LotAt, Lot, bool]:
    """(who, the lot, its row held until the transaction ends, whether this was sent before).

    Raises NotAllowed, NotFound, Conflict.
    """
    somebody = require_at_machine(person)
    run = run_by_id(run_id)
    release = release_for(run, given.release, person)
    if run.put_away:
        raise Conflict(AWAY)
    at = lot_at(run, release, given.lot)
    Lot.objects.get_or_create(release_id=release.pk, key=at.lot.key)
    row = Lot.objects.select_for_update().get(release_id=release.pk, key=at.lot.key)
    row.release = release  # as it is read here, without its megabytes
    sent = was_sent(given.key, somebody, digest_of(type(given).__name__, run_id, given.model_dump(mode="json")))
    return somebody, replace(at, row=row), row, sent


def kept(row: Lot) -> None:
    """Count what was kept of a lot, so that whoever looks at it knows, and the board too."""
    row.revision += 1  # it is held
    row.save(update_fields=["revision"])
    told_board(row)


def told_board(row: Lot) -> None:
    """Tell the board how the run of a lot goes: its `release` is the light one."""
    goes_now = how_it_goes(row.release)
    if goes_now is not None:
        really, said = goes_now
        goes(row.release.run_id, really, said)


def answer(at: LotAt, row: Lot, given: AtLot, person: Any, said: tuple[int | None, list[str], Level]) -> KeptOut:
    """What was kept, with the lot as it stands now."""
    piece, told, level = said
    return KeptOut(piece=piece, told=told, level=level, page=page_of(replace(at, row=row), given.units, person))


def worst(levels: list[Level]) -> Level:
    """The worst of several."""
    return max(levels, key=WORST.index, default="good")


def came(row: Lot, at: Any) -> None:
    """A piece came: a clock that goes back moves nothing back."""
    row.began_at = row.began_at or at
    row.last_at = max(row.last_at or at, at, row.began_at)
    assert row.last_at <= timezone.now()

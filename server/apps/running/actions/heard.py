"""What a machine says by itself: pieces, what it measured, that it stopped or runs."""

from __future__ import annotations

from datetime import timedelta
from uuid import uuid4

from django.db import transaction
from django.utils import timezone

from calc.errors import CalcError
from calc.running.entry import entered
from calc.running.lot import Dimension
from server.apps.running.actions.at_lot import came, kept, told_board
from server.apps.running.actions.measure import judge
from server.apps.running.models import Happening, Listened, Lot, Measured, News, Piece
from server.apps.running.queries.page import LotAt, lot_at, lot_that_runs, machine_of
from server.apps.runs.actions.place import moved_on
from server.apps.runs.queries.at_machine import run_at
from server.apps.runs.queries.releases import latest

UNITS = {"mm": "mm", "in": "in", "um": "µm"}
MOST_AT_ONCE = 10_000  # pieces that came while nobody listened: more is no count
BEAT = timedelta(seconds=1)


def note(name: str, trouble: str = "", *, heard: bool = True) -> None:
    """Note that a machine said something, or what is wrong with it."""
    row, _ = Listened.objects.get_or_create(name=name)
    now = timezone.now()
    if heard and row.heard_at is not None and now - row.heard_at < BEAT and row.trouble == trouble:
        return
    row.heard_at, row.trouble = (now if heard else row.heard_at), trouble[:200]
    row.save(update_fields=["heard_at", "trouble"])


@transaction.atomic
def heard(name: str, line: str) -> str:
    """Keep what a machine said; gives what is wrong with it in a sentence, or nothing.

    Where nothing is proved or running on it, it says so to nobody: there is nothing to count.
    """
    parts = line.split()
    at = _lot(name)
    if at is None:
        return ""
    row = _row(at)
    match parts:
        case ["C", n] if n.isdigit():
            _count(at, row, name, int(n), finished=False)
        case ["P", n] if n.isdigit():
            _count(at, row, name, int(n), finished=True)
        case ["M", n, place, value, unit] if n.isdigit() and place.isdigit() and unit in UNITS:
            return _measured(at, row, name, (int(n), int(place)), f"{value} {UNITS[unit]}")
        case ["X", *words]:
            _stopped(row, name, " ".join(words)[:160])
        case ["R"]:
            row.happenings.filter(kind="stop", until=None).update(until=timezone.now())
            kept(row)
        case _:
            return f"{name} says what is nothing to count: “{line[:40]}”."
    return ""


def _lot(name: str) -> LotAt | None:
    run = run_at(name)
    release = latest(run) if run is not None else None
    if run is None or release is None:
        return None
    begun = lot_that_runs(release.pk)  # another one is begun by a person
    return lot_at(run, release, begun.key if begun else "")


def _row(at: LotAt) -> Lot:
    held = Lot.objects.select_for_update()
    if at.row is None:
        Lot.objects.get_or_create(release_id=at.release.pk, key=at.lot.key)
    row = held.get(release_id=at.release.pk, key=at.lot.key)
    row.release = at.release  # as it is read here, without its megabytes
    return row


def _count(at: LotAt, row: Lot, name: str, said: int, *, finished: bool) -> None:
    """Count what the machine has made since it was heard last, without what was counted by hand meanwhile.

    A count heard for the first time, or one that went back, is where it begins: only a piece that is finished counts.
    """
    before = row.machine_count
    if before is None or said < before or said - before > MOST_AT_ONCE:
        new = 1 if finished else 0
    else:
        new = max(0, said - before - (row.counted - row.counted_then))  # without what was counted by hand meanwhile
    row.machine_count = said
    now = timezone.now()
    Piece.objects.bulk_create(
        Piece(lot=row, number=row.counted + i + 1, good=True, source=name, key=uuid4(), at=now) for i in range(new)
    )
    row.counted += new
    row.good += new
    row.counted_then = row.counted
    if new:
        came(row, now)
        row.revision += 1
        row.happenings.filter(kind="stop", until=None).update(until=now)
        if at.run.place != "running":
            moved_on(at.run.pk, "running", _Somebody(name))
    row.save(update_fields=["counted", "good", "began_at", "last_at", "machine_count", "counted_then", "revision"])
    if new:
        told_board(row)


class _Somebody:
    """A machine, where a person is named."""

    def __init__(self, name: str) -> None:
        self.username = name


def _measured(at: LotAt, row: Lot, name: str, which: tuple[int, int], text: str) -> str:
    """Keep a value of a piece that this machine counted."""
    said, place = which
    dimension: Dimension | None = at.lot.dimensions[place - 1] if 1 <= place <= len(at.lot.dimensions) else None
    number = row.counted - ((row.machine_count or 0) - said)
    if dimension is None or not 1 <= number <= row.counted:
        return f"{name} measured dimension {place} of its piece {said}: this lot has none like it."
    try:
        found = entered(dimension, text, "metric", others=at.lot.dimensions)
    except CalcError:
        return f"{name} measured “{text[:30]}”, which is no size."
    if found.far is not None:
        return f"{name} measured {text} of {dimension.ask.name}: that is far off, and not kept."
    _, is_new = Measured.objects.get_or_create(
        lot=row,
        dimension=dimension.id,
        piece=number,
        defaults={"value": found.value, "instrument": name, "at": timezone.now()},
    )
    if is_new:
        judge(row, number, [found], None)
        kept(row)
    return ""


def _stopped(row: Lot, name: str, words: str) -> None:
    if row.happenings.filter(kind="stop", until=None).exists():
        return
    Happening.objects.create(
        lot=row, kind="stop", after=row.counted, why="alarm", note=words, source=name, key=uuid4(), at=timezone.now()
    )
    kept(row)


def news_for(name: str) -> list[str]:
    """What was noted of its tools and not told to it yet; it counts as told then."""
    with transaction.atomic():
        rows = list(News.objects.select_for_update().filter(machine=name, told=False))
        News.objects.filter(pk__in=[r.pk for r in rows]).update(told=True)
    return [r.line for r in rows]


def tell(at: LotAt, line: str) -> None:
    """Have something told to the machine of a lot, where it is listened to."""
    machine = machine_of(at)
    if machine and Listened.objects.filter(name=machine).exists():
        News.objects.create(machine=machine, line=line)

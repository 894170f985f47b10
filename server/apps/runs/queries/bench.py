"""The bench: runs in the order of what needs attention, and finding them by any word."""

from __future__ import annotations

from django.db.models import Count, Q, QuerySet

from calc.shelf.all_kinds import KINDS
from server.apps.runs.convert.plates import bench_row
from server.apps.runs.models import Run
from server.apps.runs.schemas import BenchOut, BenchRow, HitOut, LineOut
from server.apps.shelf import queries as shelf

PAGE = 40


def _found(words: str) -> QuerySet[Run]:
    rows = Run.objects.all()
    for word in words.lower().replace("\x00", " ").split()[:8]:
        rows = rows.filter(words__contains=word)
    return rows


def bench(words: str, put_away: bool, page: int, *, released_only: bool = False) -> BenchOut:
    """One page of the bench: stopped runs first, then open ones, then settled; the last changed of each first."""
    found = _found(words)
    if released_only:
        found = found.filter(released_at__isnull=False)
    counts = found.aggregate(away=Count("pk", filter=Q(put_away=True)), planning=Count("pk", filter=Q(put_away=False)))
    rows = found.filter(put_away=put_away).order_by("attention", "-changed_at", "-pk")
    here = rows[page * PAGE : (page + 1) * PAGE]
    on_shelf = shelf.current()
    return BenchOut(
        rows=[_released_row(run, on_shelf) if released_only else bench_row(run, on_shelf) for run in here],
        total=counts["away"] if put_away else counts["planning"],
        page=page,
        page_size=PAGE,
        planning=counts["planning"],
        away=counts["away"],
    )


def _released_row(run: Run, on_shelf: shelf.Snapshot) -> BenchRow:
    """A run as who sees only releases is shown it: the lines of what is released."""
    release = run.releases.defer("views", "programs", "document").first()
    row = bench_row(run, on_shelf)
    if release is not None:
        row.needs, row.next, row.verdict = f"release {release.number}", "", "settled"
        row.lines = [LineOut(**line) for line in release.lines[run.units]]
    return row


def find(words: str, facts: list[HitOut], most: int = 8) -> list[HitOut]:
    """Facts of the plan in view, runs and shelf items that have every one of the words, for the find box."""
    if not words.split():
        return []
    rows = _found(words).order_by("put_away", "attention", "-changed_at")[:most]
    hits = [
        HitOut(
            kind="run",
            key=str(r.pk),
            title=r.name,
            detail=f"run · {r.drawing_number} · {'put away' if r.put_away else r.standing.get('verdict', '')}",
        )
        for r in rows
    ]
    return (
        facts
        + hits
        + [
            HitOut(kind=kind, key=key, title=name, detail=f"{KINDS[kind].noun} · on the shelf")
            for kind, key, name in shelf.find(shelf.current(), words)[:most]
        ]
    )

"""The bench: runs in the order of what needs attention, and finding them by any word."""

from __future__ import annotations

from django.db.models import Count, F, OuterRef, Q, QuerySet, Subquery

from calc.shelf.all_kinds import KINDS
from server.apps.runs.convert.plates import bench_row, released_row
from server.apps.runs.models import Release, Run
from server.apps.runs.queries.standing import as_they_stand
from server.apps.runs.schemas import BenchOut, BenchRow, HitOut
from server.apps.shelf import queries as shelf

PAGE = 40


def _wanted(words: str) -> list[str]:
    return words.lower().replace("\x00", " ").split()[:8]


def _found(words: str) -> QuerySet[Run]:
    rows = Run.objects.all()
    for word in _wanted(words):
        rows = rows.filter(words__contains=word)
    return rows


def _found_released(words: str) -> QuerySet[Run]:
    """Runs with their standing release, found by what that says; what is planned since plays no part."""
    standing = Release.objects.filter(run=OuterRef("pk")).order_by("-number")
    rows = Run.objects.annotate(
        release=Subquery(standing.values("pk")[:1]),
        released_last=Subquery(standing.values("at")[:1]),
        said=Subquery(standing.values("words")[:1]),
    ).filter(release__isnull=False)
    for word in _wanted(words):
        rows = rows.filter(said__contains=word)
    return rows.order_by("-released_last", "-pk")


def bench(words: str, put_away: bool, page: int, *, released_only: bool = False) -> BenchOut:
    """One page of the bench: stopped runs first, then open ones, then settled; the last changed of each first. Who sees
    only releases is shown them, the last released first.
    """
    found = _found_released(words) if released_only else _found(words).order_by("attention", "-changed_at", "-pk")
    counts = found.aggregate(away=Count("pk", filter=Q(put_away=True)), planning=Count("pk", filter=Q(put_away=False)))
    here = found.filter(put_away=put_away)[page * PAGE : (page + 1) * PAGE]
    return BenchOut(
        rows=_released_rows(here) if released_only else _rows(here),
        total=counts["away"] if put_away else counts["planning"],
        page=page,
        page_size=PAGE,
        planning=counts["planning"],
        away=counts["away"],
    )


def _rows(found: QuerySet[Run]) -> list[BenchRow]:
    runs, on_shelf = as_they_stand(found.prefetch_related("setups").all)
    return [bench_row(run, on_shelf) for run in runs]


def _released_rows(runs: QuerySet[Run]) -> list[BenchRow]:
    releases = Release.objects.filter(pk__in=[run.release for run in runs])  # type: ignore[attr-defined] # annotated
    plates = releases.defer("views", "programs", "document").annotate(
        plate_metric=F("views__metric__run"), plate_inch=F("views__inch__run")
    )
    known = {release.run_id: release for release in plates}
    found = []
    for run in runs:
        release = known[run.pk]
        found.append(released_row(run, release, getattr(release, f"plate_{run.units}")))
    return found


def _stands(row: BenchRow, released_only: bool) -> str:
    return "put away" if row.put_away else row.needs if released_only else row.verdict


def find(words: str, facts: list[HitOut], *, released_only: bool, most: int = 8) -> list[HitOut]:
    """Facts of the plan in view, runs and shelf items that have every one of the words, for the find box; who sees only
    releases finds by what they say.
    """
    if not words.split():
        return []
    if released_only:
        rows = _released_rows(_found_released(words)[:most])
    else:
        rows = _rows(_found(words).order_by("put_away", "attention", "-changed_at")[:most])
    hits = [
        HitOut(
            kind="run", key=str(r.id), title=r.name, detail=f"run · {r.drawing_number} · {_stands(r, released_only)}"
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

"""A lot at its end, and what was learnt before of a part or its material."""

from __future__ import annotations

from collections.abc import Iterator
from datetime import timedelta
from typing import Any

from django.db.models import Case, IntegerField, Q, Value, When
from django.utils import timezone

from calc.quantities import System, counted
from calc.running.closing import Closing, closing_of, kept_words
from calc.running.pace import TELL_FROM
from calc.running.said import title_of
from calc.running.taught import Taught, pace_taught, taught
from server.apps.notebook.queries import words_of
from server.apps.running.convert import lots_for
from server.apps.running.models import Happening, Lesson, Lot, Measured
from server.apps.running.queries.page import LotAt, lot_at, pace_now
from server.apps.running.schemas import (
    BesideOut,
    ClosingOut,
    KeptPrintOut,
    LastTimeOut,
    LessonOut,
    RanOut,
    TaughtOut,
    WorkedOut,
)
from server.apps.runs.queries.find import run_by_id
from server.apps.runs.queries.plan import planned_now
from server.apps.runs.queries.released_plan import released_plan, released_result
from server.apps.runs.queries.releases import release_for, release_of
from server.foundation.problems import NotFound
from server.foundation.roles import SETS, has_role, require_sees_drafts

LESSONS, RAN = 12, 2


def closing_page(run_id: int, release: int, key: str, system: System, person: Any) -> ClosingOut:
    """A lot at its end. Raises NotFound, NotAllowed."""
    run = run_by_id(run_id)
    return closing_out(lot_at(run, release_for(run, release, person), key), system, person)


def closed_of(at: LotAt) -> Closing:
    """A lot at its end, in the core's values."""
    values: dict[str, list[float]] = {}
    stops: dict[str, float] = {}
    if at.row is not None:
        for dimension, value in Measured.objects.filter(lot=at.row).values_list("dimension", "value").iterator():
            values.setdefault(dimension, []).append(value)
        for why, begun, until in Happening.objects.filter(lot=at.row, kind="stop").values_list("why", "at", "until"):
            stops[why] = stops.get(why, 0.0) + ((until or timezone.now()) - begun) / timedelta(minutes=1)
    standing = at.standing()
    pace = pace_now(at, standing)
    return closing_of(standing, pace, values, stops, released_result(at.release.key), timezone.localdate().isoformat())


def closing_out(at: LotAt, system: System, person: Any) -> ClosingOut:
    """A lot at its end as it is sent."""
    found = closed_of(at)
    return ClosingOut(
        closed_at=at.row.closed_at if at.row else None,
        may_keep=has_role(person, SETS),
        rows=_rows(found, system),
        kept=[
            KeptPrintOut(title=title_of(k.dimension, system), words=kept_words(k).text(system))
            for k in found.kept
            if k.found is not None
        ],
        worked=[
            WorkedOut(key=w.key, name=w.name, words=words_of(w.proven, system), remarks=w.proven.remarks)
            for w in found.worked
        ],
        lessons=[lesson_out(one) for one in Lesson.objects.filter(lot=at.row).select_related("by")] if at.row else [],
    )


def lesson_out(one: Lesson) -> LessonOut:
    """A lesson as it is sent."""
    return LessonOut(
        part=f"{one.part} ({one.drawing_number})",
        material=one.material,
        machine=one.machine,
        text=one.text,
        by=one.by.username,
        at=one.at,
    )


def last_time(run_id: int, system: System, person: Any) -> LastTimeOut:
    """What was learnt before of the part of a run, then of its material. Raises NotFound, NotAllowed."""
    require_sees_drafts(person)
    run = run_by_id(run_id)
    material = run.material.name if run.material else ""
    wanted = Q(drawing_number=run.drawing_number)
    if material:
        wanted |= Q(material=material)
    first = Case(When(drawing_number=run.drawing_number, then=Value(0)), default=Value(1), output_field=IntegerField())
    found = Lesson.objects.filter(wanted).annotate(first=first).order_by("first", "-at", "-pk").select_related("by")
    return LastTimeOut(
        lessons=[lesson_out(one) for one in found[:LESSONS]],
        ran=list(_ran(run.drawing_number, system)),
        taught=list(_taught(run, system)),
    )


def _taught(run: Any, system: System) -> Iterator[TaughtOut]:
    """What the newest release that ran teaches the plan as it stands."""
    newest = Lot.objects.filter(release__run=run.pk, counted__gt=0).order_by("-last_at").values("release__number")[:1]
    if not newest:
        return
    release = release_of(run, newest[0]["release__number"])
    try:
        lots = [lot_at(run, release, lot.key) for lot in lots_for(release.key)]
    except NotFound:  # released before there were cards
        return
    was, now = released_plan(release.key).document, planned_now(run)
    paces = []
    for at in lots:
        standing = at.standing()
        paces.append((pace_now(at, standing), standing.story.counted))
        for one in taught(standing.edges, was, now):
            yield _taught_out(one, at, system)
    pace = pace_taught(paces, was, now)
    if pace is not None:
        yield _taught_out(pace, lots[-1], system)


def _taught_out(one: Taught, at: LotAt, system: System) -> TaughtOut:
    words = one.words.text(system)
    if at.row is not None and at.row.last_at is not None:
        words += f" Release {at.release.number}, {at.row.last_at:%-d %b %Y}."
    return TaughtOut(path=one.path, value=one.value, words=words)


def _ran(drawing_number: str, system: System) -> Iterator[RanOut]:
    """How the newest lots of a part ran."""
    rows = Lot.objects.filter(release__run__drawing_number=drawing_number, counted__gte=TELL_FROM)
    for row in rows.order_by("-last_at").values("key", "last_at", "counted", "release__run_id", "release__number")[
        :RAN
    ]:
        run = run_by_id(row["release__run_id"])
        try:
            at = lot_at(run, release_of(run, row["release__number"]), row["key"])
        except NotFound:  # released before there were cards
            continue
        words = f"{at.lot.name.split(',')[0]}, release {at.release.number}, {counted(row['counted'], 'piece')}"
        yield RanOut(words=f"{words}, until {row['last_at']:%-d %b %Y}", rows=_rows(closed_of(at), system))


def _rows(found: Closing, system: System) -> list[BesideOut]:
    return [
        BesideOut(what=r.what.text(system), planned=r.planned.text(system), real=r.real.text(system))
        for r in found.rows
    ]

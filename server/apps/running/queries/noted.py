"""Lessons, and how long edges really lasted, as lines of the notebook."""

from __future__ import annotations

from django.db.models import OuterRef, Subquery

from calc.quantities import counted
from calc.running.story import LIVED, WHY
from server.apps.running.models import Happening, Lesson
from server.foundation.schemas import NotedOut

RUN, NAME, NUMBER = "lot__release__run_id", "lot__release__run__name", "lot__release__run__drawing_number"


def noted(most: int) -> list[NotedOut]:
    """The newest lessons and edges."""
    return [*_lessons(most), *_edges(most)]


def _lessons(most: int) -> list[NotedOut]:
    rows = Lesson.objects.values_list(
        "part", "drawing_number", "text", "material", "at", "by__username", RUN, "lot__key"
    )
    return [
        NotedOut(
            kind="lesson",
            of=f"{part} ({number})",
            words=" · ".join(filter(None, (text, material))),
            on=at.date(),
            by=by,
            href=f"/runs/{run}/running?lot={lot}",
        )
        for part, number, text, material, at, by, run, lot in rows[:most]
    ]


def _edges(most: int) -> list[NotedOut]:
    """Edges that were changed because they were done, with the pieces that they made."""
    earlier = Happening.objects.filter(
        lot=OuterRef("lot"), edge=OuterRef("edge"), kind="edge", after__lt=OuterRef("after")
    )
    before = Subquery(earlier.order_by("-after").values("after")[:1])
    rows = Happening.objects.filter(kind="edge", why__in=LIVED).annotate(before=before).order_by("-at", "-pk")
    values = rows.values_list(
        "edge", "note", "after", "before", "why", "at", "by__username", RUN, NAME, NUMBER, "lot__key"
    )
    return [
        NotedOut(
            kind="edge",
            of=f"{name} ({number})",
            words=f"{_tool(edge, insert)}: {counted(after - (first or 0), 'piece')}, {WHY[why]}",
            on=at.date(),
            by=by or "",
            href=f"/runs/{run}/running?lot={lot}",
        )
        for edge, insert, after, first, why, at, by, run, name, number, lot in values[:most]
    ]


def _tool(edge: str, insert: str) -> str:
    return ", ".join(filter(None, (f"tool {edge.rpartition('.')[2]}", insert)))

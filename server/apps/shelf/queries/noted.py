"""What happened to jaw sets, as lines of the notebook."""

from __future__ import annotations

from calc.quantities import System
from server.apps.shelf.models import JawSet
from server.apps.shelf.queries.words import life_of
from server.foundation.schemas import NotedOut


def noted(system: System, most: int) -> list[NotedOut]:
    """The newest of what happened to any set."""
    found = [
        NotedOut(kind="jaws", of=row.name, words=e.text, on=e.on, by=e.by, href=f"/shelf/jaw_set/{row.key}")
        for row in JawSet.objects.prefetch_related("life")[:most]
        for e in life_of(row, system)
    ]
    return sorted(found, key=lambda one: one.on, reverse=True)[:most]

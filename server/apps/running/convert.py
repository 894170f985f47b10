"""Rows of a lot ↔ the core's story of it."""

from __future__ import annotations

from functools import lru_cache
from uuid import UUID

from calc.running.lot import Lot as CoreLot
from calc.running.lot import lots_of
from calc.running.story import Change, Sizes, Story
from server.apps.running.models import Happening, Lot, Measured
from server.apps.runs.queries.released_plan import released_result
from server.foundation.problems import NotFound

KEPT = 32  # releases, which never change
NEWEST = 500  # values of a dimension: as many as a line is told from
CHANGES = 1000
NO_LOT = "This release has no such lot."


@lru_cache(maxsize=KEPT)
def lots_for(release: UUID) -> tuple[CoreLot, ...]:
    """The lots of a release, by its key. Raises NotFound."""
    found = lots_of(released_result(release))
    if not found:
        raise NotFound("The route of this release has no time yet: it cannot be counted.")
    return found


def lot_named(release: UUID, key: str) -> CoreLot:
    """A lot of a release by its key. Raises NotFound."""
    found = next((lot for lot in lots_for(release) if lot.key == key), None)
    if found is None:
        raise NotFound(NO_LOT)
    return found


def story_of(lot: CoreLot, row: Lot | None, before: tuple[tuple[CoreLot, Lot], ...] = ()) -> Story:
    """What happened to a lot; `before`: the lots that were made before it, whose edges may go on."""
    carried = _carried(lot, before)
    if row is None:
        return Story(carried=carried)
    sizes = {d.id: _sizes(row.pk, d.id) for d in lot.dimensions}
    return Story(row.counted, row.good, _changes(row.pk), sizes, carried)


def _changes(lot: int) -> tuple[Change, ...]:
    rows = Happening.objects.filter(lot=lot, kind__in=("edge", "offset")).order_by("-after", "-at", "-pk")[:CHANGES]
    return tuple(Change(h.edge, h.kind, h.after, h.amount_mm, h.why) for h in reversed(rows))  # type: ignore[arg-type]


def _sizes(lot: int, dimension: str) -> Sizes:
    rows = Measured.objects.filter(lot=lot, dimension=dimension).order_by("-piece")
    newest = rows.values_list("piece", "value")[:NEWEST]
    pieces, values = zip(*reversed(newest), strict=True) if newest else ((), ())
    return Sizes(tuple(pieces), tuple(values))


def _carried(lot: CoreLot, before: tuple[tuple[CoreLot, Lot], ...]) -> dict[str, float]:
    """The share of its life that each edge was worn by in the lots before; a change there begins it anew."""
    worn: dict[str, float] = {}
    for earlier, row in before:
        changed = {c.edge: c.after for c in _changes(row.pk) if c.kind == "edge"}
        for edge in earlier.edges:
            fresh = edge.key in changed
            share = (row.counted - changed.get(edge.key, 0)) / edge.per_edge if edge.per_edge else 0.0
            worn[edge.key] = min(1.0, share + (0.0 if fresh else worn.get(edge.key, 0.0)))
    return {e.key: worn[e.key] for e in lot.edges if worn.get(e.key)}

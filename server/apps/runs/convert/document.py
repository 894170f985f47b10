"""A run's rows as the core's values: its plan document, and what it takes from the shelf."""

from __future__ import annotations

from collections import OrderedDict
from dataclasses import dataclass, replace
from typing import Any

from calc.plan.document import Document
from calc.reading import read
from calc.shelf.taken import Shelf
from server.apps.gauge.queries import measured, today
from server.apps.house import queries as house
from server.apps.runs.convert.rows import setups_of, taken_by
from server.apps.runs.models import Run
from server.apps.shelf import queries as shelf
from server.apps.shelf.queries import Snapshot

KEPT = 64  # runs whose document was last read


@dataclass(frozen=True)
class _Read:
    """A kept document, plain and read, and what was made of each of its parts."""

    plain: dict[str, Any]
    document: Document
    seen: dict[int, tuple[Any, type[Any], Any]]


_READ: OrderedDict[int, _Read] = OrderedDict()


def document_of(run: Run) -> Document:
    """The run's plan document. Raises CalcError where it contradicts itself.

    A run that is looked at again is read again only where it has changed. Its plain document is then the one that was
    read before, which is equal: what a change leaves of it is known by its identity.
    """
    known = _READ.get(run.pk)
    if known is not None and known.plain == run.document:
        run.document = known.plain
        return known.document
    seen: dict[int, tuple[Any, type[Any], Any]] = {}
    document: Document = read(Document, run.document, seen=seen)
    _READ[run.pk] = _Read(run.document, document, seen)
    _READ.move_to_end(run.pk)
    while len(_READ) > KEPT:
        _READ.popitem(last=False)
    return document


def changed_document_of(run: Run) -> Document:
    """The document of a run that was changed in memory after `document_of`. Raises CalcError."""
    known = _READ.get(run.pk)
    return read(Document, run.document, seen=dict(known.seen) if known else None)  # type: ignore[no-any-return]


def shelf_of(run: Run, on_shelf: Snapshot) -> Shelf:
    """What the run takes from the shelf, as values."""
    found = measured(on_shelf.token)
    setups = tuple(
        replace(
            shelf.setup_shelf(on_shelf, run.machine_id, taken_by(s)),
            calibration=found.calibration(s.chuck_id, s.jaw_set_id),
            greased_on=found.greased.get(s.chuck_id or 0),
        )
        for s in setups_of(run)
    )
    return Shelf(
        None if run.machine_id is None else on_shelf.machines[run.machine_id],
        None if run.material_id is None else on_shelf.materials[run.material_id],
        setups,
        on_shelf.tools,
        calendar=house.calendar(on_shelf.token),
        today=today(),
    )

"""A run's rows as the core's values: its plan document, and what it takes from the shelf."""

from __future__ import annotations

from dataclasses import replace

from calc.plan.document import Document
from calc.reading import read
from calc.shelf.taken import Shelf
from server.apps.gauge.queries import measured, today
from server.apps.runs.convert.rows import setups_of
from server.apps.runs.models import Run
from server.apps.shelf import queries as shelf
from server.apps.shelf.queries import Snapshot, Taken


def document_of(run: Run) -> Document:
    """The run's plan document. Raises CalcError where it contradicts itself."""
    return read(Document, run.document)  # type: ignore[no-any-return]


def shelf_of(run: Run, on_shelf: Snapshot) -> Shelf:
    """What the run takes from the shelf, as values."""
    found = measured(on_shelf.token)
    setups = tuple(
        replace(
            shelf.setup_shelf(on_shelf, run.machine_id, Taken(s.chuck_id, s.jaw_blank_id, s.jaw_set_id)),
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
        today(),
    )

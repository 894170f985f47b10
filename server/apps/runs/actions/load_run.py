"""Put a ready-made run on the bench."""

from __future__ import annotations

from typing import Any

from django.db import transaction

from calc.plan.document import Document
from calc.reading import read
from server.apps.runs.actions.manage import add
from server.apps.runs.models import Run
from server.apps.shelf import queries as shelf


@transaction.atomic
def load_run(given: dict[str, Any]) -> Run:
    """Keep a run given by drawing number, name, shelf keys, units and document. Raises CalcError."""
    read(Document, given["document"])  # refuses a document that the core would not take
    ids = shelf.current().ids
    run = Run(
        drawing_number=given["drawing_number"], name=given["name"], units=given["units"], document=given["document"],
        typed=given.get("typed", {}), machine_id=ids["machine"][given["machine"]],
        material_id=ids["material"][given["material"]],
    )  # fmt: skip
    return add(run, [(ids["chuck"][given["chuck"]], ids["jaw_blank"][given["jaw_blank"]])])

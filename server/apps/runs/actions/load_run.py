"""Put a ready-made run on the bench."""

from __future__ import annotations

from datetime import datetime
from typing import Any

from django.db import transaction

from calc.plan.document import Document
from calc.reading import read, write
from server.apps.runs.actions.manage import add
from server.apps.runs.models import Run
from server.apps.shelf import queries as shelf
from server.apps.shelf.queries import Taken


@transaction.atomic
def load_run(given: dict[str, Any]) -> Run:
    """Keep a run given by drawing number, name, units, document, and shelf keys of the run and of each set-up.

    Raises CalcError.
    """
    document = write(read(Document, given["document"]))
    ids = shelf.current().ids
    run = Run(
        drawing_number=given["drawing_number"],
        name=given["name"],
        units=given["units"],
        document=document,
        typed=given.get("typed", {}),
        machine_id=ids["machine"][given["machine"]],
        material_id=ids["material"][given["material"]],
    )
    taken = [
        Taken(
            ids["chuck"][s["chuck"]],
            *(ids[kind][s[kind]] if s.get(kind) else None for kind in ("jaw_blank", "jaw_set", "collet")),
        )
        for s in given["setups"]
    ]
    return add(run, taken)


def released_at(run_id: int, at: datetime) -> None:
    """Let the first release of a run have been made earlier, as a made-up shop tells it."""
    Run.objects.get(pk=run_id).releases.filter(number=1).update(at=at)

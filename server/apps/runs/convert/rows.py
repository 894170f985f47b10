"""Where what a path of a plan speaks of is kept: in the run's document, on its row, or on the rows of its set-ups."""

from __future__ import annotations

from typing import Any

from calc.errors import CalcError, FieldError
from calc.plan.declared import OF_A_SETUP, OF_THE_RUN, reference_at
from calc.plan.edits import state_at, with_change
from calc.plan.entry import OF_THE_RUN as OWN
from calc.plan.entry import PLAN
from calc.plan.paths import parts_of
from calc.quantities import Sentence
from server.apps.runs.models import Run, RunSetup
from server.apps.shelf.queries import Snapshot, Taken


def _key_of(on_shelf: Snapshot, kind: str, pk: int | None) -> str | None:
    return next((key for key, known in on_shelf.ids[kind].items() if known == pk), None)


def current(run: Run, path: str, new: Any, on_shelf: Snapshot) -> Any:
    """What is kept at a path, in the form of what is to be there. Raises KeyError where there is no such thing."""
    kind = reference_at(path)
    if kind is not None:
        return _key_of(on_shelf, kind, getattr(_holder(run, path), f"{kind}_id"))
    if path in OWN:
        return getattr(run, path)
    if path == PLAN:
        return whole(run, on_shelf)
    return state_at(run.document, path, new)


def whole(run: Run, on_shelf: Snapshot) -> dict[str, Any]:
    """The whole plan as plain data: its document, and what it takes from the shelf by key, of a set-up by its id."""
    return {
        "document": run.document,
        **{kind: _key_of(on_shelf, kind, getattr(run, f"{kind}_id")) for kind in OF_THE_RUN},
        "setups": {
            s.item: {kind: _key_of(on_shelf, kind, getattr(s, f"{kind}_id")) for kind in OF_A_SETUP}
            for s in setups_of(run)
        },
    }


def _holder(run: Run, path: str) -> Run | RunSetup:
    parts = parts_of(path)
    if len(parts) == 1:
        return run
    # From the run's own loaded rows, so that a preview changes what it computes with.
    setup = next((s for s in setups_of(run) if s.item == parts[1]), None)
    if setup is None:
        raise CalcError([FieldError(path, Sentence("There is no such set-up in this plan."))])
    return setup


def taken_by(setup: RunSetup) -> Taken:
    """What a set-up takes from the shelf, by id."""
    return Taken(setup.chuck_id, setup.jaw_blank_id, setup.jaw_set_id, setup.collet_id)


def setups_of(run: Run) -> list[RunSetup]:
    """The rows of the document's set-ups, in its order; a row that sleeps is left out."""
    rows = {row.item: row for row in run.setups.all()}
    return [rows[s["id"]] for s in run.document["setups"] if s["id"] in rows]


def put(run: Run, path: str, new: Any, on_shelf: Snapshot) -> None:
    """Set what is at a path on the loaded rows, saving nothing.

    A shelf item that is no longer there is left out: the plan then says that it is missing.
    """
    kind = reference_at(path)
    if kind is not None:
        setattr(_holder(run, path), f"{kind}_id", on_shelf.ids[kind].get(new))
    elif path in OWN:
        setattr(run, path, new)
    elif path == PLAN:
        _put_whole(run, new, on_shelf)
    else:
        run.document = with_change(run.document, path, new)
        fit_setups(run)


def _put_whole(run: Run, new: dict[str, Any], on_shelf: Snapshot) -> None:
    run.document = new["document"]
    fit_setups(run)
    for name in OF_THE_RUN:
        put(run, name, new[name], on_shelf)
    for item, chosen in new["setups"].items():
        for name, key in chosen.items():
            put(run, f"setups.{item}.{name}", key, on_shelf)


def fit_setups(run: Run) -> None:
    """A row for every set-up of the document; a new side starts with the chuck and jaws of the one before.

    The row of a side that was taken out stays asleep, so that putting the side back finds its jaws again.
    """
    rows = list(run.setups.all())
    known = {row.item for row in rows}
    missing = [s["id"] for s in run.document["setups"] if s["id"] not in known]
    for item in missing:
        last = next((row for row in reversed(setups_of(run))), rows[-1] if rows else None)
        rows.append(
            RunSetup(
                run=run,
                item=item,
                chuck_id=last.chuck_id if last else None,
                jaw_blank_id=last.jaw_blank_id if last else None,
                collet_id=last.collet_id if last else None,
            )
        )
    if missing:
        run._prefetched_objects_cache = {"setups": _as_queryset(rows)}  # type: ignore[attr-defined]


def _as_queryset(rows: list[RunSetup]) -> Any:
    """Rows as the prefetched answer of `run.setups.all()`, so that a preview saves nothing."""
    found = RunSetup.objects.none()
    found._result_cache = rows
    return found

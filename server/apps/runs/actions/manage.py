"""Runs on the bench: a new one, a copy, and taking one off for good."""

from __future__ import annotations

from collections.abc import Iterable
from dataclasses import dataclass, replace
from typing import Any
from uuid import UUID

from django.db import transaction

from calc.errors import CalcError, FieldError
from calc.identity import Identities
from calc.plan.document import Document, new_document, with_stock_length
from calc.plan.entry import Entry
from calc.plan.paths import with_value
from calc.quantities import Sentence, System
from calc.reading import read, write
from server.apps.house import queries as house
from server.apps.runs.actions.keep_edit import read_entry
from server.apps.runs.convert.rows import setups_of, taken_by
from server.apps.runs.convert.standing import stand_today
from server.apps.runs.models import Run, RunSetup
from server.apps.runs.queries.find import run_by_id, run_to_change
from server.apps.shelf import queries as shelf
from server.apps.shelf.queries import Taken
from server.foundation import trail
from server.foundation.problems import Conflict
from server.foundation.roles import require_planner

# Field of the form -> the document's fact that it becomes.
FIRST_FACTS = {
    "outside": "part.profile.outside",
    "inside": "part.profile.inside",
    "stock_form": "part.stock.form",
    "stock_diameter": "part.stock.diameter_mm",
    "stock_length": "part.stock.length_mm",
    "quantity": "part.quantity",
}


@dataclass(frozen=True)
class Names:
    """What a run is called, as typed."""

    name: str
    drawing_number: str


@dataclass(frozen=True)
class Form(Names):
    """What is known of a new run, as typed, machine and material by key; None or empty where it is left open."""

    machine: str | None = None
    material: str | None = None
    outside: str | None = None
    inside: str | None = None
    stock_form: str | None = None
    stock_diameter: str | None = None
    stock_length: str | None = None
    quantity: str | None = None

    def first_facts(self) -> dict[str, str]:
        """What is typed of the document's facts, by field; steps may stand on one line, apart by semicolons."""
        typed = {field: (getattr(self, field) or "").strip() for field in FIRST_FACTS}
        return {f: t.replace(";", "\n") if f in ("outside", "inside") else t for f, t in typed.items() if t}


def _entered(document: Any, path: str, text: str, system: System, ids: Identities) -> Any:
    return read_entry(document, Entry(path, text, None, system), shelf.current(), ids)


def _named(given: Names, problems: list[FieldError]) -> dict[str, str]:
    found: dict[str, str] = {}
    for field, typed in (("name", given.name), ("drawing_number", given.drawing_number)):
        try:
            found[field] = _entered({}, field, " ".join(typed.split()), "metric", Identities(UUID(int=0), ()))
        except CalcError as error:
            problems += error.errors
    return found


def _first_document(given: Form, system: System, problems: list[FieldError]) -> dict[str, Any]:
    """The plan's document with what is known, as plain data; what cannot be taken is added to the problems."""
    plain, ids = write(replace(new_document(), rules=house.current())), Identities(UUID(int=0), ("o1", "s1"))
    for field, text in given.first_facts().items():
        path = FIRST_FACTS[field]
        try:
            entered = _entered(plain, path, text, system, ids)
            if isinstance(entered, list):  # of a new plan they are called by their places
                entered = [step | {"id": ""} for step in entered]
            made = with_value(plain, path, entered)
            plain = write(with_stock_length(read(Document, made)) if field == "stock_length" else read(Document, made))
        except CalcError as error:
            problems += [FieldError(field, e.sentence) for e in error.errors]
    return dict(plain)


def _chosen(given: Form, problems: list[FieldError]) -> dict[str, int | None]:
    ids = shelf.current().ids
    found: dict[str, int | None] = {}
    for kind, key in (("machine", given.machine), ("material", given.material)):
        if key and key not in ids[kind]:
            problems.append(FieldError(kind, Sentence("Choose one that is on the shelf, or leave it open.")))
            continue
        found[f"{kind}_id"] = ids[kind][key] if key else None
    return found


@transaction.atomic
def new_run(given: Form, system: System, person: Any) -> Run:
    """Put a run on the bench with what is known of it. Raises CalcError with every field to look at."""
    require_planner(person)
    shelf.hold()
    problems: list[FieldError] = []
    names = _named(given, problems)
    document = _first_document(given, system, problems)
    chosen = _chosen(given, problems)
    if problems:
        raise CalcError(problems)
    typed = {FIRST_FACTS[f]: text for f, text in given.first_facts().items() if f != "stock_length"}
    run = Run(document=document, typed=typed, units=system, **names, **chosen)
    # A machine with one chuck leaves nothing to choose.
    chucks = shelf.chucks_of(shelf.current(), run.machine_id) if run.machine_id is not None else {}
    only = shelf.current().ids["chuck"][next(iter(chucks))] if len(chucks) == 1 else None
    return add(run, [Taken(only)])


def add(run: Run, setups: Iterable[Taken]) -> Run:
    """Save a new run with what each set-up takes, and how it stands."""
    run.save()
    ids = [setup["id"] for setup in run.document["setups"]]
    RunSetup.objects.bulk_create(
        RunSetup(
            run=run,
            item=item,
            chuck_id=t.chuck_id,
            jaw_blank_id=t.jaw_blank_id,
            jaw_set_id=t.jaw_set_id,
            collet_id=t.collet_id,
        )
        for item, t in zip(ids, setups, strict=True)
    )
    run = run_by_id(run.pk)
    on_shelf = shelf.current()
    stand_today(run, on_shelf)
    run.save()
    return run


@transaction.atomic
def copy_run(run_id: int, given: Names, person: Any) -> Run:
    """A run of its own with the same plan, under another name; its history starts anew."""
    require_planner(person)
    shelf.hold()
    source = run_by_id(run_id)
    problems: list[FieldError] = []
    names = _named(given, problems)
    if problems:
        raise CalcError(problems)
    run = Run(
        document=with_value(source.document, "route.start", None),  # the machine is on the other then
        typed=source.typed,
        units=source.units,
        machine_id=source.machine_id,
        material_id=source.material_id,
        **names,
    )
    # The copy plans its jaws anew: a jaw set is one individual.
    return add(run, [replace(taken_by(s), jaw_set_id=None) for s in setups_of(source)])


@transaction.atomic
def delete_run(run_id: int, person: Any) -> None:
    """Take a run off for good. Raises Conflict for one that was released: it is put away instead."""
    require_planner(person)
    run = run_to_change(run_id)
    if run.released_at is not None:
        raise Conflict("This run was released to the machine: its record stays. Put it away instead.")
    trail.note("run-deleted", person, f"{run.name} {run.drawing_number}")
    run.edits.all().update(reverses=None, continues=None)  # so that edits that point at each other can go together
    run.delete()

"""One fact of a run by its path: reading what was typed, and where the fact is kept."""

from __future__ import annotations

from dataclasses import dataclass
from typing import Any

from calc.errors import CalcError, FieldError, FieldProblem
from calc.fields import Flag, Spec, Text
from calc.plan.document import value_at, with_value
from calc.plan.labels import label_of, value_text
from calc.plan.stops import field_at
from calc.quantities import Sentence, System
from calc.typed import typed_value
from server.apps.runs.models import Run, RunSetup
from server.apps.runs.paths import NAMES, OF_THE_RUN, PLAN, REFERENCE, reference_kind
from server.apps.shelf.queries import Snapshot

OWN: dict[str, Spec] = {
    "name": Text("Name", "What the shop calls it", most=80),
    "drawing_number": Text("Drawing number", "As on the print", most=40),
    "put_away": Flag("Put away", "Off the bench, kept for next time"),
}
REFERENCES = {"machine": "Machine", "material": "Material", "chuck": "Chuck", "jaw_blank": "Jaw blank"}


@dataclass(frozen=True)
class Entry:
    """What a person gives for a fact: typed text, or a value picked or offered."""

    path: str
    text: str | None
    value: Any
    system: System


def read_entry(run: Run, entry: Entry, on_shelf: Snapshot) -> Any:
    """The core value of what was given. Raises CalcError at the path with what to do."""
    given = entry.value if entry.text is None else entry.text
    kind = reference_kind(entry.path)
    if kind is not None:
        key = entry.value if isinstance(entry.value, str) else entry.text
        if key not in on_shelf.ids[kind]:
            raise FieldProblem(entry.path, "Choose one that is on the shelf.")
        return key
    if entry.path in OWN:
        return typed_value(entry.path, OWN[entry.path], given, nullable=False, system=entry.system)
    try:
        field = field_at(entry.path)
        value_at(run.document, entry.path)
    except KeyError as error:
        raise FieldProblem(entry.path, "There is no such fact in this plan.") from error
    return typed_value(entry.path, field.spec, given, nullable=field.nullable, system=entry.system)


def _key_of(on_shelf: Snapshot, kind: str, pk: int | None) -> str | None:
    return next((key for key, known in on_shelf.ids[kind].items() if known == pk), None)


def current(run: Run, path: str, on_shelf: Snapshot) -> Any:
    """The value kept at a path. Raises KeyError where there is none."""
    kind = reference_kind(path)
    if kind is not None:
        return _key_of(on_shelf, kind, getattr(_holder(run, path), f"{kind}_id"))
    if path in OF_THE_RUN:
        return getattr(run, path)
    if path == PLAN:
        return whole(run, on_shelf)
    return value_at(run.document, path)


def whole(run: Run, on_shelf: Snapshot) -> dict[str, Any]:
    """The whole plan as plain data: its document, and what it takes from the shelf by key."""
    return {
        "document": run.document,
        "machine": _key_of(on_shelf, "machine", run.machine_id),
        "material": _key_of(on_shelf, "material", run.material_id),
        "setups": [
            {kind: _key_of(on_shelf, kind, getattr(s, f"{kind}_id")) for kind in ("chuck", "jaw_blank")}
            for s in run.setups.all()
        ],
    }  # fmt: skip


def _holder(run: Run, path: str) -> Run | RunSetup:
    found = REFERENCE.match(path)
    assert found is not None
    if found[1]:
        return run
    # From the run's own loaded rows, so that a preview changes what it computes with.
    setup = next((s for s in run.setups.all() if s.position == int(found[2])), None)
    if setup is None:
        raise CalcError([FieldError(path, Sentence("There is no such set-up in this plan."))])
    return setup


def put(run: Run, path: str, value: Any, on_shelf: Snapshot) -> None:
    """Set what is at a path on the loaded rows, saving nothing.

    A shelf item that is no longer there is left out: the plan then says that it is missing.
    """
    kind = reference_kind(path)
    if kind is not None:
        setattr(_holder(run, path), f"{kind}_id", on_shelf.ids[kind].get(value))
    elif path in OF_THE_RUN:
        setattr(run, path, value)
    elif path == PLAN:
        run.document = value["document"]
        for name in ("machine", "material"):
            put(run, name, value[name], on_shelf)
        for position, chosen in enumerate(value["setups"]):
            for name, key in chosen.items():
                put(run, f"setups.{position}.{name}", key, on_shelf)
    else:
        run.document = with_value(run.document, path, value)


def label(run: Run, path: str) -> str:
    """What is at a path, in words."""
    kind = reference_kind(path)
    if kind is not None:
        return REFERENCES[kind]
    if path in OWN:
        return OWN[path].label
    return "The plan" if path == PLAN else label_of(run.document, path)


def text(path: str, value: Any, on_shelf: Snapshot, system: System) -> str:
    """A value kept at a path, as it reads in a sentence."""
    kind = reference_kind(path)
    if kind is not None:
        return "none" if value is None else on_shelf.names[kind].get(value, f"{value}, no longer on the shelf")
    if path in OWN:
        return value_text(OWN[path], value, system)
    try:
        spec = field_at(path).spec
    except KeyError:
        return value_text(None, value, system)
    return value_text(spec, value, system)


def is_typed(path: str) -> bool:
    """Whether the text typed for the fact is worth keeping beside its value."""
    return reference_kind(path) is None and path not in (*NAMES, PLAN)

"""One fact of a run by its path: reading what was typed, and where the fact is kept."""

from __future__ import annotations

from dataclasses import dataclass
from typing import Any

from calc.errors import CalcError, FieldError, FieldProblem
from calc.fields import Flag, Spec, Text
from calc.plan.labels import label_of, value_text
from calc.plan.lists import LISTS, line_of, line_value, lines_value
from calc.plan.paths import value_at, with_value
from calc.plan.stops import field_at
from calc.quantities import Sentence, System
from calc.reading import write
from calc.typed import typed_value
from server.apps.house import queries as house
from server.apps.runs.models import Run, RunSetup
from server.apps.runs.paths import NAMES, OF_THE_RUN, PLAN, PROFILE, REFERENCE, RULES, reference_kind
from server.apps.shelf.queries import Snapshot

OWN: dict[str, Spec] = {
    "name": Text("Name", "What the shop calls it", most=80),
    "drawing_number": Text("Drawing number", "As on the print", most=40),
    "put_away": Flag("Put away", "Off the bench, kept for next time"),
}
REFERENCES = {
    "machine": "Machine",
    "material": "Material",
    "chuck": "Chuck",
    "jaw_blank": "Jaw blank",
    "jaw_set": "Jaw set",
}
CHOSEN = ("chuck", "jaw_blank", "jaw_set")


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
        if kind == "jaw_set" and not key:
            return None
        if key not in on_shelf.ids[kind]:
            raise FieldProblem(entry.path, "Choose one that is on the shelf.")
        return key
    if entry.path == RULES:
        return write(house.current())
    if entry.path.startswith(RULES + "."):
        raise FieldProblem(
            entry.path, "House rules are changed on their own page; here a plan departs from one, with a reason."
        )
    if entry.path in OWN:
        return typed_value(entry.path, OWN[entry.path], given, nullable=False, system=entry.system)
    if isinstance(given, str) and line_of(entry.path) is not None:
        return line_value(run.document, entry.path, given, entry.system)
    rule = LISTS.get(entry.path)
    if isinstance(given, str) and rule is not None and rule.lines:
        return lines_value(entry.path, given, entry.system)
    try:
        field = field_at(entry.path)
        value_at(run.document, entry.path)
    except KeyError as error:
        raise FieldProblem(entry.path, "There is no such fact in this plan.") from error
    # Free words may be left empty.
    if isinstance(field.spec, Text) and given == "":
        return ""
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
            {kind: _key_of(on_shelf, kind, getattr(s, f"{kind}_id")) for kind in CHOSEN} for s in setups_of(run)
        ],
    }


def _holder(run: Run, path: str) -> Run | RunSetup:
    found = REFERENCE.match(path)
    assert found is not None
    if found[1]:
        return run
    # From the run's own loaded rows, so that a preview changes what it computes with.
    setup = next((s for s in setups_of(run) if s.position == int(found[2])), None)
    if setup is None:
        raise CalcError([FieldError(path, Sentence("There is no such set-up in this plan."))])
    return setup


def setups_of(run: Run) -> list[RunSetup]:
    """The rows of the document's set-ups, in order; a row that sleeps is left out."""
    return list(run.setups.all())[: len(run.document["setups"])]


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
        _fit_setups(run)
        for name in ("machine", "material"):
            put(run, name, value[name], on_shelf)
        for position, chosen in enumerate(value["setups"]):
            for name, key in chosen.items():
                put(run, f"setups.{position}.{name}", key, on_shelf)
    else:
        run.document = with_value(run.document, path, value)
        if path == "setups":
            _fit_setups(run)


def _fit_setups(run: Run) -> None:
    """A row for every set-up of the document; a new side starts with the chuck and jaws of the one before.

    The row of a side that was taken out stays asleep, so that putting the side back finds its jaws again.
    """
    rows = list(run.setups.all())
    missing = range(len(rows), len(run.document["setups"]))
    for position in missing:
        last = rows[-1]
        rows.append(RunSetup(run=run, position=position, chuck_id=last.chuck_id, jaw_blank_id=last.jaw_blank_id))
    if missing:
        run._prefetched_objects_cache = {"setups": _as_queryset(rows)}  # type: ignore[attr-defined]


def _as_queryset(rows: list[RunSetup]) -> Any:
    """Rows as the prefetched answer of `run.setups.all()`, so that a preview saves nothing."""
    found = RunSetup.objects.none()
    found._result_cache = rows
    return found


def label(run: Run, path: str) -> str:
    """What is at a path, in words."""
    kind = reference_kind(path)
    if kind is not None:
        return REFERENCES[kind]
    if path in OWN:
        return OWN[path].label
    named = {PLAN: "The plan", PROFILE: "The part's profile", RULES: "House rules"}
    return named.get(path) or label_of(run.document, path)


def text(path: str, value: Any, on_shelf: Snapshot, system: System) -> str:
    """A value kept at a path, as it reads in a sentence."""
    kind = reference_kind(path)
    if kind is not None:
        return "none" if value is None else on_shelf.names[kind].get(value, f"{value}, no longer on the shelf")
    if path in OWN:
        return value_text(OWN[path], value, system)
    if path.endswith(".tool") and isinstance(value, str) and value:
        tool = on_shelf.tools.tool(value)
        return tool.name if tool else f"{value}, no longer on the shelf"
    if path == RULES:
        return f"revision {value['number']}"
    try:
        spec = field_at(path).spec
    except KeyError:
        return value_text(None, value, system)
    return value_text(spec, value, system)


def is_typed(path: str) -> bool:
    """Whether the text typed for the fact is worth keeping beside its value."""
    return reference_kind(path) is None and path not in (*NAMES, PLAN, PROFILE, RULES)

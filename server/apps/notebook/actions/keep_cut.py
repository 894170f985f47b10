"""Write a proven cut into the notebook, take one out, or put it back."""

from __future__ import annotations

from collections.abc import Mapping
from dataclasses import dataclass
from datetime import date
from typing import Any
from uuid import UUID

from django.db import transaction

from calc.errors import CalcError, FieldError
from calc.notebook.proven import Proven
from calc.quantities import Sentence, System
from calc.reading import read
from calc.typed import typed_value
from server.apps.notebook import convert, queries
from server.apps.notebook.models import ProvenCut
from server.apps.notebook.schemas import Entry
from server.foundation.once import digest_of, was_sent
from server.foundation.roles import require_planner, require_setter

Entries = Mapping[str, Entry]
LOOKS = ("coolant", "chip", "finish_um", "remarks")  # what is seen at the machine


def _typed(given: Entries, system: System) -> dict[str, Any]:
    """Typed entries as core values. Raises CalcError with every field that cannot be read."""
    problems, found = [], {}
    for name, entry in given.items():
        field = convert.FIELDS.get(name)
        if field is None:
            problems.append(FieldError(name, Sentence("There is no such field here.")))
            continue
        if entry in (None, "") and not field.required:
            continue
        try:
            found[name] = typed_value(name, field.spec, entry, nullable=not field.required, system=system)
        except CalcError as error:
            problems += error.errors
    if problems:
        raise CalcError(problems)
    return found


def _write(value: Proven, key: UUID, person: Any, said: str, run_name: str = "") -> ProvenCut:
    if was_sent(key, person, said):
        return queries.row_by_key(key)
    return ProvenCut.objects.create(key=key, by=person, run_name=run_name, **convert.columns(value))


@transaction.atomic
def write_cut(given: Entries, system: System, key: UUID, person: Any) -> ProvenCut:
    """Keep a cut written by hand. Raises CalcError with every field to look at."""
    setter = require_setter(person)
    return _write(read(Proven, _typed(given, system)), key, setter, digest_of("cut", given, system))


@dataclass(frozen=True)
class Seen:
    """What was seen of a cut at the machine, as it was typed, with the key that keeps it once."""

    fields: Entries
    system: System
    key: UUID


@transaction.atomic
def keep_planned(run_id: int, setup: str, cut: str, seen: Seen, person: Any) -> ProvenCut:
    """Keep a planned cut that worked, with what was seen of it. Raises CalcError, NotFound, Conflict."""
    setter = require_setter(person)
    run, figures, now = queries.planned(run_id, setup, cut)
    looked = _typed({n: v for n, v in seen.fields.items() if n in LOOKS}, seen.system)
    planned = figures.planned
    value = Proven(
        kind=planned.kind,
        material=now.material,
        speed_m_min=figures.result.speed_m_min if planned.rpm else planned.speed_m_min or figures.result.speed_m_min,
        feed_mm_rev=planned.feed_mm_rev or 0.1,
        iso_group=now.iso_group,  # type: ignore[arg-type] # a material's group is one of them
        stage=planned.stage,
        diameter_mm=now.diameter_mm,
        depth_mm=planned.depth_mm,
        machine=now.machine,
        insert=now.insert,
        holder=now.holder,
        on=date.today().isoformat(),
        **looked,
    )
    said = digest_of("planned cut", run_id, setup, cut, seen.fields, seen.system)
    return _write(value, seen.key, setter, said, f"{run.name} ({run.drawing_number}): {figures.name}"[:130])


@transaction.atomic
def keep_worked(value: Proven, key: UUID, person: Any, run_name: str) -> None:
    """Keep a cut of a run that is over, with what it came to. Raises NotAllowed."""
    setter = require_setter(person)
    _write(value, key, setter, digest_of("worked cut", run_name, convert.columns(value)), run_name[:130])


@transaction.atomic
def take_out(pk: int, person: Any) -> None:
    """Take a cut out of the notebook. Raises NotFound."""
    require_planner(person)
    _put(queries.row_by_id(pk), taken_out=True)


@transaction.atomic
def put_back(pk: int, person: Any) -> ProvenCut:
    """Put a cut that was taken out back into the notebook. Raises NotFound."""
    require_planner(person)
    return _put(queries.row_by_id(pk, taken_out=True), taken_out=False)


def _put(row: ProvenCut, *, taken_out: bool) -> ProvenCut:
    row.taken_out = taken_out
    row.save(update_fields=["taken_out"])
    return row


def figures_to_take(pk: int, person: Any) -> dict[str, float | None]:
    """What a proven cut enters into a plan. Raises NotAllowed, NotFound."""
    require_planner(person)
    value = convert.value(queries.row_by_id(pk))
    found: dict[str, float | None] = {"speed_m_min": value.speed_m_min, "rpm": None}
    if value.kind != "thread":
        found["feed_mm_rev"] = value.feed_mm_rev
    if value.depth_mm is not None and value.kind in ("turn", "face", "bore"):
        found["depth_mm"] = value.depth_mm
    return found

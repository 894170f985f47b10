"""Add an item to the shelf, change one, or take one off."""

from __future__ import annotations

from typing import Any

from django.db import transaction
from django.db.models import ProtectedError, Q
from django.utils.text import slugify

from calc.errors import CalcError, FieldError
from calc.quantities import Sentence, System
from calc.shelf.all_kinds import KINDS
from server.apps.runs.actions.follow_shelf import follow, follow_runs
from server.apps.runs.queries.find import runs, runs_that_take
from server.apps.shelf import convert
from server.apps.shelf.actions.load import renew
from server.apps.shelf.convert import Values
from server.apps.shelf.models import Item, ShelfChange
from server.apps.shelf.queries.form import Form, Given, blank_form, form_of, take
from server.apps.shelf.queries.rows import kind_named, row_by_key, rows_of
from server.apps.shelf.queries.snapshot import current, hold_to_change
from server.apps.shelf.queries.words import label, value_text
from server.foundation.models import Person
from server.foundation.problems import Conflict
from server.foundation.roles import require_planner


def _free_key(kind: str, name: str) -> str:
    stem = slugify(name)[:50] or KINDS[kind].noun.replace(" ", "-")
    taken = set(convert.model_of(kind)._default_manager.filter(key__startswith=stem).values_list("key", flat=True))
    return next(k for k in (stem, *(f"{stem}-{i}" for i in range(2, 10_000))) if k not in taken)


def check_whole(form: Form, is_taken: bool) -> None:
    """Raise CalcError with everything that keeps the form from being an item; `is_taken`: another one has its name."""
    problems = list(form.errors)
    for link in form.kind.links:
        if not link.many and not form.links[link.name]:
            noun = KINDS[link.kind].noun
            problems.append(FieldError(link.name, Sentence(f"Choose the {noun} that it belongs to.")))
    if is_taken:
        problems.append(FieldError("name", Sentence(f"There is a {form.kind.noun} of this name already.")))
    try:
        form.value()
    except CalcError as error:
        known = {p.field for p in problems}
        problems += [p for p in error.errors if p.field not in known]
    if problems:
        raise CalcError(problems)


def _is_taken(form: Form, row: Item | None) -> bool:
    same = rows_of(form.kind.name).filter(name__iexact=form.values.get("name") or "")
    if row is not None:
        same = same.exclude(pk=row.pk)
    return bool(form.values.get("name")) and same.exists()


def _refuse_overwriting(form: Form, now: Values, row: Item, base_revision: int, system: System) -> None:
    """Raise Conflict where a field given here was changed by somebody since the base."""
    since = ShelfChange.objects.filter(
        kind=form.kind.name, item_key=row.key, revision__gt=base_revision
    ).select_related("by")
    touched = {name: change.by.username for change in since.order_by("revision") for name in change.changes}
    new = form.state()
    for name in sorted(form.given & touched.keys()):
        if new[name] != now[name]:
            raise Conflict(
                f"{label(form.kind, name)}: {touched[name]} changed this since you looked. Look at both and choose.",
                field=name,
                yours=value_text(form.kind, name, new[name], system),
                theirs=value_text(form.kind, name, now[name], system),
            )


def _typical_after(form: Form, row: Item, changed: set[str], confirmed: set[str], is_new: bool) -> list[str]:
    """Fields that are still typical: a usual value that nobody gave is; what was given or confirmed is not."""
    usual = {f.name for f in form.kind.fields if not f.field.required and f.field.default not in (None, "")}
    before = usual - form.given if is_new else set(row.typical)
    return sorted(before - changed - confirmed)


@transaction.atomic
def keep_item(kind: str, key: str | None, given: Given, base_revision: int, person: Any, new_key: str = "") -> str:
    """Keep a new item (`key` None) or a change of one; gives its key. A new one may bring its own, `new_key`.

    Raises CalcError with every field to look at, Conflict where somebody changed the same field since the base.
    """
    planner = require_planner(person)
    kind_named(kind)
    hold_to_change()
    row = row_by_key(kind, key, lock=True) if key is not None else None
    form = form_of(row) if row is not None else blank_form(kind)
    before = form.state() if row is not None else {}
    take(form, given, current())
    if row is not None:
        _refuse_overwriting(form, before, row, base_revision, given.system)
    check_whole(form, _is_taken(form, row))
    form.key = form.key if row is not None else new_key or _free_key(kind, form.values["name"])
    return _keep(form, row, before, set(given.confirmed), planner)


def _keep(form: Form, row: Item | None, before: Values, confirmed: set[str], by: Person) -> str:
    """Write a form that was checked, with its history, and let the runs follow."""
    kind, is_new = form.kind, row is None
    after = form.state()
    changes = {n: [before.get(n), v] for n, v in after.items() if is_new or before.get(n) != v}
    if row is None:
        row = convert.model_of(kind.name)(key=form.key)
    typical = _typical_after(form, row, set(changes) if not is_new else set(), confirmed, is_new)
    if not changes and typical == sorted(row.typical):
        return row.key
    row.typical = typical
    row.revision += 1
    # What is sought is looked for by every run on its chucks, those that it leaves and those that it comes to.
    moved = list(runs_that_take(kind.name, row.pk).values_list("pk", flat=True)) if kind.sought and not is_new else []
    convert.write(row, kind, form.values, form.links)
    row.save()
    convert.write_parts(row, kind, form.links, form.chart)
    ShelfChange.objects.create(kind=kind.name, item_key=row.key, revision=row.revision, changes=changes, by=by)
    renew()
    if kind.sought:
        follow_runs(runs().filter(Q(pk__in=moved) | Q(pk__in=runs_that_take(kind.name, row.pk).values("pk"))))
    elif not is_new and changes:
        follow(kind.name, row.pk)
    return row.key


@transaction.atomic
def remove_item(kind: str, key: str, person: Any) -> None:
    """Take an item off the shelf. Raises Conflict while a run or another item takes it."""
    require_planner(person)
    hold_to_change()
    row = row_by_key(kind, key, lock=True)
    sought = KINDS[kind].sought
    taking = list(runs_that_take(kind, row.pk))
    if taking and not sought:
        names = ", ".join(f"{r.name} ({r.drawing_number})" for r in taking[:3])
        more = " and others" if len(taking) > 3 else ""
        raise Conflict(f"{row.name} stays: it is taken by {names}{more}. Give those another one first.")
    try:
        row.delete()
    except ProtectedError:
        raise Conflict(
            f"{row.name} stays: other things on the shelf, or gauge runs, belong to it. Give those another one first."
        ) from None
    renew()
    if sought:
        follow_runs(runs().filter(pk__in=[r.pk for r in taking]))

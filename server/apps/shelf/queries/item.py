"""A shelf item as its screen shows it: fields, chart, the runs that take it, its history; and as it would be."""

from __future__ import annotations

from collections.abc import Callable
from dataclasses import replace
from typing import Any

from calc.chuck.chart import HeightCurve, curves_at_heights, write_chart
from calc.errors import CalcError
from calc.fields import Choice, Quantity
from calc.item_kind import ItemField, Link
from calc.plan.standing import moved_words
from calc.quantities import Figure, System, exact_text, from_core, shown_as
from server.apps.runs.actions.follow_shelf import Effect, effects
from server.apps.runs.queries.find import runs_that_take
from server.apps.runs.queries.standing import as_they_stand
from server.apps.shelf import schemas
from server.apps.shelf.models import Item, JawSet
from server.apps.shelf.queries.form import Form, Given, blank_form, form_of, take
from server.apps.shelf.queries.rows import kind_named, row_by_key
from server.apps.shelf.queries.snapshot import Snapshot, current
from server.apps.shelf.queries.words import changes_of, life_of
from server.foundation.roles import PLANS, SETS, has_role, sees_drafts
from server.foundation.schemas import FieldMessage

RUNS_SHOWN = 12


def item(kind: str, key: str, system: System, person: Any) -> schemas.Item:
    """One item with its fields, chart, the runs that take it and its history. Raises NotFound."""
    row = row_by_key(kind, key)
    return _view(form_of(row), row, system, person, current())


def new_item(kind: str, system: System, person: Any) -> schemas.Item:
    """The form of an item that is not there yet. Raises NotFound for an unknown kind."""
    return _view(blank_form(kind_named(kind).name), None, system, person, current())


def preview(kind: str, key: str | None, given: Given, person: Any) -> schemas.Item:
    """The item as it would be. Nothing is kept."""
    kind_named(kind)
    row = row_by_key(kind, key) if key is not None else None
    form = form_of(row) if row is not None else blank_form(kind)
    on_shelf = current()
    take(form, given, on_shelf)
    if not form.errors:
        _add_contradictions(form, is_new=row is None)
    return _view(form, row, given.system, person, on_shelf)


def effects_of(kind: str, key: str, given: Given, tell: Callable[[int, int], None]) -> schemas.EffectsOut:
    """The plans that the item as it would be moves, and by how much; none while an entry is not in order."""
    row, on_shelf = row_by_key(kind, key), current()
    form = form_of(row)
    take(form, given, on_shelf)
    value = form.complete()
    if value is None:
        return schemas.EffectsOut(effects=[], takes=0)
    moving, takes = effects(kind, row.pk, _shelf_with(on_shelf, form, row, value), tell)
    return schemas.EffectsOut(effects=[_effect(e, given.system) for e in moving], takes=takes)


def _shelf_with(on_shelf: Snapshot, form: Form, row: Item, value: Any) -> Snapshot:
    typical_by = form.kind.typical_by
    if typical_by:
        value = replace(value, typical=typical_by in row.typical)
    return on_shelf.with_item(form.kind.name, row.pk, value)


def _add_contradictions(form: Form, *, is_new: bool) -> None:
    try:
        form.value()
    except CalcError as error:
        # Of a new item, what is not given yet is no mistake.
        form.errors += [e for e in error.errors if not is_new or e.field in form.given]


def _view(form: Form, row: Item | None, system: System, person: Any, on_shelf: Snapshot) -> schemas.Item:
    kind = form.kind
    typical = set(row.typical) if row is not None else set()
    fields = [_field(f, form.values[f.name], f.name in typical, system) for f in kind.fields]
    fields[1:1] = [_link(link, form, on_shelf) for link in kind.links]
    return schemas.Item(
        kind=kind.name,
        noun=kind.noun,
        key=row.key if row is not None else "",
        units=system,
        revision=row.revision if row is not None else 0,
        may_edit=has_role(person, PLANS),
        fields=fields,
        chart=_chart(form, system),
        errors=[FieldMessage(field=e.field, message=e.sentence.text(system)) for e in form.errors],
        runs=_taking(kind.name, row) if sees_drafts(person) else None,
        changes=changes_of(kind, row, system) if row is not None else [],
        life=life_of(row, system) if isinstance(row, JawSet) else None,
        may_note=has_role(person, SETS),
    )


def _taking(kind: str, row: Item | None) -> list[schemas.RunMoved]:
    """The runs that take an item, as they stand."""
    if row is None:
        return []
    taking = runs_that_take(kind, row.pk)[:RUNS_SHOWN]
    runs, _ = as_they_stand(taking.all)
    return [
        schemas.RunMoved(
            id=r.pk,
            name=r.name,
            drawing_number=r.drawing_number,
            text="put away" if r.put_away else "",
            verdict=r.standing["verdict"],
        )
        for r in runs
    ]


def _field(one: ItemField, value: Any, typical: bool, system: System) -> schemas.ItemField:
    spec = one.field.spec
    out = schemas.ItemField(
        name=one.name,
        label=spec.label,
        help=spec.help,
        where=getattr(spec, "where", ""),
        group=one.group,
        kind="text",
        unit="",
        value=value,
        text="",
        edit_text="",
        options=None,
        optional=one.optional,
        typical=typical,
    )
    match spec:
        case Quantity():
            shown = shown_as(spec.unit, system)
            out.kind, out.unit = "quantity", shown.unit
            if value is not None:
                # Six digits are more than any data sheet has; the field starts from the exact figure.
                out.text = Figure(float(f"{value:.6g}"), spec.unit, exact=True).number(system)
                out.edit_text = exact_text(from_core(value, spec.unit, shown))
        case Choice():
            out.kind, out.text, out.edit_text = "choice", spec.options.get(value, ""), value or ""
            out.options = [schemas.Option(value=k, label=v) for k, v in spec.options.items()]
        case _:
            out.text = out.edit_text = value or ""
    return out


def _link(link: Link, form: Form, on_shelf: Snapshot) -> schemas.ItemField:
    names, value = on_shelf.names[link.kind], form.links[link.name]
    return schemas.ItemField(
        name=link.name,
        label=link.label,
        help=link.help,
        where=link.where,
        group=form.kind.fields[0].group,
        kind="choices" if link.many else "choice",
        unit="",
        value=value,
        text=", ".join(names.get(k, k) for k in value) if link.many else names.get(value, ""),
        edit_text="",
        options=[schemas.Option(value=k, label=v) for k, v in names.items()],
        optional=link.many,
        typical=False,
    )


def _chart(form: Form, system: System) -> schemas.ChuckChart | None:
    if not form.kind.chart:
        return None
    value = form.complete()
    curves = curves_at_heights(value.force, value.jaws) if value is not None else ()
    return schemas.ChuckChart(
        text=write_chart(form.chart, system),
        pressure_unit=shown_as("bar", system).unit,
        grip_unit=shown_as("N", system).unit,
        points=_points(form.chart, system),
        curves=[_curve(c, system) for c in curves],
    )


def _points(points: Any, system: System) -> list[list[float]]:
    p_shown, g_shown = shown_as("bar", system), shown_as("N", system)
    return [[round(from_core(p, "bar", p_shown), 4), round(from_core(g, "N", g_shown), 4)] for p, g in points]


def _curve(curve: HeightCurve, system: System) -> schemas.HeightCurve:
    height = Figure(curve.height_mm, "mm", exact=True).text(system) if curve.height_mm > 0 else "the nose"
    return schemas.HeightCurve(
        height=height,
        where=f"{height} above the guide" if curve.height_mm > 0 else "at the nose",
        points=_points(curve.points, system),
        text=curve.sentence.text(system),
        overload=curve.overload,
    )


def _effect(effect: Effect, system: System) -> schemas.RunMoved:
    told = moved_words(effect.headlines, system)
    was, now = effect.verdict
    told += [f"{was}, then {now}"] if was != now else []
    run = effect.run
    return schemas.RunMoved(
        id=run.pk, name=run.name, drawing_number=run.drawing_number, text=", ".join(told), verdict=now
    )

"""Shelf items as the screens show them: the list, one item with its fields, chart, runs and history."""

from __future__ import annotations

from typing import Any

from django.db.models import Count, QuerySet, Value

from calc.chuck.chart import HeightCurve, curves_at_heights, write_chart
from calc.errors import CalcError
from calc.fields import Choice, Quantity, Spec
from calc.plan.labels import value_text as spec_text
from calc.plan.standing import moved_words
from calc.quantities import Figure, System, exact_text, from_core, shown_as
from calc.shelf.items import KINDS, NOUNS, TITLES, ItemField, item_fields
from calc.tools.records import TOOL_KINDS
from server.apps.runs.actions.follow_shelf import Effect, effects
from server.apps.runs.queries.find import runs_that_take
from server.apps.shelf import convert
from server.apps.shelf.form import LINKS, Form, Given, blank_form, form_of, take
from server.apps.shelf.models import Item, JawSet, ShelfChange
from server.apps.shelf.snapshot import Snapshot, current
from server.foundation.problems import NotFound
from server.foundation.roles import PLANS, SETS, has_role

CHANGES_SHOWN = 20
LINK_LABELS = {
    "machine": ("On machine", "The lathe that it is mounted on", "Where you mounted it"),
    "chucks": ("Fits chucks", "The chucks whose master jaws take it", "Serration pitch and bolt spacing must agree"),
    "chuck": ("Bored on", "The chuck it was cut on; only there is it refitted without cutting", "The jaws' own mark"),
    "blank": ("Made from", "The blank it was", "Its size tells"),
}
TAKEN_BY = {"machine": "run", "material": "run", "chuck": "runsetup", "jaw_blank": "runsetup", "jaw_set": "runsetup"}
LIFE_WORDS = {
    "bored": "bored",
    "recut": "re-cut",
    "refit": "refitted",
    "lent": "lent",
    "back": "came back",
    "damaged": "damaged",
}
CHART_LABEL = "Chart of grip against pressure"


def rows_of(kind: str) -> QuerySet[Any]:
    """The rows of a kind. Raises NotFound."""
    if kind not in KINDS:
        raise NotFound("There is no such shelf.")
    rows: QuerySet[Any] = convert.MODELS[kind]._default_manager.all()
    if kind in TOOL_KINDS:
        return rows.filter(kind=kind)
    if kind == "chuck":
        rows = rows.select_related("machine").prefetch_related("chart")
    if kind == "jaw_set":
        rows = rows.select_related("chuck", "blank")
    return rows.prefetch_related("chucks") if kind in ("jaw_blank", "ring", "plug") else rows


def row_by_key(kind: str, key: str, *, lock: bool = False) -> Item:
    """One row; with `lock`, held until the transaction ends. Raises NotFound."""
    rows = rows_of(kind).filter(key=key)
    # Of the row itself only: the machine beside it is not changed.
    row = (rows.select_for_update(of=("self",)) if lock else rows).first() if "\x00" not in key else None
    if row is None:
        raise NotFound(f"There is no such {NOUNS[kind]} on the shelf.")
    return row  # type: ignore[no-any-return]


def _spec(kind: str, name: str) -> Spec | None:
    return next((f.field.spec for f in item_fields(kind) if f.name == name), None)


def label(kind: str, name: str) -> str:
    """What a field of an item is called."""
    spec = _spec(kind, name)
    return spec.label if spec else LINK_LABELS[name][0] if name in LINK_LABELS else CHART_LABEL


def value_text(kind: str, name: str, value: Any, system: System) -> str:
    """How a field's value reads in a sentence."""
    if name == "chart":
        return f"{len(value)} points" if value else "no points"
    if isinstance(value, list):
        return ", ".join(value) or "none"
    return spec_text(_spec(kind, name), value, system)


def shelf() -> list[dict[str, Any]]:
    """Every kind with its items, how many of their figures are typical, and how many runs take each."""
    found = []
    for kind, title in TITLES.items():
        taken = TAKEN_BY.get(kind)
        rows = rows_of(kind).annotate(taken=Count(taken, distinct=True) if taken else Value(0))
        found.append(
            {
                "kind": kind,
                "title": title,
                "noun": NOUNS[kind],
                "items": [
                    {"key": r.key, "name": r.name, "line": _line(kind, r), "typical": len(r.typical), "runs": r.taken}
                    for r in rows
                ],
            }
        )
    return found


def _tool_line(kind: str, row: Any) -> str:
    """A tool in a line: what tells it from the next one."""
    f = row.figures
    stock = f"{f['stock']} in stock" if f.get("stock") else "none in stock"
    match kind:
        case "insert":
            return f"{f['code']} · {f['application']} · {stock}"
        case "groove_insert" | "thread_insert":
            return f"seat {f['seat']} · {f['application']} · {stock}"
        case "drill":
            return f"Ø{exact_text(f['diameter_mm'])} · {exact_text(f['reach_mm'])} mm deep · {stock}"
        case "blade":
            return f"seat {f['seat']} · hangs out {exact_text(f['reach_mm'])} mm"
    reach = f" · reaches {exact_text(f['reach_mm'])} mm" if f.get("reach_mm") else ""
    return f"seat {f['seat']} · {f.get('side', 'outside')} · {exact_text(f['shank_mm'])} mm{reach}"


def _line(kind: str, row: Any) -> str:
    if kind in TOOL_KINDS:
        return _tool_line(kind, row)
    match kind:
        case "machine":
            return f"{Figure(row.max_rpm, 'rpm').text()} · {Figure(row.power_kw, 'kW', exact=True).text()}"
        case "chuck":
            grip, rpm = Figure(row.max_grip_n, "N", "down").text(), Figure(row.max_rpm, "rpm").text()
            return f"{row.machine.name} · {grip} · {rpm}"
        case "jaw_blank":
            across = f"{exact_text(row.angle_deg)}° pie" if row.kind == "pie" else exact_text(row.width_mm)
            return f"{row.metal} · {across} × {exact_text(row.length_mm)} × {exact_text(row.height_mm)} mm"
        case "jaw_set":
            held = f", since then on {row.lent_to}" if row.lent_to else ""
            way = "outside" if row.side == "od" else "inside"
            return f"{way} Ø{exact_text(row.bored_mm)} · {exact_text(row.wall_left_mm)} mm of wall left{held}"
        case "ring":
            limits = (
                f"{Figure(row.max_bar, 'bar').text()}, {Figure(row.max_rpm, 'rpm').text()}"
                if row.max_bar and row.max_rpm
                else "no limits on record"
            )
            return f"Ø{exact_text(row.inner_mm)} / Ø{exact_text(row.outer_mm)} · {limits}"
        case "plug":
            return f"Ø{exact_text(row.diameter_mm)}"
    low, high = Figure(row.speed_low_m_min, "m/min").number(), Figure(row.speed_high_m_min, "m/min").text()
    return f"ISO {row.iso_group} · {low} to {high}"


def _field(one: ItemField, value: Any, typical: bool, system: System) -> dict[str, Any]:
    spec = one.field.spec
    out: dict[str, Any] = {
        "name": one.name,
        "label": spec.label,
        "help": spec.help,
        "where": getattr(spec, "where", ""),
        "group": one.group,
        "kind": "text",
        "unit": "",
        "value": value,
        "text": value or "",
        "edit_text": value or "",
        "options": None,
        "optional": one.field.nullable or one.field.default == "",
        "typical": typical,
    }
    match spec:
        case Quantity():
            shown = shown_as(spec.unit, system)
            out |= {"kind": "quantity", "unit": shown.unit, "text": "", "edit_text": ""}
            if value is not None:
                # Six digits are more than any data sheet has; the field starts from the exact figure.
                out["text"] = Figure(float(f"{value:.6g}"), spec.unit, exact=True).number(system)
                out["edit_text"] = exact_text(from_core(value, spec.unit, shown))
        case Choice():
            out |= {"kind": "choice", "text": spec.options.get(value, "")}
            out["options"] = [{"value": k, "label": v} for k, v in spec.options.items()]
    return out


def _links(kind: str, form: Form, on_shelf: Snapshot) -> list[dict[str, Any]]:
    fields = []
    for link in LINKS.get(kind, ()):
        title, meaning, where = LINK_LABELS[link.name]
        names, value = on_shelf.names[link.kind], form.links[link.name]
        shown = ", ".join(names.get(k, k) for k in value) if link.many else names.get(value, "")
        fields.append(
            {
                "name": link.name,
                "label": title,
                "help": meaning,
                "where": where,
                "group": item_fields(kind)[0].group,
                "kind": "choices" if link.many else "choice",
                "unit": "",
                "value": value,
                "text": shown,
                "edit_text": "",
                "options": [{"value": k, "label": v} for k, v in names.items()],
                "optional": link.many,
                "typical": False,
            }
        )
    return fields


def _curve(curve: HeightCurve, system: System) -> dict[str, Any]:
    def force(n: float) -> float:
        return round(from_core(n, "N", shown_as("N", system)), 4)

    def pressure(bar: float) -> float:
        return round(from_core(bar, "bar", shown_as("bar", system)), 4)

    return {
        "height": Figure(curve.height_mm, "mm", exact=True).text(system),
        "points": [[pressure(p), force(g)] for p, g in curve.points],
        "text": curve.sentence.text(system),
        "overload": curve.overload,
    }


def _chart(form: Form, system: System) -> dict[str, Any] | None:
    if form.kind != "chuck":
        return None
    value = form.complete()
    curves = curves_at_heights(value.force, value.jaws) if value is not None else ()
    return {
        "text": write_chart(form.chart, system),
        "pressure_unit": shown_as("bar", system).unit,
        "grip_unit": shown_as("N", system).unit,
        "points": _curve_points(form, system),
        "curves": [_curve(c, system) for c in curves],
    }


def _curve_points(form: Form, system: System) -> list[list[float]]:
    p_shown, g_shown = shown_as("bar", system), shown_as("N", system)
    return [[round(from_core(p, "bar", p_shown), 4), round(from_core(g, "N", g_shown), 4)] for p, g in form.chart]


def _effect(effect: Effect, system: System) -> dict[str, Any]:
    told = moved_words(effect.headlines, system)
    was, now = effect.verdict
    told += [f"{was}, then {now}"] if was != now else []
    run = effect.run
    return {
        "id": run.pk,
        "name": run.name,
        "drawing_number": run.drawing_number,
        "text": ", ".join(told),
        "verdict": now,
    }


def _view(form: Form, row: Item | None, system: System, person: Any, on_shelf: Snapshot) -> dict[str, Any]:
    kind = form.kind
    typical = set(row.typical) if row is not None else set()
    fields = [_field(f, form.values[f.name], f.name in typical, system) for f in item_fields(kind)]
    fields[1:1] = _links(kind, form, on_shelf)
    taking = list(runs_that_take(kind, row.pk)[:12]) if row is not None else []
    return {
        "kind": kind,
        "noun": NOUNS[kind],
        "key": row.key if row is not None else "",
        "units": system,
        "revision": row.revision if row is not None else 0,
        "may_edit": has_role(person, PLANS),
        "fields": fields,
        "chart": _chart(form, system),
        "errors": [{"field": e.field, "message": e.sentence.text(system)} for e in form.errors],
        "effects": [],
        "takes": len(taking),
        "runs": [
            {
                "id": r.pk,
                "name": r.name,
                "drawing_number": r.drawing_number,
                "text": "put away" if r.put_away else "",
                "verdict": r.standing.get("verdict", "open"),
            }
            for r in taking
        ],
        "changes": _changes(kind, row, system) if row is not None else [],
        "life": _life(row, system) if isinstance(row, JawSet) else None,
        "may_note": has_role(person, SETS),
    }


def _life(row: JawSet, system: System) -> list[dict[str, Any]]:
    """What happened to a jaw set, the newest first."""
    found = []
    for e in row.life.select_related("by"):
        size = f", to {Figure(e.size_mm, 'mm', places=(3, 4)).text(system)}" if e.size_mm is not None else ""
        taken = f", {Figure(e.removal_mm, 'mm', places=(3, 4)).text(system)} a side" if e.removal_mm is not None else ""
        said = f": {e.note}" if e.note else ""
        found.append(
            {"text": f"{LIFE_WORDS[e.what]}{size}{taken}{said}", "on": e.on, "by": e.by.username if e.by else ""}
        )
    return found


def _changes(kind: str, row: Item, system: System) -> list[dict[str, Any]]:
    rows = ShelfChange.objects.filter(kind=kind, item_key=row.key).select_related("by")[:CHANGES_SHOWN]
    return [{"text": _change_text(kind, c, system), "by": c.by.username, "at": c.at} for c in rows]


def _change_text(kind: str, change: ShelfChange, system: System) -> str:
    if change.revision == 1 and all(old is None for old, _ in change.changes.values()):
        return "put on the shelf"
    told = [
        f"{label(kind, name)} {value_text(kind, name, old, system)} → {value_text(kind, name, new, system)}"
        for name, (old, new) in change.changes.items()
    ]
    return ", ".join(told) or "figures confirmed as the shop's own"


def item(kind: str, key: str, system: System, person: Any) -> dict[str, Any]:
    """One item with its fields, chart, the runs that take it and its history. Raises NotFound."""
    row = row_by_key(kind, key)
    return _view(form_of(kind, row), row, system, person, current())


def new_item(kind: str, system: System, person: Any) -> dict[str, Any]:
    """The form of an item that is not there yet. Raises NotFound for an unknown kind."""
    rows_of(kind)
    return _view(blank_form(kind), None, system, person, current())


def preview(kind: str, key: str | None, given: Given, person: Any) -> dict[str, Any]:
    """The item as it would be, with the runs that would move and by how much. Nothing is kept."""
    rows_of(kind)
    row = row_by_key(kind, key) if key is not None else None
    form = form_of(kind, row) if row is not None else blank_form(kind)
    on_shelf = current()
    take(form, given, on_shelf)
    if not form.errors:
        _add_contradictions(form, is_new=row is None)
    view = _view(form, row, given.system, person, on_shelf)
    value = form.complete()
    if row is not None and value is not None:
        moving, takes = effects(kind, row.pk, _shelf_with(on_shelf, form, row, value))
        view |= {"effects": [_effect(e, given.system) for e in moving], "takes": takes}
    return view


def _shelf_with(on_shelf: Snapshot, form: Form, row: Item, value: Any) -> Snapshot:
    if form.kind == "material":
        value = value.__class__(**{**value.__dict__, "typical": "kc11" in row.typical})
    return on_shelf.with_item(form.kind, row.pk, value)


def _add_contradictions(form: Form, *, is_new: bool) -> None:
    try:
        form.value()
    except CalcError as error:
        # Of a new item, what is not given yet is no mistake.
        form.errors += [e for e in error.errors if not is_new or e.field in form.given]

"""A run's rows as the core's values, and the core's result as what the screen is sent."""

from __future__ import annotations

from collections.abc import Callable
from dataclasses import replace
from typing import Any

from calc.errors import FieldError
from calc.fields import Choice, Flag, Group, Quantity
from calc.plan.chart import ForceChart
from calc.plan.compute import Carry, PlanResult
from calc.plan.document import Document
from calc.plan.lists import LISTS, ListRule, as_lines
from calc.plan.paths import value_at
from calc.plan.stops import Answer, Fact, Stop, Table
from calc.profile.lines import write_line
from calc.quantities import Beside, Figure, Sentence, Shown, System, exact_text, from_core, grouped, shown_as
from calc.reading import read
from calc.scene.shapes import Scene
from calc.shelf.taken import Shelf
from calc.working import Step
from server.apps.gauge.known import measured, today
from server.apps.runs import facts
from server.apps.runs.models import Run
from server.apps.runs.pictures import picture_view
from server.apps.shelf import queries as shelf
from server.apps.shelf.queries import Snapshot

PRETTY_UNITS = {"kg*mm": "kg·mm", "mm3": "mm³", "N*m": "N·m", "um": "µm", "deg": "°", "mm2": "mm²"}


def document_of(run: Run) -> Document:
    """The run's plan document. Raises CalcError where it contradicts itself."""
    return read(Document, run.document)  # type: ignore[no-any-return]


def shelf_of(run: Run, on_shelf: Snapshot) -> Shelf:
    """What the run takes from the shelf, as values."""
    found = measured(on_shelf.token)
    return Shelf(
        None if run.machine_id is None else on_shelf.machines[run.machine_id],
        None if run.material_id is None else on_shelf.materials[run.material_id],
        tuple(
            replace(
                shelf.setup_shelf(on_shelf, run.machine_id, s.chuck_id, s.jaw_blank_id, s.jaw_set_id),
                calibration=found.calibration(s.chuck_id, s.jaw_set_id),
                greased_on=found.greased.get(s.chuck_id or 0),
            )
            for s in facts.setups_of(run)
        ),
        on_shelf.tools,
        today(),
    )


May = Callable[[str], bool]


def _fact(fact: Fact, system: System, typed: dict[str, str], may: May) -> dict[str, Any]:
    out: dict[str, Any] = {
        "editable": fact.path is not None and may(fact.path),
        "name": fact.name,
        "label": fact.label,
        "path": fact.path,
        "group": fact.group,
        "basis": fact.basis,
        "source": fact.source.text(system),
        "optional": fact.optional,
        "unit": "",
        "text": "",
        "edit_text": "",
        "value": None,
        "options": None,
        "kind": "quantity",
        "help": fact.spec.help,
        "typed": typed.get(fact.path or ""),
        "pin_path": may_take(fact.pin_path, may),
        "pinned": fact.pinned,
    }
    spec, value = fact.spec, fact.value
    match spec:
        case Quantity():
            figure = Figure(0.0 if value is None else value, spec.unit, fact.rounding, fact.places or spec.places)
            out["unit"] = figure.unit_shown(system)
            if value is not None:
                whole = spec.whole or (spec.unit == "" and fact.path is None and float(value).is_integer())
                out["text"] = Figure(value, spec.unit, exact=True).number(system) if whole else figure.number(system)
                if fact.path:
                    out["edit_text"] = exact_text(from_core(value, spec.unit, shown_as(spec.unit, system)))
        case Group():
            out |= {
                "kind": "line",
                "text": write_line(value, system, named=False),
                "edit_text": write_line(value, system),
            }
        case Choice():
            out |= {"kind": "choice", "value": value, "text": spec.options.get(value, "") if value else ""}
            out["options"] = [{"value": k, "label": v} for k, v in spec.options.items()]
        case Flag():
            out |= {"kind": "flag", "value": value, "text": "yes" if value else "no"}
        case _:
            out |= {"kind": "text", "text": value or "", "edit_text": value or ""}
    return out


def _step(step: Step) -> dict[str, Any]:
    plain = step.as_dict()
    plain["value"] = grouped(exact_text(float(f"{step.value:.6g}")))
    plain["unit"] = PRETTY_UNITS.get(step.unit, step.unit)
    return plain


def _answer(answer: Answer, system: System) -> dict[str, Any]:
    figure, bar = answer.figure, answer.bar
    return {
        "name": answer.name,
        "label": answer.label,
        "prefix": answer.prefix,
        "number": figure.number(system) if figure else "",
        "unit": answer.words.text(system) if answer.words else figure.unit_shown(system) if figure else "",
        "below": answer.below.text(system) if answer.below else "",
        "steps": [_step(s) for s in answer.steps],
        "bar": {"share": bar.share, "mark": bar.mark, "mark_label": bar.mark_label.text(system)} if bar else None,
    }


def messages(problems: tuple[FieldError, ...], system: System) -> list[dict[str, str]]:
    """Field errors in words."""
    return [{"field": p.field, "message": p.sentence.text(system)} for p in problems]


def _list(rule: ListRule, run: Run, system: System, may: May) -> dict[str, Any]:
    items = value_at(run.document, rule.path)
    names = [item["name"] for item in items]
    may_here = may(rule.path)
    return {
        "path": rule.path,
        "noun": rule.noun,
        "named": rule.named,
        "kind_label": rule.kind_label,
        "title": rule.title,
        "items": names,
        "lines": as_lines(items, system) if rule.lines else None,
        "may_add": may_here and len(names) < rule.most,
        "removable_from": max(rule.fixed, rule.least) if may_here else len(names),
        "kinds": [{"value": k, "label": v} for k, v in rule.kinds.items()],
    }


def _stop(stop: Stop, system: System, run: Run, may: May) -> dict[str, Any]:
    return {
        "key": stop.key,
        "name": stop.name,
        "setup": stop.setup,
        "title": stop.title,
        "state": stop.state,
        "line": stop.line.text(system),
        "lists": [
            _list(rule, run, system, may)
            for rule in LISTS.values()
            if rule.stop == stop.name and rule.setup in (None, stop.setup)
        ],
        "tables": [_table(t, system, may) for t in stop.tables],
        "pictures": [picture_view(p, system) for p in stop.pictures],
        "procedures": [{"title": p.title, "steps": [s.text(system) for s in p.steps]} for p in stop.procedures],
        "facts": [_fact(f, system, run.typed, may) for f in stop.facts],
        "answers": [_answer(a, system) for a in stop.answers],
        "notes": [{"level": n.level, "code": n.code, "text": n.sentence.text(system)} for n in stop.notes],
        "helps": [
            {
                "label": h.label.text(system),
                "path": h.path,
                "value": h.value,
                "outcome": h.outcome.text(system),
                "settles": h.settles,
                "takable": may(h.path),
            }
            for h in stop.helps
        ],
        "problems": messages(stop.problems, system),
    }


def _cell(cell: Figure | Sentence, system: System) -> str:
    return cell.text(system)


def table_view(table: Table, system: System) -> dict[str, Any]:
    """A table to look at."""
    return _table(table, system, lambda _: False)


def _table(table: Table, system: System, may: May) -> dict[str, Any]:
    return {
        "name": table.name,
        "title": table.title,
        "group": table.group,
        "head": list(table.head),
        "rows": [
            {
                "label": r.label,
                "cells": [_cell(c, system) for c in r.cells],
                "chosen": r.chosen,
                "path": r.path,
                "value": r.value,
                "takable": r.path is not None and not r.chosen and may(r.path),
                "why_not": r.why_not.text(system) if r.why_not else "",
            }
            for r in table.rows
        ],
    }


def _point(p: tuple[float, float]) -> list[float]:
    return [round(p[0], 3), round(p[1], 3)]


def _scene(scene: Scene, system: System) -> dict[str, Any]:
    return {
        "shapes": [
            {
                "name": s.name,
                "role": s.role,
                "points": [_point(p) for p in s.points],
                "closed": s.closed,
                "facts": list(s.facts),
                "stops": list(s.stops),
            }
            for s in scene.shapes
        ],
        "dimensions": [
            {
                "name": d.name,
                "fact": d.fact,
                "start": _point(d.start),
                "end": _point(d.end),
                "offset": d.offset,
                "text": f"{d.prefix}{d.figure.number(system)}{d.suffix}",
                "stops": list(d.stops),
                "outside": d.outside,
            }
            for d in scene.dimensions
        ],
        "labels": [
            {
                "point": _point(x.point),
                "text": x.text.text(system),
                "fact": x.fact,
                "stops": list(x.stops),
                "anchor": x.anchor,
            }
            for x in scene.labels
        ],
        "words": [w.text(system) for w in scene.words],
        "name": scene.name,
        "title": scene.title,
        "stops": list(scene.stops),
    }


def _chart(chart: ForceChart, system: System, may: May) -> dict[str, Any]:
    shown: Shown = shown_as("N", system)

    def force(n: float) -> float:
        return round(from_core(n, "N", shown), 4)

    def line(points: tuple[tuple[float, float], ...]) -> list[list[float]]:
        return [[round(x, 2), force(y)] for x, y in points]

    bar = shown_as("bar", system)
    return {
        "unit": shown.unit,
        "rpm_most": chart.rpm_most,
        "force_most": force(chart.force_most_n),
        "curves": [{"name": c.name, "label": c.label, "points": line(c.points)} for c in chart.curves],
        "demand": line(chart.demand),
        "demand_corner": line(chart.demand_corner),
        "demand_text": Figure(chart.demand_n, "N", "up").text(system),
        "static_text": Figure(chart.curves[0].points[0][1], "N", "down").text(system),
        "allowable": force(chart.allowable_n),
        "allowable_text": Figure(chart.allowable_n, "N", "down").text(system),
        "cap": chart.cap_rpm,
        "cap_force": force(chart.cap_n),
        "cap_text": Figure(chart.cap_rpm, "rpm", "down").number(),
        "wall": None if chart.wall_n is None else force(chart.wall_n),
        "wall_text": "" if chart.wall_n is None else Figure(chart.wall_n, "N", "down").text(system),
        "top": chart.top_rpm,
        "top_text": Figure(chart.top_rpm, "rpm", "up").number(),
        "pressures": [[round(from_core(p, "bar", bar), 4), force(n)] for p, n in chart.pressures],
        "pressure": round(from_core(chart.pressure_bar, "bar", bar), 4),
        "pressure_unit": bar.unit,
        "pressure_path": may_take(chart.pressure_path, may),
        "speed_path": may_take(chart.speed_path, may),
    }


def may_take(path: str | None, may: May) -> str | None:
    """The path where it may be changed, else None."""
    return path if path is not None and may(path) else None


def _carry(carry: Carry, system: System) -> dict[str, str | None]:
    pressure = carry.pressure
    both = f"{pressure.text(system)} · {Beside(pressure).text(system)}" if pressure else None
    rest = {"clamp": carry.clamp, "bore": carry.bore, "depth": carry.depth}
    return {"pressure": both} | {name: figure.text(system) if figure else None for name, figure in rest.items()}


def plan_view(run: Run, result: PlanResult, on_shelf: Snapshot, system: System, may: May) -> dict[str, Any]:
    """Everything the plan screen shows, in one unit system; `may` tells which paths may be changed."""
    return {
        "run": run_view(run, on_shelf),
        "revision": run.revision,
        "units": system,
        "verdict": result.verdict,
        "may_edit": may("plan"),
        "stops": [_stop(s, system, run, may) for s in result.stops],
        "sides": [
            {
                "index": s.index,
                "title": s.title,
                "end": s.end,
                "verdict": s.verdict,
                "carry": _carry(s.carry, system),
                "scenes": [_scene(x, system) for x in s.scenes],
                "chart": _chart(s.chart, system, may) if s.chart else None,
                "program": {"ready": s.program.ready, "reasons": [r.text(system) for r in s.program.reasons]},
            }
            for s in result.sides
        ],
    }


def run_view(run: Run, on_shelf: Snapshot) -> dict[str, Any]:
    """The run's name plate."""
    return _plate(run) | {
        "machine": "" if run.machine_id is None else on_shelf.machines[run.machine_id].name,
        "quantity": run.document["part"].get("quantity"),
        "setup": ", ".join(s["name"] for s in run.document["setups"]),
    }


def _plate(run: Run) -> dict[str, Any]:
    return {
        "id": run.pk,
        "drawing_number": run.drawing_number,
        "name": run.name,
        "units": run.units,
        "revision": run.revision,
        "changed_at": run.changed_at,
        "put_away": run.put_away,
        "released": run.released_at is not None,
    }


def bench_row(run: Run, on_shelf: Snapshot) -> dict[str, Any]:
    """A run on the bench, from what is kept of how it stands: nothing is computed."""
    kept = run.standing
    return run_view(run, on_shelf) | {name: kept[name] for name in ("verdict", "needs", "lines")}

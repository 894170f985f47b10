"""Reads of runs: one plan computed, as it is or as it was, and its name plate."""

from __future__ import annotations

from dataclasses import replace
from typing import Any

from django.db.models import Q, QuerySet, TextField
from django.db.models.functions import Cast

from calc.errors import FieldError
from calc.plan.compute import PlanResult, compute
from calc.plan.contact_table import contact_table
from calc.plan.cuts import CutFigures
from calc.plan.exact_table import exact_table
from calc.plan.part import PartFigures
from calc.plan.program import written
from calc.plan.solve import solve
from calc.plan.standing import HEADLINES, headline_text, moved, standing, standing_of
from calc.profile.drawing import write_dxf, write_svg
from calc.quantities import System
from calc.shelf.tools import TOOL_KINDS
from calc.tools.choose import every_tool
from calc.tools.other_rules import BOOKS
from server.apps.house import queries as house
from server.apps.runs import convert, facts
from server.apps.runs.models import Edit, Release, Run
from server.apps.runs.own_edits import own_edits
from server.apps.runs.paths import may_change
from server.apps.shelf import queries as shelf
from server.apps.shelf.queries import Snapshot
from server.foundation.models import Person
from server.foundation.problems import Conflict, NotFound

# Rings and plugs are looked for among all that fit the chuck: a change of one can move any run on it.
TAKEN_THROUGH = {
    "machine": ("machine_id",),
    "material": ("material_id",),
    "chuck": ("setups__chuck_id",),
    "jaw_blank": ("setups__jaw_blank_id", "setups__jaw_set__blank_id"),
    "jaw_set": ("setups__jaw_set_id",),
    "ring": ("setups__chuck__rings",),
    "plug": ("setups__chuck__plugs",),
}


def runs() -> QuerySet[Run]:
    """Runs with their set-ups."""
    return Run.objects.prefetch_related("setups")


def runs_that_take(kind: str, item_id: int) -> QuerySet[Run]:
    """Runs that take a shelf item, each once."""
    if kind in TOOL_KINDS:
        return _that_use(item_id)
    found = Q()
    for path in TAKEN_THROUGH[kind]:
        found |= Q(**{path: item_id})
    return runs().filter(pk__in=Run.objects.filter(found).values("pk"))


def _that_use(tool_id: int) -> QuerySet[Run]:
    """Runs whose document names a tool."""
    key = shelf.tool_key(tool_id)
    named = (
        Run.objects.annotate(written=Cast("document", TextField())).filter(written__contains=key)
        if key
        else Run.objects.none()
    )
    return runs().filter(pk__in=named.values("pk"))


def run_by_id(run_id: int, *, lock: bool = False) -> Run:
    """One run; with `lock`, nobody else changes it until the transaction ends. Raises NotFound."""
    rows = runs().select_for_update() if lock else runs()
    run = rows.filter(pk=run_id).first() if run_id < 2**63 else None
    if run is None:
        raise NotFound("There is no such run on the bench.")
    return run


def revision_of(run_id: int) -> int:
    """A run's revision, and nothing else. Raises NotFound."""
    found = Run.objects.filter(pk=run_id).values_list("revision", flat=True).first() if run_id < 2**63 else None
    if found is None:
        raise NotFound("There is no such run on the bench.")
    return found


def computed(run: Run, on_shelf: Snapshot) -> PlanResult:
    """The run's plan. Raises CalcError where its document contradicts itself."""
    options = {
        "machine": on_shelf.names["machine"],
        "material": on_shelf.names["material"],
        "chuck": shelf.chucks_of(on_shelf, run.machine_id),
    }
    return compute(convert.document_of(run), convert.shelf_of(run, on_shelf), options)


def plan_of(run: Run, result: PlanResult, on_shelf: Snapshot, system: System, person: Any) -> dict[str, Any]:
    """A computed plan as the screen is sent it."""
    mine = own_edits(run, person) if isinstance(person, Person) else None
    can = {"undo": bool(mine and mine.undo), "redo": bool(mine and mine.redo)}
    view = convert.plan_view(run, result, on_shelf, system, lambda path: not run.put_away and may_change(person, path))
    return view | can | {"at": None, "rules": _rules(run, result, on_shelf, system), "release": released(run)}


def released(run: Run) -> dict[str, Any] | None:
    """Who released the plan last, and which draft; None where nobody did."""
    if run.released_at is None:
        return None
    last = run.releases.select_related("by").defer("views", "programs", "document").first()
    return release_plate(last) if last else None


def release_plate(release: Release) -> dict[str, Any]:
    """Who released what, when."""
    return {
        "number": release.number,
        "revision": release.revision,
        "rules": release.rules,
        "by": release.by.username,
        "at": release.at,
        "note": release.note,
        "confirmed": [c["text"] for c in release.confirmed],
    }


def _rules(run: Run, result: PlanResult, on_shelf: Snapshot, system: System) -> dict[str, Any]:
    """The house rules that the plan was computed under, and what would change under today's."""
    document, today = convert.document_of(run), house.current()
    found = {"number": document.rules.number, "today": today.number, "changes": [], "moves": []}
    if document.rules.number == today.number:
        return found
    now, then = standing_of(result), standing(replace(document, rules=today), convert.shelf_of(run, on_shelf))
    moves = [
        f"{HEADLINES[name][0]} {headline_text(name, pair[0], system)} → {headline_text(name, pair[1], system)}"
        for name, pair in moved(now.headlines, then.headlines).items()
    ]
    if now.verdict != then.verdict:
        moves.append(f"{now.verdict}, then {then.verdict}")
    return found | {"changes": house.changes(document.rules, today), "moves": moves}


def plan(run: Run, system: System, person: Any) -> dict[str, Any]:
    """The plan as the screen is sent it."""
    on_shelf = shelf.current()
    return plan_of(run, computed(run, on_shelf), on_shelf, system, person)


def _as_of(run: Run, revision: int, on_shelf: Snapshot) -> None:
    """Take the loaded run back to a revision: every later edit is taken back, the newest first. Saves nothing."""
    if not 0 <= revision <= run.revision:
        raise NotFound("There is no such draft of this run.")
    later = Edit.objects.filter(run=run, revision__gt=revision).order_by("-revision")
    try:
        for path, old in later.values_list("path", "old"):
            facts.put(run, path, old, on_shelf)
    except KeyError as error:
        raise NotFound("This draft was kept in an older form that cannot be shown any more.") from error


def plan_at(run: Run, revision: int, system: System) -> dict[str, Any]:
    """The plan as it was at a revision, computed with today's shelf; to look at. Raises NotFound."""
    on_shelf = shelf.current()
    now, run.put_away = run.revision, False
    _as_of(run, revision, on_shelf)
    run.typed = {}
    view = convert.plan_view(run, computed(run, on_shelf), on_shelf, system, lambda _: False)
    return view | {"undo": False, "redo": False, "at": revision, "revision": now, "rules": None, "release": None}


def whole_at(run: Run, revision: int) -> dict[str, Any]:
    """The whole plan at a revision as plain data. Raises NotFound."""
    on_shelf = shelf.current()
    then = run_by_id(run.pk)
    _as_of(then, revision, on_shelf)
    return facts.whole(then, on_shelf)


def jaw_program(run: Run, index: int, system: System) -> str:
    """The jaw-boring program of a side. Raises NotFound, or Conflict with what keeps it from being written."""
    result = computed(run, shelf.current())
    if not 0 <= index < len(result.sides):
        raise NotFound("There is no such side in this plan.")
    program = result.sides[index].program
    if not program.ready:
        raise Conflict(" ".join(r.text(system) for r in program.reasons))
    name = f"{run.name} {run.drawing_number}"
    return written(
        convert.document_of(run), result.figures, index, result.stop("jaws", index), system, name, run.revision
    )


# What is solved only when it is asked for, never within a plan's recompute.
CHECKS = {"contact": contact_table, "limit-analysis": exact_table}


def check(run: Run, index: int, name: str, system: System) -> dict[str, Any]:
    """A question solved by itself: the real contact, or the limit analysis. Raises NotFound."""
    document = convert.document_of(run)
    if not 0 <= index < len(document.setups):
        raise NotFound("There is no such side in this plan.")
    found = CHECKS[name](document, convert.shelf_of(run, shelf.current()), index)
    return {"revision": run.revision, "table": convert.table_view(found, system) if found else None}


def drawn(run: Run, kind: str) -> str:
    """The part as a drawing, "dxf" or "svg". Raises Conflict while its profile is not complete."""
    part = computed(run, shelf.current()).figures[0].part.value
    if part is None:
        raise Conflict("The part's profile is not complete yet: give every step its diameter and length.")
    return write_dxf(part.body) if kind == "dxf" else write_svg(part.body)


def problems_at(problems: tuple[FieldError, ...], path: str) -> tuple[FieldError, ...]:
    """The problems of one fact."""
    return tuple(
        p for p in problems if p.field == path or p.field.startswith(path + ".") or path.startswith(p.field + ".")
    )


TOOLS_SHOWN = 60


def tools_of(run_id: int, index: int, cut: int, find: str, system: System) -> dict[str, Any]:
    """Every tool that the shelf could put to a cut, in order, the rejected with the rule that rejects each.

    Raises NotFound.
    """
    run, one, _ = cut_of(run_id, index, cut)
    document, library = convert.document_of(run), shelf.current().tools
    words = find.casefold().split()
    found = [
        r
        for r in every_tool(library, BOOKS[one.planned.kind], one.job)
        if all(w in r.tool.name.casefold() for w in words)
    ]
    fit = sum(r.rejected is None for r in found)
    return {
        "revision": run.revision,
        "cut": one.name,
        "path": f"setups.{index}.cuts.{cut}.tool",
        "fit": fit,
        "rejected": len(found) - fit,
        "tools": [
            {
                "key": r.tool.key,
                "name": r.tool.name,
                "score": round(r.score),
                "chosen": r.tool.key == document.setups[index].cuts[cut].tool,
                "why": [s.text(system) for s in r.reasons],
                "rejected": r.rejected.text(system) if r.rejected else "",
            }
            for r in found[:TOOLS_SHOWN]
        ],
    }


def cut_of(run_id: int, index: int, cut: int) -> tuple[Run, CutFigures, PartFigures]:
    """(run, figures, part) of a planned cut. Raises NotFound, or Conflict while it has no figures."""
    run = run_by_id(run_id)
    document, taken = convert.document_of(run), convert.shelf_of(run, shelf.current())
    if not 0 <= index < len(document.setups) or not 0 <= cut < len(document.setups[index].cuts):
        raise NotFound("There is no such operation in this plan.")
    figures = solve(document, taken, index)
    cuts, part = figures.cuts.value, figures.part.value
    if cuts is None or part is None:
        raise Conflict("This operation has no figures yet: complete Cuts first.")
    return run, cuts.cuts[cut], part

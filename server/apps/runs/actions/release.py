"""Releasing a plan to the machine."""

from __future__ import annotations

from dataclasses import replace

from django.db import transaction
from django.utils import timezone

from calc.plan.cautions import Caution, cautions_of
from calc.plan.compute import PlanResult
from calc.plan.document import Document
from calc.plan.jaws.program import written
from calc.plan.standing import standing_of
from calc.quantities import System
from calc.reading import write
from calc.shelf.taken import Shelf
from server.apps.runs.actions.asked import Asked
from server.apps.runs.convert.document import document_of, shelf_of
from server.apps.runs.convert.plates import words_of_plate
from server.apps.runs.convert.standing import bench_figures_said
from server.apps.runs.models import Edit, Release, Run
from server.apps.runs.queries import releases
from server.apps.runs.queries.find import run_to_change
from server.apps.runs.queries.plan import computed, heading_of, program_stop, whole_view
from server.apps.runs.schemas import ReleasesOut
from server.apps.shelf import queries as shelf
from server.foundation import trail
from server.foundation.once import was_sent
from server.foundation.problems import BadValue, Conflict
from server.foundation.roles import require_planner

SYSTEMS: tuple[System, ...] = ("metric", "inch")
LINE = ("key", "title", "state", "line", "side")


@transaction.atomic
def release(run_id: int, confirmed: list[str], note: str, asked: Asked) -> ReleasesOut:
    """Freeze a settled plan as the next release. Raises NotAllowed, Conflict, or BadValue for what is not confirmed.

    The same key releases once.
    """
    planner = require_planner(asked.person)
    run = run_to_change(run_id)
    if was_sent(asked.key, planner, asked.said) or Release.objects.filter(key=asked.key, run=run).exists():
        return releases.page(run, asked.system)
    if run.revision != asked.base_revision:
        last = Edit.objects.filter(run=run).select_related("by").order_by("revision").last()
        who = last.by.username if last else "Somebody"
        raise Conflict(f"{who} changed this plan since you looked. Look at it again, then release it.")
    on_shelf = shelf.current()
    result = computed(run, on_shelf)
    document = document_of(run)
    reasons = releases.reasons_against(run, result, document.rules.number)
    if reasons:
        raise Conflict(" ".join(reasons))
    cautions = cautions_of(document, result)
    missing = [c for c in cautions if c.code not in confirmed]
    if missing:
        raise BadValue("confirmed", f"Confirm every caution, one by one: {len(missing)} not confirmed yet.")
    before = releases.latest(run)
    number = before.number + 1 if before else 1
    views = {s: whole_view(run, result, on_shelf, s) for s in SYSTEMS}
    Release.objects.create(
        run=run,
        number=number,
        revision=run.revision,
        rules=document.rules.number,
        document=run.document,
        taken=write(taken_alone(document, shelf_of(run, on_shelf))),
        views=views,
        lines={s: [{n: stop[n] for n in LINE} for stop in view["stops"]] for s, view in views.items()},
        figures={s: bench_figures_said(standing_of(result), s) for s in SYSTEMS},
        words=words_of_plate(views[asked.system]["run"]),
        programs={s: _programs(run, result, s, number) for s in SYSTEMS},
        confirmed=[line for c in cautions for line in _confirmed(c, asked.system)],
        note=" ".join(note.split()),
        key=asked.key,
        by=planner,
    )
    trail.note("released", planner, f"{run.name} {run.drawing_number}, release {number}")
    run.released_at = run.released_at or timezone.now()
    run.really = None  # its pieces are those of the release before
    run.place, run.placed_at, run.placed_by = "ready", timezone.now(), planner.username
    run.save(update_fields=["really", "released_at", "place", "placed_at", "placed_by"])
    return releases.page(run, asked.system)


def taken_alone(document: Document, shelf: Shelf) -> Shelf:
    """What a plan takes from the shelf, without the tools that none of its cuts has."""
    return replace(shelf, tools=shelf.tools.of_tools(c.tool for s in document.setups for c in s.cuts if c.tool))


def _confirmed(caution: Caution, system: System) -> list[dict[str, str]]:
    """All that was said of a caution, a line for each sentence."""
    return [{"code": caution.code, "text": t.sentence.text(system), "where": t.where} for t in caution.told]


def _programs(run: Run, result: PlanResult, system: System, number: int) -> dict[str, str]:
    """The jaw-boring programs that can be written, by set-up, with the release in their headers."""
    heading = heading_of(run, run.revision, number)
    found = {}
    for view, side in zip(result.views, result.sides, strict=True):
        stop = program_stop(result, side.index)
        program = result.program(stop) if stop is not None else None
        if stop is not None and program is not None and program.ready:
            found[side.id] = written(view, stop, heading, system)
    return found

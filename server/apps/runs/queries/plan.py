"""Reads of a run: its plan computed, as it is or as it was, and what is made from it."""

from __future__ import annotations

from dataclasses import replace
from typing import Any

from calc.errors import FieldError
from calc.plan.compute import PlanResult, compute, views_of
from calc.plan.compute import check as solved_check
from calc.plan.document import Document
from calc.plan.entry import PLAN
from calc.plan.jaws.program import Heading, written
from calc.plan.part.solve import PART
from calc.plan.paths import place_of
from calc.plan.standing import moved, moved_words, standing, standing_of
from calc.plan.stop import Stop
from calc.profile.drawing import write_dxf, write_svg
from calc.quantities import System
from calc.said.plan import sides_said, stops_said
from calc.said.stop import Reader, table_said
from server.apps.house import queries as house
from server.apps.runs.convert.document import document_of, shelf_of
from server.apps.runs.convert.plates import release_plate, run_plate
from server.apps.runs.models import Run
from server.apps.runs.queries.edits import own_edits, take_back_to
from server.apps.runs.queries.may import may_change
from server.apps.runs.schemas import CheckOut, PlanOut, PlanRulesOut, ReleaseOut
from server.apps.shelf import queries as shelf
from server.apps.shelf.queries import Snapshot
from server.foundation.models import Person
from server.foundation.problems import Conflict, NotFound

NO_SIDE = "There is no such side in this plan."


def computed(run: Run, on_shelf: Snapshot) -> PlanResult:
    """The run's plan. Raises CalcError where its document contradicts itself."""
    options = {
        "machine": on_shelf.names["machine"],
        "material": on_shelf.names["material"],
        "chuck": shelf.chucks_of(on_shelf, run.machine_id),
    }
    return compute(document_of(run), shelf_of(run, on_shelf), options)


def place_of_setup(document: Document, setup: str) -> int:
    """Which set-up has this id. Raises NotFound."""
    try:
        return place_of(document.setups, setup)
    except KeyError as error:
        raise NotFound(NO_SIDE) from error


def read_by(run: Run, result: PlanResult, on_shelf: Snapshot, reader: Reader) -> PlanOut:
    """A computed plan as somebody reads it; what is only of the draft is left out."""
    return PlanOut(
        run=run_plate(run, on_shelf),
        revision=run.revision,
        units=reader.system,
        verdict=result.verdict,
        may_edit=reader.may(PLAN),
        undo=False,
        redo=False,
        at=None,
        rules=None,
        release=None,
        stops=stops_said(result, reader),
        sides=sides_said(result, reader.system),
    )


def looker(run: Run, system: System) -> Reader:
    """Who looks at a plan and changes nothing."""
    return Reader(system, document=run.document)


def plan_of(run: Run, result: PlanResult, on_shelf: Snapshot, system: System, person: Any) -> PlanOut:
    """A computed plan as its screen is sent it."""
    mine = own_edits(run, person) if isinstance(person, Person) else None
    reader = Reader(system, lambda path: not run.put_away and may_change(person, path), run.typed, run.document)
    view = read_by(run, result, on_shelf, reader)
    view.undo, view.redo = bool(mine and mine.undo), bool(mine and mine.redo)
    view.rules, view.release = _rules(run, result, on_shelf, system), released(run)
    return view


def plan(run: Run, system: System, person: Any) -> PlanOut:
    """The plan as the screen is sent it."""
    on_shelf = shelf.current()
    return plan_of(run, computed(run, on_shelf), on_shelf, system, person)


def released(run: Run) -> ReleaseOut | None:
    """Who released the plan last, and which draft; None where nobody did."""
    if run.released_at is None:
        return None
    last = run.releases.select_related("by").defer("views", "programs", "document").first()
    return release_plate(last) if last else None


def _rules(run: Run, result: PlanResult, on_shelf: Snapshot, system: System) -> PlanRulesOut:
    """The house rules that the plan was computed under, and what would change under today's."""
    document, today = document_of(run), house.current()
    if document.rules.number == today.number:
        return PlanRulesOut(number=today.number, today=today.number, changes=[], moves=[])
    now, then = standing_of(result), standing(replace(document, rules=today), shelf_of(run, on_shelf))
    moves = moved_words(moved(now.headlines, then.headlines), system)
    if now.verdict != then.verdict:
        moves.append(f"{now.verdict}, then {then.verdict}")
    changes = house.changes(document.rules, today)
    return PlanRulesOut(number=document.rules.number, today=today.number, changes=changes, moves=moves)


def plan_at(run: Run, revision: int, system: System) -> PlanOut:
    """The plan as it was at a revision, computed with today's shelf; to look at. Raises NotFound."""
    on_shelf = shelf.current()
    now, run.put_away = run.revision, False
    take_back_to(run, revision, on_shelf)
    view = read_by(run, computed(run, on_shelf), on_shelf, looker(run, system))
    view.at, view.revision = revision, now
    return view


def problems_at(problems: tuple[FieldError, ...], path: str) -> tuple[FieldError, ...]:
    """The problems of one fact."""
    return tuple(
        p for p in problems if p.field == path or p.field.startswith(path + ".") or path.startswith(p.field + ".")
    )


def heading_of(run: Run, revision: int, release: int | None = None) -> Heading:
    """What stands over a program of this run."""
    return Heading(f"{run.name} {run.drawing_number}", revision, release)


def program_stop(result: PlanResult, index: int) -> Stop:
    """The stop of a side that makes the jaw-boring program."""
    return next(s for s in result.stops if s.side == index and s.program is not None)


def jaw_program(run: Run, setup: str, system: System) -> str:
    """The jaw-boring program of a side. Raises NotFound, or Conflict with what keeps it from being written."""
    result = computed(run, shelf.current())
    index = place_of_setup(document_of(run), setup)
    stop = program_stop(result, index)
    assert stop.program is not None
    if not stop.program.ready:
        raise Conflict(" ".join(r.text(system) for r in stop.program.reasons))
    return written(result.views[index], stop, heading_of(run, run.revision), system)


def check(run: Run, setup: str, name: str, system: System) -> CheckOut:
    """A question that is solved only when it is asked. Raises NotFound."""
    document = document_of(run)
    view = views_of(document, shelf_of(run, shelf.current()))[place_of_setup(document, setup)]
    try:
        found = solved_check(view, name)
    except KeyError as error:
        raise NotFound("Nothing of this name is solved for a plan.") from error
    return CheckOut(revision=run.revision, table=table_said(found, looker(run, system)) if found else None)


def drawn(run: Run, kind: str) -> str:
    """The part as a drawing, "dxf" or "svg". Raises Conflict while its profile is not complete."""
    part = computed(run, shelf.current()).figures[0][PART]
    if part is None:
        raise Conflict("The part's profile is not complete yet: give every step its diameter and length.")
    return write_dxf(part.body) if kind == "dxf" else write_svg(part.body)

"""Reads of a run: its plan computed, as it is or as it was, and what is made from it."""

from __future__ import annotations

import json
from collections.abc import Callable
from dataclasses import dataclass, replace
from typing import Any

from calc.errors import CalcError, FieldError
from calc.plan.all_stops import ALL_STOPS
from calc.plan.compute import PlanResult, compute, view_of
from calc.plan.compute import check as solved_check
from calc.plan.document import Document
from calc.plan.entry import PLAN
from calc.plan.jaws.program import Heading, written
from calc.plan.part.solve import PART
from calc.plan.paths import place_of
from calc.plan.route.lists import times_of, tools_of
from calc.plan.route.solve import ROUTE, RouteFigures
from calc.plan.standing import moved, moved_words, standing, standing_of
from calc.plan.stop import Stop
from calc.profile.drawing import write_dxf, write_svg
from calc.quantities import System
from calc.said.reader import Reader
from calc.said.table import table_said
from server.apps.house import queries as house
from server.apps.runs.convert.document import changed_document_of, document_of, shelf_of
from server.apps.runs.convert.parts import Held, page_of, parts_sent
from server.apps.runs.convert.plates import release_plate
from server.apps.runs.models import Run
from server.apps.runs.queries.edits import own_edits, take_back_to
from server.apps.runs.queries.find import run_by_id
from server.apps.runs.queries.look import Look, Sent, Shown, moment_of
from server.apps.runs.queries.may import role_may_change
from server.apps.runs.schemas import CheckOut, HitOut, PartsOut, PlanOut, PlanRulesOut, ReleaseOut
from server.apps.shelf import queries as shelf
from server.apps.shelf.queries import Snapshot
from server.foundation.models import Person
from server.foundation.problems import Conflict, NotFound

NO_SIDE = "There is no such side in this plan."


def computed(run: Run, on_shelf: Snapshot, *, is_changed: bool = False) -> PlanResult:
    """The run's plan, as it is kept or as it was changed in memory. Raises CalcError where its document contradicts
    itself.
    """
    document = changed_document_of(run) if is_changed else document_of(run)
    options = {
        "machine": on_shelf.names["machine"],
        "material": on_shelf.names["material"],
        "chuck": shelf.chucks_of(on_shelf, run.machine_id),
    }
    return compute(document, shelf_of(run, on_shelf), options)


def planned_now(run: Run) -> Document:
    """The plan of a run as it stands."""
    return document_of(run)


def place_of_setup(document: Document, setup: str) -> int:
    """Which set-up has this id. Raises NotFound."""
    try:
        return place_of(document.setups, setup)
    except KeyError as error:
        raise NotFound(NO_SIDE) from error


@dataclass(frozen=True)
class Who:
    """What somebody may change of a run. It tells itself in words: what differs for two people is told apart by it."""

    role: str
    away: bool

    def __call__(self, path: str) -> bool:
        return not self.away and role_may_change(self.role, path)


def reader_of(run: Run, system: System, person: Any) -> Reader:
    """Who reads a run's plan and may change it."""
    role = str(person.role) if isinstance(person, Person) else ""
    return Reader(system, Who(role, run.put_away), tuple(run.typed.items()))


def looker(system: System) -> Reader:
    """Who looks at a plan and changes nothing."""
    return Reader(system, Who("", True))


@dataclass(frozen=True)
class Computed:
    """A run's plan computed, with the shelf it was computed with."""

    run: Run
    result: PlanResult
    on_shelf: Snapshot


def plan_of(now: Computed, look: Look, person: Any, was: PlanResult | None = None) -> Sent:
    """A computed plan as its screen is sent it, and what moved in it."""
    run, result = now.run, now.result
    mine = own_edits(run, person) if isinstance(person, Person) else None
    reader = reader_of(run, look.system, person)
    sent = Shown(run, result, now.on_shelf, look, reader, was).plan()
    view = sent.head
    assert isinstance(view, PlanOut)
    view.may_edit, view.undo, view.redo = reader.may(PLAN), bool(mine and mine.undo), bool(mine and mine.redo)
    view.rules, view.release = _rules(now, look.system), released(run)
    return sent


def plan(run: Run, look: Look, person: Any, since: int | None = None) -> Sent:
    """The plan as the screen is sent it; with `since`, what moved since that draft is told."""
    on_shelf = shelf.current()
    was = _at(run, since, on_shelf) if since is not None and since < run.revision else None
    return plan_of(Computed(run, computed(run, on_shelf), on_shelf), look, person, was)


def whole_view(run: Run, result: PlanResult, on_shelf: Snapshot, system: System) -> dict[str, Any]:
    """A computed plan with every part of it, as plain data: what a release keeps and what is compared with one."""
    found: dict[str, Any] = json.loads(
        Shown(run, result, on_shelf, Look(system, whole=True), looker(system)).plan().json()
    )
    return found


def _at(run: Run, revision: int, on_shelf: Snapshot) -> PlanResult | None:
    """The plan at an earlier draft, None where that cannot be shown any more; the run given stays as it is."""
    earlier = run_by_id(run.pk)
    try:
        take_back_to(earlier, revision, on_shelf)
        return computed(earlier, on_shelf, is_changed=True)
    except (NotFound, CalcError):
        return None


def parts_of(now: Computed, names: list[str], reader: Reader, held: Held, path: str | None) -> bytes:
    """Parts of a computed plan as they are sent; `path`: of the entry that they were asked for with."""
    run = now.run
    head = PartsOut(revision=run.revision, moment=moment_of(run, now.on_shelf), path=path, parts=[])
    said = head.model_dump_json(exclude={"parts"}).encode()
    return b'%b,"parts":[%b]}' % (said[:-1], b",".join(parts_sent(now.result, names, reader, held)))


def released(run: Run) -> ReleaseOut | None:
    """Who released the plan last, and which draft; None where nobody did."""
    if run.released_at is None:
        return None
    last = run.releases.select_related("by").defer("views", "programs", "document").first()
    return release_plate(last) if last else None


def _rules(of: Computed, system: System) -> PlanRulesOut:
    """The house rules that the plan was computed under, and what would change under today's."""
    run, result, on_shelf = of.run, of.result, of.on_shelf
    document, today = document_of(run), house.current()
    money = document.rules.minute_cost > 0
    if document.rules.number == today.number:
        return PlanRulesOut(number=today.number, today=today.number, changes=[], moves=[], money=money)
    now, then = standing_of(result), standing(replace(document, rules=today), shelf_of(run, on_shelf))
    moves = moved_words(moved(now.headlines, then.headlines), system)
    if now.verdict != then.verdict:
        moves.append(f"{now.verdict}, then {then.verdict}")
    changes = house.changes(document.rules, today)
    return PlanRulesOut(number=document.rules.number, today=today.number, changes=changes, moves=moves, money=money)


def plan_at(run: Run, revision: int, look: Look) -> Sent:
    """The plan as it was at a revision, whole, computed with today's shelf; to look at. Raises NotFound."""
    on_shelf = shelf.current()
    run.put_away = False
    take_back_to(run, revision, on_shelf)
    whole = replace(look, whole=True, held={})
    sent = Shown(run, computed(run, on_shelf, is_changed=True), on_shelf, whole, looker(look.system)).plan()
    assert isinstance(sent.head, PlanOut)
    sent.head.at = revision
    return sent


def find_facts(run: Run, words: str, system: System, most: int = 8) -> list[HitOut]:
    """Facts of a run's plan that have every one of the words; those that begin with the first come first."""
    wanted = words.casefold().split()
    if not wanted:
        return []
    result = computed(run, shelf.current())
    found = []
    for stop in result.stops:
        page = page_of(result, stop, looker(system))
        titles = {h.key: h.title for h in page.headings}
        for fact in page.facts:
            title = f"{titles.get(fact.group, fact.group)}: {fact.label}" if fact.group else fact.label
            value = f"{fact.text or 'empty'} {fact.unit}".strip()
            detail = f"{value} · {stop.place(result.views[0].document.side_names)}"
            if all(word in f"{title} {detail}".casefold() for word in wanted):
                key = f"{run.pk}/{stop.key}#{fact.name}"
                found.append(HitOut(kind="fact", key=key, title=title, detail=detail))
    return sorted(found, key=lambda hit: not hit.title.casefold().startswith(wanted[0]))[:most]


def problems_at(problems: tuple[FieldError, ...], path: str) -> tuple[FieldError, ...]:
    """The problems of one fact."""
    return tuple(
        p for p in problems if p.field == path or p.field.startswith(path + ".") or path.startswith(p.field + ".")
    )


def heading_of(run: Run, revision: int, release: int | None = None) -> Heading:
    """What stands over a program of this run."""
    return Heading(f"{run.name} {run.drawing_number}", revision, release)


def program_stop(result: PlanResult, index: int) -> Stop | None:
    """The stop of a side that makes the jaw-boring program; None where nothing is bored, as in a collet."""
    return next((s for s in result.stops if s.side == index and result.program(s) is not None), None)


def jaw_program(run: Run, setup: str, system: System) -> str:
    """The jaw-boring program of a side. Raises NotFound, or Conflict with what keeps it from being written."""
    result = computed(run, shelf.current())
    index = place_of_setup(document_of(run), setup)
    stop = program_stop(result, index)
    program = result.program(stop) if stop is not None else None
    if stop is None or program is None:
        raise NotFound("Nothing is bored for this side: there is no jaw-boring program.")
    if not program.ready:
        raise Conflict(" ".join(r.text(system) for r in program.reasons))
    return written(result.views[index], stop, heading_of(run, run.revision), system)


def require_check(name: str) -> None:
    """Raise NotFound where no stop has a check of this name."""
    if not any(name == check.name for kind in ALL_STOPS for check in kind.checks):
        raise NotFound("Nothing of this name is solved for a plan.")


def check(run: Run, setup: str, name: str, system: System) -> CheckOut:
    """What is solved for a plan only when it is asked for. Raises NotFound."""
    require_check(name)
    document = document_of(run)
    view = view_of(document, shelf_of(run, shelf.current()), place_of_setup(document, setup))
    found = solved_check(view, name)
    return CheckOut(revision=run.revision, table=table_said(found, looker(system)) if found else None)


SHEETS: dict[str, Callable[[RouteFigures], list[list[str]]]] = {"tools": tools_of, "times": times_of}


def route_sheet(run: Run, kind: str) -> list[list[str]]:
    """The route as rows, "tools" or "times". Raises Conflict while there is none."""
    result = computed(run, shelf.current())
    found = result.views[0][ROUTE]
    if found is None:
        raise Conflict(f"There is no route yet: {result.stop('route').line.text()}.")
    return SHEETS[kind](found)


def drawn(run: Run, kind: str) -> str:
    """The part as a drawing, "dxf" or "svg". Raises Conflict while its profile is not complete."""
    part = computed(run, shelf.current()).figures[0][PART]
    if part is None:
        raise Conflict("The part's profile is not complete yet: give every step its diameter and length.")
    return write_dxf(part.body) if kind == "dxf" else write_svg(part.body)

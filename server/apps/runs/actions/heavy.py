"""Questions of a plan that take long: settling, and what is solved beside the plan. What settling found is taken."""

from __future__ import annotations

from dataclasses import dataclass
from typing import Any
from uuid import UUID

from django.db import transaction

from calc.fields import Quantity
from calc.plan.declared import field_at
from calc.plan.document import setup_path
from calc.plan.edits import Change, changed
from calc.quantities import System
from calc.reading import write
from calc.said.fact import text_of
from calc.settle.candidates import Goal
from calc.settle.operation import settle_operation
from calc.settle.setup import KEPT, settle_setup
from calc.settle.winner import Settled
from server.apps.questions.actions.ask import ask
from server.apps.questions.kind import Arguments, Found, QuestionKind, Tell
from server.apps.questions.queries.standing import found_by
from server.apps.questions.schemas import QuestionOut
from server.apps.runs.actions.asked import Asked
from server.apps.runs.actions.change import Making, change
from server.apps.runs.actions.operate import cuts_path
from server.apps.runs.convert.document import document_of, shelf_of
from server.apps.runs.models import Run
from server.apps.runs.queries.find import run_by_id
from server.apps.runs.queries.look import Sent, moment_of
from server.apps.runs.queries.may import require_may_change
from server.apps.runs.queries.plan import check, place_of_setup, require_check
from server.apps.runs.schemas import CheckOut, SettledCut, SettledOut
from server.apps.shelf import queries as shelf
from server.foundation.roles import require_sees_drafts

CHANGED = "{who} changed these operations since this was found. Settle again, then take it."


def _moment(arguments: Arguments) -> str:
    return moment_of(run_by_id(arguments["run"]), shelf.current())


def _side(arguments: Arguments) -> str:
    return f"{arguments['run']} {arguments['setup']}"


def _settle(arguments: Arguments, _: Any, tell: Tell) -> Found:
    """The fastest figures that every limit allows. Raises CalcError where no figures keep every limit."""
    run, setup, cut = run_by_id(arguments["run"]), str(arguments["setup"]), arguments["cut"]
    system: System = arguments["units"]
    goal: Goal = arguments["goal"]
    document, taken = document_of(run), shelf_of(run, shelf.current())
    index = place_of_setup(document, setup)
    parts: list[Change]
    cuts: tuple[Settled, ...]
    if cut is not None:
        one = settle_operation(document, taken, index, cut, goal)
        before = next(c for c in document.setups[index].cuts if c.id == cut)
        path, cuts, words, gains = f"{cuts_path(setup)}.{cut}", (one,), one.words, one.gains
        parts = list(changed(write(before), write(one.planned), path))
    else:
        whole = settle_setup(document, taken, index, tell, goal)
        path, cuts, words, gains = f"setups.{setup}", whole.cuts, whole.words, whole.gains
        parts = [
            part
            for place, (old, new) in enumerate(zip(document.setups, whole.document.setups, strict=True))
            for part in changed(write(old), write(new), setup_path(document, place))
        ]
    told = [_cut(c, system) for c in cuts]
    answer = SettledOut(revision=run.revision, words=words.text(system), gains=gains, cuts=told)
    return Found(answer, {"path": path, "parts": [[part.path, part.new] for part in parts]})


def _cut(settled: Settled, system: System) -> SettledCut:
    binds = settled.binds
    return SettledCut(
        id=settled.id,
        name=settled.name,
        words=settled.words.text(system),
        before=round(settled.minutes_before, 3),
        after=round(settled.minutes, 3),
        binds=binds.name if binds else "",
        without=round(binds.minutes, 3) if binds and binds.minutes else None,
        then=settled.then.name if settled.then else "",
        gives_up=list(settled.gives_up),
        tried=settled.tried,
        gains=settled.gains,
        figures=settled.figures.text(system),
        would=_would(settled, system),
    )


def _would(settled: Settled, system: System) -> dict[str, str]:
    """What settling moves, by the name of its fact, as the ledger would show it."""
    found = {}
    for name in KEPT:
        spec = field_at(f"setups.s.cuts.c.{name}").spec
        assert isinstance(spec, Quantity)
        found[name] = text_of(getattr(settled.planned, name), spec, system)
    return found | {"count": str(settled.passes)}


def _check(arguments: Arguments, _: Any, __: Tell) -> Found:
    run = run_by_id(arguments["run"])
    return Found(check(run, arguments["setup"], arguments["name"], arguments["units"]))


SETTLE = QuestionKind("settle", SettledOut, _moment, _settle, lambda a: f"settle {_side(a)}", 60)
CHECK = QuestionKind("check", CheckOut, _moment, _check, lambda a: f"{a['name']} {_side(a)}", 30, rank=1)


@dataclass(frozen=True)
class Settling:
    """What is to be settled: a cut by its id, or all of them; for what; in which units it is told."""

    cut: str | None
    goal: Goal
    system: System


def ask_to_settle(run_id: int, setup: str, wanted: Settling, key: UUID, person: Any) -> QuestionOut:
    """Ask what settling would do, of one cut or of the whole set-up; nothing is kept. Raises NotAllowed, NotFound."""
    require_may_change(person, cuts_path(setup))
    place_of_setup(document_of(run_by_id(run_id)), setup)
    asked = {"run": run_id, "setup": setup, "cut": wanted.cut, "goal": wanted.goal, "units": wanted.system}
    return ask(SETTLE, asked, key, person)


def ask_to_check(run_id: int, setup: str, name: str, system: System, key: UUID, person: Any) -> QuestionOut:
    """Ask for what is solved beside the plan. Raises NotAllowed, NotFound."""
    require_sees_drafts(person)
    place_of_setup(document_of(run_by_id(run_id)), setup)
    require_check(name)
    return ask(CHECK, {"run": run_id, "setup": setup, "name": name, "units": system}, key, person)


@transaction.atomic
def take_settled(run_id: int, setup: str, question: UUID, asked: Asked) -> Sent:
    """Keep what settling found, as one edit. Raises Conflict where the plan or the shelf has changed since."""

    def make(run: Run) -> Making:
        basis = moment_of(run, shelf.current())
        found = found_by(question, SETTLE.name, {"run": run_id, "setup": setup}, basis, asked.person)
        parts = tuple(Change(path, new) for path, new in found["parts"])
        return Making(found["path"], parts, "settled")

    return change(run_id, f"setups.{setup}", asked, CHANGED, make)

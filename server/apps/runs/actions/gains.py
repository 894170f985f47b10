"""What would gain most in a set-up: what could be changed, and each of it settled when it is asked for."""

from __future__ import annotations

from typing import Any
from uuid import UUID

from django.db import transaction

from calc.plan.document import Document, setup_path
from calc.plan.edits import Change, changed
from calc.quantities import System
from calc.reading import write
from calc.settle.gain import Gain, Idea, gain_of, ideas
from calc.shelf.taken import Shelf
from server.apps.questions.actions.ask import ask
from server.apps.questions.kind import Arguments, Found, QuestionKind, Tell
from server.apps.questions.queries.standing import found_by
from server.apps.questions.schemas import QuestionOut
from server.apps.runs.actions.asked import Asked
from server.apps.runs.actions.change import Making, change
from server.apps.runs.actions.heavy import CHANGED
from server.apps.runs.actions.operate import cuts_path
from server.apps.runs.convert.document import document_of, shelf_of
from server.apps.runs.models import Run
from server.apps.runs.queries.find import run_by_id
from server.apps.runs.queries.look import Sent, moment_of
from server.apps.runs.queries.may import require_may_change
from server.apps.runs.queries.plan import place_of_setup
from server.apps.runs.schemas import GainOut, IdeaOut
from server.apps.shelf import queries as shelf
from server.foundation.problems import NotFound
from server.foundation.roles import require_sees_drafts

GONE = "There is no such change to try any more: look again at what would gain most."


def _of(run: Run, setup: str) -> tuple[Document, Shelf, int, tuple[Idea, ...]]:
    on_shelf = shelf.current()
    document, taken = document_of(run), shelf_of(run, on_shelf)
    index = place_of_setup(document, setup)
    holders = shelf.holders_on(on_shelf, run.machine_id)
    return document, taken, index, ideas(document, taken, index, holders)


def gain_ideas(run_id: int, setup: str, system: System, person: Any) -> list[IdeaOut]:
    """What could be changed about a set-up. Raises NotAllowed, NotFound."""
    require_sees_drafts(person)
    *_, found = _of(run_by_id(run_id), setup)
    return [IdeaOut(key=idea.key, label=idea.label.text(system)) for idea in found]


def _find(arguments: Arguments, _: Any, __: Tell) -> Found:
    run, setup, system = run_by_id(arguments["run"]), arguments["setup"], arguments["units"]
    document, taken, index, found = _of(run, setup)
    idea = next((i for i in found if i.key == arguments["idea"]), None)
    if idea is None:
        raise NotFound(GONE)
    gain = gain_of(document, taken, index, idea)
    return Found(_said(gain, run.revision, system), _kept(gain, document, index))


def _said(gain: Gain, revision: int, system: System) -> GainOut:
    before, after = gain.before_min, gain.after_min
    saves = before - after if before is not None and after is not None and gain.gains else None
    return GainOut(
        revision=revision,
        key=gain.idea.key,
        label=gain.idea.label.text(system),
        gains=gain.gains,
        minutes=None if after is None else round(after, 3),
        saves_min=None if saves is None else round(saves, 3),
        saves_h=None if gain.run_h is None else round(gain.run_h, 2),
        why_not=gain.why_not.text(system) if gain.why_not else "",
    )


def _kept(gain: Gain, document: Document, index: int) -> Any:
    """What taking it changes: facts of the plan, and what is taken from the shelf."""
    if gain.document is None:
        return None
    at = setup_path(document, index)
    parts = [[f"{at}.{kind}", key] for kind, key in gain.idea.taken]
    parts += [[path, value] for path, value in gain.idea.facts if not path.startswith("setups.")]
    for place, (old, new) in enumerate(zip(document.setups, gain.document.setups, strict=True)):
        parts += [[part.path, part.new] for part in changed(write(old), write(new), setup_path(document, place))]
    return {"path": at, "parts": parts}


def _moment(arguments: Arguments) -> str:
    return moment_of(run_by_id(arguments["run"]), shelf.current())


def _slot(arguments: Arguments) -> str:
    return f"gain {arguments['run']} {arguments['setup']} {arguments['idea']}"


GAIN = QuestionKind("gain", GainOut, _moment, _find, _slot, 60)


def ask_for_gain(run_id: int, setup: str, idea: str, system: System, key: UUID, person: Any) -> QuestionOut:
    """Ask what one change would gain, settled. Raises NotAllowed, NotFound."""
    require_may_change(person, cuts_path(setup))
    place_of_setup(document_of(run_by_id(run_id)), setup)
    return ask(GAIN, {"run": run_id, "setup": setup, "idea": idea, "units": system}, key, person)


@transaction.atomic
def take_gain(run_id: int, setup: str, idea: str, question: UUID, asked: Asked) -> Sent:
    """Keep a change with everything settled for it, as one edit. Raises Conflict where the plan has changed since."""

    def make(run: Run) -> Making:
        basis = moment_of(run, shelf.current())
        found = found_by(question, GAIN.name, {"run": run_id, "setup": setup, "idea": idea}, basis, asked.person)
        if found is None:
            raise NotFound("This change gains nothing: there is nothing to take.")
        return Making(found["path"], tuple(Change(path, new) for path, new in found["parts"]), "settled")

    return change(run_id, f"setups.{setup}", asked, CHANGED, make)

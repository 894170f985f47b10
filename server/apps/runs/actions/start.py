"""A whole plan proposed: begun at once, then settled by a worker; and a side that somebody has looked at."""

from __future__ import annotations

from collections.abc import Iterator
from typing import Any
from uuid import UUID

from django.db import transaction

from calc.identity import Identities
from calc.plan.document import setup_path
from calc.plan.edits import Change, changed, put
from calc.plan.entry import PROPOSED
from calc.plan.proposed import key_of, looked_at
from calc.reading import write
from calc.start.begin import begin
from calc.start.marking import REFERENCES
from calc.start.settled import settle_start
from calc.start.state import Start, Wanted
from server.apps.notebook import queries as notebook
from server.apps.questions.actions.ask import ask
from server.apps.questions.kind import Arguments, Found, QuestionKind, Tell
from server.apps.questions.queries.standing import found_by
from server.apps.questions.schemas import QuestionOut
from server.apps.runs.actions.asked import Asked
from server.apps.runs.actions.change import Making, change, ids_for
from server.apps.runs.convert.document import document_of, shelf_of
from server.apps.runs.models import Edit, Run
from server.apps.runs.queries.find import run_by_id
from server.apps.runs.queries.look import Sent, moment_of
from server.apps.runs.queries.may import require_may_change
from server.apps.runs.queries.plan import computed, place_of_setup
from server.apps.runs.schemas import StartOut
from server.apps.shelf import queries as shelf

CHANGED = "{who} changed this plan since it was proposed. Propose again: what people decided stays."


def _wanted(run: Run, ids: Identities) -> Wanted:
    on_shelf = shelf.current()
    return Wanted(
        Start(document_of(run), shelf_of(run, on_shelf)),
        shelf.holders_on(on_shelf, run.machine_id),
        ids,
        notebook.proven_of(),
    )


def _parts(before: Start, start: Start) -> Iterator[Change]:
    """What is to be changed so that a plan is as it was proposed."""
    old, new, taken = write(before.document), write(start.document), before.shelf
    known = {s["id"]: (place, s) for place, s in enumerate(old["setups"])}
    yield from changed(old["sides"], new["sides"], "sides")
    behind = ""
    for place, setup in enumerate(new["setups"]):
        at, (was, then) = setup_path(start.document, place), known.get(setup["id"], (-1, None))
        if then is None:
            yield Change(at, put(setup, behind))
        else:
            yield from _of_setup(then, setup, at)
        for kind in REFERENCES:
            key = key_of(start.shelf.setups[place], kind)
            if was < 0 or key != key_of(taken.setups[was], kind):
                yield Change(f"{at}.{kind}", key)
        behind = setup["id"]
    if old["proposed"] != new["proposed"]:
        yield Change(PROPOSED, new["proposed"])


def _of_setup(before: dict[str, Any], after: dict[str, Any], at: str) -> Iterator[Change]:
    if [c["id"] for c in before["cuts"]] == [c["id"] for c in after["cuts"]]:
        yield from changed(before, after, at)
        return
    yield Change(f"{at}.cuts", after["cuts"])
    yield from changed({**before, "cuts": []}, {**after, "cuts": []}, at)


@transaction.atomic
def propose_start(run_id: int, asked: Asked) -> Sent:
    """Give every stop of a plan something to argue with, as one edit; what people decided stays.

    Raises CalcError with a fault at each fact that is missing for it.
    """

    def make(run: Run) -> Making:
        wanted = _wanted(run, ids_for(run, asked.key))
        return Making(PROPOSED, tuple(_parts(wanted.begun, begin(wanted))), "Set-ups proposed")

    return change(run_id, PROPOSED, asked, None, make)


def _moment(arguments: Arguments) -> str:
    return moment_of(run_by_id(arguments["run"]), shelf.current())


def _find(arguments: Arguments, _: Any, tell: Tell) -> Found:
    run = run_by_id(arguments["run"])
    wanted = _wanted(run, ids_for(run, UUID(arguments["ids"])))
    found = settle_start(wanted, tell)
    parts = [[part.path, part.new] for part in _parts(wanted.begun, found)]
    return Found(StartOut(revision=run.revision, changes=len(parts)), {"parts": parts})


START = QuestionKind("start", StartOut, _moment, _find, lambda a: f"start {a['run']}", 60)


def ask_to_settle_start(run_id: int, key: UUID, person: Any) -> QuestionOut:
    """Ask for the proposed plan settled; nothing is kept. Raises NotAllowed, NotFound."""
    require_may_change(person, PROPOSED)
    run_by_id(run_id)
    return ask(START, {"run": run_id, "ids": str(key)}, key, person)


def _begun(run: Run, asked: Asked) -> Edit | None:
    """The edit by which this person proposed what is settled now: one press, so one undo."""
    return Edit.objects.filter(
        run=run, revision=asked.base_revision, by=asked.person.pk, path=PROPOSED, how="edit"
    ).first()


@transaction.atomic
def take_start(run_id: int, question: UUID, asked: Asked) -> Sent:
    """Keep the proposed plan as it was settled, as one edit that carries on the proposal.

    Raises Conflict where the plan has changed since.
    """

    def make(run: Run) -> Making:
        basis = moment_of(run, shelf.current())
        found = found_by(question, START.name, {"run": run_id}, basis, asked.person)
        parts = tuple(Change(path, new) for path, new in found["parts"])
        return Making(PROPOSED, parts, "Set-ups proposed, settled", continues=_begun(run, asked))

    return change(run_id, PROPOSED, asked, CHANGED, make)


@transaction.atomic
def looks_right(run_id: int, setup: str, asked: Asked) -> Sent:
    """Take a side's marks away: somebody has looked at what was proposed there. Undo puts them back."""

    def make(run: Run) -> Making:
        document = document_of(run)
        side = computed(run, shelf.current()).sides[place_of_setup(document, setup)]
        left = [write(m) for m in looked_at(document.proposed, setup)]
        return Making(PROPOSED, (Change(PROPOSED, left),), f"{side.title} looks right")

    return change(run_id, PROPOSED, asked, None, make)

"""Read a run in from its file: the run, and what of the shelf it names that is not here yet."""

from __future__ import annotations

from collections.abc import Iterator
from dataclasses import dataclass, replace
from typing import Any

from django.db import transaction

from calc.errors import CalcError, FieldError, FieldProblem
from calc.item import Item
from calc.plan.document import Document, Setup
from calc.plan.jaws.inputs import Jaws
from calc.plan.run_file import RunFile, read_run
from calc.quantities import Sentence
from calc.reading import write
from calc.shelf.taken import SetupShelf
from calc.tools.all_kinds import TOOL_KINDS
from server.apps.house import queries as house
from server.apps.runs.actions.manage import add
from server.apps.runs.models import Run
from server.apps.shelf import queries as shelf
from server.apps.shelf.actions.bring import Bring, bring
from server.apps.shelf.queries import Taken
from server.foundation.roles import require_planner


@dataclass(frozen=True)
class ReadIn:
    """The run, and what there is to tell: what came onto the shelf, and what is different here."""

    run: Run
    told: tuple[str, ...]


@transaction.atomic
def read_in(text: str, person: Any) -> ReadIn:
    """Put the run of a file on the bench. Raises CalcError with a sentence at every field; then nothing is kept."""
    by = require_planner(person)
    shelf.hold_to_change()
    file = read_run(text)
    told: list[str] = []
    problems: list[FieldError] = []
    for one in _named(file):
        try:
            with transaction.atomic():
                told.append(bring(one, by))
        except CalcError as error:
            problems += error.errors
    if problems:
        raise CalcError(problems)
    rules = house.current()
    if file.document.rules != rules:
        told.append(f"The plan goes by this shop's house rules, revision {rules.number}; the file's were others.")
    if any(s.calibration is not None for s in file.shelf.setups):
        told.append("Gauge runs stay with the chuck that they were measured on: the file's are not taken.")
    if any(s.jaw_set is not None for s in file.shelf.setups):
        told.append("Jaw sets stay with the shop that has them: the jaws are planned anew, from the blank.")
    document = _unseen(replace(file.document, rules=rules))
    if document.setups != file.document.setups:
        told.append("What was seen at a machine is not taken: chuck condition, blue, feeler gauge, touch-off.")
    return ReadIn(_kept(replace(file, document=document)), tuple(t for t in told if t))


def _unseen(document: Document) -> Document:
    """The plan without what somebody saw of one chuck and one set of jaws: it is no evidence about others."""

    def unseen(setup: Setup) -> Setup:
        claimed = setup.force.condition in ("today", "week", "measured")
        known = "auto" if claimed else setup.force.condition
        force = replace(setup.force, condition=known, condition_measured=None, condition_date=None)
        jaws = replace(setup.jaws, reading_mm=None, feeler_mm=None, blue=Jaws.blue)
        return replace(setup, force=force, jaws=jaws)

    return replace(document, setups=tuple(unseen(s) for s in document.setups))


def _kept(file: RunFile) -> Run:
    taken = file.shelf
    run = Run(
        name=file.name,
        drawing_number=file.drawing_number,
        units=file.units,
        document=write(file.document),
        machine_id=_id("machine", taken.machine),
        material_id=_id("material", taken.material),
    )
    # A jaw set is one individual: a set of the same key in another shop is another set.
    setups = [
        Taken(_id("chuck", s.chuck), _id("jaw_blank", s.blank), collet_id=_id("collet", s.collet)) for s in taken.setups
    ]
    return add(run, setups)


def _id(kind: str, item: Item | None) -> int | None:
    return None if item is None else shelf.current().ids[kind][item.key]


def _named(file: RunFile) -> Iterator[Bring]:
    """What the run takes from the shelf by name, what others belong to first."""
    taken = file.shelf
    if taken.machine is not None:
        yield Bring("machine", taken.machine, {}, "shelf.machine")
    if taken.material is not None:
        yield Bring("material", taken.material, {}, "shelf.material")
    for index, setup in enumerate(taken.setups):
        yield from _of_setup(setup, file, f"shelf.setups.{index}")
    yield from _tools(file)


def _of_setup(setup: SetupShelf, file: RunFile, at: str) -> Iterator[Bring]:
    chuck, machine = setup.chuck, file.shelf.machine
    if chuck is None:
        return
    if chuck.key not in shelf.current().ids["chuck"] and (machine is None or not setup.on_machine):
        words = "{n} is not on this shelf, and the file does not say on which machine it is: put it there first."
        raise FieldProblem(f"{at}.chuck", Sentence(words, n=chuck.name))
    yield Bring("chuck", chuck, {"machine": machine.key if machine else ""}, f"{at}.chuck")
    if setup.blank is not None:
        yield Bring("jaw_blank", setup.blank, {"chucks": [chuck.key]}, f"{at}.blank")
    if setup.collet is not None:
        yield Bring("collet", setup.collet, {"chucks": [chuck.key]}, f"{at}.collet")


def _tools(file: RunFile) -> Iterator[Bring]:
    """The tools that the cuts name, each part once."""
    named = {key for s in file.document.setups for cut in s.cuts for key in cut.tool.split("/") if key}
    for kind, record in TOOL_KINDS.items():
        for index, tool in enumerate(file.shelf.tools.of_kind(kind)):
            if tool.key in named:
                yield Bring(kind, tool, {}, f"shelf.tools.{record.plural}.{index}")

"""Questions of the shelf that take long: which plans a change would move, and what would become of a file."""

from __future__ import annotations

from typing import Any
from uuid import UUID

from server.apps.questions.actions.ask import ask
from server.apps.questions.kind import Arguments, Found, QuestionKind, Tell
from server.apps.questions.schemas import QuestionOut
from server.apps.shelf.actions.take_file import look
from server.apps.shelf.queries.form import Given
from server.apps.shelf.queries.item import effects_of
from server.apps.shelf.queries.rows import kind_named, row_by_key
from server.apps.shelf.queries.snapshot import token
from server.apps.shelf.schemas import EffectsOut, FileAnswer, FormIn
from server.foundation.roles import require_planner, require_sees_drafts

QUICK = 1  # somebody waits for it with a file in hand, and it takes a second


def _shelf(_: Arguments) -> str:
    return token().hex


def _effects(arguments: Arguments, _: Any, tell: Tell) -> Found:
    given = Given(arguments["fields"], arguments["chart"], arguments["units"], ())
    return Found(effects_of(arguments["kind"], arguments["key"], given, tell))


def _file(arguments: Arguments, _: Any, tell: Tell) -> Found:
    lines = look(arguments["kind"], arguments["text"], tell)
    return Found(FileAnswer(lines=lines, kept=0, bad=sum(a.outcome == "bad" for a in lines)))


EFFECTS = QuestionKind("effects", EffectsOut, _shelf, _effects, lambda a: f"effects {a['kind']} {a['key']}", 120)
FILE = QuestionKind("file", FileAnswer, _shelf, _file, lambda a: f"file {a['kind']}", 60, rank=QUICK)


def ask_for_effects(kind: str, key: str, given: FormIn, question: UUID, person: Any) -> QuestionOut:
    """Ask which plans a change of an item would move; nothing is kept. Raises NotAllowed, NotFound."""
    require_sees_drafts(person)
    row_by_key(kind_named(kind).name, key)
    asked = {"kind": kind, "key": key, "fields": given.fields, "chart": given.chart, "units": given.units}
    return ask(EFFECTS, asked, question, person)


def ask_about_file(kind: str, text: str, question: UUID, person: Any) -> QuestionOut:
    """Ask what would become of every line of a file; nothing is kept. Raises NotAllowed, NotFound."""
    require_planner(person)
    kind_named(kind)
    return ask(FILE, {"kind": kind, "text": text, "units": "metric"}, question, person)

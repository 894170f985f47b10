"""What would become of a file of proven cuts: a question that may take long."""

from __future__ import annotations

from typing import Any
from uuid import UUID

from server.apps.notebook.actions.take_file import look
from server.apps.notebook.schemas import NotebookFileAnswer
from server.apps.questions.actions.ask import ask
from server.apps.questions.kind import Arguments, Found, QuestionKind, Tell
from server.apps.questions.schemas import QuestionOut
from server.foundation.roles import require_planner


def _find(arguments: Arguments, _: Any, __: Tell) -> Found:
    lines = look(arguments["text"])
    return Found(NotebookFileAnswer(lines=lines, kept=0, bad=sum(a.outcome == "bad" for a in lines)))


NOTEBOOK_FILE = QuestionKind(
    "notebook-file", NotebookFileAnswer, lambda _: "", _find, lambda _: "notebook file", 60, rank=1
)


def ask_about_file(text: str, question: UUID, person: Any) -> QuestionOut:
    """Ask what would become of every line of a file; nothing is kept. Raises NotAllowed."""
    require_planner(person)
    return ask(NOTEBOOK_FILE, {"text": text}, question, person)

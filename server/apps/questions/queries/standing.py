"""Reads of questions: how one stands, and an answer that is to be taken."""

from __future__ import annotations

from typing import Any
from uuid import UUID

from server.apps.questions.models import Question
from server.apps.questions.schemas import QuestionOut
from server.foundation.problems import Conflict, NotFound
from server.foundation.schemas import Problem

OPEN = (Question.State.WAITING, Question.State.WORKING)
GONE = "There is no such question any more. Ask it again."


def own_question(key: UUID, person: Any) -> Question:
    """A question of this person. Raises NotFound."""
    found = Question.objects.filter(key=key, by=person).first()
    if found is None:
        raise NotFound(GONE)
    return found


def stand(question: Question) -> QuestionOut:
    """How a question stands."""
    before = 0
    if question.state == Question.State.WAITING:
        before = Question.objects.filter(state__in=OPEN, asked_at__lt=question.asked_at).count()
    return QuestionOut(
        key=question.key,
        kind=question.kind,
        state=question.state,  # type: ignore[arg-type] # one of the states
        told=question.told,
        done=question.done,
        of=question.of,
        before=before,
        answer=question.answer,
        problem=Problem(**question.problem) if question.problem else None,
    )


def found_by(key: UUID, kind: str, arguments: dict[str, Any], basis: str, person: Any) -> Any:
    """What a question of this person found, to be taken. Raises NotFound; Conflict where that no longer holds."""
    question = own_question(key, person)
    asked = {name: question.arguments.get(name) for name in arguments}
    if question.kind != kind or asked != arguments or question.state != Question.State.DONE:
        raise NotFound(GONE)
    if question.basis != basis:
        raise Conflict("The plan or the shelf has changed since this was found. Ask again, then take it.")
    return question.found

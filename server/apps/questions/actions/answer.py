"""A question answered: begun, told how far it has come, ended one way or another."""

from __future__ import annotations

import time
from typing import Any

from django.db.models import F
from django.utils import timezone

from server.apps.questions.kind import QuestionKind, Tell, kind_of
from server.apps.questions.models import Question
from server.foundation.problems import told

TELL_S = 0.25  # between two words of how far it has come
State = Question.State


def begun(key: str) -> Question | None:
    """The question, now being worked on; None where nobody waits for it any more, or what it rests on has changed."""
    question = Question.objects.select_related("by").filter(pk=key).first()
    if question is None or question.state not in (State.WAITING, State.WORKING):
        return None
    if _basis(kind_of(question.kind), question) != question.basis:
        _end(question, state=State.DROPPED, told="What this was asked of has changed since.")
        return None
    mine = Question.objects.filter(pk=key, state__in=(State.WAITING, State.WORKING))
    return question if mine.update(state=State.WORKING, tries=F("tries") + 1, done=0) else None


def _basis(kind: QuestionKind, question: Question) -> str | None:
    try:
        return kind.basis(question.arguments)
    except Exception as error:
        if told(error, "metric") is None:
            raise
        return None  # what it was asked of is gone


def _end(question: Question, **ended: Any) -> None:
    # One that was cancelled meanwhile stays so.
    open_still = Question.objects.filter(pk=question.pk, state__in=(State.WAITING, State.WORKING))
    open_still.update(ended_at=timezone.now(), **ended)


def _telling(question: Question) -> Tell:
    last = time.monotonic()

    def tell(done: int, of: int) -> None:
        nonlocal last
        if time.monotonic() - last >= TELL_S:
            last = time.monotonic()
            Question.objects.filter(pk=question.pk).update(done=done, of=of)

    return tell


def answer(question: Question, tell: Tell | None = None) -> None:
    """Answer a question that was begun. An error that no person caused is raised, after the question was told it."""
    try:
        found = kind_of(question.kind).find(question.arguments, question.by, tell or _telling(question))
    except Exception as error:
        problem = told(error, question.arguments.get("units", "metric"))
        if problem is None:
            _end(question, state=State.FAILED, told="Answering it went wrong. It is written in the server's log.")
            raise
        _end(question, state=State.FAILED, problem={"type": "about:blank", "errors": [], **problem})
        return
    _end(question, state=State.DONE, answer=found.answer.model_dump(mode="json"), found=found.kept)


def give_up(key: str, words: str) -> None:
    """End a question that cannot be answered."""
    question = Question.objects.filter(pk=key).first()
    if question is not None:
        _end(question, state=State.FAILED, told=words)


def tell_again(key: str) -> None:
    """Say that what computed the question ended, and that it is asked once more."""
    words = "The process that computed this ended. It is asked once more."
    Question.objects.filter(pk=key, state=State.WORKING).update(state=State.WAITING, told=words)

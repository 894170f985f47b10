"""A question put into the queue, and taken out again."""

from __future__ import annotations

import json
from datetime import timedelta
from hashlib import blake2b
from typing import Any
from uuid import UUID

from django.db import transaction
from django.utils import timezone
from procrastinate.contrib.django import app

from server.apps.questions.kind import Arguments, QuestionKind
from server.apps.questions.models import Question
from server.apps.questions.queries.standing import OPEN, own_question, stand
from server.apps.questions.schemas import QuestionOut
from server.foundation.models import Person
from server.foundation.once import ANOTHER
from server.foundation.problems import BadValue, Conflict, TooMany

PERSON_MOST = 4
ALL_MOST = 64
KEPT = timedelta(hours=1)
QUEUES = {True: "computing", False: "listening"}


def task_name(kind: QuestionKind) -> str:
    """The task of the queue that answers this kind."""
    return f"answer_{QUEUES[kind.computes]}"


def _subject(kind: QuestionKind, arguments: Arguments) -> str:
    said = json.dumps([kind.name, arguments], sort_keys=True)
    if "\\u0000" in said:  # which no text has, and the database keeps none
        raise BadValue("text", "This holds a character that no text has. Save it as plain text, then read it again.")
    return blake2b(said.encode(), digest_size=32).hexdigest()


@transaction.atomic
def ask(kind: QuestionKind, arguments: Arguments, key: UUID, person: Any) -> QuestionOut:
    """Put a question into the queue; the same one of the same person is asked once, an older one of its slot is ended.

    Raises TooMany where this person, or the shop, has too many open ones; BadValue for what is no text.
    """
    asker = Person.objects.select_for_update().get(pk=person.pk)  # so that nobody gets past the limit by hurrying
    known = Question.objects.filter(key=key).first()
    if known is not None:
        if (known.by_id, known.subject) != (asker.pk, _subject(kind, arguments)):
            raise Conflict(ANOTHER)
        return stand(known)
    Question.objects.filter(asked_at__lt=timezone.now() - KEPT).exclude(state__in=OPEN).delete()
    subject, basis, slot = _subject(kind, arguments), kind.basis(arguments), kind.slot(arguments)
    same = Question.objects.filter(by=asker, subject=subject, basis=basis, state__in=(*OPEN, Question.State.DONE))
    again = same.order_by("-asked_at").first()
    if again is not None:
        return stand(again)
    for old in Question.objects.filter(by=asker, slot=slot, state__in=OPEN):
        _end(old, Question.State.CANCELLED, "A newer question took its place.")
    if Question.objects.filter(by=asker, state__in=OPEN).count() >= PERSON_MOST:
        raise TooMany(f"{PERSON_MOST} of your questions are being answered already. Wait for one, or cancel it.")
    if Question.objects.filter(state__in=OPEN).count() >= ALL_MOST:
        raise TooMany("Too many questions wait just now. Ask again in a moment.")
    question = Question.objects.create(
        key=key, kind=kind.name, arguments=arguments, subject=subject, basis=basis, slot=slot, by=asker
    )
    put_in_queue(question, kind)
    return stand(question)


def put_in_queue(question: Question, kind: QuestionKind) -> None:
    """Let a worker take the question."""
    deferrer = app.configure_task(task_name(kind), queue=QUEUES[kind.computes], priority=kind.rank)
    question.job = deferrer.defer(question=str(question.key), seconds=kind.seconds)
    question.save(update_fields=["job"])


def _end(question: Question, state: Question.State, told: str) -> None:
    Question.objects.filter(pk=question.pk, state__in=OPEN).update(state=state, told=told, ended_at=timezone.now())
    if question.job is not None:
        app.job_manager.cancel_job_by_id(question.job, abort=True)


@transaction.atomic
def cancel(key: UUID, person: Any) -> None:
    """Take one's own question back; what computes it is ended. Raises NotFound."""
    _end(own_question(key, person), Question.State.CANCELLED, "Cancelled.")

"""An answer is graded and kept, and its subject is due again when it would be forgotten."""

from __future__ import annotations

from datetime import UTC, datetime
from typing import Any

from django.db import transaction
from fsrs import Card, Rating, Scheduler

from calc.practice.exercise import Verdict, grade
from calc.practice.kinds import GENERATOR, Kind
from calc.practice.said import grade_said
from server.apps.practice.models import Attempt, Practiser, Subject
from server.apps.practice.queries.subjects import kind_named, subject_of
from server.apps.practice.schemas import AnswerIn, GradeOut, HideIn
from server.foundation.models import Person
from server.foundation.once import digest_of, was_sent

RATED: dict[Verdict, Rating] = {
    "right": Rating.Good,
    "close": Rating.Hard,
    "wrong": Rating.Again,
    "dangerous": Rating.Again,
}
UP_AFTER = 3  # right ones in a row


def _remembered(memory: dict[str, Any] | None, verdict: Verdict, at: datetime) -> Card:
    """The card after an answer. Without fuzz: the same answers are due at the same time."""
    card = Card(due=at) if memory is None else Card.from_dict(memory)  # type: ignore[arg-type] # as it was made
    return Scheduler(enable_fuzzing=False).review_card(card, RATED[verdict], at)[0]


@transaction.atomic
def answer(given: AnswerIn, person: Person) -> GradeOut:
    """Grade an answer and keep it, once by its key. Raises NotFound, CalcError at `given`."""
    kind = kind_named(given.kind)
    level = min(given.level, kind.levels)
    exercise = kind.exercise(given.seed, level)
    found = grade(exercise, given.given, given.units)
    if not was_sent(given.key, person, digest_of("practice", given.model_dump(mode="json"))):
        Attempt.objects.create(
            person=person,
            kind=kind.name,
            seed=given.seed,
            level=level,
            generator=GENERATOR,
            units=given.units,
            given=given.given,
            verdict=found.verdict,
        )
        _moved(person, kind, level, found.verdict)
    return GradeOut(grade=grade_said(exercise, found, given.units), subject=subject_of(person, kind))


def _moved(person: Person, kind: Kind, level: int, verdict: Verdict) -> None:
    """Let the subject follow an answer: up after a few right ones at its own level, down after a dangerous one."""
    now = datetime.now(UTC)
    row = Subject.objects.select_for_update().filter(person=person, kind=kind.name).first()
    card = _remembered(row.memory if row else None, verdict, now)
    row = row or Subject(person=person, kind=kind.name)
    if verdict == "dangerous":
        row.level, row.streak = max(1, row.level - 1), 0
    elif verdict != "right":
        row.streak = 0
    elif level >= row.level:
        row.streak += 1
        if row.streak >= UP_AFTER and row.level < kind.levels:
            row.level, row.streak = row.level + 1, 0
    row.memory, row.due = card.to_dict(), card.due
    row.save()


def hide(given: HideIn, person: Person) -> None:
    """Hide one's progress from the owner, or show it again."""
    Practiser.objects.update_or_create(person=person, defaults={"hidden": given.hidden})

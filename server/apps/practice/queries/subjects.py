"""How far somebody is with each kind of exercise."""

from __future__ import annotations

from collections.abc import Iterable
from datetime import datetime
from typing import Any

from django.db.models import Count, Max, Q
from django.utils import timezone

from calc.practice.kinds import GROUPS, KINDS, Kind
from server.apps.practice.models import Attempt, Practiser, Subject
from server.apps.practice.schemas import PersonPracticeOut, PracticeOut, SubjectOut
from server.foundation.models import Person
from server.foundation.problems import NotFound
from server.foundation.roles import require_owner


def kind_named(name: str) -> Kind:
    """A kind by its name. Raises NotFound."""
    if name not in KINDS:
        raise NotFound(f"There is no exercise “{name}”.")
    return KINDS[name]


def practice(person: Person) -> PracticeOut:
    """All subjects as they stand for somebody; the next one is what is due longest, else what was never practised."""
    subjects = [subject_out(*found) for found in _found(person)]
    due = sorted((s for s in subjects if s.is_due and s.due), key=lambda s: s.due or timezone.now())
    fresh = [s for s in subjects if s.due is None]
    last = min(subjects, key=lambda s: s.due or timezone.now())
    return PracticeOut(
        groups=list(GROUPS),
        subjects=subjects,
        next=(due or fresh or [last])[0].kind,
        hidden=Practiser.objects.filter(person=person, hidden=True).exists(),
    )


def subject_of(person: Person, kind: Kind) -> SubjectOut:
    """One subject as it stands for somebody."""
    return next(subject_out(*found) for found in _found(person) if found[0] is kind)


def level_of(person: Person, kind: Kind) -> int:
    """The level somebody practises a kind at."""
    found = Subject.objects.filter(person=person, kind=kind.name).values_list("level", flat=True).first()
    return min(found or 1, kind.levels)


def _found(person: Person) -> Iterable[tuple[Kind, Subject | None, dict[str, int]]]:
    rows = {s.kind: s for s in Subject.objects.filter(person=person)}
    counts = _counted(Attempt.objects.filter(person=person).values("kind"))
    by_kind = {c["kind"]: c for c in counts}
    for kind in KINDS.values():
        yield kind, rows.get(kind.name), by_kind.get(kind.name, {})


def _counted(rows: Any) -> Any:
    return rows.annotate(
        answers=Count("pk"),
        right=Count("pk", filter=Q(verdict="right")),
        dangerous=Count("pk", filter=Q(verdict="dangerous")),
        last=Max("at"),
    ).order_by()


def subject_out(kind: Kind, row: Subject | None, counts: dict[str, int]) -> SubjectOut:
    """A subject as it is sent."""
    return SubjectOut(
        kind=kind.name,
        group=kind.group,
        title=kind.title,
        levels=kind.levels,
        level=min(row.level, kind.levels) if row else 1,
        answers=counts.get("answers", 0),
        right=counts.get("right", 0),
        dangerous=counts.get("dangerous", 0),
        due=row.due if row else None,
        is_due=row is not None and row.due <= timezone.now(),
    )


def people(person: Any) -> list[PersonPracticeOut]:
    """Who has practised what, for an owner. Raises NotAllowed."""
    require_owner(person)
    hidden = set(Practiser.objects.filter(hidden=True).values_list("person_id", flat=True))
    counts = {c["person"]: c for c in _counted(Attempt.objects.values("person"))}
    levels: dict[int, dict[str, int]] = {}
    for row in Subject.objects.all():
        levels.setdefault(row.person_id, {})[row.kind] = row.level
    return [
        _person(p, counts.get(p.pk, {}), levels.get(p.pk, {}), hidden=p.pk in hidden)
        for p in Person.objects.filter(is_active=True)
    ]


def _person(person: Person, counts: dict[str, Any], levels: dict[str, int], *, hidden: bool) -> PersonPracticeOut:
    last: datetime | None = counts.get("last")
    return PersonPracticeOut(
        name=person.username,
        role=person.role,
        hidden=hidden,
        answers=0 if hidden else counts.get("answers", 0),
        right=0 if hidden else counts.get("right", 0),
        dangerous=0 if hidden else counts.get("dangerous", 0),
        last=None if hidden else last,
        subjects={} if hidden else levels,
    )

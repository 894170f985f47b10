"""Exercises to be asked: of a seed, and of a plan's moments."""

from __future__ import annotations

from secrets import randbelow
from typing import Any

from calc.plan.compute import PlanResult
from calc.practice.exercise import Exercise, grade
from calc.practice.from_work import moments, of_moment
from calc.practice.kinds import GENERATOR, SEED_MOST, Kind
from calc.practice.said import GradeSaid, exercise_said, grade_said
from calc.quantities import System
from server.apps.practice.queries.subjects import kind_named, level_of
from server.apps.practice.schemas import ExerciseAsk, ExerciseOut, MomentOut, MomentsOut, WorkAnswerIn
from server.apps.runs.queries.find import run_by_id
from server.apps.runs.queries.plan import computed
from server.apps.runs.queries.released_plan import released_result
from server.apps.runs.queries.releases import names_of, standing_release
from server.apps.shelf import queries as shelf
from server.foundation.models import Person
from server.foundation.problems import NotFound
from server.foundation.roles import sees_drafts

OTHER = "This link was made by version {n} of the exercises: it may be another one today."


def exercise(name: str, asked: ExerciseAsk, person: Person) -> ExerciseOut:
    """An exercise of a kind. Raises NotFound."""
    kind = kind_named(name)
    seed = randbelow(SEED_MOST + 1) if asked.seed is None else asked.seed
    level = min(asked.level or level_of(person, kind), kind.levels)
    told = ""
    if asked.generator not in (None, GENERATOR):
        told = OTHER.format(n=asked.generator)
    return _out(kind, kind.exercise(seed, level), (seed, level), told, asked.units)


def _out(kind: Kind, found: Exercise, which: tuple[int, int], told: str, system: System) -> ExerciseOut:
    seed, level = which
    return ExerciseOut(
        kind=kind.name,
        title=kind.title,
        seed=seed,
        level=level,
        levels=kind.levels,
        generator=GENERATOR,
        told=told,
        exercise=exercise_said(found, system),
    )


def plan_for(run_id: int, person: Any) -> tuple[str, int | None, PlanResult]:
    """(a run's name, the release that is seen, its plan): the draft for who may see it. Raises NotFound, NotAllowed."""
    run = run_by_id(run_id)
    if sees_drafts(person):
        return f"{run.drawing_number} {run.name}", None, computed(run, shelf.current())
    release = standing_release(run)
    # What it is called since is the draft's.
    name, number = names_of(release, "metric")
    return f"{number} {name}", release.number, released_result(release.key)


def moments_of(run_id: int, person: Any) -> MomentsOut:
    """What of a run's plan can be practised. Raises NotFound, NotAllowed."""
    name, release, result = plan_for(run_id, person)
    found = [MomentOut(name=m.name, title=m.title, words=m.words, place=m.place) for m in moments(result)]
    return MomentsOut(run=name, release=release, moments=found)


def _moment(run_id: int, name: str, place: int, person: Any) -> tuple[str, Exercise]:
    said, _, result = plan_for(run_id, person)
    try:
        return said, of_moment(result, name, place)
    except KeyError as error:
        raise NotFound("This plan does not ask that, or not any more.") from error


def from_work(run_id: int, name: str, place: int, units: System, person: Any) -> ExerciseOut:
    """A moment of a plan as an exercise. Raises NotFound, NotAllowed."""
    said, found = _moment(run_id, name, place, person)
    return ExerciseOut(
        kind=name,
        title=said,
        seed=place,
        level=1,
        levels=1,
        generator=GENERATOR,
        told="",
        exercise=exercise_said(found, units),
    )


def graded_from_work(run_id: int, name: str, place: int, given: WorkAnswerIn, person: Any) -> GradeSaid:
    """The grade of an answer to a moment; nothing is kept of it. Raises NotFound, NotAllowed, CalcError."""
    _, found = _moment(run_id, name, place, person)
    return grade_said(found, grade(found, given.given, given.units), given.units)

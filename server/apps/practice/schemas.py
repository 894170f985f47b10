"""Wire shapes of practice."""

from __future__ import annotations

from datetime import datetime
from typing import Annotated
from uuid import UUID

from pydantic import BaseModel, Field

from calc.practice.kinds import SEED_MOST
from calc.practice.said import ExerciseSaid, GradeSaid, KnownSaid
from calc.said.drawn import SceneSaid
from calc.said.graph import GraphSaid
from server.foundation.schemas import Units


class SubjectOut(BaseModel):
    """A kind of exercise and how far one is with it: at which level, answers by how good they were, when it is due."""

    kind: str
    group: str
    title: str
    levels: int
    level: int
    answers: int
    right: int
    dangerous: int
    due: datetime | None
    is_due: bool


class PracticeOut(BaseModel):
    """Practice as one comes to it: subjects in the order of the work, which one is next, and whether one's progress is
    hidden from the owner."""

    groups: list[tuple[str, str]]
    subjects: list[SubjectOut]
    next: str
    hidden: bool


class ExerciseAsk(BaseModel):
    """Which exercise: by its seed, or one that is drawn; at one's own level where none is asked for."""

    seed: Annotated[int | None, Field(ge=0, le=SEED_MOST)] = None
    level: Annotated[int | None, Field(ge=1, le=9)] = None
    generator: int | None = None
    units: Units = "metric"


class ExerciseOut(BaseModel):
    """An exercise: kind, seed, level and generator make it again, anywhere. `told`: what is to be said about it."""

    kind: str
    title: str
    seed: int
    level: int
    levels: int
    generator: int
    told: str
    exercise: ExerciseSaid


class AnswerIn(BaseModel):
    """An answer: the key of an option, or a figure as it is written."""

    key: UUID
    kind: str
    seed: Annotated[int, Field(ge=0, le=SEED_MOST)]
    level: Annotated[int, Field(ge=1, le=9)]
    given: Annotated[str, Field(max_length=80)]
    units: Units = "metric"


class GradeOut(BaseModel):
    """A grade, and how far one is with the subject now."""

    grade: GradeSaid
    subject: SubjectOut


class MomentOut(BaseModel):
    """A moment of a run's plan that can be practised."""

    name: str
    title: str
    words: str
    place: int


class MomentsOut(BaseModel):
    """The moments of a run's plan, of its draft or of the release that stands."""

    run: str
    release: int | None
    moments: list[MomentOut]


class WorkAnswerIn(BaseModel):
    """An answer to a moment of a plan."""

    given: Annotated[str, Field(max_length=80)]
    units: Units = "metric"


class HideIn(BaseModel):
    """Whether one's progress is hidden from the owner."""

    hidden: bool


class PersonPracticeOut(BaseModel):
    """How far somebody is; `hidden`: they show it to nobody, and nothing of it is sent."""

    name: str
    role: str
    hidden: bool
    answers: int
    right: int
    dangerous: int
    last: datetime | None
    subjects: dict[str, int]


class ApprenticeIn(BaseModel):
    """How the apprentice's chuck is set, in core units; the tapers that its jaws were cut with, as they are written."""

    seed: Annotated[int, Field(ge=0, le=SEED_MOST)]
    pressure_bar: float
    height_mm: float
    rpm: float
    grease: str
    tapers: Annotated[list[Annotated[str, Field(max_length=40)]], Field(max_length=20)] = []
    units: Units = "metric"


class ApprenticeCut(BaseModel):
    """A cut of the jaws and what the blue showed after it."""

    taper: str
    shows: str


class ApprenticeOut(BaseModel):
    """What the chuck answers: how it is set in the units shown, its figures, cautions, pictures, and its jaws."""

    shown: list[KnownSaid]
    figures: list[KnownSaid]
    told: list[str]
    curve: GraphSaid | None
    wall: SceneSaid | None
    unit: str
    cuts: list[ApprenticeCut]
    blue: SceneSaid | None
    done: bool
    words: str

"""Practice over HTTP."""

from __future__ import annotations

from typing import Annotated

from django.http import HttpRequest, HttpResponse
from ninja import Query, Router, Status
from pydantic import BaseModel, Field

from calc.practice.kinds import SEED_MOST
from calc.practice.said import GradeSaid
from server.apps.practice import sheet
from server.apps.practice.actions import answer as answers
from server.apps.practice.queries import apprentice, exercises, subjects
from server.apps.practice.schemas import (
    AnswerIn,
    ApprenticeIn,
    ApprenticeOut,
    ExerciseAsk,
    ExerciseOut,
    GradeOut,
    HideIn,
    MomentsOut,
    PersonPracticeOut,
    PracticeOut,
    WorkAnswerIn,
)
from server.foundation.schemas import Problem, Units

router = Router(tags=["practice"])
LOOKS = {401: Problem, 403: Problem, 404: Problem, 422: Problem}
CHANGES = {400: Problem, 409: Problem, **LOOKS}
WORK = "/practice/from/{int:run_id}"
PDF = {"responses": {200: {"content": {"application/pdf": {"schema": {"type": "string", "format": "binary"}}}}}}


@router.get("/practice", response={200: PracticeOut, **LOOKS}, operation_id="practice")
def practice(request: HttpRequest) -> PracticeOut:
    """Every subject as it stands for who asks."""
    return subjects.practice(request.user)  # type: ignore[arg-type] # who is signed in is a person


@router.get("/practice/exercises/{kind}", response={200: ExerciseOut, **LOOKS}, operation_id="exercise")
def exercise(request: HttpRequest, kind: str, asked: Query[ExerciseAsk]) -> ExerciseOut:
    """An exercise, without its answer."""
    return exercises.exercise(kind, asked, request.user)  # type: ignore[arg-type] # who is signed in is a person


@router.post("/practice/answers", response={200: GradeOut, **CHANGES}, operation_id="answerExercise")
def answer(request: HttpRequest, given: AnswerIn) -> GradeOut:
    """Grade an answer and keep it."""
    return answers.answer(given, request.user)  # type: ignore[arg-type] # who is signed in is a person


@router.post("/practice/hidden", response={204: None, **CHANGES}, operation_id="hideProgress")
def hidden(request: HttpRequest, given: HideIn) -> Status[None]:
    """Hide one's progress from the owner, or show it again."""
    answers.hide(given, request.user)  # type: ignore[arg-type] # who is signed in is a person
    return Status(204, None)


@router.get("/practice/people", response={200: list[PersonPracticeOut], **LOOKS}, operation_id="whoPractised")
def people(request: HttpRequest) -> list[PersonPracticeOut]:
    """Who has practised what."""
    return subjects.people(request.user)


class SheetAsk(BaseModel):
    """Which sheet."""

    seed: Annotated[int, Field(ge=0, le=SEED_MOST)]
    level: Annotated[int, Field(ge=1, le=3)] = 1
    units: Units = "metric"
    paper: sheet.Paper = "A4"


@router.get("/practice/sheet.pdf", response={200: str, **LOOKS}, operation_id="practiceSheet", openapi_extra=PDF)
def practice_sheet(request: HttpRequest, asked: Query[SheetAsk]) -> HttpResponse:
    """Ten exercises on paper, their answers on the back."""
    made = sheet.pdf_of(sheet.Which(asked.seed, asked.level, asked.units, asked.paper))
    answer = HttpResponse(made, content_type="application/pdf")
    answer["Content-Disposition"] = f'inline; filename="practice-{asked.seed}.pdf"'
    return answer


@router.post("/practice/apprentice", response={200: ApprenticeOut, **CHANGES}, operation_id="apprentice")
def apprentice_bench(request: HttpRequest, given: ApprenticeIn) -> ApprenticeOut:
    """What the apprentice's chuck answers to how it is set; nothing of it is kept."""
    return apprentice.apprentice(given)


@router.get(WORK, response={200: MomentsOut, **LOOKS}, operation_id="momentsOfWork")
def moments_of_work(request: HttpRequest, run_id: int) -> MomentsOut:
    """What of a run's plan can be practised."""
    return exercises.moments_of(run_id, request.user)


@router.get(f"{WORK}/{{name}}/{{int:place}}", response={200: ExerciseOut, **LOOKS}, operation_id="exerciseFromWork")
def from_work(request: HttpRequest, run_id: int, name: str, place: int, units: Units = "metric") -> ExerciseOut:
    """A moment of a plan as an exercise."""
    return exercises.from_work(run_id, name, place, units, request.user)


@router.post(f"{WORK}/{{name}}/{{int:place}}", response={200: GradeSaid, **CHANGES}, operation_id="answerFromWork")
def answer_from_work(request: HttpRequest, run_id: int, name: str, place: int, given: WorkAnswerIn) -> GradeSaid:
    """The grade of an answer to a moment of a plan."""
    return exercises.graded_from_work(run_id, name, place, given, request.user)

"""Routes of the notebook."""

from __future__ import annotations

from django.http import HttpRequest, HttpResponse
from ninja import Query, Router, Status

from server.apps.notebook import queries
from server.apps.notebook.actions import heavy
from server.apps.notebook.actions.keep_cut import Seen, figures_to_take, keep_planned, put_back, take_out, write_cut
from server.apps.notebook.actions.take_file import take_file
from server.apps.notebook.asks import ProvenTake
from server.apps.notebook.schemas import (
    EverythingAsk,
    EverythingOut,
    LikeOut,
    NotebookAsk,
    NotebookFileAnswer,
    NotebookFileIn,
    NotebookFileLook,
    NotebookOut,
    NotebookUnits,
    ProvenIn,
    ProvenLine,
)
from server.apps.questions.schemas import QuestionOut
from server.apps.runs.actions import operate
from server.apps.runs.actions.asked import Asked
from server.apps.runs.schemas import PlanOut
from server.foundation.roles import require_sees_drafts, sees_drafts
from server.foundation.schemas import Problem

router = Router(tags=["notebook"])
LOOKS = {401: Problem, 404: Problem, 422: Problem}
CHANGES = {400: Problem, 403: Problem, 409: Problem, **LOOKS}
ASKS = {400: Problem, 403: Problem, 429: Problem, **LOOKS}
CSV = {"responses": {200: {"content": {"text/csv": {"schema": {"type": "string"}}}}}}
CUT = "/runs/{int:run_id}/sides/{setup}/cuts/{cut}"


@router.get("/notebook/cuts", response={200: NotebookOut, **LOOKS}, operation_id="notebook")
def notebook(request: HttpRequest, asked: Query[NotebookAsk]) -> NotebookOut:
    """A page of proven cuts, the newest first, found by words, operation and material group."""
    return queries.page(asked, drafts=sees_drafts(request.user))


@router.get("/notebook/everything", response={200: EverythingOut, 403: Problem, **LOOKS}, operation_id="everything")
def everything(request: HttpRequest, asked: Query[EverythingAsk]) -> EverythingOut:
    """Everything that was noted at the machines, found by any words."""
    require_sees_drafts(request.user)
    return queries.everything(asked)


@router.post("/notebook/cuts", response={201: ProvenLine, **CHANGES}, operation_id="writeProvenCut")
def write(request: HttpRequest, given: ProvenIn) -> Status[ProvenLine]:
    """Write a proven cut by hand."""
    row = write_cut(dict(given.fields), given.units, given.key, request.user)
    return Status(201, queries.line(row, given.units))


@router.delete("/notebook/cuts/{int:proven}", response={204: None, **CHANGES}, operation_id="takeOutProvenCut")
def remove(request: HttpRequest, proven: int) -> Status[None]:
    """Take a cut out of the notebook."""
    take_out(proven, request.user)
    return Status(204, None)


@router.post("/notebook/cuts/{int:proven}/back", response={200: ProvenLine, **CHANGES}, operation_id="putBackProvenCut")
def back(request: HttpRequest, proven: int, asked: Query[NotebookUnits]) -> ProvenLine:
    """Put a cut that was taken out back into the notebook."""
    return queries.line(put_back(proven, request.user), asked.units)


@router.get("/notebook/file", response={200: str, **LOOKS}, operation_id="notebookFile", openapi_extra=CSV)
def file_out(request: HttpRequest) -> HttpResponse:
    """The whole notebook as a CSV file, figures in core units."""
    answer = HttpResponse(queries.file(), content_type="text/csv; charset=utf-8")
    answer["Content-Disposition"] = 'attachment; filename="notebook.csv"'
    return answer


@router.post("/notebook/file/look", response={202: QuestionOut, **ASKS}, operation_id="lookAtNotebookFile")
def file_look(request: HttpRequest, given: NotebookFileLook) -> Status[QuestionOut]:
    """Ask what would become of every line of a CSV file. Nothing is kept."""
    return Status(202, heavy.ask_about_file(given.text, given.key, request.user))


@router.post("/notebook/file", response={200: NotebookFileAnswer, **CHANGES}, operation_id="takeNotebookFile")
def file_in(request: HttpRequest, given: NotebookFileIn) -> NotebookFileAnswer:
    """Keep the lines of a CSV file as asked, each answered."""
    answers, kept = take_file(given.text, given.keep, request.user)
    return NotebookFileAnswer(lines=answers, kept=kept, bad=sum(a.outcome == "bad" for a in answers))


@router.get(f"{CUT}/proven", response={200: LikeOut, 403: Problem, 409: Problem, **LOOKS}, operation_id="provenLikeCut")
def like(request: HttpRequest, run_id: int, setup: str, cut: str, asked: Query[NotebookUnits]) -> LikeOut:
    """Proven cuts like a planned one, the most like first, each with why."""
    require_sees_drafts(request.user)
    return queries.like(run_id, setup, cut, asked.units)


@router.post(f"{CUT}/keep", response={201: ProvenLine, **CHANGES}, operation_id="keepProvenCut")
def keep(request: HttpRequest, run_id: int, setup: str, cut: str, given: ProvenIn) -> Status[ProvenLine]:
    """Keep a planned cut that worked, with how its chip and finish came out."""
    seen = Seen(dict(given.fields), given.units, given.key)
    row = keep_planned(run_id, setup, cut, seen, request.user)
    return Status(201, queries.line(row, given.units))


@router.post(f"{CUT}/proven", response={200: PlanOut, **CHANGES}, operation_id="takeProvenCut")
def take(request: HttpRequest, run_id: int, setup: str, cut: str, given: ProvenTake) -> HttpResponse:
    """Put a proven cut's figures into a planned one, as one edit."""
    asked = Asked(request.user, given.look(), given.key, given.base_revision, given.said(request.path))
    path = f"{operate.cuts_path(setup)}.{cut}"
    plan = operate.take_figures(run_id, path, figures_to_take(given.proven, request.user), asked)
    return HttpResponse(plan.json(), content_type="application/json")

"""Running over HTTP."""

from __future__ import annotations

from django.http import HttpRequest, HttpResponse
from django.utils.text import get_valid_filename
from ninja import Query, Router
from pydantic import BaseModel

from server.apps.running.actions import change as changing
from server.apps.running.actions import close as closes
from server.apps.running.actions import correct as correcting
from server.apps.running.actions import measure as measuring
from server.apps.running.actions import take_file as files
from server.apps.running.queries import closing as closings
from server.apps.running.queries import page as pages
from server.apps.running.queries import pieces
from server.apps.running.schemas import (
    ChangeIn,
    CloseIn,
    ClosingOut,
    CorrectIn,
    KeptOut,
    LastTimeOut,
    MeasureIn,
    PieceIn,
    PieceOut,
    PiecesFileIn,
    PiecesFileOut,
    RunningAsk,
    RunningOut,
    RunningPulse,
    StopIn,
)
from server.foundation.schemas import Problem, Units

router = Router(tags=["running"])
RUNNING = "/runs/{int:run_id}/running"
LOT = f"{RUNNING}/{{int:number}}/{{lot}}"
LOOKS = {401: Problem, 403: Problem, 404: Problem, 422: Problem}
CHANGES = {400: Problem, 409: Problem, **LOOKS}
CSV = {"responses": {200: {"content": {"text/csv": {"schema": {"type": "string"}}}}}}


@router.get(RUNNING, response={200: RunningOut, **LOOKS}, operation_id="running")
def running(request: HttpRequest, run_id: int, asked: Query[RunningAsk]) -> HttpResponse:
    """A lot of a release as it stands at the machine."""
    return _written(pages.page(run_id, asked.release, asked.lot, asked.units, request.user))


def _written(answer: BaseModel) -> HttpResponse:
    """Written straight to JSON by pydantic, once: it is waited for at the machine, and holds a whole chart."""
    return HttpResponse(answer.model_dump_json(), content_type="application/json")


@router.get(f"{LOT}/pulse", response={200: RunningPulse, **LOOKS}, operation_id="runningPulse")
def pulse(request: HttpRequest, run_id: int, number: int, lot: str) -> RunningPulse:
    """Whether anything was kept of a lot since."""
    return pages.pulse(run_id, number, lot, request.user)


@router.get(f"{LOT}/pieces/{{int:piece}}", response={200: PieceOut, **LOOKS}, operation_id="pieceMade")
def piece(request: HttpRequest, run_id: int, number: int, lot: str, piece: int, units: Units = "metric") -> PieceOut:
    """A piece with what was measured of it, and what was corrected."""
    return pieces.piece_out(run_id, number, lot, piece, units, request.user)


@router.get(f"{LOT}/pieces.csv", response={200: str, **LOOKS}, operation_id="piecesFile", openapi_extra=CSV)
def pieces_file(request: HttpRequest, run_id: int, number: int, lot: str, units: Units = "metric") -> HttpResponse:
    """Every piece of a lot as a CSV file."""
    name, text = pieces.as_file(run_id, number, lot, units, request.user)
    answer = HttpResponse(text, content_type="text/csv; charset=utf-8")
    answer["Content-Disposition"] = f'attachment; filename="{get_valid_filename(name[-80:])}"'
    return answer


@router.get(f"{LOT}/closing", response={200: ClosingOut, **LOOKS}, operation_id="lotAtItsEnd")
def closing(request: HttpRequest, run_id: int, number: int, lot: str, units: Units = "metric") -> ClosingOut:
    """A lot at its end: planned beside real, and what of it is worth keeping."""
    return closings.closing_page(run_id, number, lot, units, request.user)


@router.get("/runs/{int:run_id}/last-time", response={200: LastTimeOut, **LOOKS}, operation_id="lastTime")
def last_time(request: HttpRequest, run_id: int, units: Units = "metric") -> LastTimeOut:
    """What was learnt of this part, or of its material, before, and how it ran."""
    return closings.last_time(run_id, units, request.user)


@router.post(f"{RUNNING}/closing", response={200: ClosingOut, **CHANGES}, operation_id="closeLot")
def close(request: HttpRequest, run_id: int, given: CloseIn) -> ClosingOut:
    """Close a lot: its cuts go into the notebook as asked, and what the next one should know is kept."""
    return closes.close(run_id, given, request.user)


@router.post(f"{RUNNING}/pieces", response={200: KeptOut, **CHANGES}, operation_id="countPiece")
def count(request: HttpRequest, run_id: int, given: PieceIn) -> HttpResponse:
    """Count a piece, good or scrap, with what was measured of it."""
    return _written(measuring.count(run_id, given, request.user))


@router.post(f"{RUNNING}/sizes", response={200: KeptOut, **CHANGES}, operation_id="measurePiece")
def measure(request: HttpRequest, run_id: int, given: MeasureIn) -> HttpResponse:
    """Keep what was measured of a piece that was counted before."""
    return _written(measuring.measure(run_id, given, request.user))


@router.post(f"{RUNNING}/changes", response={200: KeptOut, **CHANGES}, operation_id="changeAtMachine")
def change(request: HttpRequest, run_id: int, given: ChangeIn) -> HttpResponse:
    """Note a fresh edge, or an offset that was moved."""
    return _written(changing.change(run_id, given, request.user))


@router.post(f"{RUNNING}/stops", response={200: KeptOut, **CHANGES}, operation_id="stopAtMachine")
def stop(request: HttpRequest, run_id: int, given: StopIn) -> HttpResponse:
    """Note that it stopped and why, or that it goes on."""
    return _written(changing.stop(run_id, given, request.user))


@router.post(f"{RUNNING}/corrections", response={200: KeptOut, **CHANGES}, operation_id="correctPiece")
def correct(request: HttpRequest, run_id: int, given: CorrectIn) -> HttpResponse:
    """Correct a piece; what stood there before is kept."""
    return _written(correcting.correct(run_id, given, request.user))


@router.post(f"{RUNNING}/file", response={200: PiecesFileOut, **CHANGES}, operation_id="takePiecesFile")
def take_file(request: HttpRequest, run_id: int, given: PiecesFileIn) -> PiecesFileOut:
    """Keep what a CSV file says of pieces that were counted."""
    return files.take_file(run_id, given, request.user)

"""Cards over HTTP."""

from __future__ import annotations

from typing import Literal
from uuid import UUID

from django.http import HttpRequest, HttpResponse
from django.utils.text import get_valid_filename
from ninja import Query, Router, Status

from server.apps.card import paper
from server.apps.card.actions import folder as folders
from server.apps.card.actions import mark as marking
from server.apps.card.actions import read as reading
from server.apps.card.queries import cards, setups
from server.apps.card.schemas import (
    CardAsk,
    CardOut,
    ComparedOut,
    DoneOut,
    FolderIn,
    FollowsOut,
    InstrumentIn,
    InstrumentOut,
    LookIn,
    MarkIn,
    PaperAsk,
    ReadIn,
    TookOut,
)
from server.apps.questions.schemas import QuestionOut
from server.apps.shelf import queries as shelf
from server.foundation.problems import NotFound
from server.foundation.roles import require_sees_drafts
from server.foundation.schemas import Problem, Units

router = Router(tags=["card"])
CARD = "/runs/{int:run_id}/card"
FOLDER = "/runs/{int:run_id}/folder"
LOOKS = {401: Problem, 403: Problem, 404: Problem, 422: Problem}
CHANGES = {400: Problem, 409: Problem, **LOOKS}
PDF = {"responses": {200: {"content": {"application/pdf": {"schema": {"type": "string", "format": "binary"}}}}}}
Compared = Literal[
    "chuck",
    "jaw_set",
    "material",
    "machine",
    "ring",
    "insert",
    "groove_insert",
    "thread_insert",
    "holder",
    "drill",
    "blade",
]


@router.get(CARD, response={200: CardOut, **LOOKS}, operation_id="card")
def card(request: HttpRequest, run_id: int, asked: Query[CardAsk]) -> HttpResponse:
    """The card of a release, the one that stands where none is named, with what was done at it."""
    page = cards.card_page(run_id, asked.release, asked.units, request.user).page
    page.code = paper.code_squares(request.build_absolute_uri(f"/runs/{run_id}/card"))
    # Written straight to JSON by pydantic, once: it is opened at the machine.
    return HttpResponse(page.model_dump_json(), content_type="application/json")


@router.get(f"{CARD}.pdf", response={200: str, **LOOKS}, operation_id="cardOnPaper", openapi_extra=PDF)
def card_on_paper(request: HttpRequest, run_id: int, asked: Query[PaperAsk]) -> HttpResponse:
    """The card as PDF, A4 or Letter; that of a draft is not for the machine, and says so across every page."""
    if asked.draft:
        one = cards.draft_card(run_id, asked.units, request.user)
    else:
        one = cards.card_page(run_id, asked.release, asked.units, request.user)
    address = request.build_absolute_uri(f"/runs/{run_id}/card")
    found = paper.pdf_of(one.page, one.views, paper.Printed(asked.paper, address, asked.draft))
    name = get_valid_filename(f"{one.page.drawing_number}-card.pdf"[-80:])
    return _pdf(name, found)


def _pdf(name: str, found: bytes) -> HttpResponse:
    answer = HttpResponse(found, content_type="application/pdf")
    answer["Content-Disposition"] = f'inline; filename="{name}"'
    return answer


@router.get(f"{CARD}/{{int:number}}/done", response={200: DoneOut, **LOOKS}, operation_id="cardDone")
def card_done(request: HttpRequest, run_id: int, number: int, units: Units = "metric") -> DoneOut:
    """What was done at the card of a release so far."""
    return cards.done(run_id, number, units, request.user)


@router.post(FOLDER, response={202: QuestionOut, **CHANGES}, operation_id="askForFolder")
def ask_for_folder(request: HttpRequest, run_id: int, given: FolderIn) -> Status[QuestionOut]:
    """Ask for a run's whole folder as one PDF: card, releases, readings, the working of every figure."""
    return Status(202, folders.ask_for_folder(run_id, given, request.build_absolute_uri("/").rstrip("/"), request.user))


@router.get(f"{FOLDER}/{{uuid:key}}.pdf", response={200: str, **CHANGES}, operation_id="folder", openapi_extra=PDF)
def folder(request: HttpRequest, run_id: int, key: UUID) -> HttpResponse:
    """A folder that was made, by the key of its question."""
    name, found = folders.folder_of(run_id, key, request.user)
    return _pdf(name, found)


@router.get(f"{CARD}/took", response={200: TookOut, **LOOKS}, operation_id="setupTook")
def setup_took(request: HttpRequest, run_id: int) -> TookOut:
    """What the last set-up of a part took, beside what is planned now."""
    return setups.took_last(run_id, request.user)


@router.post(f"{CARD}/marks", response={200: DoneOut, **CHANGES}, operation_id="markStep")
def mark(request: HttpRequest, run_id: int, given: MarkIn) -> DoneOut:
    """Tick a step, skip it with a reason, or open it again."""
    return marking.mark(run_id, given, request.user)


@router.post(f"{CARD}/look", response={200: FollowsOut, **CHANGES}, operation_id="lookAtReading")
def look(request: HttpRequest, run_id: int, given: LookIn) -> FollowsOut:
    """What would follow from a reading; nothing is kept."""
    return reading.look(run_id, given, request.user)


@router.post("/instruments/read", response={200: InstrumentOut, **CHANGES}, operation_id="readInstrument")
def read_instrument(request: HttpRequest, given: InstrumentIn) -> InstrumentOut:
    """One reading of an instrument that the shop has named; nothing is kept."""
    return reading.read_instrument(given, request.user)


@router.post(f"{CARD}/readings", response={200: DoneOut, **CHANGES}, operation_id="readStep")
def read(request: HttpRequest, run_id: int, given: ReadIn) -> DoneOut:
    """Keep a reading, which ticks its step; one that is far off counts when it is said again."""
    return reading.read(run_id, given, request.user)


@router.get("/shelf/{kind}/{key}/readings", response={200: list[ComparedOut], **LOOKS}, operation_id="readingsOf")
def readings_of(request: HttpRequest, kind: Compared, key: str, units: Units = "metric") -> list[ComparedOut]:
    """Predicted and measured of a shelf item, by what was read."""
    require_sees_drafts(request.user)
    item = shelf.current().ids[kind].get(key)
    if item is None:
        raise NotFound("There is no such item on the shelf.")
    return cards.compared(kind, item, units)

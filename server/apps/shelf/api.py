"""Routes of the shelf."""

from __future__ import annotations

from django.http import HttpRequest, HttpResponse
from ninja import Router, Status

from server.apps.questions.schemas import QuestionOut
from server.apps.shelf.actions import heavy
from server.apps.shelf.actions.keep_item import keep_item, remove_item
from server.apps.shelf.actions.note_life import note_life
from server.apps.shelf.actions.take_file import take_file
from server.apps.shelf.queries import files, item, whole
from server.apps.shelf.queries.form import Given
from server.apps.shelf.schemas import (
    EffectsIn,
    FileAnswer,
    FileIn,
    FileLook,
    FormIn,
    Item,
    KeepIn,
    Kind,
    LifeIn,
    PreviewIn,
    ShelfKind,
)
from server.foundation.schemas import Problem, Units

router = Router(tags=["shelf"])
LOOKS = {401: Problem, 404: Problem, 422: Problem}
CHANGES = {400: Problem, 403: Problem, 409: Problem, **LOOKS}
ASKS = {400: Problem, 403: Problem, 429: Problem, **LOOKS}


def _given(typed: FormIn, confirmed: tuple[str, ...] = ()) -> Given:
    return Given(dict(typed.fields), typed.chart, typed.units, confirmed)


@router.get("/shelf", response={200: list[ShelfKind], 401: Problem}, operation_id="shelf")
def shelf(request: HttpRequest) -> list[ShelfKind]:
    """Everything on the shelf, a line an item."""
    return whole.shelf(request.user)


@router.get("/shelf/{kind}/new", response={200: Item, **LOOKS}, operation_id="newItemForm")
def new_form(request: HttpRequest, kind: Kind, units: Units = "metric") -> Item:
    """The form of an item that is not there yet."""
    return item.new_item(kind, units, request.user)


@router.get("/shelf/{kind}/items/{key}", response={200: Item, **LOOKS}, operation_id="shelfItem")
def one(request: HttpRequest, kind: Kind, key: str, units: Units = "metric") -> Item:
    """One item with its fields, chart, runs and history."""
    return item.item(kind, key, units, request.user)


@router.post("/shelf/{kind}/preview", response={200: Item, **CHANGES}, operation_id="previewItem")
def preview(request: HttpRequest, kind: Kind, given: PreviewIn) -> Item:
    """The item as it would be: chart and refused entries. Nothing is kept."""
    return item.preview(kind, given.key, _given(given), request.user)


@router.post("/shelf/{kind}/items/{key}/effects", response={202: QuestionOut, **ASKS}, operation_id="itemEffects")
def effects(request: HttpRequest, kind: Kind, key: str, given: EffectsIn) -> Status[QuestionOut]:
    """Ask which plans a change of an item would move, and by how much. Nothing is kept."""
    return Status(202, heavy.ask_for_effects(kind, key, given, given.key, request.user))


@router.post("/shelf/{kind}/items", response={201: Item, **CHANGES}, operation_id="addItemToShelf")
def add(request: HttpRequest, kind: Kind, given: KeepIn) -> Status[Item]:
    """Put a new item on the shelf."""
    key = keep_item(kind, None, _given(given, tuple(given.confirmed)), 0, request.user)
    return Status(201, item.item(kind, key, given.units, request.user))


@router.patch("/shelf/{kind}/items/{key}", response={200: Item, **CHANGES}, operation_id="changeItem")
def change(request: HttpRequest, kind: Kind, key: str, given: KeepIn) -> Item:
    """Change an item; the runs that take it follow."""
    keep_item(kind, key, _given(given, tuple(given.confirmed)), given.base_revision, request.user)
    return item.item(kind, key, given.units, request.user)


@router.delete("/shelf/{kind}/items/{key}", response={204: None, **CHANGES}, operation_id="removeShelfItem")
def remove(request: HttpRequest, kind: Kind, key: str) -> Status[None]:
    """Take an item off the shelf that no run takes."""
    remove_item(kind, key, request.user)
    return Status(204, None)


@router.post("/shelf/jaw_set/items/{key}/life", response={200: Item, **CHANGES}, operation_id="noteLife")
def life(request: HttpRequest, key: str, given: LifeIn) -> Item:
    """Note what happened to a jaw set; its figures and the runs that take it follow."""
    note_life(key, given, request.user)
    return item.item("jaw_set", key, given.units, request.user)


CSV = {"responses": {200: {"content": {"text/csv": {"schema": {"type": "string"}}}}}}


@router.get("/shelf/{kind}/file", response={200: str, **LOOKS}, operation_id="shelfFile", openapi_extra=CSV)
def file_out(request: HttpRequest, kind: Kind) -> HttpResponse:
    """All items of a kind as a CSV file, figures in core units."""
    answer = HttpResponse(files.write(kind), content_type="text/csv; charset=utf-8")
    answer["Content-Disposition"] = f'attachment; filename="{kind}.csv"'
    return answer


@router.post("/shelf/{kind}/file/look", response={202: QuestionOut, **ASKS}, operation_id="lookAtShelfFile")
def file_look(request: HttpRequest, kind: Kind, given: FileLook) -> Status[QuestionOut]:
    """Ask what would become of every line of a CSV file. Nothing is kept."""
    return Status(202, heavy.ask_about_file(kind, given.text, given.key, request.user))


@router.post("/shelf/{kind}/file", response={200: FileAnswer, **CHANGES}, operation_id="takeShelfFile")
def file_in(request: HttpRequest, kind: Kind, given: FileIn) -> FileAnswer:
    """Keep the lines of a CSV file as asked, each answered."""
    answers, kept = take_file(kind, given.text, given.keep, request.user)
    return FileAnswer(lines=answers, kept=kept, bad=sum(a.outcome == "bad" for a in answers))

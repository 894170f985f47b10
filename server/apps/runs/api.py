"""Routes of the bench and of plans."""

from __future__ import annotations

from typing import Any, Literal

from django.http import HttpRequest, HttpResponse
from ninja import Query, Router, Status

from server.apps.runs import bench, history, queries, releases
from server.apps.runs.actions import manage, operate, take_profile
from server.apps.runs.actions.change_list import add_item, remove_item
from server.apps.runs.actions.keep_edit import keep_edit, preview
from server.apps.runs.actions.release import release
from server.apps.runs.actions.restore import restore
from server.apps.runs.actions.undo import reverse
from server.apps.runs.asks import (
    BasedKeyed,
    BenchAsk,
    CompareAsk,
    DrawingIn,
    DrawingKeep,
    EditIn,
    EntryIn,
    FindAsk,
    HistoryAsk,
    ItemOut,
    Keyed,
    MoveIn,
    NewItem,
    NewRun,
    PlanAsk,
    ProgramAsk,
    ReleaseIn,
    RestoreIn,
    RunNames,
    SettleIn,
    SettleKeep,
    SplitIn,
    ToolsAsk,
    UnitsAsk,
)
from server.apps.runs.facts import Entry
from server.apps.runs.operations import SettledOut, ToolsOut
from server.apps.runs.schemas import (
    BenchOut,
    CheckOut,
    DifferencesOut,
    DrawingOut,
    HistoryOut,
    HitOut,
    PlanOut,
    PulseOut,
    ReleasesOut,
    RunMade,
)
from server.apps.shelf import queries as shelf
from server.foundation.roles import require_sees_drafts, sees_drafts
from server.foundation.schemas import Problem

router = Router(tags=["runs"])
REFUSALS = {400: Problem, 401: Problem, 403: Problem, 404: Problem, 422: Problem}
CHANGES = {200: PlanOut, 409: Problem, **REFUSALS}
LOOKS = {401: Problem, 404: Problem, 422: Problem}


def _plan(view: dict[str, Any]) -> HttpResponse:
    # Written straight to JSON by pydantic, once: the screen waits for this at every key.
    return HttpResponse(PlanOut.model_validate(view).model_dump_json(), content_type="application/json")


def _entry(given: EntryIn) -> Entry:
    return Entry(given.path, given.text, given.value, given.units)


@router.get("/runs", response={200: BenchOut, 401: Problem, 422: Problem}, operation_id="bench")
def bench_page(request: HttpRequest, asked: Query[BenchAsk]) -> HttpResponse:
    """A page of the bench: how each run stands and what it needs next, what needs attention first."""
    found = bench.bench(asked.find, asked.put_away, asked.page, released_only=not sees_drafts(request.user))
    return HttpResponse(BenchOut.model_validate(found).model_dump_json(), content_type="application/json")


@router.post("/runs", response={201: RunMade, **REFUSALS}, operation_id="newRun")
def new_run(request: HttpRequest, given: NewRun) -> Status[RunMade]:
    """Put a new run on the bench."""
    return Status(201, RunMade(id=manage.new_run(given.dict(), given.units, request.user).pk))


@router.post("/runs/{int:run_id}/copy", response={201: RunMade, **REFUSALS}, operation_id="copyRun")
def copy_run(request: HttpRequest, run_id: int, given: RunNames) -> Status[RunMade]:
    """Copy a run under another name."""
    return Status(201, RunMade(id=manage.copy_run(run_id, given.dict(), request.user).pk))


@router.delete("/runs/{int:run_id}", response={204: None, 409: Problem, **REFUSALS}, operation_id="deleteRun")
def delete_run(request: HttpRequest, run_id: int) -> Status[None]:
    """Take off for good a run that was never released."""
    manage.delete_run(run_id, request.user)
    return Status(204, None)


@router.get("/runs/{int:run_id}/plan", response={200: PlanOut, **LOOKS}, operation_id="plan")
def plan(request: HttpRequest, run_id: int, asked: Query[PlanAsk]) -> HttpResponse:
    """A run's plan in the units asked for: computed, at an earlier draft, or as released; operators see what is
    released.
    """
    run = queries.run_by_id(run_id)
    if asked.release is not None:
        return _plan(releases.released_view(releases.release_of(run, asked.release), asked.units))
    if not sees_drafts(request.user):
        return _plan(releases.released_view(releases.standing_release(run), asked.units))
    if asked.at is not None:
        return _plan(queries.plan_at(run, asked.at, asked.units))
    return _plan(queries.plan(run, asked.units, request.user))


@router.get("/runs/{int:run_id}/pulse", response={200: PulseOut, **LOOKS}, operation_id="pulse")
def pulse(request: HttpRequest, run_id: int) -> PulseOut:
    """Whether a screen is still true: the run's revision and the state of the shelf."""
    if not sees_drafts(request.user):
        return PulseOut(revision=releases.standing_release(queries.run_by_id(run_id)).revision, shelf=shelf.token())
    return PulseOut(revision=queries.revision_of(run_id), shelf=shelf.token())


@router.post("/runs/{int:run_id}/preview", response={**CHANGES}, operation_id="previewEdit")
def preview_edit(request: HttpRequest, run_id: int, given: EntryIn) -> HttpResponse:
    """What an edit would do; nothing is kept."""
    return _plan(preview(queries.run_by_id(run_id), _entry(given), request.user))


@router.post("/runs/{int:run_id}/edits", response=CHANGES, operation_id="keepEdit")
def keep(request: HttpRequest, run_id: int, given: EditIn) -> HttpResponse:
    """Keep an edit: one fact, one history entry."""
    return _plan(keep_edit(run_id, _entry(given), given.base_revision, given.key, request.user))


@router.post("/runs/{int:run_id}/undo", response=CHANGES, operation_id="undoEdit")
def undo(request: HttpRequest, run_id: int, given: Keyed) -> HttpResponse:
    """Undo one's own last edit of this run, by an edit that is its inverse."""
    return _plan(reverse(run_id, False, given.key, given.units, request.user))


@router.post("/runs/{int:run_id}/redo", response=CHANGES, operation_id="redoEdit")
def redo(request: HttpRequest, run_id: int, given: Keyed) -> HttpResponse:
    """Redo what one undid last."""
    return _plan(reverse(run_id, True, given.key, given.units, request.user))


@router.post("/runs/{int:run_id}/items", response=CHANGES, operation_id="addItem")
def add_to_list(request: HttpRequest, run_id: int, given: NewItem) -> HttpResponse:
    """Put a step or a cut into the plan."""
    return _plan(add_item(run_id, given.path, given.name, given.kind, given.key, given.units, request.user))


@router.post("/runs/{int:run_id}/items/remove", response=CHANGES, operation_id="removeItem")
def remove_from_list(request: HttpRequest, run_id: int, given: ItemOut) -> HttpResponse:
    """Take a step or a cut out of the plan."""
    return _plan(
        remove_item(run_id, given.path, given.index, given.base_revision, given.key, given.units, request.user)
    )


@router.get("/runs/{int:run_id}/history", response={200: HistoryOut, **LOOKS}, operation_id="history")
def run_history(request: HttpRequest, run_id: int, asked: Query[HistoryAsk]) -> HttpResponse:
    """The run's edits as sentences, the newest first."""
    require_sees_drafts(request.user)
    found = history.history(queries.run_by_id(run_id), asked.before, asked.units)
    return HttpResponse(HistoryOut.model_validate(found).model_dump_json(), content_type="application/json")


@router.post("/runs/{int:run_id}/restore", response=CHANGES, operation_id="restoreDraft")
def restore_draft(request: HttpRequest, run_id: int, given: RestoreIn) -> HttpResponse:
    """Bring an earlier draft back, as a new edit."""
    return _plan(restore(run_id, given.revision, given.base_revision, given.key, given.units, request.user))


@router.get(
    "/runs/{int:run_id}/sides/{int:index}/checks/{name}", response={200: CheckOut, **LOOKS}, operation_id="check"
)
def check(
    request: HttpRequest, run_id: int, index: int, name: Literal["contact", "limit-analysis"], asked: Query[UnitsAsk]
) -> dict[str, Any]:
    """The real contact of wall and jaws, or the limit analysis of the grip: solved when asked, never within the
    plan.
    """
    require_sees_drafts(request.user)
    return queries.check(queries.run_by_id(run_id), index, name, asked.units)


@router.post("/runs/{int:run_id}/drawing", response={200: DrawingOut, **REFUSALS}, operation_id="lookAtDrawing")
def look_at_drawing(request: HttpRequest, run_id: int, given: DrawingIn) -> dict[str, Any]:
    """Read a DXF half-profile: the lines it makes, or the layer and unit to choose first. Nothing is kept."""
    drawing = take_profile.Drawing(given.text, given.name, given.layer, given.unit)
    return take_profile.look(run_id, drawing, given.units, request.user)


@router.post("/runs/{int:run_id}/profile", response=CHANGES, operation_id="takeDrawing")
def take_drawing(request: HttpRequest, run_id: int, given: DrawingKeep) -> HttpResponse:
    """Put a drawing's profile in place of the plan's, as one edit."""
    drawing = take_profile.Drawing(given.text, given.name, given.layer, given.unit)
    return _plan(take_profile.take(run_id, drawing, given.base_revision, given.key, given.units, request.user))


DRAWN = {
    "responses": {
        200: {
            "content": {
                "image/vnd.dxf": {"schema": {"type": "string"}},
                "image/svg+xml": {"schema": {"type": "string"}},
            }
        }
    }
}


@router.get(
    "/runs/{int:run_id}/part.{form}",
    response={200: str, 409: Problem, **LOOKS},
    operation_id="partDrawing",
    openapi_extra=DRAWN,
)
def part_drawing(request: HttpRequest, run_id: int, form: Literal["dxf", "svg"]) -> HttpResponse:
    """The part's half-section as a DXF or SVG drawing, true to size in mm."""
    require_sees_drafts(request.user)
    run = queries.run_by_id(run_id)
    types = {"dxf": "image/vnd.dxf", "svg": "image/svg+xml"}
    answer = HttpResponse(queries.drawn(run, form), content_type=f"{types[form]}; charset=utf-8")
    answer["Content-Disposition"] = f'attachment; filename="part-{run_id}.{form}"'
    return answer


TEXT = {"responses": {200: {"content": {"text/plain": {"schema": {"type": "string"}}}}}}


@router.get(
    "/runs/{int:run_id}/sides/{int:index}/jaw-program",
    response={200: str, 409: Problem, **LOOKS},
    operation_id="jawProgram",
    openapi_extra=TEXT,
)
def jaw_program(request: HttpRequest, run_id: int, index: int, asked: Query[ProgramAsk]) -> HttpResponse:
    """The jaw-boring program of a side, in ISO 6983 words: the draft's, or a release's; refused with what keeps it
    from being written.
    """
    run = queries.run_by_id(run_id)
    if sees_drafts(request.user) and asked.release is None:
        text = queries.jaw_program(run, index, asked.units)
    else:
        of = releases.standing_release(run) if asked.release is None else releases.release_of(run, asked.release)
        text = releases.program(of, index, asked.units)
    answer = HttpResponse(text, content_type="text/plain; charset=utf-8")
    answer["Content-Disposition"] = f'attachment; filename="jaws-{run_id}-side-{index + 1}.nc"'
    return answer


@router.get("/runs/{int:run_id}/releases", response={200: ReleasesOut, 403: Problem, **LOOKS}, operation_id="releases")
def releases_page(request: HttpRequest, run_id: int, asked: Query[UnitsAsk]) -> dict[str, Any]:
    """What must be confirmed to release the plan as it is, and every release there was."""
    require_sees_drafts(request.user)
    return releases.page(queries.run_by_id(run_id), asked.units)


@router.post(
    "/runs/{int:run_id}/releases", response={200: ReleasesOut, 409: Problem, **REFUSALS}, operation_id="releasePlan"
)
def release_plan(request: HttpRequest, run_id: int, given: ReleaseIn) -> dict[str, Any]:
    """Release a settled plan: every caution confirmed by name, every figure frozen."""
    return release(run_id, given.base_revision, given.confirmed, given.note, given.key, given.units, request.user)


@router.get(
    "/runs/{int:run_id}/releases/{int:number}/differences",
    response={200: DifferencesOut, 403: Problem, **LOOKS},
    operation_id="compareReleases",
)
def compare_releases(request: HttpRequest, run_id: int, number: int, asked: Query[CompareAsk]) -> dict[str, Any]:
    """What changed from a release to another one, or to the draft there is."""
    require_sees_drafts(request.user)
    return releases.compare(queries.run_by_id(run_id), number, asked.other, asked.units)


def _asked(request: HttpRequest, given: BasedKeyed) -> operate.Asked:
    return operate.Asked(request.user, given.units, given.key, given.base_revision)


@router.post("/runs/{int:run_id}/items/move", response=CHANGES, operation_id="moveItem")
def move_item(request: HttpRequest, run_id: int, given: MoveIn) -> HttpResponse:
    """Put an operation at another place in its list."""
    return _plan(operate.move(run_id, given.path, given.index, given.to, _asked(request, given)))


@router.post("/runs/{int:run_id}/items/split", response=CHANGES, operation_id="splitItem")
def split_item(request: HttpRequest, run_id: int, given: SplitIn) -> HttpResponse:
    """Make roughing and finishing of one operation."""
    return _plan(operate.split(run_id, given.path, given.index, _asked(request, given)))


@router.post("/runs/{int:run_id}/sides/{int:index}/proposal", response=CHANGES, operation_id="takeProposal")
def take_proposal(request: HttpRequest, run_id: int, index: int, given: BasedKeyed) -> HttpResponse:
    """Put the operations that the profile proposes in place of the side's own."""
    return _plan(operate.take_proposal(run_id, index, _asked(request, given)))


@router.post(
    "/runs/{int:run_id}/sides/{int:index}/settle",
    response={200: SettledOut, 409: Problem, **REFUSALS},
    operation_id="settle",
)
def settle(request: HttpRequest, run_id: int, index: int, given: SettleIn) -> dict[str, Any]:
    """The fastest figures that every limit allows, of one cut or of the whole set-up. Nothing is kept."""
    return operate.settle(run_id, index, given.cut, given.units, request.user)


@router.post("/runs/{int:run_id}/sides/{int:index}/settled", response=CHANGES, operation_id="takeSettled")
def take_settled(request: HttpRequest, run_id: int, index: int, given: SettleKeep) -> HttpResponse:
    """Settle and keep it, as one edit."""
    return _plan(operate.take_settled(run_id, index, given.cut, _asked(request, given)))


@router.get(
    "/runs/{int:run_id}/sides/{int:index}/cuts/{int:cut}/tools",
    response={200: ToolsOut, 403: Problem, 409: Problem, **LOOKS},
    operation_id="toolsForCut",
)
def tools_for_cut(request: HttpRequest, run_id: int, index: int, cut: int, asked: Query[ToolsAsk]) -> dict[str, Any]:
    """Every tool for a cut, the best first; the rejected with the rule that rejects each."""
    require_sees_drafts(request.user)
    return queries.tools_of(run_id, index, cut, asked.find, asked.units)


@router.get("/find", response={200: list[HitOut], 401: Problem, 422: Problem}, operation_id="find")
def find(request: HttpRequest, asked: Query[FindAsk]) -> list[dict[str, Any]]:
    """Runs and shelf items that have every one of the words."""
    return bench.find(asked.words)

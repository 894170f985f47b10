"""Routes of the bench and of plans."""

from __future__ import annotations

from typing import Any, Literal

from django.http import HttpRequest, HttpResponse, JsonResponse
from django.utils.http import content_disposition_header
from ninja import Query, Router, Status
from pydantic import BaseModel

from calc.plan.entry import Entry
from calc.plan.lists import NewItem as Item
from server.apps.questions.schemas import AskIn, QuestionOut
from server.apps.runs.actions import board as move
from server.apps.runs.actions import gains, heavy, items, manage, operate, start, take_profile
from server.apps.runs.actions.asked import Asked
from server.apps.runs.actions.keep_edit import keep_edit, parts, preview
from server.apps.runs.actions.read_run import read_in
from server.apps.runs.actions.release import release
from server.apps.runs.actions.restore import restore
from server.apps.runs.actions.undo import reverse
from server.apps.runs.asks import (
    BasedKeyed,
    BenchAsk,
    BoardAsk,
    BoardMove,
    CompareAsk,
    DrawingIn,
    DrawingKeep,
    EditIn,
    EntryIn,
    FindAsk,
    HeavyIn,
    HistoryAsk,
    ItemIn,
    Keyed,
    MoveIn,
    NewItem,
    NewRun,
    PartsIn,
    PlanAsk,
    ProgramAsk,
    ReleaseIn,
    RestoreIn,
    RunFileIn,
    RunNames,
    SettleIn,
    SettleKeep,
    ToolsAsk,
    UnitsAsk,
    held_of,
)
from server.apps.runs.queries import bench, board, history, releases, tools
from server.apps.runs.queries import plan as plans
from server.apps.runs.queries import stays as staying
from server.apps.runs.queries.file import saved
from server.apps.runs.queries.find import revision_of, run_by_id
from server.apps.runs.queries.look import Look, Sent
from server.apps.runs.queries.may import may_change
from server.apps.runs.schemas import (
    BenchOut,
    BoardOut,
    DifferencesOut,
    DrawingOut,
    HistoryOut,
    HitOut,
    IdeaOut,
    PartsOut,
    PlanOut,
    PreviewOut,
    PulseOut,
    ReleasesOut,
    RunMade,
    RunRead,
    StaysOut,
    ToolsOut,
)
from server.apps.shelf import queries as shelf
from server.foundation.roles import require_sees_drafts, sees_drafts
from server.foundation.schemas import Problem
from server.foundation.sheets import sheet

router = Router(tags=["runs"])
REFUSALS = {400: Problem, 401: Problem, 403: Problem, 404: Problem, 422: Problem}
CHANGES = {200: PlanOut, 409: Problem, **REFUSALS}
LOOKS = {401: Problem, 404: Problem, 422: Problem}
ASKS = {400: Problem, 403: Problem, 429: Problem, **LOOKS}
RUN = "/runs/{int:run_id}"
JSON_FILE = {"responses": {200: {"content": {"application/json": {"schema": {"type": "object"}}}}}}
SIDE = RUN + "/sides/{setup}"


def _json(answer: BaseModel) -> HttpResponse:
    # Written straight to JSON by pydantic, once: a screen waits for it.
    return HttpResponse(answer.model_dump_json(), content_type="application/json")


def _sent(answer: Sent) -> HttpResponse:
    """A plan as it goes out."""
    return HttpResponse(answer.json(), content_type="application/json")


def _entry(given: EntryIn) -> Entry:
    return Entry(given.path, given.text, given.value, given.units)


def _asked(request: HttpRequest, given: Keyed | EditIn) -> Asked:
    based = given.base_revision if isinstance(given, BasedKeyed | EditIn) else 0
    return Asked(request.user, given.look(), given.key, based, given.said(request.path))


@router.get("/runs", response={200: BenchOut, 401: Problem, 422: Problem}, operation_id="bench")
def bench_page(request: HttpRequest, asked: Query[BenchAsk]) -> HttpResponse:
    """A page of the bench: how each run stands and what it needs next, what needs attention first."""
    return _json(bench.bench(asked.find, asked.put_away, asked.page, released_only=not sees_drafts(request.user)))


@router.post("/runs", response={201: RunMade, **REFUSALS}, operation_id="newRun")
def new_run(request: HttpRequest, given: NewRun) -> Status[RunMade]:
    """Put a new run on the bench."""
    return Status(
        201, RunMade(id=manage.new_run(manage.Form(**given.dict(exclude={"units"})), given.units, request.user).pk)
    )


@router.post(f"{RUN}/copy", response={201: RunMade, **REFUSALS}, operation_id="copyRun")
def copy_run(request: HttpRequest, run_id: int, given: RunNames) -> Status[RunMade]:
    """Copy a run under another name."""
    return Status(
        201, RunMade(id=manage.copy_run(run_id, manage.Names(given.name, given.drawing_number), request.user).pk)
    )


@router.get(f"{RUN}/file", response={200: str, 403: Problem, **LOOKS}, operation_id="runFile", openapi_extra=JSON_FILE)
def run_file(request: HttpRequest, run_id: int) -> HttpResponse:
    """The run as a file, with everything that its plan rests on; docs/run-file.md describes it."""
    require_sees_drafts(request.user)
    name, text = saved(run_by_id(run_id))
    answer = HttpResponse(text, content_type="application/json; charset=utf-8")
    answer["Content-Disposition"] = content_disposition_header(True, name)
    return answer


@router.post("/runs/file", response={201: RunRead, **REFUSALS}, operation_id="readRunFile")
def read_run_file(request: HttpRequest, given: RunFileIn) -> Status[RunRead]:
    """Put the run of a file on the bench, with what of the shelf it names that is not here yet; whole or not at all."""
    read = read_in(given.text, request.user)
    return Status(201, RunRead(id=read.run.pk, told=list(read.told)))


@router.delete(RUN, response={204: None, 409: Problem, **REFUSALS}, operation_id="deleteRun")
def delete_run(request: HttpRequest, run_id: int) -> Status[None]:
    """Take off for good a run that was never released."""
    manage.delete_run(run_id, request.user)
    return Status(204, None)


@router.get(f"{RUN}/plan", response={200: PlanOut, **LOOKS}, operation_id="plan")
def plan(request: HttpRequest, run_id: int, asked: Query[PlanAsk]) -> HttpResponse:
    """A run's plan in the units asked for: computed, at an earlier draft, or as released; operators see what is
    released.
    """
    run, look = run_by_id(run_id), asked.look()
    if asked.release is not None:
        of = releases.release_for(run, asked.release, request.user)
        return _released(releases.released_view(of, look))
    if not sees_drafts(request.user):
        return _released(releases.released_view(releases.standing_release(run), look))
    if asked.at is not None:
        return _sent(plans.plan_at(run, asked.at, look))
    return _sent(plans.plan(run, look, request.user, asked.since))


def _released(view: dict[str, Any]) -> HttpResponse:
    return JsonResponse(view)


@router.get(f"{RUN}/pulse", response={200: PulseOut, **LOOKS}, operation_id="pulse")
def pulse(request: HttpRequest, run_id: int) -> PulseOut:
    """Whether a screen is still true: the run's revision and the state of the shelf."""
    if not sees_drafts(request.user):
        return PulseOut(revision=releases.standing_release(run_by_id(run_id)).revision, shelf=shelf.token())
    return PulseOut(revision=revision_of(run_id), shelf=shelf.token())


@router.post(f"{RUN}/preview", response={**CHANGES, 200: PreviewOut}, operation_id="previewEdit")
def preview_edit(request: HttpRequest, run_id: int, given: EntryIn) -> HttpResponse:
    """What an edit would do to the kept plan; nothing is kept."""
    return _sent(preview(run_by_id(run_id), _entry(given), given.look(), request.user))


@router.post(f"{RUN}/parts", response={200: PartsOut, 409: Problem, **REFUSALS}, operation_id="planParts")
def plan_parts(request: HttpRequest, run_id: int, given: PartsIn) -> HttpResponse:
    """Parts of the plan that come into view later: helps, tables, pictures, working; of a preview with its entry."""
    require_sees_drafts(request.user)
    entry = _entry(given.entry) if given.entry else None
    look = Look(given.units, held=held_of(given.held))
    found = parts(run_by_id(run_id), given.names, entry, look, request.user)
    return HttpResponse(found, content_type="application/json")


@router.post(f"{RUN}/edits", response=CHANGES, operation_id="keepEdit")
def keep(request: HttpRequest, run_id: int, given: EditIn) -> HttpResponse:
    """Keep an edit: one fact, one history entry."""
    return _sent(keep_edit(run_id, _entry(given), _asked(request, given)))


@router.post(f"{RUN}/undo", response=CHANGES, operation_id="undoEdit")
def undo(request: HttpRequest, run_id: int, given: Keyed) -> HttpResponse:
    """Undo one's own last edit of this run, by an edit that is its inverse."""
    return _sent(reverse(run_id, False, _asked(request, given)))


@router.post(f"{RUN}/redo", response=CHANGES, operation_id="redoEdit")
def redo(request: HttpRequest, run_id: int, given: Keyed) -> HttpResponse:
    """Redo what one undid last."""
    return _sent(reverse(run_id, True, _asked(request, given)))


@router.post(f"{RUN}/items", response=CHANGES, operation_id="addItem")
def add_to_list(request: HttpRequest, run_id: int, given: NewItem) -> HttpResponse:
    """Put a step, a side, a cut or a departure into the plan."""
    made = Item(given.name, given.kind, given.units)
    return _sent(items.add_item(run_id, given.path, made, _asked(request, given)))


@router.post(f"{RUN}/items/remove", response=CHANGES, operation_id="removeItem")
def remove_from_list(request: HttpRequest, run_id: int, given: ItemIn) -> HttpResponse:
    """Take an item out of its list."""
    return _sent(items.remove_item(run_id, given.path, _asked(request, given)))


@router.post(f"{RUN}/items/move", response=CHANGES, operation_id="moveItem")
def move_item(request: HttpRequest, run_id: int, given: MoveIn) -> HttpResponse:
    """Put an operation behind another, or first."""
    return _sent(items.move(run_id, given.path, given.behind, _asked(request, given)))


@router.post(f"{RUN}/items/across", response=CHANGES, operation_id="itemAcross")
def item_across(request: HttpRequest, run_id: int, given: ItemIn) -> HttpResponse:
    """Do an operation, with what goes along, from the other end of the part."""
    return _sent(items.across(run_id, given.path, _asked(request, given)))


@router.post(f"{RUN}/items/split", response=CHANGES, operation_id="splitItem")
def split_item(request: HttpRequest, run_id: int, given: ItemIn) -> HttpResponse:
    """Make roughing and finishing of one operation."""
    return _sent(items.split(run_id, given.path, _asked(request, given)))


@router.get(f"{RUN}/history", response={200: HistoryOut, **LOOKS}, operation_id="history")
def run_history(request: HttpRequest, run_id: int, asked: Query[HistoryAsk]) -> HttpResponse:
    """The run's edits as sentences, the newest first."""
    require_sees_drafts(request.user)
    return _json(history.history(run_by_id(run_id), asked.before, asked.units))


@router.post(f"{RUN}/restore", response=CHANGES, operation_id="restoreDraft")
def restore_draft(request: HttpRequest, run_id: int, given: RestoreIn) -> HttpResponse:
    """Bring an earlier draft back, as a new edit."""
    return _sent(restore(run_id, given.revision, _asked(request, given)))


@router.post(f"{SIDE}/checks/{{name}}", response={202: QuestionOut, **ASKS}, operation_id="check")
def check(request: HttpRequest, run_id: int, setup: str, name: str, given: HeavyIn) -> Status[QuestionOut]:
    """Ask for what is solved for a side only when it is asked for: one of the `checks` that a stop names."""
    return Status(202, heavy.ask_to_check(run_id, setup, name, given.units, given.key, request.user))


def _drawing(given: DrawingIn) -> take_profile.Drawing:
    return take_profile.Drawing(given.text, given.name, given.layer, given.unit)


@router.post(f"{RUN}/drawing", response={200: DrawingOut, **REFUSALS}, operation_id="lookAtDrawing")
def look_at_drawing(request: HttpRequest, run_id: int, given: DrawingIn) -> DrawingOut:
    """Read a DXF half-profile: the lines it makes, or the layer and unit to choose first. Nothing is kept."""
    return take_profile.look(run_id, _drawing(given), given.units, request.user)


@router.post(f"{RUN}/profile", response=CHANGES, operation_id="takeDrawing")
def take_drawing(request: HttpRequest, run_id: int, given: DrawingKeep) -> HttpResponse:
    """Put a drawing's profile in place of the plan's, as one edit."""
    return _sent(take_profile.take(run_id, _drawing(given), _asked(request, given)))


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
    f"{RUN}/part.{{form}}", response={200: str, 409: Problem, **LOOKS}, operation_id="partDrawing", openapi_extra=DRAWN
)
def part_drawing(request: HttpRequest, run_id: int, form: Literal["dxf", "svg"]) -> HttpResponse:
    """The part's half-section as a DXF or SVG drawing, true to size in mm."""
    require_sees_drafts(request.user)
    types = {"dxf": "image/vnd.dxf", "svg": "image/svg+xml"}
    text = plans.drawn(run_by_id(run_id), form)
    answer = HttpResponse(text, content_type=f"{types[form]}; charset=utf-8")
    answer["Content-Disposition"] = f'attachment; filename="part-{run_id}.{form}"'
    return answer


CSV = {"responses": {200: {"content": {"text/csv": {"schema": {"type": "string"}}}}}}


@router.get(
    f"{RUN}/route-{{of}}.csv", response={200: str, 409: Problem, **LOOKS}, operation_id="routeSheet", openapi_extra=CSV
)
def route_sheet(request: HttpRequest, run_id: int, of: Literal["tools", "times"]) -> HttpResponse:
    """The draft's tools by station, or the seconds of every operation, for a spreadsheet."""
    require_sees_drafts(request.user)
    answer = HttpResponse(sheet(plans.route_sheet(run_by_id(run_id), of)), content_type="text/csv; charset=utf-8")
    answer["Content-Disposition"] = f'attachment; filename="{of}-{run_id}.csv"'
    return answer


@router.get("/board", response={200: BoardOut, 403: Problem, **LOOKS}, operation_id="board")
def whole_board(request: HttpRequest, asked: Query[BoardAsk]) -> HttpResponse:
    """Which run is on which machine when."""
    require_sees_drafts(request.user)
    may_edit = may_change(request.user, move.START)
    return _json(board.board(asked.first, asked.days, may_edit=may_edit))


@router.post(f"{RUN}/board", response={200: BoardOut, 409: Problem, **REFUSALS}, operation_id="moveOnBoard")
def move_on_board(request: HttpRequest, run_id: int, given: BoardMove) -> HttpResponse:
    """Put a run on the board, move it, or take it off."""
    return _json(move.move_run(run_id, given.begins, _asked(request, given), given.first, given.days))


@router.get(f"{RUN}/stays", response={200: StaysOut, **LOOKS}, operation_id="toolsThatStay")
def tools_that_stay(request: HttpRequest, run_id: int) -> StaysOut:
    """How many of the draft's tools stand on its machine from the run before."""
    require_sees_drafts(request.user)
    return staying.stays(run_by_id(run_id))


ICS = {"responses": {200: {"content": {"text/calendar": {"schema": {"type": "string"}}}}}}


@router.get("/board.ics", response={200: str, 403: Problem, **LOOKS}, operation_id="boardFile", openapi_extra=ICS)
def board_file(request: HttpRequest) -> HttpResponse:
    """The board for another program's calendar, as iCalendar text."""
    require_sees_drafts(request.user)
    answer = HttpResponse(board.board_file(), content_type="text/calendar; charset=utf-8")
    answer["Content-Disposition"] = 'attachment; filename="board.ics"'
    return answer


TEXT = {"responses": {200: {"content": {"text/plain": {"schema": {"type": "string"}}}}}}


@router.get(
    f"{SIDE}/jaw-program", response={200: str, 409: Problem, **LOOKS}, operation_id="jawProgram", openapi_extra=TEXT
)
def jaw_program(request: HttpRequest, run_id: int, setup: str, asked: Query[ProgramAsk]) -> HttpResponse:
    """The jaw-boring program of a side, in ISO 6983 words: the draft's, or a release's; refused with what keeps it
    from being written.
    """
    run = run_by_id(run_id)
    if sees_drafts(request.user) and asked.release is None:
        text = plans.jaw_program(run, setup, asked.units)
    else:
        text = releases.program(releases.release_for(run, asked.release, request.user), setup, asked.units)
    answer = HttpResponse(text, content_type="text/plain; charset=utf-8")
    answer["Content-Disposition"] = f'attachment; filename="jaws-{run_id}-{setup}.nc"'
    return answer


@router.get(f"{RUN}/releases", response={200: ReleasesOut, 403: Problem, **LOOKS}, operation_id="releases")
def releases_page(request: HttpRequest, run_id: int, asked: Query[UnitsAsk]) -> ReleasesOut:
    """What must be confirmed to release the plan as it is, and every release there was."""
    require_sees_drafts(request.user)
    return releases.page(run_by_id(run_id), asked.units)


@router.post(f"{RUN}/releases", response={200: ReleasesOut, 409: Problem, **REFUSALS}, operation_id="releasePlan")
def release_plan(request: HttpRequest, run_id: int, given: ReleaseIn) -> ReleasesOut:
    """Release a settled plan: every caution confirmed by name, every figure frozen."""
    return release(run_id, given.confirmed, given.note, _asked(request, given))


@router.get(
    f"{RUN}/releases/{{int:number}}/differences",
    response={200: DifferencesOut, 403: Problem, **LOOKS},
    operation_id="compareReleases",
)
def compare_releases(request: HttpRequest, run_id: int, number: int, asked: Query[CompareAsk]) -> DifferencesOut:
    """What changed from a release to another one, or to the draft there is."""
    require_sees_drafts(request.user)
    return releases.compare(run_by_id(run_id), number, asked.other, asked.units)


@router.post(f"{RUN}/start", response=CHANGES, operation_id="proposeStart")
def propose_start(request: HttpRequest, run_id: int, given: BasedKeyed) -> HttpResponse:
    """Propose sides, hold, jaws, pressure and operations where nobody has decided yet."""
    return _sent(start.propose_start(run_id, _asked(request, given)))


@router.post(f"{RUN}/start/settle", response={202: QuestionOut, **ASKS}, operation_id="settleStart")
def settle_start(request: HttpRequest, run_id: int, given: AskIn) -> Status[QuestionOut]:
    """Ask for the proposed plan with every side settled. Nothing is kept."""
    return Status(202, start.ask_to_settle_start(run_id, given.key, request.user))


@router.post(f"{RUN}/start/settled", response=CHANGES, operation_id="takeStart")
def take_start(request: HttpRequest, run_id: int, given: SettleKeep) -> HttpResponse:
    """Keep the proposed plan as it was settled, as one edit; refused where the plan has changed since."""
    return _sent(start.take_start(run_id, given.question, _asked(request, given)))


@router.post(f"{SIDE}/looks-right", response=CHANGES, operation_id="looksRight")
def looks_right(request: HttpRequest, run_id: int, setup: str, given: BasedKeyed) -> HttpResponse:
    """Say of a side that what was proposed there looks right."""
    return _sent(start.looks_right(run_id, setup, _asked(request, given)))


@router.post(f"{SIDE}/proposal", response=CHANGES, operation_id="takeProposal")
def take_proposal(request: HttpRequest, run_id: int, setup: str, given: BasedKeyed) -> HttpResponse:
    """Put the operations that the profile proposes in place of the side's own."""
    return _sent(operate.take_proposal(run_id, setup, _asked(request, given)))


@router.post(f"{SIDE}/settle", response={202: QuestionOut, **ASKS}, operation_id="settle")
def settle(request: HttpRequest, run_id: int, setup: str, given: SettleIn) -> Status[QuestionOut]:
    """Ask for the fastest figures that every limit allows, of one cut or of the whole set-up. Nothing is kept."""
    wanted = heavy.Settling(given.cut, given.goal, given.units)
    return Status(202, heavy.ask_to_settle(run_id, setup, wanted, given.key, request.user))


@router.post(f"{SIDE}/settled", response=CHANGES, operation_id="takeSettled")
def take_settled(request: HttpRequest, run_id: int, setup: str, given: SettleKeep) -> HttpResponse:
    """Keep what settling found, as one edit; refused where the plan has changed since."""
    return _sent(heavy.take_settled(run_id, setup, given.question, _asked(request, given)))


@router.get(f"{SIDE}/ideas", response={200: list[IdeaOut], 403: Problem, **LOOKS}, operation_id="gainIdeas")
def gain_ideas(request: HttpRequest, run_id: int, setup: str, asked: Query[UnitsAsk]) -> list[IdeaOut]:
    """What could be changed about a set-up, to see what it would gain."""
    return gains.gain_ideas(run_id, setup, asked.units, request.user)


@router.post(f"{SIDE}/ideas/{{idea}}", response={202: QuestionOut, **ASKS}, operation_id="gain")
def gain(request: HttpRequest, run_id: int, setup: str, idea: str, given: HeavyIn) -> Status[QuestionOut]:
    """Ask what one change would gain with everything settled for it. Nothing is kept."""
    return Status(202, gains.ask_for_gain(run_id, setup, idea, given.units, given.key, request.user))


@router.post(f"{SIDE}/ideas/{{idea}}/taken", response=CHANGES, operation_id="takeGain")
def take_gain(request: HttpRequest, run_id: int, setup: str, idea: str, given: SettleKeep) -> HttpResponse:
    """Keep a change with what was settled for it, as one edit; refused where the plan has changed since."""
    return _sent(gains.take_gain(run_id, setup, idea, given.question, _asked(request, given)))


@router.get(
    f"{SIDE}/cuts/{{cut}}/tools",
    response={200: ToolsOut, 403: Problem, 409: Problem, **LOOKS},
    operation_id="toolsForCut",
)
def tools_for_cut(request: HttpRequest, run_id: int, setup: str, cut: str, asked: Query[ToolsAsk]) -> ToolsOut:
    """Every tool for a cut, the best first; the rejected with the rule that rejects each."""
    require_sees_drafts(request.user)
    return tools.tools_of(run_id, setup, cut, asked.find, asked.units)


@router.get("/find", response={200: list[HitOut], **LOOKS}, operation_id="find")
def find(request: HttpRequest, asked: Query[FindAsk]) -> list[HitOut]:
    """Facts of the plan in view, runs and shelf items that have every one of the words."""
    facts = []
    if asked.run is not None and sees_drafts(request.user):
        facts = plans.find_facts(run_by_id(asked.run), asked.words, asked.units)
    return bench.find(asked.words, facts, released_only=not sees_drafts(request.user))

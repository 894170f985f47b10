"""What is sent of runs and plans. Figures are sent as they are to be read, in the units asked for.

What goes out is plain pydantic: ninja's Schema wraps every nested object to read model attributes,
which costs more on a plan's thousand values than computing the plan does.
"""

from __future__ import annotations

from datetime import datetime
from typing import Literal
from uuid import UUID

from pydantic import BaseModel

from calc.said.drawn import ChartSaid, SceneSaid
from calc.said.moved import MovedSaid
from calc.said.pictures import PictureSaid
from calc.said.plan import SideSaid
from calc.said.stop import HelpSaid, StepSaid, StopLine, StopPage
from calc.said.table import TableSaid
from server.foundation.schemas import Units

State = Literal["settled", "open", "stopped"]


class RunOut(BaseModel):
    """A run's name plate."""

    id: int
    drawing_number: str
    name: str
    units: Units
    machine: str
    quantity: int | None
    setup: str
    revision: int
    changed_at: datetime
    put_away: bool
    released: bool
    place: str = "planning"
    placed_at: datetime | None = None
    placed_by: str = ""


class LineOut(BaseModel):
    """A stop in one line; `side` counts from 0, None where the stop is the whole part's."""

    key: str
    title: str
    state: State
    line: str
    side: int | None = None


class BenchFigures(BaseModel):
    """What the bench shows of a side, as it reads; empty where it is not known."""

    pressure: str = ""
    clamp: str = ""
    bore: str = ""
    depth: str = ""
    minutes: str = ""


class BenchRow(RunOut):
    """A run on the bench: how it stands and what it needs next, in words and as the stop it is; figures by side."""

    verdict: State
    needs: str
    next: str = ""
    lines: list[LineOut]
    figures: list[BenchFigures]


class BenchOut(BaseModel):
    """One page of the bench."""

    rows: list[BenchRow]
    total: int
    page: int
    page_size: int
    planning: int
    away: int


class PlanRulesOut(BaseModel):
    """The house rules a plan was computed under; what today's change, and what that would move; whether they count
    money.
    """

    number: int
    today: int
    changes: list[str]
    moves: list[str]
    money: bool


class ReleaseOut(BaseModel):
    """Who released what, when, and what was confirmed."""

    number: int
    revision: int
    rules: int
    by: str
    at: datetime
    note: str
    confirmed: list[str]


class CautionLine(BaseModel):
    """A sentence of a caution, and the stops that say it; empty for what always holds."""

    text: str
    where: str


class CautionOut(BaseModel):
    """One thing to confirm by name; what is `general` holds for every plan and is signed as one statement."""

    code: str
    general: bool
    lines: list[CautionLine]


class ReleasesOut(BaseModel):
    """What releasing the plan as it is asks, and every release there was, the last first."""

    run: RunOut
    revision: int
    rules: int
    verdict: State
    reasons: list[str]
    cautions: list[CautionOut]
    releases: list[ReleaseOut]


class DifferenceOut(BaseModel):
    """A figure that differs."""

    stop: str
    label: str
    before: str
    after: str


class DifferencesOut(BaseModel):
    """What changed from one release to another, or to the draft (`after` null)."""

    before: int
    after: int | None
    rows: list[DifferenceOut]


class PartOut(BaseModel):
    """What a screen shows at one place, by its name: the page of a stop, its helps, tables or small pictures, how an
    answer came about, a drawing. Nothing but the digest where the browser holds it already.
    """

    name: str
    digest: str
    stop: StopPage | None = None
    helps: list[HelpSaid] | None = None
    tables: list[TableSaid] | None = None
    pictures: list[PictureSaid] | None = None
    steps: list[StepSaid] | None = None
    scene: SceneSaid | None = None
    chart: ChartSaid | None = None


class _Seen(BaseModel):
    """A computed plan: every stop in its line, the sides, what moved, and the parts that were asked for.

    `view` names the part that holds the picture shown. While `moment` is the same, so is the kept plan: its draft,
    the shelf, and the day.
    """

    run: RunOut
    revision: int
    moment: str
    units: Units
    verdict: State
    stops: list[StopLine]
    sides: list[SideSaid]
    moved: list[MovedSaid]
    view: str
    parts: list[PartOut]


class PlanOut(_Seen):
    """A plan as it is kept, at an earlier draft (`at`), or as it was released."""

    may_edit: bool
    undo: bool
    redo: bool
    at: int | None
    rules: PlanRulesOut | None
    release: ReleaseOut | None


class PreviewOut(_Seen):
    """A plan as it would be with one entry, and which entry that is; its parts lie over those of the kept plan."""

    path: str


class PartsOut(BaseModel):
    """Parts of a plan, of which revision and moment they are, and with which entry they were asked for."""

    revision: int
    moment: str
    path: str | None
    parts: list[PartOut]


class DrawingOut(BaseModel):
    """What a drawing would make: what it leaves to be chosen, else the lines of its steps."""

    layers: list[str]
    units: list[str]
    lines: dict[str, str]
    notes: list[str]


class CheckOut(BaseModel):
    """A question solved by itself, of the draft it was asked for; no table where there is nothing to solve."""

    revision: int
    table: TableSaid | None


class RunMade(BaseModel):
    """Where the new run is."""

    id: int


class HistoryEntry(BaseModel):
    """One edit as a sentence."""

    revision: int
    text: str
    by: str
    at: datetime
    path: str
    is_reversal: bool


class HistoryOut(BaseModel):
    """A page of a run's history, the newest first; drafts before `first` were kept in a form that is shown no more."""

    entries: list[HistoryEntry]
    more: bool
    total: int
    first: int


class PulseOut(BaseModel):
    """What tells a screen whether it is still true."""

    revision: int
    shelf: UUID


class RunRead(BaseModel):
    """The run of a file on the bench; `told`: what came onto the shelf with it, and what is different here."""

    id: int
    told: list[str]


class HitOut(BaseModel):
    """Something found: "run", the kind of a shelf item, or "fact" of the plan in view with its address in the plan."""

    kind: str
    key: str
    title: str
    detail: str


class ToolOut(BaseModel):
    """A tool with its score and reasons, or the rule that rejects it."""

    key: str
    name: str
    score: int
    chosen: bool
    why: list[str]
    rejected: str


class ToolsOut(BaseModel):
    """The tools for a cut, the best first; `path` is where the chosen one is kept."""

    revision: int
    cut: str
    path: str
    fit: int
    rejected: int
    tools: list[ToolOut]


class SettledCut(BaseModel):
    """A cut settled: minutes before and after, what binds (and the minutes without it), what would bind then; `would`:
    its figures by name, as they would read.
    """

    id: str
    name: str
    words: str
    before: float
    after: float
    binds: str
    without: float | None
    then: str
    gives_up: list[str]
    tried: int
    gains: bool
    figures: str
    would: dict[str, str]


class IdeaOut(BaseModel):
    """Something that could be changed about a set-up."""

    key: str
    label: str


class GainOut(BaseModel):
    """What a change gains, with everything settled: time of a piece, and what that saves of it and of the run."""

    revision: int
    key: str
    label: str
    gains: bool
    minutes: float | None
    saves_min: float | None
    saves_h: float | None
    why_not: str


class StartOut(BaseModel):
    """A proposed plan settled, at which draft, and how many facts that changes."""

    revision: int
    changes: int


class SettledOut(BaseModel):
    """What settling found, at which draft; `gains`: it is better than what is planned, or that cannot run."""

    revision: int
    words: str
    gains: bool
    cuts: list[SettledCut]


class BoardRun(BaseModel):
    """A run on the board: when its set-up begins, it runs and is done [s since 1970, UTC], in words too; `goes`: how
    it goes at the machine, once pieces come; `moves`: it may be put at another time."""

    id: int
    name: str
    drawing_number: str
    revision: int
    verdict: State
    start: float
    begins: float | None
    running: float | None
    done: float | None
    begins_said: str
    done_said: str
    slips: str
    goes: str
    moves: bool


class BoardMachine(BaseModel):
    """A machine with its runs in the days shown, how many begin later, and when it is free."""

    name: str
    runs: list[BoardRun]
    later: int
    free: float | None


class BoardWaiting(BaseModel):
    """A run that is not on the board; `why` it cannot be put there."""

    id: int
    name: str
    drawing_number: str
    revision: int
    machine: str
    why: str


class BoardDay(BaseModel):
    """A day of the shop's clock."""

    said: str
    date: str
    begins: float
    ends: float


class BoardHours(BaseModel):
    """Working hours, with people or without."""

    begins: float
    ends: float
    people: bool


class StaysOut(BaseModel):
    """How many of a run's tools stand on its machine from the run before it, and how many its plan counts (`now`)."""

    tools: int
    now: int
    told: str


class BoardOut(BaseModel):
    """The board; `told` says what was just done to it."""

    may_edit: bool
    told: str
    zone: str
    now: float
    days: list[BoardDay]
    hours: list[BoardHours]
    machines: list[BoardMachine]
    waiting: list[BoardWaiting]

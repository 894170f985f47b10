"""What is asked of runs and plans: entries, changes and questions as they come in, bounded before anything reads
them.
"""

from __future__ import annotations

from datetime import date
from typing import Annotated, Literal
from uuid import UUID

from ninja import Field, Schema
from pydantic import StringConstraints

from server.apps.questions.schemas import AskIn
from server.apps.runs.queries import look as queries
from server.foundation.once import digest_of
from server.foundation.schemas import Units

REVISION_MOST = 2**31 - 1
# Of what is sent with a change: where it was sent from, not what it says.
OF_THE_SCREEN = {"stop", "picture", "setup", "whole", "held", "key", "base_revision"}


Digest = Annotated[str, StringConstraints(max_length=160)]  # of a part, as "part=digest"


def held_of(given: list[str] | None) -> dict[str, str]:
    """Digests by the name of their part."""
    return {name: digest for name, _, digest in (one.rpartition("=") for one in given or ())}


class Look(Schema):
    """What a screen shows of a plan, in which units: the stop in view, the picture by its name, and for a stop of the
    whole part the set-up. `held` are the digests of what the browser holds of the kept plan, as "part=digest".
    `whole`: every part of the plan, not only what is shown.
    """

    units: Units = "metric"
    stop: str | None = Field(None, max_length=80)
    picture: str | None = Field(None, max_length=80)
    setup: str | None = Field(None, max_length=12)
    whole: bool | None = None
    held: list[Digest] | None = Field(default=None, max_length=64)

    def said(self, where: str) -> str:
        """What tells this, sent to an address, from everything else that is sent; what the screen shows is no part."""
        return digest_of(where, self.dict(exclude=OF_THE_SCREEN))

    def look(self) -> queries.Look:
        """As it is looked at."""
        shown = (self.stop or "", self.picture or "", self.setup or "")
        return queries.Look(self.units, *shown, held_of(self.held), bool(self.whole))


class EntryIn(Look):
    """A fact's new value: typed text in the units shown, or a picked value."""

    path: str = Field(max_length=120)
    text: str | None = Field(default=None, max_length=8000)
    value: str | bool | float | None = None


class PartsIn(Schema):
    """Parts of a plan by name, of the kept one or with one entry; `held` as in a look."""

    units: Units = "metric"
    names: list[Annotated[str, StringConstraints(max_length=120)]] = Field(max_length=64)
    held: list[Digest] | None = Field(default=None, max_length=64)
    entry: EntryIn | None = None


class EditIn(EntryIn):
    """An edit to keep."""

    base_revision: int = Field(ge=0, le=REVISION_MOST)
    key: UUID


class BenchAsk(Schema):
    """Which part of the bench."""

    find: str = Field("", max_length=200)
    put_away: bool = False
    page: int = Field(0, ge=0, le=100_000)


class PlanAsk(Look):
    """What is shown, and as of which draft; the latest where none is given. With `since`, what moved since that draft
    is told.
    """

    since: int | None = Field(None, ge=0, le=REVISION_MOST)
    at: int | None = Field(None, ge=0, le=REVISION_MOST)
    release: int | None = Field(None, ge=1, le=REVISION_MOST)


class UnitsAsk(Schema):
    """In which units."""

    units: Units = "metric"


class ProgramAsk(UnitsAsk):
    """The draft's program, or a release's."""

    release: int | None = Field(None, ge=1, le=REVISION_MOST)


class CompareAsk(UnitsAsk):
    """With which other release; without one, with the draft there is."""

    other: int | None = Field(None, ge=1, le=REVISION_MOST)


class HistoryAsk(Schema):
    """In which units, and older than which draft."""

    units: Units = "metric"
    before: int | None = Field(None, ge=0, le=REVISION_MOST)


class FindAsk(Schema):
    """What to find; `run`: the facts of its plan too."""

    words: str = Field("", max_length=200)
    run: int | None = Field(None, ge=1, le=REVISION_MOST)
    units: Units = "metric"


class NewRun(Schema):
    """What is known of a new run; all but name and number may be left open."""

    name: str = Field(max_length=200)
    drawing_number: str = Field(max_length=200)
    machine: str | None = Field(default=None, max_length=60)
    material: str | None = Field(default=None, max_length=60)
    outside: str | None = Field(default=None, max_length=4000)
    inside: str | None = Field(default=None, max_length=4000)
    stock_form: str | None = Field(default=None, max_length=20)
    stock_diameter: str | None = Field(default=None, max_length=200)
    stock_length: str | None = Field(default=None, max_length=200)
    quantity: str | None = Field(default=None, max_length=200)
    units: Units = "metric"


class RunFileIn(Schema):
    """A run file's text."""

    text: str = Field(max_length=10_000_000)


class RunNames(Schema):
    """What a copy is called."""

    name: str = Field(max_length=200)
    drawing_number: str = Field(max_length=200)


class Keyed(Look):
    """A change that is kept once, however often it is sent, and what the screen shows of the plan."""

    key: UUID


class NewItem(Keyed):
    """A step or a cut to put in."""

    path: str = Field(max_length=120)
    name: str = Field(max_length=200)
    kind: str | None = Field(default=None, max_length=40)


class BasedKeyed(Keyed):
    """A change of whole operations, with the draft that was looked at."""

    base_revision: int = Field(ge=0, le=REVISION_MOST)


class ItemIn(BasedKeyed):
    """An item of a list: to take out, or to make two of."""

    path: str = Field(max_length=120)


class MoveIn(ItemIn):
    """An operation to put behind another, or first where `behind` is empty."""

    behind: str = Field(max_length=12)


class HeavyIn(AskIn):
    """A question that takes long, in which units."""

    units: Units = "metric"


class SettleIn(HeavyIn):
    """Which cut to settle, none: the whole set-up; and for what."""

    cut: str | None = Field(None, max_length=12)
    goal: Literal["quickest", "cheapest", "life"] = "quickest"


class SettleKeep(BasedKeyed):
    """What was found, by the key of its question."""

    question: UUID


class ToolsAsk(UnitsAsk):
    """Which tools of a cut to look at."""

    find: str = Field("", max_length=200)


class ReleaseIn(BasedKeyed):
    """What was confirmed, by code, and which draft was looked at."""

    confirmed: list[str] = Field(max_length=200)
    note: str = Field(default="", max_length=200)


class DrawingIn(Schema):
    """A DXF drawing, with the layer and unit chosen for it."""

    text: str = Field(max_length=5_000_000)
    name: str = Field(default="", max_length=120)
    layer: str | None = Field(default=None, max_length=255)
    unit: Literal["mm", "in"] | None = None
    units: Units = "metric"


class DrawingKeep(DrawingIn, BasedKeyed):
    """A drawing to take into the plan."""


class RestoreIn(BasedKeyed):
    """A draft to bring back."""

    revision: int = Field(ge=0, le=REVISION_MOST)


class BoardAsk(Schema):
    """Which days of the board."""

    first: date | None = None
    days: int = Field(default=14, ge=1, le=62)


class BoardMove(BasedKeyed):
    """When a run's set-up is to begin [s since 1970, UTC]; None: it is taken off the board."""

    begins: float | None = Field(ge=0, le=1e11)
    first: date | None = None
    days: int = Field(default=14, ge=1, le=62)

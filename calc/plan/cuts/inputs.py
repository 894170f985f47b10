"""One operation of a set-up as it is entered: what it takes, with which tool, at what speed, feed and depth."""

from __future__ import annotations

from collections.abc import Iterator
from dataclasses import dataclass
from typing import Annotated, Literal

from calc import terms
from calc.cuts.direction import TURNS, Turns
from calc.cuts.kinds import KIND, STAGE, Kind, Stage
from calc.errors import FieldError
from calc.fields import Checked, Choice, Flag, Quantity, Text
from calc.identity import Identity
from calc.profile.steps import DIAMETER_MOST, LENGTH_MOST, Name
from calc.quantities import Sentence, about
from calc.threads.designation import designation

CLEANING = ("turn", "bore", "groove", "thread")  # kinds that go over what is cut already
TOWARD = Choice(
    "Feeds", {"chuck": "toward the chuck", "away": "away from the chuck"}, "Away pulls the part off its seat"
)


@dataclass(frozen=True)
class PlannedCut(Checked):
    """One cut of the set-up. A fixed rpm rules while there is one; else the surface speed does."""

    name: Name
    kind: Annotated[Kind, KIND]
    from_diameter_mm: Annotated[
        float | None, Quantity("From diameter", "mm", "Before the cut", low=0, high=DIAMETER_MOST)
    ] = None
    to_diameter_mm: Annotated[
        float | None, Quantity("To diameter", "mm", "After the cut", low=0, high=DIAMETER_MOST)
    ] = None
    speed_m_min: Annotated[float | None, terms.SURFACE_SPEED.called(help="Constant")] = None
    rpm: Annotated[
        float | None, terms.SPINDLE_SPEED.called("Fixed rpm", "Empty: surface speed rules", low=None, above=0)
    ] = None
    clamp_rpm: Annotated[
        float | None, terms.SPEED_LIMIT.called("Own clamp", "While this cut runs; empty: the side's clamp")
    ] = None
    feed_mm_rev: Annotated[float | None, terms.FEED.called(help="Per turn")] = None
    depth_mm: Annotated[float | None, terms.DEPTH_OF_CUT.called("Depth per side", "Of one pass")] = None
    corner_radius_mm: Annotated[float, terms.CORNER_RADIUS] = 0.8
    approach_deg: Annotated[float, terms.APPROACH.called(help="κ")] = 95.0
    rake_deg: Annotated[float, terms.RAKE.called(help="The chip-breaker's")] = 6.0
    interrupted: Annotated[bool, Flag("Interrupted", "Counts a quarter more")] = False
    feeds: Annotated[Literal["chuck", "away"], TOWARD] = "chuck"
    turns: Annotated[Turns, TURNS] = "M03"
    width_mm: Annotated[float | None, terms.EDGE_WIDTH] = None
    point_deg: Annotated[float, terms.POINT_ANGLE] = 140.0
    passes: Annotated[int, terms.THREAD_PASSES.called(help="Of the thread, each with the same chip")] = 6
    stage: Annotated[Stage, STAGE] = "both"
    cleans: Annotated[
        bool, Flag("Cleans up", "Over what is cut already: it takes a burr, or the spring of the edge")
    ] = False
    start_mm: Annotated[
        float, Quantity("Begins", "mm", "From the finished face of this side", low=0, high=LENGTH_MOST)
    ] = 0.0
    length_mm: Annotated[
        float | None,
        Quantity("Length", "mm", "Along the axis; empty: as the profile has it", above=0, high=LENGTH_MOST),
    ] = None
    tool: Annotated[str, Text("Tool", "From the shelf; empty: the figures below count", most=130)] = ""
    thread: Annotated[str, Text("Thread", "Such as M24x1.5-6g", most=30)] = ""
    slow_feed_mm_rev: Annotated[
        float | None, Quantity("Feed near the centre", "mm/rev", "A half to a quarter of the feed", above=0, high=5)
    ] = None
    slow_below_mm: Annotated[float, terms.SLOW_BELOW] = 5.0
    pin_speed: Annotated[bool, Flag("Speed pinned", "Settling leaves it as it is")] = False
    pin_feed: Annotated[bool, Flag("Feed pinned", "Settling leaves it as it is")] = False
    pin_depth: Annotated[bool, Flag("Depth pinned", "Settling leaves it as it is")] = False
    station: Annotated[
        int | None, Quantity("Station", "", "Of the turret; empty: where it indexes least", low=1, high=200, whole=True)
    ] = None
    peck_mm: Annotated[
        float | None, Quantity("Peck", "mm", "So deep at a time, then out to clear; empty: in one", above=0, high=50)
    ] = None
    clocked_s: Annotated[
        float | None,
        Quantity("By the clock", "s", "Timed at the machine, cutting and moves; empty: as computed", 0.1, 86_400),
    ] = None
    lasted_pieces: Annotated[
        int | None,
        Quantity("An edge lasted", "", "Pieces, seen at the machine; empty: by its life", 1, 1_000_000, whole=True),
    ] = None
    id: Identity = ""

    @property
    def by_depth(self) -> bool:
        """It takes its stock in passes of a depth, by an edge with a corner."""
        return self.kind in ("turn", "face", "bore")

    @property
    def springs(self) -> bool:
        """It is one more pass of a thread, no deeper than the last."""
        return self.cleans and self.kind == "thread"

    @property
    def inside(self) -> bool:
        """It works in a bore."""
        a, b = self.from_diameter_mm or 0.0, self.to_diameter_mm or 0.0
        return self.kind in ("bore", "drill") or (self.kind in ("thread", "groove") and b > a)

    @property
    def feeds_away(self) -> bool:
        """It runs away from the chuck; a face and a drill never do."""
        return self.feeds == "away" and self.kind not in ("face", "drill")

    def contradictions(self) -> Iterator[FieldError]:
        if self.cleans and self.kind not in CLEANING:
            yield FieldError("cleans", Sentence("Only turning, boring, grooving and threading go over what is cut."))
        if self.thread and designation(self.thread) is None:
            yield FieldError("thread", Sentence("No such thread is known. Write it as M24x1.5-6g or 3/4-16 UNF-2A."))
        slow, feed = self.slow_feed_mm_rev, self.feed_mm_rev
        if slow is not None and feed is not None and slow > feed:
            yield FieldError("slow_feed_mm_rev", Sentence("The slow feed cannot be above the feed."))
        a, b = self.from_diameter_mm, self.to_diameter_mm
        if a is None or b is None:
            return
        if self.kind == "thread" or (self.kind == "groove" and a != b):  # outside or inside
            return
        if self.kind in ("bore", "drill") and a >= b:
            yield FieldError("to_diameter_mm", about("This ends larger than it starts: give more than {x}.", a))
            yield FieldError("from_diameter_mm", about("This starts smaller than it ends: give less than {x}.", b))
        if self.kind not in ("bore", "drill") and a <= b:
            yield FieldError("to_diameter_mm", about("This cut ends smaller than it starts: give less than {x}.", a))
            yield FieldError("from_diameter_mm", about("This cut starts larger than it ends: give more than {x}.", b))

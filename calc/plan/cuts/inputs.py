"""One operation of a set-up as it is entered: what it takes, with which tool, at what speed, feed and depth."""

from __future__ import annotations

from collections.abc import Iterator
from dataclasses import dataclass
from typing import Annotated, Literal

from calc.cuts.kinds import KIND, STAGE, Kind, Stage
from calc.errors import FieldError
from calc.fields import Checked, Choice, Flag, Quantity, Text
from calc.identity import Identity
from calc.profile.steps import DIAMETER_MOST, LENGTH_MOST, Name
from calc.quantities import Sentence, about
from calc.threads.designation import designation

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
    speed_m_min: Annotated[float | None, Quantity("Surface speed", "m/min", "Constant", above=0, high=3000)] = None
    rpm: Annotated[float | None, Quantity("Fixed rpm", "rpm", "Empty: surface speed rules", above=0, high=20_000)] = (
        None
    )
    feed_mm_rev: Annotated[float | None, Quantity("Feed", "mm/rev", "Per turn", above=0, high=5)] = None
    depth_mm: Annotated[float | None, Quantity("Depth per side", "mm", "Of one pass", above=0, high=50)] = None
    corner_radius_mm: Annotated[float, Quantity("Corner radius", "mm", "Of the insert", low=0, high=12)] = 0.8
    approach_deg: Annotated[float, Quantity("Approach angle", "deg", "κ", low=10, high=135)] = 95.0
    rake_deg: Annotated[float, Quantity("Effective rake", "deg", "The chip-breaker's", low=-30, high=40)] = 6.0
    interrupted: Annotated[bool, Flag("Interrupted", "Counts a quarter more")] = False
    feeds: Annotated[Literal["chuck", "away"], TOWARD] = "chuck"
    width_mm: Annotated[float | None, Quantity("Blade width", "mm", "Of a groover or a blade", above=0, high=50)] = None
    point_deg: Annotated[float, Quantity("Point angle", "deg", "Of the drill", low=60, high=180)] = 140.0
    passes: Annotated[
        int, Quantity("Passes", "", "Of the thread, each with the same chip", low=1, high=60, whole=True)
    ] = 6
    stage: Annotated[Stage, STAGE] = "both"
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
    slow_below_mm: Annotated[
        float, Quantity("Slow below", "mm", "Diameter from which the slow feed counts", low=0, high=200)
    ] = 5.0
    pin_speed: Annotated[bool, Flag("Speed pinned", "Settling leaves it as it is")] = False
    pin_feed: Annotated[bool, Flag("Feed pinned", "Settling leaves it as it is")] = False
    pin_depth: Annotated[bool, Flag("Depth pinned", "Settling leaves it as it is")] = False
    id: Identity = ""

    @property
    def by_depth(self) -> bool:
        """It takes its stock in passes of a depth, by an edge with a corner."""
        return self.kind in ("turn", "face", "bore")

    @property
    def inside(self) -> bool:
        """It works in a bore."""
        a, b = self.from_diameter_mm or 0.0, self.to_diameter_mm or 0.0
        return self.kind in ("bore", "drill") or (self.kind in ("thread", "groove") and b > a)

    def contradictions(self) -> Iterator[FieldError]:
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

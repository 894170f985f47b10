"""What a stop draws beside the section: ranges as bars, curves over diameter, an insert's outline, grip against
speed.
"""

from __future__ import annotations

from dataclasses import dataclass
from typing import Literal

from calc.quantities import Sentence

Points = tuple[tuple[float, float], ...]


@dataclass(frozen=True)
class Range:
    """A range as a bar, in the picture's unit; an end that is None is open."""

    label: str
    low: float | None
    high: float | None


@dataclass(frozen=True)
class Bars:
    """Ranges over one scale, what they share, and where the plan stands. `group` is the heading they belong to."""

    name: str
    title: str
    unit: str
    ranges: tuple[Range, ...]
    shared: Range
    at: float | None
    words: Sentence
    group: str = ""


@dataclass(frozen=True)
class Curve:
    """A line of the picture: (x, y) in its units."""

    label: str
    points: Points


@dataclass(frozen=True)
class Curves:
    """Surface speed and rpm against diameter; `mark` is where the spindle tops out, None where it never does."""

    name: str
    title: str
    rpm: Curve
    speed: Curve
    mark: float | None
    mark_words: Sentence
    words: Sentence
    group: str = ""


@dataclass(frozen=True)
class Outline:
    """An insert seen from above [mm], its letters explained."""

    name: str
    title: str
    points: Points
    hole_mm: float
    letters: tuple[tuple[str, str, str], ...]
    words: Sentence
    group: str = ""


BlockKind = Literal["cut", "between", "handling", "waits", "together"]


@dataclass(frozen=True)
class Block:
    """A stretch of a lane: from when and how long [s], and what it is of; `fact` ties it to a row, `path` to the
    operation that it is.
    """

    label: str
    start_s: float
    seconds: float
    kind: BlockKind
    fact: str = ""
    path: str = ""


@dataclass(frozen=True)
class Lane:
    """What one spindle does in a cycle."""

    label: str
    blocks: tuple[Block, ...]


@dataclass(frozen=True)
class LanesPicture:
    """What happens when in a cycle of `cycle_s` seconds, a lane for each spindle, to one scale."""

    name: str
    title: str
    lanes: tuple[Lane, ...]
    cycle_s: float
    words: Sentence
    group: str = ""


Picture = Bars | Curves | Outline | LanesPicture


@dataclass(frozen=True)
class GripCurve:
    """A line of the chart: (rpm, N) points."""

    name: str
    label: str
    points: tuple[tuple[float, float], ...]


@dataclass(frozen=True)
class CutPoint:
    """A cut in the chart: its speed [rpm], what it needs and what there is [N], its cap [rpm]; `path` is the fact that
    taking hold of it changes, its clamp or its fixed speed.
    """

    name: str
    rpm: float
    needed_n: float
    grip_n: float
    cap_rpm: float
    nearest: bool
    over: bool
    path: str
    is_clamp: bool


@dataclass(frozen=True)
class ForceChart:
    """Everything the chart draws; speeds in rpm, forces in N as sums over all jaws; `over`: the program is over the
    cap.
    """

    rpm_most: float
    force_most_n: float
    curves: tuple[GripCurve, ...]
    demand: tuple[tuple[float, float], ...]
    demand_corner: tuple[tuple[float, float], ...]
    demand_n: float
    allowable_n: float
    cap_rpm: float
    cap_n: float
    top_rpm: float
    over: bool
    wall_n: float | None
    pressures: tuple[
        tuple[float, float], ...
    ]  # (bar, grip standing still [N]), rising: straight lines between are exact
    pressure_bar: float
    pressure_path: str | None = None  # the facts that dragging changes
    points: tuple[CutPoint, ...] = ()

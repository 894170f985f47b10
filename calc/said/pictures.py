"""Small pictures of a stop as they are sent: ranges as bars, curves over diameter, an insert's outline, lanes."""

from __future__ import annotations

from dataclasses import dataclass, field, replace
from typing import Literal

from calc.plan.pictures import Bars, BlockKind, Curves, LanesPicture, Picture, Range
from calc.quantities import Figure, System, from_core, shown_as

Points = list[list[float]]
Kind = Literal["bars", "curves", "outline", "lanes"]


@dataclass(frozen=True)
class RangeSaid:
    """A range in the unit shown; an open end is null."""

    label: str
    low: float | None
    high: float | None
    text: str


@dataclass(frozen=True)
class CurveLineSaid:
    """A curve in the units shown."""

    label: str
    unit: str
    points: Points


@dataclass(frozen=True)
class LetterSaid:
    """One symbol of a designation."""

    symbol: str
    name: str
    meaning: str


@dataclass(frozen=True)
class BlockSaid:
    """A stretch of a lane: when it begins and how long it takes [s], and what both read."""

    label: str
    start: float
    seconds: float
    text: str
    kind: BlockKind
    fact: str
    path: str = ""


@dataclass(frozen=True)
class LaneSaid:
    """What one spindle does in a cycle; `label` is empty where there is one."""

    label: str
    blocks: list[BlockSaid]


@dataclass(frozen=True)
class PictureSaid:
    """A picture; what its kind does not have is empty. `group` is the heading of the facts it belongs to."""

    kind: Kind
    name: str
    title: str
    group: str
    words: str
    unit: str
    ranges: list[RangeSaid]
    at: float | None
    at_text: str
    lines: list[CurveLineSaid]
    mark: float | None
    mark_text: str
    outline: Points
    hole: float
    letters: list[LetterSaid]
    lanes: list[LaneSaid] = field(default_factory=list)  # releases of before there were any have none
    cycle: float = 0.0


def _blank(kind: Kind, picture: Picture, system: System) -> PictureSaid:
    """A picture of a kind before anything is on it."""
    words = picture.words.text(system)
    return PictureSaid(
        kind, picture.name, picture.title, picture.group, words, "", [], None, "", [], None, "", [], 0.0, []
    )


def picture_said(picture: Picture, system: System) -> PictureSaid:
    """A picture as it is sent."""
    match picture:
        case Bars():
            return _bars(picture, system)
        case Curves():
            return _curves(picture, system)
        case LanesPicture():
            return _lanes(picture, system)
    return replace(
        _blank("outline", picture, system),
        outline=[[round(x, 3), round(y, 3)] for x, y in picture.points],
        hole=picture.hole_mm,
        letters=[LetterSaid(s, n, m) for s, n, m in picture.letters],
    )


def _range(r: Range, unit: str, system: System) -> RangeSaid:
    shown = shown_as(unit, system)
    low, high = (None if v is None else round(from_core(v, unit, shown), 6) for v in (r.low, r.high))
    least = Figure(r.low, unit, "up").number(system) if r.low is not None else ""
    most = Figure(r.high, unit, "down").number(system) if r.high is not None else ""
    text = f"{least} to {most}" if least and most else f"up to {most}" if most else f"from {least}"
    return RangeSaid(r.label, low, high, text)


def _bars(picture: Bars, system: System) -> PictureSaid:
    shown, at = shown_as(picture.unit, system), picture.at
    return replace(
        _blank("bars", picture, system),
        unit=shown.unit,
        ranges=[_range(r, picture.unit, system) for r in (*picture.ranges, picture.shared)],
        at=None if at is None else round(from_core(at, picture.unit, shown), 6),
        at_text="" if at is None else Figure(at, picture.unit).number(system),
    )


def _lanes(picture: LanesPicture, system: System) -> PictureSaid:
    def said(seconds: float) -> str:
        return Figure(seconds, "s", "up", (1, 1)).text(system)

    lanes = [
        LaneSaid(
            lane.label,
            [
                BlockSaid(b.label, round(b.start_s, 3), round(b.seconds, 3), said(b.seconds), b.kind, b.fact, b.path)
                for b in lane.blocks
            ],
        )
        for lane in picture.lanes
    ]
    return replace(_blank("lanes", picture, system), unit="s", lanes=lanes, cycle=round(picture.cycle_s, 3))


def _curves(picture: Curves, system: System) -> PictureSaid:
    across, speed = shown_as("mm", system), shown_as("m/min", system)

    def place(d: float) -> float:
        return round(from_core(d, "mm", across), 4)

    spindle = [[place(d), round(n, 1)] for d, n in picture.rpm.points]
    surface = [[place(d), round(from_core(v, "m/min", speed), 2)] for d, v in picture.speed.points]
    return replace(
        _blank("curves", picture, system),
        unit=across.unit,
        mark=None if picture.mark is None else place(picture.mark),
        mark_text=picture.mark_words.text(system),
        lines=[
            CurveLineSaid(picture.rpm.label, "rpm", spindle),
            CurveLineSaid(picture.speed.label, speed.unit, surface),
        ],
    )

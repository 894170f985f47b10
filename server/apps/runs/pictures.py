"""Small pictures of a stop as the screen is sent them: ranges as bars, curves over diameter, an insert's outline."""

from __future__ import annotations

from typing import Any, Literal

from pydantic import BaseModel

from calc.plan.pictures import Bars, Curves, Outline, Range
from calc.quantities import Figure, System, from_core, shown_as


class RangeOut(BaseModel):
    """A range in the unit shown; an open end is null."""

    label: str
    low: float | None
    high: float | None
    text: str


class CurveLineOut(BaseModel):
    """A curve in the units shown."""

    label: str
    unit: str
    points: list[list[float]]


class LetterOut(BaseModel):
    """One symbol of a designation."""

    symbol: str
    name: str
    meaning: str


class PictureOut(BaseModel):
    """A picture; what its kind does not have is empty. `group` is the heading of the facts it belongs to."""

    kind: Literal["bars", "curves", "outline"]
    name: str
    title: str
    group: str
    words: str
    unit: str
    ranges: list[RangeOut]
    at: float | None
    at_text: str
    lines: list[CurveLineOut]
    mark: float | None
    mark_text: str
    outline: list[list[float]]
    hole: float
    letters: list[LetterOut]


def _empty(kind: str, picture: Bars | Curves | Outline, system: System) -> dict[str, Any]:
    return {
        "kind": kind,
        "name": picture.name,
        "title": picture.title,
        "group": picture.group,
        "words": picture.words.text(system),
        "unit": "",
        "ranges": [],
        "at": None,
        "at_text": "",
        "lines": [],
        "mark": None,
        "mark_text": "",
        "outline": [],
        "hole": 0.0,
        "letters": [],
    }


def picture_view(picture: Bars | Curves | Outline, system: System) -> dict[str, Any]:
    """A picture as it is sent."""
    match picture:
        case Bars():
            return _bars(picture, system)
        case Curves():
            return _curves(picture, system)
    return _empty("outline", picture, system) | {
        "outline": [[round(x, 3), round(y, 3)] for x, y in picture.points],
        "hole": picture.hole_mm,
        "letters": [{"symbol": s, "name": n, "meaning": m} for s, n, m in picture.letters],
    }


def _bars(picture: Bars, system: System) -> dict[str, Any]:
    shown = shown_as(picture.unit, system)

    def number(value: float | None) -> float | None:
        return None if value is None else round(from_core(value, picture.unit, shown), 6)

    def one(r: Range) -> dict[str, Any]:
        ends = (
            Figure(r.low, picture.unit, "up").number(system) if r.low is not None else "",
            Figure(r.high, picture.unit, "down").number(system) if r.high is not None else "",
        )
        text = f"{ends[0]} to {ends[1]}" if all(ends) else f"up to {ends[1]}" if ends[1] else f"from {ends[0]}"
        return {"label": r.label, "low": number(r.low), "high": number(r.high), "text": text}

    at = picture.at
    return _empty("bars", picture, system) | {
        "unit": shown.unit,
        "ranges": [*(one(r) for r in picture.ranges), one(picture.shared)],
        "at": number(at),
        "at_text": "" if at is None else Figure(at, picture.unit).number(system),
    }


def _curves(picture: Curves, system: System) -> dict[str, Any]:
    across, speed = shown_as("mm", system), shown_as("m/min", system)

    def place(d: float) -> float:
        return round(from_core(d, "mm", across), 4)

    return _empty("curves", picture, system) | {
        "unit": across.unit,
        "mark": None if picture.mark is None else place(picture.mark),
        "mark_text": picture.mark_words.text(system),
        "lines": [
            {
                "label": picture.rpm.label,
                "unit": "rpm",
                "points": [[place(d), round(n, 1)] for d, n in picture.rpm.points],
            },
            {
                "label": picture.speed.label,
                "unit": speed.unit,
                "points": [[place(d), round(from_core(v, "m/min", speed), 2)] for d, v in picture.speed.points],
            },
        ],
    }

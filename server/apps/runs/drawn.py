"""Wire shapes of what is drawn: the views of a side and its force chart."""

from __future__ import annotations

from typing import Literal

from pydantic import BaseModel


class ShapeOut(BaseModel):
    """A shape of the drawing, in mm."""

    name: str
    role: Literal[
        "chuck",
        "master",
        "jaw",
        "bolt",
        "hole",
        "part",
        "outline",
        "hidden",
        "cut",
        "removed",
        "axis",
        "centre",
        "grip",
        "keepout",
        "path",
        "ghost",
        "wall",
        "track",
        "piece",
        "gap",
    ]
    points: list[list[float]]
    closed: bool
    facts: list[str]
    stops: list[str]


class DimensionOut(BaseModel):
    """A dimension of the drawing, in mm; its text in the units asked for."""

    name: str
    fact: str
    start: list[float]
    end: list[float]
    offset: float
    text: str
    stops: list[str]
    outside: Literal["before", "after"]


class LabelOut(BaseModel):
    """Words on the drawing, at a point in mm."""

    point: list[float]
    text: str
    fact: str
    stops: list[str]
    anchor: Literal["start", "middle", "end"]


class SceneOut(BaseModel):
    """A view of the drawing and the same in words; shown at `stops`, everywhere where there are none."""

    name: str
    title: str
    stops: list[str]
    shapes: list[ShapeOut]
    dimensions: list[DimensionOut]
    labels: list[LabelOut]
    words: list[str]


class CurveOut(BaseModel):
    """A line of the force chart."""

    name: str
    label: str
    points: list[list[float]]


class ChartOut(BaseModel):
    """Grip against speed: forces as (rpm, force) points in the unit shown; a path is None where it may not be
    changed.
    """

    unit: str
    rpm_most: float
    force_most: float
    curves: list[CurveOut]
    demand: list[list[float]]
    demand_corner: list[list[float]]
    demand_text: str
    static_text: str
    allowable: float
    allowable_text: str
    cap: float
    cap_force: float
    cap_text: str
    wall: float | None
    wall_text: str
    top: float
    top_text: str
    pressures: list[list[float]]
    pressure: float
    pressure_unit: str
    pressure_path: str | None
    speed_path: str | None

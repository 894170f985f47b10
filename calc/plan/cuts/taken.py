"""The metal that one planned cut takes, as a region of the half-section, and the tool that takes it."""

from __future__ import annotations

from dataclasses import dataclass

from shapely import Polygon, unary_union
from shapely.affinity import translate
from shapely.geometry.base import BaseGeometry

from calc.cuts.kinds import Kind, Stage
from calc.plan.cuts.inputs import PlannedCut
from calc.profile.half import FAR_MM, rectangle
from calc.tools.envelope import OUT_MM, boring, drilling, plunging, threading, turning
from calc.tools.library import Tool

RUN_IN_MM = 2.0  # a tool begins this far before the metal
FACE_MM = 0.3  # a cut that begins this near the face begins before it


@dataclass(frozen=True)
class CutShape:
    """Where a cut goes [mm]: diameters before and after it, its begin and length from the finished face, its tool."""

    id: str
    name: str
    kind: Kind
    stage: Stage
    before: float
    after: float
    start: float
    length: float
    inside: bool
    approach_deg: float
    point_deg: float
    width: float
    tool: Tool | None
    cleans: bool = False

    @classmethod
    def of(cls, planned: PlannedCut, length_mm: float, tool: Tool | None) -> CutShape | None:
        """The shape of a cut with its tool's figures in it; None while its diameters are missing."""
        a, b = planned.from_diameter_mm, planned.to_diameter_mm
        if a is None or b is None:
            return None
        width = planned.width_mm or 3.0
        long = {"part": width, "groove": max(length_mm, width)}.get(planned.kind, length_mm)
        return cls(
            planned.id,
            planned.name,
            planned.kind,
            planned.stage,
            a,
            b,
            planned.start_mm,
            long,
            planned.inside,
            planned.approach_deg,
            planned.point_deg,
            width,
            tool,
            planned.cleans,
        )

    @property
    def end(self) -> float:
        """How far from the finished face it goes [mm]."""
        return 0.0 if self.kind == "face" else self.start + self.length

    @property
    def begin(self) -> float:
        """Where it begins, before the metal where it begins at the face [mm]."""
        return -FAR_MM if self.kind in ("face", "drill") or self.start <= FACE_MM else self.start

    def region(self) -> BaseGeometry:
        """Everything that its edge passes."""
        r = self.after / 2
        if self.cleans and self.kind == "groove":
            return self._edges()
        if self.inside:
            bored = rectangle(self.begin, self.end, 0.0, r)
            if self.kind != "drill":
                return bored
            return bored.union(translate(drilling(self.after, self.point_deg), self.end, 0.0))
        return rectangle(self.begin, self.end, r, FAR_MM)

    def _edges(self) -> BaseGeometry:
        """The edges at both ends of a stretch, broken at 45 degrees."""
        here, deep = self.before / 2, abs(self.after - self.before) / 2
        to = self.after / 2
        ends = ((self.start, self.start + deep), (self.end, self.end - deep))
        return unary_union([Polygon([(z, here), (inner, here), (z, to)]) for z, inner in ends])

    def expected(self, face_stock_mm: float) -> Polygon:
        """The metal it is planned to take."""
        low, high = sorted((self.before / 2, self.after / 2))
        z0 = -max(face_stock_mm, 1e-3) if self.kind == "face" else max(0.0, self.start)
        return rectangle(z0, self.end, low, high)

    def at_end(self) -> BaseGeometry:
        """The tool's own outline at the end of its path; outside it goes outward, in a bore it may pass the axis."""
        r = self.after / 2
        match self.kind:
            case "drill":
                one = drilling(self.after, self.point_deg)
                r = 0.0
            case "groove" | "part":
                one = plunging(self.tool, self.width, abs(self.before - self.after) / 2 + 1.0, self.inside)
            case "thread":
                one = threading(self.tool, self.inside, self.before)
            case "bore":
                one = boring(self.tool, self.approach_deg, self.before or self.after)
            case _:
                one = turning(self.tool, self.approach_deg)
        return translate(one, self.end, r)

    def swept(self) -> BaseGeometry:
        """What the tool's own outline passes on its way, to its end included. Below the axis it is as above."""
        r, one = self.after / 2, self.at_end()
        near = max(self.begin, -RUN_IN_MM)
        if self.kind == "drill":
            return one
        if self.kind in ("groove", "part"):
            return one.union(translate(one, self.start + self.width - self.end, 0.0))
        away = -1.0 if self.inside else 1.0
        path = rectangle(near, self.end, min(r, r + away * OUT_MM), max(r, r + away * OUT_MM))
        if self.inside:  # along the bore goes its edge; the bar stands behind it
            path = rectangle(near, self.end, max(0.0, r - 1.0), r)
        return one.union(path) if self.end > near else one

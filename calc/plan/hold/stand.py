"""Where chuck, jaws and part stand along the spindle, and what of them no tool may touch."""

from __future__ import annotations

import math
from dataclasses import dataclass
from functools import lru_cache

from shapely import Polygon, box
from shapely.geometry.base import BaseGeometry

from calc.chuck.centre import TIP_DEG
from calc.jaws.bore import JawBoreResult
from calc.plan.hold.figures import ColletHold, HoldFigures, JawHold
from calc.scene.shapes import Point

CENTRE_BODY_MM = 12.0  # typical: radius of its slim end
CENTRE_LONG_MM = 120.0
KEPT = 128


@dataclass(frozen=True)
class Stations:
    """Where the chuck's things stand along the spindle axis [mm]."""

    guide: float
    base: float
    top: float
    mouth: float  # of this side's pocket
    floor: float
    part: float  # the part's held end, with the stock on it
    face: float  # the finished face that is worked


def stations(hold: HoldFigures | None) -> Stations:
    """All stations, 0 without a hold."""
    if hold is None:
        return Stations(0, 0, 0, 0, 0, 0, 0)
    guide = hold.chuck.body_length_mm
    if not isinstance(hold, JawHold):
        end = guide + hold.beyond_mm
        return Stations(guide, guide, guide, guide, guide - hold.held_mm, end - hold.length_mm, end)
    base = guide + hold.chuck.guide_to_jaw_base_mm
    top = base + hold.jaw_height_mm
    mouth = top - hold.mouth_mm
    floor = mouth - hold.pocket.bore_depth_mm
    end = mouth + hold.beyond_mm
    return Stations(guide, base, top, mouth, floor, end - hold.length_mm, end)


def pockets(hold: JawHold) -> tuple[JawBoreResult, ...]:
    """The pockets from the jaw's top inward: the outer one first."""
    if hold.other is None:
        return (hold.pocket,)
    return (hold.other, hold.pocket) if hold.mouth_mm > 0 else (hold.pocket, hold.other)


def bored_face(hold: JawHold, at: Stations) -> tuple[Point, ...]:
    """The jaw's working face from its base to its top, with pockets and floor grooves; opened for a bar behind them."""
    face, sign = hold.face_radius_mm, 1 if hold.side == "od" else -1
    x = at.top
    walls = []
    for pocket in pockets(hold):
        wall, floor = pocket.bore_diameter_mm / 2, x - pocket.bore_depth_mm
        groove = wall + sign * pocket.groove_depth_mm
        walls.append(
            [
                (x, wall),
                (floor + pocket.groove_width_mm, wall),
                (floor + pocket.groove_width_mm, groove),
                (floor, groove),
            ]
        )
        x = floor
    line = [p for wall in walls for p in wall]
    radius, deep = hold.recess_mm
    if deep > 0 and hold.mouth_mm == max(0.0, at.top - at.mouth) and radius > face:
        line += [(x, radius), (x - deep, radius)]
        x -= deep
    behind = max(face, hold.opened_mm)
    return ((at.base, behind), (x, behind), *reversed(line))


def jaw_line(hold: JawHold, at: Stations) -> tuple[Point, ...]:
    """The jaw in section, bored."""
    back = hold.face_radius_mm + (hold.blank.length_mm if hold.side == "od" else -hold.blank.length_mm)
    return (*bored_face(hold, at), (at.top, back), (at.base, back))


@dataclass(frozen=True)
class Things:
    """What stands around the work, in half-section over a whole turn: z [mm] from the finished face toward the chuck.

    `jaw` is the line of the jaws, or of a collet with its nose. `guide` and `base` are where the chuck's face and the
    top jaws begin, `hole` its through hole, `near` the innermost of the jaws, `centre` the line of a live centre,
    empty without one.
    """

    jaw: tuple[Point, ...]
    collet: bool
    guide: float
    base: float
    face: float  # the spindle's
    body: float
    hole: float
    near: float
    centre: tuple[Point, ...]


def things_of(hold: HoldFigures) -> Things:
    """What stands around a hold: the jaws with their outermost corners or the collet, the chuck, a live centre."""
    at, chuck = stations(hold), hold.chuck
    line, near = _collet_around(hold, at) if isinstance(hold, ColletHold) else _jaws_around(hold, at)
    stock = hold.face_stock_mm
    centre = centre_line(hold.centre_mm / 2) if hold.centre_mm > 0 else ()
    return Things(
        tuple((at.face - x, max(0.0, r)) for x, r in line),
        isinstance(hold, ColletHold),
        at.face - at.guide + (chuck.nose_length_mm or 0.0 if isinstance(hold, ColletHold) else 0.0),
        at.face - at.base,
        at.face,
        chuck.body_diameter_mm / 2,
        (chuck.bore_mm or 0.0) / 2,
        max(0.0, near),
        tuple((z - stock, r) for z, r in centre),
    )


def collet_line(hold: ColletHold, at: Stations) -> tuple[Point, ...]:
    """The collet with its nose in section, closed on the bar, as far back as it bears."""
    inner, nose = hold.grip.diameter_mm / 2, (hold.chuck.nose_mm or hold.chuck.body_diameter_mm) / 2
    back = at.guide - (hold.chuck.nose_length_mm or 0.0)
    deep = at.guide - hold.collet.bearing_mm
    return (
        (deep, inner),
        (at.guide, inner),
        (at.guide, nose),
        (back, nose),
        (back, inner + (nose - inner) / 2),
        (deep, inner + (nose - inner) / 2),
    )


def _collet_around(hold: ColletHold, at: Stations) -> tuple[list[Point], float]:
    return list(collet_line(hold, at)), hold.grip.diameter_mm / 2


def _jaws_around(hold: HoldFigures, at: Stations) -> tuple[list[Point], float]:
    """(the jaws' line with their outermost corners, their innermost radius)."""
    assert isinstance(hold, JawHold)
    line, near = list(jaw_line(hold, at)), hold.face_radius_mm
    if hold.side == "od":
        corner = math.hypot(line[-1][1], (hold.blank.width_mm or 0.0) / 2)
        line[-2:] = [(line[-2][0], corner), (line[-1][0], corner)]
    else:
        near -= hold.blank.length_mm
    return line, near


@lru_cache(maxsize=KEPT)
def keep_out(things: Things) -> dict[str, BaseGeometry]:
    """What no tool may touch, by name."""
    t = things
    shapes: dict[str, BaseGeometry] = {
        "the collet's nose" if t.collet else "the jaws": Polygon(t.jaw).buffer(0),
        "the chuck": box(t.guide, t.hole, t.face, t.body),
    }
    if not t.collet:
        shapes["the master jaws"] = box(t.base, max(t.hole, t.near), t.guide, t.body)
    if t.centre:
        shapes["the live centre"] = Polygon(t.centre)
    return shapes


def centre_line(mouth_mm: float) -> tuple[Point, ...]:
    """A live centre in a hole of this radius [mm] at the face, above the axis: z from the face, r."""
    slope = math.tan(math.radians(TIP_DEG))
    wide = max(CENTRE_BODY_MM, 1.35 * mouth_mm)
    back = -(wide - mouth_mm) / slope
    return ((mouth_mm / slope, 0.0), (back, wide), (back - CENTRE_LONG_MM, wide), (back - CENTRE_LONG_MM, 0.0))

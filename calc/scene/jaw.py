"""Chuck, master jaw and bored top jaw in section, the ring or plug they close on, and their dimensions."""

from __future__ import annotations

import re
from dataclasses import dataclass

from calc.jaws.bore import JawBoreResult
from calc.plan.hold import HoldFigures
from calc.plan.jaws import JawsFigures
from calc.quantities import Figure
from calc.scene.shapes import Dimension, Point, Shape, mirrored, rectangle
from calc.shelf.taken import SetupShelf

CHUCK_SHOWN_MM = 46.0
BORING = ("jaws",)  # while the jaws are bored the part is not in them yet
RING_GAP_MM, RING_THICK_MM = 2.0, 10.0  # drawn only: a ring's place along the axis is not on its record


@dataclass(frozen=True)
class Stations:
    """Where the chuck's things stand along the spindle axis [mm]."""

    guide: float
    base: float
    top: float
    mouth: float  # of this side's pocket
    floor: float
    part: float  # the part's held end


def stations(hold: HoldFigures | None, seat: str) -> Stations:
    """All stations, 0 without a hold."""
    if hold is None:
        return Stations(0, 0, 0, 0, 0, 0)
    guide = hold.chuck.body_length_mm
    base = guide + hold.chuck.guide_to_jaw_base_mm
    top = base + hold.jaw_height_mm
    mouth = top - hold.mouth_mm
    floor = mouth - hold.pocket.bore_depth_mm
    return Stations(guide, base, top, mouth, floor, mouth - hold.grip.plain_mm if seat == "face" else floor)


def _broken(x: float, high: float, low: float) -> tuple[Point, ...]:
    """A break line from `high` down to `low`: the chuck goes on behind it."""
    bends = 6
    step = (high - low) / bends
    return tuple((x + (1.6 if i % 2 else -1.6), high - i * step) for i in range(bends + 1))


def pockets(hold: HoldFigures) -> tuple[JawBoreResult, ...]:
    """The pockets from the jaw's top inward: the outer one first."""
    if hold.other is None:
        return (hold.pocket,)
    return (hold.other, hold.pocket) if hold.mouth_mm > 0 else (hold.pocket, hold.other)


def bored_face(hold: HoldFigures, at: Stations) -> tuple[Point, ...]:
    """The jaw's working face from its base to its top, with pockets and floor grooves."""
    face, sign = hold.face_radius_mm, 1 if hold.side == "od" else -1
    line: list[Point] = [(at.top, 0.0)]
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
    return ((at.base, face), (x, face), *reversed(line))


def _jaw(hold: HoldFigures, at: Stations) -> tuple[Point, ...]:
    back = hold.face_radius_mm + (hold.blank.length_mm if hold.side == "od" else -hold.blank.length_mm)
    return (*bored_face(hold, at), (at.top, back), (at.base, back))


def _removed(hold: HoldFigures, at: Stations) -> list[Shape]:
    shapes, x, face = [], at.top, hold.face_radius_mm
    for i, pocket in enumerate(pockets(hold)):
        wall, floor = pocket.bore_diameter_mm / 2, x - pocket.bore_depth_mm
        if abs(wall - face) > 1e-9 and (wall > face) == (hold.side == "od"):
            facts = ("bore_diameter", "depth") if pocket is hold.pocket else ("other_pocket",)
            shapes.append(
                Shape(
                    f"metal-to-bore-{i}" if i else "metal-to-bore",
                    "removed",
                    rectangle(floor, face, x, wall),
                    facts=facts,
                    stops=BORING,
                )
            )
        x = floor
    return shapes


def chuck_and_jaw(hold: HoldFigures, at: Stations, largest: float) -> list[Shape]:
    """The chuck broken off behind, the master jaw, the top jaw with its bolt, the jaw behind."""
    blank, chuck = hold.blank, hold.chuck
    body, outside = chuck.body_diameter_mm / 2, hold.side == "od"
    near = hold.face_radius_mm if outside else hold.face_radius_mm - blank.length_mm
    out = near + blank.length_mm
    thread = float((re.search(r"\d+", chuck.bolt_size) or [12.0])[0])
    middle = near + blank.length_mm * (0.62 if outside else 0.4)
    head = at.base + blank.bolt_head_mm
    back = max(0.0, at.guide - CHUCK_SHOWN_MM)
    below = max(hold.pocket.bore_diameter_mm / 2, largest) + 12
    return [
        Shape("chuck", "chuck", ((at.guide, 0), (at.guide, body), *_broken(back, body, 0))),
        Shape("chuck-below", "chuck", ((at.guide, 0), *_broken(back, 0, -below), (at.guide, -below))),
        Shape("master", "master", rectangle(at.guide, near + 4, at.base, max(near + 8, min(body, out - 2)))),
        Shape("jaw", "jaw", _jaw(hold, at), facts=("jaw_height", "jaw_mass")),
        Shape("bolt-hole", "hole", rectangle(head, middle - thread * 0.8, at.top, middle + thread * 0.8)),
        Shape("bolt-head", "bolt", rectangle(head - thread, middle - thread * 0.75, head, middle + thread * 0.75)),
        Shape("bolt", "bolt", rectangle(at.base, middle - thread / 2, head - thread, middle + thread / 2)),
        Shape("jaw-behind", "hidden", mirrored(rectangle(at.base, near * 0.5, at.top, min(out * 0.5 + 6, below)))),
        *_removed(hold, at),
    ]


def keep_out(hold: HoldFigures, jaws: JawsFigures | None, shelf: SetupShelf, at: Stations) -> list[Shape]:
    """The ring before the jaws or the plug at the bottom, which the boring tool must not enter."""
    backing = jaws.backing if jaws else None
    if backing is None:
        return []
    if backing.choice == "ring":
        ring = next((r for r in shelf.rings if r.name == backing.ring), None)
        if ring is None:
            return []
        box = rectangle(
            at.top + RING_GAP_MM, ring.inner_mm / 2, at.top + RING_GAP_MM + RING_THICK_MM, ring.outer_mm / 2
        )
        return [Shape("ring", "keepout", box, facts=("backing",), stops=BORING)]
    if backing.choice == "plug":
        room = hold.pocket.bore_diameter_mm - 1e-9
        plug = max((p for p in shelf.plugs if p.diameter_mm <= room), key=lambda p: p.diameter_mm, default=None)
        if plug is None:
            return []
        low = at.floor - min(8.0, max(2.0, at.floor - at.base))
        return [
            Shape(
                "plug", "keepout", rectangle(low, 0, at.floor, plug.diameter_mm / 2), facts=("backing",), stops=BORING
            )
        ]
    return []


def jaw_dimensions(hold: HoldFigures, at: Stations, face_end: float) -> list[Dimension]:
    """Depths along the jaw's outer end, the bore, and how far the grip is from guide and cut."""
    blank, pocket = hold.blank, hold.pocket
    out = hold.face_radius_mm + (blank.length_mm if hold.side == "od" else 0.0)
    line = out + 8
    middle = at.mouth - hold.held_mm / 2
    heads = at.base + blank.bolt_head_mm
    bored = pocket.bore_diameter_mm / 2
    found = [
        Dimension(
            "depth",
            "depth",
            (at.floor, line),
            (at.mouth, line),
            0,
            Figure(pocket.bore_depth_mm, "mm"),
            "",
            " deep",
            stops=("hold", "jaws"),
        ),
        Dimension(
            "floor",
            "floor",
            (heads, line),
            (at.floor, line),
            0,
            Figure(pocket.floor_mm, "mm", "down"),
            "",
            " floor",
            stops=("jaws",),
            outside="before",
        ),
        Dimension(
            "jaw-height",
            "jaw_height",
            (at.base, line),
            (at.top, line),
            14,
            Figure(hold.jaw_height_mm, "mm"),
            "",
            " jaw",
            stops=("hold",),
        ),
        Dimension(
            "grip-height",
            "grip_height",
            (at.guide, line),
            (middle, line),
            28,
            Figure(hold.grip_height_mm, "mm", "up"),
            "",
            " to grip",
            stops=("hold", "force"),
        ),
        Dimension(
            "bore-jaws",
            "bore_diameter",
            (at.floor, -bored),
            (at.floor, bored),
            at.top - at.floor + 12,
            Figure(pocket.bore_diameter_mm, "mm", places=hold.places),
            "Ø ",
            stops=("jaws",),
        ),
        Dimension(
            "overhang",
            "overhang",
            (middle, -line * 0.2),
            (face_end, -line * 0.2),
            0,
            Figure(face_end - middle, "mm", "up"),
            "",
            " overhang",
            stops=("force",),
        ),
    ]
    other = hold.other
    if other is not None:
        x = (at.top + at.mouth) / 2 if hold.mouth_mm > 0 else at.floor
        r = other.bore_diameter_mm / 2
        found.append(
            Dimension(
                "other-pocket",
                "other_pocket",
                (x, -r),
                (x, r),
                at.top - x + 30,
                Figure(2 * r, "mm"),
                "Ø ",
                " other side",
                stops=("jaws",),
            )
        )
    return found

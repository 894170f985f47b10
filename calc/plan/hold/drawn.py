"""Chuck, master jaw and bored top jaw in section, the part's place in them, a live centre, and their dimensions."""

from __future__ import annotations

import re
from collections.abc import Iterator

from calc.plan.hold.figures import ColletHold, HoldFigures, JawHold
from calc.plan.hold.solve import HOLD
from calc.plan.hold.stand import Stations, centre_line, collet_line, jaw_line, pockets, stations
from calc.plan.part.drawn import Placed
from calc.plan.part.solve import PART
from calc.plan.sides.drawn import placed
from calc.plan.view import View
from calc.quantities import Figure, Sentence
from calc.scene.shapes import Dimension, Layer, Point, Shape, Standing, mirrored, rectangle

CHUCK_SHOWN_MM = 46.0
BELOW_MM = 16.0  # of a collet chuck, below the axis
BORING = ("jaws",)  # while the jaws are bored the part is not in them yet


def _broken(x: float, high: float, low: float) -> tuple[Point, ...]:
    """A break line from `high` down to `low`: the chuck goes on behind it."""
    bends = 6
    step = (high - low) / bends
    return tuple((x + (1.6 if i % 2 else -1.6), high - i * step) for i in range(bends + 1))


def _removed(hold: JawHold, at: Stations) -> list[Shape]:
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


def chuck_and_jaw(hold: JawHold, at: Stations, largest: float) -> list[Shape]:
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
        Shape("jaw", "jaw", jaw_line(hold, at), facts=("jaw_height", "jaw_mass")),
        Shape("bolt-hole", "hole", rectangle(head, middle - thread * 0.8, at.top, middle + thread * 0.8)),
        Shape("bolt-head", "bolt", rectangle(head - thread, middle - thread * 0.75, head, middle + thread * 0.75)),
        Shape("bolt", "bolt", rectangle(at.base, middle - thread / 2, head - thread, middle + thread / 2)),
        Shape("jaw-behind", "hidden", mirrored(rectangle(at.base, near * 0.5, at.top, min(out * 0.5 + 6, below)))),
        *_removed(hold, at),
    ]


def _overhang(middle: float, line: float, face_end: float) -> Dimension:
    """From the middle of the grip to the face that is worked, with its stock."""
    below, long = -line * 0.2, Figure(face_end - middle, "mm", "up")
    return Dimension(
        "overhang", "overhang", (middle, below), (face_end, below), 0, long, "", " overhang", stops=("force",)
    )


def jaw_dimensions(hold: JawHold, at: Stations, face_end: float) -> list[Dimension]:
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
        _overhang(middle, line, face_end),
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


def _grip_dimensions(at: Placed, hold: HoldFigures) -> list[Dimension]:
    """The diameter that is gripped, and the part's length, where it stands in the jaws."""
    grip = hold.grip
    r, x = grip.diameter_mm / 2, at.start + hold.middle_mm
    fact = "stock_diameter" if not grip.finished else "grip"
    return [
        Dimension(
            "gripped",
            fact,
            (x, -r),
            (x, r),
            at.right - x + 18,
            Figure(2 * r, "mm", places=hold.places),
            "" if grip.flats else "Ø ",
            stops=("sides", "hold"),
        ),
        Dimension(
            "part-length",
            "length",
            (at.x(0), -(r + 14)),
            (at.end, -(r + 14)),
            0,
            Figure(at.part.length_mm, "mm"),
            stops=("sides",),
        ),
    ]


def _centre(hold: HoldFigures, at: Stations) -> Shape:
    mouth = hold.centre_mm / 2
    points = centre_line(mouth)
    x = at.face + hold.face_stock_mm
    upper = tuple((x - z, r) for z, r in points)
    return Shape("live-centre", "centre", (*upper, *((px, -r) for px, r in reversed(upper))), facts=("live_centre",))


def standing_of(view: View) -> Standing:
    """Where the part stands along the spindle."""
    hold = view[HOLD]
    at = stations(hold)
    if hold is None:
        return Standing()
    raw = hold.length_mm - view.asked.need(PART).length_mm
    return Standing(at.part, raw, max(0.0, at.guide - CHUCK_SHOWN_MM), in_jaws=True)


def chuck_and_collet(hold: ColletHold, at: Stations, largest: float) -> list[Shape]:
    """The collet chuck broken off behind, the collet closed on the part, the bar through the spindle."""
    chuck = hold.chuck
    body, back = chuck.body_diameter_mm / 2, max(0.0, at.guide - hold.collet.bearing_mm - CHUCK_SHOWN_MM)
    front = at.guide - (chuck.nose_length_mm or 0.0)
    line = collet_line(hold, at)
    hole = (chuck.bore_mm or 0.0) / 2
    below = min(body, max(hole, largest) + BELOW_MM)
    shapes = [
        Shape("chuck", "chuck", ((front, hole), (front, body), *_broken(back, body, hole))),
        Shape("chuck-below", "chuck", ((front, -hole), *_broken(back, -hole, -below), (front, -below))),
        Shape("collet", "jaw", line, facts=("collet_size", "collet_bearing")),
        Shape("collet-below", "jaw", mirrored(line), facts=("collet_size",)),
    ]
    if hold.stick_out_mm is not None:
        bar = hold.grip.corners * hold.grip.diameter_mm / 2
        shapes += [
            Shape("bar", "part", rectangle(back, 0, at.part, bar), facts=("stock_diameter",)),
            Shape("bar-below", "outline", rectangle(back, -bar, at.part, 0), facts=("stock_diameter",)),
        ]
    return shapes


def collet_dimensions(hold: ColletHold, at: Stations, face_end: float) -> list[Dimension]:
    """How far the collet bears, and how far the work stands out of it."""
    line = (hold.chuck.nose_mm or hold.chuck.body_diameter_mm) / 2 + 8
    middle = at.guide - hold.held_mm / 2
    return [
        Dimension(
            "bearing",
            "collet_bearing",
            (at.guide - hold.held_mm, line),
            (at.guide, line),
            0,
            Figure(hold.held_mm, "mm", "down"),
            "",
            " held",
            stops=("hold", "jaws"),
        ),
        Dimension(
            "stick-out",
            "stick_out",
            (at.guide, line),
            (face_end, line),
            0,
            Figure(face_end - at.guide, "mm", "up"),
            "",
            " out",
            stops=("hold",),
        ),
        _overhang(middle, line, face_end),
    ]


def _words(hold: HoldFigures) -> tuple[Sentence, ...]:
    grip = hold.grip
    if isinstance(hold, ColletHold):
        words = "In a collet, {c}, on {name}, Ø{d}: held over {l}, it acts at the nose."
        held = Figure(hold.held_mm, "mm", "down")
        return (Sentence(words, c=hold.collet.words, name=grip.name, d=Figure(grip.diameter_mm, "mm"), l=held),)
    assert isinstance(hold, JawHold)
    return (
        Sentence(
            "Gripped {side} on {name}, Ø{d}, over {p} of plain length.",
            side="outside" if grip.side == "od" else "inside",
            name=grip.name,
            d=Figure(grip.diameter_mm, "mm", places=hold.places),
            p=Figure(grip.length_mm, "mm"),
        ),
        Sentence(
            "The jaws are {h} high, {verb} Ø{b} and {t} deep, with {f} of floor above the bolt heads.",
            h=Figure(hold.jaw_height_mm, "mm"),
            verb=hold.cut,
            b=Figure(hold.pocket.bore_diameter_mm, "mm", places=hold.places),
            t=Figure(hold.pocket.bore_depth_mm, "mm"),
            f=Figure(max(0.0, hold.pocket.floor_mm), "mm", "down"),
        ),
    )


def layers(view: View, standing: Standing) -> Iterator[Layer]:
    """The chuck with its jaws under the part, a live centre over it."""
    at, hold = placed(view, standing), view[HOLD]
    if at is None:
        return
    if hold is not None:
        where = stations(hold)
        sizes = (s.step.diameter_mm or 0.0 for s in at.part.body.outside)
        largest = max(view.document.part.stock.diameter_mm or 0.0, *sizes) / 2
        if isinstance(hold, ColletHold):
            shapes, more = chuck_and_collet(hold, where, largest), collet_dimensions(hold, where, at.right)
        else:
            assert isinstance(hold, JawHold)
            shapes, more = chuck_and_jaw(hold, where, largest), jaw_dimensions(hold, where, at.right)
        yield Layer(0, tuple(shapes), (*_grip_dimensions(at, hold), *more))
        yield Layer(1, words=_words(hold))
        if view.setup.hold.live_centre:
            yield Layer(3, (_centre(hold, where),))

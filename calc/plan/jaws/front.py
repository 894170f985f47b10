"""The jaws seen from the front: chuck body, bored jaws on their teeth, the piece, the metal to take."""

from __future__ import annotations

import math

from calc.plan.hold.figures import ColletHold, JawHold
from calc.profile.grips import Grip
from calc.quantities import Figure, Sentence
from calc.scene.shapes import Dimension, Label, Point, Scene, Shape, arc, box_of, rectangle, turned

SLOT_DEG = 2.0  # drawn only
UPRIGHT = 90.0  # the first jaw stands upright


def _block(hold: JawHold) -> tuple[Point, ...]:
    """A bored block jaw with its middle line along x."""
    half, radius = (hold.blank.width_mm or 0.0) / 2, hold.pocket.bore_diameter_mm / 2
    if hold.side == "od":
        near, far = hold.face_radius_mm, hold.face_radius_mm + hold.blank.length_mm
        chord = min(half, math.sqrt(max(0.0, radius**2 - near**2)))
        a = math.degrees(math.asin(min(1.0, chord / radius)))
        corner: tuple[Point, ...] = () if chord >= half - 1e-9 else ((near, half),)
        return (
            (far, half),
            *((p[0], p[1]) for p in corner),
            *arc(radius, a, -a),
            *((x, -y) for x, y in corner),
            (far, -half),
        )
    far, near = hold.face_radius_mm, hold.face_radius_mm - hold.blank.length_mm
    a = math.degrees(math.asin(min(1.0, min(half, radius) / radius)))
    return ((near, half), (near, -half), *arc(radius, -a, a))


def _flat(hold: JawHold) -> tuple[Point, ...]:
    """A hard jaw: its face is flat across its width, and is not bored."""
    half, face = (hold.blank.width_mm or 0.0) / 2, hold.grip.diameter_mm / 2
    far = face + (hold.blank.length_mm if hold.side == "od" else -hold.blank.length_mm)
    return rectangle(min(face, far), -half, max(face, far), half)


def _piece(grip: Grip) -> tuple[Point, ...]:
    """What is held: a circle, or a bar's flats, one of them against the upright jaw."""
    if not grip.flats:
        return arc(grip.diameter_mm / 2, 0, 360)
    corner, n = grip.corners * grip.diameter_mm / 2, grip.flats
    angles = (math.radians(UPRIGHT + 180 / n + 360 / n * i) for i in range(n))
    return tuple((corner * math.cos(a), corner * math.sin(a)) for a in angles)


def collet_front(hold: ColletHold) -> Scene:
    """A collet along the spindle: its nose, its segments, and the bar in it."""
    z, nose = hold.chuck.jaws, (hold.chuck.nose_mm or hold.chuck.body_diameter_mm) / 2
    radius, slot = hold.grip.diameter_mm / 2, 360 / hold.chuck.jaws
    shapes = [Shape("body", "chuck", arc(hold.chuck.body_diameter_mm / 2, 0, 360))]
    inner = hold.grip.corners * radius
    outer = inner + (nose - inner) * 0.8
    for i in range(z):
        middle = UPRIGHT + slot * i
        half = slot / 2 - SLOT_DEG
        sector = (*arc(outer, middle - half, middle + half), *arc(radius, middle + half, middle - half))
        shapes.append(Shape(f"segment-{i}", "jaw", sector, facts=("collet_size",)))
    shapes.append(Shape("piece", "part", _piece(hold.grip), facts=("collet_size",)))
    size = Figure(2 * radius, "mm", places=hold.places)
    dimension = Dimension("size", "collet_size", (0, -radius), (0, radius), nose + 14, size, "" if hold.flats else "Ø ")
    across = Sentence("across flats") if hold.grip.flats else Sentence("round")
    words = Sentence("From the front: a collet of {z} segments closed on {d}, {a}.", z=str(z), d=size, a=across)
    every = tuple(shapes)
    return Scene(every, (dimension,), box_of(every, (dimension,)), (words,))


def _pie(hold: JawHold) -> tuple[Point, ...]:
    half, radius = (hold.blank.angle_deg or 0.0) / 2, hold.pocket.bore_diameter_mm / 2
    if hold.side == "od":
        return (*arc(hold.face_radius_mm + hold.blank.length_mm, -half, half), *arc(radius, half, -half))
    return (*arc(radius, -half, half), *arc(max(1.0, hold.face_radius_mm - hold.blank.length_mm), half, -half))


def _unbored(hold: JawHold) -> tuple[Point, ...]:
    """What a jaw is before it is bored."""
    near = hold.face_radius_mm if hold.side == "od" else hold.face_radius_mm - hold.blank.length_mm
    far = near + hold.blank.length_mm
    if hold.blank.kind == "pie":
        half = (hold.blank.angle_deg or 0.0) / 2
        return (*arc(far, -half, half), *arc(max(1.0, near), half, -half))
    half = (hold.blank.width_mm or 0.0) / 2
    return rectangle(near, -half, far, half)


def front(hold: JawHold) -> Scene:
    """The view along the spindle, jaws at mid-stroke."""
    z, body = hold.chuck.jaws, hold.chuck.body_diameter_mm / 2
    radius = hold.pocket.bore_diameter_mm / 2
    made = {"pie": _pie, "hard": _flat, "block": _block}[hold.blank.kind](hold)
    shapes = [Shape("body", "chuck", arc(body, 0, 360))]
    for i in range(z):
        angle = UPRIGHT + 360 / z * i
        if not hold.blank.is_hard:
            shapes.append(Shape(f"unbored-{i}", "removed", turned(_unbored(hold), angle), facts=("removed",)))
        shapes.append(Shape(f"jaw-{i}", "jaw", turned(made, angle), facts=("wrap", "jaw_mass")))
    shapes.append(Shape("piece", "outline", _piece(hold.grip), facts=("bore_diameter",)))
    if hold.other is not None:
        shapes.append(
            Shape("other-pocket", "hidden", arc(hold.other.bore_diameter_mm / 2, 0, 360), facts=("other_pocket",))
        )
    labels, dimensions = [], []
    mount = hold.mount
    if mount is not None:
        edge = body - mount.tnut_to_body_mm
        half = (hold.blank.width_mm or 0.0) / 4
        for i in range(z):
            shapes.append(
                Shape(
                    f"tnut-{i}",
                    "hidden",
                    turned(rectangle(edge - 14, -half, edge, half), UPRIGHT + 360 / z * i),
                    facts=("tnut",),
                )
            )
        dimensions += [
            Dimension(
                "tnut",
                "tnut",
                (0, edge),
                (0, body),
                body * 0.55,
                Figure(mount.tnut_to_body_mm, "mm", "down"),
                "",
                " T-nut inside",
            ),
            Dimension(
                "removed",
                "removed",
                (0, min(mount.face_radius_mm, radius)),
                (0, max(mount.face_radius_mm, radius)),
                -body * 0.55,
                Figure(hold.removed_mm, "mm"),
                "",
                " to take",
                outside="before",
            ),
        ]
        for other in mount.neighbours:
            if other.tooth == mount.tooth:
                continue
            y = other.face_radius_mm
            half = (hold.blank.width_mm or 0.0) / 2
            shapes.append(
                Shape(f"tooth-{other.tooth}", "hidden", ((-half, y), (half, y)), closed=False, facts=("tooth",))
            )
        labels.append(
            Label((body * 1.05, body * 0.9), Sentence("tooth {k}; dashed: its neighbours", k=str(mount.tooth)), "tooth")
        )
    dimensions.append(
        Dimension(
            "bore",
            "bore_diameter",
            (0, -radius),
            (0, radius),
            body + 14,
            Figure(2 * radius, "mm", places=hold.places),
            "Ø ",
        )
    )
    words = [
        Sentence(
            "From the front: {z} hard jaws closed on {d}, each flat across its width."
            if hold.blank.is_hard
            else "From the front: {z} jaws at mid-stroke, {cut} Ø{d}, each wraps {a}.",
            z=str(z),
            cut=hold.cut,
            d=Figure(2 * radius, "mm"),
            a=Figure(hold.wrap_deg, "deg"),
        )
    ]
    if mount is not None:
        words.append(
            Sentence(
                "Mounted in tooth {k}: {m} of metal to take, T-nut {t} inside the body.",
                k=str(mount.tooth),
                m=Figure(hold.removed_mm, "mm"),
                t=Figure(mount.tnut_to_body_mm, "mm", "down"),
            )
        )
    every, all_dimensions = tuple(shapes), tuple(dimensions)
    return Scene(every, all_dimensions, box_of(every, all_dimensions), tuple(words), tuple(labels))

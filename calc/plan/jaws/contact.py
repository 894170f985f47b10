"""How the smallest, nominal and largest piece touch the bored arc: one jaw's arc laid flat, gaps exaggerated."""

from __future__ import annotations

import math

from calc.jaws.contact import JawContactResult
from calc.plan.hold.figures import JawHold
from calc.plan.jaws.solve import PIECES
from calc.quantities import Figure, Sentence
from calc.scene.shapes import Label, Point, Scene, Shape, box_of

POINTS = 40
ROW_MM = 26.0
TALLEST_MM = 14.0  # the largest gap is drawn this high
DEEP_MM = 5.0


def gap_at(hold: JawHold, contact: JawContactResult, piece: float, offset: float) -> float:
    """Gap [mm] between a bored arc and a piece at `offset` [mm] across from mid-jaw."""
    jaw, part = hold.pocket.bore_diameter_mm / 2, piece / 2
    centre = contact.step("e").value if contact.mode != "full" else 0.0
    height = math.sqrt(max(0.0, jaw**2 - offset**2))
    if hold.side == "od":
        # A bore too large sits nearer the axis at mid-jaw, one too small is held off by its corners.
        moved = height - centre if contact.mode == "centre" else height + centre
        return max(0.0, math.hypot(moved, offset) - part)
    return max(0.0, part - math.hypot(height + centre, offset))


def contact_scale(hold: JawHold) -> float:
    """How many times the gaps are drawn: 1, 5, 10, 50 …, so that the largest is seen."""
    largest = max((c.gap_mm for c in hold.contacts if c), default=0.0)
    times = TALLEST_MM / largest if largest > 1e-6 else 1.0
    if times <= 1:
        return 1.0
    tens = 10 ** math.floor(math.log10(times))
    return float(tens * (5 if times / tens >= 5 else 1))


def contact_view(hold: JawHold) -> Scene:
    """Three strips, one a piece; the words and labels tell the true gap."""
    half = min(
        hold.width_mm / 2, hold.pocket.bore_diameter_mm / 2 * math.sin(math.radians(min(hold.wrap_deg, 179.0) / 2))
    )
    grip = hold.grip
    sizes = (grip.smallest_mm, grip.diameter_mm, grip.largest_mm)
    times = contact_scale(hold)
    shapes, labels, words = (
        [],
        [],
        [Sentence("Contact, one jaw's arc laid flat; gaps drawn {n} times.", n=f"{times:g}")],
    )
    for row, (name, size, contact) in enumerate(zip(PIECES, sizes, hold.contacts, strict=True)):
        y0 = -row * ROW_MM
        shapes.append(
            Shape(f"piece-{name}", "piece", ((-half, y0 - DEEP_MM), (half, y0 - DEEP_MM), (half, y0), (-half, y0)))
        )
        if contact is None:
            labels.append(Label((half + 4, y0), Sentence("{p}: does not sit in these jaws", p=name)))
            continue
        line: list[Point] = []
        for i in range(POINTS + 1):
            x = -half + 2 * half * i / POINTS
            line.append((x, y0 + times * gap_at(hold, contact, size, x)))
        top = y0 + TALLEST_MM + DEEP_MM
        shapes.append(Shape(f"arc-{name}", "jaw", (*line, (half, top), (-half, top))))
        where = {"full": "touches all over", "centre": "touches at mid-jaw", "edges": "touches on both corners"}[
            contact.mode
        ]
        gap = Figure(contact.gap_mm, "mm", places=(4, 5))
        said = Sentence("{p}, Ø{d}: {w}, gap {g}", p=name, d=Figure(size, "mm", places=(3, 4)), w=where, g=gap)
        labels.append(Label((half + 4, y0 + 2), said, "contact"))
        words.append(said)
    every = tuple(shapes)
    box = box_of(every, ())
    return Scene(every, (), (box[0], box[1], box[2] + 60, box[3]), tuple(words), tuple(labels))

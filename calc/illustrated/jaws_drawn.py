"""Pictures of jaws: how a bored arc touches pieces, and a wall as the jaws squeeze it."""

from __future__ import annotations

import math
from collections.abc import Sequence
from dataclasses import dataclass

from calc.jaws.contact import JawContactInput, JawContactResult
from calc.quantities import Figure, Sentence
from calc.scene.shapes import Label, Point, Scene, Shape, arc, box_of
from calc.terms import Side
from calc.walls.lobing import WallLobingInput, WallLobingResult, WallPoint

POINTS = 40
ROW_MM = 26.0
TALLEST_MM = 14.0  # the largest gap is drawn this high
DEEP_MM = 5.0
TOUCHES = {"full": "touches all over", "centre": "touches at mid-jaw", "edges": "touches on both corners"}
SHOWN_SHARE = 0.10  # the largest move of a wall is drawn as this share of the outer radius
UPRIGHT = 90.0


@dataclass(frozen=True)
class Touching:
    """A piece [mm] and how it touches; None where it does not sit in these jaws."""

    name: str
    piece_mm: float
    contact: JawContactResult | None


def gap_across(side: Side, jaw_mm: float, touching: Touching, offset_mm: float) -> float:
    """Gap [mm] between a bored arc and a piece at `offset_mm` across from mid-jaw; the piece sits in these jaws."""
    assert touching.contact is not None
    jaw, part = jaw_mm / 2, touching.piece_mm / 2
    centre = touching.contact.step("e").value if touching.contact.mode != "full" else 0.0
    height = math.sqrt(max(0.0, jaw**2 - offset_mm**2))
    if side == "od":
        # A bore too large sits nearer the axis at mid-jaw, one too small is held off by its corners.
        moved = height - centre if touching.contact.mode == "centre" else height + centre
        return max(0.0, math.hypot(moved, offset_mm) - part)
    return max(0.0, part - math.hypot(height + centre, offset_mm))


def times_drawn(gaps: Sequence[float]) -> float:
    """How many times gaps [mm] are drawn: 1, 5, 10, 50 …, so that the largest is seen."""
    largest = max(gaps, default=0.0)
    times = TALLEST_MM / largest if largest > 1e-6 else 1.0
    if times <= 1:
        return 1.0
    tens = 10 ** math.floor(math.log10(times))
    return float(tens * (5 if times / tens >= 5 else 1))


def strips(side: Side, jaw_mm: float, half_mm: float, pieces: Sequence[Touching], times: float) -> Scene:
    """Strips, one a piece: one jaw's arc laid flat, half its width `half_mm`; words and labels tell the true gap."""
    shapes: list[Shape] = []
    labels: list[Label] = []
    words = [Sentence("Contact, one jaw's arc laid flat; gaps drawn {n} times.", n=f"{times:g}")]
    for row, one in enumerate(pieces):
        y0 = -row * ROW_MM
        under = ((-half_mm, y0 - DEEP_MM), (half_mm, y0 - DEEP_MM), (half_mm, y0), (-half_mm, y0))
        shapes.append(Shape(f"piece-{one.name}", "piece", under))
        if one.contact is None:
            labels.append(Label((half_mm + 4, y0), Sentence("{p}: does not sit in these jaws", p=one.name)))
            continue
        line: list[Point] = []
        for i in range(POINTS + 1):
            x = -half_mm + 2 * half_mm * i / POINTS
            line.append((x, y0 + times * gap_across(side, jaw_mm, one, x)))
        top = y0 + TALLEST_MM + DEEP_MM
        shapes.append(Shape(f"arc-{one.name}", "jaw", (*line, (half_mm, top), (-half_mm, top))))
        said = Sentence(
            "{p}, Ø{d}: {w}, gap {g}",
            p=one.name,
            d=Figure(one.piece_mm, "mm", places=(3, 4)),
            w=TOUCHES[one.contact.mode],
            g=Figure(one.contact.gap_mm, "mm", places=(4, 5)),
        )
        labels.append(Label((half_mm + 4, y0 + 2), said, "contact"))
        words.append(said)
    every = tuple(shapes)
    box = box_of(every, ())
    return Scene(every, (), (box[0], box[1], box[2] + 60, box[3]), tuple(words), tuple(labels))


def contact(given: JawContactInput, found: JawContactResult) -> Scene:
    """The arc of one jaw, and the piece."""
    half = min(given.jaw_width_mm / 2, given.jaw_diameter_mm / 2)
    if given.wrap_deg is not None:
        half = min(half, given.jaw_diameter_mm / 2 * math.sin(math.radians(min(given.wrap_deg, 179.0) / 2)))
    piece = Touching("piece", given.part_diameter_mm, found)
    drawn = strips(given.side, given.jaw_diameter_mm, half, (piece,), times_drawn((found.gap_mm,)))
    return Scene(drawn.shapes, (), box_of(drawn.shapes, ()), drawn.words)


def _moved(radius: float, moves: Sequence[tuple[float, float]], times: float) -> tuple[Point, ...]:
    points = []
    for angle, move in moves:
        a = math.radians(angle + UPRIGHT)
        r = radius + times * move
        points.append((r * math.cos(a), r * math.sin(a)))
    return tuple(points)


def squeezed(given: WallLobingInput, shape: Sequence[WallPoint], wrap_deg: float) -> tuple[tuple[Shape, ...], float]:
    """(both walls under the grip, the round ones dashed, and where the jaws press; how many times it is drawn)."""
    outer, inner = given.outer_diameter_mm / 2, given.inner_diameter_mm / 2
    most = max(max(abs(p.inner_mm), abs(p.outer_mm)) for p in shape) or 1.0
    times = outer * SHOWN_SHARE / most
    step = 10 ** math.floor(math.log10(times)) if times > 0 else 1.0
    times = step * (5 if times / step >= 5 else 2 if times / step >= 2 else 1)
    outside = _moved(outer, [(p.angle_deg, p.outer_mm) for p in shape], times)
    inside = _moved(inner, [(p.angle_deg, p.inner_mm) for p in shape], times)
    half = min(wrap_deg, 360 / given.jaws) / 2
    gripped, sign = (outer, 1) if given.side == "od" else (inner, -1)
    gap = outer * (SHOWN_SHARE + 0.08)
    near, far = max(1.0, gripped + sign * gap * 0.4), max(1.0, gripped + sign * gap)
    shapes = [
        Shape("wall", "part", (*outside, *reversed(inside)), facts=("out_of_round",)),
        Shape("round-outer", "hidden", arc(outer, 0, 360)),
        Shape("round-inner", "hidden", arc(inner, 0, 360)),
    ]
    for i in range(given.jaws):
        middle = UPRIGHT + 360 / given.jaws * i
        body = (*arc(near, middle - half, middle + half), *arc(far, middle + half, middle - half))
        shapes.append(Shape(f"jaw-{i}", "jaw", body))
    return tuple(shapes), times


def beside(outer_mm: float, row: int) -> Point:
    """Where the rows of words beside a wall of this outer radius [mm] stand."""
    return (outer_mm * 1.25, outer_mm * (0.75 - 0.2 * row))


def drawn_times(times: float) -> Sentence:
    """How many times a move is drawn, in words."""
    return Sentence("drawn ×{n}", n=f"{times:,.0f}".replace(",", "\u202f"))


def wall(given: WallLobingInput, found: WallLobingResult) -> Scene | None:
    """The wall as the jaws squeeze it."""
    if not found.shape:
        return None
    shapes, times = squeezed(given, found.shape, given.wrap_deg)
    outer = given.outer_diameter_mm / 2
    words = Sentence("The wall comes out {x} out of round.", x=Figure(found.out_of_round_mm, "mm", "up", (4, 5)))
    box = box_of(shapes, ())
    under = Label((0, box[1] - 0.12 * outer), drawn_times(times), anchor="middle")
    return Scene(shapes, (), (box[0], box[1] - 0.3 * outer, box[2], box[3]), (words,), (under,))

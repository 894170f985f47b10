"""The stroke as travel on diameter, with the batch's spread on it."""

from __future__ import annotations

from calc.plan.hold.figures import JawHold
from calc.plan.jaws.solve import JawsFigures
from calc.quantities import Figure, Sentence
from calc.scene.shapes import Dimension, Label, Scene, Shape, box_of, rectangle

TIMES = 10.0  # a stroke of millimetres, drawn ten times along
HIGH_MM = 12.0


def travel_view(hold: JawHold, jaws: JawsFigures) -> Scene:
    """From clamped shut on the left to released on the right for an outside grip; inside the other way."""
    s, grip, bored = jaws.stroke, hold.grip, hold.pocket.bore_diameter_mm
    sign = 1 if hold.side == "od" else -1

    def x(d: float) -> float:
        return (d - bored) * TIMES

    opened, closed = x(bored + sign * s.load_clearance_mm), x(bored - sign * s.closing_travel_mm)
    spread = (x(grip.smallest_mm), x(grip.largest_mm))
    if spread[1] - spread[0] < 0.6:
        spread = (spread[0] - 0.3, spread[1] + 0.3)
    shapes = (
        Shape("opens", "track", rectangle(min(0, opened), 0, max(0, opened), HIGH_MM), facts=("load_clearance",)),
        Shape("closes", "track", rectangle(min(0, closed), 0, max(0, closed), HIGH_MM), facts=("closing_travel",)),
        Shape("spread", "piece", rectangle(spread[0], 2, spread[1], HIGH_MM - 2)),
        Shape("bored", "outline", ((0, -8), (0, HIGH_MM + 8)), closed=False, facts=("bore_diameter",)),
    )
    dimensions = (
        Dimension(
            "opens",
            "load_clearance",
            (0, HIGH_MM),
            (opened, HIGH_MM),
            8,
            Figure(s.load_clearance_mm, "mm", "down"),
            "",
            " opens",
        ),
        Dimension(
            "closes",
            "closing_travel",
            (closed, HIGH_MM),
            (0, HIGH_MM),
            8,
            Figure(s.closing_travel_mm, "mm", "down"),
            "",
            " closes",
        ),
    )
    low, high = Figure(grip.smallest_mm, "mm", places=(3, 4)), Figure(grip.largest_mm, "mm", places=(3, 4))
    labels = (
        Label(
            (0, -14),
            Sentence("{cut} Ø{d}", cut=hold.cut, d=Figure(bored, "mm", places=hold.places)),
            "bore_diameter",
            anchor="middle",
        ),
        Label((0, -24), Sentence("pieces {a} to {b}", a=low, b=high), anchor="middle"),
        Label((opened, -14), Sentence("released"), anchor="middle"),
        Label((closed, -14), Sentence("clamped shut"), anchor="middle"),
    )
    words = (
        Sentence(
            "Travel on diameter, ten times: the jaws open {o} beyond what they are {cut} to and close {c} beyond it.",
            cut=hold.cut,
            o=Figure(s.load_clearance_mm, "mm", "down"),
            c=Figure(s.closing_travel_mm, "mm", "down"),
        ),
        Sentence("Pieces run from {a} to {b}.", a=low, b=high),
    )
    box = box_of(shapes, dimensions)
    return Scene(shapes, dimensions, (box[0], box[1] - 26, box[2], box[3]), words, labels)

"""What the stop Jaws draws: what the jaws close on and the tool's path in the section, and its own pictures."""

from __future__ import annotations

from collections.abc import Iterator
from functools import partial

from calc.plan.hold.drawn import BORING
from calc.plan.hold.figures import ColletHold, JawHold
from calc.plan.hold.solve import HOLD, JAW_HOLD
from calc.plan.hold.stand import Stations, stations
from calc.plan.jaws.contact import contact_scale, contact_view
from calc.plan.jaws.front import collet_front, front
from calc.plan.jaws.program import boring_of
from calc.plan.jaws.solve import JAWS
from calc.plan.jaws.travel import travel_view
from calc.plan.stop_kind import Drawing
from calc.plan.view import View
from calc.programs.jaw_boring import Boring, moves_of
from calc.scene.shapes import Layer, Shape, Standing, rectangle

RING_GAP_MM, RING_THICK_MM = 2.0, 10.0  # drawn only: a ring's place along the axis is not on its record


def _keep_out(view: View, hold: JawHold, at: Stations) -> list[Shape]:
    """The ring before the jaws or the plug at the bottom, which the boring tool must not enter."""
    jaws, shelf = view[JAWS], view.taken
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
    if backing.plug_mm is not None:
        low = at.floor - min(8.0, max(2.0, at.floor - at.base))
        return [
            Shape("plug", "keepout", rectangle(low, 0, at.floor, backing.plug_mm / 2), facts=("backing",), stops=BORING)
        ]
    return []


def _path(boring: Boring, at: Stations) -> list[Shape]:
    """Where the boring tool's tip goes when it finishes each pocket; the roughing passes fill what is dotted."""
    shapes: list[Shape] = []
    points: list[tuple[float, float]] = []
    for m in moves_of(boring):
        if m.finishes:
            points = []
        if points or m.finishes:
            points.append((at.top + m.z_mm, m.x_mm / 2))
        if m.kind == "rapid" and len(points) > 1:
            shapes.append(
                Shape(
                    f"tool-path-{len(shapes)}", "path", tuple(points), closed=False, facts=("program",), stops=("jaws",)
                )
            )
            points = []
    return shapes


def layers(view: View, standing: Standing) -> Iterator[Layer]:
    """What the jaws close on, and where the boring tool goes: over everything else."""
    hold = view[JAW_HOLD]
    if hold is None or hold.blank.is_hard:
        return
    at, boring = stations(hold), boring_of(view)
    path = _path(boring, at) if boring else []
    yield Layer(4, (*_keep_out(view, hold, at), *path))


def drawings(view: View) -> Iterator[Drawing]:
    """From the front, the contact of the pieces, the travel."""
    any_hold, hold, jaws = view[HOLD], view[JAW_HOLD], view[JAWS]
    if isinstance(any_hold, ColletHold):
        yield Drawing("front", "From the front", ("jaws",), partial(collet_front, any_hold))
    if hold is None:
        return
    yield Drawing("front", "From the front", ("jaws",), partial(front, hold))
    if jaws is not None and not hold.blank.is_hard:
        times = f"{contact_scale(hold):,.0f}".replace(",", "\u202f")
        yield Drawing("contact", f"Contact ×{times}", ("jaws",), partial(contact_view, hold))
        yield Drawing("travel", "Travel", ("jaws",), partial(travel_view, hold, jaws))

"""How the smallest, nominal and largest piece touch the bored arc."""

from __future__ import annotations

import math

from calc.illustrated.jaws_drawn import Touching, strips, times_drawn
from calc.plan.hold.figures import JawHold
from calc.plan.jaws.solve import PIECES
from calc.scene.shapes import Scene


def contact_scale(hold: JawHold) -> float:
    """How many times the gaps are drawn."""
    return times_drawn([c.gap_mm for c in hold.contacts if c])


def contact_view(hold: JawHold) -> Scene:
    """Three strips, one a piece."""
    jaw_mm = hold.pocket.bore_diameter_mm
    half = min(hold.width_mm / 2, jaw_mm / 2 * math.sin(math.radians(min(hold.wrap_deg, 179.0) / 2)))
    sizes = (hold.grip.smallest_mm, hold.grip.diameter_mm, hold.grip.largest_mm)
    pieces = [Touching(*one) for one in zip(PIECES, sizes, hold.contacts, strict=True)]
    return strips(hold.side, jaw_mm, half, pieces, contact_scale(hold))

"""Part-off blades."""

from __future__ import annotations

from dataclasses import dataclass
from typing import Annotated

from calc.fields import Quantity
from calc.item import Item
from calc.item_kind import ItemKind
from calc.quantities import exact_text
from calc.tools.kinds.carrier import COOLANT, SEAT, SHANK, TURRET, Coolant


@dataclass(frozen=True)
class Blade(Item):
    """A part-off blade in its block."""

    __hash__ = Item.__hash__

    seat: Annotated[str, SEAT]
    reach_mm: Annotated[
        float,
        Quantity("Most reach", "mm", "How far it may hang out", above=0, high=500, where="The blade's data sheet"),
    ]
    shank_mm: Annotated[
        float, Quantity("Block", "mm", "Square of the block, or height of the blade", above=0, high=200, where=SHANK)
    ]
    coolant: Annotated[Coolant, COOLANT] = "outside"
    turret: Annotated[str, TURRET] = ""


BLADE = ItemKind(
    name="blade",
    plural="blades",
    title="Part-off blades",
    noun="blade",
    item=Blade,
    line=lambda b, _: f"seat {b.seat} · hangs out {exact_text(b.reach_mm)} mm",
    groups={"name": "What it is", "coolant": "On the machine"},
    codes={"reach_mm": "CDX", "shank_mm": "H", "coolant": "CSP"},
)

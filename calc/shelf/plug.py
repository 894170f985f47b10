"""Boring plugs: clamped at the bottom of the jaws while they are cut."""

from __future__ import annotations

from dataclasses import dataclass
from typing import Annotated

from calc import terms
from calc.item import Item
from calc.item_kind import FITS_CHUCKS, ItemKind
from calc.quantities import exact_text


@dataclass(frozen=True)
class Plug(Item):
    """A plug to be clamped at the bottom of the jaws while they are cut."""

    __hash__ = Item.__hash__

    diameter_mm: Annotated[float, terms.PLUG_DIAMETER.called("Diameter", where="Measure the plug")]


PLUG = ItemKind(
    name="plug",
    plural="plugs",
    title="Boring plugs",
    noun="boring plug",
    item=Plug,
    line=lambda p, _: f"Ø{exact_text(p.diameter_mm)}",
    groups={"name": "What it is"},
    links=(FITS_CHUCKS,),
    sought=True,
)

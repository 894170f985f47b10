"""Boring rings: what the jaws close on while they are cut."""

from __future__ import annotations

from collections.abc import Iterator
from dataclasses import dataclass
from typing import Annotated

from calc import terms
from calc.errors import FieldError
from calc.item import Item
from calc.item_kind import FITS_CHUCKS, ItemKind, Names
from calc.quantities import Figure, Sentence, exact_text

NO_LIMITS = "no limits on record"


@dataclass(frozen=True)
class Ring(Item):
    """A boring ring in the jaw screw holes. Its limits are its own; without them it is never used."""

    __hash__ = Item.__hash__

    inner_mm: Annotated[float, terms.RING_INNER.called(where="Measure the ring")]
    outer_mm: Annotated[float, terms.RING_OUTER.called(where="Measure the ring")]
    max_bar: Annotated[float | None, terms.RING_BAR.called(where="The ring's leaflet")] = None
    max_rpm: Annotated[float | None, terms.RING_RPM.called(where="The ring's leaflet")] = None

    def contradictions(self) -> Iterator[FieldError]:
        if self.inner_mm >= self.outer_mm:
            outer = Figure(self.outer_mm, "mm", exact=True)
            yield FieldError("inner_mm", Sentence("The inner diameter must be below the outer one, {d}.", d=outer))


def _line(ring: Ring, _: Names) -> str:
    bar, rpm = ring.max_bar, ring.max_rpm
    limits = f"{Figure(bar, 'bar').text()}, {Figure(rpm, 'rpm').text()}" if bar and rpm else NO_LIMITS
    return f"Ø{exact_text(ring.inner_mm)} / Ø{exact_text(ring.outer_mm)} · {limits}"


RING = ItemKind(
    name="ring",
    plural="rings",
    title="Boring rings",
    noun="boring ring",
    item=Ring,
    line=_line,
    groups={"name": "What it is", "inner_mm": "Its size", "max_bar": "Its limits"},
    links=(FITS_CHUCKS,),
    sought=True,
)

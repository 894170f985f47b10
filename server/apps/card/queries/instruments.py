"""The instruments that this shop has."""

from __future__ import annotations

from server.apps.card.instrument import instruments
from server.apps.card.schemas import InstrumentLine


def instrument_lines() -> list[InstrumentLine]:
    """Every instrument by name, and what it measures."""
    return [InstrumentLine(name=n, kind=place.kind) for n, place in instruments().items()]

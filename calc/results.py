"""What every result carries, and how it becomes plain data."""

from __future__ import annotations

import dataclasses
from dataclasses import dataclass
from typing import Any

from calc.quantities import Sentence
from calc.working import Note, Step


@dataclass(frozen=True, slots=True, kw_only=True)
class Explained:
    """Base of results: the steps that made the figures, and what must be said about them."""

    working: tuple[Step, ...] = ()
    notes: tuple[Note, ...] = ()

    def step(self, symbol: str) -> Step:
        """The step with this symbol. Raises KeyError."""
        for step in self.working:
            if step.symbol == symbol:
                return step
        raise KeyError(symbol)


def as_plain(value: Any) -> Any:
    """A result as JSON-ready data."""
    if isinstance(value, (Step, Note)):
        return value.as_dict()
    if isinstance(value, Sentence):
        return str(value)
    if dataclasses.is_dataclass(value) and not isinstance(value, type):
        return {f.name: as_plain(getattr(value, f.name)) for f in dataclasses.fields(value)}
    if isinstance(value, (tuple, list)):
        return [as_plain(v) for v in value]
    if isinstance(value, dict):
        return {k: as_plain(v) for k, v in value.items()}
    return value

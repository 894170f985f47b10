"""What a seed draws: values that a shop has, the same for the same seed on every machine."""

from __future__ import annotations

from collections.abc import Sequence
from random import Random
from typing import TypeVar

T = TypeVar("T")


class Draw:
    """Draws by a seed. `random.Random` by a text gives the same on every machine."""

    def __init__(self, kind: str, seed: int, level: int) -> None:
        self._chance = Random(f"{kind}/{level}/{seed}")  # noqa: S311 - exercises, not secrets

    def one(self, of: Sequence[T]) -> T:
        """One of these."""
        return of[self._chance.randrange(len(of))]

    def some(self, of: Sequence[T], many: int) -> list[T]:
        """So many of these, none twice, in any order."""
        return self._chance.sample(list(of), many)

    def mixed(self, of: Sequence[T]) -> list[T]:
        """All of these in any order."""
        return self.some(of, len(of))

    def value(self, low: float, high: float, step: float) -> float:
        """A value between two, both counted, on a full step."""
        many = round((high - low) / step)
        return round(low + self._chance.randint(0, many) * step, 6)

    def yes(self) -> bool:
        """Yes or no."""
        return self._chance.random() < 0.5

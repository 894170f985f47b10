"""Who a plan is read for: the units, what may be changed, the words that were typed."""

from __future__ import annotations

from collections.abc import Callable, Mapping
from dataclasses import dataclass
from functools import cached_property

from calc.quantities import System

May = Callable[[str], bool]


@dataclass(frozen=True)
class Reader:
    """Who a plan is read for: the units, the paths that may be changed, the texts that were typed as (path, text).

    Readers that are equal read the same.
    """

    system: System
    may: May = lambda _: False
    typed: tuple[tuple[str, str], ...] = ()

    @cached_property
    def words(self) -> Mapping[str, str]:
        """What was typed, by path."""
        return dict(self.typed)

    def takes(self, path: str | None) -> str | None:
        """The path where it may be changed, else None."""
        return path if path is not None and self.may(path) else None


@dataclass(frozen=True)
class OptionSaid:
    """One answer of a choice."""

    value: str
    label: str


def options_said(options: Mapping[str, str]) -> list[OptionSaid]:
    """The answers of a choice."""
    return [OptionSaid(value, label) for value, label in options.items()]

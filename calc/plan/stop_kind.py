"""What the list of stops says of each: the one record that everything which is done to every stop reads."""

from __future__ import annotations

from collections.abc import Callable, Iterable, Mapping
from dataclasses import dataclass, field
from typing import Any

from calc.plan.outcome import Figures, Solved
from calc.plan.stop import Panel, Stop, Table
from calc.plan.view import View
from calc.quantities import Figure, Rounding
from calc.scene.shapes import Layer, Scene, Standing


@dataclass(frozen=True)
class Headline:
    """A figure that the bench and the history tell of a plan: what it is called, its unit, and where it comes from."""

    name: str
    label: str
    unit: str
    rounding: Rounding
    value: Callable[[Figures], float | None]


@dataclass(frozen=True)
class Carried:
    """A figure that a setter carries to the machine, None while it is not known."""

    name: str
    label: str
    figure: Figure | None
    place: int  # in the order it is read out
    both: bool = False  # told in the other system too


def _nothing(*_: Any) -> tuple[Any, ...]:
    return ()


def _as_shown(_: View, stop: Stop) -> Stop:
    return stop


@dataclass(frozen=True)
class StopKind:
    """A stop: what it is called, what it solves, and what it shows.

    `title` stands in the rail, `heading` over its facts. `figures` are what it solves, in order; `per_side`:
    there is one for each set-up. `show` gives what the bench and the rail need; `more` adds what only the open
    screen does: helps, comparisons, pictures. `layers` are what it brings to the section, `views` its own pictures;
    `checks` are solved only when asked for; `panels` are what a screen offers beside it.
    """

    name: str
    title: str
    heading: str
    show: Callable[[View], Stop]
    figures: tuple[Solved[Any], ...] = ()
    per_side: bool = True
    more: Callable[[View, Stop], Stop] = _as_shown
    layers: Callable[[View, Standing], Iterable[Layer]] = _nothing
    views: Callable[[View], Iterable[Scene]] = _nothing
    headlines: tuple[Headline, ...] = ()
    carries: Callable[[View], Iterable[Carried]] = _nothing
    checks: Mapping[str, Callable[[View], Table | None]] = field(default_factory=dict)
    panels: tuple[Panel, ...] = ()
    says_why: bool = False  # its line says by itself what stops it

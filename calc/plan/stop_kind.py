"""What the list of stops says of each: the one record that everything which is done to every stop reads."""

from __future__ import annotations

from collections.abc import Callable, Iterable
from dataclasses import dataclass
from typing import Any

from calc.plan.pictures import ForceChart
from calc.plan.stop import Help, Panel, Stop, Table
from calc.plan.view import View
from calc.programs.jaw_boring import JawProgram
from calc.quantities import Figure, Rounding, Sentence
from calc.scene.shapes import Layer, Scene, Standing


@dataclass(frozen=True)
class Headline:
    """A figure of a plan in little: what it is called, its unit, and where it comes from.

    `place`: its column on the bench, which shows it of every side; `told`: the history says where it moved, of the last
    side, on which the part is finished.
    """

    name: str
    label: str
    unit: str
    rounding: Rounding
    value: Callable[[View], float | None]
    place: int | None = None
    told: bool = True


@dataclass(frozen=True)
class Carried:
    """A figure that a setter carries to the machine, None while it is not known."""

    name: str
    label: str
    figure: Figure | None
    place: int  # in the order it is read out
    both: bool = False  # told in the other system too
    warning: Sentence | None = None  # what is wrong with it


@dataclass(frozen=True)
class Drawing:
    """A picture that a set-up can be shown by, drawn when it is looked at; `stops`: where it is offered.

    `first`: it is what such a stop opens with, before the section.
    """

    name: str
    title: str
    stops: tuple[str, ...]
    draw: Callable[[], Scene | ForceChart]
    first: bool = False


@dataclass(frozen=True)
class Check:
    """What is solved for a stop only when it is asked for: whether there is anything to solve, and the answer."""

    name: str
    is_there: Callable[[View], bool]
    solve: Callable[[View], Table | None]


def _nothing(*_: Any) -> tuple[Any, ...]:
    return ()


@dataclass(frozen=True, eq=False)
class StopKind:
    """A stop: what it is called, what it solves, and what it shows.

    `title` stands in the rail, `heading` over its facts; `per_side`: there is one for each set-up. `show` gives what
    the bench, the rail and the open stop need; it reads nothing but its view, and is kept while that reads the same.
    What it has below its facts comes when it is looked at: `helps`, `tables`. `layers` are what it
    brings to the section, `drawings` its own pictures; `checks` are solved only when asked for; `program` is what it
    writes for the control; `panels` are what a screen offers beside it.
    """

    name: str
    title: str
    heading: str
    show: Callable[[View], Stop]
    per_side: bool = True
    after_sides: bool = False  # of the whole part, and of all its sides: it stands behind them
    helps: Callable[[View], Iterable[Help]] = _nothing
    tables: Callable[[View], Iterable[Table]] = _nothing
    layers: Callable[[View, Standing], Iterable[Layer]] = _nothing
    drawings: Callable[[View], Iterable[Drawing]] = _nothing
    headlines: tuple[Headline, ...] = ()
    carries: Callable[[View], Iterable[Carried]] = _nothing
    checks: tuple[Check, ...] = ()
    program: Callable[[View, Stop], JawProgram | None] | None = None
    panels: tuple[Panel, ...] = ()
    says_why: bool = False  # its line says by itself what stops it

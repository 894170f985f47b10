"""A reading at the machine: what is entered, what is expected, and what follows from it."""

from __future__ import annotations

from abc import ABC, abstractmethod
from collections.abc import Mapping
from dataclasses import dataclass
from typing import Any, ClassVar, Literal

from calc.errors import CalcError, FieldError
from calc.fields import Checked, Quantity, fields_of
from calc.quantities import Figure, Sentence, System
from calc.reading import read
from calc.terms import Side
from calc.tools.finish import finish_learnt
from calc.working import Step
from calc.written import parse

Level = Literal["good", "do", "stop"]  # go on; do something first; do not go on
Instrument = Literal["", "size", "indicator", "coolant", "gauge"]


@dataclass(frozen=True)
class Trial:
    """A fact of the plan that was found otherwise: the plan is computed with it, beside itself."""

    path: str
    value: Any


@dataclass(frozen=True)
class Teaches:
    """A figure that the shelf has better from now on: of which kind of item, its key, the field, the value.

    `material`: the key of the one that it holds for, where the item has one for each.
    """

    kind: str
    key: str
    field: str
    value: float
    material: str = ""

    def better(self, now: Any) -> Any:
        """What the field holds then, of what it holds now."""
        return finish_learnt(now, self.material, self.value) if self.material else self.value


@dataclass(frozen=True)
class Gauged:
    """One reading of the grip at rest, as it is kept with the chuck: the condition that counts, the grip [N] of all
    jaws, at a pressure [bar] and a height above the guide [mm]; `jaw`: mass [kg] and centre [mm] of a top jaw.
    """

    condition: float
    grip_n: float
    pressure_bar: float
    height_mm: float
    side: Side
    jaw: tuple[float, float] | None = None


@dataclass(frozen=True)
class Told:
    """What follows from a reading: the answer in large figures with its label, words, and how to go on.

    `measured` and `predicted` [core unit] are kept side by side for ever; `trial`: the plan is computed with it;
    `teaches`: what the shelf has better then; `gauged`: what is kept with the chuck.
    """

    label: str
    answer: Figure | Sentence
    words: tuple[Sentence, ...]
    level: Level = "good"
    prefix: str = ""
    measured: float | None = None
    predicted: float | None = None
    steps: tuple[Step, ...] = ()
    trial: Trial | None = None
    teaches: Teaches | None = None
    gauged: Gauged | None = None
    passes: bool = True  # what was measured is as the print asks
    done: bool = True  # the step is done with it; else it is read again


@dataclass(frozen=True, kw_only=True)
class Ask(ABC):
    """A reading that a step asks for. `of`: the size, tool or side that it is of, as a step names it.

    Beside what its side is made up with it is kept against the boring ring and the tool that it tells of, by key.
    """

    kind: ClassVar[str]
    title: ClassVar[str]
    entry: ClassVar[type[Checked]]  # what is entered, the reading itself first
    instrument: ClassVar[Instrument] = ""
    presets: ClassVar[tuple[float, ...]] = ()  # of the reading itself, offered as buttons
    of: str = ""
    ring_key: str = ""
    tool_key: str = ""  # as a plan names it: of the edge, and of what carries it

    @property
    def defaults(self) -> Mapping[str, Any]:
        """What counts for this step where nothing is entered, by name; the entry's own defaults stand behind it."""
        return {}

    @property
    def expected(self) -> Sentence | None:
        """What is expected, in words; None where nothing is."""
        return None

    @abstractmethod
    def told(self, entered: Any) -> Told:
        """What follows from an entry. Raises CalcError at its fields."""

    def far(self, entered: Any) -> Sentence | None:
        """Why a reading looks wrong, far off what was expected; None where it does not."""
        del entered
        return None

    def read(self, given: Mapping[str, Any], system: System = "metric") -> Checked:
        """The entry from what was typed or sent; a bare number is in the unit shown. Raises CalcError at its fields."""
        values: dict[str, Any] = dict(self.defaults)
        problems: list[FieldError] = []
        specs = {f.name: f.spec for f in fields_of(self.entry)}
        for name, value in given.items():
            spec = specs.get(name)
            if isinstance(value, str) and isinstance(spec, Quantity):
                if not value.strip():
                    continue
                try:
                    value = parse(value, spec.unit, system, name)  # noqa: PLW2901 # what was typed, as a value
                except CalcError as error:
                    problems += error.errors
                    continue
            values[name] = value
        if problems:
            raise CalcError(problems)
        found: Checked = read(self.entry, values)
        return found


def times_off(measured: float, predicted: float, factor: float, least: float) -> bool:
    """A reading is more than `factor` times what was predicted, or less than that part of it; differences of `least`
    and below are none.

    >>> times_off(0.05, 0.03, 3, 0.02), times_off(0.2, 0.03, 3, 0.02)
    (False, True)
    """
    if abs(measured - predicted) <= least:
        return False
    low, high = sorted((abs(measured), abs(predicted)))
    return high > factor * max(low, 1e-12) or measured * predicted < 0

"""How a result explains itself: steps that are computed from the very text they show, and notes.

A step's formula is a Python expression in the symbols of the trade. `Working.step` evaluates that
text, so formula, figures put in and value cannot drift apart. The screens dress it (·, ², √).
"""

from __future__ import annotations

import math
import re
from abc import ABC, abstractmethod
from collections.abc import Callable, Mapping
from dataclasses import dataclass
from typing import TYPE_CHECKING, Any, Generic, Literal, NamedTuple, TypeVar

from calc.quantities import Bare, Figure, Sentence

if TYPE_CHECKING:
    from calc.many import Array

Level = Literal["info", "caution", "stop"]
Basis = Literal["entered", "measured", "standard", "derived", "typical", "book"]

FUNCTIONS: dict[str, Any] = {
    name: getattr(math, name)
    for name in ("sqrt", "hypot", "sin", "cos", "tan", "asin", "acos", "atan", "radians", "ceil", "pi")
} | {"min": min, "max": max, "abs": abs}

_NAME = re.compile(r"[^\W\d]\w*")


@dataclass(frozen=True, slots=True)
class Source:
    """Where a figure comes from: `basis` is the kind, `text` tells kind and place, `place` the place alone."""

    basis: Basis
    text: str
    place: str = ""


ENTERED = Source("entered", "entered")
BOOK = Source("book", "the shop's data for this item")


def derived(where: str) -> Source:
    """Derived in docs/method.md under the heading `where`."""
    return Source("derived", f"derived: method, {where}", where)


def typical(where: str) -> Source:
    """A typical value or rule of thumb, to be replaced by the shop's own."""
    return Source("typical", f"typical: {where}", where)


def names_in(formula: str) -> list[str]:
    """The names in a formula, in their order."""
    return [found[0] for found in _NAME.finditer(formula) if not formula[: found.start()].endswith(tuple("0123456789"))]


_PIECES: dict[str, list[str]] = {}


def _split(formula: str) -> list[str]:
    """A formula cut at its names."""
    pieces: list[str] = []
    at = 0
    for found in _NAME.finditer(formula):
        pieces += [formula[at : found.start()], found[0]]
        at = found.end()
    _PIECES[formula] = [*pieces, formula[at:]]
    return _PIECES[formula]


class Step(NamedTuple):
    """One line of working. A tuple, because hundreds are made for every key that is pressed."""

    symbol: str
    label: str
    formula: str
    values: dict[str, float]
    value: float
    unit: str
    source: Source

    @property
    def substituted(self) -> str:
        """The formula with its figures put in; figures to seven digits."""

        pieces = _PIECES.get(self.formula) or _split(self.formula)
        return "".join([self._put(piece) for piece in pieces])

    def _put(self, piece: str) -> str:
        value = self.values.get(piece)
        if value is None:
            return piece
        text = f"{value:.7g}"
        return f"({text})" if text[0] == "-" else text

    def as_dict(self) -> dict[str, Any]:
        """The step as plain data."""
        return {
            "symbol": self.symbol,
            "label": self.label,
            "formula": self.formula,
            "substituted": self.substituted,
            "value": self.value,
            "unit": self.unit,
            "source": self.source.text,
            "basis": self.source.basis,
        }


class Note:
    """Something to be said about a result. `code` is stable, `sentence` is for people."""

    __slots__ = ("code", "level", "sentence")

    def __init__(self, level: Level, code: str, text: str, **figures: Figure | Bare | Sentence | str) -> None:
        self.level: Level = level
        self.code = code
        self.sentence = Sentence(text, **figures)

    @property
    def text(self) -> str:
        """The sentence in metric words."""
        return str(self.sentence)

    def named(self, name: str) -> Note:
        """The same, with what it is said of before it."""
        return Note(self.level, self.code, "{name}: {said}", name=name, said=self.sentence)

    def as_dict(self) -> dict[str, str]:
        """The note as plain data."""
        return {"level": self.level, "code": self.code, "text": self.text}


_COMPILED: dict[str, Callable[..., float]] = {}

N = TypeVar("N", float, "Array")


def compiled(formula: str, names: tuple[str, ...], functions: Mapping[str, Any]) -> Callable[..., Any]:
    """A formula's text as a function of its symbols, with these functions in it."""
    # Formulas are literals of this package, never input, so evaluating them is safe.
    return eval(f"lambda {', '.join(names)}: {formula}", dict(functions))  # type: ignore[no-any-return] # noqa: S307


def _compile(formula: str, names: tuple[str, ...]) -> Callable[..., float]:
    made: Callable[..., float] = compiled(formula, names, FUNCTIONS)
    _COMPILED[formula] = made
    return made


def _beyond(label: str) -> Exception:
    from calc.errors import FieldProblem

    return FieldProblem("", f"{label} cannot be computed from these figures: they are too far apart. Check them.")


class Steps(ABC, Generic[N]):
    """Evaluates formulas: for one value, with a step for each (`Working`), or for arrays at once (`calc.many.Many`).

    A formula that both need is written once, in a function of one of these.
    """

    @abstractmethod
    def step(self, symbol: str, label: str, formula: str, unit: str, source: Source, /, **values: Any) -> N:
        """The value of `formula` with `values`."""

    @abstractmethod
    def case(self, holds: Any, yes: Callable[[], N], no: Callable[[], N]) -> N:
        """What `yes` gives where it holds, what `no` gives elsewhere."""

    @abstractmethod
    def most(self, values: N) -> float:
        """The largest of the values."""


class Working(Steps[float]):
    """Collects the steps and notes of one result."""

    def __init__(self) -> None:
        self.steps: list[Step] = []
        self.notes: list[Note] = []

    def step(self, symbol: str, label: str, formula: str, unit: str, source: Source, /, **values: float) -> float:
        """Evaluate `formula` with `values`, keep it as a step and give its value.

        Raises CalcError beyond all numbers.
        """
        function = _COMPILED.get(formula) or _compile(formula, tuple(values))
        try:
            value = float(function(**values))
        except (ZeroDivisionError, OverflowError):
            value = math.inf
        if value - value != 0:  # infinite, or no number: figures within their ranges can still be too far apart
            raise _beyond(label)
        self.steps.append(Step(symbol, label, formula, values, value, unit, source))
        return value

    def case(self, holds: Any, yes: Callable[[], float], no: Callable[[], float]) -> float:
        return yes() if holds else no()

    def most(self, values: float) -> float:
        return values

    def note(self, level: Level, code: str, text: str, **figures: Figure | Bare | Sentence | str) -> None:
        """Add a note."""
        self.notes.append(Note(level, code, text, **figures))

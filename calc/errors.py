"""What the core says when it cannot answer: errors that carry the field and a sentence that helps."""

from __future__ import annotations

from collections.abc import Iterable
from dataclasses import dataclass

from calc.quantities import Figure, Sentence


@dataclass(frozen=True, slots=True)
class FieldError:
    """One field and what to do about it. `field` is a dotted name, "" for the whole input."""

    field: str
    sentence: Sentence

    @property
    def message(self) -> str:
        """The sentence in metric words."""
        return str(self.sentence)


class CalcError(Exception):
    """An input the core cannot answer; `errors` lists every field concerned."""

    def __init__(self, errors: Iterable[FieldError]) -> None:
        self.errors = tuple(errors)
        super().__init__("; ".join(f"{e.field}: {e.message}" for e in self.errors))

    def renamed(self, names: dict[str, str]) -> CalcError:
        """The same errors under other field names; names not in the table stay."""
        return CalcError(FieldError(names.get(e.field, e.field), e.sentence) for e in self.errors)


class FieldProblem(CalcError):
    """One field with one sentence."""

    def __init__(self, field: str, sentence: Sentence | str) -> None:
        said = sentence if isinstance(sentence, Sentence) else Sentence(sentence)
        super().__init__([FieldError(field, said)])


@dataclass(frozen=True)
class Bounds:
    """What a value must lie between, None where an end is open; `low_open`: the least itself is not allowed."""

    low: float | None
    high: float | None
    unit: str
    label: str = ""
    low_open: bool = False


class OutOfRange(FieldProblem):
    """A value outside its declared range: `value`, `low` and `high` in `unit`."""

    def __init__(self, field: str, value: float, within: Bounds) -> None:
        low, high, unit, low_open = within.low, within.high, within.unit, within.low_open
        self.field, self.value, self.low, self.high, self.unit = field, value, low, high, unit
        name = within.label or field
        given = Figure(value, unit, exact=True)
        bounds: dict[str, Figure | str] = {"given": given, "name": name}
        if low is not None and high is not None:
            words = "above {low} and up to {high}" if low_open else "from {low} to {high}"
        elif low is not None:
            words = "above {low}" if low_open else "{low} or more"
        else:
            words = "{high} or less"
        if low is not None:
            bounds["low"] = Figure(low, unit, "up", exact=True)
        if high is not None:
            bounds["high"] = Figure(high, unit, "down", exact=True)
        super().__init__(field, Sentence("{name} is {given}; give a figure " + words + ".", **bounds))


class Unreadable(FieldProblem):
    """Text that is not a quantity, or can be read two ways."""

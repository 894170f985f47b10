"""What every result carries, how its figures are declared and printed, and how it becomes plain data.

A figure of a result is declared as an input is: `Annotated[float, Found("Static grip", "N", "down")]`. The one
declaration prints it, with label and unit and rounded to its safe side, on the command line, over HTTP and on
the screen.
"""

from __future__ import annotations

import dataclasses
import typing
from collections.abc import Iterator, Mapping
from dataclasses import dataclass, field
from typing import Any, NamedTuple, Protocol, runtime_checkable

from calc.quantities import Figure, Rounding, Sentence, System, shown_as
from calc.working import Note, Step


@dataclass(frozen=True)
class Found:
    """A figure or word of a result: label, core unit, safe side of rounding, what each word means.

    `points` marks a list drawn as a curve: it is told by how many there are. A group without a label puts nothing
    before the labels within it.
    """

    label: str
    unit: str = ""
    safe: Rounding = "near"
    places: tuple[int, int] | None = None
    options: Mapping[str, str] = field(default_factory=dict)
    points: bool = False


@runtime_checkable
class InOneLine(Protocol):
    """An item of a list that is read in one line: what it is called, and what it says."""

    @property
    def called(self) -> str: ...

    @property
    def told(self) -> str: ...


class Answer(NamedTuple):
    """A figure of a result as it is printed: its path, what it is called, the unit shown, the text with its unit."""

    name: str
    label: str
    unit: str
    text: str


@dataclass(frozen=True, slots=True, kw_only=True)
class Explained:
    """Base of results: the steps that made the figures, what must be said about them, and what they were made from."""

    working: tuple[Step, ...] = ()
    notes: tuple[Note, ...] = ()
    given: Any = field(default=None, compare=False, repr=False)

    def step(self, symbol: str) -> Step:
        """The step with this symbol. Raises KeyError."""
        for step in self.working:
            if step.symbol == symbol:
                return step
        raise KeyError(symbol)


_FOUND: dict[type[Any], dict[str, Found]] = {}


def found_of(kind: type[Any]) -> dict[str, Found]:
    """The declaration of every figure of a result, by name. Raises TypeError where one has none."""
    if kind not in _FOUND:
        _FOUND[kind] = _declared(kind)
    return _FOUND[kind]


def _declared(kind: type[Any]) -> dict[str, Found]:
    hints = typing.get_type_hints(kind, include_extras=True)
    rows = {}
    for one in dataclasses.fields(kind):
        if one.name in ("working", "notes", "given"):
            continue
        declared = [e for e in getattr(hints[one.name], "__metadata__", ()) if isinstance(e, Found)]
        if not declared:
            raise TypeError(f"{kind.__name__}.{one.name} has no declaration")
        rows[one.name] = declared[0]
    return rows


def answers(result: Any, system: System = "metric") -> list[Answer]:
    """Every figure of a result as it is printed, in the order of its declaration."""
    return list(_answers(result, system, "", ""))


def _answers(result: Any, system: System, path: str, group: str) -> Iterator[Answer]:
    for name, found in found_of(type(result)).items():
        value, at, label = getattr(result, name), f"{path}{name}", f"{group}{found.label}"
        if dataclasses.is_dataclass(value) and not isinstance(value, Sentence):
            yield from _answers(value, system, f"{at}.", f"{label}: " if found.label else group)
        elif _is_list_of_results(value) and not found.points:
            for index, item in enumerate(value):
                if isinstance(item, InOneLine):
                    yield Answer(f"{at}.{index}", item.called, "", item.told)
                    continue
                called = getattr(item, "name", "") or str(index + 1)
                yield from _answers(item, system, f"{at}.{index}.", f"{called}: ")
        elif isinstance(value, dict):
            for key, one in value.items():
                yield Answer(f"{at}.{key}", key, shown_as(found.unit, system).unit, _text(one, found, system))
        else:
            unit = shown_as(found.unit, system).unit
            yield Answer(at, label, unit, _text(value, found, system))


def _is_list_of_results(value: Any) -> bool:
    return (
        isinstance(value, tuple)
        and bool(value)
        and dataclasses.is_dataclass(value[0])
        and not isinstance(value[0], Sentence)
    )


def _text(value: Any, found: Found, system: System) -> str:
    match value:
        case None:
            return "none"
        case bool():
            return "yes" if value else "no"
        case str():
            return found.options.get(value, value) or "none"
        case Sentence():
            return value.text(system)
        case tuple() if found.points:
            return f"{len(value)} points"
        case tuple():
            return ", ".join(_text(v, found, system) for v in value) or "none"
    return Figure(value, found.unit, found.safe, found.places).text(system)


def as_plain(value: Any) -> Any:
    """A result as JSON-ready data."""
    if isinstance(value, (Step, Note)):
        return value.as_dict()
    if isinstance(value, Sentence):
        return str(value)
    if dataclasses.is_dataclass(value) and not isinstance(value, type):
        names = (f.name for f in dataclasses.fields(value) if f.name != "given")
        return {name: as_plain(getattr(value, name)) for name in names}
    if isinstance(value, (tuple, list)):
        return [as_plain(v) for v in value]
    if isinstance(value, dict):
        return {k: as_plain(v) for k, v in value.items()}
    return value

"""What tells a step, a side, a cut or any other list item of a plan from every other: its id.

An id is short, unique in the plan, never all digits (a number in a path is a place, and places change), and never
given twice: it is made from the key of the edit that put the item in.
"""

from __future__ import annotations

import dataclasses
import hashlib
from collections.abc import Iterable, Iterator
from typing import Annotated, Any, TypeVar
from uuid import UUID

from calc.fields import Text, fields_of

Identity = Annotated[str, Text("Identity", "Tells it from every other of the plan", most=12)]
_LETTERS = "abcdefghjkmnpqrstvwxyz"
_SIGNS = _LETTERS + "0123456789"
LENGTH = 7
T = TypeVar("T")


def identity(key: UUID, taken: Iterable[str] = (), count: int = 0) -> str:
    """The id of the item that the edit with this key puts in; `count` tells several of one edit apart.

    >>> one = identity(UUID(int=7))
    >>> one == identity(UUID(int=7)), one == identity(UUID(int=7), count=1), one.isdigit(), len(one)
    (True, False, False, 7)
    """
    known = set(taken)
    while True:
        mark = int.from_bytes(hashlib.sha256(key.bytes + count.to_bytes(4, "big")).digest()[:16], "big")
        mark, first = divmod(mark, len(_LETTERS))
        made = _LETTERS[first]
        for _ in range(LENGTH - 1):
            mark, sign = divmod(mark, len(_SIGNS))
            made += _SIGNS[sign]
        if made not in known:
            return made
        count += 1_000  # far from the counts of the same edit


class Identities:
    """Gives ids for one edit, each once."""

    def __init__(self, key: UUID, taken: Iterable[str]) -> None:
        self._key, self._given, self._count = key, taken, 0
        self._taken: set[str] | None = None  # looked through when the first id is asked for: few edits need one

    def new(self) -> str:
        """The next id of this edit."""
        if self._taken is None:
            self._taken = set(self._given)
        made = identity(self._key, self._taken, self._count)
        self._taken.add(made)
        self._count += 1
        return made


def ids_in(plain: Any) -> Iterator[str]:
    """Every id in plain data, from the outside inward."""
    if isinstance(plain, dict):
        if plain.get("id"):
            yield str(plain["id"])
        for value in plain.values():
            yield from ids_in(value)
    elif isinstance(plain, (list, tuple)):
        for item in plain:
            yield from ids_in(item)


def ids_of(value: Any) -> Iterator[str]:
    """Every id in a declared value, "" where an item has none yet."""
    if isinstance(value, tuple):
        for item in value:
            yield from ids_of(item)
    elif dataclasses.is_dataclass(value) and not isinstance(value, type):
        if hasattr(value, "id"):
            yield value.id
        for name in _nested(type(value)):
            yield from ids_of(getattr(value, name))


_NESTED: dict[type[Any], tuple[str, ...]] = {}


def _nested(kind: type[Any]) -> tuple[str, ...]:
    if kind not in _NESTED:
        _NESTED[kind] = tuple(f.name for f in fields_of(kind) if f.nested is not None)
    return _NESTED[kind]


def identified(value: T, taken: Iterable[str] = ()) -> T:
    """The value with a name of its place, such as "c1", as the id of every item that has none.

    For what is made at once and edited afterwards: a new run, the demo, a file from before there were ids.
    """
    known = {*taken, *(i for i in ids_of(value) if i)}
    return _identified(value, "", known)  # type: ignore[no-any-return]


def _identified(value: Any, stem: str, known: set[str]) -> Any:
    if isinstance(value, tuple):
        return tuple(_identified(item, stem, known) for item in value)
    if not dataclasses.is_dataclass(value) or isinstance(value, type):
        return value
    changed: dict[str, Any] = {}
    if getattr(value, "id", None) == "":
        changed["id"] = next(i for n in range(1, 10_000) if (i := f"{stem}{n}") not in known)
        known.add(changed["id"])
    for name in _nested(type(value)):
        before = getattr(value, name)
        after = _identified(before, STEMS.get(name, name[:1]), known)
        if after is not before and after != before:
            changed[name] = after
    return dataclasses.replace(value, **changed) if changed else value


STEMS = {"outside": "o", "inside": "i", "inside_b": "b", "setups": "s", "cuts": "c", "departures": "d"}

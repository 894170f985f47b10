"""Dotted paths into a plan document: a list item is named by its id, "setups.k3f9a2b.cuts.m1d84xw.depth_mm"."""

from __future__ import annotations

import dataclasses
from collections.abc import Callable, Sequence
from typing import Any

from calc.plan.document import Document


def parts_of(path: str) -> list[str]:
    """A dotted path as its names and ids."""
    return path.split(".")


def place_of(items: Sequence[Any], key: str) -> int:
    """Where the item with this id stands in a list, plain or declared. Raises KeyError."""
    for place, item in enumerate(items):
        if key and (item.get("id") if isinstance(item, dict) else getattr(item, "id", None)) == key:
            return place
    raise KeyError(key)


def _step(here: Any, key: str) -> Any:
    if isinstance(here, dict):
        return here[key]
    if isinstance(here, (list, tuple)):
        return here[place_of(here, key)]
    raise KeyError(key)


def value_at(document: Any, path: str) -> Any:
    """The plain value at a dotted path. Raises KeyError when there is no such fact."""
    here = document
    for part in parts_of(path):
        try:
            here = _step(here, part)
        except KeyError as error:
            raise KeyError(path) from error
    return here


def _changed(here: Any, keys: list[str], change: Callable[[Any], Any]) -> Any:
    """What is here, changed at the end of the way down; what is not on it is shared."""
    if not keys:
        return change(here)
    key, *rest = keys
    if isinstance(here, tuple):
        at = place_of(here, key)
        return (*here[:at], _changed(here[at], rest, change), *here[at + 1 :])
    return dataclasses.replace(here, **{key: _changed(getattr(here, key), rest, change)})


def replaced(document: Document, path: str, value: Any) -> Document:
    """The document with one fact changed. Raises CalcError, KeyError."""
    return _changed(document, parts_of(path), lambda _: value)  # type: ignore[no-any-return]


def without(document: Document, path: str) -> Document:
    """The document with the item of a list taken out. Raises CalcError, KeyError."""
    *way, item = parts_of(path)

    def rest(items: tuple[Any, ...]) -> tuple[Any, ...]:
        gone = place_of(items, item)
        return (*items[:gone], *items[gone + 1 :])

    return _changed(document, way, rest)  # type: ignore[no-any-return]


def with_value(document: Any, path: str, value: Any) -> Any:
    """A copy of plain data with the value at a dotted path replaced. Raises KeyError."""
    value_at(document, path)

    def put(here: Any, keys: list[str]) -> Any:
        if not keys:
            return value
        key, *rest = keys
        copy: Any = dict(here) if isinstance(here, dict) else list(here)
        at: Any = key if isinstance(here, dict) else place_of(here, key)
        copy[at] = put(here[at], rest)
        return copy

    return put(document, parts_of(path))

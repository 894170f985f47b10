"""Dotted paths into a plan document: reading and replacing one fact."""

from __future__ import annotations

import re
from dataclasses import replace
from typing import Any

from calc.plan.document import Document

# One way only to write an index, so that a fact has one path.
_INDEX = re.compile("0|[1-9][0-9]{0,3}", re.ASCII)


def parts_of(path: str) -> list[str | int]:
    """A dotted path as keys and list indices."""
    return [int(p) if _INDEX.fullmatch(p) else p for p in path.split(".")]


def value_at(document: Any, path: str) -> Any:
    """The plain value at a dotted path. Raises KeyError when there is no such fact."""
    here = document
    for part in parts_of(path):
        try:
            here = here[part]
        except (KeyError, IndexError, TypeError) as error:
            raise KeyError(path) from error
    return here


def replaced(document: Document, path: str, value: Any) -> Document:
    """The document with one fact changed; what is not on the way to it is shared. Raises CalcError."""

    def put(here: Any, keys: list[str | int]) -> Any:
        if not keys:
            return value
        key, *rest = keys
        if isinstance(key, int):
            return (*here[:key], put(here[key], rest), *here[key + 1 :])
        return replace(here, **{key: put(getattr(here, key), rest)})

    return put(document, parts_of(path))  # type: ignore[no-any-return]


def with_value(document: Any, path: str, value: Any) -> Any:
    """A copy of plain data with the value at a dotted path replaced. Raises KeyError."""
    value_at(document, path)

    def put(here: Any, keys: list[str | int]) -> Any:
        if not keys:
            return value
        copy: Any = dict(here) if isinstance(here, dict) else list(here)
        copy[keys[0]] = put(here[keys[0]], keys[1:])
        return copy

    return put(document, parts_of(path))

"""What a kind of question is: what it rests on, how it is answered, and how long that may take."""

from __future__ import annotations

from collections.abc import Callable, Mapping
from dataclasses import dataclass
from functools import cache
from typing import Any

from django.conf import settings
from django.utils.module_loading import import_string
from pydantic import BaseModel

Arguments = Mapping[str, Any]
Tell = Callable[[int, int], None]  # how far it has come: this many, of that many


def _unheard(_: int, __: int) -> None:
    """Nobody listens how far it has come."""


@dataclass(frozen=True)
class Found:
    """An answer as it is sent, and what taking it needs beside that."""

    answer: BaseModel
    kept: Any = None


@dataclass(frozen=True)
class QuestionKind:
    """A kind of question that takes long.

    `basis` tells what it rests on now: a question whose basis has changed is dropped. `find` answers it, telling how
    far it has come, and raises what a light question would: its problem is then the answer. `slot` names what it is
    about; a newer question of the same person about the same replaces it. `seconds`: it is ended after these.
    `computes`: it is answered by a process that computes, else by one that mostly waits; of those that wait the ones
    of the higher `rank` come first.
    """

    name: str
    answer: type[BaseModel]
    basis: Callable[[Arguments], str]
    find: Callable[[Arguments, Any, Tell], Found]
    slot: Callable[[Arguments], str]
    seconds: float
    computes: bool = True
    rank: int = 0


@cache
def _kinds() -> dict[str, QuestionKind]:
    return {kind.name: kind for kind in import_string(settings.QUESTION_KINDS)}


def kind_of(name: str) -> QuestionKind:
    """The kind of a name. Raises KeyError."""
    return _kinds()[name]


def every_kind() -> tuple[QuestionKind, ...]:
    """All kinds of questions."""
    return tuple(_kinds().values())

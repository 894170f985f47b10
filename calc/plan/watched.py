"""What is found from a plan is kept by what was read to find it: while all of that reads the same, it stands.

A plan is read through `Watched`, which tells every fact it is asked for. Finding the same again walks the facts in the
order in which they were read: a function that is given the same facts reads the same next one. Nobody names by hand
what a figure rests on, and no fact that was read can be forgotten.
"""

from __future__ import annotations

from collections.abc import Callable, Hashable, Iterator, Mapping
from dataclasses import dataclass, field
from types import FunctionType, MethodType
from typing import Any, Generic, TypeVar

from calc.plan.document import Document, Setup
from calc.plan.force.inputs import Force
from calc.plan.hold.inputs import Hold
from calc.plan.jaws.inputs import Jaws
from calc.plan.part.inputs import Part
from calc.plan.route.inputs import Route
from calc.plan.sides.inputs import Sides
from calc.shelf.taken import SetupShelf, Shelf

# Looked into fact by fact. Anything else is read whole: a profile, the cuts of a side, a chuck.
SECTIONS = frozenset({Document, Setup, Part, Hold, Jaws, Force, Sides, Route, Shelf, SetupShelf})

T = TypeVar("T")
Read = tuple[Any, ...]  # what it is read from, then the way there
Tell = Callable[[Read, Any], None]


class Watched:
    """A section of a plan that tells which of its facts are read. It stands for no value: not equal, not replaced."""

    __slots__ = ("_at", "_of", "_tell")
    __hash__ = None  # type: ignore[assignment]

    def __init__(self, of: Any, at: Read, tell: Tell) -> None:
        self._of, self._at, self._tell = of, at, tell

    def __getattr__(self, name: str) -> Any:
        declared = getattr(type(self._of), name, None)
        # What a section works out from its facts reads them through here; what it keeps of them is read as it is.
        if isinstance(declared, property):
            assert declared.fget is not None
            return declared.fget(self)
        if isinstance(declared, FunctionType):
            return MethodType(declared, self)
        return _seen(getattr(self._of, name), (*self._at, name), self._tell)

    def __eq__(self, other: object) -> bool:
        raise TypeError("A section that is watched is compared fact by fact.")


class _WatchedSetups:
    """The set-ups of a document or a shelf."""

    __slots__ = ("_at", "_of", "_tell")

    def __init__(self, of: tuple[Any, ...], at: Read, tell: Tell) -> None:
        self._of, self._at, self._tell = of, at, tell

    def __len__(self) -> int:
        self._tell((*self._at, len), len(self._of))
        return len(self._of)

    def __getitem__(self, place: int) -> Any:
        return _seen(self._of[place], (*self._at, place % len(self._of)), self._tell)

    def __iter__(self) -> Iterator[Any]:
        return iter([self[place] for place in range(len(self))])


def _seen(value: Any, at: Read, tell: Tell) -> Any:
    if type(value) in SECTIONS:
        return Watched(value, at, tell)
    if type(value) is tuple and value and type(value[0]) in SECTIONS:
        return _WatchedSetups(value, at, tell)
    tell(at, value)
    return value


def watched(of: T, root: Hashable, tell: Tell) -> T:
    """The value seen through `Watched`; every fact read of it is told as (root, name …)."""
    return Watched(of, (root,), tell)  # type: ignore[return-value] # it answers as the value does


def whole(of: T) -> T:
    """The value itself of a section, which is then read whole; anything else as it is."""
    if not isinstance(of, Watched):
        return of
    of._tell(of._at, of._of)
    return of._of  # type: ignore[no-any-return]


def again(of: Any, read: Read) -> Any:
    """The fact of another value that was read so. Raises AttributeError, IndexError where it has none."""
    for step in read[1:]:
        of = of[step] if type(step) is int else len(of) if step is len else getattr(of, step)
    return of


def _key(value: Any) -> Hashable:
    return tuple(value.items()) if type(value) is dict else value


@dataclass(slots=True, eq=False)
class _Place:
    """Where finding has come to: what is read next, and where each of its values leads; at the end what is found."""

    read: Read | None = None
    leads: dict[Hashable, _Place] = field(default_factory=dict)
    found: Any = None
    is_end: bool = False


class Kept(Generic[T]):
    """What a function found, for as many plans as `most`, by what it read of each.

    The function must read by nothing but what it is given and what it has read: no clock, no chance.
    """

    def __init__(self, most: int) -> None:
        self.most = most
        self.misses = 0
        self._start = _Place()
        self._count = 0

    def get(self, read: Callable[[Read], Any], find: Callable[[Tell], T]) -> T:
        """What was found where everything reads the same, else what `find` finds now.

        `read` gives a fact of the plan asked for; `find` is told how to tell what it reads.
        """
        place: _Place | None = self._start
        while place is not None and not place.is_end:
            place = None if place.read is None else place.leads.get(_key(read(place.read)))
        if place is not None:
            return place.found  # type: ignore[no-any-return]
        reads: dict[Read, Any] = {}
        found = find(lambda at, value: None if at in reads else reads.__setitem__(at, value))
        self._keep(reads, found)
        return found

    def _keep(self, reads: Mapping[Read, Any], found: T) -> None:
        self.misses += 1
        if self._count >= self.most:  # all at once: what is still asked for is found anew in no time
            self._start, self._count = _Place(), 0
        place = self._start
        for at, value in reads.items():
            if place.read != at:
                place.read, place.leads = at, {}
            place = place.leads.setdefault(_key(value), _Place())
        place.found, place.is_end = found, True
        self._count += 1

"""The stations of a turret, the tools that want them, and what indexing takes."""

from __future__ import annotations

from collections.abc import Iterator, Sequence
from dataclasses import dataclass
from functools import cached_property
from typing import Annotated, Literal

from calc.errors import FieldError
from calc.fields import Checked, Choice, Flag, Group, Quantity, Text
from calc.quantities import Sentence
from calc.working import Working, derived

TURRET = derived("Stations of the turret")
STRIKES_S = 1e4  # what neighbours that would strike count: more than any indexing

Kind = Literal["outside", "inside"]
KIND = Choice("Works", {"outside": "outside", "inside": "in the bore"})
StationKind = Literal["any", "outside", "inside"]
STATION_KIND = Choice("Station takes", {"any": "any tool", "outside": "outside tools", "inside": "bars and drills"})


@dataclass(frozen=True)
class TurretTool(Checked):
    """A tool that wants a station; `pinned` to a number, it stays there."""

    name: Annotated[str, Text("Tool")]
    kind: Annotated[Kind, KIND] = "outside"
    pinned: Annotated[int | None, Quantity("Stays at", "", "Empty: anywhere", low=1, high=200, whole=True)] = None


@dataclass(frozen=True)
class Apart(Checked):
    """Two tools that must not stand side by side."""

    one: Annotated[str, Text("Tool")]
    other: Annotated[str, Text("Not beside")]


@dataclass(frozen=True)
class TurretOrderInput(Checked):
    """Input of `turret-order`."""

    stations: Annotated[int, Quantity("Stations", "", "Of the turret", low=1, high=200, whole=True)]
    tools: Annotated[tuple[TurretTool, ...], Group("Tools", "Each once", least=1, most=60)]
    sequence: Annotated[tuple[str, ...], Text("Tool", "In the order of the work; it begins anew with the next piece")]
    both_ways: Annotated[bool, Flag("Turns both ways", "The shorter way is taken")] = True
    first_s: Annotated[float, Quantity("To the next station", "s", "With unlocking and locking", low=0, high=30)] = 0.4
    further_s: Annotated[float, Quantity("Each station further", "s", "", low=0, high=30)] = 0.1
    station_kinds: Annotated[tuple[StationKind, ...], STATION_KIND] = ()
    apart: Annotated[
        tuple[Apart, ...], Group("Not side by side", "Where a long tool would strike beside a short one", most=400)
    ] = ()

    def contradictions(self) -> Iterator[FieldError]:
        names = [t.name for t in self.tools]
        for i, tool in enumerate(self.tools):
            if tool.name in names[:i]:
                yield FieldError(f"tools.{i}.name", Sentence("Two tools cannot have one name: {n}.", n=tool.name))
            if tool.pinned is None:
                continue
            place = f"tools.{i}.pinned"
            if tool.pinned > self.stations:
                words = "There are {n} stations."
                yield FieldError(place, Sentence(words, n=str(self.stations)))
            elif any(t.pinned == tool.pinned for t in self.tools[:i]):
                yield FieldError(place, Sentence("Station {n} is taken by another tool.", n=str(tool.pinned)))
            elif not _takes(self._kind_at(tool.pinned - 1), tool.kind):
                words = "Station {n} does not take this tool: it is one for {what}."
                what = STATION_KIND.options[self._kind_at(tool.pinned - 1)]
                yield FieldError(place, Sentence(words, n=str(tool.pinned), what=what))
        for i, name in enumerate(self.sequence):
            if name not in names:
                yield FieldError(f"sequence.{i}", Sentence("There is no tool called {n}.", n=name))
        for i, pair in enumerate(self.apart):
            for field, name in (("one", pair.one), ("other", pair.other)):
                if name not in names:
                    yield FieldError(f"apart.{i}.{field}", Sentence("There is no tool called {n}.", n=name))
        if self.station_kinds and len(self.station_kinds) != self.stations:
            words = "Say it of each of the {n} stations, or of none."
            yield FieldError("station_kinds", Sentence(words, n=str(self.stations)))

    def _kind_at(self, place: int) -> str:
        return self.station_kinds[place] if place < len(self.station_kinds) else "any"


def _takes(station: str, tool: str) -> bool:
    return station in ("any", tool)


@dataclass(frozen=True)
class Indexing:
    """How a turret turns: its stations, whether the shorter way is taken, the time to the next and to each further."""

    stations: int
    both_ways: bool = True
    first_s: float = 0.4
    further_s: float = 0.1

    def seconds(self, w: Working, away: int, label: str = "Index") -> float:
        """Time [s] to bring up the tool that stands `away` stations on (0…stations − 1): nothing for none.

        >>> round(Indexing(12).seconds(Working(), 10), 3), Indexing(12).seconds(Working(), 0)
        (0.5, 0.0)

        Reference: derived in docs/method.md, “Stations of the turret”.
        """
        k = min(away, self.stations - away) if self.both_ways else away
        if k == 0:
            return 0.0
        values = {"t_f": self.first_s, "k": float(k), "t_n": self.further_s}
        return w.step("t_x", label, "t_f + (k - 1)*t_n", "s", TURRET, **values)


def indexing_of(given: TurretOrderInput) -> Indexing:
    """How the turret turns."""
    return Indexing(given.stations, given.both_ways, given.first_s, given.further_s)


@dataclass(frozen=True)
class Turret:
    """What is to be placed: how often each tool follows each, and where each may stand."""

    given: TurretOrderInput

    @cached_property
    def follows(self) -> list[list[int]]:
        """How often tool j comes after tool i in a piece, back to the first included."""
        place = {t.name: i for i, t in enumerate(self.given.tools)}
        used = [place[name] for name in self.given.sequence]
        found = [[0] * len(place) for _ in place]
        for before, after in zip(used, used[1:] + used[:1], strict=True):
            if before != after:
                found[before][after] += 1
        return found

    @property
    def changes(self) -> list[tuple[int, int, int]]:
        """(from, to, how often) of the changes in a piece."""
        return [(i, j, often) for i, row in enumerate(self.follows) for j, often in enumerate(row) if often]

    @cached_property
    def costs(self) -> list[float]:
        """Time by how many stations on a tool stands."""
        turns = indexing_of(self.given)
        return [turns.seconds(Working(), k) for k in range(self.given.stations)]

    def may_stand(self, tool: int) -> list[int]:
        """The stations that take a tool and are nobody else's."""
        mine = self.given.tools[tool]
        if mine.pinned is not None:
            return [mine.pinned - 1]
        pinned = {t.pinned - 1 for t in self.given.tools if t.pinned is not None}
        kinds = self.given.station_kinds or ("any",) * self.given.stations
        return [s for s, kind in enumerate(kinds) if s not in pinned and _takes(kind, mine.kind)]

    @cached_property
    def apart(self) -> set[tuple[int, int]]:
        """Tools that must not stand side by side, either way round."""
        place = {t.name: i for i, t in enumerate(self.given.tools)}
        pairs = [(place[p.one], place[p.other]) for p in self.given.apart]
        return {*pairs, *((j, i) for i, j in pairs)}

    def between(self, i: int, j: int, at_i: int, at_j: int) -> float:
        """Time of all changes between two tools at these stations; far more where they must not be neighbours."""
        n = self.given.stations
        ahead, back = (at_j - at_i) % n, (at_i - at_j) % n
        strikes = STRIKES_S if min(ahead, back) == 1 and (i, j) in self.apart else 0.0
        return self.follows[i][j] * self.costs[ahead] + self.follows[j][i] * self.costs[back] + strikes

    def indexing(self, at: Sequence[int]) -> float:
        """Indexing [s] of a piece with every tool at its station."""
        return sum(often * self.costs[(at[j] - at[i]) % self.given.stations] for i, j, often in self.changes)

    def seconds(self, at: Sequence[int]) -> float:
        """The same, with what neighbours count that would strike."""
        count = range(len(at))
        return sum(self.between(i, j, at[i], at[j]) for i in count for j in count if i < j)

    @cached_property
    def least(self) -> float:
        """What no arrangement goes below: a way through all stations and back goes once round, or there and back."""
        g, used = self.given, len(set(self.given.sequence))
        round_ = max(g.stations, used) if not g.both_ways else min(2 * (used - 1), g.stations)
        changes = sum(often for _, _, often in self.changes)
        return changes * (g.first_s - g.further_s) + g.further_s * max(changes, round_) if changes else 0.0

    def least_between(self, i: int, j: int) -> float:
        """What the changes between two tools take at the least, wherever they stand."""
        return min(self.between(i, j, 0, k) for k in range(1, self.given.stations)) if self.given.stations > 1 else 0.0

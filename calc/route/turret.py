"""Tools at stations of a turret for the least index time: calculator `turret-order`."""

from __future__ import annotations

from collections.abc import Iterator, Sequence
from dataclasses import dataclass
from functools import cached_property
from typing import Annotated, Literal

import numpy as np
import numpy.typing as npt

from calc.describing import documented
from calc.errors import FieldError, FieldProblem
from calc.fields import Checked, Choice, Flag, Group, Quantity, Text
from calc.quantities import Sentence
from calc.results import Explained, Found
from calc.working import Working, derived

TURRET = derived("Stations of the turret")
EXACT_UP_TO = 8  # tools; beyond, an order is improved as long as it can be
STRIKES_S = 1e4  # what neighbours that would strike count: more than any indexing
MOST_LOOKED_AT = 50_000  # of them: seconds; then the best so far is taken and said to be no more than that

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


@dataclass(frozen=True, slots=True, kw_only=True)
class TurretOrderResult(Explained):
    """Where each tool stands, and what indexing takes for a piece."""

    stations: Annotated[dict[str, int], Found("Stations")]
    index_s: Annotated[float, Found("Indexing, a piece", "s", "up", places=(2, 2))]
    in_order_s: Annotated[float, Found("In the order of use", "s", "up", places=(2, 2))]
    least: Annotated[bool, Found("No order takes less")]


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
class _Turret:
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


def in_order_of_use(turret: _Turret) -> list[int]:
    """Stations in the order of use, pinned tools where they stay. Raises FieldProblem where there are too few."""
    given = turret.given
    names = list(dict.fromkeys((*given.sequence, *(t.name for t in given.tools))))
    place = {t.name: i for i, t in enumerate(given.tools)}
    taken = {t.pinned - 1 for t in given.tools if t.pinned is not None}
    at = {i: t.pinned - 1 for i, t in enumerate(given.tools) if t.pinned is not None}
    for name in names:
        tool = place[name]
        if tool in at:
            continue
        free = [s for s in turret.may_stand(tool) if s not in taken]
        # A station of its own kind first: those that take any are left to the others.
        own = [s for s in free if given.station_kinds and given.station_kinds[s] != "any"]
        if not free:
            words = "The turret has {n} stations and no place left for {tool}: share a tool, or take a larger turret."
            raise FieldProblem("stations", Sentence(words, n=str(given.stations), tool=name))
        at[tool] = (own or free)[0]
        taken.add(at[tool])
    return [at[i] for i in range(len(given.tools))]


def improved(turret: _Turret, at: list[int]) -> list[int]:
    """The same with tools moved and exchanged as long as that takes time off."""
    best, seconds = list(at), turret.seconds(at)
    again = True
    while again:
        again = False
        for tried in _neighbours(turret, best):
            takes = turret.seconds(tried)
            if takes < seconds - 1e-9:
                best, seconds, again = tried, takes, True
                break
    return best


def _neighbours(turret: _Turret, at: list[int]) -> Iterator[list[int]]:
    holder = {station: tool for tool, station in enumerate(at)}
    for tool, station in enumerate(at):
        for to in turret.may_stand(tool):
            other = holder.get(to)
            if to == station or (other is not None and (other < tool or station not in turret.may_stand(other))):
                continue
            moved = list(at)
            moved[tool] = to
            if other is not None:
                moved[other] = station
            yield moved


class _Search:
    """Every arrangement that could be better, tools that change most first; what cannot be is left out early.

    What is left to pay at the least, once some stand: for each other tool its changes with those that stand, from the
    station where they take least, and for each pair of the others their own.
    """

    def __init__(self, turret: _Turret, at: list[int]) -> None:
        self.turret, self.best, self.seconds = turret, list(at), turret.seconds(at)
        self.looked_at = 0
        n, count = turret.given.stations, range(len(at))
        weight = [sum(turret.follows[i][j] + turret.follows[j][i] for j in count) for i in count]
        self.order = sorted(count, key=lambda i: (len(turret.may_stand(i)) > 1, -weight[i]))
        # By how far one stands ahead of the other; then by where the first stands and where the other does.
        away = np.array([[[turret.between(i, j, 0, k) for k in range(n)] for j in count] for i in count])
        ahead = (np.arange(n)[None, :] - np.arange(n)[:, None]) % n
        self.pays = [np.ascontiguousarray(away[i][:, ahead].swapaxes(0, 1)) for i in count]
        self.alone = np.full((len(at), n), np.inf)
        for i in count:
            self.alone[i, turret.may_stand(i)] = 0.0
        least = [[turret.least_between(min(i, j), max(i, j)) if i != j else 0.0 for j in count] for i in count]
        self.others = [np.array(self.order[k:], dtype=int) for k in range(len(at) + 1)]
        self.pairs = [sum(least[i][j] for i in left for j in left if i < j) for left in self.others]

    def run(self) -> bool:
        """Look; gives whether no arrangement takes less than `best`."""
        if self.seconds <= self.turret.least + 1e-9:
            return True
        return self._place(0, {}, 0.0, self.alone, self._distinct())

    def _distinct(self) -> list[list[int] | None]:
        """Where the first two may stand so that none is looked at twice: on a turret of equal stations the first stands
        at one, and where the turret turns both ways the second within the half on one side of it."""
        given = self.turret.given
        if given.station_kinds or any(t.pinned is not None for t in given.tools):
            return [None, None]
        return [[0], list(range(given.stations // 2 + 1)) if given.both_ways else None]

    def _place(
        self, k: int, at: dict[int, int], paid: float, pays: npt.NDArray[np.float64], only: list[list[int] | None]
    ) -> bool:
        if k == len(self.order):
            self.best, self.seconds = [at[i] for i in range(len(at))], paid
            return True
        self.looked_at += 1
        if self.looked_at > MOST_LOOKED_AT:
            return False
        tool, left = self.order[k], self.others[k + 1]
        here = pays[tool]
        # For each station of this tool: what the others would pay at each of theirs, none at this one's.
        then = pays[None, left] + self.pays[tool][:, left]
        then[np.arange(len(here)), :, np.arange(len(here))] = np.inf
        bound = paid + here + self.pairs[k + 1] + (then.min(axis=2).sum(axis=1) if len(left) else 0.0)
        may = np.isfinite(here)
        stands = only[k] if k < len(only) else None
        if stands is not None:
            may &= np.isin(np.arange(len(here)), stands)
        for station in sorted(np.flatnonzero(may).tolist(), key=lambda s: float(bound[s])):
            if bound[station] >= self.seconds - 1e-9:
                return True  # nor does any that is bound to take more
            after = pays.copy()
            after[left] = then[station]
            at[tool] = station
            done = self._place(k + 1, at, paid + float(here[station]), after, only)
            del at[tool]
            if not done:
                return False
        return True


@documented(TurretOrderInput)
def turret_order(given: TurretOrderInput) -> TurretOrderResult:
    """The station of each tool for the least index time of a piece, back to the first tool included.

    Parameters
        {parameters}
    Returns
        stations: name -> number; index_s [s] of a piece; in_order_s [s], what the order of use would take;
        least: no other arrangement takes less, proved up to 8 tools
    Raises
        CalcError: two tools of one name or at one station, a tool that there is not, a station that does not take what
        is pinned to it, fewer stations than tools
    Validity
        Changes between tools only; what the slide does meanwhile is not in it. Tools of `apart` are neighbours only
        where pins or too few stations leave nothing else.
    Example
        >>> tools = tuple(TurretTool(n) for n in "abc")
        >>> r = turret_order(TurretOrderInput(12, tools, ("a", "b", "c", "b")))
        >>> r.stations, round(r.index_s, 2)
        ({'a': 1, 'b': 2, 'c': 3}, 1.6)

    Reference
        derived in docs/method.md, “Stations of the turret”
    """
    turret = _Turret(given)
    used = in_order_of_use(turret)
    search = _Search(turret, improved(turret, used))
    least = search.run() if len(given.tools) <= EXACT_UP_TO else False
    w, total = Working(), 0.0
    for i, j, often in turret.changes:
        away = (search.best[j] - search.best[i]) % given.stations
        one = indexing_of(given).seconds(w, away, f"{given.tools[i].name} to {given.tools[j].name}")
        label = "Indexing of a piece so far"
        total = w.step("t_i", label, "t_i + m*t_x", "s", TURRET, t_i=total, m=float(often), t_x=one)
    stations = {t.name: search.best[i] + 1 for i, t in enumerate(given.tools)}
    return TurretOrderResult(
        stations=stations,
        index_s=total,
        in_order_s=turret.indexing(used),
        least=least,
        working=tuple(w.steps),
        notes=tuple(w.notes),
    )

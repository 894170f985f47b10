"""Which tool stands at which station for the least index time."""

from __future__ import annotations

from collections.abc import Iterator

import numpy as np
import numpy.typing as npt

from calc.errors import FieldProblem
from calc.quantities import Sentence
from calc.route.stations import Turret

MOST_LOOKED_AT = 50_000  # of them: seconds; then the best so far is taken and said to be no more than that


def in_order_of_use(turret: Turret) -> list[int]:
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


def improved(turret: Turret, at: list[int]) -> list[int]:
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


def _neighbours(turret: Turret, at: list[int]) -> Iterator[list[int]]:
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


class Search:
    """Every arrangement that could be better, tools that change most first; what cannot be is left out early.

    What is left to pay at the least, once some stand: for each other tool its changes with those that stand, from the
    station where they take least, and for each pair of the others their own.
    """

    def __init__(self, turret: Turret, at: list[int]) -> None:
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

"""A plan value in, every stop's results, working, notes and verdict out, in one call, with no state."""

from __future__ import annotations

from dataclasses import dataclass, replace
from functools import cached_property

from calc.errors import FieldError
from calc.plan.all_stops import ALL_STOPS, kind_of
from calc.plan.document import Document
from calc.plan.lists import lists_of
from calc.plan.outcome import Figures, State
from calc.plan.proposed import by_side, proposed
from calc.plan.sides.solve import OTHER, SIDES, end_name
from calc.plan.solve import Solving
from calc.plan.stop import Help, Stop, Table
from calc.plan.stop_kind import Carried, StopKind
from calc.plan.view import NO_OPTIONS, Options, View
from calc.programs.jaw_boring import JawProgram
from calc.shelf.taken import Shelf


@dataclass(frozen=True)
class Side:
    """One set-up as it is carried: `title` its own name, `end` the end that is worked, `id` its own."""

    index: int
    id: str
    title: str
    end: str
    verdict: State
    carry: tuple[Carried, ...]


@dataclass(frozen=True)
class PlanResult:
    """A computed plan: the part's stops, then each side's, each with what the rail and the open stop need.

    What is tried out or drawn only when it is looked at is asked for by its stop or its side.
    """

    stops: tuple[Stop, ...]
    sides: tuple[Side, ...]
    verdict: State
    views: tuple[View, ...]

    @property
    def figures(self) -> tuple[Figures, ...]:
        """The figures of each set-up."""
        return tuple(self.views[0].every)

    def stop(self, name: str, side: int = 0) -> Stop:
        """The stop called `name`, of a set-up where it is a side's. Raises KeyError."""
        for stop in self.stops:
            if stop.name == name and stop.side in (None, side):
                return stop
        raise KeyError(name)

    @property
    def problems(self) -> tuple[FieldError, ...]:
        """Every problem of every stop."""
        return tuple(p for stop in self.stops for p in stop.problems)

    @cached_property
    def proposed(self) -> frozenset[str]:
        """The paths of the facts that are as they were proposed."""
        return proposed(self.views[0].document, self.views[0].shelf)

    @property
    def left_to_look_at(self) -> dict[str, int]:
        """How many of them each side has, by the side's id; sides that have none are left out."""
        return by_side(self.proposed, tuple(s.id for s in self.sides))

    def view_of(self, stop: Stop) -> View:
        """What a stop is shown from."""
        return self.views[stop.side or 0]

    def helps(self, stop: Stop) -> tuple[Help, ...]:
        """Changes that would help a stop, each tried by recomputing the plan with it."""
        return tuple(kind_of(stop.name).helps(self.view_of(stop)))

    def checks(self, stop: Stop) -> tuple[str, ...]:
        """What can be solved for a stop when it is asked for, by name."""
        view = self.view_of(stop)
        return tuple(c.name for c in kind_of(stop.name).checks if c.is_there(view))

    def program(self, stop: Stop) -> JawProgram | None:
        """The program that a stop writes, None where it writes none."""
        write = kind_of(stop.name).program
        return write(self.view_of(stop), stop) if write else None

    def tables(self, stop: Stop) -> tuple[Table, ...]:
        """Things side by side at a stop."""
        return tuple(kind_of(stop.name).tables(self.view_of(stop)))


def _shown(kind: StopKind, view: View) -> Stop:
    """A stop by the list's word: named, and with its reason in its line where something stops it."""
    setup = view.setup if kind.per_side else None
    stop = replace(
        kind.show(view),
        name=kind.name,
        title=kind.title,
        heading=kind.heading,
        panels=kind.panels,
        lists=tuple(lists_of(kind.name, view.document, setup)),
        side=view.index if setup is not None else None,
        setup="" if setup is None else setup.id,
    )
    if stop.state == "stopped" and not stop.problems and not kind.says_why:
        stop = replace(stop, line=next(n.sentence for n in stop.notes if n.level == "stop"))
    return stop


def _kept(solving: Solving, kind: StopKind, index: int) -> Stop:
    return solving.kept(kind, index, lambda view: _shown(kind, view))


def _stops(solving: Solving) -> tuple[Stop, ...]:
    """The part's stops, those of each side, and those behind them, in the order of the list; kept while what they read
    stays.
    """
    whole = [(kind, _kept(solving, kind, 0)) for kind in ALL_STOPS if not kind.per_side]
    of_sides = [_kept(solving, kind, i) for i in range(len(solving.every)) for kind in ALL_STOPS if kind.per_side]
    before, after = ([stop for kind, stop in whole if kind.after_sides is behind] for behind in (False, True))
    return (*before, *of_sides, *after)


def verdict_of(stops: tuple[Stop, ...]) -> State:
    """The worst of the stops' states."""
    states = {s.state for s in stops}
    return "stopped" if "stopped" in states else "open" if "open" in states else "settled"


def _side(view: View, stops: tuple[Stop, ...]) -> Side:
    sides = view[SIDES]
    worked = end_name(view.document, OTHER[sides.held_end(view.index) if sides else "a"])
    carried = sorted((c for kind in ALL_STOPS for c in kind.carries(view)), key=lambda c: c.place)
    mine = tuple(s for s in stops if s.side == view.index)
    return Side(view.index, view.setup.id, view.setup.name, worked, verdict_of(mine), tuple(carried))


def compute(document: Document, shelf: Shelf, options: Options | None = None) -> PlanResult:
    """Every stop of a plan.

    Parameters
        document: what the setter entered; shelf: what it takes from the shelf
        options: names of what may be chosen, by kind ("machine", "material", "chuck"): key -> name
    Returns
        stops in route order, each settled, open or stopped; the plan's verdict is the worst of them;
        for each side the figures to carry, and the view that its pictures are drawn from
    Raises
        nothing for bad facts: they are the stops' problems, each at its path
    """
    solving = Solving(document, shelf, {**NO_OPTIONS, **(options or {})})
    stops = _stops(solving)
    views = tuple(solving.view(i) for i in range(len(document.setups)))
    return PlanResult(stops, tuple(_side(view, stops) for view in views), verdict_of(stops), views)


def some_stops(document: Document, shelf: Shelf, index: int, *names: str) -> tuple[Stop, ...]:
    """Stops by their names, of a set-up where they are a side's; only what they read is solved. Raises KeyError."""
    solving = Solving(document, shelf, NO_OPTIONS)
    return tuple(_kept(solving, kind_of(name), index) for name in names)


def view_of(document: Document, shelf: Shelf, index: int) -> View:
    """What a side of a plan is shown from; nothing is solved before it is asked for."""
    return Solving(document, shelf).view(index)


def check(view: View, name: str) -> Table | None:
    """What is solved for a stop only when it is asked for; None where there is nothing to solve. Raises KeyError."""
    for kind in ALL_STOPS:
        for one in kind.checks:
            if one.name == name:
                return one.solve(view)
    raise KeyError(name)

"""A begun plan made good: every side settled, other ways to hold it tried where the first does not settle."""

from __future__ import annotations

from collections.abc import Callable, Iterator
from dataclasses import dataclass, replace
from typing import Any

from calc.errors import CalcError
from calc.plan.all_stops import kind_of
from calc.plan.compute import some_stops, view_of
from calc.plan.cuts.inputs import PlannedCut
from calc.plan.document import Document, setup_path
from calc.plan.hold.figures import JawHold
from calc.plan.hold.inputs import Hold
from calc.plan.hold.solve import HOLD
from calc.plan.paths import replaced
from calc.plan.solve import solve
from calc.plan.trying import LENGTH_STEP_MM, floor_to
from calc.settle.setup import settle_setup
from calc.start.begin import a_third, begin, begun_with, ends, unsettled
from calc.start.marking import marked
from calc.start.state import Decided, Facts, Start, Wanted, decided_of
from calc.start.ways import held, ways

TRIED = 6  # ways to hold a side
DEEPER = (1.25, 1.6)  # of a third of the part's length
HELD = ("hold", "jaws")
HELPED = (*HELD, "cuts")
PINS = {"speed_m_min": "pin_speed", "feed_mm_rev": "pin_feed", "depth_mm": "pin_depth"}


def settle_start(wanted: Wanted, tell: Callable[[int, int], None] = lambda *_: None) -> Start:
    """The proposed plan with every side settled: pressure, speeds, feeds, depths, clamps.

    Parameters
        wanted: the plan, begun; where it is not, it is begun here
        tell: is told how many sides of how many are settled
    Returns
        the plan with marks for all that was proposed; figures that a person gave are as they gave them
    Raises
        CalcError where a side settles in no way that was tried: what stands in the way of the first, at its place

    Reference
        docs/method.md, “A proposed start”
    """
    orders: list[_Order] = []
    for begun in _orders(wanted):
        found = _as_far_as_it_settles(wanted, begun, tell)
        if not found.left:
            return marked(begun, found.plan)
        orders.append(found)
    why: CalcError | None = None
    for order in sorted(orders, key=lambda o: len(o.left)):  # what is wrong with its hold is said at its stop
        try:
            return marked(order.begun, _figured_where_it_does_not(order))
        except CalcError as error:
            why = error if why is None or order is orders[0] else why  # what is told is of the order proposed
    assert why is not None
    raise why


@dataclass(frozen=True)
class _Order:
    """A plan with one end first, as far as it settles: sides that do not, with what another way came to for each."""

    begun: Start
    plan: Start
    left: dict[int, Start | None]


def _orders(wanted: Wanted) -> Iterator[Start]:
    """The plan as it is begun, then begun with the other end first where that is free."""
    plan = wanted.begun if wanted.document.proposed else begin(wanted)
    yield plan
    decided = decided_of(wanted.begun)
    for first in ends(wanted.begun, decided):
        if first != plan.document.sides.first_end:
            other = begun_with(wanted, decided, first)
            if other is not None:
                yield other


def _as_far_as_it_settles(wanted: Wanted, begun: Start, tell: Callable[[int, int], None]) -> _Order:
    decided, plan, sides = decided_of(begun), begun, len(begun.document.setups)
    left: dict[int, Start | None] = {}
    for index in range(sides):
        tell(index, sides)
        settles, made = _settled(wanted, decided, plan, index)
        if made is not None and settles:
            plan = made
        else:
            left[index] = made
    tell(sides, sides)
    return _Order(begun, plan, left)


def _settled(wanted: Wanted, decided: Decided, plan: Start, index: int) -> tuple[bool, Start | None]:
    """Whether a side settles as it is held or in another way, and the first that does; else the first with figures."""
    figured: Start | None = None
    for made in _tries(wanted, decided, plan, index):
        if _is_wrongly_held(made, index):
            continue
        try:
            found = Start(_figured(made, decided, index), made.shelf)
        except CalcError:
            continue
        if unsettled(found, index) == 0:
            return True, found
        figured = figured or found
    return False, figured


def _is_wrongly_held(plan: Start, index: int) -> bool:
    """What Hold or Jaws stops is the lie of things: no pressure, speed, feed or depth of a pass mends it."""
    return any(s.state == "stopped" for s in some_stops(plan.document, plan.shelf, index, *HELD))


def _figured_where_it_does_not(order: _Order) -> Start:
    """The plan with figures for the sides that do not settle either: as they are held, else as another way came to.

    Raises CalcError where a side has none."""
    plan, decided = order.plan, decided_of(order.begun)
    for index, other in order.left.items():
        try:
            plan = Start(_figured(plan, decided, index), plan.shelf)
        except CalcError:
            if other is None:
                raise
            plan = _with_side(plan, other, index)
    return plan


def _with_side(plan: Start, other: Start, index: int) -> Start:
    """The plan with a side as it is in another one."""
    setups, taken = list(plan.document.setups), list(plan.shelf.setups)
    setups[index], taken[index] = other.document.setups[index], other.shelf.setups[index]
    return Start(replace(plan.document, setups=tuple(setups)), replace(plan.shelf, setups=tuple(taken)))


def _tries(wanted: Wanted, decided: Decided, plan: Start, index: int) -> Iterator[Start]:
    """A side as it is held and with what would help it there, then held in its other ways."""
    yield plan
    yield from _better_held(decided, plan, index)
    for way in ways(wanted, decided, plan, index)[:TRIED]:
        made = a_third(decided, held(wanted, decided, plan, index, way), index)
        if not _held_alike(made, plan, index):
            yield made
            yield from _better_held(decided, made, index)


def _held_alike(one: Start, other: Start, index: int) -> bool:
    holds = (p.document.setups[index].hold for p in (one, other))
    return one.shelf.setups[index] == other.shelf.setups[index] and len(set(holds)) == 1


def _better_held(decided: Decided, plan: Start, index: int) -> Iterator[Start]:
    """The plan with each single change of a side's hold that lets a stop settle, then gripped deeper."""
    at, view = setup_path(plan.document, index), view_of(plan.document, plan.shelf, index)
    stopped = [s for s in some_stops(plan.document, plan.shelf, index, *HELPED) if s.state == "stopped"]
    helps = [h for stop in stopped for h in kind_of(stop.name).helps(view)]
    found: list[tuple[str, Any]] = [(h.path, h.value) for h in helps if h.settles and not h.takes_out]
    found += [(f"{at}.hold.depth_mm", deep) for deep in _deeper(plan, index)]
    for path, value in found:
        name = path.removeprefix(f"{at}.hold.")
        if name in vars(Hold()) and decided.free(
            path, getattr(plan.document.setups[index].hold, name), vars(Hold())[name]
        ):
            yield Start(replaced(plan.document, path, value), plan.shelf)


def _deeper(plan: Start, index: int) -> Iterator[float]:
    """Depths [mm] beyond a third that stop nothing by themselves: more length holds against tilting."""
    hold, at = solve(plan.document, plan.shelf, index)[HOLD], setup_path(plan.document, index)
    if not isinstance(hold, JawHold) or hold.blank.is_hard or hold.stick_out_mm is not None:
        return
    for factor in DEEPER:
        deep = floor_to(hold.deep_mm * factor, LENGTH_STEP_MM)
        deeper = Start(replaced(plan.document, f"{at}.hold.depth_mm", deep), plan.shelf)
        if unsettled(deeper, index) == 0:
            yield deep


def _figured(plan: Start, decided: Decided, index: int) -> Document:
    """A side settled, figures that a person gave held where they are. Raises CalcError."""
    setup, at = plan.document.setups[index], setup_path(plan.document, index)
    document = replaced(
        plan.document, f"{at}.cuts", tuple(_pinned(c, decided, f"{at}.cuts.{c.id}") for c in setup.cuts)
    )
    given = setup.force.pressure_bar
    if not decided.free(f"{at}.force.pressure_bar", given, None):
        document = replaced(document, f"{at}.force.pin_pressure", True)
    made = settle_setup(document, plan.shelf, index).document
    cuts = []
    for cut, before in zip(made.setups[index].cuts, setup.cuts, strict=True):
        keeps: Facts = {pin: getattr(before, pin) for pin in PINS.values()}
        if not decided.free(f"{at}.cuts.{cut.id}.clamp_rpm", before.clamp_rpm, None):
            keeps["clamp_rpm"] = before.clamp_rpm
        cuts.append(replace(cut, **keeps))
    made = replaced(made, f"{at}.cuts", tuple(cuts))
    if not decided.free(f"{at}.clamp_rpm", setup.clamp_rpm, None):
        made = replaced(made, f"{at}.clamp_rpm", setup.clamp_rpm)
    return replaced(made, f"{at}.force.pin_pressure", setup.force.pin_pressure)


def _pinned(cut: PlannedCut, decided: Decided, at: str) -> PlannedCut:
    """A cut whose figures are pinned where a person gave them."""
    if cut.id not in {c.id for s in decided.document.setups for c in s.cuts}:
        return cut
    given: Facts = {
        pin: True
        for name, pin in PINS.items()
        if getattr(cut, name) is not None and f"{at}.{name}" not in decided.marked
    }
    return replace(cut, **given)

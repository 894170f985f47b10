"""Settle one operation: the fastest passes, feed and speed inside every limit at once, and what binds."""

from __future__ import annotations

from dataclasses import dataclass, replace
from typing import Any

import numpy as np

from calc.errors import CalcError, FieldProblem
from calc.plan.cuts.inputs import PlannedCut
from calc.plan.cuts.solve import CUTS, CutFigures
from calc.plan.document import Document, setup_path
from calc.plan.force.demand import DEMAND
from calc.plan.force.load import load_of
from calc.plan.force.solve import FORCE, ForceFigures
from calc.plan.hold.solve import HOLD
from calc.plan.outcome import Figures
from calc.plan.part.solve import PART
from calc.plan.paths import place_of
from calc.plan.solve import solve
from calc.quantities import Figure, Sentence
from calc.settle.candidates import FINE, Candidates, Grid, Mask, Settling, candidates
from calc.shelf.taken import Shelf

TRIED = 60  # how many of the fastest are put to the whole plan before it is given up
GRIP = "the grip at speed"
CAP = "the speed cap"


@dataclass(frozen=True)
class Binding:
    """A limit, and the time [min] there would be without it; None where nothing else would be faster."""

    name: str
    minutes: float | None


@dataclass(frozen=True)
class Settled:
    """What an operation was settled at. `gives_up`: limits that clash and are not kept, each told; `figures` alone,
    and in `words` with
    what holds them back."""

    id: str
    name: str
    planned: PlannedCut
    minutes_before: float
    minutes: float
    passes: int
    binds: Binding | None
    then: Binding | None
    gives_up: tuple[str, ...]
    tried: int
    words: Sentence
    figures: Sentence


@dataclass(frozen=True, eq=False)
class Room:
    """What the grip leaves to one operation: static grip and its loss [N, N/rpm²], the others' need and top speed."""

    static_n: float
    loss: float
    others_n: float
    others_rpm: float
    cap_rpm: float


def cap_of(figures: Figures, document: Document, index: int) -> float:
    """The most the spindle may turn [rpm]: machine, chuck, own limit and clamp."""
    part, hold = figures[PART], figures[HOLD]
    assert part is not None and hold is not None
    setup = document.setups[index]
    return min(
        v
        for v in (part.machine.max_rpm, hold.chuck.max_rpm, setup.force.user_max_rpm, setup.clamp_rpm)
        if v is not None
    )


def room_of(figures: Figures, document: Document, index: int, cut: str) -> Room:
    """What is left to one cut, by its id, while the others stay."""
    force, cuts, demand, hold = figures[FORCE], figures[CUTS], figures[DEMAND], figures[HOLD]
    assert force is not None and cuts is not None and demand is not None and hold is not None
    others = [c for c in cuts.cuts if c.id != cut]
    mine = next(i for i, c in enumerate(cuts.cuts) if c.id == cut)
    needed = [d.required_n for i, d in enumerate(demand.nominal.cuts) if i != mine]
    return Room(
        force.grip.grip_n,
        loss_of(force, hold.side),
        max(needed, default=0.0),
        max((c.top_rpm for c in others), default=0.0),
        cap_of(figures, document, index),
    )


def loss_of(force: ForceFigures, side: str) -> float:
    """What speed takes of the grip [N/rpm²]; an inside grip's gain is never credited."""
    if side == "id" or force.top_rpm <= 0:
        return 0.0
    return force.transmission * force.at_top.centrifugal_n / force.top_rpm**2


def _grip_mask(found: Candidates, room: Room) -> Mask:
    top = np.maximum(found.top_rpm, room.others_rpm)
    left = room.static_n - room.loss * top**2
    return (np.maximum(found.needed, room.others_n) <= left * (1 + 1e-12)) & (top <= room.cap_rpm * (1 + 1e-9))


def _order(found: Candidates, keep: Mask) -> Any:
    """Candidates that keep every limit, the fastest first; the longer life, then the fewer passes decide a tie."""
    rows = np.flatnonzero(keep)
    keys = (found.feed[rows], found.passes[rows], -np.round(found.life[rows], 6), np.round(found.minutes[rows], 9))
    return rows[np.lexsort(keys)]


def kept_by(limits: dict[str, Mask], leave_out: tuple[str, ...] = ()) -> Mask:
    """Which candidates keep every limit but those left out."""
    masks = [m for name, m in limits.items() if name not in leave_out]
    kept = masks[0].copy()
    for m in masks[1:]:
        kept &= m
    return kept


def _best(found: Candidates, limits: dict[str, Mask], leave_out: tuple[str, ...]) -> float | None:
    keep = kept_by(limits, leave_out)
    return float(found.minutes[keep].min()) if keep.any() else None


def _binding(
    found: Candidates, limits: dict[str, Mask], minutes: float, gone: tuple[str, ...], faster: float | None = None
) -> Binding | None:
    """The limit whose going would save the most time; None where none of them holds it back.

    `faster`: the time with the speed cap lifted, which no candidate here can tell.
    """
    times = [(faster, CAP)] if faster is not None and CAP not in gone else []
    times += [
        (t, name) for name in limits if name not in gone and (t := _best(found, limits, (*gone, name))) is not None
    ]
    best = min(times, default=None)
    if best is None or best[0] >= minutes * (1 - 1e-6):
        return None
    return Binding(best[1], best[0])


def _uncapped(given: Settling, room: Room, gone: tuple[str, ...], grid: Grid) -> float | None:
    """The least time [min] were clamp, chuck and machine to let the spindle turn twice as fast, the grip still
    counting.
    """
    cap = 2 * room.cap_rpm
    found = candidates(given, cap, grid)
    return _best(found, {**found.limits, GRIP: _grip_mask(found, replace(room, cap_rpm=cap))}, gone)


def given_up(found: Candidates, limits: dict[str, Mask]) -> tuple[str, ...]:
    """The fewest soft limits, from the last, that must go for anything to remain."""
    gone: list[str] = []
    for name in ("", *found.soft):
        if name:
            gone.append(name)
        if kept_by(limits, tuple(gone)).any():
            # What need not go comes back.
            for back in list(gone):
                fewer = tuple(g for g in gone if g != back)
                if kept_by(limits, fewer).any():
                    gone.remove(back)
            return tuple(gone)
    return tuple(gone)


def figures_of(cut: CutFigures, found: Candidates, row: int) -> dict[str, Any]:
    """What a candidate enters into the plan."""
    planned = cut.planned
    feed, speed = round(float(found.feed[row]), 6), round(float(found.speed[row]), 6)
    changed: dict[str, Any] = {}
    if planned.kind != "thread":
        changed["feed_mm_rev"] = feed
        if planned.by_depth:
            changed["depth_mm"] = round(float(found.depth[row]), 6)
        if planned.slow_feed_mm_rev is not None and planned.feed_mm_rev:
            changed["slow_feed_mm_rev"] = round(feed * planned.slow_feed_mm_rev / planned.feed_mm_rev, 6)
    else:
        changed["passes"] = int(found.passes[row])
    if planned.rpm is None:
        changed["speed_m_min"] = speed
    return changed


def with_cut(document: Document, index: int, cut: str, changed: dict[str, Any]) -> Document:
    """The document with the figures of a cut changed, by its id. Raises CalcError."""
    setup = document.setups[index]
    cuts = tuple(replace(c, **changed) if c.id == cut else c for c in setup.cuts)
    return replace(
        document, setups=tuple(replace(s, cuts=cuts) if i == index else s for i, s in enumerate(document.setups))
    )


def keeps_all(figures: Figures, cut: str | None = None) -> bool:
    """The whole plan's own word: nothing of the side's cuts, jaws' force or spindle is stopped."""
    force, cuts = figures[FORCE], figures[CUTS]
    if force is None or cuts is None or force.stopped:
        return False
    notes = cuts.notes if cut is None else next(c for c in cuts.cuts if c.id == cut).notes
    return not any(n.level == "stop" for n in notes)


@dataclass(frozen=True, eq=False)
class Trial:
    """A plan in which a cut is settled: the document, the shelf, the set-up and the cut's id."""

    document: Document
    shelf: Shelf
    index: int
    cut: str

    def accepted(self, found: Candidates, row: int) -> PlannedCut | None:
        """The cut with a candidate's figures, where the whole plan takes it."""
        try:
            changed = with_cut(self.document, self.index, self.cut, figures_of(found.cut, found, row))
        except CalcError:
            return None
        if not keeps_all(solve(changed, self.shelf, self.index), self.cut):
            return None
        cuts = changed.setups[self.index].cuts
        return cuts[place_of(cuts, self.cut)]


def settle_operation(document: Document, shelf: Shelf, index: int, cut: str, grid: Grid = FINE) -> Settled:
    """The fastest figures of one cut that every limit allows, the other cuts and the pressure as they are.

    Parameters
        document, shelf: the plan; index: the set-up; cut: the operation's id
    Returns
        the cut with its figures, the time before and after [min], the limit that binds and the next one
    Raises
        FieldProblem where figures are missing, or where no candidate keeps every limit: told with what forbids it
    Notes
        Exhaustive over its grid, the same answer every time; the winner is put to the whole plan and must pass.

    Reference
        docs/method.md, “Settling”
    """
    at = f"{setup_path(document, index)}.cuts.{cut}"
    if all(c.id != cut for c in document.setups[index].cuts):
        raise FieldProblem(at, "There is no such cut in this plan any more.")
    figures = solve(document, shelf, index)
    part, cuts, demand, hold = figures[PART], figures[CUTS], figures[DEMAND], figures[HOLD]
    one = next((c for c in cuts.cuts if c.id == cut), None) if cuts else None
    if one is None or part is None:
        why = figures.outcome(CUTS).line
        raise FieldProblem(at, Sentence("{why}: settle it when its figures are there.", why=why))
    if figures[FORCE] is None or demand is None or hold is None:
        raise FieldProblem(at, Sentence("Settling needs the grip: {why}.", why=figures.outcome(FORCE).line))
    room = room_of(figures, document, index, cut)
    load = load_of(one, hold, document.setups[index].hold.seat)
    given = Settling(one, part, document.in_force, demand.asked, load)
    found = candidates(given, room.cap_rpm, grid)
    limits = {**found.limits, GRIP: _grip_mask(found, room)}
    gone = given_up(found, limits)
    trial = Trial(document, shelf, index, cut)
    for row in _order(found, kept_by(limits, gone))[:TRIED]:
        settled = trial.accepted(found, int(row))
        if settled is not None:
            faster = _uncapped(given, room, gone, grid)
            return _settled(found, int(row), settled, limits, (gone, faster))
    raise FieldProblem(at, _forbidden(one.name, limits, gone, room))


def _settled(
    found: Candidates,
    row: int,
    planned: PlannedCut,
    limits: dict[str, Mask],
    held: tuple[tuple[str, ...], float | None],
) -> Settled:
    """What was found, and what holds it back. `held`: the limits given up, and the time with the cap lifted."""
    (gone, faster), one = held, found.cut
    minutes, passes = float(found.minutes[row]), int(found.passes[row])
    binds = _binding(found, limits, minutes, gone, faster)
    then = _binding(found, limits, binds.minutes or minutes, (*gone, binds.name), faster) if binds else None
    figures, held_back = _told(planned, passes), _holds_back(binds, then)
    words = Sentence("{s}; {b}.", s=figures, b=held_back)
    return Settled(
        one.id, one.name, planned, one.minutes, minutes, passes, binds, then, gone, len(found.feed), words, figures
    )


def _forbidden(name: str, limits: dict[str, Mask], gone: tuple[str, ...], room: Room) -> Sentence:
    """Why no candidate remains."""
    if room.others_n > room.static_n - room.loss * room.others_rpm**2:
        return Sentence(
            "The other cuts ask more grip than there is, so {cut} cannot be settled alone: settle the set-up.", cut=name
        )
    none = [limit for limit, mask in limits.items() if not mask.any()]
    freed = [limit for limit in limits if kept_by(limits, (*gone, limit)).any()]
    why = (none or freed or ["the plan as a whole"])[0]
    return Sentence("{cut}: no feed, depth and speed keep every limit; {why} forbids them all.", cut=name, why=why)


def _told(planned: PlannedCut, passes: int) -> Sentence:
    """The figures that a cut is settled at."""
    feed = Figure(planned.feed_mm_rev or 0, "mm/rev", exact=True)
    speed = Figure(planned.speed_m_min or 0, "m/min")
    if not planned.by_depth:
        return Sentence("{f}, {v}", f=feed, v=speed)
    depth = Figure(planned.depth_mm or planned.width_mm or 0, "mm")
    count = f"{passes} passes" if passes > 1 else "1 pass"
    return Sentence("{f}, {p} of {a}, {v}", f=feed, p=count, a=depth, v=speed)


def _holds_back(binds: Binding | None, then: Binding | None) -> Sentence:
    if binds is None:
        return Sentence("nothing holds it back within what is tried")
    if then is None:
        return Sentence("{b} holds it back", b=binds.name)
    return Sentence("{b} holds it back, then {t}", b=binds.name, t=then.name)

"""What would gain most in a set-up: one thing changed about how it is held or cut, and everything settled again."""

from __future__ import annotations

import math
from collections.abc import Iterator, Sequence
from dataclasses import dataclass, replace
from typing import Any

from calc.errors import CalcError
from calc.plan.compute import compute
from calc.plan.cuts.solve import CUTS, CutFigures
from calc.plan.document import Document, setup_path
from calc.plan.force.centre import lifts_n
from calc.plan.hold.figures import JawHold
from calc.plan.hold.solve import HOLD
from calc.plan.paths import replaced
from calc.plan.sides.driven import DRIVEN
from calc.plan.solve import solve
from calc.quantities import Figure, Sentence
from calc.settle.setup import settle_setup
from calc.shelf.taken import SetupShelf, Shelf
from calc.tools.choose import every_tool
from calc.tools.kinds.holder import Holder
from calc.tools.library import Tool
from calc.tools.rules.all_rules import BOOKS

DEEPER = 1.25  # of the depth that is held
STEP_MM, THRUST_STEP_N = 0.5, 50.0
MOST = 12
LEAST = 0.005  # of the time: less is no gain


@dataclass(frozen=True)
class Idea:
    """One thing to change: facts of the document, and what is taken from the shelf by key. `key` names it."""

    key: str
    label: Sentence
    facts: tuple[tuple[str, Any], ...] = ()
    taken: tuple[tuple[str, str | None], ...] = ()
    holder: SetupShelf | None = None


@dataclass(frozen=True)
class Gain:
    """What an idea gains, settled, beside the set-up as it settles now: times of a piece [min], edge changes counted,
    and of the run [h]. `why_not`: why nothing is gained. `document`: the plan with it.
    """

    idea: Idea
    before_min: float | None
    after_min: float | None
    run_h: float | None
    why_not: Sentence | None
    document: Document | None

    @property
    def gains(self) -> bool:
        """It is quicker, or can be run where the set-up as it is cannot."""
        return self.document is not None and self.why_not is None


def ideas(document: Document, shelf: Shelf, index: int, holders: Sequence[SetupShelf] = ()) -> tuple[Idea, ...]:
    """What could be changed about a set-up. `holders`: what else the spindle could carry, a chuck each with all that
    fits it. Two sides in one set of jaws are held as the first is.
    """
    found = [
        *_other_jaws(document, shelf, index),
        *_collets(document, shelf, index, holders),
        *_jaws_instead(document, shelf, index, holders),
        *_otherwise_held(document, shelf, index),
        *_stiffer_bars(document, shelf, index),
    ]
    return tuple(found[:MOST])


def _other_jaws(document: Document, shelf: Shelf, index: int) -> Iterator[Idea]:
    taken, at = shelf.setups[index], setup_path(document, index)
    if taken.blank is None or (taken.chuck is not None and taken.chuck.is_collet) or (document.one_set and index > 0):
        return
    apart: tuple[tuple[str, Any], ...] = (("sides.two_step", False),) if document.one_set else ()
    for blank in taken.blanks:
        if blank.key == taken.blank.key or (document.one_set and not blank.is_hard):
            continue
        label = Sentence("hard jaws, {n}" if blank.is_hard else "{n}", n=blank.name)
        facts = (*apart, (f"{at}.hold.jaw_height_mm", None))
        holder = replace(taken, blank=blank, jaw_set=None)
        yield Idea(f"jaws-{blank.key}", label, facts, (("jaw_blank", blank.key), ("jaw_set", None)), holder)


def _collets(document: Document, shelf: Shelf, index: int, holders: Sequence[SetupShelf]) -> Iterator[Idea]:
    hold = solve(document, shelf, index)[HOLD]
    if document.one_set or hold is None or hold.side == "id":
        return
    mine, now = shelf.setups[index].chuck, shelf.setups[index].collet
    for holder in holders:
        chuck = holder.chuck
        if chuck is None or not chuck.is_collet or mine is None or chuck.spindle != mine.spindle:
            continue
        for collet in holder.collets:
            fits = collet.least_mm <= hold.grip.smallest_mm and hold.grip.largest_mm <= collet.nominal_mm
            if not fits or collet.flats != hold.grip.flats or (now is not None and collet.key == now.key):
                continue
            label, facts = (
                Sentence("{c} in {k}", c=collet.name, k=chuck.name),
                ((f"{setup_path(document, index)}.hold.depth_mm", None),),
            )
            taken = (("chuck", chuck.key), ("collet", collet.key), ("jaw_set", None))
            yield Idea(f"collet-{chuck.key}-{collet.key}", label, facts, taken, replace(holder, collet=collet))


def _jaws_instead(document: Document, shelf: Shelf, index: int, holders: Sequence[SetupShelf]) -> Iterator[Idea]:
    """Top jaws of another chuck of the spindle, in place of a collet."""
    mine = shelf.setups[index].chuck
    if mine is None or not mine.is_collet:
        return
    at = setup_path(document, index)
    for holder in holders:
        chuck = holder.chuck
        if chuck is None or chuck.is_collet or chuck.spindle != mine.spindle:
            continue
        for blank in holder.blanks:
            label = Sentence("{b} in {k}", b=blank.name, k=chuck.name)
            facts = ((f"{at}.hold.depth_mm", None), (f"{at}.hold.jaw_height_mm", None))
            taken = (("chuck", chuck.key), ("jaw_blank", blank.key), ("jaw_set", None))
            yield Idea(f"jaws-{chuck.key}-{blank.key}", label, facts, taken, replace(holder, blank=blank))


def _otherwise_held(document: Document, shelf: Shelf, index: int) -> Iterator[Idea]:
    """Deeper in, or over a live centre."""
    figures, at, hold_facts = solve(document, shelf, index), setup_path(document, index), document.setups[index].hold
    hold, part, cuts = figures[HOLD], figures[DRIVEN], figures[CUTS]
    if hold is None or part is None or cuts is None:
        return
    if isinstance(hold, JawHold) and hold.stick_out_mm is None and not hold.blank.is_hard:
        deep = math.floor(hold.deep_mm * DEEPER / STEP_MM + 1e-9) * STEP_MM
        if deep > hold.deep_mm:
            label = Sentence("grip {x} deep", x=Figure(deep, "mm"))
            yield Idea("deeper", label, ((f"{at}.hold.depth_mm", deep),))
    if not hold_facts.live_centre and part.machine.centre_n is not None:
        thrust = math.ceil(max(lifts_n(c, document.in_force) for c in cuts.cuts) / THRUST_STEP_N) * THRUST_STEP_N
        words = Sentence("a live centre, pressed with {x}", x=Figure(thrust, "N", "up"))
        yield Idea("centre", words, ((f"{at}.hold.live_centre", True), (f"{at}.hold.centre_thrust_n", thrust)))


def _stiffness(tool: Tool) -> float:
    """How stiff a bar is, relative to others: the fourth power of its diameter times its metal's modulus."""
    bar = tool.carrier
    return bar.shank_mm**4 * bar.modulus_gpa if isinstance(bar, Holder) else 0.0


def _stiffer_bars(document: Document, shelf: Shelf, index: int) -> Iterator[Idea]:
    cuts, at = solve(document, shelf, index)[CUTS], setup_path(document, index)
    for cut in cuts.cuts if cuts else ():
        better = _stiffer(cut, shelf) if cut.planned.kind == "bore" and cut.tool is not None else None
        if better is not None:
            label = Sentence("{cut}: {t}", cut=cut.name, t=better.name)
            yield Idea(f"bar-{cut.id}", label, ((f"{at}.cuts.{cut.id}.tool", better.key),))


def _stiffer(cut: CutFigures, shelf: Shelf) -> Tool | None:
    """The best tool of a cut whose bar is stiffer than the one it has."""
    assert cut.tool is not None
    now = _stiffness(cut.tool)
    ranked = every_tool(shelf.tools, BOOKS[cut.planned.kind], cut.job)
    fit = (r for r in ranked if r.rejected is None and _stiffness(r.tool) > now * (1 + 1e-9))
    best = max(fit, key=lambda r: r.score, default=None)
    return best.tool if best is not None else None


def with_idea(document: Document, shelf: Shelf, index: int, idea: Idea) -> tuple[Document, Shelf]:
    """The plan with an idea put in. Raises CalcError."""
    for path, value in idea.facts:
        document = replaced(document, path, value)
    if idea.holder is not None:
        setups = tuple(idea.holder if i == index else s for i, s in enumerate(shelf.setups))
        shelf = replace(shelf, setups=setups)
    return document, shelf


def counted_min(document: Document, shelf: Shelf, index: int) -> float | None:
    """Time of a piece on a side [min], in cut and its share of the edge changes; None without figures."""
    cuts = solve(document, shelf, index)[CUTS]
    if cuts is None:
        return None
    change = document.in_force.edge_change_min
    return sum(c.minutes * (1 + (change / c.consulted.life.life_min if c.consulted.life else 0.0)) for c in cuts.cuts)


def _settled(document: Document, shelf: Shelf, sides: tuple[int, ...]) -> tuple[Document | None, Sentence | None]:
    """(the sides settled, why they cannot be)."""
    for index in sides:
        try:
            document = settle_setup(document, shelf, index).document
        except CalcError as error:
            return None, _stopped(document, shelf, index) or error.errors[0].sentence
    why = next((w for i in sides if (w := _stopped(document, shelf, i)) is not None), None)
    return (None, why) if why is not None else (document, None)


def _stopped(document: Document, shelf: Shelf, index: int) -> Sentence | None:
    """What stops a side first; None where nothing does."""
    return next((s.line for s in compute(document, shelf).stops if s.side == index and s.state == "stopped"), None)


def _others_stopped(document: Document, shelf: Shelf, index: int) -> Sentence | None:
    """What stops another side, or the part."""
    return next((s.line for s in compute(document, shelf).stops if s.side != index and s.state == "stopped"), None)


def gain_of(document: Document, shelf: Shelf, index: int, idea: Idea) -> Gain:
    """What an idea gains: the set-up with it settled, beside the set-up as it is, settled as well. Where it takes two
    sides out of one set of jaws, both are settled.

    Source: docs/method.md, “What would gain most”.
    """
    try:
        changed, taken = with_idea(document, shelf, index, idea)
    except CalcError as error:
        return Gain(idea, None, None, None, error.errors[0].sentence, None)
    sides = tuple(range(len(document.setups))) if document.one_set and not changed.one_set else (index,)
    now, _ = _settled(document, shelf, sides)
    before = _counted(now, shelf, sides) if now is not None else None
    made, why = _settled(changed, taken, sides)
    if made is None:
        return Gain(idea, before, None, None, why, None)
    elsewhere = _others_stopped(made, taken, index)
    if elsewhere is not None and _others_stopped(document, shelf, index) is None:
        return Gain(idea, before, None, None, elsewhere, None)
    after = _counted(made, taken, sides)
    if before is not None and after > before * (1 - LEAST):
        return Gain(idea, before, after, None, Sentence("no quicker"), None)
    pieces = document.part.quantity
    hours = (before - after) * pieces / 60 if before is not None and pieces else None
    return Gain(idea, before, after, hours, None, made)


def _counted(document: Document, shelf: Shelf, sides: tuple[int, ...]) -> float:
    return sum(counted_min(document, shelf, i) or 0.0 for i in sides)

"""The card of a plan, made from its figures."""

from __future__ import annotations

from collections.abc import Iterator, Mapping

from calc.card.ask import Ask, Told
from calc.card.holding import holding
from calc.card.proving import coolant_steps, first_piece, spin_steps
from calc.card.step import Card, CardStep, ToSet
from calc.card.tooling import tools_at, touch_offs
from calc.errors import CalcError
from calc.plan.compute import PlanResult, compute
from calc.plan.cuts.solve import CUTS
from calc.plan.document import Document
from calc.plan.force.solve import FORCE
from calc.plan.hold.figures import ColletHold, JawHold
from calc.plan.hold.solve import HOLD
from calc.plan.jaws.solve import JAWS
from calc.plan.paths import replaced
from calc.plan.route.solve import ROUTE
from calc.plan.view import View
from calc.quantities import Figure, Sentence
from calc.shelf.taken import Shelf

PLACES = (3, 4)


class NoCard(Exception):
    """A plan without its figures has no card; `why` is a sentence."""

    def __init__(self, why: Sentence) -> None:
        super().__init__(str(why))
        self.why = why


def card_of(result: PlanResult, coolant: Mapping[str, float] | None = None) -> Card:
    """Figures to set, tools by station, and the steps in the order of the work.

    Parameters
        result: a plan with its figures
        coolant: factor, target_percent and volume_l [l] that counted last on the machine, by name
    Returns
        the card; steps have the same ids whenever it is made from the same plan
    Raises
        NoCard where a stop has no figures

    Reference
        docs/method.md, “The card”
    """
    for stop in result.stops:
        if stop.state == "open" and not stop.answers:
            raise NoCard(Sentence("{t} lacks something: a card is made of a whole plan.", t=stop.title))
    view = result.views[0]
    route, machine = view[ROUTE], view.shelf.machine
    if route is None or machine is None or any(v[HOLD] is None or v[FORCE] is None for v in result.views):
        raise NoCard(Sentence("The plan has no figures for a card: settle it first."))
    tools = tools_at(route)
    steps: list[CardStep] = []
    for side in result.views:
        steps += holding(side, first_in_set=side.index == 0 or not side.document.one_set)
        if side.index == 0:
            steps += touch_offs(route, tools)
            steps += coolant_steps(machine.name, tuple((coolant or {}).items()))
        steps += spin_steps(side)
        steps += first_piece(side, route)
    cautions = tuple(dict.fromkeys(n.sentence for s in result.stops for n in s.notes if n.level == "caution"))
    return Card(tuple(f for side in result.views for f in _to_set(side)), tools, tuple(steps), cautions)


def _to_set(view: View) -> Iterator[ToSet]:
    hold, force, cuts, jaws, index = view[HOLD], view[FORCE], view[CUTS], view[JAWS], view.index
    assert hold is not None and force is not None and cuts is not None
    yield ToSet("Pressure", Figure(force.pressure_bar, "bar", "down"), index, "pressure")
    if isinstance(hold, ColletHold):
        yield ToSet("Collet", Sentence("{c}", c=hold.collet.name), index, "collet")
    elif isinstance(hold, JawHold):
        if hold.blank.is_hard:
            yield ToSet("Hard jaws", Sentence("{b}", b=hold.blank.name), index, "jaw")
        else:
            what = "Jaws bored to" if hold.side == "od" else "Jaws turned to"
            size = Figure(hold.pocket.bore_diameter_mm, "mm", places=PLACES)
            yield ToSet(what, size, index, "bore", "Ø ")
            yield ToSet("Deep", Figure(hold.pocket.bore_depth_mm, "mm"), index, "depth")
        if hold.mount is not None:
            yield ToSet("Tooth", Sentence("{k}", k=str(hold.mount.tooth)), index, "tooth")
    if hold.stick_out_mm is not None:
        yield ToSet("Bar stands out", Figure(hold.stick_out_mm, "mm"), index, "stick_out")
    if jaws is not None and jaws.taper_mm:
        yield ToSet("Taper planned", Figure(jaws.taper_mm, "mm", places=PLACES), index, "taper")
    for cut in cuts.cuts:
        clamp = cut.planned.rpm or cut.clamp_rpm
        if clamp is not None:
            label = f"{cut.name}: {'fixed' if cut.planned.rpm else 'clamp'}"
            yield ToSet(label, Figure(clamp, "rpm", "down"), index, f"cut_{cut.id}_clamp_rpm")


def tried(document: Document, shelf: Shelf, told: Told) -> tuple[bool, tuple[Sentence, ...]]:
    """(whether the plan still holds with what was found, what stops it): the plan computed beside itself."""
    assert told.trial is not None
    try:
        result = compute(replaced(document, told.trial.path, told.trial.value), shelf)
    except CalcError as error:
        return False, tuple(e.sentence for e in error.errors)
    why = [p.sentence for p in result.problems]
    why += [n.sentence for s in result.stops for n in s.notes if n.level == "stop"]
    return result.verdict == "settled", tuple(dict.fromkeys(why))


def asked(card: Card, step: str) -> Ask | None:
    """What a step of a card asks for; None where there is no such step, or it asks for nothing."""
    found = card.step(step)
    return found.ask if found is not None else None

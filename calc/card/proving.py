"""Steps that prove a side: coolant, dry run, first spin, and the first piece measured."""

from __future__ import annotations

from collections.abc import Iterator

from calc.card.readings.coolant import CoolantAsk
from calc.card.readings.size import FinishAsk, SizeAsk, ThreadAsk
from calc.card.step import CardStep
from calc.limits.working import WorkingLimitsInput, working_limits
from calc.plan.cuts.solve import CUTS, CutFigures
from calc.plan.cuts.tooling import step_of, worked_steps
from calc.plan.part.solve import PART, PartFigures
from calc.plan.route.solve import RouteFigures
from calc.plan.sides.solve import OTHER, SIDES
from calc.plan.view import View
from calc.profile.body import End
from calc.profile.contour import Span
from calc.quantities import Figure, Sentence
from calc.rules import Rules
from calc.threads.designation import designation
from calc.tools.kinds.insert import Insert

CLEAR = Sentence("Jaws and part can be thrown: everybody clear of their plane, doors shut.")
TURNED = ("turn", "bore")


def coolant_steps(machine: str, before: tuple[tuple[str, float], ...]) -> Iterator[CardStep]:
    """How strong the coolant is, and where it goes."""
    yield CardStep(
        "coolant",
        "proving",
        "Coolant: how strong",
        (Sentence("Skim tramp oil off, then a drop from the nozzle's stream on the refractometer."),),
        kind="read",
        caution=Sentence("Coolant and its mist irritate skin and lungs."),
        ask=CoolantAsk(of=machine, before=before),
    )
    yield CardStep(
        "aim",
        "proving",
        "Coolant: where it goes",
        (
            Sentence("Between insert and work, just under the edge; not at the back of the tool."),
            Sentence("Watch the aim again as a part-off blade goes in."),
        ),
        caution=Sentence("Spindle stopped while the nozzles are bent."),
    )


def spin_steps(view: View) -> Iterator[CardStep]:
    """The program dry, and the first spin slow."""
    at, index, cuts = view.setup.id, view.index, view[CUTS]
    assert cuts is not None  # a released plan is settled
    yield CardStep(
        f"{at}.dry",
        "proving",
        "Run the program dry",
        (
            Sentence("No piece in, rapid turned down, a hand on feed hold. Watch each tool past the jaws."),
            Sentence("Every cut's clamp stands at its tool change: see the figures to set."),
        ),
        index,
        kind="caution",
        caution=Sentence("A tool in the jaws at full rapid throws both."),
    )
    yield CardStep(
        f"{at}.first-spin",
        "proving",
        "First spin, slow",
        (
            Sentence("Shut the doors, clamp the spindle low, and raise it in steps."),
            Sentence("The program reaches {n}, in {c}: no more.", n=Figure(cuts.top_rpm, "rpm"), c=cuts.fastest.name),
        ),
        index,
        kind="caution",
        caution=CLEAR,
        lights=("clamp",),
    )


def first_piece(view: View, route: RouteFigures) -> Iterator[CardStep]:
    """The first piece of a side: run, then every size, finish and thread that it makes."""
    at, index, part, cuts = view.setup.id, view.index, view[PART], view[CUTS]
    assert part is not None and cuts is not None
    yield CardStep(
        f"{at}.first-off",
        "first piece",
        "Run the first piece",
        (Sentence("Single block, feed at half; where a size is tight, its offset moved off to the safe side."),),
        index,
        kind="caution",
        caution=CLEAR,
    )
    sides = view[SIDES]
    assert sides is not None
    worked = OTHER[sides.held_end(index)]
    stations = {o.cut.id: o.station for side in route.sides for o in side.operations}
    for span, cut in _made(cuts.cuts, part, worked):
        yield from _measured(view, part, (span, cut), stations[cut.id])


def _made(cuts: tuple[CutFigures, ...], part: PartFigures, worked: End) -> Iterator[tuple[Span, CutFigures]]:
    """Each step that this side makes to its size with the cut that did it last."""
    last: dict[str, tuple[Span, CutFigures]] = {}
    for cut in cuts:
        if cut.planned.kind not in (*TURNED, "thread") or cut.planned.cleans:
            continue
        span = step_of(cut.planned, part, worked)
        to, d = cut.planned.to_diameter_mm or 0.0, span.step.diameter_mm if span else None
        if span is None or d is None or (cut.planned.kind in TURNED and abs(to - d) > 0.5):
            continue
        last[f"{cut.planned.kind == 'thread'} {span.step.id}"] = (span, cut)
    order = {s.step.id: i for i, s in enumerate(worked_steps(part, worked, inside=False))}
    yield from sorted(last.values(), key=lambda one: order.get(one[0].step.id, 99))


def working_of(rules: Rules, low: float, high: float) -> tuple[float, float]:
    """The limits that the shop works to [mm], by its rule."""
    share = rules.kept_back_pct / 100
    # Where the uncertainty leaves nothing, the print's own: a first piece is measured in any case.
    rule = rules.machine_limits
    if rule == "uncertainty" and 2 * rules.uncertainty_mm >= high - low:
        rule = "print"
    found = working_limits(WorkingLimitsInput(low, high, share, rules.uncertainty_mm, rule))
    return found.low, found.high


def _measured(view: View, part: PartFigures, made: tuple[Span, CutFigures], station: int) -> Iterator[CardStep]:
    (span, cut), at, rules = made, view.setup.id, view.document.in_force
    step, name, lights = span.step, span.step.name, (f"step_{span.step.id}",)
    inside = cut.planned.inside
    if cut.planned.kind == "thread":
        named = designation(step.thread) if step.thread else None
        if named is None:
            return
        yield CardStep(
            f"{at}.thread.{step.id}",
            "first piece",
            f"Gauge {named.text}",
            (Sentence("Wipe it, break its burrs, then both gauges by hand."),),
            view.index,
            kind="read",
            lights=lights,
            ask=ThreadAsk(
                name=name,
                outside=not inside,
                system="metric" if named.form == "iso" else "unified",
                offset=station,
                of=step.id,
                tool_key=cut.planned.tool,
            ),
        )
        return
    limits = step.limits_mm
    if limits is not None:
        yield CardStep(
            f"{at}.size.{step.id}",
            "first piece",
            f"Measure {name}",
            (
                Sentence("Ø{d}, cut by {c}.", d=Figure(step.diameter_mm or 0.0, "mm", exact=True), c=cut.name),
                Sentence("Deburr it; warm pieces are larger: write how warm it is."),
            ),
            view.index,
            kind="read",
            lights=lights,
            ask=SizeAsk(
                name=name,
                outside=not inside,
                print_mm=limits,
                working_mm=working_of(rules, *limits),
                expansion_1e6_k=part.material.expansion_um_m_k,
                offset=station,
                tool=f"tool {station}",
                nominal_mm=step.diameter_mm or 0.0,
                of=step.id,
                tool_key=cut.planned.tool,
            ),
        )
    finish, edge = cut.consulted.finish, cut.tool.edge if cut.tool else None
    if step.ra_um is not None and finish is not None:
        yield CardStep(
            f"{at}.finish.{step.id}",
            "first piece",
            f"Finish of {name}",
            (Sentence("With the instrument, along the part, away from marks."),),
            view.index,
            kind="read",
            lights=lights,
            ask=FinishAsk(
                name=name,
                theory_um=finish.theory_um,
                print_um=step.ra_um,
                predicted_um=finish.expected_um if finish.seen else None,
                edge=edge.key if isinstance(edge, Insert) else "",
                material=part.material.key,
                of=step.id,
                tool_key=cut.planned.tool,
            ),
        )

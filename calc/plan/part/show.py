"""Stop Part as it is shown: what the print says, and what follows from it before anything is decided."""

from __future__ import annotations

from calc.fields import Group, Text, fields_of
from calc.plan.document import Document
from calc.plan.part.inputs import Profile
from calc.plan.part.solve import LISTS, PART, PROFILE, PartFigures
from calc.plan.stop import Amount, Answer, Entering, Fact, Stop, chosen, computed, without_figures
from calc.plan.view import View
from calc.profile.body import BODY, End
from calc.profile.grips import Grip
from calc.profile.lines import HELP
from calc.profile.steps import TurnedStep
from calc.quantities import Bare, Figure, Sentence
from calc.working import Working

STEP_SPEC = Group("Step", HELP)
HEADINGS = {f"{PROFILE}.{f.name}": f.spec.label for f in fields_of(Profile)}


def _step_source(step: TurnedStep) -> Sentence:
    limits = step.limits_mm
    if limits is not None:
        return Sentence(
            "{low} to {high}",
            low=Bare(Figure(limits[0], "mm", places=(3, 4))),
            high=Figure(limits[1], "mm", places=(3, 4)),
        )
    return Sentence("no limits")


def _step_facts(document: Document) -> list[Fact]:
    return [
        Fact(
            f"step_{step.id}",
            step.name,
            step,
            STEP_SPEC,
            f"{PROFILE}.{name}.{step.id}",
            f"{PROFILE}.{name}",
            source=_step_source(step),
        )
        for name in LISTS
        for step in getattr(document.part.profile, name)
    ]


def _stock_facts(document: Document) -> list[Fact]:
    enter, group = Entering("part", document.part), "Stock"
    return [
        enter("stock_form", "stock.form", group=group),
        enter("stock_section", "stock.section", group=group),
        enter("stock_surface", "stock.surface", group=group),
        enter("stock_diameter", "stock.diameter_mm", group=group),
        enter("stock_smallest", "stock.smallest_mm", group=group),
        enter("stock_largest", "stock.largest_mm", group=group),
        enter("stock_bore", "stock.bore_mm", group=group),
        *([enter("bar_length", "stock.length_mm", group=group)] if document.part.stock.form == "bar" else []),
        enter("face_stock", "face_stock_mm", group=group),
    ]


def _body_facts(figures: PartFigures | None, document: Document) -> list[Fact]:
    group = "What follows"
    facts = [
        computed(
            "length", "Overall length", Amount(document.part.profile.length_mm, "mm"), "sum of the steps", group=group
        )
    ]
    if figures is None:
        return facts
    body = figures.figures
    facts += [
        computed("mass", "Mass", Amount(body.mass_kg, "kg"), "finished", group=group),
        computed("centre_of_mass", "Centre of mass", Amount(body.centre_mm, "mm"), "from end A", group=group),
        computed(
            "smallest_corner",
            "Smallest inside corner",
            Amount(body.smallest_corner_mm, "mm", "down"),
            "the finishing insert's corner must be smaller" if body.smallest_corner_mm is not None else "none given",
            group=group,
        ),
    ]
    for end, deg in body.falling_deg.items():
        if deg > 0:
            facts.append(
                computed(
                    f"falling_{end}",
                    f"Steepest falling flank, end {end.upper()}",
                    Amount(deg, "deg", "up"),
                    "a shoulder faces away from the tool" if deg >= 90 else "the tool must reach behind it",
                    group=group,
                )
            )
    return facts + _grip_facts(figures)


def _grip_facts(figures: PartFigures) -> list[Fact]:
    """Every diameter, from which end it is fit to be gripped, and why."""
    by_key: dict[str, dict[End, Grip]] = {}
    for end, grips in figures.grips.items():
        for grip in grips:
            by_key.setdefault(grip.key, {})[end] = grip
    facts = []
    for key, ends in by_key.items():
        fit = [e.upper() for e, g in ends.items() if g.fit]
        grip = next((g for g in ends.values() if g.fit), next(iter(ends.values())))
        value = "no" if not fit else f"from end {' and '.join(fit)}"
        why = grip.why_not or Sentence("{a}; {b}", a=grip.reasons[0].sentence, b=grip.reasons[1].sentence)
        inside = ", inside" if grip.side == "id" else ""
        facts.append(
            Fact(
                f"grip_{key}",
                f"{grip.name}{inside}",
                value,
                Text("Fit to be gripped"),
                None,
                "Fit to be gripped",
                source=why,
                basis="derived",
            )
        )
    return facts


def _facts(view: View) -> tuple[Fact, ...]:
    document, machine, material = view.document, view.shelf.machine, view.shelf.material
    enter = Entering("part", document.part)
    return (
        chosen(
            "machine",
            "machine",
            machine.key if machine else None,
            view.names["machine"],
            Sentence("{n}, {p}", n=Figure(machine.max_rpm, "rpm"), p=Figure(machine.power_kw, "kW"))
            if machine
            else Sentence("choose one"),
        ),
        chosen(
            "material",
            "material",
            material.key if material else None,
            view.names["material"],
            Sentence(
                "ISO {g} · {low} to {high}",
                g=material.iso_group,
                low=Figure(material.speed_low_m_min, "m/min"),
                high=Figure(material.speed_high_m_min, "m/min"),
            )
            if material
            else Sentence("choose one"),
            basis="typical" if material and material.typical else "book",
        ),
        enter("quantity", "quantity"),
        enter("roundness", "roundness_mm"),
        enter("edge", "edge_mm"),
        *_step_facts(document),
        *_stock_facts(document),
        *_body_facts(view[PART], document),
    )


def show(view: View) -> Stop:
    """The stop as it is shown."""
    document, outcome = view.document, view.outcome(PART)
    figures, facts = outcome.value, _facts(view)
    if figures is None:
        return without_figures(outcome, facts, headings=HEADINGS)
    body, steps = figures.figures, figures.working
    fit = sum(g.fit for grips in figures.grips.values() for g in grips)
    w = Working()
    thinnest = w.step(
        "s",
        "Thinnest wall, along the whole contour",
        "s_min",
        "mm",
        BODY,
        s_min=figures.body.wall_between(0.0, figures.length_mm),
    )
    answers = (
        Answer(
            "length",
            "Overall",
            Figure(figures.length_mm, "mm"),
            steps=steps[:1],
            below=Sentence("{more} more on each face", more=Figure(figures.face_stock_mm, "mm"))
            if figures.face_stock_mm
            else None,
        ),
        Answer(
            "mass",
            "Weighs",
            Figure(body.mass_kg, "kg", places=(3, 3)),
            steps=steps[1:],
            below=Sentence("centre {z} from end A", z=Figure(body.centre_mm, "mm")),
        ),
        Answer(
            "wall",
            "Thinnest wall",
            Figure(thinnest, "mm", "down"),
            steps=tuple(w.steps),
            below=Sentence("solid") if not figures.body.bores else Sentence("{n} places to grip", n=str(fit)),
        ),
    )
    widest = max(document.part.profile.outside, key=lambda s: s.diameter_mm or 0.0)
    largest = widest.diameter_mm or 0.0
    line = Sentence(
        "{m} · {d} flats × {l}" if widest.flats else "{m} · Ø {d} × {l}",
        m=figures.material.name,
        d=Bare(Figure(largest, "mm", exact=True, places=(2, 3))),
        l=Figure(figures.length_mm, "mm", exact=True, places=(2, 3)),
    )
    return Stop("", "", outcome.state(figures.notes), line, facts, answers, figures.notes, headings=HEADINGS)

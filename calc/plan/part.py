"""Stop Part: what the print says, and what follows from it before anything is decided."""

from __future__ import annotations

import math
from collections.abc import Mapping
from dataclasses import dataclass

from calc.errors import CalcError, FieldError
from calc.fields import Group, Text, fields_of
from calc.plan.document import Document, Part, Profile, Stock
from calc.plan.stops import Answer, Fact, Missing, Outcome, Stop, chosen, computed, entered
from calc.profile.body import BODY, Body, BodyFigures, End, body_figures, body_of
from calc.profile.grips import Grip, finished_grips
from calc.profile.lines import HELP
from calc.profile.steps import TurnedStep
from calc.quantities import Bare, Figure, Sentence
from calc.shelf.machine import Machine
from calc.shelf.material import Material
from calc.shelf.taken import Shelf
from calc.working import Note, Step, Working

PROFILE = "part.profile"
PATHS = {f.name: f.spec.label for f in fields_of(Profile)}
TIGHT_MM = 0.0254  # a tolerance below 0.001 in is printed with one place more
STEP_SPEC = Group("Step", HELP)


@dataclass(frozen=True)
class PartFigures:
    """What the other stops need of the part; lengths and diameters in mm."""

    machine: Machine
    material: Material
    body: Body
    figures: BodyFigures
    stock: Stock
    edge_mm: float
    face_stock_mm: float
    roundness_mm: float | None
    grips: Mapping[End, tuple[Grip, ...]]
    notes: tuple[Note, ...]

    @property
    def length_mm(self) -> float:
        """Finished length."""
        return self.body.length_mm

    @property
    def held_radii_mm(self) -> tuple[float, float]:
        """(outside, inside) radius of what is chucked [mm], the stock's where it is known, never smaller than the
        part's.
        """
        largest = max(s.step.diameter_mm or 0.0 for s in self.body.outside)
        return max(self.stock.largest_mm or 0.0, self.stock.diameter_mm or 0.0, largest) / 2, (
            self.stock.bore_mm or 0.0
        ) / 2

    @property
    def held_mass_kg(self) -> float:
        """Mass of what is chucked [kg]: all of the stock, which either side is no heavier than."""
        outer, inner = self.held_radii_mm
        length = self.length_mm + 2 * self.face_stock_mm
        return math.pi * (outer**2 - inner**2) * length * self.material.density_kg_dm3 / 1e6

    @property
    def working(self) -> tuple[Step, ...]:
        """How the body's figures came about."""
        return self.figures.working


def _wanted(document: Document, shelf: Shelf) -> list[tuple[str, str]]:
    missing = []
    if shelf.machine is None:
        missing.append(("machine", "Machine"))
    if shelf.material is None:
        missing.append(("material", "Material"))
    for name in PATHS:
        for i, step in enumerate(getattr(document.part.profile, name)):
            if step.diameter_mm is None:
                missing.append((f"{PROFILE}.{name}.{i}", f"{step.name} diameter"))
            if step.length_mm is None and name == "outside":
                missing.append((f"{PROFILE}.{name}.{i}", f"{step.name} length"))
    return missing


def _stock_problems(part: Part, body: Body) -> list[FieldError]:
    stock, problems = part.stock, []
    largest = max(body.outside, key=lambda s: s.step.diameter_mm or 0.0).step
    size = stock.smallest_mm if stock.smallest_mm is not None else stock.diameter_mm
    name = "smallest_mm" if stock.smallest_mm is not None else "diameter_mm"
    if size is not None and largest.diameter_mm is not None and size < largest.diameter_mm - 1e-9:
        words = Sentence(
            "Stock of this size does not clean up the {name}, Ø{d}.",
            name=largest.name.lower(),
            d=Figure(largest.diameter_mm, "mm", exact=True),
        )
        problems.append(FieldError(f"part.stock.{name}", words))
    bores = [b.r for bore in body.bores for b in bore]
    if stock.bore_mm is not None and (not bores or stock.bore_mm > 2 * min(bores) + 1e-9):
        problems.append(
            FieldError(
                "part.stock.bore_mm",
                Sentence("The stock's bore does not clean up: the part is solid there.")
                if not bores
                else Sentence(
                    "The stock's bore must not be larger than the part's, Ø{d}.",
                    d=Figure(2 * min(bores), "mm", exact=True),
                ),
            )
        )
    return problems


def _body(document: Document) -> Body:
    profile = document.part.profile
    try:
        return body_of(profile.outside, profile.inside, profile.inside_b, document.part.edge_mm)
    except CalcError as error:
        raise CalcError(FieldError(f"{PROFILE}.{e.field}", e.sentence) for e in error.errors) from error


def solve_part(document: Document, shelf: Shelf) -> PartFigures:
    """Figures of the part. Raises Missing, or CalcError for contradictory facts."""
    missing = _wanted(document, shelf)
    if missing:
        raise Missing(*missing)
    assert shelf.machine is not None and shelf.material is not None
    part = document.part
    body = _body(document)
    problems = _stock_problems(part, body)
    if problems:
        raise CalcError(problems)
    figures = body_figures(body, shelf.material.density_kg_dm3)
    return PartFigures(
        machine=shelf.machine,
        material=shelf.material,
        body=body,
        figures=figures,
        stock=part.stock,
        edge_mm=part.edge_mm,
        face_stock_mm=part.face_stock_mm,
        roundness_mm=part.roundness_mm,
        grips={"a": finished_grips(body, "a"), "b": finished_grips(body, "b")},
        notes=_notes(figures),
    )


def _notes(figures: BodyFigures) -> tuple[Note, ...]:
    if not figures.sharp_corners:
        return ()
    corner = "one inside corner has" if figures.sharp_corners == 1 else f"{figures.sharp_corners} inside corners have"
    return (
        Note(
            "info",
            "corner-unknown",
            "{corner} no radius on the print: ask, or write r and the figure in its line.",
            corner=corner[:1].upper() + corner[1:],
        ),
    )


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
    facts = []
    for name, heading in PATHS.items():
        for i, step in enumerate(getattr(document.part.profile, name)):
            facts.append(
                Fact(
                    f"{name}_{i}",
                    step.name,
                    step,
                    STEP_SPEC,
                    f"{PROFILE}.{name}.{i}",
                    heading,
                    source=_step_source(step),
                )
            )
    return facts


def _stock_facts(document: Document) -> list[Fact]:
    stock, at, group = document.part.stock, "part.stock", "Stock"
    return [
        entered("stock_form", f"{at}.form", stock.form, group=group),
        entered("stock_surface", f"{at}.surface", stock.surface, group=group),
        entered("stock_diameter", f"{at}.diameter_mm", stock.diameter_mm, group=group),
        entered("stock_smallest", f"{at}.smallest_mm", stock.smallest_mm, group=group),
        entered("stock_largest", f"{at}.largest_mm", stock.largest_mm, group=group),
        entered("stock_bore", f"{at}.bore_mm", stock.bore_mm, group=group),
        entered("face_stock", "part.face_stock_mm", document.part.face_stock_mm, group=group),
    ]


def _body_facts(figures: PartFigures | None, document: Document) -> list[Fact]:
    group = "What follows"
    facts = [
        computed("length", "Overall length", document.part.profile.length_mm, "mm", "sum of the steps", group=group)
    ]
    if figures is None:
        return facts
    body = figures.figures
    facts += [
        computed("mass", "Mass", body.mass_kg, "kg", "finished", group=group),
        computed("centre_of_mass", "Centre of mass", body.centre_mm, "mm", "from end A", group=group),
        computed(
            "smallest_corner",
            "Smallest inside corner",
            body.smallest_corner_mm,
            "mm",
            "the finishing insert's corner must be smaller" if body.smallest_corner_mm is not None else "none given",
            group=group,
            rounding="down",
        ),
    ]
    for end, deg in body.falling_deg.items():
        if deg > 0:
            facts.append(
                computed(
                    f"falling_{end}",
                    f"Steepest falling flank, end {end.upper()}",
                    deg,
                    "deg",
                    "a shoulder faces away from the tool" if deg >= 90 else "the tool must reach behind it",
                    group=group,
                    rounding="up",
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


def _facts(
    document: Document, shelf: Shelf, options: Mapping[str, Mapping[str, str]], figures: PartFigures | None
) -> tuple[Fact, ...]:
    part, machine, material = document.part, shelf.machine, shelf.material
    return (
        chosen(
            "machine",
            "Machine",
            "machine",
            machine.key if machine else None,
            options["machine"],
            Sentence("{n}, {p}", n=Figure(machine.max_rpm, "rpm"), p=Figure(machine.power_kw, "kW"))
            if machine
            else Sentence("choose one"),
        ),
        chosen(
            "material",
            "Material",
            "material",
            material.key if material else None,
            options["material"],
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
        entered("quantity", "part.quantity", part.quantity),
        entered("roundness", "part.roundness_mm", part.roundness_mm),
        entered("edge", "part.edge_mm", part.edge_mm),
        *_step_facts(document),
        *_stock_facts(document),
        *_body_facts(figures, document),
    )


def part_stop(
    document: Document, shelf: Shelf, outcome: Outcome[PartFigures], options: Mapping[str, Mapping[str, str]]
) -> Stop:
    """The stop as it is shown."""
    figures = outcome.value
    facts = _facts(document, shelf, options, figures)
    if figures is None:
        return Stop("part", "Part", outcome.state(()), outcome.line, facts, problems=outcome.problems)
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
    largest = max((s.diameter_mm or 0.0) for s in document.part.profile.outside)
    line = Sentence(
        "{m} · Ø {d} × {l}",
        m=figures.material.name,
        d=Bare(Figure(largest, "mm", exact=True, places=(2, 3))),
        l=Figure(figures.length_mm, "mm", exact=True, places=(2, 3)),
    )
    return Stop("part", "Part", outcome.state(figures.notes), line, facts, answers, figures.notes)

"""Stop Part solved: the body that the profile makes, what it weighs, and where it can be gripped."""

from __future__ import annotations

import math
from collections.abc import Iterator, Mapping
from dataclasses import dataclass

from calc.errors import CalcError, FieldError
from calc.plan.document import Document
from calc.plan.outcome import Asked, Missing, Solved
from calc.plan.part.inputs import Part, Stock
from calc.profile.body import Body, BodyFigures, End, body_figures, body_of
from calc.profile.grips import Grip, finished_grips
from calc.quantities import Figure, Sentence
from calc.shelf.machine import Machine
from calc.shelf.material import Material
from calc.shelf.taken import Shelf
from calc.working import Note, Step

PROFILE = "part.profile"
SPREAD = 0.1  # typical: no stock is so far off its nominal size
FLAT_MM = 0.5  # typical: what drawn bar may be off its size
LISTS = ("outside", "inside", "inside_b")


@dataclass(frozen=True, eq=False)  # one that is kept is itself
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
        """(outside, inside) radius of what is chucked [mm], the stock's to its corners, never smaller than the
        part's.
        """
        largest = max(s.step.diameter_mm or 0.0 for s in self.body.outside)
        across = max(self.stock.largest_mm or 0.0, self.stock.diameter_mm or 0.0) * self.stock.corners
        return max(across, largest) / 2, (self.stock.bore_mm or 0.0) / 2

    @property
    def held_mass_kg(self) -> float:
        """Mass of what is chucked [kg]: all of the stock, which either side is no heavier than."""
        outer, inner = self.held_radii_mm
        length = self.length_mm + 2 * self.face_stock_mm
        fills = self.stock.fills if self.stock.diameter_mm is not None else 1.0
        return math.pi * (fills * outer**2 - inner**2) * length * self.material.density_kg_dm3 / 1e6

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
    for name in LISTS:
        for step in getattr(document.part.profile, name):
            if step.diameter_mm is None:
                missing.append((f"{PROFILE}.{name}.{step.id}", f"{step.name} diameter"))
            if step.length_mm is None and name == "outside":
                missing.append((f"{PROFILE}.{name}.{step.id}", f"{step.name} length"))
    return missing


def _stock_problems(part: Part, body: Body) -> list[FieldError]:
    stock, problems = part.stock, []
    turned = [s.step for s in body.outside if not s.step.flats]
    largest = max(turned, key=lambda s: s.diameter_mm or 0.0, default=None)
    size = stock.smallest_mm if stock.smallest_mm is not None else stock.diameter_mm
    name = "smallest_mm" if stock.smallest_mm is not None else "diameter_mm"
    if size is not None and largest is not None and size < (largest.diameter_mm or 0.0) - 1e-9:
        words = Sentence(
            "Stock of this size does not clean up the {name}, Ø{d}.",
            name=largest.name.lower(),
            d=Figure(largest.diameter_mm or 0.0, "mm", exact=True),
        )
        problems.append(FieldError(f"part.stock.{name}", words))
    problems += _far_off(stock)
    for step in part.profile.outside:
        off = size is not None and abs(size - (step.diameter_mm or 0.0)) > FLAT_MM
        if step.flats and (step.flats != stock.flats or off):
            words = Sentence(
                "{name} is left as the bar is: the stock must be a {s} of {d} across flats.",
                name=step.name,
                s=step.left,
                d=Figure(step.diameter_mm or 0.0, "mm", exact=True),
            )
            problems.append(FieldError("part.stock." + ("section" if step.flats != stock.flats else name), words))
    for field in LISTS[1:]:
        for step in getattr(part.profile, field):
            if step.flats:
                words = Sentence("A bore is made: only an outside step can be left as the bar is.")
                problems.append(FieldError(f"{PROFILE}.{field}.{step.id}", words))
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


def _far_off(stock: Stock) -> Iterator[FieldError]:
    """A nominal size that cannot be that of the pieces measured: one of the three is mistyped."""
    d, low, high = stock.diameter_mm, stock.smallest_mm, stock.largest_mm
    if d is None:
        return
    if (low is not None and d < low * (1 - SPREAD)) or (high is not None and d > high * (1 + SPREAD)):
        words = "The pieces measured run from {a} to {b}; this is far from them: look at all three again."
        figures = {"a": Figure(low or d, "mm", exact=True), "b": Figure(high or d, "mm", exact=True)}
        yield FieldError("part.stock.diameter_mm", Sentence(words, **figures))


def _body(document: Document) -> Body:
    profile = document.part.profile
    try:
        return body_of(profile.outside, profile.inside, profile.inside_b, document.part.edge_mm)
    except CalcError as error:
        raise CalcError(FieldError(f"{PROFILE}.{e.field}", e.sentence) for e in error.errors) from error


def solve_part(asked: Asked) -> PartFigures:
    """Figures of the part. Raises Missing, or CalcError for contradictory facts."""
    document, shelf = asked.document, asked.shelf
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


PART = Solved("part", "Part", solve_part, per_side=False)

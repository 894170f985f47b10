"""Stop Part: what the print says, and what is gripped."""

from __future__ import annotations

from collections.abc import Mapping
from dataclasses import dataclass

from calc.errors import FieldError
from calc.plan.document import Document, OutsideStep
from calc.plan.shelf import Machine, Material, Shelf
from calc.plan.stops import Answer, Fact, Missing, Outcome, Stop, chosen, computed, entered
from calc.quantities import Bare, Figure, Sentence
from calc.working import ENTERED, Note, Step, Working, derived

OUTSIDE = "part.profile.outside"
BORE = "part.profile.inside.0.diameter_mm"
PART = derived("The part")
TIGHT_MM = 0.0254  # a tolerance below 0.001 in is printed with one place more


@dataclass(frozen=True)
class PartFigures:
    """What the other stops need of the part; lengths and diameters in mm."""

    machine: Machine
    material: Material
    grip_diameter_mm: float
    plain_length_mm: float
    length_mm: float
    bore_mm: float
    wall_mm: float
    edge_mm: float
    face_stock_mm: float
    places: tuple[int, int]
    working: tuple[Step, ...]
    notes: tuple[Note, ...]


def _wanted(document: Document, shelf: Shelf) -> list[tuple[str, str]]:
    missing = []
    if shelf.machine is None:
        missing.append(("machine", "Machine"))
    if shelf.material is None:
        missing.append(("material", "Material"))
    for i, step in enumerate(document.part.profile.outside):
        for name, label in (("diameter_mm", "diameter"), ("length_mm", "length")):
            if getattr(step, name) is None:
                missing.append((f"{OUTSIDE}.{i}.{name}", f"{step.name} {label}"))
    return missing


def _contradictions(document: Document) -> list[FieldError]:
    """Facts that cannot all be true, each at the fact to change."""
    errors = []
    profile = document.part.profile
    bore = profile.inside[0].diameter_mm if profile.inside else None
    for i, step in enumerate(profile.outside):
        if bore is not None and step.diameter_mm is not None and bore >= step.diameter_mm:
            size = Figure(step.diameter_mm, "mm", exact=True)
            bored = Figure(bore, "mm", exact=True)
            words = Sentence("The bore must be smaller than the {name}, Ø{d}.", name=step.name.lower(), d=size)
            errors.append(FieldError(BORE, words))
            path = f"{OUTSIDE}.{i}.diameter_mm"
            errors.append(FieldError(path, Sentence("This must be larger than the bore, Ø{d}.", d=bored)))
            break
    return errors


def solve_part(document: Document, shelf: Shelf) -> PartFigures:
    """Figures of the part. Raises Missing, or CalcError for contradictory facts."""
    from calc.errors import CalcError

    problems = _contradictions(document)
    if problems:
        raise CalcError(problems)
    missing = _wanted(document, shelf)
    if missing:
        raise Missing(*missing)
    assert shelf.machine is not None and shelf.material is not None
    profile = document.part.profile
    grip = profile.outside[0]
    assert grip.diameter_mm is not None and grip.length_mm is not None
    w = Working()
    lengths = {f"l_{i}": step.length_mm or 0.0 for i, step in enumerate(profile.outside, 1)}
    length = w.step("L", "Overall length", " + ".join(lengths), "mm", PART, **lengths)
    w.step("d_g", "Gripped diameter, nominal", "d", "mm", ENTERED, d=grip.diameter_mm)
    bore = (profile.inside[0].diameter_mm if profile.inside else None) or 0.0
    wall = w.step("s", "Wall at the grip", "(d_g - d_b) / 2", "mm", PART, d_g=grip.diameter_mm, d_b=bore)
    if bore > 0 and wall < grip.diameter_mm / 10:
        w.note(
            "caution", "thin-wall",
            "The wall at the grip is {wall}: three jaws may squeeze it out of round. Roundness is not computed yet.",
            wall=Figure(wall, "mm", "down"),
        )  # fmt: skip
    limits = grip.limits_mm
    places = (3, 4) if limits and limits[1] - limits[0] < TIGHT_MM else (2, 3)
    return PartFigures(
        machine=shelf.machine, material=shelf.material, grip_diameter_mm=grip.diameter_mm,
        plain_length_mm=grip.length_mm, length_mm=length, bore_mm=bore, wall_mm=wall, edge_mm=document.part.edge_mm,
        face_stock_mm=document.part.face_stock_mm, places=places, working=tuple(w.steps), notes=tuple(w.notes),
    )  # fmt: skip


def _limit(word: str, step: OutsideStep, which: int) -> Sentence | None:
    limits = step.limits_mm
    return Sentence("{w} {x}", w=word, x=Figure(limits[which], "mm", places=(3, 4))) if limits else None


def _facts(document: Document, shelf: Shelf, options: Mapping[str, Mapping[str, str]]) -> tuple[Fact, ...]:
    part = document.part
    profile = part.profile
    machine, material = shelf.machine, shelf.material
    facts = [
        chosen("machine", "Machine", "machine", machine.key if machine else None, options["machine"],
               Sentence("{n}, {p}", n=Figure(machine.max_rpm, "rpm"), p=Figure(machine.power_kw, "kW"))
               if machine else Sentence("choose one")),
        chosen("material", "Material", "material", material.key if material else None, options["material"],
               Sentence("ISO {g} · {low} to {high}", g=material.iso_group, low=Figure(material.speed_low_m_min, "m/min"),
                        high=Figure(material.speed_high_m_min, "m/min")) if material else Sentence("choose one"),
               basis="typical" if material and material.typical else "book"),
        entered("quantity", "part.quantity", part.quantity),
    ]  # fmt: skip
    for i, step in enumerate(profile.outside):
        at = f"{OUTSIDE}.{i}"
        role = "gripped" if i == 0 else "worked"
        facts.append(
            entered(f"outside_{i}_diameter", f"{at}.diameter_mm", step.diameter_mm, label=f"{step.name} diameter",
                    source=Sentence(f"print; {role}"))
        )  # fmt: skip
        if i == 0:
            facts += [
                entered(
                    "upper",
                    f"{at}.upper_mm",
                    step.upper_mm,
                    label=f"{step.name} upper limit",
                    source=_limit("largest", step, 1),
                ),
                entered(
                    "lower",
                    f"{at}.lower_mm",
                    step.lower_mm,
                    label=f"{step.name} lower limit",
                    source=_limit("smallest", step, 0),
                ),
            ]
        else:
            facts.append(
                entered(f"outside_{i}_stock", f"{at}.stock_diameter_mm", step.stock_diameter_mm,
                        label=f"{step.name} stock")
            )  # fmt: skip
        facts.append(
            entered(f"outside_{i}_length", f"{at}.length_mm", step.length_mm,
                    label=f"{step.name} plain length" if i == 0 else f"{step.name} length")
        )  # fmt: skip
    facts.append(computed("length", "Overall length", profile.length_mm, "mm", "sum of the steps"))
    facts.append(entered("face_stock", "part.face_stock_mm", part.face_stock_mm))
    if profile.inside:
        facts.append(entered("bore", BORE, profile.inside[0].diameter_mm, source=Sentence("finished; empty if solid")))
    facts.append(entered("edge", "part.edge_mm", part.edge_mm, source=Sentence("chamfer on the gripped end")))
    return tuple(facts)


def part_stop(
    document: Document, shelf: Shelf, outcome: Outcome[PartFigures], options: Mapping[str, Mapping[str, str]]
) -> Stop:
    """The stop as it is shown."""
    figures = outcome.value
    if figures is None:
        return Stop("part", "Part", outcome.state(()), outcome.line, _facts(document, shelf, options),
                    problems=outcome.problems)  # fmt: skip
    run = document.part.profile.outside[0].limits_mm
    limits = (
        Sentence("pieces run {low} to {high}", low=Figure(run[0], "mm", places=(3, 4)),
                 high=Figure(run[1], "mm", places=(3, 4))) if run else Sentence("no limits entered")
    )  # fmt: skip
    steps = figures.working
    answers = (
        Answer("outside_0_diameter", "Held on", Figure(figures.grip_diameter_mm, "mm", places=figures.places), "Ø ",
               below=limits, steps=steps[1:2]),
        Answer("length", "Overall", Figure(figures.length_mm, "mm"), steps=steps[:1],
               below=Sentence("{more} more stands on the face", more=Figure(figures.face_stock_mm, "mm"))
               if figures.face_stock_mm else None),
        Answer("wall", "Wall at the grip", Figure(figures.wall_mm, "mm", "down"), steps=steps[2:],
               below=Sentence("solid") if figures.bore_mm == 0 else Sentence("Ø{b} bored", b=Figure(figures.bore_mm, "mm"))),
    )  # fmt: skip
    largest = max((s.diameter_mm or 0.0) for s in document.part.profile.outside)
    line = Sentence("{m} · Ø {d} × {l}", m=figures.material.name, d=Bare(Figure(largest, "mm", exact=True, places=(2, 3))),
                    l=Figure(figures.length_mm, "mm", exact=True, places=(2, 3)))  # fmt: skip
    return Stop("part", "Part", outcome.state(figures.notes), line, _facts(document, shelf, options), answers,
                figures.notes)  # fmt: skip

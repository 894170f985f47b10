"""Stop Jaws: what to bore, how deep, what is left, and what the bored jaw weighs."""

from __future__ import annotations

from dataclasses import dataclass

from calc.jaws.mass import JawMassInput, JawMassResult, jaw_mass
from calc.plan.document import Setup
from calc.plan.hold import JAW_NOTES, HoldFigures
from calc.plan.part import OUTSIDE, PartFigures
from calc.plan.stops import Answer, Bar, Fact, Help, Outcome, Stop, computed, entered, naming
from calc.quantities import Bare, Figure, Sentence
from calc.working import Note


@dataclass(frozen=True)
class JawsFigures:
    """The bored jaw."""

    mass: JawMassResult
    notes: tuple[Note, ...]


def solve_jaws(at: str, hold: HoldFigures) -> JawsFigures:
    """The bored jaw's mass, and what its bore and weight must be told about. Raises CalcError."""
    blank, pocket = hold.blank, hold.pocket
    with naming({"bore_depth_mm": f"{at}.hold.depth_mm", "bore_radius_mm": f"{OUTSIDE}.0.diameter_mm"}):
        mass = jaw_mass(
            JawMassInput(
                side="od", kind="block", height_mm=hold.jaw_height_mm, density_kg_dm3=blank.density_kg_dm3,
                bore_radius_mm=pocket.bore_diameter_mm / 2, bore_depth_mm=pocket.bore_depth_mm,
                width_mm=blank.width_mm, length_mm=blank.length_mm, face_radius_mm=blank.face_radius_mm,
            )
        )  # fmt: skip
    notes = [n for n in pocket.notes if n.code in JAW_NOTES]
    heaviest = hold.chuck.heaviest_jaw_kg
    weight = Figure(mass.mass_kg, "kg", "up")
    if heaviest is None:
        notes.append(
            Note(
                "caution", "jaw-limit-unknown", "The chuck's book says no heaviest jaw here; this one is {m}.", m=weight
            )
        )
    elif mass.mass_kg > heaviest * (1 + 1e-9):
        notes.append(
            Note("stop", "jaw-too-heavy", "One top jaw is {m}; the chuck's book allows {most}: take a lighter jaw.",
                 m=weight, most=Figure(heaviest, "kg", "down"))
        )  # fmt: skip
    notes.append(
        Note("caution", "mounting", "Clean serrations and T-slots, T-nuts inside the chuck body, bolts to the book's torque, "
             "cover plate on.")
    )  # fmt: skip
    notes.append(Note("caution", "deburr", "Break the bored edges before loading: freshly bored jaws cut."))
    notes.append(Note("info", "boring-support", "What the jaws close on while they are bored is not planned yet."))
    return JawsFigures(mass, tuple(notes))


def _facts(at: str, setup: Setup, hold: HoldFigures | None, figures: JawsFigures | None) -> tuple[Fact, ...]:
    least = entered("floor_min", f"{at}.jaws.floor_min_mm", setup.jaws.floor_min_mm, basis="typical")
    clearance = entered("tool_clearance", f"{at}.jaws.tool_clearance_mm", setup.jaws.tool_clearance_mm)
    if hold is None:
        return (least, clearance)
    pocket, chuck = hold.pocket, hold.chuck
    facts = [
        computed("bore_diameter", "Bore", pocket.bore_diameter_mm, "mm", "nominal of what is gripped"),
        computed("depth", "Bore deep", pocket.bore_depth_mm, "mm",
                 Sentence("a third of the part is {third}", third=Figure(pocket.step("t/L").values["L"] / 3, "mm", "up"))),
        computed("floor", "Floor left", pocket.floor_mm, "mm", "above the bolt heads", rounding="down"),
        least,
        computed("groove_width", "Groove width", pocket.groove_width_mm, "mm", "along the wall", "typical"),
        computed("groove_depth", "Groove depth", pocket.groove_depth_mm, "mm", "into the wall", "typical"),
        computed("start_diameter", "Start bore at", pocket.start_diameter_mm, "mm", "clear of the jaw face", rounding="down"),
        clearance,
    ]  # fmt: skip
    if figures:
        most = chuck.heaviest_jaw_kg
        facts.append(
            computed("jaw_mass", "One top jaw", figures.mass.mass_kg, "kg",
                     Sentence("chuck allows {m}", m=Figure(most, "kg", "down")) if most else "chuck's limit unknown",
                     rounding="up")
        )  # fmt: skip
        facts.append(computed("jaw_centre", "Its centre", figures.mass.radius_mm, "mm", "from the axis"))
    metal = hold.blank.metal
    torque = chuck.bolt_torque_steel_nm if metal == "steel" else chuck.bolt_torque_aluminium_nm
    facts.append(computed("bolt_torque", f"Jaw bolts {chuck.bolt_size}".strip(), torque, "N*m",
                          f"chuck's book, {metal} jaws", "book", rounding="down"))  # fmt: skip
    return tuple(facts)


def jaws_stop(
    at: str, setup: Setup, part: PartFigures | None, hold: HoldFigures | None, outcome: Outcome[JawsFigures],
    helps: tuple[Help, ...],
) -> Stop:  # fmt: skip
    """The stop as it is shown."""
    figures = outcome.value
    facts = _facts(at, setup, hold, figures)
    if figures is None or hold is None or part is None:
        return Stop("jaws", "Jaws", outcome.state(()), outcome.line, facts, problems=outcome.problems)
    pocket = hold.pocket
    bore = Figure(pocket.bore_diameter_mm, "mm", places=part.places)
    depth = Figure(pocket.bore_depth_mm, "mm")
    usable = hold.usable_height_mm
    answers = (
        Answer("bore_diameter", "Bore the jaws to", bore, "Ø ", steps=(pocket.step("D_b"),),
               below=Sentence("start at Ø {s}", s=Figure(pocket.start_diameter_mm, "mm", "down"))),
        Answer("depth", "Deep, with groove", depth,
               below=Sentence("groove {w} × {d}", w=Figure(pocket.groove_width_mm, "mm"),
                              d=Figure(pocket.groove_depth_mm, "mm")),
               steps=tuple(s for s in pocket.working if s.symbol in ("t", "t_min", "b_g", "t_g", "l_g"))),
        Answer("floor", "Floor left", Figure(pocket.floor_mm, "mm", "down"), steps=(pocket.step("h_f"),),
               bar=Bar(max(0.0, min(1.0, pocket.floor_mm / usable)), min(1.0, setup.jaws.floor_min_mm / usable),
                       Sentence("{least} wanted above the bolt heads", least=Figure(setup.jaws.floor_min_mm, "mm")))),
    )  # fmt: skip
    line = Sentence("Ø {d} × {t} deep, floor groove", d=Bare(bore), t=Bare(depth))
    return Stop("jaws", "Jaws", outcome.state(figures.notes), line, facts, answers, figures.notes, helps)

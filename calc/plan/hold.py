"""Stop Hold: outside grip in soft jaws; which jaw, how deep, seated on what, with which friction."""

from __future__ import annotations

from dataclasses import dataclass

from calc.errors import FieldProblem
from calc.jaws.bore import JawBoreInput, JawBoreResult, jaw_bore
from calc.plan.document import FRICTION, SEAT, Setup
from calc.plan.part import OUTSIDE, PartFigures
from calc.plan.shelf import Chuck, JawBlank, SetupShelf
from calc.plan.stops import Answer, Bar, Fact, Missing, Outcome, Stop, chosen, computed, entered, naming
from calc.quantities import Figure, Sentence
from calc.working import Note, Step, Working, derived, typical

FRICTION_TYPICAL = {"turned": 0.10, "ground": 0.07, "rough": 0.15}
HEIGHT = derived("Where the grip acts")
JAW_NOTES = ("floor-too-thin", "no-metal", "large-groove")  # these belong to the stop Jaws


@dataclass(frozen=True)
class HoldFigures:
    """What the other stops need of the hold."""

    chuck: Chuck
    blank: JawBlank
    jaw_height_mm: float
    usable_height_mm: float
    pocket: JawBoreResult
    held_mm: float
    grip_height_mm: float
    friction: float
    height_steps: tuple[Step, ...]
    friction_steps: tuple[Step, ...]
    notes: tuple[Note, ...]


def _pocket(at: str, setup: Setup, blank: JawBlank, usable: float, part: PartFigures) -> JawBoreResult:
    paths = {
        "depth_mm": f"{at}.hold.depth_mm", "plain_length_mm": f"{OUTSIDE}.0.length_mm",
        "jaw_height_mm": f"{at}.hold.jaw_height_mm", "edge_mm": "part.edge_mm",
        "grip_diameter_mm": f"{OUTSIDE}.0.diameter_mm", "floor_min_mm": f"{at}.jaws.floor_min_mm",
        "tool_clearance_mm": f"{at}.jaws.tool_clearance_mm",
    }  # fmt: skip
    with naming(paths):
        return jaw_bore(
            JawBoreInput(
                side="od", grip_diameter_mm=part.grip_diameter_mm, part_length_mm=part.length_mm,
                jaw_height_mm=usable, face_radius_mm=blank.face_radius_mm, plain_length_mm=part.plain_length_mm,
                floor_min_mm=setup.jaws.floor_min_mm, edge_mm=part.edge_mm,
                tool_clearance_mm=setup.jaws.tool_clearance_mm, depth_mm=setup.hold.depth_mm,
                seat="face" if setup.hold.seat == "face" else "floor",
            )
        )  # fmt: skip


def solve_hold(at: str, setup: Setup, shelf: SetupShelf, part: PartFigures) -> HoldFigures:
    """Figures of the hold; `at` is the set-up's path. Raises Missing or CalcError."""
    chuck, blank = shelf.chuck, shelf.blank
    if chuck is None or blank is None:
        wanted = [(f"{at}.chuck", "Chuck")] if chuck is None else []
        raise Missing(*wanted, *([(f"{at}.jaw_blank", "Jaw blank")] if blank is None else []))
    if not shelf.on_machine:
        words = Sentence("{c} is not on {m}; choose one that is.", c=chuck.name, m=part.machine.name)
        raise FieldProblem(f"{at}.chuck", words)
    if blank.key not in {b.key for b in shelf.blanks}:
        words = Sentence("{b} does not fit {c}; choose one that does.", b=blank.name, c=chuck.name)
        raise FieldProblem(f"{at}.jaw_blank", words)
    height = setup.hold.jaw_height_mm or blank.height_mm
    if height > blank.height_mm:
        raise FieldProblem(
            f"{at}.hold.jaw_height_mm",
            Sentence("The blank is {h} high; give that or less.", h=Figure(blank.height_mm, "mm", "down", exact=True)),
        )
    if height <= blank.bolt_head_mm:
        raise FieldProblem(
            f"{at}.hold.jaw_height_mm",
            Sentence(
                "The bolt heads reach to {h}; the jaw must be higher.",
                h=Figure(blank.bolt_head_mm, "mm", "up", exact=True),
            ),
        )
    pocket = _pocket(at, setup, blank, height - blank.bolt_head_mm, part)
    held = min(part.plain_length_mm, pocket.bore_depth_mm)
    w = Working()
    grip_height = w.step(
        "h", "Middle of the grip above the guide", "h_b + H - t/2", "mm", HEIGHT,
        h_b=chuck.guide_to_jaw_base_mm, H=height, t=held,
    )  # fmt: skip
    f = Working()
    pair = setup.hold.friction
    friction = f.step(
        "μ", "Friction of the pair", "μ_0 * k_m", "", typical(FRICTION.options[pair]),
        μ_0=FRICTION_TYPICAL[pair], k_m=part.material.friction_multiplier,
    )  # fmt: skip
    notes = [n for n in pocket.notes if n.code not in JAW_NOTES]
    if setup.hold.seat == "none":
        notes.append(
            Note("caution", "not-seated", "Nothing carries the axial force but grip: it counts against slipping.")
        )
    return HoldFigures(
        chuck=chuck, blank=blank, jaw_height_mm=height, usable_height_mm=height - blank.bolt_head_mm, pocket=pocket,
        held_mm=held, grip_height_mm=grip_height, friction=friction, height_steps=tuple(w.steps),
        friction_steps=tuple(f.steps), notes=tuple(notes),
    )  # fmt: skip


def _facts(
    at: str, setup: Setup, shelf: SetupShelf, figures: HoldFigures | None, chucks: dict[str, str]
) -> tuple[Fact, ...]:
    hold, blank, chuck = setup.hold, shelf.blank, shelf.chuck
    blanks = {b.key: b.name for b in shelf.blanks}
    facts = [
        chosen("chuck", "Chuck", f"{at}.chuck", chuck.key if chuck else None, chucks,
               Sentence("{rpm}, {bar}, {grip}", rpm=Figure(chuck.max_rpm, "rpm"),
                        bar=Figure(chuck.force.max_pressure_bar, "bar", "down"),
                        grip=Figure(chuck.force.max_grip_n, "N", "down")) if chuck else Sentence("choose one")),
        chosen("blank", "Jaw blank", f"{at}.jaw_blank", blank.key if blank else None, blanks,
               Sentence("{m}, {w} × {l}", m=blank.metal, w=Figure(blank.width_mm, "mm", exact=True, places=(2, 3)),
                        l=Figure(blank.length_mm, "mm", exact=True, places=(2, 3))) if blank else Sentence("choose one")),
        entered("jaw_height", f"{at}.hold.jaw_height_mm", hold.jaw_height_mm,
                source=Sentence("the blank is {h}", h=Figure(blank.height_mm, "mm")) if blank else None),
        entered("depth", f"{at}.hold.depth_mm", hold.depth_mm,
                source=Sentence("{got} here; a third rule", got=Figure(figures.pocket.bore_depth_mm, "mm"))
                if figures and hold.depth_mm is None else Sentence("a third of the part is the rule")),
        entered("seat", f"{at}.hold.seat", hold.seat),
        entered("live_centre", f"{at}.hold.live_centre", hold.live_centre),
        entered("friction_pair", f"{at}.hold.friction", hold.friction),
    ]  # fmt: skip
    if figures:
        facts += [
            computed("friction", "Friction", figures.friction, "", "typical for the pair, × material", "typical",
                     rounding="down", places=(3, 3)),
            computed("grip_length", "Touches over", figures.pocket.grip_length_mm, "mm", "depth less groove and edge",
                     rounding="down"),
            computed("grip_height", "Grip height", figures.grip_height_mm, "mm", "middle of the grip above the guide",
                     rounding="up"),
        ]  # fmt: skip
    return tuple(facts)


def hold_stop(at: str, setup: Setup, shelf: SetupShelf, outcome: Outcome[HoldFigures], chucks: dict[str, str]) -> Stop:
    """The stop as it is shown."""
    figures = outcome.value
    facts = _facts(at, setup, shelf, figures, chucks)
    if figures is None:
        return Stop("hold", "Hold", outcome.state(()), outcome.line, facts, problems=outcome.problems)
    pocket = figures.pocket
    third = pocket.step("t/L")
    answers = (
        Answer(
            "depth", "Grip deep", Figure(figures.held_mm, "mm"),
            below=Sentence("{share} of the part's length", share=Figure(100 * third.value, "%", "down")),
            steps=tuple(s for s in pocket.working if s.symbol in ("t", "t/L", "l_g")),
            bar=Bar(min(1.0, third.value), 1 / 3, Sentence("a third is the rule")),
        ),
        Answer("friction", "Friction", Figure(figures.friction, "", "down", places=(3, 3)), steps=figures.friction_steps,
               below=Sentence("typical, {pair}", pair=FRICTION.options[setup.hold.friction])),
        Answer("grip_height", "Grip acts at", Figure(figures.grip_height_mm, "mm", "up"), steps=figures.height_steps,
               below=Sentence("above the guide; chuck rated at {h}",
                              h=Figure(figures.chuck.force.reference_height_mm, "mm"))),
    )  # fmt: skip
    line = Sentence(
        "outside Ø {d} · {m} jaws",
        d=Figure(pocket.bore_diameter_mm, "mm", exact=True, places=(2, 3)),
        m=figures.blank.metal,
    )
    seat = Note("info", "seat", "Seated on {seat}.", seat=SEAT.options[setup.hold.seat])
    notes = figures.notes if setup.hold.seat == "none" else (*figures.notes, seat)
    return Stop("hold", "Hold", outcome.state(notes), line, facts, answers, notes)

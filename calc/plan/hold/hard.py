"""A part in hard jaws: they come with their step, and only the tooth is chosen."""

from __future__ import annotations

from dataclasses import replace
from math import asin, degrees

from calc.errors import FieldProblem
from calc.jaws.bore import JawBoreResult
from calc.jaws.position import JawPositionInput, JawPositionResult, jaw_position
from calc.plan.outcome import Asked, naming
from calc.profile.grips import Grip
from calc.quantities import Figure, Sentence
from calc.shelf.chuck import Chuck
from calc.shelf.jaw_blank import JawBlank
from calc.working import BOOK, Note, Working, derived

HARD = derived("Hard jaws")
RUNS_OUT = Note(
    "caution",
    "hard-runs-out",
    "Hard jaws hold to 0.05 to 0.1 mm of run-out and leave marks: nothing that is held in them is put back.",
)
TELLS = ("tnut-outside", "jaws-meet")  # of the tooth: the rest speaks of boring


def face_0(blank: JawBlank, grip: Grip) -> float:
    """Radius [mm] of the face that grips, in tooth 0 at mid-stroke."""
    return blank.face_radius_mm if grip.side == "od" else blank.outer_radius_mm


def used_of_stroke(chuck: Chuck, face_mm: float, grip: Grip) -> float:
    """Share of the stroke [-] that is used when jaws with this face radius at mid-stroke hold the nominal size."""
    sign = 1.0 if grip.side == "od" else -1.0
    return 0.5 + sign * (face_mm - grip.diameter_mm / 2) / chuck.jaw_stroke_mm


def hard_mount(asked: Asked, chuck: Chuck, blank: JawBlank, grip: Grip) -> JawPositionResult | None:
    """The tooth nearest to mid-stroke, or the one that is entered; None where the chuck's teeth are not on record."""
    if chuck.teeth is None or chuck.tnut_radius_0_mm is None or blank.width_mm is None:
        return None
    teeth = [
        k
        for k in range(chuck.teeth)
        if chuck.tnut_radius_0_mm + k * chuck.serration_pitch_mm <= chuck.body_diameter_mm / 2 + 1e-9
    ]

    def off(k: int) -> float:
        return abs(used_of_stroke(chuck, face_0(blank, grip) + k * chuck.serration_pitch_mm, grip) - 0.5)

    best = min(teeth or [0], key=off)
    at, entered = asked.at, asked.setup.jaws.tooth
    with naming({"tooth": f"{at}.jaws.tooth", "grip_diameter_mm": f"{at}.hold.grip"}):
        found = jaw_position(
            JawPositionInput(
                side=grip.side,
                grip_diameter_mm=grip.diameter_mm,
                jaw_width_mm=blank.width_mm,
                face_radius_0_mm=face_0(blank, grip),
                tnut_radius_0_mm=chuck.tnut_radius_0_mm,
                pitch_mm=chuck.serration_pitch_mm,
                teeth=chuck.teeth,
                body_radius_mm=chuck.body_diameter_mm / 2,
                cleanup_mm=0.0,
                jaws=chuck.jaws,
                closing_travel_mm=chuck.jaw_stroke_mm / 2,
                jaw_length_mm=blank.length_mm,
                tooth=best if entered is None else entered,
            )
        )
    return replace(found, notes=tuple(n for n in found.notes if n.code in TELLS))


def hard_notes(mount: JawPositionResult | None, chuck: Chuck, blank: JawBlank, grip: Grip) -> tuple[Note, ...]:
    """Whether the jaws reach, and what they are never used for."""
    face = mount.face_radius_mm if mount else face_0(blank, grip)
    if 0 <= used_of_stroke(chuck, face, grip) <= 1:
        return (RUNS_OUT,)
    words = "In this tooth the hard jaws close on Ø{a} to Ø{b}, not on Ø{d}: take another tooth, or other jaws."
    half = chuck.jaw_stroke_mm / 2
    figures = {
        "a": Figure(max(0.0, 2 * (face - half)), "mm", "up"),
        "b": Figure(2 * (face + half), "mm", "down"),
        "d": Figure(grip.diameter_mm, "mm", exact=True),
    }
    return (RUNS_OUT, Note("stop", "hard-out-of-reach", words, **figures))


def hard_pocket(asked: Asked, blank: JawBlank, grip: Grip, usable_mm: float, long_mm: float) -> JawBoreResult:
    """The step of the jaw as a pocket that is there already. Raises FieldProblem where the part does not go in."""
    step, path = blank.step_mm or 0.0, f"{asked.at}.jaw_blank"
    plain = min(grip.plain_mm, long_mm)
    if step > plain + 1e-9:
        words = Sentence(
            "The step of {b} is {x} deep and only {p} of the part goes in: take jaws with a shorter step.",
            b=blank.name,
            x=Figure(step, "mm", "up"),
            p=Figure(plain, "mm", "down"),
        )
        raise FieldProblem(path, words)
    w = Working()
    wide = w.step("D_b", "Closes on the nominal of what is gripped", "d_g", "mm", HARD, d_g=grip.diameter_mm)
    deep = w.step("t", "The jaw's step", "t_s", "mm", BOOK, t_s=step)
    edge = grip.edge_mm or (asked.document.part.edge_mm if grip.finished else 0.0)
    text = "max(0, t - max(e, o))"
    touching = w.step("l_g", "Length that touches", text, "mm", HARD, t=deep, e=edge, o=grip.offset_mm)
    if touching <= 0:
        raise FieldProblem(path, "Nothing of this step touches the part: take jaws with a longer one.")
    share = w.step("t/L", "Share of the part's length", "t / L", "", HARD, t=deep - grip.offset_mm, L=long_mm)
    if share < 1 / 3 - 1e-9:
        short = "Held on {share} of its length; a third is the rule. Tilt is counted in Force."
        w.note("caution", "short-grip", short, share=Figure(100 * share, "%", "down"))
    return JawBoreResult(
        bore_diameter_mm=wide,
        bore_depth_mm=deep,
        floor_mm=usable_mm - step,
        grip_fraction=share,
        start_diameter_mm=wide,
        groove_width_mm=0.0,
        groove_depth_mm=0.0,
        grip_length_mm=touching,
        working=tuple(w.steps),
        notes=tuple(w.notes),
    )


def wrap_of(blank: JawBlank, grip: Grip) -> float:
    """How far one flat-faced jaw reaches round [deg]: it touches along its middle line, counted over its width."""
    half = (blank.width_mm or 0.0) / 2
    return 2 * degrees(asin(min(1.0, half / (grip.diameter_mm / 2))))

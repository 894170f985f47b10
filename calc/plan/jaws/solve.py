"""Stop Jaws solved: tooth, stroke, what they close on, contact, taper, weight, and what an old set can do."""

from __future__ import annotations

from dataclasses import dataclass, replace

from calc.chuck.grip import ChuckGripInput, chuck_grip
from calc.errors import CalcError
from calc.jaws.backing import BoringPlug, BoringRing, JawBackingInput, JawBackingResult, jaw_backing
from calc.jaws.keep import Keep, SetState, Wanted, keep_or_recut
from calc.jaws.mass import JawMassInput, JawMassResult, jaw_mass
from calc.jaws.recut import JawRecutInput, JawRecutResult, jaw_recut
from calc.jaws.stroke import TO_GRIP_MM, JawStrokeInput, JawStrokeResult, jaw_stroke
from calc.jaws.taper import JawTaperInput, JawTaperResult, jaw_taper
from calc.plan.chuck_condition import condition_of, known_of
from calc.plan.document import Setup
from calc.plan.hold.figures import JawHold
from calc.plan.hold.hard import face_0, used_of_stroke
from calc.plan.hold.in_jaws import JAW_NOTES, TEETH_UNKNOWN
from calc.plan.hold.solve import JAW_HOLD
from calc.plan.outcome import Asked, Missing, Solved, naming
from calc.quantities import Figure
from calc.rules import Rules
from calc.shelf.taken import SetupShelf
from calc.working import Note

MODULI = {"steel": 205.0, "aluminium": 70.0}
PIECES = ("smallest", "nominal", "largest")
THIN_JAW_MM = 8.0  # typical: less metal than this behind the bore bends too far to trust


@dataclass(frozen=True)
class JawsFigures:
    """The bored jaw, how it is bored, how pieces sit in it, and what an old set can do."""

    mass: JawMassResult
    thickness_mm: float
    stroke: JawStrokeResult
    backing: JawBackingResult | None
    taper: JawTaperResult | None
    taper_mm: float | None
    keep: Keep | None
    recut: JawRecutResult | None
    notes: tuple[Note, ...]


def _mass(at: str, hold: JawHold) -> JawMassResult:
    blank, own, other = hold.blank, hold.pocket, hold.other
    outer, inner = own, other
    if other is not None and other.bore_diameter_mm > own.bore_diameter_mm:
        outer, inner = other, own
    outside = hold.side == "od"
    near = hold.face_radius_mm if outside else hold.face_radius_mm - blank.length_mm
    pie = blank.kind == "pie"
    names = {
        "bore_depth_mm": f"{at}.hold.depth_mm",
        "bore_radius_mm": f"{at}.hold.grip",
        "face_radius_mm": f"{at}.jaw_blank",
    }
    with naming(names):
        return jaw_mass(
            JawMassInput(
                side=hold.side,
                kind="pie" if pie else "block",
                height_mm=hold.jaw_height_mm,
                density_kg_dm3=blank.density_kg_dm3,
                bore_radius_mm=outer.bore_diameter_mm / 2,
                bore_depth_mm=outer.bore_depth_mm,
                width_mm=None if pie else blank.width_mm,
                length_mm=None if pie else blank.length_mm,
                face_radius_mm=None if pie else max(0.0, near),
                inner_radius_mm=max(0.0, near) if pie else None,
                outer_radius_mm=near + blank.length_mm if pie else None,
                angle_deg=blank.angle_deg,
                inner_bore_radius_mm=inner.bore_diameter_mm / 2 if inner else 0.0,
                inner_bore_depth_mm=inner.bore_depth_mm if inner else 0.0,
            )
        )


def _weight_notes(hold: JawHold, mass: JawMassResult) -> list[Note]:
    heaviest, weight = hold.chuck.heaviest_jaw_kg, Figure(mass.mass_kg, "kg", "up")
    if heaviest is None:
        return [
            Note(
                "caution", "jaw-limit-unknown", "The chuck's book says no heaviest jaw here; this one is {m}.", m=weight
            )
        ]
    if mass.mass_kg > heaviest * (1 + 1e-9):
        return [
            Note(
                "stop",
                "jaw-too-heavy",
                "One top jaw is {m}; the chuck's book allows {most}: take a lighter jaw.",
                m=weight,
                most=Figure(heaviest, "kg", "down"),
            )
        ]
    return []


def _stroke(at: str, setup: Setup, hold: JawHold) -> JawStrokeResult:
    used = setup.jaws.position
    if hold.blank.is_hard:  # they close where they are, not where they were bored
        face = hold.mount.face_radius_mm if hold.mount else face_0(hold.blank, hold.grip)
        used = min(1.0, max(0.0, used_of_stroke(hold.chuck, face, hold.grip)))
    with naming({"position": f"{at}.jaws.position"}):
        return jaw_stroke(
            JawStrokeInput(
                side=hold.side,
                stroke_mm=hold.chuck.jaw_stroke_mm,
                position=used,
                nominal_mm=hold.pocket.bore_diameter_mm,
                largest_mm=hold.grip.largest_mm,
                smallest_mm=hold.grip.smallest_mm,
            )
        )


def least_plug(setup: Setup, hold: JawHold) -> float:
    """The smallest plug [mm] that the jaws reach with metal to spare for its seat; 0 inside.

    The part later closes where the plug did: the travel that its spread needs is left.
    """
    if hold.side == "id":
        return 0.0
    left = hold.chuck.jaw_stroke_mm * (1 - setup.jaws.position)
    spread = hold.grip.diameter_mm - hold.grip.smallest_mm
    usable = max(0.0, left - (spread + TO_GRIP_MM) / 2)
    return max(0.0, 2 * (hold.face_radius_mm - usable) + 2 * setup.jaws.cleanup_mm)


def _backing(asked: Asked, hold: JawHold, rules: Rules) -> JawBackingResult | None:
    at, setup, shelf = asked.at, asked.setup, asked.taken
    pressure = setup.force.pressure_bar
    if pressure is None or hold.blank.is_hard or not (shelf.rings or shelf.plugs):
        return None
    widest = max(p.bore_diameter_mm for p in (hold.pocket, hold.other) if p)
    clearance = setup.jaws.ring_clearance_mm
    room = widest - 2 * clearance
    least = least_plug(setup, hold)
    sizes = sorted((p.diameter_mm for p in shelf.plugs), reverse=True)
    plugs = [d for d in sizes if least <= d <= room] or [d for d in sizes if d <= room] or sizes
    with naming({"tool_clearance_mm": f"{at}.jaws.ring_clearance_mm", "pressure_bar": f"{at}.force.pressure_bar"}):
        return jaw_backing(
            JawBackingInput(
                side=hold.side,
                grip_diameter_mm=widest,
                pressure_bar=pressure,
                tool_clearance_mm=clearance,
                prefer=rules.jaw_boring,
                rings=tuple(BoringRing(r.name, r.inner_mm, r.outer_mm, r.max_bar, r.max_rpm) for r in shelf.rings),
                least_plug_mm=least,
                plug=BoringPlug(plugs[0]) if plugs and hold.side == "od" else None,
            )
        )


def _per_jaw(pressure: float, condition: float, hold: JawHold) -> float | None:
    """Force of one jaw [N]; None where the chuck's chart does not reach."""
    try:
        given = ChuckGripInput(pressure, hold.grip_height_mm, hold.chuck.force, condition, hold.chuck.jaws)
        return chuck_grip(given).per_jaw_n
    except CalcError:
        return None


def _taper(asked: Asked, backing: JawBackingResult | None, thickness: float) -> JawTaperResult | None:
    hold, force = asked.need(JAW_HOLD), asked.setup.force
    pressure = force.pressure_bar
    if pressure is None or backing is None or backing.bore_pressure_bar is None or thickness <= 0:
        return None
    try:
        condition = condition_of(asked.at, force, known_of(asked)).factor
    except Missing:
        return None
    held, bored = (_per_jaw(p, condition, hold) for p in (pressure, backing.bore_pressure_bar))
    if held is None or bored is None:
        return None
    try:
        return jaw_taper(
            JawTaperInput(
                held,
                bored,
                hold.grip_height_mm - hold.chuck.guide_to_jaw_base_mm,
                hold.pocket.grip_length_mm,
                hold.width_mm,
                thickness,
                MODULI[hold.blank.metal],
                bends_times=asked.taken.jaw_set.bends_times if asked.taken.jaw_set is not None else None,
            )
        )
    except CalcError:
        return None


def taper_in_use(setup: Setup, taper: JawTaperResult | None) -> float | None:
    """Taper to cut, on diameter [mm]: from the feeler where there is one, corrected by the blue; None: not known."""
    jaws = setup.jaws
    if jaws.feeler_mm is not None:
        found = 2 * jaws.feeler_mm
    elif taper is not None:
        found = taper.taper_on_diameter_mm if taper.needed else 0.0
    else:
        return None
    # Blue creeping in at the base first: too much taper; at the tip: too little.
    found += {"base": -jaws.taper_step_mm, "tip": jaws.taper_step_mm}.get(jaws.blue, 0.0)
    return max(0.0, found)


def _keep(setup: Setup, shelf: SetupShelf, hold: JawHold, stroke: JawStrokeResult) -> Keep | None:
    chosen = shelf.jaw_set
    if chosen is None or hold.blank.is_hard:
        return None
    state = SetState(
        chosen.side,
        chosen.bored_mm,
        chosen.depth_mm,
        chosen.tooth,
        chosen.chuck_key == hold.chuck.key,
        chosen.marked,
        chosen.lent_to,
        chosen.damage_mm,
        chosen.wall_left_mm,
    )
    tooth = hold.mount.tooth if hold.mount else 0
    return keep_or_recut(
        state,
        Wanted(
            hold.side,
            hold.pocket.bore_diameter_mm,
            hold.pocket.bore_depth_mm,
            tooth,
            stroke.load_clearance_mm + stroke.closing_travel_mm,
            setup.jaws.recut_limit_mm,
        ),
    )


def _recut(at: str, setup: Setup, shelf: SetupShelf, hold: JawHold) -> JawRecutResult | None:
    chosen, reading = shelf.jaw_set, setup.jaws.reading_mm
    if chosen is None or reading is None or hold.blank.is_hard:
        return None
    with naming(
        {
            "reading_mm": f"{at}.jaws.reading_mm",
            "limit_mm": f"{at}.jaws.recut_limit_mm",
            "damage_mm": f"{at}.jaws.recut_limit_mm",
            "paper_mm": f"{at}.jaws.paper_mm",
        }
    ):
        return jaw_recut(
            JawRecutInput(
                hold.side,
                reading,
                hold.pocket.bore_diameter_mm,
                setup.jaws.paper_mm,
                max(chosen.damage_mm, 0.05),
                setup.jaws.recut_limit_mm,
                chosen.wall_left_mm,
            )
        )


def solve_jaws(asked: Asked) -> JawsFigures:
    """All of the jaws' figures. Raises CalcError, Waiting."""
    at, setup, shelf, hold = asked.at, asked.setup, asked.taken, asked.need(JAW_HOLD)
    mass = asked.share(JAW_MASS)
    blank, radius = hold.blank, hold.pocket.bore_diameter_mm / 2
    # What stands behind the grip, radially: outside to the jaw's outer end, inside to its inner one.
    thickness = (
        hold.face_radius_mm + blank.length_mm - radius
        if hold.side == "od"
        else radius - (hold.face_radius_mm - blank.length_mm)
    )
    stroke = _stroke(at, setup, hold)
    backing = _backing(asked, hold, asked.rules)
    taper = _taper(asked, backing, thickness)
    keep = _keep(setup, shelf, hold, stroke)
    made = JawsFigures(
        mass=mass,
        thickness_mm=thickness,
        stroke=stroke,
        backing=backing,
        taper=taper,
        taper_mm=taper_in_use(setup, taper),
        keep=keep,
        recut=_recut(at, setup, shelf, hold),
        notes=(),
    )
    return replace(made, notes=tuple(_notes(shelf, hold, made)))


def _notes(shelf: SetupShelf, hold: JawHold, made: JawsFigures) -> list[Note]:
    notes = [n for n in hold.pocket.notes if n.code in JAW_NOTES]
    notes += list(hold.mount.notes) if hold.mount else [] if hold.blank.kind == "pie" else [TEETH_UNKNOWN]
    # The tooth and the pocket both look for metal to bore: one of them says it.
    notes = [n for i, n in enumerate(notes) if n.code not in {m.code for m in notes[:i]}]
    if made.thickness_mm <= 0:
        notes.append(
            Note(
                "stop",
                "breaks-out",
                "The bore breaks out of the back of the jaw: take a longer jaw, or mount further out.",
            )
        )
    elif made.thickness_mm < THIN_JAW_MM:
        notes.append(
            Note(
                "caution",
                "thin-jaw",
                "{x} of metal is left behind the grip: the jaw will bend.",
                x=Figure(made.thickness_mm, "mm", "down"),
            )
        )
    notes += _weight_notes(hold, made.mass)
    notes += [n for n in made.stroke.notes if n.level != "info"]
    if not hold.blank.is_hard and not (shelf.rings or shelf.plugs):
        notes.append(
            Note(
                "caution",
                "rings-unknown",
                "No ring or plug is on the shelf for this chuck: what the jaws close on while they are cut is not "
                "planned.",
            )
        )
    if made.backing:
        notes += [n for n in made.backing.notes if n.level != "info"]
    if made.keep is not None and made.keep.verdict == "unfit":
        notes.append(
            Note(
                "stop",
                "set-unfit",
                "The jaw set will not do: {why}. Choose another, or plan a new blank.",
                why=made.keep.reasons[0],
            )
        )
    if made.recut is not None:
        notes += list(made.recut.notes)
    notes.append(
        Note(
            "caution",
            "mounting",
            "Clean serrations and T-slots, T-nuts inside the chuck body, bolts to the book's torque, cover plate on.",
        )
    )
    if not hold.blank.is_hard:
        notes.append(Note("caution", "deburr", "Break the jaws' edges before loading: freshly cut jaws cut hands."))
    return notes


# What speed takes of the grip rests on it, and no pressure does.
JAW_MASS = Solved("jaw_mass", "Jaws", lambda asked: _mass(asked.at, asked.need(JAW_HOLD)))
JAWS = Solved("jaws", "Jaws", solve_jaws)

"""A part held in top jaws: which tooth, how deep, seated on what."""

from __future__ import annotations

from dataclasses import dataclass, replace
from math import asin, degrees, sqrt
from typing import Literal

from calc.errors import FieldProblem
from calc.jaws.bore import JawBoreInput, JawBoreResult, jaw_bore
from calc.jaws.position import JawPositionInput, JawPositionResult, jaw_position
from calc.plan.document import Setup
from calc.plan.hold.figures import JawHold
from calc.plan.hold.gripped import centre_hole, grip_of, raw_behind, rubs, stick_out
from calc.plan.hold.hard import hard_mount, hard_notes, hard_pocket, wrap_of
from calc.plan.hold.judged import judged, judged_in_jaws
from calc.plan.outcome import Asked, Missing, naming
from calc.plan.part.solve import PART, PartFigures
from calc.plan.sides.solve import SIDES
from calc.profile.grips import Grip
from calc.quantities import Figure, Sentence
from calc.shelf.chuck import Chuck
from calc.shelf.jaw_blank import JawBlank
from calc.shelf.taken import SetupShelf
from calc.working import Note, Working, derived

OF_STOCK: dict[str, Literal["turned", "ground", "rough"]] = {"rough": "rough", "drawn": "ground", "turned": "turned"}
HEIGHT = derived("Where the grip acts")
JAW_NOTES = ("floor-too-thin", "deeper-than-jaw", "no-metal", "large-groove")  # these belong to the stop Jaws
RECESS_BESIDE = 1.5  # of the least clearance, beside the bore
TEETH_UNKNOWN = Note(
    "caution", "teeth-unknown", "The chuck's teeth and T-nut are not on record: the jaws are planned as in tooth 0."
)


def _mount(at: str, setup: Setup, chuck: Chuck, blank: JawBlank, grip: Grip) -> JawPositionResult | None:
    """The tooth, None for pie jaws and where the chuck's teeth are not on record."""
    if blank.kind == "pie" or blank.width_mm is None or chuck.teeth is None or chuck.tnut_radius_0_mm is None:
        return None
    names = {
        "tooth": f"{at}.jaws.tooth",
        "cleanup_mm": f"{at}.jaws.cleanup_mm",
        "grip_diameter_mm": f"{at}.hold.grip",
        "jaw_length_mm": f"{at}.jaw_blank",
        "face_radius_0_mm": f"{at}.jaw_blank",
    }
    with naming(names):
        return jaw_position(
            JawPositionInput(
                side=grip.side,
                grip_diameter_mm=grip.diameter_mm,
                jaw_width_mm=blank.width_mm,
                face_radius_0_mm=blank.face_radius_mm if grip.side == "od" else blank.outer_radius_mm,
                tnut_radius_0_mm=chuck.tnut_radius_0_mm,
                pitch_mm=chuck.serration_pitch_mm,
                teeth=chuck.teeth,
                body_radius_mm=chuck.body_diameter_mm / 2,
                cleanup_mm=setup.jaws.cleanup_mm,
                jaws=chuck.jaws,
                closing_travel_mm=chuck.jaw_stroke_mm * (1 - setup.jaws.position),
                jaw_length_mm=blank.length_mm,
                tooth=setup.jaws.tooth,
            )
        )


def _faces(mount: JawPositionResult | None, blank: JawBlank, grip: Grip) -> tuple[float, float]:
    """(radius of the face that is bored or turned [mm], wrap of one jaw [deg])."""
    outside = grip.side == "od"
    if mount is not None:
        return mount.face_radius_mm, mount.wrap_deg
    face = blank.face_radius_mm if outside else blank.outer_radius_mm
    if blank.kind == "pie":
        assert blank.angle_deg is not None
        return face, blank.angle_deg
    radius, half = grip.diameter_mm / 2, (blank.width_mm or 0.0) / 2
    chord = min(half, sqrt(max(0.0, radius**2 - face**2))) if outside else min(half, radius)
    return face, 2 * degrees(asin(min(1.0, chord / radius)))


@dataclass(frozen=True)
class Room:
    """What there is for a pocket [mm]: usable jaw height, the length that is worked, the radius of the jaw's face."""

    height_mm: float
    work_length_mm: float
    face_radius_mm: float
    stick_out_mm: float | None

    @property
    def longest_mm(self) -> float:
        """What a third is taken of: the work, or of a bar what sticks out; a bar fills all of a jaw."""
        return self.work_length_mm if self.stick_out_mm is None else max(self.stick_out_mm, self.height_mm)


def _pocket(asked: Asked, grip: Grip, room: Room) -> JawBoreResult:
    at, setup, part = asked.at, asked.setup, asked.need(PART)
    paths = {
        "depth_mm": f"{at}.hold.depth_mm",
        "plain_length_mm": f"{at}.hold.grip",
        "offset_mm": f"{at}.hold.grip",
        "jaw_height_mm": f"{at}.hold.jaw_height_mm",
        "edge_mm": "part.edge_mm",
        "grip_diameter_mm": f"{at}.hold.grip",
        "floor_min_mm": f"{at}.jaws.floor_min_mm",
        "tool_clearance_mm": f"{at}.jaws.tool_clearance_mm",
    }
    with naming(paths):
        return jaw_bore(
            JawBoreInput(
                side=grip.side,
                grip_diameter_mm=grip.diameter_mm,
                part_length_mm=room.longest_mm,
                jaw_height_mm=room.height_mm,
                face_radius_mm=room.face_radius_mm,
                plain_length_mm=min(grip.plain_mm, room.longest_mm),
                floor_min_mm=setup.jaws.floor_min_mm,
                edge_mm=grip.edge_mm or (part.edge_mm if grip.finished else 0.0),
                tool_clearance_mm=setup.jaws.tool_clearance_mm,
                depth_mm=setup.hold.depth_mm,
                seat="face" if setup.hold.seat == "face" else "floor",
                offset_mm=grip.offset_mm,
            )
        )


def _chosen(at: str, setup: Setup, shelf: SetupShelf) -> tuple[Chuck, JawBlank, float]:
    """(chuck, blank, jaw height). Raises Missing or CalcError."""
    chuck, blank = shelf.chuck, shelf.blank
    if chuck is None or blank is None:
        wanted = [(f"{at}.chuck", "Chuck")] if chuck is None else []
        raise Missing(*wanted, *([(f"{at}.jaw_blank", "Top jaw")] if blank is None else []))
    if blank.key not in {b.key for b in shelf.blanks}:
        words = Sentence("{b} does not fit {c}; choose one that does.", b=blank.name, c=chuck.name)
        raise FieldProblem(f"{at}.jaw_blank", words)
    height, path = setup.hold.jaw_height_mm or blank.height_mm, f"{at}.hold.jaw_height_mm"
    if height > blank.height_mm:
        words = Sentence(
            "The blank is {h} high; give that or less.", h=Figure(blank.height_mm, "mm", "down", exact=True)
        )
        raise FieldProblem(path, words)
    if height <= blank.bolt_head_mm:
        words = Sentence(
            "The bolt heads reach to {h}; the jaw must be higher.", h=Figure(blank.bolt_head_mm, "mm", "up", exact=True)
        )
        raise FieldProblem(path, words)
    return chuck, blank, height


def _pair(setup: Setup, grip: Grip, part: PartFigures, blank: JawBlank) -> str:
    if blank.is_hard:
        return "hard"
    if setup.hold.friction != "auto":
        return setup.hold.friction
    return "turned" if grip.finished else OF_STOCK[part.stock.surface]


def _recess(asked: Asked, grip: Grip) -> tuple[float, float]:
    """(radius, depth) [mm] of the recess behind the part: as wide as the widest bore of this side, with room."""
    deep = asked.setup.jaws.recess_mm
    if deep is None or grip.side == "id":
        return 0.0, 0.0
    bores = [c.to_diameter_mm or 0.0 for c in asked.setup.cuts if c.kind in ("bore", "drill")]
    return max(bores, default=0.0) / 2 + RECESS_BESIDE * asked.rules.clearance_mm, deep


@dataclass(frozen=True)
class Beside:
    """What else is bored into the same jaws: the hold in the outer pocket, where this one sits in the inner pocket;
    the smallest diameter, which rules the tooth.
    """

    outer: JawHold | None = None
    smallest: Grip | None = None


ALONE = Beside()


@dataclass(frozen=True)
class _Jaw:
    """A chuck with a jaw on it, and how much of that is usable [mm]."""

    chuck: Chuck
    blank: JawBlank
    usable_mm: float


@dataclass(frozen=True)
class _Mounted:
    """Jaws in their tooth, with the pocket that the part sits in."""

    mount: JawPositionResult | None
    face_radius_mm: float
    wrap_deg: float
    pocket: JawBoreResult
    notes: tuple[Note, ...] = ()


def _work_length(asked: Asked, grip: Grip) -> float:
    part = asked.need(PART)
    return part.length_mm + raw_behind(asked, grip) + part.face_stock_mm


def _bored(asked: Asked, jaw: _Jaw, beside: Beside, grip: Grip) -> _Mounted:
    """Soft jaws: the tooth that leaves metal, and the pocket bored into them."""
    blank, smallest = jaw.blank, beside.smallest
    mount = _mount(asked.at, asked.setup, jaw.chuck, blank, smallest or grip)
    face, wrap = _faces(mount, blank, grip)
    if smallest is not None and mount is not None and smallest is not grip:
        _, wrap = _faces(None, replace(blank, face_radius_mm=face), grip)
    room = Room(jaw.usable_mm, _work_length(asked, grip), face, stick_out(asked))
    return _Mounted(mount, face, wrap, _pocket(asked, grip, room))


def _hard(asked: Asked, jaw: _Jaw, _: Beside, grip: Grip) -> _Mounted:
    """Hard jaws: the tooth nearest to mid-stroke, and the step that they come with."""
    chuck, blank, out = jaw.chuck, jaw.blank, stick_out(asked)
    if asked.document.one_set:
        raise FieldProblem("sides.two_step", "Hard jaws have one step: two pockets in one set are for soft jaws.")
    mount = hard_mount(asked, chuck, blank, grip)
    long = _work_length(asked, grip) if out is None else max(out, jaw.usable_mm)
    seat = blank.seat_mm or 0.0
    face = grip.diameter_mm / 2 + (-seat if grip.side == "od" else seat)
    notes = hard_notes(mount, chuck, blank, grip)
    return _Mounted(mount, face, wrap_of(blank, grip), hard_pocket(asked, blank, grip, jaw.usable_mm, long), notes)


def hold_in_jaws(asked: Asked, beside: Beside = ALONE) -> JawHold:
    """Figures of one set-up's hold in jaws. Raises Missing, Waiting or CalcError."""
    document, index, at, setup = asked.document, asked.index, asked.at, asked.setup
    part, sides, outer = asked.need(PART), asked.need(SIDES), beside.outer
    grip = grip_of(document, sides, index)
    chuck, blank, height = _chosen(at, setup, asked.taken)
    out = stick_out(asked)
    length = part.length_mm + raw_behind(asked, grip)
    work_length = length + part.face_stock_mm
    mouth, usable = outer.pocket.bore_depth_mm if outer else 0.0, height - blank.bolt_head_mm
    mounted = (_hard if blank.is_hard else _bored)(asked, _Jaw(chuck, blank, usable - mouth), beside, grip)
    pocket = mounted.pocket
    held = min(grip.plain_mm, pocket.bore_depth_mm) - grip.offset_mm
    w = Working()
    grip_height = w.step(
        "h",
        "Middle of the grip above the guide",
        "h_b + H - m - t/2",
        "mm",
        HEIGHT,
        h_b=chuck.guide_to_jaw_base_mm,
        H=height,
        m=mouth,
        t=held,
    )
    pair = _pair(setup, grip, part, blank)
    friction, friction_steps = rubs(asked, pair)
    notes = [*(n for n in pocket.notes if n.code not in JAW_NOTES), *mounted.notes]
    if setup.hold.seat == "none" or out is not None:
        notes.append(
            Note("caution", "not-seated", "Nothing carries the axial force but grip: it counts against slipping.")
        )
    if index == 0 and grip.finished:
        notes.append(
            Note("info", "held-finished", "{g} must be finished before this side: it is held on.", g=grip.name)
        )
    made = JawHold(
        chuck=chuck,
        blank=blank,
        grip=grip,
        held_end=sides.held_end(index),
        jaw_height_mm=height,
        usable_height_mm=usable,
        mount=mounted.mount,
        face_radius_mm=mounted.face_radius_mm,
        wrap_deg=mounted.wrap_deg,
        pocket=pocket,
        mouth_mm=mouth,
        other=outer.pocket if outer else None,
        held_mm=held,
        touches_mm=pocket.grip_length_mm,
        work_length_mm=work_length,
        grip_height_mm=grip_height,
        length_mm=length,
        face_stock_mm=part.face_stock_mm,
        beyond_mm=out - part.face_stock_mm
        if out is not None
        else length - (grip.plain_mm if setup.hold.seat == "face" else pocket.bore_depth_mm),
        stick_out_mm=out,
        recess_mm=_recess(asked, grip),
        centre_mm=centre_hole(setup, part, sides.held_end(index)),
        surfaces=pair,
        friction=friction,
        height_steps=tuple(w.steps),
        friction_steps=friction_steps,
        notes=tuple(notes),
    )
    return replace(made, notes=(*notes, *judged(made, setup, part), *judged_in_jaws(made, document, setup, part)))

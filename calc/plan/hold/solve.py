"""Stop Hold solved: what is gripped, in which jaw and tooth, how deep, seated on what, with which friction."""

from __future__ import annotations

from dataclasses import dataclass, replace
from math import asin, degrees, sqrt
from typing import Literal

from calc.cuts.part_off import width_for
from calc.errors import FieldProblem
from calc.jaws.bore import JawBoreInput, JawBoreResult, jaw_bore
from calc.jaws.position import JawPositionInput, JawPositionResult, jaw_position
from calc.plan.document import Document, Setup, setup_path
from calc.plan.hold.figures import HoldFigures
from calc.plan.hold.inputs import FRICTION
from calc.plan.hold.judged import judged
from calc.plan.outcome import Asked, Missing, Solved, naming
from calc.plan.part.solve import PART, PartFigures
from calc.plan.sides.solve import POCKETS_APART_MM, SIDES, STOCK_GRIPS, SidesFigures, is_bar_work
from calc.profile.body import End
from calc.profile.grips import Grip
from calc.quantities import Figure, Sentence
from calc.shelf.chuck import Chuck
from calc.shelf.jaw_blank import JawBlank
from calc.shelf.taken import SetupShelf
from calc.tools.kinds.groove_insert import GrooveInsert
from calc.working import Note, Working, derived, typical

OF_STOCK: dict[str, Literal["turned", "ground", "rough"]] = {"rough": "rough", "drawn": "ground", "turned": "turned"}
HEIGHT = derived("Where the grip acts")
JAW_NOTES = ("floor-too-thin", "deeper-than-jaw", "no-metal", "large-groove")  # these belong to the stop Jaws
BEHIND_MM = 3.0  # typical: from the kerf to the jaws
WIDEST_KERF_MM = 4.0
RECESS_BESIDE = 1.5  # of the least clearance, beside the bore
TEETH_UNKNOWN = Note(
    "caution", "teeth-unknown", "The chuck's teeth and T-nut are not on record: the jaws are planned as in tooth 0."
)


def grip_of(document: Document, sides: SidesFigures, index: int) -> Grip:
    """What a set-up grips: as decided, else the best that is fit. Raises Missing or CalcError."""
    path, grips = f"{setup_path(document, index)}.hold.grip", sides.grips(index)
    key = document.setups[index].hold.grip
    if key:
        found = next((g for g in grips if g.key == key), None)
        if found is None:
            words = "There is no such place on the part any more: choose what is gripped."
            if key in STOCK_GRIPS:
                raise Missing(("part.stock.diameter_mm", "Stock diameter"))
            raise FieldProblem(path, words)
    else:
        found = next((g for g in grips if g.fit), None)
        if found is None and index == 0 and document.part.stock.diameter_mm is None:
            raise Missing(("part.stock.diameter_mm", "Stock diameter"))
    if found is None:
        raise FieldProblem(
            path, "Nothing on this end is fit to be gripped: see why at Sides, and choose the other end first."
        )
    if not found.fit:
        raise FieldProblem(
            path, Sentence("{g} cannot be gripped from this end: {why}.", g=found.name, why=found.why_not or "")
        )
    return found


def two_pockets(document: Document, sides: SidesFigures) -> tuple[int, int]:
    """(set-up of the outer pocket, of the inner one) of two that share one set of jaws. Raises Missing or CalcError."""
    one, two = (grip_of(document, sides, i) for i in (0, 1))
    path = "sides.two_step"
    if one.side != "od" or two.side != "od":
        raise FieldProblem(path, "Two pockets in one set are for outside grips on both sides.")
    if abs(one.diameter_mm - two.diameter_mm) < POCKETS_APART_MM:
        raise FieldProblem(path, "Both sides are held on about the same diameter: one pocket does for both.")
    return (0, 1) if one.diameter_mm > two.diameter_mm else (1, 0)


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


def _chosen(at: str, setup: Setup, shelf: SetupShelf, part: PartFigures) -> tuple[Chuck, JawBlank, float]:
    """(chuck, blank, jaw height). Raises Missing or CalcError."""
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


def _pair(setup: Setup, grip: Grip, part: PartFigures) -> str:
    if setup.hold.friction != "auto":
        return setup.hold.friction
    return "turned" if grip.finished else OF_STOCK[part.stock.surface]


def _centre_hole(setup: Setup, part: PartFigures, held: End) -> float:
    """Diameter [mm] at the face of what a live centre stands in: the hole drilled for it, else the part's bore."""
    if setup.hold.centre_hole_mm is not None:
        return setup.hold.centre_hole_mm
    return part.body.bore_at(part.length_mm if held == "a" else 0.0)


def _recess(asked: Asked, grip: Grip) -> tuple[float, float]:
    """(radius, depth) [mm] of the recess behind the part: as wide as the widest bore of this side, with room."""
    deep = asked.setup.jaws.recess_mm
    if deep is None or grip.side == "id":
        return 0.0, 0.0
    bores = [c.to_diameter_mm or 0.0 for c in asked.setup.cuts if c.kind in ("bore", "drill")]
    return max(bores, default=0.0) / 2 + RECESS_BESIDE * asked.rules.clearance_mm, deep


def _stick_out(asked: Asked, part: PartFigures) -> float:
    """How far a bar stands out of the jaws [mm]: as entered, else part, face stock, kerf and a little."""
    entered = asked.setup.hold.stick_out_mm
    if entered is not None:
        return entered
    stock = part.stock
    kerf = width_for(stock.diameter_mm or 0.0) or WIDEST_KERF_MM
    for cut in asked.setup.cuts:
        if cut.kind == "part":
            tool = asked.shelf.tools.tool(cut.tool) if cut.tool else None
            width = tool.edge.width_mm if tool is not None and isinstance(tool.edge, GrooveInsert) else cut.width_mm
            kerf = width or kerf
    return part.length_mm + part.face_stock_mm + kerf + BEHIND_MM


@dataclass(frozen=True)
class Beside:
    """What else is bored into the same jaws: the hold in the outer pocket, where this one sits in the inner pocket;
    the smallest diameter, which rules the tooth.
    """

    outer: HoldFigures | None = None
    smallest: Grip | None = None


ALONE = Beside()


def solve_hold(asked: Asked, beside: Beside = ALONE) -> HoldFigures:
    """Figures of one set-up's hold. Raises Missing, Waiting or CalcError."""
    document, index, at, setup = asked.document, asked.index, asked.at, asked.setup
    part, sides, outer = asked.need(PART), asked.need(SIDES), beside.outer
    grip = grip_of(document, sides, index)
    chuck, blank, height = _chosen(at, setup, asked.taken, part)
    stick_out = _stick_out(asked, part) if is_bar_work(document, index) else None
    raw = part.face_stock_mm if index == 0 and not grip.finished and stick_out is None else 0.0
    length, work_length = part.length_mm + raw, part.length_mm + raw + part.face_stock_mm
    mount = _mount(at, setup, chuck, blank, beside.smallest or grip)
    face, wrap = _faces(mount, blank, grip)
    if beside.smallest is not None and mount is not None and beside.smallest is not grip:
        _, wrap = _faces(None, replace(blank, face_radius_mm=face), grip)
    mouth = outer.pocket.bore_depth_mm if outer else 0.0
    usable = height - blank.bolt_head_mm
    pocket = _pocket(asked, grip, Room(usable - mouth, work_length, face, stick_out))
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
    f, pair = Working(), _pair(setup, grip, part)
    friction = f.step(
        "μ",
        "Friction of the pair",
        "μ_0 * k_m",
        "",
        typical(FRICTION.options[pair]),
        μ_0=getattr(document.in_force, f"friction_{pair}"),
        k_m=part.material.friction_multiplier,
    )
    notes = [n for n in pocket.notes if n.code not in JAW_NOTES]
    if setup.hold.seat == "none" or stick_out is not None:
        notes.append(
            Note("caution", "not-seated", "Nothing carries the axial force but grip: it counts against slipping.")
        )
    if index == 0 and grip.finished:
        notes.append(
            Note("info", "held-finished", "{g} must be finished before this side: it is held on.", g=grip.name)
        )
    made = HoldFigures(
        chuck=chuck,
        blank=blank,
        grip=grip,
        held_end=sides.held_end(index),
        jaw_height_mm=height,
        usable_height_mm=usable,
        mount=mount,
        face_radius_mm=face,
        wrap_deg=wrap,
        pocket=pocket,
        mouth_mm=mouth,
        other=outer.pocket if outer else None,
        held_mm=held,
        work_length_mm=work_length,
        grip_height_mm=grip_height,
        length_mm=length,
        face_stock_mm=part.face_stock_mm,
        beyond_mm=stick_out - part.face_stock_mm
        if stick_out is not None
        else length - (grip.plain_mm if setup.hold.seat == "face" else pocket.bore_depth_mm),
        stick_out_mm=stick_out,
        recess_mm=_recess(asked, grip),
        centre_mm=_centre_hole(setup, part, sides.held_end(index)) if setup.hold.live_centre else 0.0,
        surfaces=pair,
        friction=friction,
        height_steps=tuple(w.steps),
        friction_steps=tuple(f.steps),
        notes=tuple(notes),
    )
    return replace(made, notes=(*notes, *judged(made, document, setup, part)))


def _in_two_pockets(asked: Asked) -> dict[int, HoldFigures]:
    """Both holds in one set of jaws, by set-up; nothing where each side has its own. Raises as `solve_hold`."""
    document = asked.document
    if not document.one_set:
        return {}
    sides = asked.need(SIDES)
    outer, inner = two_pockets(document, sides)
    smallest = grip_of(document, sides, inner)
    one = solve_hold(asked.of(outer), Beside(smallest=smallest))
    two = solve_hold(asked.of(inner), Beside(one, smallest))
    return {outer: replace(one, other=two.pocket), inner: two}


POCKETS = Solved("pockets", "Hold", _in_two_pockets, per_side=False)


def _find(asked: Asked) -> HoldFigures:
    if not asked.document.one_set:
        return solve_hold(asked)
    return asked.share(POCKETS)[asked.index]


HOLD = Solved("hold", "Hold", _find)

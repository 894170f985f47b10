"""The pocket bored into soft jaws: calculator `jaw-bore`."""

from __future__ import annotations

from collections.abc import Iterator
from dataclasses import dataclass
from typing import Annotated, Literal

from calc import terms
from calc.describing import calculator
from calc.errors import FieldError, FieldProblem
from calc.fields import Checked, Choice, Quantity
from calc.quantities import Figure, Sentence
from calc.results import Explained, Found
from calc.terms import SIDE, Side
from calc.working import ENTERED, Working, derived, typical

BORE = derived("The pocket")
GROOVE = typical("floor groove 1.5–3 mm wide, 0.3–0.5 mm into the wall")
THIRD = typical("grip at least a third of the part's length")
DEPTH_STEP_MM = 0.5  # a depth a setter would dial in


@dataclass(frozen=True)
class JawBoreInput(Checked):
    """Input of `jaw-bore`."""

    side: Annotated[Side, SIDE]
    grip_diameter_mm: Annotated[float, terms.GRIP_DIAMETER]
    part_length_mm: Annotated[float, Quantity("Part length", "mm", "Overall", above=0, high=5000)]
    jaw_height_mm: Annotated[float, terms.JAW_HEIGHT.called("Usable jaw height", "Above the bolt heads")]
    face_radius_mm: Annotated[float, terms.FACE_RADIUS.called(help="Outside grip: inner face. Inside grip: outer end")]
    plain_length_mm: Annotated[
        float | None, Quantity("Plain length", "mm", "Fit to be gripped; left out: the whole part", above=0, high=5000)
    ] = None
    floor_min_mm: Annotated[float, terms.FLOOR] = 6.0
    edge_mm: Annotated[float, terms.EDGE_BREAK] = 0.3
    tool_clearance_mm: Annotated[float, terms.TOOL_CLEARANCE.called(help="Per side")] = 1.0
    depth_mm: Annotated[
        float | None, terms.POCKET_DEPTH.called("Depth", "Left out: a third of the part, rounded up")
    ] = None
    seat: Annotated[
        Literal["floor", "face"],
        Choice("Seat", {"floor": "pocket floor", "face": "shoulder on the jaw face"}, "What the part comes to rest on"),
    ] = "floor"
    offset_mm: Annotated[
        float, Quantity("Before the grip", "mm", "Length in the jaws that does not touch", low=0, high=5000)
    ] = 0.0

    def contradictions(self) -> Iterator[FieldError]:
        if self.plain_length_mm is not None and self.plain_length_mm > self.part_length_mm:
            yield FieldError(
                "plain_length_mm",
                Sentence(
                    "The plain length cannot be above the part's {length}.",
                    length=Figure(self.part_length_mm, "mm", exact=True),
                ),
            )

        if self.offset_mm >= self.plain_mm:
            yield FieldError("offset_mm", Sentence("The grip begins beyond the plain length: nothing touches."))

    @property
    def plain_mm(self) -> float:
        """The length fit to be gripped."""
        return self.part_length_mm if self.plain_length_mm is None else self.plain_length_mm


@dataclass(frozen=True, slots=True, kw_only=True)
class JawBoreResult(Explained):
    """The pocket: what to bore, where to start, what is left."""

    bore_diameter_mm: Annotated[float, Found("Bore diameter", "mm")]
    bore_depth_mm: Annotated[float, Found("Bore depth", "mm")]
    floor_mm: Annotated[float, Found("Floor left", "mm", "down")]
    grip_fraction: Annotated[float, Found("Share of the part in the grip", places=(3, 3), safe="down")]
    start_diameter_mm: Annotated[float, Found("Start diameter", "mm")]
    groove_width_mm: Annotated[float, Found("Floor groove, along the wall", "mm")]
    groove_depth_mm: Annotated[float, Found("Floor groove, into the wall", "mm")]
    grip_length_mm: Annotated[float, Found("Grip length", "mm", "down")]


def _depth(given: JawBoreInput, w: Working) -> float:
    plain = given.plain_mm
    if given.seat == "face":
        least = w.step("t_min", "Depth that clears the part's end", "l + 1", "mm", BORE, l=plain)
        if given.depth_mm is None:
            return w.step("t", "Depth", "ceil(t_min / s) * s", "mm", BORE, t_min=least, s=DEPTH_STEP_MM)
        if given.depth_mm <= plain:
            raise FieldProblem(
                "depth_mm",
                Sentence(
                    "The shoulder is to rest on the jaw face: bore deeper than the plain length of {plain}.",
                    plain=Figure(plain, "mm", "down", exact=True),
                ),
            )
        return w.step("t", "Depth", "t_e", "mm", ENTERED, t_e=given.depth_mm)
    if given.depth_mm is None:
        return w.step(
            "t",
            "Depth: a third, rounded up, within the plain length",
            "min(l, o + ceil(L / 3 / s - 1e-9) * s)",
            "mm",
            THIRD,
            l=plain,
            o=given.offset_mm,
            L=given.part_length_mm,
            s=DEPTH_STEP_MM,
        )
    if given.depth_mm > plain * (1 + 1e-12):
        raise FieldProblem(
            "depth_mm",
            Sentence(
                "{depth} is deeper than the plain length of {plain}: the shoulder would land on the jaw. "
                "Give {plain} or less.",
                depth=Figure(given.depth_mm, "mm", exact=True),
                plain=Figure(plain, "mm", "down", exact=True),
            ),
        )
    return w.step("t", "Depth", "t_e", "mm", ENTERED, t_e=given.depth_mm)


def _touching(given: JawBoreInput, depth: float, groove_width: float, w: Working) -> float:
    if given.seat == "face":
        touching = w.step(
            "l_g",
            "Length that touches",
            "l - max(e, o)",
            "mm",
            BORE,
            l=given.plain_mm,
            e=given.edge_mm,
            o=given.offset_mm,
        )
    else:
        touching = w.step(
            "l_g",
            "Length that touches",
            "t - max(b_g + e, o)",
            "mm",
            BORE,
            t=depth,
            b_g=groove_width,
            e=given.edge_mm,
            o=given.offset_mm,
        )
    if touching <= 0:
        raise FieldProblem(
            "depth_mm", "After groove and edge nothing of this depth touches the part; bore deeper or break less edge."
        )
    return touching


@calculator(JawBoreInput)
def jaw_bore(given: JawBoreInput) -> JawBoreResult:
    """The pocket to bore for a gripped diameter.

    Parameters
        {parameters}
    Returns
        bore_diameter_mm, bore_depth_mm, start_diameter_mm, groove_width_mm, groove_depth_mm [mm];
        floor_mm [mm] left above the bolt heads; grip_fraction [-] of the part's length;
        grip_length_mm [mm] that really touches
    Raises
        CalcError: depth beyond the plain length, nothing left to touch
    Validity
        One pocket, cylindrical grip. The groove grows past its usual size with the part's edge.
    Example
        >>> r = jaw_bore(JawBoreInput("od", 84, 54, 40, 35, 40))
        >>> r.bore_depth_mm, r.floor_mm, r.start_diameter_mm
        (18.0, 22.0, 68.0)

    Reference
        derived in docs/method.md, “The pocket”
    """
    w = Working()
    bore = w.step("D_b", "Jaws to: nominal of what is gripped", "d_g", "mm", BORE, d_g=given.grip_diameter_mm)
    depth = _depth(given, w)
    floor = w.step("h_f", "Floor left above the bolt heads", "H - t", "mm", BORE, H=given.jaw_height_mm, t=depth)
    groove_depth = w.step("t_g", "Floor groove, into the wall", "max(0.3, e + 0.1)", "mm", GROOVE, e=given.edge_mm)
    groove_width = w.step("b_g", "Floor groove, along the wall", "max(1.5, e + 0.5)", "mm", GROOVE, e=given.edge_mm)
    touching = _touching(given, depth, groove_width, w)
    held = (given.plain_mm if given.seat == "face" else depth) - given.offset_mm
    fraction = w.step("t/L", "Share of the part's length", "t / L", "", THIRD, t=held, L=given.part_length_mm)
    start = w.step(
        "D_s",
        "Start at",
        "max(0, 2*r_f - 2*c)" if given.side == "od" else "2*r_f + 2*c",
        "mm",
        BORE,
        r_f=given.face_radius_mm,
        c=given.tool_clearance_mm,
    )
    if floor < -1e-9:
        w.note(
            "stop",
            "deeper-than-jaw",
            "This pocket is {x} deeper than the jaw reaches above its bolt heads: take a taller jaw, or bore {depth} "
            "at most.",
            x=Figure(-floor, "mm", "up"),
            depth=Figure(max(0.0, given.jaw_height_mm - given.floor_min_mm), "mm", "down"),
        )
    elif floor < given.floor_min_mm - 1e-9:
        w.note(
            "stop",
            "floor-too-thin",
            "{floor} of floor is left above the bolt heads and {least} is wanted: "
            "take a jaw that is {more} taller, or bore {depth} at most.",
            floor=Figure(floor, "mm", "down"),
            least=Figure(given.floor_min_mm, "mm"),
            more=Figure(given.floor_min_mm - floor, "mm", "up"),
            depth=Figure(max(0.0, given.jaw_height_mm - given.floor_min_mm), "mm", "down"),
        )
    if fraction < 1 / 3 - 1e-9:
        w.note(
            "caution",
            "short-grip",
            "Held on {share} of its length; a third is the rule. Tilt is counted in Force.",
            share=Figure(100 * fraction, "%", "down"),
        )
    outside = given.side == "od"
    if bore / 2 <= given.face_radius_mm if outside else bore / 2 >= given.face_radius_mm:
        w.note(
            "stop",
            "no-metal",
            "The jaw's face stands at {face}, so there is no metal to bore: mount the jaws further "
            + ("in." if outside else "out."),
            face=Figure(2 * given.face_radius_mm, "mm"),
        )
    if given.edge_mm > 0.4:
        w.note("info", "large-groove", "The groove is larger than usual, to clear the part's edge.")
    return JawBoreResult(
        bore_diameter_mm=bore,
        bore_depth_mm=depth,
        floor_mm=floor,
        grip_fraction=fraction,
        start_diameter_mm=start,
        groove_width_mm=groove_width,
        groove_depth_mm=groove_depth,
        grip_length_mm=touching,
        working=tuple(w.steps),
        notes=tuple(w.notes),
    )

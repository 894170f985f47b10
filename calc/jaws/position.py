"""Which serration tooth a jaw is mounted in: calculator `jaw-position`."""

from __future__ import annotations

from collections.abc import Iterator
from dataclasses import dataclass
from typing import Annotated

from calc import terms
from calc.describing import calculator
from calc.errors import FieldError
from calc.fields import Checked, Quantity
from calc.quantities import Figure, Sentence
from calc.results import Explained, Found
from calc.terms import SIDE, Side
from calc.working import BOOK, Working, derived

TOOTH = derived("The tooth")
CLOSE = 1e-9  # mm; a bore that just cleans up is cleaned up


@dataclass(frozen=True)
class JawPositionInput(Checked):
    """Input of `jaw-position`."""

    side: Annotated[Side, SIDE]
    grip_diameter_mm: Annotated[float, terms.GRIP_DIAMETER]
    jaw_width_mm: Annotated[float, Quantity("Jaw width", "mm", "Across", above=0, high=1000)]
    face_radius_0_mm: Annotated[
        float,
        Quantity("Face radius at tooth 0", "mm", "Outside grip: inner face. Inside grip: outer end", low=0, high=2000),
    ]
    tnut_radius_0_mm: Annotated[
        float, terms.TNUT_RADIUS.called("T-nut's outer edge at tooth 0", "From the axis, jaw at mid-stroke")
    ]
    pitch_mm: Annotated[float, terms.SERRATION_PITCH]
    teeth: Annotated[int, terms.TEETH.called(help="Places the jaw can be mounted in")]
    body_radius_mm: Annotated[float, Quantity("Body radius", "mm", "Of the chuck", above=0, high=2000)]
    cleanup_mm: Annotated[float, terms.CLEANUP] = 1.0
    jaws: Annotated[int, terms.JAWS] = 3
    closing_travel_mm: Annotated[
        float, Quantity("Closing travel", "mm", "Of one jaw, left from mid-stroke", low=0, high=500)
    ] = 0.0
    jaw_length_mm: Annotated[
        float | None,
        Quantity("Jaw length", "mm", "Radially; inside grip needs it to know the inner end", above=0, high=1000),
    ] = None
    tooth: Annotated[int | None, terms.TOOTH.called(help="Left out: the best one")] = None

    @property
    def half_width_mm(self) -> float:
        """Half the jaw's width."""
        return self.jaw_width_mm / 2

    @property
    def radius_mm(self) -> float:
        """Radius of what is gripped."""
        return self.grip_diameter_mm / 2

    def contradictions(self) -> Iterator[FieldError]:
        if self.tooth is not None and self.tooth >= self.teeth:
            yield FieldError("tooth", Sentence("The teeth count from 0 to {last}.", last=str(self.teeth - 1)))
        if self.jaw_length_mm is not None and self.side == "id" and self.jaw_length_mm > self.face_radius_0_mm:
            yield FieldError("jaw_length_mm", Sentence("At tooth 0 a jaw this long would reach across the axis."))


@dataclass(frozen=True, slots=True)
class Tooth:
    """What mounting in one tooth would give."""

    tooth: Annotated[int, Found("Tooth")]
    face_radius_mm: Annotated[float, Found("Face radius", "mm")]
    removed_mm: Annotated[float, Found("Metal to take at the corners", "mm")]
    wrap_deg: Annotated[float, Found("Wrap of one jaw", "deg", "down")]
    full_wrap: Annotated[bool, Found("Wraps in full")]
    clean: Annotated[bool, Found("Cleans up")]
    clear: Annotated[bool, Found("T-nut clears the body")]
    tnut_to_body_mm: Annotated[float, Found("T-nut to the body's edge", "mm", "down")]


@dataclass(frozen=True, slots=True, kw_only=True)
class JawPositionResult(Explained):
    """The tooth to mount in, what it gives, and its neighbours."""

    tooth: Annotated[int, Found("Tooth")]
    face_radius_mm: Annotated[float, Found("Face radius", "mm")]
    removed_mm: Annotated[float, Found("Metal to take at the corners", "mm")]
    wrap_deg: Annotated[float, Found("Wrap of one jaw", "deg", "down")]
    full_wrap: Annotated[bool, Found("Wraps in full")]
    clear: Annotated[bool, Found("T-nut clears the body")]
    tnut_to_body_mm: Annotated[float, Found("T-nut to the body's edge", "mm", "down")]
    neighbours: Annotated[tuple[Tooth, ...], Found("Teeth beside it")] = ()


def tooth_at(given: JawPositionInput, k: int, w: Working) -> Tooth:
    """What tooth `k` gives."""
    outside, radius, half = given.side == "od", given.radius_mm, given.half_width_mm
    face = w.step(
        "r_f", "Face radius in this tooth", "r_0 + k*p", "mm", TOOTH, r_0=given.face_radius_0_mm, k=k, p=given.pitch_mm
    )
    tnut = w.step(
        "t_b",
        "T-nut inside the body by",
        "R_body - (t_0 + k*p)",
        "mm",
        TOOTH,
        R_body=given.body_radius_mm,
        t_0=given.tnut_radius_0_mm,
        k=k,
        p=given.pitch_mm,
    )
    removed = w.step(
        "a", "Metal taken at mid-jaw", "R - r_f" if outside else "r_f - R", "mm", TOOTH, R=radius, r_f=face
    )
    if outside:
        chord = w.step(
            "c",
            "Half chord of the bored arc",
            "min(w, sqrt(max(0, R**2 - r_f**2)))",
            "mm",
            TOOTH,
            w=half,
            R=radius,
            r_f=face,
        )
        clean = radius > half and face <= (radius**2 - half**2) ** 0.5 - given.cleanup_mm + CLOSE
        full = clean
    else:
        chord = w.step("c", "Half chord of the turned arc", "min(w, R)", "mm", TOOTH, w=half, R=radius)
        clean = face >= radius + given.cleanup_mm - CLOSE
        full = clean and radius >= half
    wrap = w.step("φ", "Wrap of one jaw", "2*asin(c / R) * 180/pi", "deg", TOOTH, c=chord, R=radius)
    inner = face if outside or given.jaw_length_mm is None else face - given.jaw_length_mm
    room = w.step(
        "g",
        "Room to the next jaw, closed",
        "(r_i - s)*tan(pi/z) - w",
        "mm",
        TOOTH,
        r_i=inner,
        s=given.closing_travel_mm,
        z=given.jaws,
        w=half,
    )
    return Tooth(k, face, removed, wrap, full, clean, room >= -CLOSE, tnut)


def _choose(given: JawPositionInput) -> int:
    """The tooth to take: outside the outermost with full wrap, inside the innermost that cleans up."""
    inside_body = [
        k for k in range(given.teeth) if given.tnut_radius_0_mm + k * given.pitch_mm <= given.body_radius_mm + CLOSE
    ]
    radius, half = given.radius_mm, given.half_width_mm
    if given.side == "od":
        # Plain arithmetic: every tooth is looked at for every key that is pressed.
        most = (radius**2 - half**2) ** 0.5 - given.cleanup_mm + CLOSE if radius > half else -1.0
        good = [k for k in inside_body if given.face_radius_0_mm + k * given.pitch_mm <= most]
    else:
        good = [
            k for k in inside_body if given.face_radius_0_mm + k * given.pitch_mm >= radius + given.cleanup_mm - CLOSE
        ]
    if good:
        return good[-1] if given.side == "od" else good[0]
    if given.side == "od":
        return 0
    return inside_body[-1] if inside_body else 0


def _notes(given: JawPositionInput, found: Tooth, w: Working) -> None:
    outside = given.side == "od"
    if found.tnut_to_body_mm < -CLOSE:
        w.note(
            "stop",
            "tnut-outside",
            "The T-nut would stand {x} beyond the chuck body in tooth {k}: mount further in, or take another jaw.",
            x=Figure(-found.tnut_to_body_mm, "mm", "up"),
            k=str(found.tooth),
        )
    if found.removed_mm <= CLOSE:
        w.note(
            "stop",
            "no-metal",
            "The jaw's face stands at {face}, so there is no metal to "
            + ("bore: take a longer jaw." if outside else "turn: take a longer jaw."),
            face=Figure(2 * found.face_radius_mm, "mm"),
        )
    elif outside and not found.full_wrap:
        why = (
            "The jaw is wider than the bore"
            if given.radius_mm <= given.half_width_mm
            else "No tooth lets the bore reach both corners"
        )
        w.note(
            "caution",
            "not-full-wrap",
            "{why}: each jaw wraps {a} and its corners stand free.",
            why=why,
            a=Figure(found.wrap_deg, "deg", "down"),
        )
    elif not outside and not found.clean:
        w.note(
            "caution",
            "not-clean",
            "No tooth leaves {c} to clean up; this one leaves {a}: the jaw may show black.",
            c=Figure(given.cleanup_mm, "mm"),
            a=Figure(found.removed_mm, "mm", "down"),
        )
    if not found.clear:
        w.note("stop", "jaws-meet", "Closed, neighbouring jaws meet before they grip: take a narrower jaw.")
    if not outside and given.jaw_length_mm is None:
        w.note(
            "info", "inner-end-unknown", "Without the jaw's length only its outer end is checked against its neighbour."
        )


@calculator(JawPositionInput)
def jaw_position(given: JawPositionInput) -> JawPositionResult:
    """The serration tooth to mount a jaw in, with its neighbours compared.

    Parameters
        {parameters}
    Returns
        tooth; face_radius_mm, removed_mm at mid-jaw [mm]; wrap_deg [deg] of one jaw; full_wrap: the
        arc reaches both corners; clear: closed jaws do not meet; tnut_to_body_mm [mm];
        neighbours: the same for the tooth chosen and up to two either side
    Raises
        CalcError: figures out of range
    Validity
        Block jaws square to the radius. Outside grip takes the outermost tooth with full wrap, inside
        grip the innermost that cleans up; a T-nut beyond the body is never offered. Where none will do:
        outside tooth 0 and the wrap it gives, inside the outermost tooth, with the reason.
    Example
        >>> r = jaw_position(JawPositionInput("od", 84, 40, 20, 75, 1.5, 20, 105))
        >>> r.tooth, r.face_radius_mm, r.removed_mm, round(r.wrap_deg, 2), r.full_wrap
        (10, 35.0, 7.0, 56.87, True)

    Reference
        derived in docs/method.md, “The tooth”
    """
    w = Working()
    w.step("R", "Radius of what is gripped", "d_g / 2", "mm", BOOK, d_g=given.grip_diameter_mm)
    if given.side == "od" and given.radius_mm > given.half_width_mm:
        w.step(
            "r_max",
            "Face radius that still gives full wrap",
            "sqrt(R**2 - w**2) - c_u",
            "mm",
            TOOTH,
            R=given.radius_mm,
            w=given.half_width_mm,
            c_u=given.cleanup_mm,
        )
    elif given.side == "id":
        w.step("r_min", "Outer end that cleans up", "R + c_u", "mm", TOOTH, R=given.radius_mm, c_u=given.cleanup_mm)
    k = _choose(given) if given.tooth is None else given.tooth
    found = tooth_at(given, k, w)
    _notes(given, found, w)
    aside = Working()  # the neighbours' working is not told
    beside = tuple(tooth_at(given, j, aside) for j in range(max(0, k - 2), min(given.teeth, k + 3)))
    return JawPositionResult(
        tooth=k,
        face_radius_mm=found.face_radius_mm,
        removed_mm=found.removed_mm,
        wrap_deg=found.wrap_deg,
        full_wrap=found.full_wrap,
        clear=found.clear,
        tnut_to_body_mm=found.tnut_to_body_mm,
        neighbours=beside,
        working=tuple(w.steps),
        notes=tuple(w.notes),
    )

"""Mass and centre of mass of one top jaw after boring: calculator `jaw-mass`."""

from __future__ import annotations

from collections.abc import Iterator
from dataclasses import dataclass
from typing import Annotated, Literal

from calc import terms
from calc.describing import calculator
from calc.errors import FieldError, FieldProblem
from calc.fields import Checked, Choice, Quantity, When
from calc.jaws.areas import block_in_disc, sector
from calc.quantities import Sentence
from calc.results import Explained, Found
from calc.terms import SIDE, Side
from calc.working import Working, derived

MASS = derived("Jaw mass and centre")
BLOCK, PIE = When("kind", ("block",)), When("kind", ("pie",))
OUTSIDE = When("side", ("od",))


@dataclass(frozen=True)
class JawMassInput(Checked):
    """Input of `jaw-mass`."""

    side: Annotated[Side, SIDE]
    kind: Annotated[Literal["block", "pie"], Choice("Jaw", {"block": "regular block", "pie": "full-wrap pie"})]
    height_mm: Annotated[float, terms.BLANK_HEIGHT.called(help="")]
    density_kg_dm3: Annotated[float, terms.METAL_DENSITY.called(help="7.85 steel, 2.7 aluminium")]
    bore_radius_mm: Annotated[
        float,
        Quantity("Bored radius", "mm", "Outside grip: the bore. Inside grip: the turned outside", low=0, high=2000),
    ] = 0.0
    bore_depth_mm: Annotated[float, Quantity("Bored depth", "mm", "", low=0, high=500)] = 0.0
    width_mm: Annotated[float | None, terms.JAW_WIDTH.called(help="Block: across"), BLOCK] = None
    length_mm: Annotated[float | None, terms.JAW_LENGTH.called(help="Block: radially"), BLOCK] = None
    face_radius_mm: Annotated[
        float | None, terms.FACE_RADIUS.called(help="Block: its inner end from the axis"), BLOCK
    ] = None
    inner_radius_mm: Annotated[float | None, Quantity("Inner radius", "mm", "Pie", low=0, high=2000), PIE] = None
    outer_radius_mm: Annotated[float | None, Quantity("Outer radius", "mm", "Pie", above=0, high=2000), PIE] = None
    angle_deg: Annotated[float | None, terms.PIE_ANGLE.called("Angle", "Pie: of one jaw"), PIE] = None
    inner_bore_radius_mm: Annotated[
        float,
        Quantity("Inner pocket's radius", "mm", "Outside grip, two pockets; 0 for one", low=0, high=2000),
        OUTSIDE,
    ] = 0.0
    inner_bore_depth_mm: Annotated[
        float, Quantity("Inner pocket's depth", "mm", "Below the outer one's floor", low=0, high=500), OUTSIDE
    ] = 0.0

    def contradictions(self) -> Iterator[FieldError]:
        block = ("width_mm", "length_mm", "face_radius_mm")
        pie = ("inner_radius_mm", "outer_radius_mm", "angle_deg")
        for name in block if self.kind == "block" else pie:
            if getattr(self, name) is None:
                yield FieldError(name, Sentence(f"A {self.kind} jaw needs this figure."))
                return
        if self.bore_depth_mm + self.inner_bore_depth_mm > self.height_mm:
            yield FieldError("bore_depth_mm", Sentence("The bore is deeper than the jaw is high."))
        inner, outer = self.inner_radius_mm, self.outer_radius_mm
        if self.kind == "pie" and inner is not None and outer is not None and outer <= inner:
            yield FieldError("outer_radius_mm", Sentence("The outer radius must be above the inner one."))


@dataclass(frozen=True, slots=True, kw_only=True)
class JawMassResult(Explained):
    """Mass of one top jaw and the radius of its centre of mass from the axis."""

    mass_kg: Annotated[float, Found("Mass of one jaw", "kg", "up")]
    radius_mm: Annotated[float, Found("Centre radius", "mm", "up")]


def _inside(given: JawMassInput, radius: float) -> tuple[float, float]:
    """(area, moment) of the plan view inside a radius."""
    if radius <= 0:
        return 0.0, 0.0
    if given.kind == "block":
        assert given.width_mm is not None and given.length_mm is not None and given.face_radius_mm is not None
        return block_in_disc(given.width_mm, given.face_radius_mm, given.face_radius_mm + given.length_mm, radius)
    assert given.inner_radius_mm is not None and given.outer_radius_mm is not None and given.angle_deg is not None
    return sector(
        given.inner_radius_mm, min(max(radius, given.inner_radius_mm), given.outer_radius_mm), given.angle_deg
    )


def _plan(given: JawMassInput) -> tuple[tuple[float, float], tuple[float, float]]:
    """(area, moment) of the whole plan view and of its share inside the bored radius."""
    inside = _inside(given, given.bore_radius_mm)
    if given.kind == "block":
        assert given.width_mm is not None and given.length_mm is not None and given.face_radius_mm is not None
        near, far = given.face_radius_mm, given.face_radius_mm + given.length_mm
        whole = given.width_mm * given.length_mm
        return (whole, whole * (near + far) / 2), inside
    assert given.inner_radius_mm is not None and given.outer_radius_mm is not None and given.angle_deg is not None
    return sector(given.inner_radius_mm, given.outer_radius_mm, given.angle_deg), inside


@calculator(JawMassInput)
def jaw_mass(given: JawMassInput) -> JawMassResult:
    """Mass and centre radius of one top jaw after its bore.

    Parameters
        {parameters}
    Returns
        mass_kg [kg], radius_mm [mm] of the centre of mass from the spindle axis
    Raises
        CalcError: missing figures of the kind, bore deeper than the jaw, nothing left of the jaw
    Validity
        Exact arc areas. Bolt holes and serrations are left out: they make the jaw lighter, so the
        grip lost at speed is told on the safe side.
    Example
        >>> r = jaw_mass(JawMassInput("od", "block", 50, 7.85, 42, 18.5, 40, 75, 30))
        >>> round(r.mass_kg, 3), round(r.radius_mm, 2)
        (1.117, 69.23)

    Reference
        derived in docs/method.md, “Jaw mass and centre”
    """
    w = Working()
    (area, moment), (inside, inside_moment) = _plan(given)
    if given.side == "od":
        gone, gone_moment = inside, inside_moment
    else:
        gone, gone_moment = (area - inside, moment - inside_moment) if given.bore_radius_mm > 0 else (0.0, 0.0)
    if given.inner_bore_depth_mm > 0 and given.side == "od":
        more, more_moment = _inside(given, given.inner_bore_radius_mm)
        # Both pockets as one of the outer depth: A_b·t then is all that is gone.
        per_depth = given.inner_bore_depth_mm / given.bore_depth_mm if given.bore_depth_mm > 0 else 0.0
        gone, gone_moment = gone + more * per_depth, gone_moment + more_moment * per_depth
    volume = w.step(
        "V", "Volume left", "A*H - A_b*t", "mm3", MASS, A=area, H=given.height_mm, A_b=gone, t=given.bore_depth_mm
    )
    # A millionth of the jaw is rounding, no metal: its centre would be noise.
    if volume <= 1e-6 * area * given.height_mm:
        raise FieldProblem("bore_radius_mm", "This bore leaves nothing of the jaw; take a smaller one.")
    mass = w.step("m", "Mass of one top jaw", "V * ρ / 1e6", "kg", MASS, V=volume, ρ=given.density_kg_dm3)
    radius = w.step(
        "r",
        "Centre of mass from the axis",
        "(M*H - M_b*t) / V",
        "mm",
        MASS,
        M=moment,
        H=given.height_mm,
        M_b=gone_moment,
        t=given.bore_depth_mm,
        V=volume,
    )
    return JawMassResult(mass_kg=mass, radius_mm=radius, working=tuple(w.steps), notes=tuple(w.notes))

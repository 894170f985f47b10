"""Top jaws as they come: soft ones, to be bored, and hard ones."""

from __future__ import annotations

from collections.abc import Iterator
from dataclasses import dataclass
from typing import Annotated, Literal

from calc import terms
from calc.errors import FieldError
from calc.fields import Choice, Quantity
from calc.item import Item
from calc.item_kind import FITS_CHUCKS, ItemKind, Names
from calc.quantities import Figure, Sentence, exact_text


@dataclass(frozen=True)
class JawBlank(Item):
    """A top jaw as it comes, bolted to the master jaw: soft, to be bored, or hard with a step."""

    __hash__ = Item.__hash__

    metal: Annotated[
        Literal["steel", "aluminium"],
        Choice(
            "Metal",
            {"steel": "steel", "aluminium": "aluminium"},
            "Aluminium pulls less at speed",
            where="The jaw's order code",
        ),
    ]
    width_mm: Annotated[float | None, terms.JAW_WIDTH.called(where="Measure the blank")]
    length_mm: Annotated[float, terms.JAW_LENGTH.called(where="Measure the blank")]
    height_mm: Annotated[float, terms.BLANK_HEIGHT.called(where="Measure the blank")]
    density_kg_dm3: Annotated[float, terms.METAL_DENSITY.called(where="The metal's data sheet")]
    bolt_head_mm: Annotated[
        float,
        Quantity(
            "Bolt-head top",
            "mm",
            "Above the jaw base; boring stays clear of it",
            low=0,
            high=300,
            where="Measure with the bolts in",
        ),
    ]
    face_radius_mm: Annotated[
        float,
        terms.FACE_RADIUS.called(
            help="Inner end in tooth 0, at mid-stroke",
            where="Measure on the chuck, jaws in their innermost teeth",
            low=None,
            high=1000,
            above=0,
        ),
    ]
    kind: Annotated[
        Literal["block", "pie", "hard"],
        Choice(
            "Shape",
            {"block": "soft, regular", "pie": "soft pie jaw, full wrap", "hard": "hard, serrated"},
            "Pie jaws close round the whole wall; hard ones are not bored, and mark",
            where="The jaw's order code",
        ),
    ] = "block"
    angle_deg: Annotated[float | None, terms.PIE_ANGLE.called(where="A third of the circle less the gap")] = None

    step_mm: Annotated[
        float | None,
        Quantity(
            "Step",
            "mm",
            "Of a hard jaw: from its end down to the seat; grips over this",
            above=0,
            high=300,
            where="Measure the jaw",
        ),
    ] = None
    seat_mm: Annotated[
        float | None,
        Quantity(
            "Seat",
            "mm",
            "Of a hard jaw: how far its step stands in from the face; 0: a bar goes past it",
            low=0,
            high=200,
            where="Measure the jaw",
        ),
    ] = None

    @property
    def is_hard(self) -> bool:
        """It comes hardened and serrated, and is never bored."""
        return self.kind == "hard"

    @property
    def outer_radius_mm(self) -> float:
        """Outer end from the axis in tooth 0."""
        return self.face_radius_mm + self.length_mm

    def contradictions(self) -> Iterator[FieldError]:
        if self.is_hard and (self.step_mm is None or self.seat_mm is None):
            name = "step_mm" if self.step_mm is None else "seat_mm"
            yield FieldError(name, Sentence("A hard jaw grips on its step: give step and seat."))
        if self.is_hard and self.step_mm is not None and self.step_mm > self.height_mm - self.bolt_head_mm:
            yield FieldError("step_mm", Sentence("The step must end above the bolt heads."))
        if self.is_hard and self.metal != "steel":
            yield FieldError("metal", Sentence("Hard jaws are of steel."))
        if self.kind in ("block", "hard") and self.width_mm is None:
            yield FieldError("width_mm", Sentence("A regular jaw needs its width."))
        if self.kind == "pie" and self.angle_deg is None:
            yield FieldError("angle_deg", Sentence("A pie jaw needs its angle, such as 118°."))
        if self.bolt_head_mm >= self.height_mm:
            height = Figure(self.height_mm, "mm", exact=True)
            yield FieldError("bolt_head_mm", Sentence("The bolt heads must end below the jaw's height, {h}.", h=height))


def _line(blank: JawBlank, _: Names) -> str:
    pie, metal = blank.kind == "pie", "hard" if blank.is_hard else blank.metal
    across = exact_text((blank.angle_deg if pie else blank.width_mm) or 0.0) + ("° pie" if pie else "")
    return f"{metal} · {across} × {exact_text(blank.length_mm)} × {exact_text(blank.height_mm)} mm"


JAW_BLANK = ItemKind(
    name="jaw_blank",
    plural="blanks",
    title="Top jaws",
    noun="top jaw",
    item=JawBlank,
    line=_line,
    groups={"name": "What it is", "kind": "Its size", "bolt_head_mm": "On the chuck"},
    order=(
        "name",
        "metal",
        "kind",
        "width_mm",
        "angle_deg",
        "length_mm",
        "height_mm",
        "density_kg_dm3",
        "step_mm",
        "seat_mm",
    ),
    links=(FITS_CHUCKS,),
)

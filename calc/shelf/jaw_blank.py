"""Jaw blanks: soft jaws as they come."""

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
    """A soft jaw as it comes: a block bolted to the master jaw."""

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
        Literal["block", "pie"],
        Choice(
            "Shape",
            {"block": "regular jaw", "pie": "pie jaw, full wrap"},
            "Pie jaws close round the whole wall",
            where="The jaw's order code",
        ),
    ] = "block"
    angle_deg: Annotated[float | None, terms.PIE_ANGLE.called(where="A third of the circle less the gap")] = None

    @property
    def outer_radius_mm(self) -> float:
        """Outer end from the axis in tooth 0."""
        return self.face_radius_mm + self.length_mm

    def contradictions(self) -> Iterator[FieldError]:
        if self.kind == "block" and self.width_mm is None:
            yield FieldError("width_mm", Sentence("A regular jaw needs its width."))
        if self.kind == "pie" and self.angle_deg is None:
            yield FieldError("angle_deg", Sentence("A pie jaw needs its angle, such as 118°."))
        if self.bolt_head_mm >= self.height_mm:
            height = Figure(self.height_mm, "mm", exact=True)
            yield FieldError("bolt_head_mm", Sentence("The bolt heads must end below the jaw's height, {h}.", h=height))


def _line(blank: JawBlank, _: Names) -> str:
    pie = blank.kind == "pie"
    across = exact_text((blank.angle_deg if pie else blank.width_mm) or 0.0) + ("° pie" if pie else "")
    return f"{blank.metal} · {across} × {exact_text(blank.length_mm)} × {exact_text(blank.height_mm)} mm"


JAW_BLANK = ItemKind(
    name="jaw_blank",
    plural="blanks",
    title="Jaw blanks",
    noun="jaw blank",
    item=JawBlank,
    line=_line,
    groups={"name": "What it is", "kind": "Its size", "bolt_head_mm": "On the chuck"},
    order=("name", "metal", "kind", "width_mm", "angle_deg", "length_mm", "height_mm", "density_kg_dm3"),
    links=(FITS_CHUCKS,),
)

"""Power chucks."""

from __future__ import annotations

from collections.abc import Iterator
from dataclasses import dataclass
from typing import Annotated, Literal

from calc import terms
from calc.chuck.book import ChuckForce
from calc.errors import FieldError
from calc.fields import Choice, Group, Quantity, Text
from calc.item import Item
from calc.item_kind import ItemKind, Link, Names
from calc.quantities import Figure, Sentence

SEGMENTS = (3, 4, 6)
CHUCK_TABLE = "The chuck's table of technical data"
CHUCK_DRAWING = "The chuck's dimension drawing"


CLOSES = Choice("Closes", {"jaws": "jaws", "collet": "a collet"}, "What it closes on the part with", where="You see it")
SPINDLE = Choice(
    "On spindle", {"main": "main", "second": "second"}, "Of a lathe with two", where="Where you mounted it"
)
DRAWS = Choice(
    "Closing, the collet",
    {"back": "draws back, and the bar with it", "dead": "stays: dead length"},
    "Of a collet chuck: lengths hold only against a stop, or where it stays",
    where="The collet chuck's data sheet",
)


@dataclass(frozen=True)
class Chuck(Item):
    """A power chuck that closes jaws or a collet, with what its book allows."""

    __hash__ = Item.__hash__

    force: Annotated[ChuckForce, Group("Force")]
    jaws: Annotated[
        int, terms.JAWS.called(help="How many close on the part; of a collet its segments", where=CHUCK_TABLE)
    ]
    max_rpm: Annotated[
        float,
        Quantity(
            "Top speed",
            "rpm",
            "Never to be exceeded",
            above=0,
            high=20_000,
            where="Engraved on the chuck; also " + CHUCK_TABLE.lower(),
        ),
    ]
    body_diameter_mm: Annotated[
        float, Quantity("Body diameter", "mm", "Outside of the body", above=0, high=2000, where=CHUCK_DRAWING)
    ]
    body_length_mm: Annotated[
        float,
        Quantity(
            "Body length", "mm", "Spindle face to guide, or to a collet's nose", above=0, high=1000, where=CHUCK_DRAWING
        ),
    ]
    guide_to_jaw_base_mm: Annotated[
        float,
        Quantity(
            "Guide to jaw base",
            "mm",
            "From the master jaw's guide out to the top jaw; 0 for a collet chuck",
            low=0,
            high=200,
            where=CHUCK_DRAWING,
        ),
    ]
    jaw_stroke_mm: Annotated[
        float,
        Quantity(
            "Jaw stroke",
            "mm",
            "Of one jaw, on the radius; 0 for a collet chuck",
            low=0,
            high=200,
            where=CHUCK_TABLE + "; halve a figure on diameter",
        ),
    ]
    serration_pitch_mm: Annotated[
        float,
        terms.SERRATION_PITCH.called(
            help="Of the master jaws; 0 for a collet chuck", where=CHUCK_DRAWING, above=None, low=0
        ),
    ]
    heaviest_jaw_kg: Annotated[
        float | None,
        Quantity(
            "Heaviest top jaw",
            "kg",
            "One jaw, by its book",
            above=0,
            high=500,
            where="Jaw weight and speed table in the chuck's manual",
        ),
    ]
    master_mass_kg: Annotated[
        float | None,
        Quantity(
            "Master jaw, T-nut and bolts", "kg", "Of one jaw", above=0, high=500, where="Weigh them, or ask the maker"
        ),
    ]
    master_radius_mm: Annotated[
        float | None,
        Quantity(
            "Their centre radius",
            "mm",
            "From the axis, jaws at mid-stroke",
            above=0,
            high=1000,
            where="Balance one on an edge and measure, or ask the maker",
        ),
    ]
    bolt_size: Annotated[str, Text("Jaw bolts", "Thread of the jaw bolts", most=20, where=CHUCK_DRAWING)] = ""
    bolt_torque_steel_nm: Annotated[
        float | None,
        Quantity(
            "Bolt torque, steel",
            "N*m",
            "For steel jaws",
            above=0,
            high=2000,
            where="Tightening torques in the chuck's manual",
        ),
    ] = None
    bolt_torque_aluminium_nm: Annotated[
        float | None,
        Quantity(
            "Bolt torque, aluminium",
            "N*m",
            "For aluminium jaws",
            above=0,
            high=2000,
            where="Tightening torques in the chuck's manual",
        ),
    ] = None
    bore_mm: Annotated[
        float | None,
        Quantity(
            "Through hole", "mm", "Behind the part; empty: counted as closed", above=0, high=1000, where=CHUCK_DRAWING
        ),
    ] = None
    mass_kg: Annotated[
        float | None, Quantity("Chuck's mass", "kg", "Without top jaws", above=0, high=20_000, where=CHUCK_TABLE)
    ] = None
    teeth: Annotated[int | None, terms.TEETH.called(where="Count on the master jaw")] = None
    tnut_radius_0_mm: Annotated[
        float | None, terms.TNUT_RADIUS.called(where="Measure, jaws in their innermost teeth")
    ] = None
    closes: Annotated[Literal["jaws", "collet"], CLOSES] = "jaws"
    spindle: Annotated[Literal["main", "second"], SPINDLE] = "main"
    draws: Annotated[Literal["back", "dead"], DRAWS] = "back"
    nose_mm: Annotated[
        float | None,
        Quantity("Nose diameter", "mm", "Of a collet chuck, at its end", above=0, high=1000, where=CHUCK_DRAWING),
    ] = None
    nose_length_mm: Annotated[
        float | None,
        Quantity(
            "Nose length",
            "mm",
            "From its end back to the body; empty: counted as none",
            above=0,
            high=500,
            where=CHUCK_DRAWING,
        ),
    ] = None

    @property
    def is_collet(self) -> bool:
        """It closes a collet."""
        return self.closes == "collet"

    def contradictions(self) -> Iterator[FieldError]:
        force, jawed = self.force, not self.is_collet
        if jawed and force.guide_length_mm == 0:
            yield FieldError("force.guide_length_mm", Sentence("A chuck with jaws has guides: give their length."))
        if jawed and force.half_angle_deg is not None:
            yield FieldError("force.half_angle_deg", Sentence("Only a collet chuck has a cone: leave it empty."))
        for name in ("jaw_stroke_mm", "serration_pitch_mm"):
            if jawed and getattr(self, name) == 0:
                yield FieldError(name, Sentence("A chuck with jaws needs this: 0 is for a collet chuck."))
        if self.is_collet and self.jaws not in SEGMENTS:
            yield FieldError("jaws", Sentence("A collet is counted with 3, 4 or 6 segments: give the next lower."))
        if self.is_collet and self.nose_mm is None:
            yield FieldError("nose_mm", Sentence("Give the diameter of the nose: tools must clear it."))
        if self.is_collet and force.guide_length_mm != 0:
            yield FieldError("force.guide_length_mm", Sentence("A collet chuck has no guides: give 0."))


def _line(chuck: Chuck, names: Names) -> str:
    grip, rpm = Figure(chuck.force.max_grip_n, "N", "down").text(), Figure(chuck.max_rpm, "rpm").text()
    where = names["machine"] + (", second spindle" if chuck.spindle == "second" else "")
    return f"{where} · {'collets · ' if chuck.is_collet else ''}{grip} · {rpm}"


CHUCK = ItemKind(
    name="chuck",
    title="Chucks",
    noun="chuck",
    item=Chuck,
    line=_line,
    groups={
        "name": "The chuck",
        "max_grip_n": "Its force",
        "body_diameter_mm": "Its body",
        "jaw_stroke_mm": "Its jaws",
    },
    order=(
        "name",
        "closes",
        "spindle",
        "jaws",
        "max_rpm",
        "max_grip_n",
        "max_pressure_bar",
        "reference_height_mm",
        "guide_length_mm",
        "guide_friction",
        "piston_area_mm2",
        "force_ratio",
        "efficiency",
        "max_draw_n",
        "half_angle_deg",
        "cone_friction",
        "draws",
        "body_diameter_mm",
        "body_length_mm",
        "nose_mm",
        "nose_length_mm",
        "bore_mm",
        "mass_kg",
        "guide_to_jaw_base_mm",
        "jaw_stroke_mm",
        "serration_pitch_mm",
        "teeth",
        "tnut_radius_0_mm",
    ),
    links=(Link("machine", "machine", "On machine", "The lathe that it is mounted on", "Where you mounted it"),),
    part="force",
    chart="chart",
)

"""Chucks, jaw blanks, bored jaw sets, and the rings and plugs they close on while they are bored."""

from __future__ import annotations

from collections.abc import Iterator
from dataclasses import dataclass
from typing import Annotated, Literal

from calc.chuck.grip import ChuckForce
from calc.errors import FieldError
from calc.fields import Choice, Group, Quantity, Text
from calc.item import Item
from calc.quantities import Figure, Sentence

CHUCK_TABLE = "The chuck's table of technical data"
CHUCK_DRAWING = "The chuck's dimension drawing"


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
    width_mm: Annotated[
        float | None, Quantity("Width", "mm", "Across, of a regular jaw", above=0, high=500, where="Measure the blank")
    ]
    length_mm: Annotated[float, Quantity("Length", "mm", "Radially", above=0, high=500, where="Measure the blank")]
    height_mm: Annotated[
        float, Quantity("Height", "mm", "Along the spindle", above=0, high=300, where="Measure the blank")
    ]
    density_kg_dm3: Annotated[
        float,
        Quantity("Density", "kg/dm3", "Steel 7.85, aluminium 2.7", above=0, high=25, where="The metal's data sheet"),
    ]
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
        Quantity(
            "Face radius",
            "mm",
            "Inner end in tooth 0, at mid-stroke",
            above=0,
            high=1000,
            where="Measure on the chuck, jaws in their innermost teeth",
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
    angle_deg: Annotated[
        float | None,
        Quantity("Pie angle", "deg", "Of one pie jaw", above=0, high=180, where="A third of the circle less the gap"),
    ] = None

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


@dataclass(frozen=True)
class Chuck(Item):
    """A power chuck, with what its book allows."""

    __hash__ = Item.__hash__

    force: Annotated[ChuckForce, Group("Force")]
    jaws: Annotated[
        int, Quantity("Jaws", "", "How many close on the part", low=2, high=12, whole=True, where=CHUCK_TABLE)
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
        float, Quantity("Body length", "mm", "Spindle face to guide", above=0, high=1000, where=CHUCK_DRAWING)
    ]
    guide_to_jaw_base_mm: Annotated[
        float,
        Quantity(
            "Guide to jaw base",
            "mm",
            "From the master jaw's guide out to the top jaw",
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
            "Of one jaw, on the radius",
            above=0,
            high=200,
            where=CHUCK_TABLE + "; halve a figure on diameter",
        ),
    ]
    serration_pitch_mm: Annotated[
        float, Quantity("Serration pitch", "mm", "Tooth to tooth of master jaw", above=0, high=20, where=CHUCK_DRAWING)
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
    teeth: Annotated[
        int | None,
        Quantity(
            "Teeth", "", "Places a jaw can be mounted in", low=1, high=500, whole=True, where="Count on the master jaw"
        ),
    ] = None
    tnut_radius_0_mm: Annotated[
        float | None,
        Quantity(
            "T-nut's outer edge",
            "mm",
            "From the axis, jaw in tooth 0 at mid-stroke",
            above=0,
            high=1000,
            where="Measure, jaws in their innermost teeth",
        ),
    ] = None


@dataclass(frozen=True)
class Ring(Item):
    """A boring ring in the jaw screw holes. Its limits are its own; without them it is never used."""

    __hash__ = Item.__hash__

    inner_mm: Annotated[
        float, Quantity("Inner diameter", "mm", "Free passage", above=0, high=2000, where="Measure the ring")
    ]
    outer_mm: Annotated[
        float, Quantity("Outer diameter", "mm", "Over all", above=0, high=2000, where="Measure the ring")
    ]
    max_bar: Annotated[
        float | None,
        Quantity("Pressure limit", "bar", "At the cylinder", above=0, high=400, where="The ring's leaflet"),
    ] = None
    max_rpm: Annotated[
        float | None,
        Quantity("Speed limit", "rpm", "With the ring in", above=0, high=20_000, where="The ring's leaflet"),
    ] = None

    def contradictions(self) -> Iterator[FieldError]:
        if self.inner_mm >= self.outer_mm:
            outer = Figure(self.outer_mm, "mm", exact=True)
            yield FieldError("inner_mm", Sentence("The inner diameter must be below the outer one, {d}.", d=outer))


@dataclass(frozen=True)
class Plug(Item):
    """A plug to be clamped at the bottom of the jaws while they are bored."""

    __hash__ = Item.__hash__

    diameter_mm: Annotated[
        float, Quantity("Diameter", "mm", "As measured", above=0, high=2000, where="Measure the plug")
    ]


SIDE_OF_SET = Choice("Grips", {"od": "outside", "id": "inside"}, "Which way the set holds", where="Look at the jaws")


@dataclass(frozen=True)
class JawSet(Item):
    """One set of bored jaws, an individual: where it fits, what it is bored to, what is left of it."""

    __hash__ = Item.__hash__

    side: Annotated[Literal["od", "id"], SIDE_OF_SET]
    bored_mm: Annotated[
        float, Quantity("Bored to", "mm", "Diameter, as last cut", above=0, high=2000, where="Its last touch-off")
    ]
    depth_mm: Annotated[float, Quantity("Deep", "mm", "Of the pocket", above=0, high=300, where="Measure the pocket")]
    wall_left_mm: Annotated[
        float,
        Quantity(
            "Wall left", "mm", "Per side, to the last usable size", low=0, high=300, where="Measure behind the bore"
        ),
    ]
    tooth: Annotated[
        int | None,
        Quantity(
            "Tooth", "", "Scribed on the jaws, counted from 0", low=0, high=500, whole=True, where="The scribed mark"
        ),
    ] = None
    damage_mm: Annotated[
        float,
        Quantity("Deepest mark", "mm", "Per side; 0 for none", low=0, high=20, where="Look, and feel with a nail"),
    ] = 0.0
    numbers: Annotated[
        str, Text("Jaw numbers", "Jaw to master jaw, such as 1-1 2-2 3-3", most=40, where="Stamped on the jaws")
    ] = ""
    stored: Annotated[str, Text("Stored", "Where it lies", most=60, where="The label of its drawer")] = ""
    lent_to: Annotated[
        str, Text("Mounted elsewhere", "Where, since it was cut; empty: nowhere else", most=60, where="Ask who had it")
    ] = ""
    chuck_key: Annotated[str, Text("Bored on", "The chuck it was cut on", most=60)] = ""
    blank_key: Annotated[str, Text("Made from", "The blank", most=60)] = ""

    @property
    def marked(self) -> bool:
        """Its jaws are numbered and the tooth is scribed."""
        return bool(self.numbers) and self.tooth is not None

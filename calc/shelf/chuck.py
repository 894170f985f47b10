"""Power chucks."""

from __future__ import annotations

from dataclasses import dataclass
from typing import Annotated

from calc import terms
from calc.chuck.book import ChuckForce
from calc.fields import Group, Quantity, Text
from calc.item import Item
from calc.item_kind import ItemKind, Link, Names
from calc.quantities import Figure

CHUCK_TABLE = "The chuck's table of technical data"
CHUCK_DRAWING = "The chuck's dimension drawing"


@dataclass(frozen=True)
class Chuck(Item):
    """A power chuck, with what its book allows."""

    __hash__ = Item.__hash__

    force: Annotated[ChuckForce, Group("Force")]
    jaws: Annotated[int, terms.JAWS.called(help="How many close on the part", where=CHUCK_TABLE)]
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
    serration_pitch_mm: Annotated[float, terms.SERRATION_PITCH.called(where=CHUCK_DRAWING)]
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


def _line(chuck: Chuck, names: Names) -> str:
    grip, rpm = Figure(chuck.force.max_grip_n, "N", "down").text(), Figure(chuck.max_rpm, "rpm").text()
    return f"{names['machine']} · {grip} · {rpm}"


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
        "body_diameter_mm",
        "body_length_mm",
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

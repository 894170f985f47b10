"""What stands on the shop's shelf, as values: machines, chucks, jaw blanks, materials."""

from __future__ import annotations

from collections.abc import Iterator
from dataclasses import dataclass, field
from typing import Annotated, Literal

from calc.chuck.grip import ChuckForce
from calc.errors import FieldError
from calc.fields import Checked, Choice, Flag, Group, Quantity, Text
from calc.quantities import Figure, Sentence

Key = Annotated[str, Text("Key", "Stable short name", most=60)]
Name = Annotated[str, Text("Name", "What the shop calls it", most=80, where="Your own word for it")]

PLATE = "Rating plate, or “spindle” in the machine's data sheet"
CHUCK_TABLE = "The chuck's table of technical data"
CHUCK_DRAWING = "The chuck's dimension drawing"
CURVE = "Spindle power and torque chart in the machine's data sheet"


@dataclass(frozen=True)
class Machine(Checked):
    """A lathe."""

    key: Key
    name: Name
    max_rpm: Annotated[float, Quantity("Top speed", "rpm", "Of the main spindle", above=0, high=20_000, where=PLATE)]
    power_kw: Annotated[
        float,
        Quantity(
            "Spindle power",
            "kW",
            "Continuous, at the spindle",
            above=0,
            high=500,
            where=CURVE + "; take the continuous (S1) line",
        ),
    ]
    torque_nm: Annotated[
        float,
        Quantity(
            "Spindle torque",
            "N*m",
            "Below base speed",
            above=0,
            high=50_000,
            where=CURVE + "; the flat part at low speed",
        ),
    ]
    turret_stations: Annotated[
        int, Quantity("Turret stations", "", "Tool places on the turret", low=1, high=200, whole=True,
                      where="“Turret” in the machine's data sheet")
    ] = 12  # fmt: skip


@dataclass(frozen=True)
class Material(Checked):
    """What the part is made of; figures of the starting table are typical."""

    key: Key
    name: Name
    iso_group: Annotated[
        Literal["P", "M", "K", "N", "S", "H"],
        Choice(
            "ISO 513 group",
            {
                "P": "P, steel",
                "M": "M, stainless",
                "K": "K, cast iron",
                "N": "N, non-ferrous",
                "S": "S, heat-resistant and titanium",
                "H": "H, hardened",
            },
            "Which family of cutting materials it belongs to",
            where="Letter on the insert's box for this material",
        ),
    ]
    kc11: Annotated[
        float,
        Quantity(
            "k_c1.1",
            "N/mm2",
            "Cutting force on a chip of 1 × 1 mm",
            above=0,
            high=10_000,
            where="Table of specific cutting forces of the insert's maker, or a test cut",
        ),
    ]
    mc: Annotated[
        float,
        Quantity(
            "m_c",
            "",
            "How the force falls as the chip thickens",
            low=0,
            high=0.6,
            where="Beside k_c1.1 in the same table",
        ),
    ]
    speed_low_m_min: Annotated[
        float,
        Quantity(
            "Speed from",
            "m/min",
            "Slow end for a coated carbide",
            above=0,
            high=3000,
            where="Cutting data on the insert's box",
        ),
    ]
    speed_high_m_min: Annotated[
        float,
        Quantity(
            "Speed to",
            "m/min",
            "Fast end for a coated carbide",
            above=0,
            high=3000,
            where="Cutting data on the insert's box",
        ),
    ]
    density_kg_dm3: Annotated[
        float, Quantity("Density", "kg/dm3", "Mass of a litre", above=0, high=25, where="The material's data sheet")
    ]
    modulus_gpa: Annotated[
        float,
        Quantity("Modulus", "GPa", "Stiffness of the wall (E)", above=0, high=1000, where="The material's data sheet"),
    ]
    poisson: Annotated[
        float,
        Quantity("Poisson's ratio", "", "How it thins when pulled", low=0, high=0.5, where="The material's data sheet"),
    ] = 0.3
    expansion_um_m_k: Annotated[
        float,
        Quantity(
            "Expansion",
            "",
            "µm for each metre and kelvin",
            low=0,
            high=500,
            where="The material's data sheet, 20 to 100 °C",
        ),
    ] = 11.5
    rake_reference_deg: Annotated[
        float,
        Quantity(
            "Rake of k_c1.1",
            "deg",
            "Effective rake of the table's figures",
            low=-10,
            high=20,
            where="Head of the table that k_c1.1 comes from",
        ),
    ] = 6.0
    friction_multiplier: Annotated[
        float,
        Quantity(
            "Friction multiplier",
            "",
            "Against jaws, on steel 1.0",
            above=0,
            high=1.5,
            where="Measure it: pull a part from the jaws at a known grip",
        ),
    ] = 1.0
    typical: Annotated[bool, Flag("Typical figures", "Not replaced by the shop's own yet")] = False  # fmt: skip

    def contradictions(self) -> Iterator[FieldError]:
        low, high = self.speed_low_m_min, self.speed_high_m_min
        if low > high:
            words = Sentence("The slow end cannot be above the fast one, {v}.", v=Figure(high, "m/min", exact=True))
            yield FieldError("speed_low_m_min", words)
            words = Sentence("The fast end cannot be below the slow one, {v}.", v=Figure(low, "m/min", exact=True))
            yield FieldError("speed_high_m_min", words)


@dataclass(frozen=True)
class JawBlank(Checked):
    """A soft jaw as it comes: a block bolted to the master jaw."""

    key: Key
    name: Name
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
        float, Quantity("Width", "mm", "Across, tangentially", above=0, high=500, where="Measure the blank")
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
        float, Quantity("Face radius", "mm", "As mounted, at mid-stroke", above=0, high=1000,
                        where="Measure on the chuck, jaws in their usual teeth")
    ]  # fmt: skip

    def contradictions(self) -> Iterator[FieldError]:
        if self.bolt_head_mm >= self.height_mm:
            height = Figure(self.height_mm, "mm", exact=True)
            yield FieldError("bolt_head_mm", Sentence("The bolt heads must end below the jaw's height, {h}.", h=height))


@dataclass(frozen=True)
class Chuck(Checked):
    """A power chuck, with what its book allows."""

    key: Key
    name: Name
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
        float | None, Quantity("Bolt torque, aluminium", "N*m", "For aluminium jaws", above=0, high=2000,
                               where="Tightening torques in the chuck's manual")
    ] = None  # fmt: skip


@dataclass(frozen=True)
class SetupShelf:
    """What one set-up takes from the shelf; None while not chosen.

    `blanks` are all that the chuck could carry; `on_machine`: the chuck is on the run's machine.
    """

    chuck: Chuck | None = None
    blank: JawBlank | None = None
    blanks: tuple[JawBlank, ...] = ()
    on_machine: bool = True


@dataclass(frozen=True)
class Shelf:
    """What a plan takes from the shelf."""

    machine: Machine | None = None
    material: Material | None = None
    setups: tuple[SetupShelf, ...] = field(default=(SetupShelf(),))

"""What stands on the shop's shelf, as values: machines, chucks, jaw blanks, materials."""

from __future__ import annotations

from dataclasses import dataclass, field
from typing import Annotated, Literal

from calc.chuck.grip import ChuckForce
from calc.fields import Checked, Choice, Group, Quantity, Text

Key = Annotated[str, Text("Key", "Stable short name", most=60)]
Name = Annotated[str, Text("Name", most=80)]


@dataclass(frozen=True)
class Machine(Checked):
    """A lathe."""

    key: Key
    name: Name
    max_rpm: Annotated[float, Quantity("Top speed", "rpm", "", above=0, high=20_000)]
    power_kw: Annotated[float, Quantity("Spindle power", "kW", "", above=0, high=500)]
    torque_nm: Annotated[float, Quantity("Spindle torque", "N*m", "Below base speed", above=0, high=50_000)]


@dataclass(frozen=True)
class Material(Checked):
    """What the part is made of; figures of the starting table are typical."""

    key: Key
    name: Name
    iso_group: Annotated[str, Text("ISO 513 group", most=1)]
    kc11: Annotated[float, Quantity("k_c1.1", "N/mm2", "", above=0, high=10_000)]
    mc: Annotated[float, Quantity("m_c", "", "", low=0, high=0.6)]
    speed_low_m_min: Annotated[float, Quantity("Speed from", "m/min", "", above=0, high=3000)]
    speed_high_m_min: Annotated[float, Quantity("Speed to", "m/min", "", above=0, high=3000)]
    density_kg_dm3: Annotated[float, Quantity("Density", "kg/dm3", "", above=0, high=25)]
    modulus_gpa: Annotated[float, Quantity("Modulus", "GPa", "", above=0, high=1000)]
    rake_reference_deg: Annotated[float, Quantity("Rake of k_c1.1", "deg", "", low=-10, high=20)] = 6.0
    friction_multiplier: Annotated[float, Quantity("Friction multiplier", "", "On steel 1.0", above=0, high=1.5)] = 1.0


@dataclass(frozen=True)
class JawBlank(Checked):
    """A soft jaw as it comes: a block bolted to the master jaw."""

    key: Key
    name: Name
    metal: Annotated[Literal["steel", "aluminium"], Choice("Metal", {"steel": "steel", "aluminium": "aluminium"})]
    width_mm: Annotated[float, Quantity("Width", "mm", "", above=0, high=500)]
    length_mm: Annotated[float, Quantity("Length", "mm", "Radially", above=0, high=500)]
    height_mm: Annotated[float, Quantity("Height", "mm", "", above=0, high=300)]
    density_kg_dm3: Annotated[float, Quantity("Density", "kg/dm3", "", above=0, high=25)]
    bolt_head_mm: Annotated[float, Quantity("Bolt-head top", "mm", "Above the jaw base", low=0, high=300)]
    face_radius_mm: Annotated[float, Quantity("Face radius", "mm", "As mounted, at mid-stroke", above=0, high=1000)]


@dataclass(frozen=True)
class Chuck(Checked):
    """A power chuck, with what its book allows."""

    key: Key
    name: Name
    force: Annotated[ChuckForce, Group("Force")]
    jaws: Annotated[int, Quantity("Jaws", "", "", low=2, high=12, whole=True)]
    max_rpm: Annotated[float, Quantity("Top speed", "rpm", "", above=0, high=20_000)]
    body_diameter_mm: Annotated[float, Quantity("Body diameter", "mm", "", above=0, high=2000)]
    body_length_mm: Annotated[float, Quantity("Body length", "mm", "Spindle face to guide", above=0, high=1000)]
    guide_to_jaw_base_mm: Annotated[float, Quantity("Guide to jaw base", "mm", "", low=0, high=200)]
    jaw_stroke_mm: Annotated[float, Quantity("Jaw stroke", "mm", "Per jaw", above=0, high=200)]
    serration_pitch_mm: Annotated[float, Quantity("Serration pitch", "mm", "", above=0, high=20)]
    heaviest_jaw_kg: Annotated[float | None, Quantity("Heaviest top jaw", "kg", "By its book", above=0, high=500)]
    master_mass_kg: Annotated[
        float | None, Quantity("Master jaw, T-nut and bolts", "kg", "Of one jaw", above=0, high=500)
    ]
    master_radius_mm: Annotated[float | None, Quantity("Their centre radius", "mm", "", above=0, high=1000)]
    bolt_size: Annotated[str, Text("Jaw bolts", most=20)] = ""
    bolt_torque_steel_nm: Annotated[float | None, Quantity("Bolt torque, steel", "N*m", "", above=0, high=2000)] = None
    bolt_torque_aluminium_nm: Annotated[
        float | None, Quantity("Bolt torque, aluminium", "N*m", "", above=0, high=2000)
    ] = None


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

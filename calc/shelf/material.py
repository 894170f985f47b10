"""Materials of parts."""

from __future__ import annotations

from collections.abc import Iterator
from dataclasses import dataclass
from typing import Annotated, Literal

from calc import terms
from calc.errors import FieldError
from calc.fields import Choice, Flag, Quantity
from calc.item import Item
from calc.item_kind import ItemKind, Names
from calc.quantities import Figure, Sentence


@dataclass(frozen=True)
class Material(Item):
    """What the part is made of; figures of the starting table are typical."""

    __hash__ = Item.__hash__

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
        terms.KC11.called(
            help="Cutting force on a chip of 1 × 1 mm",
            where="Table of specific cutting forces of the insert's maker, or a test cut",
        ),
    ]
    mc: Annotated[
        float, terms.MC.called(help="How the force falls as the chip thickens", where="Beside k_c1.1 in the same table")
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
        float, terms.MODULUS.called(help="Stiffness of the wall (E)", where="The material's data sheet")
    ]
    poisson: Annotated[
        float, terms.POISSON.called(help="How it thins when pulled", where="The material's data sheet")
    ] = 0.3
    proof_n_mm2: Annotated[
        float | None, terms.PROOF_STRESS.called(where="Rp0.2 on the material's certificate or data sheet")
    ] = None
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
        float, terms.RAKE_REFERENCE.called(where="Head of the table that k_c1.1 comes from")
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
    typical: Annotated[bool, Flag("Typical figures", "Not replaced by the shop's own yet")] = False

    def contradictions(self) -> Iterator[FieldError]:
        low, high = self.speed_low_m_min, self.speed_high_m_min
        if low > high:
            words = Sentence("The slow end cannot be above the fast one, {v}.", v=Figure(high, "m/min", exact=True))
            yield FieldError("speed_low_m_min", words)
            words = Sentence("The fast end cannot be below the slow one, {v}.", v=Figure(low, "m/min", exact=True))
            yield FieldError("speed_high_m_min", words)


def _line(material: Material, _: Names) -> str:
    low, high = Figure(material.speed_low_m_min, "m/min").number(), Figure(material.speed_high_m_min, "m/min").text()
    return f"ISO {material.iso_group} · {low} to {high}"


MATERIAL = ItemKind(
    name="material",
    typical_by="kc11",
    title="Materials",
    noun="material",
    item=Material,
    line=_line,
    groups={"name": "What it is", "kc11": "How it cuts", "density_kg_dm3": "How it behaves"},
)

"""Holders and bars."""

from __future__ import annotations

from collections.abc import Iterator
from dataclasses import dataclass
from typing import Annotated, Literal

from calc import terms
from calc.errors import FieldError
from calc.fields import Choice, Quantity
from calc.item import Item
from calc.item_kind import ItemKind, Names
from calc.quantities import Sentence, exact_text
from calc.tools.kinds.carrier import COOLANT, HAND, SEAT, SHANK, SIDE, TURNS, TURRET, Coolant, Hand, Side

METALS = {"steel": 210.0, "heavy": 380.0, "carbide": 560.0}  # modulus [GPa], typical


@dataclass(frozen=True)
class Holder(Item):
    """A holder or a bar: what carries an insert."""

    __hash__ = Item.__hash__

    seat: Annotated[str, SEAT]
    shank_mm: Annotated[float, TURNS]
    use: Annotated[
        Literal["turning", "grooving", "threading"],
        Choice(
            "For",
            {"turning": "turning and boring", "grooving": "grooving", "threading": "threading"},
            "What it holds",
            where=SHANK,
        ),
    ] = "turning"
    side: Annotated[Side, SIDE] = "outside"
    approach_deg: Annotated[float, terms.APPROACH.called(where="The holder's designation")] = 95.0
    hand: Annotated[Hand, HAND] = "right"
    reach_mm: Annotated[
        float | None,
        Quantity(
            "Reach",
            "mm",
            "A bar: how deep it can work; a groover: how deep it plunges",
            above=0,
            high=2000,
            where=SHANK,
        ),
    ] = None
    min_bore_mm: Annotated[
        float | None, Quantity("Least bore", "mm", "A bar goes into", above=0, high=2000, where=SHANK)
    ] = None
    metal: Annotated[
        Literal["steel", "heavy", "carbide"],
        Choice(
            "Shank of",
            {"steel": "steel", "heavy": "heavy metal, damped", "carbide": "carbide"},
            "Stiffness of a bar",
            where=SHANK,
        ),
    ] = "steel"
    coolant: Annotated[Coolant, COOLANT] = "outside"
    turret: Annotated[str, TURRET] = ""

    def contradictions(self) -> Iterator[FieldError]:
        if self.side == "inside" and self.reach_mm is None:
            yield FieldError("reach_mm", Sentence("A bar needs its reach: how deep it can work."))
        if self.side == "inside" and self.min_bore_mm is None:
            yield FieldError("min_bore_mm", Sentence("A bar needs the least bore that it goes into."))

    @property
    def modulus_gpa(self) -> float:
        """Modulus of its shank [GPa]."""
        return METALS[self.metal]


def _line(holder: Holder, _: Names) -> str:
    reach = f" · reaches {exact_text(holder.reach_mm)} mm" if holder.reach_mm else ""
    return f"seat {holder.seat} · {holder.side} · {exact_text(holder.shank_mm)} mm{reach}"


HOLDER = ItemKind(
    name="holder",
    plural="holders",
    title="Holders and bars",
    noun="holder",
    item=Holder,
    line=_line,
    groups={"name": "What it is", "reach_mm": "A bar", "coolant": "On the machine"},
    codes={
        "shank_mm": "H",
        "approach_deg": "KAPR",
        "hand": "HAND",
        "reach_mm": "LPR",
        "min_bore_mm": "DMIN1",
        "coolant": "CSP",
    },
)

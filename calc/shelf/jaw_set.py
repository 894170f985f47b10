"""Bored jaw sets: individuals with a life."""

from __future__ import annotations

from dataclasses import dataclass
from typing import Annotated, Literal

from calc import terms
from calc.fields import Choice, Quantity, Text
from calc.item import Item
from calc.item_kind import ItemKind, Link, Names
from calc.quantities import exact_text

SIDE_OF_SET = Choice("Grips", {"od": "outside", "id": "inside"}, "Which way the set holds", where="Look at the jaws")


@dataclass(frozen=True)
class JawSet(Item):
    """One set of bored jaws, an individual: where it fits, what it is bored to, what is left of it."""

    __hash__ = Item.__hash__

    side: Annotated[Literal["od", "id"], SIDE_OF_SET]
    bored_mm: Annotated[
        float, Quantity("Bored to", "mm", "Diameter, as last cut", above=0, high=2000, where="Its last touch-off")
    ]
    depth_mm: Annotated[float, terms.POCKET_DEPTH.called("Deep", "Of the pocket", where="Measure the pocket")]
    wall_left_mm: Annotated[float, terms.WALL_LEFT.called(where="Measure behind the bore")]
    tooth: Annotated[
        int | None, terms.TOOTH.called(help="Scribed on the jaws, counted from 0", where="The scribed mark")
    ] = None
    damage_mm: Annotated[float, terms.DAMAGE.called(where="Look, and feel with a nail")] = 0.0
    numbers: Annotated[
        str, Text("Jaw numbers", "Jaw to master jaw, such as 1-1 2-2 3-3", most=40, where="Stamped on the jaws")
    ] = ""
    stored: Annotated[str, Text("Stored", "Where it lies", most=60, where="The label of its drawer")] = ""
    lent_to: Annotated[
        str, Text("Mounted elsewhere", "Where, since it was cut; empty: nowhere else", most=60, where="Ask who had it")
    ] = ""
    bends_times: Annotated[
        float | None, terms.BENDS_TIMES.called(where="A feeler at full pressure: its card notes it")
    ] = None
    chuck_key: Annotated[str, Text("Bored on", "The chuck it was cut on", most=60)] = ""
    blank_key: Annotated[str, Text("Made from", "The blank", most=60)] = ""

    @property
    def marked(self) -> bool:
        """Its jaws are numbered and the tooth is scribed."""
        return bool(self.numbers) and self.tooth is not None


def _line(jaws: JawSet, _: Names) -> str:
    held = f", since then on {jaws.lent_to}" if jaws.lent_to else ""
    way = SIDE_OF_SET.options[jaws.side]
    return f"{way} Ø{exact_text(jaws.bored_mm)} · {exact_text(jaws.wall_left_mm)} mm of wall left{held}"


JAW_SET = ItemKind(
    name="jaw_set",
    title="Jaw sets",
    noun="jaw set",
    item=JawSet,
    line=_line,
    groups={"name": "What it is", "bored_mm": "As it is now", "numbers": "Its marks", "stored": "Where it is"},
    order=(
        "name",
        "side",
        "bored_mm",
        "depth_mm",
        "wall_left_mm",
        "damage_mm",
        "bends_times",
        "numbers",
        "tooth",
        "stored",
        "lent_to",
    ),
    links=(
        Link(
            "chuck",
            "chuck",
            "Bored on",
            "The chuck it was cut on; only there is it refitted without cutting",
            "The jaws' own mark",
            field="chuck_key",
        ),
        Link("blank", "jaw_blank", "Made from", "The blank it was", "Its size tells", field="blank_key"),
    ),
)

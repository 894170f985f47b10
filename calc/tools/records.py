"""Tools on the shelf: inserts, what carries them, drills and blades."""

from __future__ import annotations

from collections.abc import Iterator
from dataclasses import dataclass
from functools import cached_property
from typing import Annotated, Literal

from calc.cuts.feed_window import Breaker
from calc.errors import CalcError, FieldError
from calc.fields import Choice, Quantity, Text
from calc.item import Item
from calc.quantities import Sentence
from calc.threads.thread import ANGLES
from calc.tools.insert_code import InsertCode, InsertCodeInput, insert_code
from calc.tools.ranges import read_range

BOX = "The insert's box"
SHANK = "The holder's data sheet, or measure it"

Substrate = Literal["carbide", "cermet", "hss"]
SUBSTRATE = Choice(
    "Made of",
    {"carbide": "carbide", "cermet": "cermet", "hss": "high-speed steel"},
    "What the edge is made of",
    where=BOX,
)
Coating = Literal["none", "coated", "diamond"]
COATING = Choice("Coating", {"none": "none", "coated": "coated", "diamond": "diamond"}, "Of the edge", where=BOX)
APPLICATION = Text("Application range", "ISO 513, such as P10-P30 M15-M25", most=60, where=BOX)
STOCK = Quantity("In stock", "", "Pieces on the shelf", low=0, high=1_000_000, whole=True, where="Count them")
SEAT = Text(
    "Seat",
    "Holder and insert of the same seat go together",
    most=20,
    where="The shop's own word, or the holder's data sheet",
)
Hand = Literal["right", "left", "neutral"]
HAND = Choice(
    "Hand",
    {"right": "right", "left": "left", "neutral": "either"},
    "Which way it cuts",
    where="Letter R, L or N of its designation",
)
Side = Literal["outside", "inside"]
SIDE = Choice(
    "Works", {"outside": "outside", "inside": "inside"}, "On the outside, or in a bore", where="Its designation"
)
TURRET = Text("Turret seat", "Such as VDI 30; empty: fits any turret", most=20, where="The block's data sheet")
TURNS = Quantity("Shank", "mm", "Square shank, or diameter of a bar", above=0, high=200, where=SHANK)


def _fits(text: str) -> Iterator[FieldError]:
    try:
        read_range(text)
    except CalcError as error:
        yield from error.errors


class Edge:
    """What is asked of anything that cuts: its grade."""

    application: str
    substrate: str
    coating: str

    @cached_property
    def groups(self) -> dict[str, tuple[int, int]]:
        """ISO 513 group -> (hardest, toughest)."""
        return read_range(self.application)


@dataclass(frozen=True)
class Insert(Item, Edge):
    """A turning insert."""

    __hash__ = Item.__hash__

    code: Annotated[str, Text("Designation", "ISO 1832 or ANSI B212.4, such as CNMG 120408", most=30, where=BOX)]
    application: Annotated[str, APPLICATION]
    feed_min: Annotated[float, Quantity("Feed from", "mm/rev", "Breaker window", above=0, high=5, where=BOX)]
    feed_max: Annotated[float, Quantity("Feed to", "mm/rev", "Breaker window", above=0, high=5, where=BOX)]
    depth_min: Annotated[float, Quantity("Depth from", "mm", "Breaker window, per side", low=0, high=50, where=BOX)]
    depth_max: Annotated[float, Quantity("Depth to", "mm", "Breaker window, per side", above=0, high=50, where=BOX)]
    substrate: Annotated[Substrate, SUBSTRATE] = "carbide"
    coating: Annotated[Coating, COATING] = "coated"
    purpose: Annotated[
        Literal["rough", "medium", "finish"],
        Choice(
            "Breaker for",
            {"rough": "roughing", "medium": "medium work", "finish": "finishing"},
            "What it is made for",
            where=BOX,
        ),
    ] = "medium"
    edge: Annotated[
        Literal["honed", "sharp", "wiper"],
        Choice(
            "Edge",
            {"honed": "honed", "sharp": "sharp, polished", "wiper": "with a wiper flat"},
            "How its edge is made",
            where=BOX,
        ),
    ] = "honed"
    rake_deg: Annotated[float, Quantity("Effective rake", "deg", "The chip breaker's", low=-30, high=40, where=BOX)] = (
        6.0
    )
    stock: Annotated[int, STOCK] = 0

    def contradictions(self) -> Iterator[FieldError]:
        yield from _fits(self.application)
        try:
            insert_code(InsertCodeInput(self.code))
        except CalcError as error:
            yield from error.errors
        if self.feed_min > self.feed_max:
            yield FieldError("feed_max", Sentence("The window cannot end below where it begins."))
        if self.depth_min > self.depth_max:
            yield FieldError("depth_max", Sentence("The window cannot end below where it begins."))

    @cached_property
    def decoded(self) -> InsertCode:
        """What its designation says."""
        return insert_code(InsertCodeInput(self.code))

    @cached_property
    def seat(self) -> str:
        """What a holder must take: shape, clearance, size and thickness, such as "CN 1204"."""
        d = self.decoded
        figures = d.iso.split()[1][:4] if d.iso else f"{d.ic_mm:.2f}/{d.thickness_mm:.2f}"
        return f"{d.shape}{d.letters[1].symbol} {figures}"

    @cached_property
    def breaker(self) -> Breaker:
        """The window in which its chip breaks."""
        return Breaker(self.feed_min, self.feed_max, self.depth_min, self.depth_max)


@dataclass(frozen=True)
class GrooveInsert(Item, Edge):
    """An insert that grooves or parts off."""

    __hash__ = Item.__hash__

    seat: Annotated[str, SEAT]
    width_mm: Annotated[float, Quantity("Width", "mm", "Of its edge", above=0, high=50, where=BOX)]
    application: Annotated[str, APPLICATION]
    feed_min: Annotated[float, Quantity("Feed from", "mm/rev", "Plunging", above=0, high=5, where=BOX)]
    feed_max: Annotated[float, Quantity("Feed to", "mm/rev", "Plunging", above=0, high=5, where=BOX)]
    corner_radius_mm: Annotated[float, Quantity("Corner radius", "mm", "Of its corners", low=0, high=10, where=BOX)] = (
        0.2
    )
    use: Annotated[
        Literal["groove", "part", "both"],
        Choice("For", {"groove": "grooving", "part": "parting off", "both": "both"}, "What it is made for", where=BOX),
    ] = "groove"
    substrate: Annotated[Substrate, SUBSTRATE] = "carbide"
    coating: Annotated[Coating, COATING] = "coated"
    rake_deg: Annotated[float, Quantity("Effective rake", "deg", "Of its edge", low=-30, high=40, where=BOX)] = 6.0
    edges: Annotated[int, Quantity("Edges", "", "Of one insert", low=1, high=6, whole=True, where=BOX)] = 2
    stock: Annotated[int, STOCK] = 0

    def contradictions(self) -> Iterator[FieldError]:
        yield from _fits(self.application)
        if self.feed_min > self.feed_max:
            yield FieldError("feed_max", Sentence("The window cannot end below where it begins."))


@dataclass(frozen=True)
class ThreadInsert(Item, Edge):
    """A threading insert."""

    __hash__ = Item.__hash__

    seat: Annotated[str, SEAT]
    angle_deg: Annotated[
        float,
        Quantity("Profile angle", "deg", "60 metric and unified, 55 Whitworth, 30, 29, 80", low=20, high=90, where=BOX),
    ]
    pitch_min_mm: Annotated[
        float, Quantity("Pitch from", "mm", "Full profile: its one pitch", above=0, high=50, where=BOX)
    ]
    pitch_max_mm: Annotated[float, Quantity("Pitch to", "mm", "Full profile: the same", above=0, high=50, where=BOX)]
    application: Annotated[str, APPLICATION]
    side: Annotated[Side, SIDE] = "outside"
    profile: Annotated[
        Literal["full", "partial"],
        Choice(
            "Profile",
            {"full": "full: finishes the crest too", "partial": "partial: the crest is turned before"},
            "Whether it finishes the crest",
            where=BOX,
        ),
    ] = "full"
    substrate: Annotated[Substrate, SUBSTRATE] = "carbide"
    coating: Annotated[Coating, COATING] = "coated"
    rake_deg: Annotated[float, Quantity("Effective rake", "deg", "Of its edge", low=-30, high=40, where=BOX)] = 0.0
    edges: Annotated[int, Quantity("Edges", "", "Of one insert", low=1, high=6, whole=True, where=BOX)] = 3
    stock: Annotated[int, STOCK] = 0

    def contradictions(self) -> Iterator[FieldError]:
        yield from _fits(self.application)
        if self.pitch_min_mm > self.pitch_max_mm:
            yield FieldError("pitch_max_mm", Sentence("The range cannot end below where it begins."))
        if self.profile == "full" and self.pitch_min_mm != self.pitch_max_mm:
            yield FieldError("pitch_max_mm", Sentence("A full profile has one pitch: write the same figure twice."))
        if self.angle_deg not in ANGLES.values():
            known = ", ".join(f"{a:g}" for a in sorted(set(ANGLES.values())))
            yield FieldError("angle_deg", Sentence("Threads have one of these angles: {k}.", k=known))


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
    approach_deg: Annotated[
        float,
        Quantity(
            "Approach angle", "deg", "κ, of the edge to the axis", low=10, high=135, where="The holder's designation"
        ),
    ] = 95.0
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
    coolant: Annotated[
        Literal["outside", "through"],
        Choice("Coolant", {"outside": "from outside", "through": "through it"}, "How it gets to the edge", where=SHANK),
    ] = "outside"
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


@dataclass(frozen=True)
class Drill(Item, Edge):
    """A drill."""

    __hash__ = Item.__hash__

    diameter_mm: Annotated[
        float, Quantity("Diameter", "mm", "Of the hole it makes", above=0, high=300, where="On its shank")
    ]
    reach_mm: Annotated[
        float, Quantity("Reach", "mm", "How deep it can drill", above=0, high=3000, where="The drill's data sheet")
    ]
    application: Annotated[str, APPLICATION]
    feed_min: Annotated[
        float,
        Quantity("Feed from", "mm/rev", "Of both edges together", above=0, high=5, where="The drill's data sheet"),
    ]
    feed_max: Annotated[
        float, Quantity("Feed to", "mm/rev", "Of both edges together", above=0, high=5, where="The drill's data sheet")
    ]
    point_deg: Annotated[
        float, Quantity("Point angle", "deg", "Of its tip", low=60, high=180, where="The drill's data sheet")
    ] = 140.0
    substrate: Annotated[Substrate, SUBSTRATE] = "carbide"
    coating: Annotated[Coating, COATING] = "coated"
    coolant: Annotated[
        Literal["outside", "through"],
        Choice(
            "Coolant",
            {"outside": "from outside", "through": "through it"},
            "How it gets to the edge",
            where="Holes at its point",
        ),
    ] = "through"
    stock: Annotated[int, STOCK] = 0

    def contradictions(self) -> Iterator[FieldError]:
        yield from _fits(self.application)
        if self.feed_min > self.feed_max:
            yield FieldError("feed_max", Sentence("This cannot be below the least feed."))


@dataclass(frozen=True)
class Blade(Item):
    """A part-off blade in its block."""

    __hash__ = Item.__hash__

    seat: Annotated[str, SEAT]
    reach_mm: Annotated[
        float,
        Quantity("Most reach", "mm", "How far it may hang out", above=0, high=500, where="The blade's data sheet"),
    ]
    shank_mm: Annotated[
        float, Quantity("Block", "mm", "Square of the block, or height of the blade", above=0, high=200, where=SHANK)
    ]
    coolant: Annotated[
        Literal["outside", "through"],
        Choice("Coolant", {"outside": "from outside", "through": "through it"}, "How it gets to the edge", where=SHANK),
    ] = "outside"
    turret: Annotated[str, TURRET] = ""


TOOL_KINDS: dict[str, type[Item]] = {
    "insert": Insert,
    "groove_insert": GrooveInsert,
    "thread_insert": ThreadInsert,
    "holder": Holder,
    "drill": Drill,
    "blade": Blade,
}

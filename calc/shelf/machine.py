"""Lathes."""

from __future__ import annotations

import re
from collections.abc import Iterator
from dataclasses import dataclass, replace
from typing import Annotated, Literal

from calc.errors import FieldError
from calc.fields import Choice, Flag, Quantity, Text
from calc.item import Item
from calc.item_kind import ItemKind
from calc.quantities import Figure, Sentence

PLATE = "Rating plate, or “spindle” in the machine's data sheet"
CONTROL = "The control's programming manual"
ROOM = "Capacities in the machine's data sheet"
THREADING_M_MIN = 6.0  # typical
TURRET = "“Turret” in the machine's data sheet"
TAKES = Choice(
    "Its stations take",
    {"any": "any tool", "alternate": "outside tools at odd numbers, bars and drills at even ones"},
    "Which tools fit where",
    where=TURRET,
)
TURNS = Choice(
    "Turret turns",
    {"both": "both ways, the shorter one", "one": "one way only"},
    "From station to station",
    where=TURRET,
)
SLIDES = "“Axes” or “feed” in the machine's data sheet"
FEEDER = "The bar feeder's plate and manual"
CURVE = "Spindle power and torque chart in the machine's data sheet"


@dataclass(frozen=True)
class Machine(Item):
    """A lathe."""

    __hash__ = Item.__hash__

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
    thread_feed_m_min: Annotated[
        float | None,
        Quantity(
            "Threading feed",
            "m/min",
            "Fastest feed that a thread is cut at; empty: 6 m/min is counted",
            above=0,
            high=100,
            where="“Feed” in the machine's data sheet, or its control's limit while threading",
        ),
    ] = None
    swing_mm: Annotated[
        float | None,
        Quantity(
            "Swing",
            "mm",
            "Largest diameter that turns over the slide; empty: not checked",
            above=0,
            high=5000,
            where=ROOM,
        ),
    ] = None
    turning_length_mm: Annotated[
        float | None,
        Quantity(
            "Turning length", "mm", "From the spindle's face; empty: not checked", above=0, high=20_000, where=ROOM
        ),
    ] = None
    spindle_load_kg: Annotated[
        float | None,
        Quantity(
            "Spindle carries", "kg", "Chuck and part together; empty: not checked", above=0, high=50_000, where=ROOM
        ),
    ] = None
    spindle_bore_mm: Annotated[
        float | None,
        Quantity("Spindle bore", "mm", "Largest bar that goes in; empty: not checked", above=0, high=1000, where=ROOM),
    ] = None
    centre_n: Annotated[
        float | None,
        Quantity(
            "Live centre carries",
            "N",
            "Along the axis; empty: not checked",
            above=0,
            high=1_000_000,
            where="The live centre's data sheet, and what the tailstock presses with at most: the lower",
        ),
    ] = None
    spindle_length_mm: Annotated[
        float | None,
        Quantity(
            "Spindle through to",
            "mm",
            "From its face to its rear end; a bar that is longer needs a feeder; empty: not checked",
            above=0,
            high=10_000,
            where=ROOM,
        ),
    ] = None
    feeder_mm: Annotated[
        float | None,
        Quantity("Feeder takes", "mm", "Largest bar of the bar feeder; empty: none", above=0, high=1000, where=FEEDER),
    ] = None
    feeder_length_mm: Annotated[
        float | None, Quantity("Feeder's bar", "mm", "Longest bar it takes", above=0, high=10_000, where=FEEDER)
    ] = None
    feeder_rpm: Annotated[
        float | None, Quantity("Feeder's top speed", "rpm", "With its largest bar", above=0, high=20_000, where=FEEDER)
    ] = None
    remnant_mm: Annotated[
        float | None, Quantity("Remnant", "mm", "What the feeder cannot push on", low=0, high=5000, where=FEEDER)
    ] = None
    second_rpm: Annotated[
        float | None,
        Quantity("Second spindle, top speed", "rpm", "Empty: there is none", above=0, high=20_000, where=PLATE),
    ] = None
    second_kw: Annotated[
        float | None,
        Quantity("Second spindle, power", "kW", "Continuous, at the spindle", above=0, high=500, where=CURVE),
    ] = None
    second_nm: Annotated[
        float | None, Quantity("Second spindle, torque", "N*m", "Below base speed", above=0, high=50_000, where=CURVE)
    ] = None
    turret_stations: Annotated[
        int, Quantity("Turret stations", "", "Tool places on the turret", low=1, high=200, whole=True, where=TURRET)
    ] = 12
    shank_mm: Annotated[
        float | None, Quantity("Square shanks", "mm", "Of outside holders; empty: any", above=0, high=100, where=TURRET)
    ] = None
    bar_seat_mm: Annotated[
        float | None,
        Quantity("Largest bar", "mm", "That its sleeves take; empty: any", above=0, high=200, where=TURRET),
    ] = None
    turrets: Annotated[
        int, Quantity("Turrets", "", "Two work at once, one at each spindle", 1, 2, whole=True, where=TURRET)
    ] = 1
    turret_radius_mm: Annotated[
        float | None,
        Quantity(
            "Turret's radius",
            "mm",
            "From its middle to the tips of the tools; empty: neighbours are not checked",
            above=0,
            high=2000,
            where=TURRET,
        ),
    ] = None
    turret_turns: Annotated[Literal["both", "one"], TURNS] = "both"
    turret_takes: Annotated[Literal["any", "alternate"], TAKES] = "any"
    index_first_s: Annotated[
        float, Quantity("To the next station", "s", "With unlocking and locking", low=0, high=30, where=TURRET)
    ] = 0.4
    index_further_s: Annotated[
        float, Quantity("Each station further", "s", "On top of the first", low=0, high=30, where=TURRET)
    ] = 0.1
    turret: Annotated[str, Text("Turret seat", "Such as VDI 30; empty: any tool fits", most=20, where=TURRET)] = ""
    rapid_x_m_min: Annotated[float, Quantity("Rapid, X", "m/min", "Across", above=0, high=200, where=SLIDES)] = 20.0
    rapid_z_m_min: Annotated[float, Quantity("Rapid, Z", "m/min", "Along", above=0, high=200, where=SLIDES)] = 24.0
    acceleration_m_s2: Annotated[
        float, Quantity("Acceleration", "m/s2", "Of both slides", above=0, high=50, where=SLIDES)
    ] = 3.0
    spindle_s: Annotated[
        float,
        Quantity("Spindle to top speed", "s", "From rest", above=0, high=120, where="Watch it once: S at top speed"),
    ] = 3.0
    change_x_mm: Annotated[
        float,
        Quantity("Tools change, X", "mm", "So far off the surface, on radius", low=0, high=2000, where="Your programs"),
    ] = 100.0
    change_z_mm: Annotated[
        float, Quantity("Tools change, Z", "mm", "So far before the face", low=0, high=5000, where="Your programs")
    ] = 150.0
    feed_word: Annotated[
        str, Text("Word for feed per turn", "Such as G95 or G99; none is assumed", most=8, where=CONTROL)
    ] = ""
    clamp_word: Annotated[
        str, Text("Word for the spindle clamp", "Such as G92 or G50; S and the speed follow it", most=8, where=CONTROL)
    ] = ""
    program_word: Annotated[
        str, Text("Word for the program number", "Such as O or %; the number follows it", most=8, where=CONTROL)
    ] = ""
    end_word: Annotated[str, Text("Word for the end", "Such as M30 or M02", most=8, where=CONTROL)] = ""
    typical: Annotated[bool, Flag("Typical moves", "How it moves is not told by the shop yet")] = False

    @property
    def threading_m_min(self) -> float:
        """Fastest feed while threading [m/min], typical where its record says none."""
        return self.thread_feed_m_min or THREADING_M_MIN

    @property
    def has_second(self) -> bool:
        """It has a second spindle whose figures are known."""
        return self.second_rpm is not None

    def on_second(self) -> Machine:
        """The lathe as its second spindle drives it; itself where it has none."""
        if self.second_rpm is None or self.second_kw is None or self.second_nm is None:
            return self
        return replace(self, max_rpm=self.second_rpm, power_kw=self.second_kw, torque_nm=self.second_nm)

    def contradictions(self) -> Iterator[FieldError]:
        second = {n: getattr(self, n) for n in ("second_rpm", "second_kw", "second_nm")}
        if any(v is not None for v in second.values()):
            for name, value in second.items():
                if value is None:
                    words = "Speed, power and torque of the second spindle belong together: give all three, or none."
                    yield FieldError(name, Sentence(words))
        if self.feeder_mm is not None and self.feeder_rpm is None:
            yield FieldError("feeder_rpm", Sentence("Give how fast the feeder lets its largest bar turn."))
        for name, pattern, example in (
            ("feed_word", r"G\d{1,3}", "G95"),
            ("clamp_word", r"G\d{1,3}", "G92"),
            ("program_word", r"[A-Z]{1,3}|%", "O"),
            ("end_word", r"M\d{1,3}", "M30"),
        ):
            word = getattr(self, name)
            if word and not re.fullmatch(pattern, word):
                yield FieldError(name, Sentence("Write the word as the control takes it, such as {e}.", e=example))


MACHINE = ItemKind(
    name="machine",
    title="Machines",
    noun="machine",
    item=Machine,
    line=lambda m, _: f"{Figure(m.max_rpm, 'rpm').text()} · {Figure(m.power_kw, 'kW', exact=True).text()}",
    groups={
        "name": "The lathe",
        "swing_mm": "Its room",
        "spindle_length_mm": "Bars",
        "second_rpm": "Its second spindle",
        "turret_stations": "Its turret",
        "rapid_x_m_min": "How it moves",
        "feed_word": "Its control",
    },
    typical_by="rapid_x_m_min",
)

"""The plan document: what a setter enters, as one immutable, versioned value.

Machines, chucks, jaw blanks and materials are not in it: they are shelf items (`calc.plan.shelf`).
The document already holds a list of set-ups and a profile of steps, so that a second side or
another step adds data, not another shape. A missing fact is None.
"""

from __future__ import annotations

import re
from collections.abc import Iterator
from dataclasses import dataclass, field, replace
from typing import Annotated, Any, Literal

from calc.errors import FieldError
from calc.fields import Checked, Choice, Flag, Group, Quantity, Text
from calc.quantities import Figure, Sentence

VERSION = 1
DIAMETER_MOST = 1000.0
LENGTH_MOST = 2000.0

NAME_MOST = 40

Name = Annotated[str, Text("Name", "What it is called here", most=NAME_MOST)]


@dataclass(frozen=True)
class OutsideStep(Checked):
    """One outside step of the turned profile, from the gripped end outward."""

    name: Name
    diameter_mm: Annotated[
        float | None, Quantity("Diameter", "mm", "Finished, nominal, from the print", above=0, high=DIAMETER_MOST)
    ] = None
    length_mm: Annotated[float | None, Quantity("Length", "mm", "Along the axis, plain", above=0, high=LENGTH_MOST)] = (
        None
    )
    upper_mm: Annotated[
        float | None, Quantity("Upper limit", "mm", "Deviation from nominal", low=-5, high=5, places=(3, 4))
    ] = None
    lower_mm: Annotated[
        float | None, Quantity("Lower limit", "mm", "Deviation from nominal", low=-5, high=5, places=(3, 4))
    ] = None
    stock_diameter_mm: Annotated[
        float | None, Quantity("Stock diameter", "mm", "Before these cuts", above=0, high=DIAMETER_MOST)
    ] = None

    def contradictions(self) -> Iterator[FieldError]:
        d, hi, lo = self.diameter_mm, self.upper_mm, self.lower_mm
        if hi is not None and lo is not None and lo > hi:
            yield FieldError("lower_mm", _said("The lower limit cannot be above the upper one, {x}.", hi))
            yield FieldError("upper_mm", _said("The upper limit cannot be below the lower one, {x}.", lo))
        if d is not None and self.stock_diameter_mm is not None and self.stock_diameter_mm < d:
            yield FieldError("stock_diameter_mm", _said("Stock cannot be smaller than the finished {x}.", d))
            yield FieldError(
                "diameter_mm", _said("Finished cannot be larger than the stock, {x}.", self.stock_diameter_mm)
            )

    @property
    def limits_mm(self) -> tuple[float, float] | None:
        """(smallest, largest) diameter, None while not all of it is entered."""
        if self.diameter_mm is None or self.upper_mm is None or self.lower_mm is None:
            return None
        return self.diameter_mm + self.lower_mm, self.diameter_mm + self.upper_mm


def _said(words: str, x: float) -> Sentence:
    return Sentence(words, x=Figure(x, "mm", exact=True))


@dataclass(frozen=True)
class InsideStep(Checked):
    """One inside step, from the worked end inward."""

    diameter_mm: Annotated[
        float | None, Quantity("Bore", "mm", "Finished; empty for a solid part", above=0, high=DIAMETER_MOST)
    ] = None


@dataclass(frozen=True)
class Profile(Checked):
    """The turned profile: outside steps from the gripped end, inside steps from the worked end."""

    outside: Annotated[tuple[OutsideStep, ...], Group("Outside steps", least=1, most=20)]
    inside: Annotated[tuple[InsideStep, ...], Group("Inside steps", most=20)] = ()

    @property
    def length_mm(self) -> float | None:
        """Finished length, None while a step's length is missing."""
        lengths = [step.length_mm for step in self.outside]
        return None if any(n is None for n in lengths) else sum(n for n in lengths if n is not None)


@dataclass(frozen=True)
class Part(Checked):
    """What the print says."""

    profile: Annotated[Profile, Group("Profile")]
    quantity: Annotated[
        int | None, Quantity("Quantity", "", "Pieces in the run", low=1, high=1_000_000, whole=True)
    ] = None
    edge_mm: Annotated[float, Quantity("Edge at the seat", "mm", "Chamfer on the gripped end", low=0, high=20)] = 0.3
    face_stock_mm: Annotated[float, Quantity("Stock on the face", "mm", "Before facing", low=0, high=50)] = 0.0


SEAT = Choice(
    "Seated on",
    {"floor": "the pocket floor", "face": "its shoulder, on the jaw face", "none": "nothing: held by grip alone"},
    "What carries the axial force of the cut",
)
FRICTION = Choice(
    "Surfaces",
    {
        "turned": "bored jaw on a turned part",
        "ground": "bored jaw on a ground or drawn part",
        "rough": "bored jaw on rough stock",
    },
    "The pair of surfaces sets the friction",
)


@dataclass(frozen=True)
class Hold(Checked):
    """How the part is held: outside grip in soft jaws."""

    jaw_height_mm: Annotated[
        float | None, Quantity("Jaw height", "mm", "Empty: the blank's own height", above=0, high=300)
    ] = None
    depth_mm: Annotated[
        float | None, Quantity("Depth of grip", "mm", "Empty: a third of the part, rounded up", above=0, high=300)
    ] = None
    seat: Annotated[Literal["floor", "face", "none"], SEAT] = "floor"
    live_centre: Annotated[bool, Flag("Live centre", "Takes tilt and side force")] = False
    friction: Annotated[Literal["turned", "ground", "rough"], FRICTION] = "turned"


@dataclass(frozen=True)
class Jaws(Checked):
    """How the jaws are bored."""

    floor_min_mm: Annotated[float, Quantity("Floor to leave", "mm", "Above the bolt heads", low=0, high=100)] = 6.0
    tool_clearance_mm: Annotated[
        float, Quantity("Tool clearance", "mm", "Tool to jaw face, per side", low=0, high=20)
    ] = 1.0


CONDITION = Choice(
    "Chuck condition",
    {
        "unknown": "longer or unknown",
        "week": "greased within a week",
        "today": "greased today",
        "measured": "measured with a grip gauge",
    },
    "Without grease it can lose half its force",
)


@dataclass(frozen=True)
class Force(Checked):
    """How hard it is held and what is asked of it."""

    pressure_bar: Annotated[float | None, Quantity("Gauge pressure", "bar", "At the cylinder", above=0, high=400)] = (
        None
    )
    condition: Annotated[Literal["unknown", "week", "today", "measured"], CONDITION] = "unknown"
    condition_measured: Annotated[
        float | None, Quantity("Measured factor", "", "Measured ÷ charted grip", above=0.05, high=1.2)
    ] = None
    condition_date: Annotated[str | None, Text("Measured on", "Such as 2026-11-20", most=10)] = None
    safety: Annotated[float, Quantity("Safety", "", "On the grip; 1.5 is the least", low=1.5, high=10)] = 2.0
    user_max_rpm: Annotated[float | None, Quantity("Own speed limit", "rpm", "Empty: none", above=0, high=20_000)] = (
        None
    )

    def contradictions(self) -> Iterator[FieldError]:
        if self.condition_date is not None and not _is_date(self.condition_date):
            yield FieldError("condition_date", Sentence("Write the date as year-month-day, such as 2026-11-20."))


def _is_date(text: str) -> bool:
    from datetime import date

    try:
        date.fromisoformat(text)
    except ValueError:
        return False
    return len(text) == 10


KIND = Choice("Kind", {"turn": "turning", "face": "facing", "bore": "boring"}, "What the tool does")
TOWARD = Choice(
    "Feeds", {"chuck": "toward the chuck", "away": "away from the chuck"}, "Away pulls the part off its seat"
)


@dataclass(frozen=True)
class PlannedCut(Checked):
    """One cut of the set-up. A fixed rpm rules while there is one; else the surface speed does."""

    name: Name
    kind: Annotated[Literal["turn", "face", "bore"], KIND]
    from_diameter_mm: Annotated[
        float | None, Quantity("From diameter", "mm", "Before the cut", low=0, high=DIAMETER_MOST)
    ] = None
    to_diameter_mm: Annotated[
        float | None, Quantity("To diameter", "mm", "After the cut", low=0, high=DIAMETER_MOST)
    ] = None
    speed_m_min: Annotated[float | None, Quantity("Surface speed", "m/min", "Constant", above=0, high=3000)] = None
    rpm: Annotated[float | None, Quantity("Fixed rpm", "rpm", "Empty: surface speed rules", above=0, high=20_000)] = (
        None
    )
    feed_mm_rev: Annotated[float | None, Quantity("Feed", "mm/rev", "Per turn", above=0, high=5)] = None
    depth_mm: Annotated[float | None, Quantity("Depth per side", "mm", "Of one pass", above=0, high=50)] = None
    corner_radius_mm: Annotated[float, Quantity("Corner radius", "mm", "Of the insert", low=0, high=12)] = 0.8
    approach_deg: Annotated[float, Quantity("Approach angle", "deg", "κ", low=10, high=135)] = 95.0
    rake_deg: Annotated[float, Quantity("Effective rake", "deg", "The chip-breaker's", low=-30, high=40)] = 6.0
    interrupted: Annotated[bool, Flag("Interrupted", "Counts a quarter more")] = False
    feeds: Annotated[Literal["chuck", "away"], TOWARD] = "chuck"

    def contradictions(self) -> Iterator[FieldError]:
        a, b = self.from_diameter_mm, self.to_diameter_mm
        if a is None or b is None:
            return
        if self.kind == "bore" and a >= b:
            yield FieldError("to_diameter_mm", _said("Boring ends larger than it starts: give more than {x}.", a))
            yield FieldError("from_diameter_mm", _said("Boring starts smaller than it ends: give less than {x}.", b))
        if self.kind != "bore" and a <= b:
            yield FieldError("to_diameter_mm", _said("This cut ends smaller than it starts: give less than {x}.", a))
            yield FieldError("from_diameter_mm", _said("This cut starts larger than it ends: give more than {x}.", b))


@dataclass(frozen=True)
class Setup(Checked):
    """One side of the part: its hold, jaws, force and cuts."""

    name: Name
    hold: Annotated[Hold, Group("Hold")] = field(default_factory=Hold)
    jaws: Annotated[Jaws, Group("Jaws")] = field(default_factory=Jaws)
    force: Annotated[Force, Group("Force")] = field(default_factory=Force)
    clamp_rpm: Annotated[float | None, Quantity("Spindle clamp", "rpm", "In the program", above=0, high=20_000)] = None
    cuts: Annotated[tuple[PlannedCut, ...], Group("Cuts", most=40)] = ()


@dataclass(frozen=True)
class Document(Checked):
    """A whole plan's inputs."""

    part: Annotated[Part, Group("Part")]
    setups: Annotated[tuple[Setup, ...], Group("Set-ups", least=1, most=1)]
    version: Annotated[int, Quantity("Version", "", "", low=VERSION, high=VERSION, whole=True)] = VERSION


def new_document(grip_diameter_mm: float | None, length_mm: float | None, quantity: int | None) -> Document:
    """The plan of a new run: what is known of the part, and nothing else decided. Raises CalcError."""
    grip = OutsideStep("Grip", grip_diameter_mm, length_mm)
    part = Part(Profile((grip,), (InsideStep(),)), quantity)
    return Document(part, (Setup("Side 1"),))


# One way only to write an index, so that a fact has one path.
_INDEX = re.compile("0|[1-9][0-9]{0,3}", re.ASCII)


def parts_of(path: str) -> list[str | int]:
    """A dotted path as keys and list indices."""
    return [int(p) if _INDEX.fullmatch(p) else p for p in path.split(".")]


def value_at(document: Any, path: str) -> Any:
    """The plain value at a dotted path. Raises KeyError when there is no such fact."""
    here = document
    for part in parts_of(path):
        try:
            here = here[part]
        except (KeyError, IndexError, TypeError) as error:
            raise KeyError(path) from error
    return here


def replaced(document: Document, path: str, value: Any) -> Document:
    """The document with one fact changed; what is not on the way to it is shared. Raises CalcError."""

    def put(here: Any, keys: list[str | int]) -> Any:
        if not keys:
            return value
        key, *rest = keys
        if isinstance(key, int):
            return (*here[:key], put(here[key], rest), *here[key + 1 :])
        return replace(here, **{key: put(getattr(here, key), rest)})

    return put(document, parts_of(path))  # type: ignore[no-any-return]


def with_value(document: Any, path: str, value: Any) -> Any:
    """A copy of plain data with the value at a dotted path replaced. Raises KeyError."""
    value_at(document, path)

    def put(here: Any, keys: list[str | int]) -> Any:
        if not keys:
            return value
        copy: Any = dict(here) if isinstance(here, dict) else list(here)
        copy[keys[0]] = put(here[keys[0]], keys[1:])
        return copy

    return put(document, parts_of(path))

"""The plan document: what a setter enters, as one immutable, versioned value.

Machines, chucks, jaw blanks and materials are not in it: they are shelf items (`calc.shelf`).
The document already holds a list of set-ups and a profile of steps, so that a second side or
another step adds data, not another shape. A missing fact is None.
"""

from __future__ import annotations

from collections.abc import Iterator
from dataclasses import dataclass, field, replace
from functools import cached_property
from typing import Annotated, Any, Literal

from calc.errors import CalcError, FieldError
from calc.fields import Checked, Choice, Flag, Group, Quantity, Text, check_range, fields_of
from calc.plan.planned_cut import PlannedCut, said
from calc.profile.steps import DIAMETER_MOST, Name, TurnedStep
from calc.quantities import Sentence
from calc.rules import PLAN_RULES, Rules

VERSION = 2
REASON_LEAST = 4  # letters


@dataclass(frozen=True)
class Profile(Checked):
    """The turned profile: outside steps from end A to end B, bores from either end inward."""

    outside: Annotated[tuple[TurnedStep, ...], Group("Outside steps", "From end A to end B", least=1, most=30)]
    inside: Annotated[tuple[TurnedStep, ...], Group("Bore from end A", "From end A inward", most=20)] = ()
    inside_b: Annotated[tuple[TurnedStep, ...], Group("Bore from end B", "From end B inward", most=20)] = ()

    @property
    def length_mm(self) -> float | None:
        """Finished length, None while a step's length is missing."""
        lengths = [step.length_mm for step in self.outside]
        return None if any(n is None for n in lengths) else sum(n for n in lengths if n is not None)

    def contradictions(self) -> Iterator[FieldError]:
        for path in ("outside", "inside", "inside_b"):
            seen: set[str] = set()
            for i, step in enumerate(getattr(self, path)):
                # A plan says by name which step is gripped.
                if step.name.casefold() in seen:
                    yield FieldError(
                        f"{path}.{i}.name", Sentence("There is a step “{n}” in this list already.", n=step.name)
                    )
                seen.add(step.name.casefold())


FORM = Choice(
    "Stock", {"slug": "saw-cut slug", "bar": "bar", "casting": "casting or forging"}, "How it comes to the lathe"
)
SURFACE = Choice(
    "Its surface",
    {"rough": "rolled, sawn or cast", "drawn": "drawn or ground", "turned": "turned before"},
    "Sets the friction while it is gripped",
)


@dataclass(frozen=True)
class Stock(Checked):
    """What comes to the lathe, with its real size spread."""

    form: Annotated[Literal["slug", "bar", "casting"], FORM] = "slug"
    surface: Annotated[Literal["rough", "drawn", "turned"], SURFACE] = "rough"
    diameter_mm: Annotated[
        float | None, Quantity("Stock diameter", "mm", "Nominal, outside", above=0, high=DIAMETER_MOST)
    ] = None
    smallest_mm: Annotated[
        float | None, Quantity("Smallest piece", "mm", "Measured over the batch", above=0, high=DIAMETER_MOST)
    ] = None
    largest_mm: Annotated[
        float | None, Quantity("Largest piece", "mm", "Measured over the batch", above=0, high=DIAMETER_MOST)
    ] = None
    bore_mm: Annotated[
        float | None, Quantity("Stock bore", "mm", "Tube or cored casting; empty if solid", above=0, high=DIAMETER_MOST)
    ] = None

    def contradictions(self) -> Iterator[FieldError]:
        small, large, d = self.smallest_mm, self.largest_mm, self.diameter_mm
        if small is not None and large is not None and small > large:
            yield FieldError("smallest_mm", said("The smallest piece cannot be above the largest, {x}.", large))
            yield FieldError("largest_mm", said("The largest piece cannot be below the smallest, {x}.", small))
        if self.bore_mm is not None and d is not None and self.bore_mm >= d:
            yield FieldError("bore_mm", said("The stock's bore must be smaller than its outside, {x}.", d))


@dataclass(frozen=True)
class Part(Checked):
    """What the print says."""

    profile: Annotated[Profile, Group("Profile")]
    stock: Annotated[Stock, Group("Stock")] = field(default_factory=Stock)
    quantity: Annotated[
        int | None, Quantity("Quantity", "", "Pieces in the run", low=1, high=1_000_000, whole=True)
    ] = None
    edge_mm: Annotated[
        float, Quantity("Edge break", "mm", "On the part's ends where a step says nothing", low=0, high=20)
    ] = 0.3
    face_stock_mm: Annotated[float, Quantity("Stock on a face", "mm", "Before facing, each end", low=0, high=50)] = 0.0
    roundness_mm: Annotated[
        float | None,
        Quantity("Roundness", "mm", "From the print; empty: the machined limits rule", above=0, high=5, places=(3, 4)),
    ] = None


SEAT = Choice(
    "Seated on",
    {"floor": "the pocket floor", "face": "its shoulder, on the jaw face", "none": "nothing: held by grip alone"},
    "What carries the axial force of the cut",
)
FRICTION = Choice(
    "Surfaces",
    {
        "auto": "as what is gripped",
        "turned": "bored jaw on a turned part",
        "ground": "bored jaw on a ground or drawn part",
        "rough": "bored jaw on rough stock",
    },
    "The pair of surfaces sets the friction",
)


@dataclass(frozen=True)
class Hold(Checked):
    """How the part is held in soft jaws."""

    grip: Annotated[str, Text("Grips", "Empty: the best that is fit", most=60)] = ""
    jaw_height_mm: Annotated[
        float | None, Quantity("Jaw height", "mm", "Empty: the blank's own height", above=0, high=300)
    ] = None
    depth_mm: Annotated[
        float | None, Quantity("Depth of grip", "mm", "Empty: a third of the part, rounded up", above=0, high=300)
    ] = None
    seat: Annotated[Literal["floor", "face", "none"], SEAT] = "floor"
    live_centre: Annotated[bool, Flag("Live centre", "Takes tilt and side force")] = False
    friction: Annotated[Literal["auto", "turned", "ground", "rough"], FRICTION] = "auto"


BLUE = Choice(
    "Blue shows",
    {"none": "not tried", "base": "first at the part's base", "tip": "first at the tip", "even": "even"},
    "Slow-drying blue round the mouth",
)


SPINDLE = Choice(
    "Spindle turns",
    {"ask": "not said yet", "M03": "M03, clockwise", "M04": "M04, counter-clockwise"},
    "For the boring tool that will be called",
)


@dataclass(frozen=True)
class Jaws(Checked):
    """How the jaws are bored."""

    floor_min_mm: Annotated[float, Quantity("Floor to leave", "mm", "Above the bolt heads", low=0, high=100)] = 6.0
    tool_clearance_mm: Annotated[
        float, Quantity("Tool clearance", "mm", "Tool to jaw face, per side", low=0, high=20)
    ] = 1.0
    tooth: Annotated[
        int | None, Quantity("Tooth", "", "Counted from 0 at the centre; empty: the best", low=0, high=500, whole=True)
    ] = None
    position: Annotated[
        float, Quantity("Bored at", "", "Share of the stroke used toward clamped; mid-stroke is 0.5", low=0, high=1)
    ] = 0.5
    cleanup_mm: Annotated[float, Quantity("Clean-up", "mm", "Least metal to take at the corners", low=0, high=20)] = 1.0
    ring_clearance_mm: Annotated[
        float, Quantity("Clearance to the ring", "mm", "Boring tool to ring or plug, per side", low=0, high=50)
    ] = 3.0
    feeler_mm: Annotated[
        float | None,
        Quantity("Feeler at the tip", "mm", "Measured at full pressure, per side", low=0, high=2, places=(3, 4)),
    ] = None
    blue: Annotated[Literal["none", "base", "tip", "even"], BLUE] = "none"
    taper_step_mm: Annotated[
        float,
        Quantity("Taper step", "mm", "One correction after the blue, on diameter", low=0.001, high=0.1, places=(3, 4)),
    ] = 0.02
    reading_mm: Annotated[
        float | None, Quantity("Touch-off X", "mm", "Diameter read, with paper between", above=0, high=DIAMETER_MOST)
    ] = None
    paper_mm: Annotated[float, Quantity("Paper", "mm", "Thickness of the slip", low=0, high=2)] = 0.08
    recut_limit_mm: Annotated[float, Quantity("Most to take", "mm", "Per side at a re-cut", above=0, high=20)] = 1.0
    program: Annotated[
        int | None, Quantity("Program number", "", "Of the jaw-boring program", low=1, high=99_999_999, whole=True)
    ] = None
    spindle: Annotated[Literal["ask", "M03", "M04"], SPINDLE] = "ask"
    boring_speed_m_min: Annotated[
        float, Quantity("Boring speed", "m/min", "Jaws are an interrupted cut", above=0, high=600)
    ] = 80.0
    boring_feed_mm_rev: Annotated[float, Quantity("Boring feed", "mm/rev", "", above=0, high=1)] = 0.12
    boring_depth_mm: Annotated[float, Quantity("Boring depth", "mm", "Of one pass, per side", above=0, high=5)] = 1.0


CONDITION = Choice(
    "Chuck condition",
    {
        "auto": "the best that is known",
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
    condition: Annotated[Literal["auto", "unknown", "week", "today", "measured"], CONDITION] = "unknown"
    condition_measured: Annotated[
        float | None, Quantity("Measured factor", "", "Measured ÷ charted grip", above=0.05, high=1.2)
    ] = None
    condition_date: Annotated[str | None, Text("Measured on", "Such as 2026-11-20", most=10)] = None
    user_max_rpm: Annotated[float | None, Quantity("Own speed limit", "rpm", "Empty: none", above=0, high=20_000)] = (
        None
    )
    wanted_rpm: Annotated[
        float | None, Quantity("Wanted speed", "rpm", "Empty: the program's top speed", above=0, high=20_000)
    ] = None
    offset_mm: Annotated[
        float,
        Quantity("Out of balance", "mm", "The part's centre of mass off the axis", low=0, high=100, places=(3, 4)),
    ] = 0.0
    pin_pressure: Annotated[bool, Flag("Pressure pinned", "Settling the set-up leaves it as it is")] = False
    brake_s: Annotated[
        float | None,
        Quantity("Spindle stops in", "s", "From the program's top speed; empty: not counted", low=0.1, high=600),
    ] = None

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


@dataclass(frozen=True)
class Setup(Checked):
    """One side of the part: its hold, jaws, force and cuts."""

    name: Name
    hold: Annotated[Hold, Group("Hold")] = field(default_factory=Hold)
    jaws: Annotated[Jaws, Group("Jaws")] = field(default_factory=Jaws)
    force: Annotated[Force, Group("Force")] = field(default_factory=Force)
    clamp_rpm: Annotated[float | None, Quantity("Spindle clamp", "rpm", "In the program", above=0, high=20_000)] = None
    cuts: Annotated[tuple[PlannedCut, ...], Group("Cuts", most=40)] = ()


FIRST = Choice("Made first", {"proposed": "as proposed", "a": "end A", "b": "end B"}, "The other end is held meanwhile")


@dataclass(frozen=True)
class Sides(Checked):
    """Which end first, and whether both sides share one set of jaws."""

    first_end: Annotated[Literal["proposed", "a", "b"], FIRST] = "proposed"
    two_step: Annotated[
        bool, Flag("One set, two pockets", "The outer pocket takes the stock, the inner one the half-finished part")
    ] = False


_RULES = {f.name: f for f in fields_of(Rules)}
RULE = Choice("House rule", {name: _RULES[name].spec.label for name in PLAN_RULES}, "What this plan departs from")


@dataclass(frozen=True)
class Departure(Checked):
    """Where this plan departs from a house rule, and why. `name` is the written reason."""

    name: Annotated[str, Text("Reason", "Why this plan departs from the house rule", most=120)]
    rule: Annotated[str, RULE]
    value: Annotated[float, Quantity("Instead", "", "What counts in this plan")]

    def contradictions(self) -> Iterator[FieldError]:
        if len(self.name.strip()) < REASON_LEAST:
            yield FieldError(
                "name", Sentence("Write the reason in a few words: who reads the plan next must understand it.")
            )
        spec = _RULES[self.rule].spec
        assert isinstance(spec, Quantity)
        try:
            check_range("value", spec, self.value)
        except CalcError as error:
            yield from error.errors


@dataclass(frozen=True)
class Document(Checked):
    """A whole plan's inputs."""

    part: Annotated[Part, Group("Part")]
    setups: Annotated[tuple[Setup, ...], Group("Set-ups", least=1, most=2)]
    sides: Annotated[Sides, Group("Sides")] = field(default_factory=Sides)
    rules: Annotated[Rules, Group("House rules")] = field(default_factory=Rules)
    departures: Annotated[
        tuple[Departure, ...], Group("Departures", "From the house rules, each with its reason", most=len(PLAN_RULES))
    ] = ()
    version: Annotated[int, Quantity("Version", "", "", low=VERSION, high=VERSION, whole=True)] = VERSION

    def contradictions(self) -> Iterator[FieldError]:
        seen: set[str] = set()
        for i, one in enumerate(self.departures):
            if one.rule in seen:
                yield FieldError(f"departures.{i}.rule", Sentence("This plan departs from this rule already."))
            seen.add(one.rule)

    @cached_property
    def in_force(self) -> Rules:
        """The house rules with this plan's departures put in."""
        changed: dict[str, Any] = {d.rule: d.value for d in self.departures}
        return replace(self.rules, **changed)

    @property
    def one_set(self) -> bool:
        """Both sides are held in one set of jaws with two pockets."""
        return self.sides.two_step and len(self.setups) > 1

    def jaws_of(self, index: int) -> int:
        """The set-up whose chuck and jaws a set-up is held in: the first's, where both share one set."""
        return 0 if self.one_set else index


def new_document(diameter_mm: float | None, length_mm: float | None, quantity: int | None) -> Document:
    """The plan of a new run: what is known of the part, and nothing else decided. Raises CalcError."""
    grip = TurnedStep("Body", diameter_mm, length_mm)
    return Document(Part(Profile((grip,)), quantity=quantity), (Setup("Side 1", force=Force(condition="auto")),))

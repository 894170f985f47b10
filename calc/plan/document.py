"""The plan document: what a setter enters, as one immutable, versioned value.

Each stop declares its own inputs; here they stand together. Machines, chucks, jaw blanks and materials are not in
it: they are shelf items (`calc.shelf`). Every item of a list has an id (`calc.identity`). A missing fact is None.
"""

from __future__ import annotations

import json
from collections.abc import Iterator
from dataclasses import dataclass, field, replace
from functools import cached_property
from typing import Annotated, Any

from calc.errors import CalcError, FieldError, FieldProblem
from calc.fields import Checked, Choice, Group, Quantity, Text, check_range, fields_of
from calc.identity import Identity, identified, ids_of
from calc.plan.cuts.inputs import PlannedCut
from calc.plan.force.inputs import Force
from calc.plan.hold.inputs import Hold
from calc.plan.jaws.inputs import Jaws
from calc.plan.part.inputs import Part, Profile
from calc.plan.route.inputs import Route
from calc.plan.sides.inputs import Sides
from calc.profile.steps import Name, TurnedStep
from calc.quantities import Sentence, about
from calc.rules import PLAN_RULES, Rules

VERSION = 3
MARKS_MOST = 120  # a few of each side, and one of each cut
REASON_LEAST = 4  # letters


@dataclass(frozen=True)
class Setup(Checked):
    """One side of the part: its hold, jaws, force and cuts."""

    name: Name
    hold: Annotated[Hold, Group("Hold")] = field(default_factory=Hold)
    jaws: Annotated[Jaws, Group("Jaws")] = field(default_factory=Jaws)
    force: Annotated[Force, Group("Force")] = field(default_factory=Force)
    clamp_rpm: Annotated[float | None, Quantity("Spindle clamp", "rpm", "In the program", above=0, high=20_000)] = None
    cuts: Annotated[tuple[PlannedCut, ...], Group("Cuts", most=40)] = ()
    id: Identity = ""


# What two sides on one machine share: how the shop cuts jaws, how the chuck is greased, what the spindle may turn. Not
# which way the spindle turns for the jaws' tool: on a second spindle it may be the other way.
SHARED = {
    "jaws": (
        "floor_min_mm",
        "tool_clearance_mm",
        "cleanup_mm",
        "position",
        "ring_clearance_mm",
        "taper_step_mm",
        "paper_mm",
        "recut_limit_mm",
        "boring_speed_m_min",
        "boring_feed_mm_rev",
        "boring_depth_mm",
    ),
    "force": ("condition", "condition_measured", "condition_date", "user_max_rpm"),
}


def another_side(first: Setup, name: str, ident: str = "") -> Setup:
    """A further side as it begins: with what it shares with the first, and nothing else decided."""
    taken = {group: {fact: getattr(getattr(first, group), fact) for fact in facts} for group, facts in SHARED.items()}
    return Setup(name, jaws=Jaws(**taken["jaws"]), force=Force(**taken["force"]), id=ident)


_RULES = {f.name: f for f in fields_of(Rules)}
RULE = Choice("House rule", {name: _RULES[name].spec.label for name in PLAN_RULES}, "What this plan departs from")


@dataclass(frozen=True)
class Departure(Checked):
    """Where this plan departs from a house rule, and why. `name` is the written reason."""

    name: Annotated[str, Text("Reason", "Why this plan departs from the house rule", most=120)]
    rule: Annotated[str, RULE]
    value: Annotated[float, Quantity("Instead", "", "What counts in this plan")]
    id: Identity = ""

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
class Mark(Checked):
    """Facts of one place of the plan as they were proposed (calc.plan.proposed): name below the place -> value."""

    at: Annotated[str, Text("Place", "Where they were proposed", most=60)]
    facts: Annotated[str, Text("Proposed", "Name and value of each, as JSON", most=2000)]

    def contradictions(self) -> Iterator[FieldError]:
        try:
            known = json.loads(self.facts)
        except (ValueError, RecursionError):  # a file may say anything
            known = None
        if not isinstance(known, dict):
            yield FieldError("facts", Sentence("What was proposed here cannot be read: take this mark out."))


@dataclass(frozen=True)
class Document(Checked):
    """A whole plan's inputs. An item without an id gets one from its place, such as "c1"."""

    part: Annotated[Part, Group("Part")]
    setups: Annotated[tuple[Setup, ...], Group("Set-ups", least=1, most=2)]
    sides: Annotated[Sides, Group("Sides")] = field(default_factory=Sides)
    route: Annotated[Route, Group("Route")] = field(default_factory=Route)
    rules: Annotated[Rules, Group("House rules")] = field(default_factory=Rules)
    departures: Annotated[
        tuple[Departure, ...], Group("Departures", "From the house rules, each with its reason", most=len(PLAN_RULES))
    ] = ()
    proposed: Annotated[tuple[Mark, ...], Group("Proposed", "What nobody has looked at yet", most=MARKS_MOST)] = ()
    version: Annotated[int, Quantity("Version", "", "", low=VERSION, high=VERSION, whole=True)] = VERSION

    def __post_init__(self) -> None:
        super().__post_init__()
        if "" in ids_of(self):
            whole = identified(self)
            for name in ("part", "setups", "departures"):
                object.__setattr__(self, name, getattr(whole, name))

    def contradictions(self) -> Iterator[FieldError]:
        seen: set[str] = set()
        for place, one in enumerate(self.departures):
            if one.rule in seen:
                yield FieldError(
                    f"departures.{one.id or place}.rule", Sentence("This plan departs from this rule already.")
                )
            seen.add(one.rule)
        known: set[str] = set()
        for one_id in ids_of(self):
            if one_id and (one_id in known or one_id.isdigit() or not one_id.isalnum()):
                yield FieldError("", Sentence("“{i}” cannot be the id of two things, or a number.", i=one_id))
            known.add(one_id)

    @cached_property
    def in_force(self) -> Rules:
        """The house rules with this plan's departures put in."""
        changed: dict[str, Any] = {d.rule: d.value for d in self.departures}
        return replace(self.rules, **changed)

    @property
    def side_names(self) -> tuple[str, ...]:
        """What each set-up is called."""
        return tuple(s.name for s in self.setups)

    @property
    def one_set(self) -> bool:
        """Both sides are held in one set of jaws with two pockets."""
        return self.sides.two_step and len(self.setups) > 1

    def jaws_of(self, index: int) -> int:
        """The set-up whose chuck and jaws a set-up is held in: the first's, where both share one set."""
        return 0 if self.one_set else index


def new_document() -> Document:
    """The plan of a new run: one step of which nothing is known, one side, and nothing decided."""
    return Document(Part(Profile((TurnedStep("Body"),))), (Setup("Side 1", force=Force(condition="auto")),))


def with_stock_length(document: Document) -> Document:
    """The plan with the stock's length told: of a slug, what is over the part is stock on its faces, half each.

    Raises CalcError where the part does not come out of it.
    """
    stock, long = document.part.stock, document.part.profile.length_mm
    if stock.form == "bar" or stock.length_mm is None or long is None:
        return document
    over = stock.length_mm - long
    if over < 0:
        raise FieldProblem("part.stock.length_mm", about("The part is {x} long: give that or more.", long))
    part = replace(document.part, face_stock_mm=round(over / 2, 6), stock=replace(stock, length_mm=None))
    return replace(document, part=part)


def setup_path(document: Document, index: int) -> str:
    """The document path of a set-up."""
    return f"setups.{document.setups[index].id}"

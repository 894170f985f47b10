"""What a person gives for something in a plan, resolved once: from its path to what is there, and to the value.

The path decides what is spoken of (`Kind`): a fact of the document with its declaration, a step written as a line,
a whole list as lines, something taken from the shelf, or the house rules. Who is asked for the value of an entry,
for the words of a value or for what a path is called asks here.
"""

from __future__ import annotations

from collections.abc import Callable
from dataclasses import dataclass
from typing import Any, Literal

from calc.errors import FieldProblem
from calc.fields import Flag, Spec, Text
from calc.identity import Identities
from calc.plan.declared import MAY_BE_NONE, field_at, label_at, reference_at
from calc.plan.edits import place_at
from calc.plan.lists import item_at, line_of, line_value, lines_value, rule_of
from calc.plan.paths import parts_of, value_at
from calc.quantities import System
from calc.typed import typed_value

PLAN = "plan"  # the whole plan, as a restored draft replaces it
RULES = "rules"  # as the shop's own of today replace them
PROFILE = "part.profile"  # as a drawing replaces it
PROPOSED = "proposed"  # the marks of what was proposed, as "looks right" takes them away
PUT_AWAY = "put_away"
# What is said of a run beside its document.
OF_THE_RUN: dict[str, Spec] = {
    "name": Text("Name", "What the shop calls it", most=80),
    "drawing_number": Text("Drawing number", "As on the print", most=40),
    PUT_AWAY: Flag("Put away", "Off the bench, kept for next time"),
}
WHOLES = {PLAN: "The plan", PROFILE: "The part's profile", RULES: "House rules", PROPOSED: "Proposed values"}
# What a setter finds out at the machine, by its path below the set-up.
MEASURED = (
    "force.condition",
    "force.condition_measured",
    "force.condition_date",
    "jaws.feeler_mm",
    "jaws.blue",
    "jaws.reading_mm",
    "jaws.paper_mm",
)
Kind = Literal["fact", "tool", "line", "item", "place", "list", "reference", "own", "whole"]


@dataclass(frozen=True)
class Place:
    """What a path speaks of. `spec` and `nullable` where it is entered by itself; `reference`: the kind of shelf
    item.
    """

    path: str
    kind: Kind
    label: str
    spec: Spec | None = None
    nullable: bool = False
    reference: str = ""

    @property
    def keeps_text(self) -> bool:
        """The text that was typed for it is worth keeping beside its value."""
        return self.kind in ("fact", "line", "list")

    @property
    def measured(self) -> bool:
        """It is found out at the machine."""
        parts = parts_of(self.path)
        return parts[0] == "setups" and ".".join(parts[2:]) in MEASURED


def resolve(path: str) -> Place:
    """What a path speaks of. Raises KeyError where nothing of a plan has such a path."""
    if path in OF_THE_RUN:
        return Place(path, "own", OF_THE_RUN[path].label, OF_THE_RUN[path])
    if path in WHOLES:
        return Place(path, "whole", WHOLES[path])
    kind = reference_at(path)
    if kind is not None:
        return Place(path, "reference", label_at(path), None, kind in MAY_BE_NONE, kind)
    rule = rule_of(path)
    if rule is not None:
        return Place(path, "list", rule.title)
    if place_at(path) is not None:
        return Place(path, "place", "Place")
    found = item_at(path)
    if found is not None:
        return Place(path, "line" if found[1].lines else "item", found[1].noun)
    field = field_at(path)
    is_tool = parts_of(path)[-1] == "tool"
    return Place(path, "tool" if is_tool else "fact", field.spec.label, field.spec, field.nullable)


@dataclass(frozen=True)
class Entry:
    """What a person gives: typed text, or a value picked or offered, in the units of `system`."""

    path: str
    text: str | None
    value: Any
    system: System

    @property
    def given(self) -> Any:
        """The text, or the value picked."""
        return self.value if self.text is None else self.text


@dataclass(frozen=True)
class Known:
    """What an entry is read against: the plan's document (plain data), the shelf's keys by kind, the rules of today."""

    document: Any
    on_shelf: Callable[[str, str], bool]
    rules: Callable[[], dict[str, Any]]
    ids: Identities


def value_of(entry: Entry, known: Known) -> Any:
    """The core value of an entry. Raises CalcError at its path with what to do."""
    path, given = entry.path, entry.given
    try:
        place = resolve(path)
    except KeyError as error:
        raise _nothing_there(path) from error
    match place.kind:
        case "own":
            assert place.spec is not None
            return typed_value(path, place.spec, given, nullable=False, system=entry.system)
        case "whole" if path == RULES:
            return known.rules()
        case "reference":
            return _reference(place, entry, known)
        case "line" if isinstance(given, str) and line_of(path) is not None:
            return line_value(known.document, path, given, entry.system)
        case "list" if isinstance(given, str) and _is_lines(path):
            return lines_value(known.document, path, given, entry.system, known.ids)
        case "fact" | "tool":
            return _fact(place, entry, known)
    raise _nothing_there(path)


def _is_lines(path: str) -> bool:
    rule = rule_of(path)
    return rule is not None and rule.lines


def _nothing_there(path: str) -> FieldProblem:
    return FieldProblem(path, "There is no such fact in this plan.")


def _reference(place: Place, entry: Entry, known: Known) -> str | None:
    key = entry.value if isinstance(entry.value, str) else entry.text
    if not key and place.nullable:
        return None
    if not key or not known.on_shelf(place.reference, key):
        raise FieldProblem(place.path, "Choose one that is on the shelf.")
    return key


def _fact(place: Place, entry: Entry, known: Known) -> Any:
    path, spec = place.path, place.spec
    assert spec is not None
    if path.startswith(RULES + "."):
        words = "House rules are changed on their own page; here a plan departs from one, with a reason."
        raise FieldProblem(path, words)
    try:
        value_at(known.document, path)
    except KeyError as error:
        raise _nothing_there(path) from error
    # Free words may be left empty.
    if isinstance(spec, Text) and entry.given == "":
        return ""
    return typed_value(path, spec, entry.given, nullable=place.nullable, system=entry.system)

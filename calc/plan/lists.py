"""The lists of a plan: steps, sides and cuts; putting an item in, taking one out, writing a whole list as lines."""

from __future__ import annotations

from collections.abc import Mapping
from dataclasses import dataclass
from typing import Any

from calc.errors import CalcError, FieldError, FieldProblem
from calc.fields import Group, fields_of
from calc.plan.document import RULE, Departure, Document, Profile, Setup
from calc.plan.paths import parts_of, value_at
from calc.plan.planned_cut import KIND, PlannedCut
from calc.profile.lines import read_line, read_lines, write_line
from calc.profile.steps import NAME_MOST, TurnedStep
from calc.quantities import Sentence, System
from calc.reading import read, write
from calc.rules import Rules


@dataclass(frozen=True)
class ListRule:
    """A list: what one of it is called, how many there may be, the kinds of a new one, how many stay in front.

    `lines`: its items are written as lines; `setup`: the side it belongs to.
    """

    path: str
    stop: str
    noun: str
    least: int
    most: int
    kinds: Mapping[str, str]
    title: str
    fixed: int = 0
    lines: bool = False
    setup: int | None = None
    named: str = "name"  # what is asked for a new one
    kind_label: str = "What it does"


def _group(kind: type[Any], name: str) -> Group:
    spec = next(f.spec for f in fields_of(kind) if f.name == name)
    assert isinstance(spec, Group)
    return spec


def _profile(name: str) -> ListRule:
    group = _group(Profile, name)
    return ListRule(f"part.profile.{name}", "part", "step", group.least, group.most, {}, group.label, lines=True)


_SIDES, _CUTS = _group(Document, "setups"), _group(Setup, "cuts")
LISTS = {
    rule.path: rule
    for rule in (
        _profile("outside"),
        _profile("inside"),
        _profile("inside_b"),
        # The first side stays: what is planned for it is not turned into the second's.
        ListRule("setups", "sides", "side", _SIDES.least, _SIDES.most, {}, "Sides", fixed=1),
        *(
            ListRule(f"setups.{i}.cuts", "cuts", "cut", _CUTS.least, _CUTS.most, KIND.options, "Cuts", setup=i)
            for i in range(_SIDES.most)
        ),
        ListRule(
            "departures",
            "force",
            "departure",
            0,
            len(RULE.options),
            RULE.options,
            "Departures from the house rules",
            named="reason",
            kind_label="Which rule",
        ),
    )
}


def list_at(path: str) -> ListRule:
    """The rule of a list. Raises FieldProblem where there is none at the path."""
    if path not in LISTS:
        raise FieldProblem(path, "There is no such list in this plan.")
    return LISTS[path]


def line_of(path: str) -> ListRule | None:
    """The list whose item is written as a line at this path: "part.profile.outside.0"; else None."""
    head, _, last = path.rpartition(".")
    rule = LISTS.get(head)
    return rule if rule is not None and rule.lines and isinstance(parts_of(last)[0], int) else None


def _items(document: Any, path: str) -> list[Any]:
    try:
        return list(value_at(document, path))
    except KeyError as error:
        raise FieldProblem(path, "There is no such list in this plan.") from error


def _free_name(items: list[Any]) -> str:
    taken = {str(i["name"]).casefold() for i in items}
    return next(f"Step {n}" for n in range(len(items) + 1, 1000) if f"step {n}" not in taken)


def _made(rule: ListRule, document: Any, items: list[Any], said: str, kind: str | None, system: System) -> Any:
    if rule.lines:
        try:
            return read_line(said, system, _free_name(items))
        except CalcError as error:
            raise CalcError(FieldError(rule.path, e.sentence) for e in error.errors) from error
    if not said or len(said) > NAME_MOST or "\x00" in said:
        raise FieldProblem(rule.path, f"Give the {rule.noun} a name of up to {NAME_MOST} characters.")
    if rule.kinds and kind not in rule.kinds:
        raise FieldProblem(rule.path, "Choose " + " or ".join(f"“{k}”" for k in rule.kinds.values()) + ".")
    if rule.path == "departures":
        assert kind is not None
        return _departure(document, said, kind)
    return PlannedCut(said, kind) if rule.kinds else Setup(said)  # type: ignore[arg-type]


def _departure(document: Any, reason: str, rule: str) -> Departure:
    """A new departure starts at what the house rule says."""
    value = getattr(read(Rules, document.get("rules", {})), rule)
    try:
        return Departure(reason, rule, value)
    except CalcError as error:
        raise CalcError(FieldError("departures", e.sentence) for e in error.errors) from error


def with_item(document: Any, path: str, name: str, kind: str | None, system: System = "metric") -> list[Any]:
    """The list with a new item at its end; `name` is its whole line where items are lines.

    `document` is plain data. Raises CalcError at the list.
    """
    rule = list_at(path)
    items = _items(document, path)
    if len(items) >= rule.most:
        raise FieldProblem(path, f"A plan takes {rule.most} of these; take one out first.")
    made = _made(rule, document, items, " ".join(name.split()), kind, system)
    if made.name.casefold() in {str(item["name"]).casefold() for item in items}:
        raise FieldProblem(
            path, Sentence("There is a {noun} “{name}” already; take another name.", noun=rule.noun, name=made.name)
        )
    return [*items, write(made)]


def without_item(document: Any, path: str, index: int) -> list[Any]:
    """The list without one item. `document` is plain data. Raises FieldProblem at the list."""
    rule = list_at(path)
    items = _items(document, path)
    if not 0 <= index < len(items):
        raise FieldProblem(path, f"There is no such {rule.noun} any more.")
    if index < rule.fixed:
        raise FieldProblem(path, f"The first {rule.noun} stays. Change its figures.")
    if len(items) <= rule.least:
        raise FieldProblem(path, f"One {rule.noun} stays at least.")
    return items[:index] + items[index + 1 :]


def line_value(document: Any, path: str, text: str, system: System) -> Any:
    """The step that a typed line makes of the item at a path, as plain data. Raises CalcError at the path."""
    try:
        now = value_at(document, path)
    except KeyError as error:
        raise FieldProblem(path, "There is no such step in this plan any more.") from error
    try:
        return write(read_line(text, system, str(now["name"])))
    except CalcError as error:
        raise CalcError(FieldError(path, e.sentence) for e in error.errors) from error


def lines_value(path: str, text: str, system: System) -> list[Any]:
    """A whole list from pasted lines, as plain data. Raises CalcError with every line that cannot be read."""
    rule = list_at(path)
    answers = read_lines(text, system)
    wrong = [a for a in answers if a.problem is not None]
    if wrong:
        raise CalcError(
            FieldError(
                path, Sentence("Line {n}, “{text}”: {why}", n=str(a.number), text=a.text[:60], why=a.problem.sentence)
            )
            for a in wrong
            if a.problem
        )
    if not rule.least <= len(answers) <= rule.most:
        raise FieldProblem(path, f"Write {rule.least} to {rule.most} lines, one for each step.")
    return [write(a.step) for a in answers]


def as_lines(items: Any, system: System) -> str:
    """A list of steps, plain data, as the lines that make it."""
    return "\n".join(write_line(read(TurnedStep, item), system) for item in items)

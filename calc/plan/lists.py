"""The lists of a plan: steps, sides, cuts, departures; what each takes, and the items that are put in."""

from __future__ import annotations

from collections.abc import Iterable, Iterator, Mapping
from dataclasses import dataclass, replace
from functools import reduce
from typing import Any, cast

from calc.cuts.kinds import KIND
from calc.errors import CalcError, FieldError, FieldProblem
from calc.fields import Group, fields_of
from calc.identity import Identities
from calc.plan.cuts.inputs import PlannedCut
from calc.plan.document import RULE, Departure, Document, Setup, another_side
from calc.plan.part.inputs import Profile
from calc.plan.paths import parts_of, value_at
from calc.profile.lines import read_line, read_lines, write_line
from calc.profile.steps import NAME_MOST, TurnedStep
from calc.quantities import Sentence, System
from calc.reading import read, write
from calc.rules import Rules

SIDE = "*"  # stands for any set-up in the path of a rule


@dataclass(frozen=True)
class ListRule:
    """A list: what one of it is called, how many there may be, the kinds of a new one, how many stay in front.

    `lines`: its items are written as lines; `ordered`: its items may be put in another order.
    """

    path: str
    stop: str
    noun: str
    least: int
    most: int
    title: str
    kinds: Mapping[str, str]
    fixed: int = 0
    lines: bool = False
    ordered: bool = False
    named: str = "name"  # what is asked for a new one
    kind_label: str = "What it does"

    @property
    def per_side(self) -> bool:
        """There is one for each set-up."""
        return SIDE in self.path


def _group(kind: type[Any], name: str) -> Group:
    spec = next(f.spec for f in fields_of(kind) if f.name == name)
    assert isinstance(spec, Group)
    return spec


def _profile(name: str) -> ListRule:
    group = _group(Profile, name)
    return ListRule(f"part.profile.{name}", "part", "step", group.least, group.most, group.label, {}, lines=True)


_SIDES, _CUTS = _group(Document, "setups"), _group(Setup, "cuts")
RULES = (
    _profile("outside"),
    _profile("inside"),
    _profile("inside_b"),
    # The first side stays: what is planned for it is not turned into the second's.
    ListRule("setups", "sides", "side", _SIDES.least, _SIDES.most, "Sides", {}, fixed=1),
    ListRule(f"setups.{SIDE}.cuts", "cuts", "cut", _CUTS.least, _CUTS.most, "Cuts", KIND.options, ordered=True),
    ListRule(
        "departures",
        "force",
        "departure",
        0,
        len(RULE.options),
        "Departures from the house rules",
        RULE.options,
        named="reason",
        kind_label="Which rule",
    ),
)
_BY_PATH = {rule.path: rule for rule in RULES}


def rule_of(path: str) -> ListRule | None:
    """The rule of the list at a path; None where there is no list."""
    parts = parts_of(path)
    if len(parts) > 1 and parts[0] == "setups":
        parts[1] = SIDE
    return _BY_PATH.get(".".join(parts))


def list_at(path: str) -> ListRule:
    """The rule of a list. Raises FieldProblem where there is none at the path."""
    rule = rule_of(path)
    if rule is None:
        raise FieldProblem(path, "There is no such list in this plan.")
    return rule


def item_at(path: str) -> tuple[str, ListRule] | None:
    """(path of the list, its rule) where the path names an item of a list; else None."""
    head, _, last = path.rpartition(".")
    rule = rule_of(head) if last else None
    return None if rule is None else (head, rule)


def line_of(path: str) -> ListRule | None:
    """The list whose item is written as a line at this path, "part.profile.outside.k3f9a2b"; else None."""
    found = item_at(path)
    return found[1] if found is not None and found[1].lines else None


@dataclass(frozen=True)
class PlanList:
    """A list of a plan as it stands at a stop: its items by id and name, and the steps where items are lines."""

    path: str
    rule: ListRule
    items: tuple[tuple[str, str], ...]
    steps: tuple[TurnedStep, ...] = ()


def lists_of(stop: str, document: Document, setup: Setup | None) -> Iterator[PlanList]:
    """Every list that stands at a stop, of a set-up where the stop is a side's."""
    for rule in RULES:
        if rule.stop != stop or (rule.per_side and setup is None):
            continue
        path, owner, names = rule.path, cast("Any", document), parts_of(rule.path)
        if setup is not None and rule.per_side:
            path, owner, names = path.replace(SIDE, setup.id), setup, names[2:]
        items = reduce(getattr, names, owner)
        yield PlanList(path, rule, tuple((i.id, i.name) for i in items), tuple(items) if rule.lines else ())


def items_at(document: Any, path: str) -> list[Any]:
    """The items of a list, plain data. Raises FieldProblem where there is none."""
    try:
        return list(value_at(document, path))
    except KeyError as error:
        raise FieldProblem(path, "There is no such list in this plan any more.") from error


@dataclass(frozen=True)
class NewItem:
    """What is said of a new item: its name, or its whole line where items are lines; its kind where there are
    several.
    """

    said: str
    kind: str | None
    system: System = "metric"


def _free_name(items: list[Any]) -> str:
    taken = {str(i["name"]).casefold() for i in items}
    return next(f"Step {n}" for n in range(len(items) + 1, 1000) if f"step {n}" not in taken)


def _at_list(path: str, error: CalcError) -> CalcError:
    return CalcError(FieldError(path, e.sentence) for e in error.errors)


def new_item(document: Any, path: str, given: NewItem, ids: Identities) -> dict[str, Any]:
    """A new item for a list, plain data, with its id. `document` is plain data. Raises CalcError at the list."""
    rule, items, said = list_at(path), items_at(document, path), " ".join(given.said.split())
    if len(items) >= rule.most:
        raise FieldProblem(path, f"A plan takes {rule.most} of these; take one out first.")
    try:
        made = _made(path, document, items, replace(given, said=said))
    except CalcError as error:
        raise _at_list(path, error) from error
    return write(replace(made, id=ids.new()))  # type: ignore[no-any-return]


def _made(path: str, document: Any, items: list[Any], given: NewItem) -> Any:
    rule, said = list_at(path), given.said
    if rule.lines:
        return read_line(said, given.system, _free_name(items))
    if not said or len(said) > NAME_MOST or "\x00" in said:
        raise FieldProblem(path, f"Give the {rule.noun} a name of up to {NAME_MOST} characters.")
    if rule.kinds and given.kind not in rule.kinds:
        raise FieldProblem(path, "Choose " + " or ".join(f"“{k}”" for k in rule.kinds.values()) + ".")
    if path == "departures":
        assert given.kind is not None
        # It starts at what the house rule says.
        return Departure(said, given.kind, getattr(read(Rules, document.get("rules", {})), given.kind))
    if rule.kinds:
        return PlannedCut(said, given.kind)  # type: ignore[arg-type] # one of the kinds
    return another_side(read(Setup, items[0]), said) if items else Setup(said)


def refuse_taking_out(document: Any, path: str) -> None:
    """Raise FieldProblem at the list where the item at the path may not be taken out, or is not there."""
    found = item_at(path)
    if found is None:
        raise FieldProblem(path, "There is no such list in this plan.")
    at, rule = found
    ids = [item["id"] for item in items_at(document, at)]
    last = parts_of(path)[-1]
    if last not in ids:
        raise FieldProblem(at, f"There is no such {rule.noun} any more.")
    if ids.index(last) < rule.fixed:
        raise FieldProblem(at, f"The first {rule.noun} stays. Change its figures.")
    if len(ids) <= rule.least:
        raise FieldProblem(at, f"One {rule.noun} stays at least.")


def line_value(document: Any, path: str, text: str, system: System) -> Any:
    """The step that a typed line makes of the item at a path, as plain data. Raises CalcError at the path."""
    try:
        now = value_at(document, path)
    except KeyError as error:
        raise FieldProblem(path, "There is no such step in this plan any more.") from error
    try:
        return write(replace(read_line(text, system, str(now["name"])), id=now["id"]))
    except CalcError as error:
        raise _at_list(path, error) from error


def lines_value(document: Any, path: str, text: str, system: System, ids: Identities) -> list[Any]:
    """A whole list from pasted lines, as plain data. Raises CalcError with every line that cannot be read.

    A line with the name of a step that is there stays that step; the others are new ones.
    """
    rule = list_at(path)
    answers = read_lines(text, system, inside="inside" in path)
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
    return with_known_ids(items_at(document, path), [a.step for a in answers if a.step is not None], ids)


def with_known_ids(before: list[Any], steps: list[TurnedStep], ids: Identities) -> list[Any]:
    """Steps as plain data, each with the id of the step of its name that was there, else with a new one."""
    known: dict[str, list[str]] = {}
    for item in before:
        known.setdefault(str(item["name"]).casefold(), []).append(item["id"])
    made = []
    for step in steps:
        mine = known.get(step.name.casefold())
        made.append(write(replace(step, id=mine.pop(0) if mine else ids.new())))
    return made


def as_lines(steps: Iterable[TurnedStep], system: System) -> str:
    """A list of steps as the lines that make it."""
    return "\n".join(write_line(step, system) for step in steps)

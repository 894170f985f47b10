"""The lists of a plan: outside steps and cuts; putting an item in and taking one out."""

from __future__ import annotations

from collections.abc import Mapping
from dataclasses import dataclass
from typing import Any

from calc.errors import FieldProblem
from calc.fields import Group
from calc.plan.document import KIND, NAME_MOST, OutsideStep, PlannedCut, Profile, Setup, value_at
from calc.quantities import Sentence
from calc.reading import write


@dataclass(frozen=True)
class ListRule:
    """A list: what one of it is called, how many there may be, the kinds of a new one, how many stay in front."""

    path: str
    stop: str
    noun: str
    least: int
    most: int
    kinds: Mapping[str, str]
    fixed: int = 0


def _group(kind: type[Any], name: str) -> Group:
    from calc.fields import fields_of

    spec = next(f.spec for f in fields_of(kind) if f.name == name)
    assert isinstance(spec, Group)
    return spec


_STEPS, _CUTS = _group(Profile, "outside"), _group(Setup, "cuts")
LISTS = {
    rule.path: rule
    for rule in (
        # The gripped step stays in front: the set-up rests on it.
        ListRule("part.profile.outside", "part", "step", _STEPS.least, _STEPS.most, {}, fixed=1),
        ListRule("setups.0.cuts", "cuts", "cut", _CUTS.least, _CUTS.most, KIND.options),
    )
}


def list_at(path: str) -> ListRule:
    """The rule of a list. Raises FieldProblem where there is none at the path."""
    if path not in LISTS:
        raise FieldProblem(path, "There is no such list in this plan.")
    return LISTS[path]


def with_item(document: Any, path: str, name: str, kind: str | None) -> list[Any]:
    """The list with a new item at its end. `document` is plain data. Raises FieldProblem at the list."""
    rule = list_at(path)
    items = list(value_at(document, path))
    said = " ".join(name.split())
    if not said or len(said) > NAME_MOST or "\x00" in said:
        raise FieldProblem(path, f"Give the {rule.noun} a name of up to {NAME_MOST} characters.")
    if said.casefold() in {str(item["name"]).casefold() for item in items}:
        raise FieldProblem(path, Sentence("There is a {noun} “{name}” already; take another name.",
                                          noun=rule.noun, name=said))  # fmt: skip
    if len(items) >= rule.most:
        raise FieldProblem(path, f"A plan takes {rule.most} of these; take one out first.")
    if rule.kinds and kind not in rule.kinds:
        raise FieldProblem(path, "Choose " + " or ".join(f"“{k}”" for k in rule.kinds.values()) + ".")
    made: OutsideStep | PlannedCut = PlannedCut(said, kind) if rule.kinds else OutsideStep(said)  # type: ignore[arg-type]
    return [*items, write(made)]


def without_item(document: Any, path: str, index: int) -> list[Any]:
    """The list without one item. `document` is plain data. Raises FieldProblem at the list."""
    rule = list_at(path)
    items = list(value_at(document, path))
    if not 0 <= index < len(items):
        raise FieldProblem(path, f"There is no such {rule.noun} any more.")
    if index < rule.fixed:
        raise FieldProblem(path, f"The first {rule.noun} is the one that is gripped: it stays. Change its figures.")
    if len(items) <= rule.least:
        raise FieldProblem(path, f"One {rule.noun} stays at least.")
    return items[:index] + items[index + 1 :]

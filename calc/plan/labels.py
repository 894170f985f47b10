"""What a fact is called and how its value reads, for sentences about a plan: its history."""

from __future__ import annotations

from typing import Any

from calc.errors import CalcError
from calc.fields import Choice, Flag, Quantity, Spec
from calc.plan.lists import LISTS, line_of
from calc.plan.paths import parts_of, value_at
from calc.plan.stops import field_at
from calc.profile.lines import write_line
from calc.profile.steps import TurnedStep
from calc.quantities import Figure, System
from calc.reading import read


def _owner(document: Any, path: str) -> tuple[str, str] | None:
    """(path of the list, name of its item) that a fact belongs to, where its item has a name."""
    parts = path.split(".")
    for end in range(len(parts) - 1, 0, -1):
        try:
            item = value_at(document, ".".join(parts[:end]))
        except KeyError:
            continue
        if isinstance(item, dict) and parts[end - 1].isdigit() and item.get("name"):
            return ".".join(parts[: end - 1]), str(item["name"])
    return None


def label_of(document: Any, path: str) -> str:
    """What the fact at a path is called: "Spigot diameter", "Face: feed", "Gauge pressure".

    `document` is plain data; a fact of an item that is no longer there is called by its field alone.
    """
    last = parts_of(path)[-1]
    if path in LISTS:
        return LISTS[path].title
    if line_of(path) is not None:
        try:
            return str(value_at(document, path)["name"])
        except KeyError:
            return "A step"
    try:
        label = field_at(path).spec.label
    except KeyError:
        return path
    owner = _owner(document, path)
    if owner is None or owner[0] not in LISTS:
        return label
    if last == "name":
        return f"Name of {owner[1]}"
    if owner[0] == "setups":
        return f"{label}, {owner[1].lower()}" if len(document["setups"]) > 1 else label
    return f"{owner[1]}{'' if LISTS[owner[0]].lines else ':'} {label[:1].lower()}{label[1:]}"


def _line(item: dict[str, Any], system: System) -> str:
    """A step as its line; what is no step any more, by its name."""
    try:
        return write_line(read(TurnedStep, item), system, named=False)
    except CalcError:
        return str(item.get("name", "?"))


def value_text(spec: Spec | None, value: Any, system: System) -> str:
    """How a fact's value reads in a sentence; "empty" where there is none."""
    if value is None or value == "":
        return "empty"
    match spec:
        case Quantity():
            return Figure(float(value), spec.unit, exact=True, places=spec.places).text(system)
        case Choice():
            return spec.options.get(value, str(value))
        case Flag():
            return "yes" if value else "no"
    if isinstance(value, dict):
        return _line(value, system)
    if isinstance(value, list):
        return ", ".join(str(item.get("name", "?")) for item in value) or "none"
    return str(value)

"""What a fact is called and how its value reads, for sentences about a plan: its history."""

from __future__ import annotations

from typing import Any

from calc.errors import CalcError
from calc.fields import Choice, Flag, Quantity, Spec
from calc.plan.edits import is_put, place_at
from calc.plan.entry import Place, resolve
from calc.plan.lists import list_at, rule_of
from calc.plan.paths import parts_of, value_at
from calc.profile.lines import write_line
from calc.profile.steps import TurnedStep
from calc.quantities import Figure, System
from calc.reading import read


def _owner(document: Any, path: str) -> tuple[str, str] | None:
    """(path of the list, name of its item) that a fact belongs to, the nearest; None where it belongs to none."""
    parts = parts_of(path)
    for end in range(len(parts) - 1, 0, -1):
        at = ".".join(parts[:end])
        if rule_of(at) is None:
            continue
        try:
            return at, str(value_at(document, f"{at}.{parts[end]}")["name"])
        except KeyError:
            return None
    return None


def label_of(document: Any, path: str) -> str:
    """What is at a path, in words: "Spigot diameter", "Face: feed", "Gauge pressure".

    `document` is plain data; a fact of an item that is no longer there is called by its field alone.
    """
    try:
        place = resolve(path)
    except KeyError:
        return path
    item = place_at(path)
    if item is not None or place.kind in ("line", "item"):
        owner = _owner(document, item or path)
        return owner[1] if owner else f"A {place.label}" if item is None else "A cut"
    if place.spec is None or place.kind == "own":
        return place.label
    return _of_its_owner(document, place)


def _of_its_owner(document: Any, place: Place) -> str:
    owner, label = _owner(document, place.path), place.label
    if owner is None:
        return label
    at, name = owner
    if parts_of(place.path)[-1] == "name":
        return f"Name of {name}"
    if at == "setups":
        return f"{label}, {name.lower()}" if len(document["setups"]) > 1 else label
    return f"{name}{'' if list_at(at).lines else ':'} {label[:1].lower()}{label[1:]}"


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
    if is_put(value):
        return str(value["item"].get("name", "?"))
    if isinstance(value, dict):
        return _line(value, system)
    if isinstance(value, list):
        return ", ".join(str(item.get("name", "?")) for item in value) or "none"
    return str(value)

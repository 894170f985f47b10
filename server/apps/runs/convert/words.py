"""What is at a path of a run, and a value that is kept there, in words."""

from __future__ import annotations

from typing import Any

from calc.plan.edits import FIRST, is_put
from calc.plan.entry import RULES, resolve
from calc.plan.labels import label_of, value_text
from calc.quantities import System
from server.apps.runs.models import Run
from server.apps.shelf.queries import Snapshot


def label(run: Run, path: str, new: Any) -> str:
    """What is at a path, in words; an item that is put in by its own name."""
    return str(new["item"]["name"]) if is_put(new) else label_of(run.document, path)


def text(path: str, value: Any, on_shelf: Snapshot, system: System) -> str:
    """A value kept at a path, as it reads in a sentence."""
    try:
        place = resolve(path)
    except KeyError:
        return value_text(None, value, system)
    match place.kind:
        case "reference":
            known = on_shelf.names[place.reference]
            return "none" if value is None else known.get(value, f"{value}, no longer on the shelf")
        case "tool" if isinstance(value, str) and value:
            tool = on_shelf.tools.tool(value)
            return tool.name if tool else f"{value}, no longer on the shelf"
        case "whole" if path == RULES:
            return f"revision {value['number']}"
        case "place":
            return "first" if value == FIRST else f"behind {value}"
    return value_text(place.spec, value, system)

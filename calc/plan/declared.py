"""What is declared at a path of a plan: a fact of the document, or something taken from the shelf."""

from __future__ import annotations

from functools import cache
from typing import Any

from calc.fields import FieldSpec, fields_of
from calc.plan.document import Document
from calc.plan.paths import parts_of
from calc.shelf.all_kinds import KINDS

# What a plan takes from the shelf, by the last name of its path: of the whole run, and of each set-up.
OF_THE_RUN = ("machine", "material")
OF_A_SETUP = ("chuck", "jaw_blank", "jaw_set", "collet")
MAY_BE_NONE = ("jaw_set",)


def reference_at(path: str) -> str | None:
    """The kind of shelf item that the path takes: "machine", "chuck" …; None where it takes none."""
    parts = parts_of(path)
    if len(parts) == 1 and parts[0] in OF_THE_RUN:
        return parts[0]
    if len(parts) == 3 and parts[0] == "setups" and parts[2] in OF_A_SETUP:
        return parts[2]
    return None


@cache
def field_at(path: str) -> FieldSpec:
    """The declaration of the document's fact at a dotted path, whatever the ids in it. Raises KeyError."""
    kind: Any = Document
    found: FieldSpec | None = None
    parts = iter(parts_of(path))
    for part in parts:
        found = next((f for f in fields_of(kind) if f.name == part), None) if kind else None
        if found is None:
            raise KeyError(path)
        kind = found.nested
        if found.many and next(parts, None) is None:  # the list itself is no fact
            raise KeyError(path)
    if found is None or kind is not None:
        raise KeyError(path)
    return found


def label_at(path: str) -> str:
    """What is declared at the path, in a word or two. Raises KeyError."""
    kind = reference_at(path)
    return KINDS[kind].noun.capitalize() if kind else field_at(path).spec.label

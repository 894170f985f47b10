"""Shelf items as flat rows of fields: what a form shows, a CSV file holds and a person types.

A chuck's force figures are declared in `calc.chuck.grip` and nested in the value; on the shelf they
stand beside its other figures. The chart is a list and is handled by itself.
"""

from __future__ import annotations

from collections.abc import Mapping
from dataclasses import dataclass
from typing import Any

from calc.chuck.grip import ChuckForce
from calc.errors import CalcError, FieldError
from calc.fields import FieldSpec, Flag, fields_of
from calc.plan.shelf import Chuck, JawBlank, Machine, Material
from calc.reading import read

KINDS: dict[str, type[Any]] = {"machine": Machine, "chuck": Chuck, "jaw_blank": JawBlank, "material": Material}
TITLES = {"machine": "Machines", "chuck": "Chucks", "jaw_blank": "Jaw blanks", "material": "Materials"}
NOUNS = {"machine": "machine", "chuck": "chuck", "jaw_blank": "jaw blank", "material": "material"}


@dataclass(frozen=True)
class ItemField:
    """A field of a shelf item and the heading it stands under."""

    field: FieldSpec
    group: str

    @property
    def name(self) -> str:
        """The field's name, the same in value, row and file."""
        return self.field.name


GROUPS = {
    "machine": {"name": "The lathe"},
    "material": {"name": "What it is", "kc11": "How it cuts", "density_kg_dm3": "How it behaves"},
    "jaw_blank": {"name": "What it is", "width_mm": "Its size", "bolt_head_mm": "On the chuck"},
    "chuck": {"name": "The chuck", "max_grip_n": "Its force", "body_diameter_mm": "Its body", "jaw_stroke_mm": "Its jaws"},
}  # fmt: skip
# The order a data sheet is read in; what is not named follows.
CHUCK_ORDER = (
    "name", "jaws", "max_rpm", "max_grip_n", "max_pressure_bar", "reference_height_mm", "guide_length_mm",
    "guide_friction", "piston_area_mm2", "force_ratio", "efficiency", "max_draw_n",
    "body_diameter_mm", "body_length_mm", "guide_to_jaw_base_mm",
)  # fmt: skip
FORCE_NAMES = tuple(f.name for f in fields_of(ChuckForce) if f.name != "chart")


def item_fields(kind: str) -> tuple[ItemField, ...]:
    """The fields of a kind that a person fills in, in the order of its form, without key and chart."""
    found = {f.name: f for f in fields_of(KINDS[kind]) if f.nested is None and not isinstance(f.spec, Flag)}
    if kind == "chuck":
        found |= {f.name: f for f in fields_of(ChuckForce) if f.name != "chart"}
        found = {n: found[n] for n in (*CHUCK_ORDER, *(n for n in found if n not in CHUCK_ORDER))}
    del found["key"]
    rows, group = [], ""
    for name, field in found.items():
        group = GROUPS[kind].get(name, group)
        rows.append(ItemField(field, group))
    return tuple(rows)


def read_item(kind: str, flat: Mapping[str, Any], chart: list[tuple[float, float]] | None = None) -> Any:
    """A shelf item's value from a flat row in core units. Raises CalcError with the row's field names."""
    data = dict(flat)
    if kind == "chuck":
        force = {n: data.pop(n) for n in FORCE_NAMES if n in data}
        force["chart"] = [{"pressure_bar": p, "grip_n": g} for p, g in chart or ()]
        data["force"] = force
    try:
        return read(KINDS[kind], data)
    except CalcError as error:
        raise CalcError(FieldError(_flat_name(e.field), e.sentence) for e in error.errors) from error


def _flat_name(name: str) -> str:
    short = name.removeprefix("force.")
    return "chart" if short.startswith("chart") else short

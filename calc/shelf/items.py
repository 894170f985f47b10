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
from calc.reading import read
from calc.shelf.machine import Machine
from calc.shelf.material import Material
from calc.shelf.workholding import Chuck, JawBlank, JawSet, Plug, Ring
from calc.tools.records import TOOL_KINDS

KINDS: dict[str, type[Any]] = {
    "machine": Machine,
    "chuck": Chuck,
    "jaw_blank": JawBlank,
    "jaw_set": JawSet,
    "ring": Ring,
    "plug": Plug,
    **TOOL_KINDS,
    "material": Material,
}
TITLES = {
    "machine": "Machines",
    "chuck": "Chucks",
    "jaw_blank": "Jaw blanks",
    "jaw_set": "Jaw sets",
    "ring": "Boring rings",
    "plug": "Boring plugs",
    "insert": "Turning inserts",
    "groove_insert": "Grooving and part-off inserts",
    "thread_insert": "Threading inserts",
    "holder": "Holders and bars",
    "drill": "Drills",
    "blade": "Part-off blades",
    "material": "Materials",
}
NOUNS = {
    "machine": "machine",
    "chuck": "chuck",
    "jaw_blank": "jaw blank",
    "jaw_set": "jaw set",
    "ring": "boring ring",
    "plug": "boring plug",
    "insert": "turning insert",
    "groove_insert": "grooving insert",
    "thread_insert": "threading insert",
    "holder": "holder",
    "drill": "drill",
    "blade": "blade",
    "material": "material",
}
LINKED = ("chuck_key", "blank_key")  # what a value holds by key is a link on the shelf, no field of its form


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
    "machine": {"name": "The lathe", "feed_word": "Its control"},
    "jaw_set": {"name": "What it is", "bored_mm": "As it is now", "numbers": "Its marks", "stored": "Where it is"},
    "ring": {"name": "What it is", "inner_mm": "Its size", "max_bar": "Its limits"},
    "plug": {"name": "What it is"},
    "insert": {"name": "What it is", "feed_min": "Its breaker", "substrate": "Its grade", "stock": "On the shelf"},
    "groove_insert": {"name": "What it is", "feed_min": "How it cuts", "stock": "On the shelf"},
    "thread_insert": {"name": "What it is", "substrate": "Its grade", "stock": "On the shelf"},
    "holder": {"name": "What it is", "reach_mm": "A bar", "coolant": "On the machine"},
    "drill": {"name": "What it is", "feed_min": "How it cuts", "stock": "On the shelf"},
    "blade": {"name": "What it is", "coolant": "On the machine"},
    "material": {"name": "What it is", "kc11": "How it cuts", "density_kg_dm3": "How it behaves"},
    "jaw_blank": {"name": "What it is", "kind": "Its size", "bolt_head_mm": "On the chuck"},
    "chuck": {
        "name": "The chuck",
        "max_grip_n": "Its force",
        "body_diameter_mm": "Its body",
        "jaw_stroke_mm": "Its jaws",
    },
}
# The order a data sheet is read in; what is not named follows.
CHUCK_ORDER = (
    "name",
    "jaws",
    "max_rpm",
    "max_grip_n",
    "max_pressure_bar",
    "reference_height_mm",
    "guide_length_mm",
    "guide_friction",
    "piston_area_mm2",
    "force_ratio",
    "efficiency",
    "max_draw_n",
    "body_diameter_mm",
    "body_length_mm",
    "guide_to_jaw_base_mm",
    "jaw_stroke_mm",
    "serration_pitch_mm",
    "teeth",
    "tnut_radius_0_mm",
)
BLANK_ORDER = ("name", "metal", "kind", "width_mm", "angle_deg", "length_mm", "height_mm", "density_kg_dm3")
SET_ORDER = (
    "name",
    "side",
    "bored_mm",
    "depth_mm",
    "wall_left_mm",
    "damage_mm",
    "numbers",
    "tooth",
    "stored",
    "lent_to",
)
ORDERS = {"jaw_blank": BLANK_ORDER, "jaw_set": SET_ORDER}
FORCE_NAMES = tuple(f.name for f in fields_of(ChuckForce) if f.name != "chart")


def item_fields(kind: str) -> tuple[ItemField, ...]:
    """The fields of a kind that a person fills in, in the order of its form, without key and chart."""
    found = {f.name: f for f in fields_of(KINDS[kind]) if f.nested is None and not isinstance(f.spec, Flag)}
    if kind == "chuck":
        found |= {f.name: f for f in fields_of(ChuckForce) if f.name != "chart"}
    order = CHUCK_ORDER if kind == "chuck" else ORDERS.get(kind, ())
    found = {n: found[n] for n in (*order, *(n for n in found if n not in order)) if n not in ("key", *LINKED)}
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

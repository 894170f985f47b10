"""The whole shelf as values, read once and kept until the shelf changes.

Every key that a setter presses computes a plan; asking seven tables for the same shelf each time
would cost more than the plan does. One small query tells whether what is kept is still true.
"""

from __future__ import annotations

from collections.abc import Sequence
from dataclasses import dataclass, replace
from typing import Any
from uuid import UUID

from calc.shelf import machine, material, workholding
from calc.tools.library import Library
from server.apps.shelf import convert
from server.apps.shelf.models import Chuck, Item, JawBlank, JawSet, Machine, Material, Plug, Ring, ShelfState, Tool

NO_STATE = UUID(int=0)
TOOL_ROWS = {
    "insert": "inserts",
    "groove_insert": "groove_inserts",
    "thread_insert": "thread_inserts",
    "holder": "holders",
    "drill": "drills",
    "blade": "blades",
}
ROWS = {
    "machine": "machines",
    "material": "materials",
    "chuck": "chucks",
    "jaw_blank": "blanks",
    "jaw_set": "sets",
    "ring": "rings",
    "plug": "plugs",
}
AROUND = {"jaw_blank": "blanks_of_chuck", "ring": "rings_of_chuck", "plug": "plugs_of_chuck"}


@dataclass(frozen=True)
class Snapshot:
    """Items by database id; `names` and `ids` by kind and key."""

    token: UUID
    machines: dict[int, machine.Machine]
    materials: dict[int, material.Material]
    chucks: dict[int, workholding.Chuck]
    blanks: dict[int, workholding.JawBlank]
    sets: dict[int, workholding.JawSet]
    rings: dict[int, workholding.Ring]
    plugs: dict[int, workholding.Plug]
    machine_of_chuck: dict[int, int]
    blanks_of_chuck: dict[int, tuple[workholding.JawBlank, ...]]
    rings_of_chuck: dict[int, tuple[workholding.Ring, ...]]
    plugs_of_chuck: dict[int, tuple[workholding.Plug, ...]]
    tools: Library
    names: dict[str, dict[str, str]]
    ids: dict[str, dict[str, int]]

    def with_item(self, kind: str, pk: int, value: Any) -> Snapshot:
        """The shelf as it would be with one item changed."""
        if kind in TOOL_ROWS:
            name = TOOL_ROWS[kind]
            rows = tuple(value if v.key == value.key else v for v in getattr(self.tools, name))
            return replace(self, tools=replace(self.tools, **{name: rows}))
        name = ROWS[kind]
        changed: dict[str, Any] = {name: {**getattr(self, name), pk: value}}
        if kind in AROUND:
            around = getattr(self, AROUND[kind])
            changed[AROUND[kind]] = {
                chuck: tuple(value if v.key == value.key else v for v in values) for chuck, values in around.items()
            }
        return replace(self, **changed)

    def sets_of_chuck(self, key: str) -> tuple[workholding.JawSet, ...]:
        """The jaw sets that were bored on a chuck."""
        return tuple(s for s in self.sets.values() if s.chuck_key == key)

    def blank_of_set(self, pk: int) -> workholding.JawBlank:
        """What a jaw set was made from."""
        key = self.sets[pk].blank_key
        return self.blanks[self.ids["jaw_blank"][key]]


def _read(token: UUID) -> Snapshot:
    machines, materials = list(Machine.objects.all()), list(Material.objects.all())
    chucks = list(Chuck.objects.prefetch_related("chart", "blanks", "rings", "plugs"))
    blanks, rings, plugs = list(JawBlank.objects.all()), list(Ring.objects.all()), list(Plug.objects.all())
    tools = {kind: list(Tool.objects.filter(kind=kind)) for kind in TOOL_ROWS}
    sets = list(JawSet.objects.select_related("chuck", "blank"))
    kinds: dict[str, Sequence[Item]] = {
        "machine": machines,
        "material": materials,
        "chuck": chucks,
        "jaw_blank": blanks,
        "jaw_set": sets,
        "ring": rings,
        "plug": plugs,
        **tools,
    }
    values = {b.pk: convert.blank(b) for b in blanks}
    ring_values, plug_values = {r.pk: convert.ring(r) for r in rings}, {p.pk: convert.plug(p) for p in plugs}
    return Snapshot(
        token=token,
        machines={m.pk: convert.machine(m) for m in machines},
        materials={m.pk: convert.material(m) for m in materials},
        chucks={c.pk: convert.chuck(c) for c in chucks},
        blanks=values,
        sets={s.pk: convert.jaw_set(s) for s in sets},
        rings=ring_values,
        plugs=plug_values,
        machine_of_chuck={c.pk: c.machine_id for c in chucks},
        blanks_of_chuck={c.pk: tuple(values[b.pk] for b in c.blanks.all()) for c in chucks},
        rings_of_chuck={c.pk: tuple(ring_values[r.pk] for r in c.rings.all()) for c in chucks},
        plugs_of_chuck={c.pk: tuple(plug_values[p.pk] for p in c.plugs.all()) for c in chucks},
        tools=Library(**{TOOL_ROWS[kind]: tuple(convert.tool(t) for t in rows) for kind, rows in tools.items()}),
        names={kind: {r.key: r.name for r in rows} for kind, rows in kinds.items()},
        ids={kind: {r.key: r.pk for r in rows} for kind, rows in kinds.items()},
    )


_kept: Snapshot | None = None


def token() -> UUID:
    """What tells the shelf as it is now from every other state of it."""
    return ShelfState.objects.values_list("token", flat=True).first() or NO_STATE


def current() -> Snapshot:
    """The shelf as it is now."""
    global _kept  # noqa: PLW0603 - one value per process; threads that race read the same thing twice
    now = token()
    kept = _kept
    if kept is None or kept.token != now or now == NO_STATE:
        kept = _kept = _read(now)
    return kept

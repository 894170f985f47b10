"""The whole shelf as values, read once and kept until the shelf changes.

Every key that a setter presses computes a plan; asking seven tables for the same shelf each time
would cost more than the plan does. One small query tells whether what is kept is still true.
"""

from __future__ import annotations

from collections.abc import Sequence
from dataclasses import dataclass, replace
from typing import Any
from uuid import UUID

from calc.plan import shelf as core
from server.apps.shelf import convert
from server.apps.shelf.models import Chuck, Item, JawBlank, Machine, Material, ShelfState

NO_STATE = UUID(int=0)


@dataclass(frozen=True)
class Snapshot:
    """Items by database id; `names` and `ids` by kind and key."""

    token: UUID
    machines: dict[int, core.Machine]
    materials: dict[int, core.Material]
    chucks: dict[int, core.Chuck]
    blanks: dict[int, core.JawBlank]
    machine_of_chuck: dict[int, int]
    blanks_of_chuck: dict[int, tuple[core.JawBlank, ...]]
    names: dict[str, dict[str, str]]
    ids: dict[str, dict[str, int]]

    def with_item(self, kind: str, pk: int, value: Any) -> Snapshot:
        """The shelf as it would be with one item changed."""
        if kind == "jaw_blank":
            around = {
                chuck: tuple(value if b.key == value.key else b for b in blanks)
                for chuck, blanks in self.blanks_of_chuck.items()
            }
            return replace(self, blanks={**self.blanks, pk: value}, blanks_of_chuck=around)
        rows = f"{kind}s"
        changed: dict[str, Any] = {rows: {**getattr(self, rows), pk: value}}
        return replace(self, **changed)


def _read(token: UUID) -> Snapshot:
    machines, materials = list(Machine.objects.all()), list(Material.objects.all())
    chucks = list(Chuck.objects.prefetch_related("chart", "blanks"))
    blanks = list(JawBlank.objects.all())
    kinds: dict[str, Sequence[Item]] = {
        "machine": machines,
        "material": materials,
        "chuck": chucks,
        "jaw_blank": blanks,
    }
    values = {b.pk: convert.blank(b) for b in blanks}
    return Snapshot(
        token=token,
        machines={m.pk: convert.machine(m) for m in machines},
        materials={m.pk: convert.material(m) for m in materials},
        chucks={c.pk: convert.chuck(c) for c in chucks},
        blanks=values,
        machine_of_chuck={c.pk: c.machine_id for c in chucks},
        blanks_of_chuck={c.pk: tuple(values[b.pk] for b in c.blanks.all()) for c in chucks},
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

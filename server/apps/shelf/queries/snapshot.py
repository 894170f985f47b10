"""The whole shelf as values, read once and kept until the shelf changes.

Every key that a setter presses computes a plan; asking seven tables for the same shelf each time
would cost more than the plan does. One small query tells whether what is kept is still true.
"""

from __future__ import annotations

from collections import defaultdict
from dataclasses import dataclass, replace
from functools import cached_property
from typing import Any, cast
from uuid import UUID

from django.db import connection

from calc.item import Item as Value
from calc.item_kind import FITS_CHUCKS
from calc.shelf.all_kinds import KINDS
from calc.shelf.chuck import Chuck
from calc.shelf.collet import Collet
from calc.shelf.jaw_blank import JawBlank
from calc.shelf.jaw_set import JawSet
from calc.shelf.machine import Machine
from calc.shelf.material import Material
from calc.tools.all_kinds import TOOL_KINDS
from calc.tools.library import Library
from server.apps.shelf import convert
from server.apps.shelf.models import Item, ShelfState
from server.apps.shelf.queries.rows import rows_of

NO_STATE = UUID(int=0)
Values = dict[int, Value]


@dataclass(frozen=True)
class Snapshot:
    """Items by kind and database id; `fits`: by kind and chuck, what the chuck could carry; `names` by kind and key."""

    token: UUID
    items: dict[str, Values]
    fits: dict[str, dict[int, tuple[Value, ...]]]
    machine_of_chuck: dict[int, int]
    tools: Library
    names: dict[str, dict[str, str]]
    ids: dict[str, dict[str, int]]

    @property
    def machines(self) -> dict[int, Machine]:
        """Lathes."""
        return cast("dict[int, Machine]", self.items["machine"])

    @property
    def materials(self) -> dict[int, Material]:
        """Materials."""
        return cast("dict[int, Material]", self.items["material"])

    @property
    def chucks(self) -> dict[int, Chuck]:
        """Chucks."""
        return cast("dict[int, Chuck]", self.items["chuck"])

    @property
    def blanks(self) -> dict[int, JawBlank]:
        """Top jaws."""
        return cast("dict[int, JawBlank]", self.items["jaw_blank"])

    @property
    def collets(self) -> dict[int, Collet]:
        """Collets."""
        return cast("dict[int, Collet]", self.items["collet"])

    @property
    def sets(self) -> dict[int, JawSet]:
        """Bored jaw sets."""
        return cast("dict[int, JawSet]", self.items["jaw_set"])

    @cached_property
    def _sets_by_chuck(self) -> dict[str, list[JawSet]]:
        found: dict[str, list[JawSet]] = defaultdict(list)
        for one in self.sets.values():
            found[one.chuck_key].append(one)
        return found

    def with_item(self, kind: str, pk: int, value: Any) -> Snapshot:
        """The shelf as it would be with one item changed."""

        def swapped(values: tuple[Value, ...]) -> tuple[Value, ...]:
            return tuple(value if v.key == value.key else v for v in values)

        if kind in TOOL_KINDS:
            return replace(self, tools=self.tools.with_kind(kind, swapped(self.tools.of_kind(kind))))
        around = {chuck: swapped(values) for chuck, values in self.fits.get(kind, {}).items()}
        return replace(
            self,
            items={**self.items, kind: {**self.items[kind], pk: value}},
            fits={**self.fits, kind: around} if kind in self.fits else self.fits,
        )

    def fitting(self, chuck_id: int) -> dict[str, Any]:
        """What a chuck could carry: by the name of its kind in a set-up's share of the shelf."""
        return {KINDS[kind].plural: chucks.get(chuck_id, ()) for kind, chucks in self.fits.items()}

    def sets_of_chuck(self, key: str) -> tuple[JawSet, ...]:
        """The jaw sets that were bored on a chuck."""
        return tuple(self._sets_by_chuck[key]) if key in self._sets_by_chuck else ()

    def blank_of_set(self, pk: int) -> JawBlank:
        """What a jaw set was made from."""
        return self.blanks[self.ids["jaw_blank"][self.sets[pk].blank_key]]


def _read(token: UUID) -> Snapshot:
    rows: dict[str, list[Item]] = {kind.name: list(rows_of(kind.name)) for kind in KINDS.values()}
    items = {kind: {r.pk: convert.value(r) for r in found} for kind, found in rows.items()}
    return Snapshot(
        token=token,
        items=items,
        fits={k.name: _fits(rows[k.name], items[k.name]) for k in KINDS.values() if FITS_CHUCKS in k.links},
        machine_of_chuck={c.pk: c.machine_id for c in rows["chuck"]},  # type: ignore[attr-defined]
        tools=Library.of({kind: tuple(items[kind].values()) for kind in TOOL_KINDS}),
        names={kind: {r.key: r.name for r in found} for kind, found in rows.items()},
        ids={kind: {r.key: r.pk for r in found} for kind, found in rows.items()},
    )


def _fits(rows: list[Item], values: Values) -> dict[int, tuple[Value, ...]]:
    found: dict[int, list[Value]] = defaultdict(list)
    for row in rows:
        for chuck in getattr(row, FITS_CHUCKS.name).all():
            found[chuck.pk].append(values[row.pk])
    return {chuck: tuple(fitting) for chuck, fitting in found.items()}


_kept: Snapshot | None = None


def token() -> UUID:
    """What tells the shelf as it is now from every other state of it."""
    return ShelfState.objects.values_list("token", flat=True).first() or NO_STATE


def hold() -> None:
    """Keep the shelf as it is until the transaction ends: what is computed from it is true when it is kept.

    Taken before any run is held. Others may hold it too; who changes the shelf waits for all of them.
    """
    ShelfState.objects.get_or_create(pk=1)
    table = ShelfState._meta.db_table
    with connection.cursor() as cursor:
        cursor.execute(f"SELECT 1 FROM {table} WHERE id = 1 FOR SHARE")  # noqa: S608 - a name of ours


def hold_to_change() -> None:
    """Keep everybody else from the shelf until the transaction ends. Taken before any item or run is held."""
    ShelfState.objects.get_or_create(pk=1)
    ShelfState.objects.select_for_update().get(pk=1)


def current() -> Snapshot:
    """The shelf as it is now."""
    global _kept  # noqa: PLW0603 - one value per process; threads that race read the same thing twice
    now = token()
    kept = _kept
    if kept is None or kept.token != now or now == NO_STATE:
        kept = _kept = _read(now)
    return kept

"""Reads of the shelf."""

from __future__ import annotations

from calc.plan import shelf as core
from server.apps.shelf.snapshot import Snapshot, current

__all__ = ["Snapshot", "chucks_of", "current", "setup_shelf"]


def chucks_of(shelf: Snapshot, machine_id: int | None) -> dict[str, str]:
    """Key -> name of the chucks that a machine has; all of them while there is none."""
    keys = [c.key for pk, c in shelf.chucks.items() if machine_id in (None, shelf.machine_of_chuck[pk])]
    return {key: shelf.names["chuck"][key] for key in keys}


def setup_shelf(shelf: Snapshot, machine_id: int | None, chuck_id: int | None, blank_id: int | None) -> core.SetupShelf:
    """What one set-up takes from the shelf, with every blank its chuck could carry."""
    return core.SetupShelf(
        chuck=None if chuck_id is None else shelf.chucks[chuck_id],
        blank=None if blank_id is None else shelf.blanks[blank_id],
        blanks=() if chuck_id is None else shelf.blanks_of_chuck[chuck_id],
        on_machine=chuck_id is None or shelf.machine_of_chuck[chuck_id] == machine_id,
    )

"""Reads of the shelf. Other apps take what stands here; the screens' own reads are in the files beside."""

from __future__ import annotations

from server.apps.shelf.queries.snapshot import NO_STATE, Snapshot, current, hold, hold_to_change, token
from server.apps.shelf.queries.taken import Taken, chucks_of, find, fitted, holders_on, setup_shelf, stock_of, tool_key

__all__ = [
    "NO_STATE",
    "Snapshot",
    "Taken",
    "chucks_of",
    "current",
    "find",
    "fitted",
    "hold",
    "hold_to_change",
    "holders_on",
    "setup_shelf",
    "stock_of",
    "token",
    "tool_key",
]

"""Logs that end somewhere: the newest part is kept, and the one before it."""

from __future__ import annotations

import os
from pathlib import Path

from commands.cluster import Cluster
from commands.places import DATA

MOST = 5_000_000  # bytes of a log; the part before it is as long at most


def bound(cluster: Cluster) -> None:
    """Cut the logs that have grown long: the database's, and that of an application which was started again by itself.
    Whoever writes one goes on writing into the same file.
    """
    cut(cluster.folder / "server.log")
    cut(DATA / "keeping.log")


def cut(log: Path, most: int = MOST) -> None:
    """Set a long log aside under `.1`, in place of the one set aside before, and empty it. It is opened to append."""
    try:
        if log.stat().st_size <= most:
            return
        said = log.read_bytes()[-most:]
        aside = log.with_name(f"{log.name}.1")
        aside.unlink(missing_ok=True)
        with os.fdopen(os.open(aside, os.O_WRONLY | os.O_CREAT | os.O_EXCL, 0o600), "wb") as out:
            out.write(said)
        os.truncate(log, 0)
    except OSError:
        return  # it is not there yet, or the disk is full: the log is the last thing to stop for

"""The demo's rows, kept after it was begun for the first time: tests put them back in a moment.

Processes that run tests beside each other begin it once for all of them.
"""

from __future__ import annotations

import fcntl
import pickle
from collections.abc import Callable
from datetime import date
from pathlib import Path
from typing import Any
from uuid import uuid4

from django.apps import apps
from django.contrib.sessions.models import Session
from django.core.management.color import no_style
from django.db import connection, transaction

from server.apps.demo.actions import begin
from server.apps.demo.machine_side import set_half
from server.apps.shelf.models import ShelfState

Rows = list[tuple[str, str, bytes]]  # table, columns, what COPY made of it
_KEPT: dict[tuple[str, date], Rows] = {}
shared: Path | None = None  # a folder of all processes that run these tests


def _models() -> list[Any]:
    """Every table but the sessions: who is signed in stays so."""
    every = apps.get_models(include_auto_created=True)
    return [m for m in every if m._meta.managed and not m._meta.proxy and m is not Session]


def _copied_out() -> Rows:
    quote, found = connection.ops.quote_name, []
    with connection.cursor() as cursor:
        for model in _models():
            table = quote(model._meta.db_table)
            columns = ", ".join(quote(f.column) for f in model._meta.concrete_fields)
            with cursor.copy(f"COPY {table} ({columns}) TO STDOUT") as copy:
                found.append((table, columns, b"".join(bytes(part) for part in copy)))
    return found


@transaction.atomic
def _copied_in(kept: Rows) -> None:
    with connection.cursor() as cursor:
        for table, _, _ in kept:  # migrations put rows in, too
            cursor.execute(f"DELETE FROM {table}")  # noqa: S608 # the table names of Django's models
        for table, columns, rows in kept:
            if rows:
                with cursor.copy(f"COPY {table} ({columns}) FROM STDIN") as copy:
                    copy.write(rows)
        cursor.execute("; ".join(connection.ops.sequence_reset_sql(no_style(), _models())))
    # What a process read while the tables were emptied, it must not take for this.
    ShelfState.objects.update(token=uuid4())


def begun(demo: str = "whole", made: Callable[[], object] = lambda: begin("demo")) -> None:
    """Begin the demo, or put back what beginning it made earlier today. `demo` names what of it is `made`."""
    of = (demo, date.today())
    if of in _KEPT:
        _copied_in(_KEPT[of])
    elif shared is None:
        made()
        _KEPT[of] = _copied_out()
    else:
        _begun_once(of, made, shared / f"demo {demo} {of[1]}")


def half_set() -> None:
    """The whole demo with what happened at its machines, as `./anvil start` begins it."""

    def made() -> None:
        begun()
        set_half()

    begun("half set", made)


def _begun_once(of: tuple[str, date], made: Callable[[], object], file: Path) -> None:
    """Begun by the first process that asks; another one that asks meanwhile waits, rather than making it again."""
    with file.with_suffix(".lock").open("w") as lock:
        fcntl.flock(lock, fcntl.LOCK_EX)
        if file.exists():
            _KEPT[of] = pickle.loads(file.read_bytes())  # noqa: S301 # written below, by a test beside this one
        else:
            made()
            _KEPT[of] = _copied_out()
            file.write_bytes(pickle.dumps(_KEPT[of]))
            return
    _copied_in(_KEPT[of])

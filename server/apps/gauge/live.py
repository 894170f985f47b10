"""A grip gauge read live over its line protocol (docs/gauge-protocol.md): readings kept as they arrive."""

from __future__ import annotations

import socket
import time
from collections.abc import Iterator
from typing import Any
from uuid import UUID

from django.conf import settings

from server.apps.gauge.actions.runs import append, ready_for_gauge
from server.apps.gauge.schemas import HeardOut
from server.apps.questions.actions.ask import ask
from server.apps.questions.kind import Arguments, Found, QuestionKind, Tell
from server.apps.questions.schemas import QuestionOut
from server.foundation.problems import NotFound

GREETING = "GRIP 1"
CONNECT_S, SILENT_S, EVERY_S = 3.0, 5.0, 0.2
NONSENSE_MOST = 3
LINE_MOST = 200
RPM_MOST, GRIP_MOST_N = 20_000.0, 2_000_000.0
READINGS_MOST = 20_000
LONGEST_S = 3600.0


def gauges() -> dict[str, tuple[str, int]]:
    """The gauges that this shop has: name -> (host, port). Only these are ever connected to."""
    found = {}
    for one in settings.GAUGES.split(","):
        name, _, place = one.partition("=")
        host, _, port = place.rpartition(":")
        if name.strip() and host and port.isdigit():
            found[name.strip()] = (host, int(port))
    return found


class _Told(Exception):
    """What went wrong with the gauge, in a sentence."""


class _Lines:
    """Lines from a socket, each within the time that a gauge may be silent."""

    def __init__(self, connection: socket.socket) -> None:
        self.connection = connection
        self.left = b""

    def next(self, deadline: float) -> str | None:
        """The next line, None where there is none before the deadline. Raises _Told at the end."""
        while b"\n" not in self.left:
            if len(self.left) > LINE_MOST:
                raise _Told("The gauge sends what is no reading: a line without an end. Is this address a grip gauge?")
            wait = deadline - time.monotonic()
            if wait <= 0:
                return None
            self.connection.settimeout(wait)
            try:
                got = self.connection.recv(4096)
            except TimeoutError:
                return None
            except OSError:
                got = b""
            if not got:
                raise _Told("The gauge broke off. What it sent is kept; connect again to go on.")
            self.left += got
        line, _, self.left = self.left.partition(b"\n")
        return line.decode("ascii", "replace").strip()


def parse(line: str) -> tuple[float, float] | None:
    """(rpm, grip [N]) of a reading's line “R milliseconds rpm newtons”; None for anything else."""
    parts = line.split()
    if len(parts) != 4 or parts[0] != "R":
        return None
    try:
        _, rpm, grip = (float(p) for p in parts[1:])
    except ValueError:
        return None
    return (rpm, grip) if 0 <= rpm <= RPM_MOST and 0 <= grip <= GRIP_MOST_N else None


def _connect(name: str) -> socket.socket:
    place = gauges().get(name)
    if place is None:
        raise NotFound("This shop has no gauge of that name.")
    try:
        return socket.create_connection(place, CONNECT_S)
    except OSError as error:
        raise _Told(f"The gauge does not answer at {place[0]}:{place[1]}. Is it switched on?") from error


def listen(run_id: int, name: str, tell: Tell) -> HeardOut:
    """Read a gauge into a run until it ends; gives how many readings came and what came of it.

    Readings are kept as they arrive: what breaks off loses none. `tell` is told how many there are.
    """
    total = 0
    try:
        with _connect(name) as connection:
            for points in _bundled(_heard(_started(connection))):
                if points:
                    total = append(run_id, points)
                tell(total, 0)
    except _Told as told:
        return HeardOut(run=run_id, total=total, good=False, told=str(told))
    readings = f"{total} reading" if total == 1 else f"{total} readings"
    return HeardOut(run=run_id, total=total, good=True, told=f"The gauge has ended its run: {readings}.")


def _find(arguments: Arguments, _: Any, tell: Tell) -> Found:
    return Found(listen(arguments["run"], arguments["gauge"], tell))


LISTEN = QuestionKind(
    "listen", HeardOut, lambda _: "", _find, lambda a: f"listen {a['run']}", LONGEST_S, computes=False
)


def ask_to_listen(run_id: int, gauge: str, question: UUID, person: Any) -> QuestionOut:
    """Ask to read a gauge into a run. Raises NotAllowed, NotFound, Conflict."""
    run = ready_for_gauge(run_id, person)
    if gauge not in gauges():
        raise NotFound("This shop has no gauge of that name.")
    return ask(LISTEN, {"run": run.pk, "gauge": gauge, "units": "metric"}, question, person)


def _started(connection: socket.socket) -> _Lines:
    """The lines of a gauge that was greeted and started. Raises _Told."""
    lines = _Lines(connection)
    greeting = lines.next(time.monotonic() + SILENT_S)
    if greeting is None:
        raise _Told("The gauge is connected and says nothing. Switch it off and on, then try again.")
    if not greeting.startswith(GREETING):
        raise _Told(f"What answers is no grip gauge of this kind: it says “{greeting[:40]}”.")
    connection.sendall(b"START\n")
    return lines


def _heard(lines: _Lines) -> Iterator[tuple[float, float] | None]:
    """Readings until the gauge ends its run; None where a moment passes without one. Raises _Told."""
    heard, nonsense = time.monotonic(), 0
    for _ in range(READINGS_MOST):
        line = lines.next(time.monotonic() + EVERY_S)
        if line == "END":
            return
        if line is None:
            if time.monotonic() - heard >= SILENT_S:
                raise _Told(
                    f"The gauge has been silent for {SILENT_S:.0f} seconds. What it sent is kept; connect again to go "
                    "on."
                )
            yield None
            continue
        heard, point = time.monotonic(), parse(line)
        nonsense = 0 if point else nonsense + 1
        if nonsense >= NONSENSE_MOST:
            raise _Told(f"The gauge sends what is no reading: “{line[:40]}”. What it sent before is kept.")
        yield point


def _bundled(points: Iterator[tuple[float, float] | None]) -> Iterator[list[tuple[float, float]]]:
    """The readings in small bundles; what was heard before something went wrong is passed on first."""
    bundle: list[tuple[float, float]] = []
    sent = time.monotonic()
    try:
        for point in points:
            if point is not None:
                bundle.append(point)
            # An empty one tells that it is still being read.
            if time.monotonic() - sent >= EVERY_S:
                yield bundle
                bundle, sent = [], time.monotonic()
    except _Told:
        if bundle:
            yield bundle
        raise
    if bundle:
        yield bundle

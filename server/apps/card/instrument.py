"""One reading of an instrument over its line protocol (docs/instrument-protocol.md)."""

from __future__ import annotations

import re
import socket
import time
from dataclasses import dataclass

from django.conf import settings

from calc.card.ask import Instrument
from server.foundation.problems import Conflict, NotFound

CONNECT_S, SILENT_S = 1.0, 3.0
LINE_MOST = 200
IN_MM = {"mm": 1.0, "in": 25.4, "um": 0.001}
UNITS = {"size": tuple(IN_MM), "indicator": tuple(IN_MM), "coolant": ("brix",)}
_NAMED = re.compile(r"\s*([^=,]+?)\s*=\s*(size|indicator|coolant)@([^@,\s]+):(\d{1,5})\s*")
_VALUE = re.compile(r"V (-?\d{1,6}(?:\.\d{1,6})?) ([a-z]{2,5})")


@dataclass(frozen=True)
class Place:
    """An instrument of the shop: what it measures, and where it is."""

    kind: Instrument
    host: str
    port: int


def instruments() -> dict[str, Place]:
    """The instruments that this shop has, by name. Only these are ever connected to."""
    found = {}
    for one in settings.INSTRUMENTS.split(","):
        match = _NAMED.fullmatch(one)
        if match is not None:
            found[match[1]] = Place(match[2], match[3], int(match[4]))  # type: ignore[arg-type] # one of the kinds
    return found


def read_once(name: str) -> float:
    """One reading [mm, or on a refractometer's scale]. Raises NotFound, or Conflict with what went wrong."""
    place = instruments().get(name)
    if place is None:
        raise NotFound("This shop has no instrument of that name.")
    try:
        with socket.create_connection((place.host, place.port), CONNECT_S) as connection:
            return _heard(name, place, connection)
    except TimeoutError:
        raise Conflict(f"{name} says nothing. Is it switched on and in reach? Write the reading by hand.") from None
    except OSError:
        raise Conflict(f"{name} does not answer at {place.host}:{place.port}. Is it switched on?") from None


def _heard(name: str, place: Place, connection: socket.socket) -> float:
    until = time.monotonic() + SILENT_S
    said = _lines(connection, until, 1)
    if not said or not said[0].startswith(f"INSTRUMENT 1 {place.kind}"):
        raise Conflict(f"{name} is no instrument of this kind: it greets with “{(said or [''])[0][:40]}”.")
    connection.sendall(b"READ\n")
    lines = _lines(connection, until, 2)
    if not lines:
        raise Conflict(f"{name} broke off before it said a value. Read it again.")
    if len(lines) > 1:
        raise Conflict(f"{name} said two values: “{lines[0][:30]}” and “{lines[1][:30]}”. Read it again.")
    match = _VALUE.fullmatch(lines[0])
    if match is None:
        raise Conflict(f"{name} said what is no reading: “{lines[0][:40]}”. Read it again, or write it by hand.")
    value, unit = float(match[1]), match[2]
    if unit not in UNITS[place.kind]:
        raise Conflict(f"{name} reads in {unit}, which is no unit for this. Set it to {UNITS[place.kind][0]}.")
    return value * IN_MM.get(unit, 1.0)


def _lines(connection: socket.socket, until: float, most: int) -> list[str]:
    """Whole lines until there are so many or the connection ends; what stands behind the last is left out."""
    got = b""
    while got.count(b"\n") < most and len(got) < most * LINE_MOST:
        connection.settimeout(max(0.01, until - time.monotonic()))
        more = connection.recv(4096)
        if not more:
            break
        got += more
    return [line.decode("ascii", "replace").strip() for line in got.split(b"\n")[:-1][:most]]

"""Simulated measuring instruments on loopback, speaking the protocol of docs/instrument-protocol.md.

A micrometer (`size`), an indicator (`indicator`) and a refractometer (`coolant`): each says what it is, and one reading
when it is asked, off by a bias and by noise. Run one with `./anvil instrument KIND`; `--help` lists what it can be made
to do wrong.
"""

from __future__ import annotations

import argparse
import contextlib
import random
import signal
import socketserver
import threading
import time
from dataclasses import dataclass

from devices.gauge import _watch

UNITS = {"size": "mm", "indicator": "mm", "coolant": "brix"}
SHOWN = {"size": 3, "indicator": 3, "coolant": 1}
USUAL = {"size": 83.982, "indicator": 0.012, "coolant": 5.3}
NOISE = {"size": 0.0015, "indicator": 0.001, "coolant": 0.1}
PORTS = {"size": 7121, "indicator": 7122, "coolant": 7123}
FAULTS = ("silent", "nonsense", "wrong-unit", "two-values", "drops")


@dataclass(frozen=True)
class Measures:
    """What an instrument measures: of which kind, the true value, its bias and noise, and what it does wrong."""

    kind: str
    value: float
    bias: float = 0.0
    noise: float = 0.0
    fault: str = ""

    def reading(self, chance: random.Random) -> str:
        """The value as it stands on its display."""
        return f"{self.value + self.bias + chance.gauss(0.0, self.noise):.{SHOWN[self.kind]}f}"


class _Talk(socketserver.StreamRequestHandler):
    server: Instrument

    def handle(self) -> None:
        of, chance = self.server.measures, random.Random()
        if of.fault == "silent":
            time.sleep(30)
            return
        self.wfile.write(f"INSTRUMENT 1 {of.kind} simulated\n".encode())
        if self.rfile.readline(100).strip() != b"READ":
            return
        unit = "psi" if of.fault == "wrong-unit" else UNITS[of.kind]
        line = f"V {of.reading(chance)} {unit}\n"
        if of.fault == "nonsense":
            line = "#?!~ 8\n"
        elif of.fault == "two-values":
            line += f"V {of.reading(chance)} {unit}\n"
        elif of.fault == "drops":
            line = line[:4]
        self.wfile.write(line.encode())


class Instrument(socketserver.ThreadingTCPServer):
    """One instrument, listening on loopback."""

    allow_reuse_address = True
    daemon_threads = True

    def __init__(self, port: int, measures: Measures) -> None:
        self.measures = measures
        super().__init__(("127.0.0.1", port), _Talk)

    def handle_error(self, request: object, client_address: object) -> None:
        """A line that was cut is no error of the instrument's."""


def main() -> None:
    """Run what was asked for until it is told to stop."""
    parser = argparse.ArgumentParser(prog="./anvil instrument", description="Simulated instruments on loopback.")
    parser.add_argument(
        "kind", nargs="*", default=list(UNITS), help="size, indicator, coolant; with :PORT for another port"
    )
    parser.add_argument("--value", type=float, help="what there is to measure, in mm or on the refractometer's scale")
    parser.add_argument("--bias", type=float, default=0.0, help="so much too much")
    parser.add_argument("--noise", type=float, help="standard deviation")
    parser.add_argument("--fault", choices=FAULTS, default="", help="what it does wrong")
    parser.add_argument("--with", dest="parent", type=int, help="the process that started it, with which it ends")
    given = parser.parse_args()
    if given.parent is not None:
        threading.Thread(target=_watch, args=(given.parent,), daemon=True).start()
    signal.signal(signal.SIGTERM, lambda *_: (_ for _ in ()).throw(SystemExit(0)))
    running = []
    for one in given.kind:
        kind, _, port = one.partition(":")
        if kind not in UNITS:
            parser.error(f"there is no instrument “{kind}”: say size, indicator or coolant")
        value = USUAL[kind] if given.value is None else given.value
        noise = NOISE[kind] if given.noise is None else given.noise
        measures = Measures(kind, value, given.bias, noise, given.fault)
        running.append(Instrument(int(port) if port else PORTS[kind], measures))
        host, at = running[-1].socket.getsockname()
        print(f"Simulated {kind} instrument at {host}:{at}   (Ctrl-C stops it)", flush=True)
    for instrument in running[1:]:
        threading.Thread(target=instrument.serve_forever, daemon=True).start()
    with contextlib.suppress(KeyboardInterrupt):
        running[0].serve_forever()


if __name__ == "__main__":
    main()

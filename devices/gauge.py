"""A simulated grip gauge on loopback, speaking the protocol of docs/gauge-protocol.md.

The model: jaws pull outward with the square of the speed; the master jaws' guides hold back what moves, so
that while the spindle slows down the grip stays behind; the sensor is noisy. A chuck in poor condition
grips less and sticks more. Run it with `./anvil gauge`; `--help` lists what it can be made to do wrong.
"""

from __future__ import annotations

import argparse
import contextlib
import os
import random
import signal
import socketserver
import threading
import time
from collections.abc import Iterator
from dataclasses import dataclass


@dataclass(frozen=True)
class Model:
    """What is gripped: grip standing still [N], loss [N/rpm²], the guides' share held back, noise [N]."""

    static_n: float = 46_000.0
    loss: float = 0.0027
    sticking: float = 0.012
    noise_n: float = 180.0
    top_rpm: float = 2600.0


GOOD = Model()
POOR = Model(static_n=27_000.0, sticking=0.06, noise_n=420.0)


@dataclass(frozen=True)
class Faults:
    """What the gauge does wrong, for trying out what is said then."""

    silent: bool = False
    nonsense: bool = False
    stops_after: int | None = None
    dropouts: bool = False


def speeds(model: Model, count: int) -> Iterator[float]:
    """Up to the top speed, and down again."""
    for i in range(count):
        share = 2 * i / (count - 1)
        yield model.top_rpm * (share if share <= 1 else 2 - share)


def grips(model: Model, count: int, chance: random.Random) -> Iterator[tuple[float, float]]:
    """(rpm, grip [N]) of a whole run. Guides hold back a share of what changes, until it is more than they can hold."""
    held = model.static_n
    for rpm in speeds(model, count):
        free = model.static_n - model.loss * rpm**2
        band = model.sticking * model.static_n / 2
        held = min(max(held, free - band), free + band)
        yield rpm, max(0.0, held + chance.gauss(0.0, model.noise_n))


class _Talk(socketserver.StreamRequestHandler):
    server: Gauge

    def handle(self) -> None:
        gauge = self.server
        if gauge.faults.silent:
            time.sleep(60)
            return
        self.wfile.write(b"GRIP 1 simulated\n")
        if self.rfile.readline(100).strip() != b"START":
            return
        chance, began = random.Random(gauge.seed), time.monotonic()
        for i, (rpm, grip) in enumerate(grips(gauge.model, gauge.count, chance)):
            if gauge.faults.stops_after is not None and i >= gauge.faults.stops_after:
                return
            if gauge.faults.dropouts and chance.random() < 0.06:
                continue
            word = (
                "?#!~"
                if gauge.faults.nonsense and i > 20
                else f"R {int((time.monotonic() - began) * 1000)} {rpm:.0f} {grip:.0f}"
            )
            try:
                self.wfile.write(f"{word}\n".encode())
            except OSError:
                return
            time.sleep(max(0.0, began + (i + 1) / gauge.rate - time.monotonic()))
        self.wfile.write(b"END\n")


class Gauge(socketserver.ThreadingTCPServer):
    """The gauge, listening on loopback."""

    allow_reuse_address = True
    daemon_threads = True

    def __init__(
        self,
        port: int,
        model: Model = GOOD,
        faults: Faults = Faults(),
        rate: float = 20.0,
        count: int = 240,
        seed: int | None = None,
    ) -> None:
        self.model, self.faults, self.rate, self.count, self.seed = model, faults, rate, count, seed
        super().__init__(("127.0.0.1", port), _Talk)

    def handle_error(self, request: object, client_address: object) -> None:
        """A line that was cut is no error of the gauge's."""


def _watch(parent: int) -> None:
    """End once the process that started this one is gone."""
    while os.getppid() == parent:
        time.sleep(1)
    os._exit(0)


def main() -> None:
    """Run it until it is told to stop."""
    parser = argparse.ArgumentParser(prog="./anvil gauge", description="A simulated grip gauge on loopback.")
    parser.add_argument("--port", type=int, default=7120)
    parser.add_argument("--poor", action="store_true", help="a chuck that lacks grease")
    parser.add_argument("--rate", type=float, default=20.0, help="readings a second")
    parser.add_argument("--count", type=int, default=240, help="readings of a run")
    parser.add_argument("--dropouts", action="store_true", help="leaves readings out now and then")
    parser.add_argument("--silent", action="store_true", help="never says a word")
    parser.add_argument("--nonsense", action="store_true", help="after a while sends what is no reading")
    parser.add_argument("--stops-after", type=int, help="breaks off after so many readings")
    parser.add_argument("--with", dest="parent", type=int, help="the process that started it, with which it ends")
    given = parser.parse_args()
    if given.parent is not None:
        threading.Thread(target=_watch, args=(given.parent,), daemon=True).start()
    faults = Faults(given.silent, given.nonsense, given.stops_after, given.dropouts)
    signal.signal(signal.SIGTERM, lambda *_: (_ for _ in ()).throw(SystemExit(0)))
    with Gauge(given.port, POOR if given.poor else GOOD, faults, max(0.1, given.rate), max(2, given.count)) as gauge:
        host, port = gauge.socket.getsockname()
        print(f"Simulated gauge at {host}:{port}   (Ctrl-C stops it)", flush=True)
        with contextlib.suppress(KeyboardInterrupt):
            gauge.serve_forever()


if __name__ == "__main__":
    main()

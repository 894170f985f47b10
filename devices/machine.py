"""A simulated lathe on loopback, speaking the protocol of docs/machine-protocol.md.

It makes a piece every cycle and measures it: each size is its aim, what warming up and the wear of its edge add, its
offset, and noise. An edge breaks now and then; the lathe stops then until a fresh one is noted. Run it with
`./anvil machine`; `--help` lists what it can be made to do wrong.
"""

from __future__ import annotations

import argparse
import contextlib
import math
import random
import signal
import socket
import socketserver
import threading
import time
from collections.abc import Iterator
from dataclasses import dataclass, field

from devices.gauge import _watch

PORT = 7130
FAULTS = ("silent", "nonsense", "drops", "backwards")
DROPS_AFTER = 5  # pieces, before a fault shows


@dataclass(frozen=True)
class Size:
    """What comes of a dimension: aim, noise and wear a piece [mm], and the station whose edge cuts it."""

    aim: float
    noise: float = 0.0015
    wear: float = 0.0003
    station: int = 2

    @staticmethod
    def read(text: str) -> Size:
        """As it is written: aim:noise:wear@station, all but the first may be left out."""
        figures, _, station = text.partition("@")
        parts = [float(p) for p in figures.split(":")]
        return Size(*parts, station=int(station) if station else 2)


@dataclass
class Lathe:
    """How it stands: pieces, pieces on each edge and offset of each station [mm]; `breaks`: of a thousand pieces."""

    sizes: tuple[Size, ...]
    warm_mm: float = 0.0
    warm_pieces: float = 12.0
    breaks: float = 2.0
    chance: random.Random = field(default_factory=random.Random)
    made: int = 0
    on_edge: dict[int, int] = field(default_factory=dict)
    offset: dict[int, float] = field(default_factory=dict)
    broken: int | None = None

    def piece(self) -> Iterator[str]:
        """One more piece: its lines."""
        if self.broken is not None:
            return
        self.made += 1
        for station in {s.station for s in self.sizes}:
            self.on_edge[station] = self.on_edge.get(station, 0) + 1
        yield f"P {self.made}"
        for place, size in enumerate(self.sizes, 1):
            yield f"M {self.made} {place} {self._value(size):.4f} mm"
        for station in self.on_edge:
            if self.chance.random() < self.breaks / 1000:
                self.broken = station
                yield f"X edge of tool {station} broke"
                return

    def _value(self, size: Size) -> float:
        warm = self.warm_mm * math.exp(-self.made / self.warm_pieces)
        worn = size.wear * self.on_edge.get(size.station, 0)
        return size.aim + warm + worn + self.offset.get(size.station, 0.0) + self.chance.gauss(0.0, size.noise)

    def news(self, line: str) -> Iterator[str]:
        """What somebody noted, done here: its lines."""
        parts = line.split()
        if parts[:2] == ["NEWS", "edge"] and len(parts) == 3:
            self.on_edge[int(parts[2])] = 0
            if self.broken == int(parts[2]):
                self.broken = None
                yield "R"
        elif parts[:2] == ["NEWS", "offset"] and len(parts) == 4:
            at = int(parts[2])
            self.offset[at] = self.offset.get(at, 0.0) + float(parts[3])


class _Talk(socketserver.StreamRequestHandler):
    server: Machine

    def handle(self) -> None:
        machine = self.server
        if machine.fault == "silent":
            time.sleep(120)
            return
        self.wfile.write(f"MACHINE 1 simulated\nC {machine.lathe.made}\n".encode())
        with machine.lock:
            machine.heard.append(self.connection)
        try:
            while line := self.rfile.readline(200):
                with contextlib.suppress(ValueError):
                    machine.tell(machine.lathe.news(line.decode("ascii", "replace").strip()))
        finally:
            with machine.lock:
                machine.heard.remove(self.connection)


class Machine(socketserver.ThreadingTCPServer):
    """The lathe, listening on loopback; it goes on whether anybody listens or not."""

    allow_reuse_address = True
    daemon_threads = True

    def __init__(self, port: int, lathe: Lathe, cycle_s: float = 60.0, fault: str = "", pieces: int = 0) -> None:
        self.lathe, self.cycle_s, self.fault, self.pieces = lathe, cycle_s, fault, pieces
        self.heard: list[socket.socket] = []
        self.lock = threading.Lock()
        super().__init__(("127.0.0.1", port), _Talk)
        threading.Thread(target=self._make, daemon=True).start()

    def tell(self, lines: Iterator[str]) -> None:
        """Send lines to whoever listens."""
        with self.lock:
            for line in lines:
                for out in list(self.heard):
                    with contextlib.suppress(OSError):
                        out.sendall(f"{line}\n".encode())

    def _make(self) -> None:
        while not self.pieces or self.lathe.made < self.pieces:
            time.sleep(self.cycle_s)
            self.tell(self._wrong(self.lathe.piece()))

    def _wrong(self, lines: Iterator[str]) -> Iterator[str]:
        if self.fault == "backwards" and self.lathe.made == DROPS_AFTER:
            self.lathe.made = 0
        for line in lines:
            if self.lathe.made > DROPS_AFTER and self.fault == "nonsense":
                yield "?#!~ 8"
            elif self.lathe.made > DROPS_AFTER and self.fault == "drops":
                for out in list(self.heard):
                    with contextlib.suppress(OSError):
                        out.sendall(line[:2].encode())
                        out.shutdown(socket.SHUT_RDWR)
                return
            else:
                yield line

    def handle_error(self, request: object, client_address: object) -> None:
        """A line that was cut is no error of the machine's."""


def main() -> None:
    """Run it until it is told to stop."""
    parser = argparse.ArgumentParser(prog="./anvil machine", description="A simulated lathe on loopback.")
    parser.add_argument("--port", type=int, default=PORT)
    parser.add_argument("--cycle", type=float, default=115.0, help="seconds from one piece to the next")
    parser.add_argument(
        "--sizes", nargs="*", default=["148.0119:0.0011:-0.00045@2"], help="aim:noise:wear@station of each [mm]"
    )
    parser.add_argument("--warm", type=float, default=0.0, help="so much larger while it is cold [mm]")
    parser.add_argument("--breaks", type=float, default=2.0, help="edges that break in a thousand pieces")
    parser.add_argument("--pieces", type=int, default=0, help="it stops after so many; 0: it goes on")
    parser.add_argument("--fault", choices=FAULTS, default="", help="what it does wrong")
    parser.add_argument("--with", dest="parent", type=int, help="the process that started it, with which it ends")
    given = parser.parse_args()
    if given.parent is not None:
        threading.Thread(target=_watch, args=(given.parent,), daemon=True).start()
    signal.signal(signal.SIGTERM, lambda *_: (_ for _ in ()).throw(SystemExit(0)))
    lathe = Lathe(tuple(Size.read(s) for s in given.sizes), given.warm, breaks=given.breaks)
    with Machine(given.port, lathe, max(0.02, given.cycle), given.fault, given.pieces) as machine:
        host, port = machine.socket.getsockname()
        print(f"Simulated lathe at {host}:{port}   (Ctrl-C stops it)", flush=True)
        with contextlib.suppress(KeyboardInterrupt):
            machine.serve_forever()


if __name__ == "__main__":
    main()

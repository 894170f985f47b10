"""The chip of a thread: for one and for many at once."""

from __future__ import annotations

from dataclasses import dataclass
from typing import Generic

from calc.working import N, Steps, derived

THREADS = derived("Drilling, grooving, threading")
DEPTH_EXTERNAL, DEPTH_INTERNAL = 0.613434, 0.541266  # thread depth over pitch, ISO 68-1
ROOT_WIDTH = 0.25  # of the pitch, at the root of an external thread; wider than an internal one's


@dataclass(frozen=True, eq=False)
class ThreadChip(Generic[N]):
    """Thread depth, edge in the cut and chip thickness [mm] of the last pass."""

    depth: N
    edge: N
    thickness: N


def thread_chip(w: Steps[N], pitch: N, passes: N | int, *, internal: bool) -> ThreadChip[N]:
    """The last of `passes` with equal chip area, both flanks and the root cutting; pitch above 0 [mm].

    >>> from calc.working import Working
    >>> c = thread_chip(Working(), 1.5, 6, internal=False)
    >>> round(c.depth, 3), round(c.edge, 3), round(c.thickness, 4)
    (0.92, 2.5, 0.0556)

    Reference: ISO 68-1; derived in docs/method.md, “Drilling, grooving, threading”.
    """
    share = DEPTH_INTERNAL if internal else DEPTH_EXTERNAL
    depth = w.step("H", "Thread depth", "s*P", "mm", THREADS, s=share, P=pitch)
    at = {"H": depth, "r": ROOT_WIDTH, "P": pitch}
    text = "(H**2*tan(radians(30)) + r*P*H) / k"
    area = w.step("A", "Chip area of a pass", text, "mm2", THREADS, k=passes, **at)
    edge = w.step("b", "Edge in the cut", "2*H/cos(radians(30)) + r*P", "mm", THREADS, **at)
    thickness = w.step("h", "Chip thickness", "A / b", "mm", THREADS, A=area, b=edge)
    return ThreadChip(depth, edge, thickness)

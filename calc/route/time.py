"""Time in cut of an operation: for one cut and for many at once."""

from __future__ import annotations

import math
from dataclasses import dataclass
from typing import Generic, Literal

from calc.cuts.drilling import Drilled, travel
from calc.cuts.part_off import Stretch, cross_minutes
from calc.cuts.spindle import Turning, turns
from calc.working import N, Steps, derived

TIME = derived("Time in cut")
RUN_IN_MM = 2.0  # typical: the tool starts this far before the metal
THREAD_RUN_IN = 3.0  # pitches: the slide must be at speed before the thread begins
Kind = Literal["turn", "face", "bore", "drill", "groove", "thread", "part"]


@dataclass(frozen=True, eq=False)
class Path(Generic[N]):
    """What a tool goes through: diameters before and after [mm], length along the axis [mm], passes, feed [mm/rev].

    `slow`: feed [mm/rev] from `slow_below` [mm] inwards, of a part-off; `width` [mm] of a groover, whose plunges
    stand side by side; `point_deg` of a drill.
    """

    kind: Kind
    before: float
    after: float
    length: float
    passes: N
    feed: N
    slow: N | None = None
    slow_below: float = 0.0
    width: float | None = None
    point_deg: float = 140.0

    @property
    def outer(self) -> float:
        """The larger diameter."""
        return max(self.before, self.after)

    @property
    def inner(self) -> float:
        """The smaller diameter."""
        return min(self.before, self.after)


def along_minutes(w: Steps[N], path: Path[N], drive: Turning[N]) -> N:
    """Time [min] of passes along the axis with their run-in, each at the diameter it leaves.

    >>> from calc.working import Working
    >>> path = Path("turn", 100.0, 100.0, 48.0, 1.0, 0.2)
    >>> round(along_minutes(Working(), path, Turning(157.0796, None, 5000)), 4)
    0.5

    Reference: L/(f·n), each pass.
    """
    sign = -1.0 if path.after > path.before else 1.0
    stock = abs(path.before - path.after) / 2
    total = w.step("t", "No pass yet", "0*f", "min", TIME, f=path.feed)
    for i in range(1, int(w.most(path.passes)) + 1):
        text = "D - 2*s*a*i/k"
        leaves = w.step("d", "It leaves", text, "mm", TIME, D=path.before, s=sign, a=stock, i=i, k=path.passes)
        n = turns(w, drive, leaves)
        # A candidate with fewer passes is done already: its share of this one is none.
        one = {"t": total, "k": path.passes, "i": i, "L": path.length, "a": RUN_IN_MM, "f": path.feed, "n": n}
        total = w.step("t", "Time", "t + (k >= i)*(L + a)/(f*n)", "min", TIME, **one)
    return total


def thread_minutes(w: Steps[N], path: Path[N], drive: Turning[N]) -> N:
    """Time [min] of a thread's passes; the feed is its pitch.

    >>> from calc.working import Working
    >>> round(thread_minutes(Working(), Path("thread", 24.0, 22.0, 20.0, 6.0, 1.5), Turning(None, 1000, 5000)), 4)
    0.098

    Reference: L/(P·n), each pass.
    """
    n = turns(w, drive, path.outer)
    values = {"k": path.passes, "L": path.length, "a": THREAD_RUN_IN, "P": path.feed, "n": n}
    return w.step("t", "Time of the passes", "k*(L + a*P)/(P*n)", "min", TIME, **values)


def plunge_minutes(w: Steps[N], path: Path[N], drive: Turning[N]) -> N:
    """Time [min] of a groove's plunges, or of a part-off with its slow feed near the centre.

    >>> from calc.working import Working
    >>> path = Path("groove", 60.0, 20.0, 6.0, 1.0, 0.1, width=3.0)
    >>> round(plunge_minutes(Working(), path, Turning(None, 800, 4000)), 3)
    0.5

    Reference: derived in docs/method.md, “Facing and parting off”.
    """
    slow, edge = path.slow, path.slow_below
    if path.kind == "part" and slow is not None and path.inner < edge < path.outer:
        fast = cross_minutes(w, Stretch(path.outer, edge, path.feed), drive)
        rest = cross_minutes(w, Stretch(edge, path.inner, slow), drive)
        return w.step("t", "Time of both", "t_1 + t_2", "min", TIME, t_1=fast, t_2=rest)
    plunges = math.ceil(path.length / path.width - 1e-9) if path.kind == "groove" and path.width else 1
    one = cross_minutes(w, Stretch(path.outer, path.inner, path.feed), drive)
    return w.step("t", "Time of the plunges", "k*t", "min", TIME, k=plunges, t=one)


def minutes_of(w: Steps[N], path: Path[N], drive: Turning[N]) -> N:
    """Time in cut [min] of one piece.

    >>> from calc.working import Working
    >>> round(minutes_of(Working(), Path("face", 80.0, 0.0, 0.0, 2.0, 0.2), Turning(200.0, None, 3000)), 3)
    0.269

    Reference: derived in docs/method.md, “Time in cut”.
    """
    match path.kind:
        case "face":
            one = cross_minutes(w, Stretch(path.outer, path.inner, path.feed), drive)
            return w.step("t", "Time of the passes", "k*t", "min", TIME, k=path.passes, t=one)
        case "part" | "groove":
            return plunge_minutes(w, path, drive)
        case "thread":
            return thread_minutes(w, path, drive)
        case "drill":
            far = travel(w, path.length, Drilled(path.after, path.before, path.point_deg))
            n = turns(w, drive, path.after)
            return w.step("t", "Time of the hole", "L/(f*n)", "min", TIME, L=far, f=path.feed, n=n)
    return along_minutes(w, path, drive)

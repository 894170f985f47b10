"""What an operation takes beside its cutting: the slide's moves, and the spindle's changes of speed."""

from __future__ import annotations

import math
from dataclasses import dataclass

from calc.route.moves import MOVES, move_seconds
from calc.route.time import RUN_IN_MM, THREAD_RUN_IN, Path
from calc.working import Step, Working

LIFT_MM = 1.0  # typical: off the surface on the way back, on radius


@dataclass(frozen=True)
class Slide:
    """How a slide moves [m/min, m/s²], and where tools are changed: so far beyond the face and the surface [mm]."""

    rapid_x: float = 20.0
    rapid_z: float = 24.0
    acceleration: float = 3.0
    change_x_mm: float = 100.0
    change_z_mm: float = 150.0

    def along(self, w: Working, mm: float) -> float:
        """Time [s] of a move along the axis."""
        return move_seconds(w, mm, self.rapid_z, self.acceleration)

    def across(self, w: Working, mm: float) -> float:
        """Time [s] of a move across, on radius."""
        return move_seconds(w, mm, self.rapid_x, self.acceleration)

    def both(self, across_mm: float, along_mm: float) -> float:
        """Time [s] of a move of both axes together: the longer of the two."""
        return max(self.across(Working(), across_mm), self.along(Working(), along_mm))


@dataclass(frozen=True)
class Moved:
    """Time of an operation's moves [s]: to the work, back and over between passes, home; with its working."""

    there_s: float
    between_s: float
    home_s: float
    steps: tuple[Step, ...]

    @property
    def seconds(self) -> float:
        """All of them."""
        return self.there_s + self.between_s + self.home_s


def moves_of(slide: Slide, path: Path[float], start_mm: float, peck_mm: float | None = None) -> Moved:
    """The moves of an operation that begins `start_mm` behind the finished face; `peck_mm` [mm, > 0; None: in one]: how
    deep a drill goes before it comes out.

    >>> found = moves_of(Slide(), Path("turn", 40.0, 36.0, 30.0, 2.0, 0.2), 0.0)
    >>> round(found.there_s, 3), round(found.between_s, 3), round(found.home_s, 3)
    (0.508, 0.295, 0.583)

    Reference: derived in docs/method.md, “Moving and indexing”.
    """
    radial = (path.outer - path.inner) / 2
    inside = path.after > path.before
    to_work = slide.change_z_mm + max(0.0, start_mm - RUN_IN_MM)
    there = slide.both(slide.change_x_mm + (radial if path.kind == "face" else 0.0), to_work)
    if inside and path.kind not in ("drill",):  # out of the bore first
        home = slide.along(Working(), path.length + RUN_IN_MM) + slide.both(slide.change_x_mm, to_work)
    else:
        home = slide.both(slide.change_x_mm, to_work + _far(path))
    times, once = _pecks(slide, path, peck_mm) if path.kind == "drill" else _over(slide, path, radial)
    w = Working()
    w.step("t_1", "From where tools are changed to the work", "t_m", "s", MOVES, t_m=there)
    between = w.step("t_2", "Back and over between passes", "m*t_m", "s", MOVES, m=float(times), t_m=once)
    w.step("t_3", "Home", "t_m", "s", MOVES, t_m=home)
    return Moved(there, between, home, tuple(w.steps))


def _far(path: Path[float]) -> float:
    return 0.0 if path.kind in ("face", "part", "groove") else path.length


def _pecks(slide: Slide, path: Path[float], peck_mm: float | None) -> tuple[int, float]:
    """How often a drill comes out to clear, and what once takes [s], there and back, on the average."""
    times = 0 if peck_mm is None else math.ceil(path.length / peck_mm - 1e-9) - 1
    if peck_mm is None or times < 1:
        return 0, 0.0
    depths = (k * peck_mm + RUN_IN_MM for k in range(1, times + 1))
    return times, sum(2 * slide.along(Working(), depth) for depth in depths) / times


def _over(slide: Slide, path: Path[float], radial: float) -> tuple[int, float]:
    """How often a tool goes back for another pass, and what once takes [s]."""
    w, lift = Working(), LIFT_MM
    match path.kind:
        case "turn" | "bore" | "thread":
            run_in = THREAD_RUN_IN * path.feed if path.kind == "thread" else RUN_IN_MM
            deeper = radial / path.passes
            once = slide.across(w, lift) + slide.along(w, path.length + run_in) + slide.across(w, lift + deeper)
            return max(0, math.ceil(path.passes) - 1), once
        case "face":
            return max(0, math.ceil(path.passes) - 1), 2 * slide.along(w, lift) + slide.across(w, radial)
        case "groove":
            plunges = math.ceil(path.length / path.width - 1e-9) if path.width else 1
            return plunges - 1, slide.across(w, radial + lift) + slide.along(w, path.width or 0.0) + slide.across(
                w, lift
            )
    return 0, 0.0


def spindle_seconds(w: Working, before_rpm: float, after_rpm: float, top_rpm: float, whole_s: float) -> float:
    """Time [s] of a change of the spindle's speed, `whole_s` from rest to `top_rpm`.

    >>> round(spindle_seconds(Working(), 1000, 2500, 4500, 3.0), 2)
    1.0

    Reference: derived in docs/method.md, “Moving and indexing”.
    """
    values = {"n_1": before_rpm, "n_2": after_rpm, "n_max": top_rpm, "t_0": whole_s}
    return w.step("t_s", "Change of the spindle's speed", "abs(n_2 - n_1)/n_max*t_0", "s", MOVES, **values)

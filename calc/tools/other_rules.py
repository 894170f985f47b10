"""What speaks for and against drills, groovers, threading tools and blades; weights typical."""

from __future__ import annotations

import math
from typing import cast

import numpy as np

from calc.cuts.chip import Engaged, Metal, chip_of, forces_of
from calc.cuts.drilling import Drilled, drill_forces
from calc.cuts.part_off import REACH_SPARE_MM, width_for
from calc.many import MANY
from calc.quantities import Figure, Sentence
from calc.tools import turning_rules as turning
from calc.tools.choose import Array, Book, Columns, Job, Preference, Rule
from calc.tools.kinds.blade import Blade
from calc.tools.kinds.drill import Drill
from calc.tools.kinds.groove_insert import GrooveInsert
from calc.tools.kinds.holder import Holder
from calc.tools.kinds.thread_insert import ThreadInsert
from calc.tools.library import Tool
from calc.tools.turning_columns import coolant, none, points, stock, tough

BY_CODE = {r.code: r for r in turning.RULES}
GRADE, SHANK, TURRET, BAR_SEAT, SIDE = (BY_CODE[c] for c in ("grade", "shank", "turret", "bar-seat", "side"))
COOLANT = Preference(lambda c, j: 2.0 * c.of(coolant), lambda t, j: Sentence("coolant through it"), 2.0)
SHARP_GRADE = Preference(
    lambda c, j: 4 * (1 - np.abs(np.nan_to_num(tough(c, j), nan=25.0) - 25) / 30), lambda t, j: None
)
SAME_MM = 0.005


def _mm(x: float, rounding: str = "near") -> Figure:
    return Figure(x, "mm", rounding)  # type: ignore[arg-type]


# Drills


def size(t: Tool) -> float:
    """Drill's diameter [mm]."""
    return cast(Drill, t.edge).diameter_mm


def depth(t: Tool) -> float:
    """How deep it drills [mm]."""
    return cast(Drill, t.edge).reach_mm


def one(t: Tool) -> int:
    """A drill is one edge."""
    return 1


def least_feed(t: Tool) -> float:
    """Least feed [mm/rev]."""
    return cast(Drill, t.edge).feed_min


def _torque(d: Array, f: Array, j: Job) -> Array:
    """Torque [N·m] in solid at the least feed, of a drill of 140°."""
    one = Engaged(f / 2, d / 2, 0.0, 70.0)
    edge = forces_of(MANY, one, chip_of(MANY, one), Metal(j.kc11, j.mc))
    return drill_forces(MANY, edge.tangential, Drilled(d, 0.0, 140.0))[0]


DRILLING = Book(
    lambda lib: lib.drilling,
    (
        GRADE,
        Rule(
            "too-large",
            lambda c, j: c.of(size) > j.most_mm + 1e-9 if j.most_mm is not None else none(c),
            lambda t, j: Sentence(
                "Ø{a} is over the Ø{b} that print and machine allow",
                a=_mm(size(t), "up"),
                b=_mm(j.most_mm or 0, "down"),
            ),
        ),
        Rule(
            "too-short",
            lambda c, j: c.of(depth) < j.reach_mm - 1e-9,
            lambda t, j: Sentence(
                "it drills {a} deep, the hole is {b}", a=_mm(depth(t), "down"), b=_mm(j.reach_mm, "up")
            ),
        ),
        Rule(
            "torque",
            lambda c, j: _torque(c.of(size), c.of(least_feed), j) > j.torque_nm if j.torque_nm and j.kc11 else none(c),
            lambda t, j: Sentence(
                "even at its least feed it asks {a}; the spindle has {b}",
                b=Figure(j.torque_nm or 0, "N*m", "down"),
                a=Figure(float(_torque(np.array(size(t)), np.array(least_feed(t)), j)), "N*m", "up"),
            ),
        ),
    ),
    (
        Preference(
            lambda c, j: 30 * np.minimum(1.0, c.of(size) / j.most_mm) if j.most_mm else points(c),
            lambda t, j: Sentence("leaves {x} a side", x=_mm(max(0.0, ((j.most_mm or 0) - size(t)) / 2))),
        ),
        COOLANT,
        SHARP_GRADE,
    ),
    stock,
    one,
)

# Grooving


def width(t: Tool) -> float:
    """Width of the edge [mm]."""
    return cast(GrooveInsert, t.edge).width_mm


def corner(t: Tool) -> float:
    """Corner radius [mm]."""
    return cast(GrooveInsert, t.edge).corner_radius_mm


def plunge(t: Tool) -> float:
    """How deep it plunges [mm]."""
    carrier = t.carrier
    return (carrier.reach_mm if isinstance(carrier, (Blade, Holder)) else None) or math.inf


def groove_edges(t: Tool) -> int:
    """Edges of its insert."""
    return cast(GrooveInsert, t.edge).edges


def least_bore(t: Tool) -> float:
    """Least bore [mm] it goes into."""
    return getattr(t.carrier, "min_bore_mm", None) or 0.0


BORE = Rule(
    "bore",
    lambda c, j: c.of(least_bore) > (j.bore_mm or 0) + 1e-9 if j.side == "inside" else none(c),
    lambda t, j: Sentence(
        "it needs a bore of Ø{a}, there is Ø{b}", a=_mm(least_bore(t), "up"), b=_mm(j.bore_mm or 0, "down")
    ),
)

GROOVING = Book(
    lambda lib: lib.grooving,
    (
        SIDE,
        GRADE,
        SHANK,
        BAR_SEAT,
        TURRET,
        BORE,
        Rule(
            "too-wide",
            lambda c, j: c.of(width) > j.width_mm + SAME_MM if j.width_mm is not None else none(c),
            lambda t, j: Sentence("it is {a} wide, the groove {b}", a=_mm(width(t)), b=_mm(j.width_mm or 0)),
        ),
        Rule(
            "too-shallow",
            lambda c, j: c.of(plunge) < (j.stock_mm or 0) - 1e-9,
            lambda t, j: Sentence(
                "it plunges {a}, the groove is {b} deep", a=_mm(plunge(t), "down"), b=_mm(j.stock_mm or 0, "up")
            ),
        ),
        Rule(
            "corner",
            lambda c, j: c.of(corner) > j.corner_mm + 1e-9 if j.corner_mm is not None else none(c),
            lambda t, j: Sentence("its corner is {a}, the print allows {b}", a=_mm(corner(t)), b=_mm(j.corner_mm or 0)),
        ),
    ),
    (
        Preference(
            lambda c, j: 20 * c.of(width) / j.width_mm if j.width_mm else points(c),
            lambda t, j: (
                Sentence("as wide as the groove: one plunge")
                if abs(width(t) - (j.width_mm or 0)) <= SAME_MM
                else Sentence("{n} plunges side by side", n=str(math.ceil((j.width_mm or 0) / width(t))))
            ),
        ),
        COOLANT,
        SHARP_GRADE,
    ),
    stock,
    groove_edges,
)

# Threading


def angle(t: Tool) -> float:
    """Profile angle [deg]."""
    return cast(ThreadInsert, t.edge).angle_deg


def pitches(t: Tool) -> list[float]:
    """[from, to] of the pitch [mm]."""
    e = cast(ThreadInsert, t.edge)
    return [e.pitch_min_mm, e.pitch_max_mm]


def full(t: Tool) -> bool:
    """It finishes the crest too."""
    return cast(ThreadInsert, t.edge).profile == "full"


def thread_edges(t: Tool) -> int:
    """Edges of its insert."""
    return cast(ThreadInsert, t.edge).edges


def edge_side(t: Tool) -> bool:
    """The insert itself is for inside threads."""
    return cast(ThreadInsert, t.edge).side == "inside"


def _pitch(c: Columns, j: Job) -> Array:
    p, rows = j.pitch_mm or 0.0, c.of(pitches)
    return (rows[:, 0] > p + SAME_MM) | (rows[:, 1] < p - SAME_MM)


THREADING = Book(
    lambda lib: lib.threading,
    (
        SIDE,
        GRADE,
        SHANK,
        BAR_SEAT,
        TURRET,
        BORE,
        Rule(
            "edge-side",
            lambda c, j: c.of(edge_side) != (j.side == "inside"),
            lambda t, j: Sentence("its profile is for {a} threads", a="inside" if edge_side(t) else "outside"),
        ),
        Rule(
            "angle",
            lambda c, j: np.abs(c.of(angle) - j.angle_deg) > 1e-6,
            lambda t, j: Sentence(
                "its profile is {a}, the thread {b}", a=Figure(angle(t), "deg"), b=Figure(j.angle_deg, "deg")
            ),
        ),
        Rule(
            "pitch",
            _pitch,
            lambda t, j: Sentence(
                "it cuts pitches from {a} to {b}, the thread has {p}",
                a=_mm(pitches(t)[0]),
                b=_mm(pitches(t)[1]),
                p=Figure(j.pitch_mm or 0, "mm", places=(2, 4)),
            ),
        ),
    ),
    (
        Preference(
            lambda c, j: 15.0 * c.of(full), lambda t, j: Sentence("full profile: finishes crest, flank and root"), 5.0
        ),
        Preference(
            lambda c, j: np.where(c.of(full), 0.0, -3.0),
            lambda t, j: Sentence("partial profile: turn the crest to size before"),
            3.0,
        ),
        COOLANT,
        SHARP_GRADE,
    ),
    stock,
    thread_edges,
)

# Parting off


def is_blade(t: Tool) -> bool:
    """It is a blade in a block, not a one-piece groover."""
    return isinstance(t.carrier, Blade)


def block(t: Tool) -> float:
    """Square of its block or shank [mm]."""
    return t.carrier.shank_mm if t.carrier is not None else 0.0


def _wanted_reach(j: Job) -> float:
    return (j.stock_mm or 0.0) + REACH_SPARE_MM


def _width_points(c: Columns, j: Job) -> Array:
    usual = width_for(j.diameter_mm)
    return points(c) if usual is None else 12 - 6 * np.abs(c.of(width) - usual)


PARTING = Book(
    lambda lib: lib.parting,
    (
        GRADE,
        TURRET,
        Rule(
            "shank",
            lambda c, j: c.of(block) != j.shank_mm if j.shank_mm else none(c),
            lambda t, j: Sentence("its block is {a}, the turret takes {b}", a=_mm(block(t)), b=_mm(j.shank_mm or 0)),
        ),
        Rule(
            "reach",
            lambda c, j: c.of(plunge) < _wanted_reach(j) - 1e-9,
            lambda t, j: Sentence(
                "it hangs out {a} at most; past the centre takes {b}",
                a=_mm(plunge(t), "down"),
                b=_mm(_wanted_reach(j), "up"),
            ),
        ),
    ),
    (
        Preference(
            _width_points,
            lambda t, j: (
                Sentence("{w} wide: usual for Ø{d}", w=_mm(width(t)), d=_mm(j.diameter_mm))
                if width(t) == width_for(j.diameter_mm)
                else Sentence(
                    "{w} wide; {u} is usual for Ø{d}",
                    w=_mm(width(t)),
                    u=_mm(width_for(j.diameter_mm) or 0),
                    d=_mm(j.diameter_mm),
                )
            ),
            0.0,
        ),
        Preference(
            lambda c, j: 8.0 * c.of(is_blade),
            lambda t, j: Sentence("a blade in a block: an accident costs an edge, not the holder"),
            5.0,
        ),
        COOLANT,
        SHARP_GRADE,
    ),
    stock,
    groove_edges,
)

BOOKS: dict[str, Book] = {
    "turn": turning.TURNING,
    "face": turning.TURNING,
    "bore": turning.TURNING,
    "drill": DRILLING,
    "groove": GROOVING,
    "thread": THREADING,
    "part": PARTING,
}

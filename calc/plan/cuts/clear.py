"""How near each cut's tool comes to jaws, chuck and live centre, and whether what is gripped is there."""

from __future__ import annotations

from collections.abc import Iterator, Mapping
from dataclasses import dataclass
from functools import lru_cache

from shapely import unary_union
from shapely.affinity import scale, translate
from shapely.geometry.base import BaseGeometry
from shapely.ops import nearest_points

from calc.plan.cuts.carried import CARRIED, CarriedFigures, Left
from calc.plan.cuts.taken import CutShape
from calc.plan.hold.figures import HoldFigures
from calc.plan.hold.solve import HOLD
from calc.plan.hold.stand import Things, keep_out, things_of
from calc.plan.outcome import Asked, Solved
from calc.plan.sides.solve import is_bar_work
from calc.profile.half import FAR_MM, between, radii, rectangle, solid, thick
from calc.quantities import Bare, Figure
from calc.working import Note

KEPT = 1024  # tools in their places
SAME_MM = 0.05  # on radius: a gripped surface that is off by more is not the one that the jaws are bored for
CUT_MM = 0.02  # metal thinner than this is not taken from what is gripped

Point = tuple[float, float]


@dataclass(frozen=True, eq=False)
class Nearest:
    """The smallest distance [mm] of a cut's tool to something, and where: (z from the finished face, r)."""

    cut: CutShape
    what: str
    distance_mm: float
    tool: Point
    other: Point
    met_mm: float  # behind the finished face, from where on it is in the way


@dataclass(frozen=True, eq=False)
class ClearFigures:
    """Every cut's smallest distance, by the cut's id, and what is wrong."""

    nearest: Mapping[str, Nearest]
    by_cut: Mapping[str, tuple[Note, ...]]
    rest: tuple[Note, ...]
    meets: Mapping[str, float]  # diameter that really stands where a cut begins, where it is not the one planned
    left_from: tuple[float, ...]  # radii from which metal is left before the finished face

    @property
    def notes(self) -> tuple[Note, ...]:
        """All that is wrong, in the order of the cuts."""
        return (*(n for notes in self.by_cut.values() for n in notes), *self.rest)


def solve_clear(asked: Asked) -> ClearFigures:
    """Clearances of a set-up. Raises Waiting."""
    hold, carried = asked.need(HOLD), asked.need(CARRIED)
    around, second = things_of(hold), second_of(asked)
    nearest = {
        left.cut.id: _nearest(left.cut, around, second if left.cut.kind == "part" else None) for left in carried.cuts
    }
    least = asked.rules.clearance_mm
    by_cut = {}
    for left in carried.cuts:
        near = nearest[left.cut.id]
        too_near = (_too_near(near, least),) if near.distance_mm < least - 1e-6 else ()
        by_cut[left.cut.id] = (*left.notes, *too_near, *_gripped_is_cut(hold, left))
    rest = (*carried.notes, *_not_parted(asked, carried))
    meets = {left.cut.id: left.meets_mm for left in carried.cuts if left.meets_mm is not None}
    before_face = radii(carried.end, -FAR_MM, -CUT_MM)
    return ClearFigures(nearest, by_cut, rest, meets, (before_face[0],) if before_face else ())


def _not_parted(asked: Asked, carried: CarriedFigures) -> Iterator[Note]:
    """A bar that the second spindle takes hold of and nothing parts off."""
    taken = asked.index == 0 and asked.takes_over and is_bar_work(asked.document, 0)
    if taken and carried.cuts and not any(left.parts for left in carried.cuts):
        words = "Nothing parts the piece off, and the second spindle takes hold of it: put a parting cut in, last."
        yield Note("stop", "not-parted", words)


@dataclass(frozen=True)
class Second:
    """What holds the other end of a part of this length [mm] while it is parted off."""

    things: Things
    length: float

    def keep_out(self) -> dict[str, BaseGeometry]:
        """What the blade may not touch, seen from the side that is parted."""
        mine = keep_out(self.things)
        # Both look from their own finished face: one's z is the part's length less the other's.
        return {
            f"{name} of the second spindle": translate(scale(shape, -1.0, 1.0, origin=(0.0, 0.0)), self.length, 0.0)
            for name, shape in mine.items()
        }


def second_of(asked: Asked) -> Second | None:
    """What the second spindle holds the piece with while it is parted off; None where it does not, or not yet."""
    if asked.index != 0 or not asked.takes_over:
        return None
    hold = asked.every[1][HOLD]
    return Second(things_of(hold), hold.length_mm) if hold is not None else None


@lru_cache(maxsize=KEPT)
def _nearest(cut: CutShape, things: Things, second: Second | None = None) -> Nearest:
    swept = cut.swept()
    if swept.bounds[1] < 0:  # what reaches past the axis comes round to this side of it
        swept = unary_union([swept, scale(swept, 1.0, -1.0, origin=(0.0, 0.0))])
    bodies = keep_out(things) | (second.keep_out() if second is not None else {})
    name, shape = min(bodies.items(), key=lambda one: swept.distance(one[1]))
    here, there = nearest_points(swept, shape)
    into = swept.intersection(shape)
    met = cut.end if into.is_empty else into.bounds[0]
    return Nearest(cut, name, swept.distance(shape), (here.x, here.y), (there.x, there.y), met)


def _too_near(near: Nearest, least: float) -> Note:
    return Note(
        "stop",
        "hits-the-centre" if near.what == "the live centre" else "hits-the-jaws",
        "{name}: its tool runs into {what}: it goes to {end} behind the face, and meets metal from {met} on."
        if near.distance_mm <= 0
        else "{name}: its tool comes within {x} of {what}; {least} is the least.",
        name=near.cut.name,
        what=near.what,
        end=Figure(max(0.0, near.cut.end), "mm", "up"),
        met=Figure(max(0.0, near.met_mm), "mm", "down"),
        x=Figure(near.distance_mm, "mm", "down", (2, 3)),
        least=Figure(least, "mm"),
    )


def held_range(hold: HoldFigures) -> tuple[float, float]:
    """Where the jaws touch, from the finished face that is worked toward the chuck [mm]."""
    middle = hold.length_mm - hold.middle_mm
    return middle - hold.held_mm / 2, middle + hold.held_mm / 2


def _gripped_is_cut(hold: HoldFigures, left: Left) -> Iterator[Note]:
    z0, z1 = held_range(hold)
    wrong = thick(solid(between(left.taken, z0, z1).intersection(_surface(hold, z0, z1))), CUT_MM)
    if not wrong.is_empty and left.cut.kind != "thread":
        yield Note(
            "stop",
            "cuts-its-grip",
            "{name}: it takes metal from what is gripped here, Ø{d}. Cut it on another side, or grip something else.",
            name=left.cut.name,
            d=Bare(Figure(hold.grip.diameter_mm, "mm", exact=True, places=(2, 3))),
        )


def _surface(hold: HoldFigures, z0: float, z1: float) -> BaseGeometry:
    """The metal next to the gripped surface."""
    r = hold.grip.diameter_mm / 2
    skin = 10 * CUT_MM
    return rectangle(z0, z1, r - skin, r) if hold.side == "od" else rectangle(z0, z1, r, r + skin)


def missing_grip(hold: HoldFigures, carried: CarriedFigures) -> Iterator[Note]:
    """Whether what is gripped is there when the side begins."""
    if carried.assumed:
        return
    z0, z1 = held_range(hold)
    found = radii(carried.start, z0 + 1e-3, z1 - 1e-3)
    wanted = hold.grip.corners * hold.grip.diameter_mm / 2
    slack = SAME_MM + max(0.0, (hold.grip.largest_mm - hold.grip.smallest_mm) / 2)
    there = (found[1] if hold.side == "od" else found[0]) if found else 0.0
    if found is not None and abs(there - wanted) <= slack:
        return
    if hold.side == "id" and there <= 0:
        words = "Ø{d} is gripped inside and there is no bore when this side begins: bore it before."
    else:
        words = "Ø{d} is gripped and Ø{b} is what stands there when this side begins: make it before."
    yield Note(
        "stop",
        "grip-not-made",
        words,
        d=Bare(Figure(hold.grip.diameter_mm, "mm", exact=True, places=(2, 3))),
        b=Bare(Figure(2 * there, "mm", places=(2, 3))),
    )


def _find_gripped(asked: Asked) -> tuple[Note, ...]:
    hold, carried = asked.need(HOLD), asked.need(CARRIED)
    return tuple(missing_grip(hold, carried))


CLEAR = Solved("clear", "Cuts", solve_clear)
GRIPPED = Solved("gripped", "Hold", _find_gripped)

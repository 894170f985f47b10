"""What a tool beside the one that works runs into: it hangs out further, and comes round with the turret's edge."""

from __future__ import annotations

import math
from collections.abc import Iterator, Mapping, Sequence
from dataclasses import dataclass
from functools import lru_cache

from calc.plan.cuts.solve import CutFigures
from calc.plan.hold.figures import HoldFigures
from calc.plan.hold.stand import Things, keep_out, things_of
from calc.plan.route.edges import tool_of
from calc.plan.route.strikes import reach_of
from calc.profile.half import FAR_MM, rectangle
from calc.quantities import Figure
from calc.route.stations import Apart
from calc.shelf.machine import Machine
from calc.tools.kinds.drill import Drill
from calc.tools.kinds.holder import Holder
from calc.working import Note

HALF_MM = 10.0  # typical: half the width of a tool whose record says none
KEPT = 1024  # neighbours in their places


def off_axis(radius_mm: float, apart_deg: float, tip_mm: float) -> float:
    """How far [mm] from the spindle's axis the tip of another station stands while one works at a radius.

    Parameters
        radius_mm: from the turret's middle to the tips [mm, > 0]; apart_deg: between the stations [deg]
        tip_mm: radius at which the working tip stands [mm, >= 0]

    >>> round(off_axis(200.0, 30.0, 0.0), 2)
    103.53

    Reference: the chord where the tip stands on the axis, 2·R·sin(θ/2);
    derived in docs/method.md, “Stations of the turret”.
    """
    away = radius_mm + tip_mm
    angle = math.radians(apart_deg)
    return math.hypot(away - radius_mm * math.cos(angle), radius_mm * math.sin(angle))


def _half(cut: CutFigures) -> float:
    """Half the width [mm] of a cut's tool, as it stands out."""
    if cut.tool is None:
        return HALF_MM
    edge, carrier = cut.tool.edge, cut.tool.carrier
    if isinstance(edge, Drill):
        return edge.diameter_mm / 2
    return carrier.shank_mm / 2 if isinstance(carrier, Holder) else HALF_MM


@lru_cache(maxsize=KEPT)
def _met(things: Things, deep_mm: float, low_mm: float, high_mm: float) -> str:
    """What stands in the ring that a tool comes round in, so deep behind the face; empty: nothing."""
    ring = rectangle(-FAR_MM, deep_mm, max(0.0, low_mm), high_mm)
    return next((name for name, shape in keep_out(things).items() if shape.intersects(ring)), "")


@dataclass(frozen=True)
class Struck:
    """A tool that runs into something while a cut is made at the station beside its own: how much further it hangs
    out, how far off the axis it comes round [mm].
    """

    cut: CutFigures
    other: CutFigures
    over_mm: float
    away_mm: float
    what: str

    @property
    def pair(self) -> Apart:
        """The two tools."""
        return Apart(tool_of(self.cut), tool_of(self.other))

    def note(self, stations: Mapping[str, int]) -> Note:
        """In words."""
        words = (
            "While {short} works, the tool of {long} beside it, at station {n}, hangs out {x} further and comes round "
            "{r} from the axis: it runs into {what}. Leave a station free between them."
        )
        return Note(
            "caution",
            "neighbour-strikes",
            words,
            short=self.cut.name,
            long=self.other.name,
            n=str(stations[tool_of(self.other)]),
            x=Figure(self.over_mm, "mm", "up"),
            r=Figure(self.away_mm, "mm", "down"),
            what=self.what,
        )


def struck(cuts: Sequence[CutFigures], on_turret: Sequence[CutFigures], machine: Machine, of: Held) -> Iterator[Struck]:
    """Each pair of tools of which one would run into chuck or jaws beside the other, once.

    Parameters
        cuts: of one side; on_turret: all that the tools of its turret make; machine: where its record does not tell
            the turret's radius nothing is found
        of: what the side is held in, and the least clearance

    Reference: derived in docs/method.md, “Stations of the turret”.
    """
    radius = machine.turret_radius_mm
    if radius is None or machine.turret_stations < 2:
        return
    longest = {tool_of(c): c for c in sorted(on_turret, key=reach_of)}
    found: set[tuple[str, str]] = set()
    for cut in cuts:
        away = off_axis(radius, 360.0 / machine.turret_stations, _tip(cut))
        for tool, other in longest.items():
            over, pair = reach_of(other) - reach_of(cut), (tool_of(cut), tool)
            if over <= 0 or tool == tool_of(cut) or pair in found:
                continue
            half, deep = _half(other) + of.clear_mm, _end(cut) + over + of.clear_mm
            what = _met(of.things, round(deep, 3), round(away - half, 3), round(away + half, 3))
            if what:
                found.add(pair)
                yield Struck(cut, other, over, away, what)


@dataclass(frozen=True)
class Held:
    """What stands around a side, and the least clearance [mm] from it."""

    things: Things
    clear_mm: float

    @classmethod
    def of(cls, hold: HoldFigures, clear_mm: float) -> Held:
        """What stands around a hold."""
        return cls(things_of(hold), clear_mm)


def side_by_side(stations: Mapping[str, int], pair: Apart, many: int) -> bool:
    """Two tools stand at stations next to each other."""
    apart = (stations[pair.one] - stations[pair.other]) % many
    return min(apart, many - apart) == 1


def _tip(cut: CutFigures) -> float:
    """The least radius [mm] at which a cut's tip stands."""
    return min(cut.planned.from_diameter_mm or 0.0, cut.planned.to_diameter_mm or 0.0) / 2


def _end(cut: CutFigures) -> float:
    """How far [mm] behind the face it goes."""
    return 0.0 if cut.planned.kind == "face" else cut.planned.start_mm + cut.length_mm

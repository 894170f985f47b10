"""The thin wall in a set-up: out-of-round at the planned grip, and the most that the wall stands."""

from __future__ import annotations

import math
from collections.abc import Iterator
from dataclasses import dataclass, fields
from functools import lru_cache

from calc.errors import CalcError
from calc.plan.cuts.carried import CarriedFigures
from calc.plan.cuts.clear import held_range
from calc.plan.hold.figures import HoldFigures
from calc.plan.part.solve import PartFigures
from calc.profile.half import wall
from calc.profile.steps import TurnedStep
from calc.quantities import Figure
from calc.walls.contact import WallContactInput
from calc.walls.crushing import EVEN_SPREAD_MM, CrushingInput, CrushingResult, crushing
from calc.walls.lobing import Lobing, WallLobingInput, lobing
from calc.walls.ring import GrippedRing
from calc.working import Note

ANY_ROUND_MM = 0.02  # typical: what is asked where the print asks nothing
KEPT = 256  # walls
EDGE_MM = 1e-3  # a wall is looked at just inside the grip
STIFF_MM = 0.0005  # less than half a micrometre is told as round


@dataclass(frozen=True)
class WallFigures:
    """The wall as it is squeezed, what is allowed and where that comes from, the grip it stands [N]."""

    lobing: Lobing
    given: WallLobingInput
    crushing: CrushingResult
    allowed_mm: float | None
    allowed_from: str
    notes: tuple[Note, ...]

    @property
    def limit_n(self) -> float | None:
        """The largest grip, sum over all jaws, that the wall allows, by its shape and its proof stress; None where
        neither asks anything of it.
        """
        known = [n for n in (self.lobing.max_grip_n, self.crushing.max_grip_n) if n is not None]
        return min(known, default=None)

    def contact_input(self, jaw_diameter_mm: float) -> WallContactInput:
        """The same wall for the real contact, in jaws bored to another size."""
        wall = {f.name: getattr(self.given, f.name) for f in fields(GrippedRing)}
        return WallContactInput(**wall, jaw_diameter_mm=jaw_diameter_mm)


FINISHES_MM = 0.01  # a cut that ends this near a step's nominal finishes it
Made = frozenset[tuple[str, float]]  # kind and end diameter of every cut of a side


def _opposite(part: PartFigures, hold: HoldFigures) -> list[TurnedStep]:
    """The steps opposite the grip: the bore of an outside grip, the outside of an inside one."""
    body, grip = part.body, hold.grip
    start, end = (grip.offset_mm, grip.plain_mm)
    if hold.held_end == "b":
        start, end = body.length_mm - end, body.length_mm - start
    if grip.side == "id":
        over = [s.step for s in body.outside if s.end > start and s.start < end]
    else:
        over = [s.step for s in body.inside if s.end > start and s.start < end]
        over += [s.step for s in body.inside_b if body.length_mm - s.start > start and body.length_mm - s.end < end]
    return over


def allowed_of(part: PartFigures, hold: HoldFigures, made: Made, share: float) -> tuple[float | None, str]:
    """(out-of-round allowed [mm], where it comes from) at a share of the tolerance.

    Only a wall that is finished while it is held comes out of round.
    """
    kind = "bore" if hold.side == "od" else "turn"
    said = "a third" if abs(share - 1 / 3) < 1e-6 else f"{100 * share:.3g} %"
    steps = [
        s
        for s in _opposite(part, hold)
        if any(k == kind and abs(d - (s.diameter_mm or 0.0)) <= FINISHES_MM for k, d in made)
    ]
    if not steps:
        return None, "nothing opposite the grip is finished on this side"
    if part.roundness_mm is not None:
        return part.roundness_mm * share, f"{said} of the roundness"
    widths = {s.name: limits[1] - limits[0] for s in steps if (limits := s.limits_mm) and limits[1] > limits[0]}
    if not widths:
        return ANY_ROUND_MM, "typical where the print gives no roundness or limits"
    name = min(widths, key=lambda n: widths[n])
    return widths[name] * share, f"{said} of the limits of {name}"


@lru_cache(maxsize=KEPT)
def _thinnest(carried: CarriedFigures, z0: float, z1: float) -> tuple[float, float] | None:
    return wall(carried.end, z0 + EDGE_MM, z1 - EDGE_MM)


def standing_wall(hold: HoldFigures, carried: CarriedFigures) -> tuple[float, float] | None:
    """(inside, outside) diameter [mm] of the wall in the grip once this side's cuts are done; None where it is solid.

    Cuts only take metal: what they leave is the thinnest that the jaws press on.
    """
    found = _thinnest(carried, *held_range(hold))
    if found is None:
        return None
    inner, outer = (2 * r for r in found)
    if hold.side == "od":
        outer = hold.grip.diameter_mm
    else:
        inner = hold.grip.diameter_mm
    return (inner, outer) if 0 < inner < outer else None


def wall_input(
    part: PartFigures, hold: HoldFigures, sizes: tuple[float, float], grip_n: float, allowed: float | None
) -> WallLobingInput | None:
    """The wall that is there, in the grip; None where it is none that can be computed."""
    inner, outer = sizes
    # Half a wall beyond the grip carries with it (typical), as far as there is part: one side ends at the face.
    length = min(hold.length_mm, hold.held_mm + (outer - inner) / 4)
    m = part.material
    try:
        return WallLobingInput(
            grip_n,
            hold.side,
            outer,
            inner,
            length,
            m.modulus_gpa,
            m.poisson,
            hold.chuck.jaws,
            min(hold.wrap_deg, 360 / hold.chuck.jaws),
            allowed,
        )
    except CalcError:
        return None


def crushing_input(part: PartFigures, hold: HoldFigures, sizes: tuple[float, float], grip_n: float) -> CrushingInput:
    """The same wall against its proof stress."""
    inner, outer = sizes
    z0, z1 = held_range(hold)
    beside = math.sqrt((outer + inner) / 4 * (outer - inner) / 2)
    length = hold.held_mm + min(beside, max(0.0, z0)) + min(beside, max(0.0, hold.length_mm - z1))
    spread = hold.grip.largest_mm - hold.grip.smallest_mm
    return CrushingInput(
        grip_n,
        hold.side,
        outer,
        inner,
        length,
        hold.chuck.jaws,
        min(hold.wrap_deg, 360 / hold.chuck.jaws),
        part.material.proof_n_mm2,
        uneven=spread > EVEN_SPREAD_MM or (not hold.grip.finished and part.stock.surface == "rough"),
    )


@dataclass(frozen=True)
class Walled:
    """The wall of a set-up: part, hold, what its cuts leave, and which cuts make it."""

    part: PartFigures
    hold: HoldFigures
    carried: CarriedFigures
    made: Made
    share: float


def solve_wall(given: Walled, grip_n: float) -> WallFigures | None:
    """The wall at a grip [N over all jaws]; None where the part is solid."""
    part, hold = given.part, given.hold
    sizes = standing_wall(hold, given.carried)
    if sizes is None or grip_n <= 0:
        return None
    allowed, why = allowed_of(part, hold, given.made, given.share)
    pressed = wall_input(part, hold, sizes, grip_n, allowed)
    if pressed is None:
        return None
    found, pressed_to = lobing(pressed), crushing(crushing_input(part, hold, sizes, grip_n))
    notes = [*_shape_notes(found, allowed, why), *pressed_to.notes]
    if part.material.proof_n_mm2 is None:
        words = "{m} has no proof stress on its record: whether the jaws crush the wall is not known."
        notes.append(Note("caution", "crushing-unknown", words, m=part.material.name))
    return WallFigures(found, pressed, pressed_to, allowed, why, tuple(notes))


def _shape_notes(found: Lobing, allowed: float | None, why: str) -> Iterator[Note]:
    out = Figure(found.out_of_round_mm, "mm", "up", (3, 4))
    if allowed is None:
        if found.out_of_round_mm > STIFF_MM:
            yield Note("info", "wall-moves", "The wall moves {x} under the jaws; {why}.", why=why, x=out)
    elif found.out_of_round_mm > allowed * (1 + 1e-9):
        yield Note(
            "stop",
            "wall-limit",
            "The wall would come out {x} out of round; {a} is allowed, {why}. It stands a grip of {f}.",
            x=out,
            a=Figure(allowed, "mm", "down", (3, 4)),
            why=why,
            f=Figure(found.max_grip_n or 0.0, "N", "down"),
        )
    for note in found.notes:
        if note.code == "wide-wrap" or (note.code == "three-lobes" and found.out_of_round_mm > STIFF_MM):
            yield note

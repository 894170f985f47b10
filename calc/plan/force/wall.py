"""The thin wall in a set-up: out-of-round at the planned grip, and the most that the wall stands."""

from __future__ import annotations

from dataclasses import dataclass, fields

from calc.errors import CalcError
from calc.plan.hold.solve import HoldFigures
from calc.plan.part.solve import PartFigures
from calc.profile.steps import TurnedStep
from calc.quantities import Figure
from calc.walls.contact import WallContactInput
from calc.walls.lobing import Lobing, WallLobingInput, lobing
from calc.walls.ring import GrippedRing
from calc.working import Note

STIFF_MM = 0.0005  # less than half a micrometre is told as round


@dataclass(frozen=True)
class WallFigures:
    """The wall as it is squeezed, what is allowed and where that comes from, the grip it stands [N]."""

    lobing: Lobing
    given: WallLobingInput
    allowed_mm: float | None
    allowed_from: str
    notes: tuple[Note, ...]

    @property
    def limit_n(self) -> float | None:
        """The largest grip, sum over all jaws, that the wall allows; None where nothing is asked of it."""
        return self.lobing.max_grip_n

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
        return None, "the print gives no roundness or limits to hold it against"
    name = min(widths, key=lambda n: widths[n])
    return widths[name] * share, f"{said} of the limits of {name}"


def wall_input(part: PartFigures, hold: HoldFigures, grip_n: float, allowed: float | None) -> WallLobingInput | None:
    """The finished wall in the grip; None where the part is solid there."""
    grip = hold.grip
    if grip.solid or (grip.wall_mm >= grip.diameter_mm / 2 * (1 - 1e-9) and grip.side == "od"):
        return None
    outside = grip.side == "od"
    inner, outer = (
        (grip.diameter_mm - 2 * grip.wall_mm, grip.diameter_mm)
        if outside
        else (grip.diameter_mm, grip.diameter_mm + 2 * grip.wall_mm)
    )
    if inner <= 0 or grip.wall_mm <= 0:
        return None
    # Half a wall beyond the grip carries with it (typical), as far as there is part: one side ends at the face.
    length = min(part.length_mm, hold.held_mm + grip.wall_mm / 2)
    m = part.material
    try:
        return WallLobingInput(
            grip_n,
            grip.side,
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


def solve_wall(part: PartFigures, hold: HoldFigures, grip_n: float, made: Made, share: float) -> WallFigures | None:
    """The wall at a grip [N over all jaws], `made` by these cuts, allowed this share of its tolerance; None where the
    part is solid.
    """
    allowed, why = allowed_of(part, hold, made, share)
    given = wall_input(part, hold, grip_n, allowed)
    if given is None or grip_n <= 0:
        return None
    found = lobing(given)
    notes = []
    if allowed is None:
        if found.out_of_round_mm > STIFF_MM:
            notes.append(
                Note(
                    "info",
                    "wall-moves",
                    "The wall moves {x} under the jaws; {why}.",
                    why=why,
                    x=Figure(found.out_of_round_mm, "mm", "up", (3, 4)),
                )
            )
    elif found.out_of_round_mm > allowed * (1 + 1e-9):
        notes.append(
            Note(
                "stop",
                "wall-limit",
                "The wall would come out {x} out of round; {a} is allowed, {why}. It stands a grip of {f}.",
                x=Figure(found.out_of_round_mm, "mm", "up", (3, 4)),
                a=Figure(allowed, "mm", "down", (3, 4)),
                why=why,
                f=Figure(found.max_grip_n or 0.0, "N", "down"),
            )
        )
    notes += [
        n
        for n in found.notes
        if n.code == "wide-wrap" or (n.code == "three-lobes" and found.out_of_round_mm > STIFF_MM)
    ]
    return WallFigures(found, given, allowed, why, tuple(notes))

"""Keep, refit or re-cut: what a jaw set that was used before can do for a plan."""

from __future__ import annotations

from dataclasses import dataclass
from typing import Literal

from calc.quantities import Figure, Sentence
from calc.terms import Side
from calc.working import Step, Working, derived

KEEP = derived("Re-cutting a jaw set")
SAME_MM = 0.02  # a bore this near, on diameter, is the bore wanted
TYPICAL_REMOVAL_MM = 0.15  # typical, per side, of one re-cut
Verdict = Literal["refit", "recut", "unfit"]


@dataclass(frozen=True)
class SetState:
    """A set as it is now; sizes in mm, `damage_mm` and `wall_left_mm` per side."""

    side: Side
    bored_mm: float
    depth_mm: float
    tooth: int | None
    same_chuck: bool
    marked: bool
    lent_to: str
    damage_mm: float
    wall_left_mm: float


@dataclass(frozen=True)
class Wanted:
    """What a plan asks of it [mm]; `travel_mm` is what the jaws can close on diameter."""

    side: Side
    bore_mm: float
    depth_mm: float
    tooth: int
    travel_mm: float
    limit_mm: float


@dataclass(frozen=True)
class Keep:
    """The verdict with its reasons; for a re-cut the size to clamp on, what comes off, how many are left."""

    verdict: Verdict
    reasons: tuple[Sentence, ...]
    clamp_mm: float | None
    removal_mm: float | None
    recuts_left: int | None
    steps: tuple[Step, ...]


def _against_refit(state: SetState, wanted: Wanted) -> list[Sentence]:
    found = []
    if not state.same_chuck:
        found.append(Sentence("it was bored on another chuck"))
    if state.lent_to:
        found.append(Sentence("it was mounted on {m} since it was cut", m=state.lent_to))
    if not state.marked:
        found.append(Sentence("its jaws or its tooth are not marked"))
    elif state.tooth != wanted.tooth:
        found.append(
            Sentence("it was bored in tooth {a}, the plan mounts in {b}", a=str(state.tooth), b=str(wanted.tooth))
        )
    if state.damage_mm > 0:
        found.append(Sentence("marks {d} deep", d=Figure(state.damage_mm, "mm", "up")))
    if abs(state.bored_mm - wanted.bore_mm) > SAME_MM:
        found.append(
            Sentence("it is bored to Ø{a}, not Ø{b}", a=Figure(state.bored_mm, "mm"), b=Figure(wanted.bore_mm, "mm"))
        )
    if state.depth_mm < wanted.depth_mm - 0.05:
        found.append(
            Sentence(
                "its pocket is {a} deep, not {b}",
                a=Figure(state.depth_mm, "mm", "down"),
                b=Figure(wanted.depth_mm, "mm"),
            )
        )
    return found


def keep_or_recut(state: SetState, wanted: Wanted) -> Keep:
    """What a jaw set can do for a plan: refit without cutting, be re-cut, or not serve.

    Validity
        A set is refitted only on its own chuck, in its own teeth, marked, undamaged and not mounted
        elsewhere since; then runout is checked. A re-cut clamps outside jaws below, inside jaws above
        the size wanted, so that the damage comes out, and needs wall for it. Re-cuts left: wall ÷ removal.
    """
    against = _against_refit(state, wanted)
    if state.side != wanted.side:
        return Keep("unfit", (Sentence("it grips the other way"),), None, None, None, ())
    if not against:
        left = int((state.wall_left_mm + 1e-9) // TYPICAL_REMOVAL_MM)
        return Keep(
            "refit", (Sentence("same chuck, same teeth, marked, no damage: check runout"),), None, None, left, ()
        )
    w = Working()
    removal = w.step("a", "To take off, per side", "max(d, a_t)", "mm", KEEP, d=state.damage_mm, a_t=TYPICAL_REMOVAL_MM)
    clamp = w.step(
        "D_c",
        "Jaws stand at, clamped",
        "D - 2*a" if wanted.side == "od" else "D + 2*a",
        "mm",
        KEEP,
        D=wanted.bore_mm,
        a=removal,
    )
    left = int((state.wall_left_mm + 1e-9) // removal)
    off = abs(clamp - state.bored_mm)
    if removal > wanted.limit_mm + 1e-9:
        why = Sentence(
            "its marks are {d} deep and {m} is the most to take",
            d=Figure(state.damage_mm, "mm", "up"),
            m=Figure(wanted.limit_mm, "mm", "down"),
        )
    elif left < 1:
        why = Sentence(
            "{x} of wall is left and a re-cut takes {a}: it is at its end",
            x=Figure(state.wall_left_mm, "mm", "down"),
            a=Figure(removal, "mm", "up"),
        )
    elif state.same_chuck and state.tooth == wanted.tooth and off > wanted.travel_mm + 1e-9:
        why = Sentence(
            "the jaws move {t} and would have to move {o}",
            t=Figure(wanted.travel_mm, "mm", "down"),
            o=Figure(off, "mm", "up"),
        )
    else:
        return Keep("recut", tuple(against), clamp, removal, left, tuple(w.steps))
    return Keep("unfit", (why, *against), clamp, removal, left, tuple(w.steps))

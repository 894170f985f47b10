"""What the cuts ask of a live centre: that it stays in its hole, and that its bearing carries the thrust."""

from __future__ import annotations

from collections.abc import Iterator

from calc.chuck.centre import centre_thrust
from calc.plan.cuts.solve import CUTS, CutFigures
from calc.plan.outcome import Asked
from calc.plan.part.solve import PART
from calc.quantities import Figure
from calc.working import Note, Working

NOT_GIVEN = {
    "thrust": "How hard the live centre is pressed is not given at Hold: whether it stays in, and whether its bearing "
    "carries that, is not checked.",
    "limit": "What the live centre of {m} carries is not on its record: its thrust is not checked.",
}


def pulls_n(cut: CutFigures) -> float:
    """What a cut pushes the part onto the centre with [N]."""
    return cut.axial_n if cut.planned.feeds_away else 0.0


def lifts_n(cut: CutFigures) -> float:
    """The thrust that keeps a live centre in its hole under a cut [N]."""
    across = (0.0, 0.0) if cut.torque_only else (cut.tangential_n, cut.radial_n)
    return centre_thrust(Working(), *across, pulls_n(cut))


def centre_notes(asked: Asked) -> Iterator[Note]:
    """What is wrong, or not known, about a live centre's thrust; nothing without a centre. Raises Waiting."""
    hold, machine, cuts = asked.setup.hold, asked.need(PART).machine, asked.need(CUTS).cuts
    if not hold.live_centre:
        return
    thrust = hold.centre_thrust_n
    if thrust is None:
        yield Note("caution", "centre-thrust-unknown", NOT_GIVEN["thrust"])
        return
    worst = max(cuts, key=lifts_n)
    if lifts_n(worst) > thrust * (1 + 1e-9):
        yield Note(
            "stop",
            "centre-lifts",
            "{name} pushes the live centre out of its hole with {x}; it is pressed with {t}. Press it harder, or cut "
            "less.",
            name=worst.name,
            x=Figure(lifts_n(worst), "N", "up"),
            t=Figure(thrust, "N", "down"),
        )
    most = thrust + max(pulls_n(c) for c in cuts)
    if machine.centre_n is None:
        yield Note("caution", "centre-limit-unknown", NOT_GIVEN["limit"], m=machine.name)
    elif most > machine.centre_n * (1 + 1e-9):
        yield Note(
            "stop",
            "centre-overloaded",
            "The live centre of {m} carries {limit} along the axis; it is pressed with {x}. Press it less.",
            m=machine.name,
            limit=Figure(machine.centre_n, "N", "down"),
            x=Figure(most, "N", "up"),
        )

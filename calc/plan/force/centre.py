"""What the cuts ask of a live centre: that it stays in its hole, and that its bearing carries the thrust."""

from __future__ import annotations

from collections.abc import Iterator

from calc.chuck.centre import centre_thrust
from calc.plan.cuts.solve import CUTS, CutFigures
from calc.plan.outcome import Asked
from calc.plan.part.solve import PART
from calc.quantities import Figure
from calc.rules import Rules
from calc.working import Note, Working


def pulls_n(cut: CutFigures) -> float:
    """What a cut pushes the part onto the centre with [N]."""
    return cut.axial_n if cut.planned.feeds_away else 0.0


def lifts_n(cut: CutFigures, rules: Rules) -> float:
    """The thrust that keeps a live centre in its hole under a cut as heavy as the worst credible corner has it [N]."""
    across = (0.0, 0.0) if cut.torque_only else (cut.tangential_n, cut.radial_n)
    return rules.heavier * centre_thrust(Working(), *across, pulls_n(cut))


def centre_notes(asked: Asked) -> Iterator[Note]:
    """What is wrong, or not known, about a live centre's thrust; nothing without a centre. Raises Waiting."""
    hold, machine, cuts = asked.setup.hold, asked.need(PART).machine, asked.need(CUTS).cuts
    if not hold.live_centre:
        return
    thrust = hold.centre_thrust_n
    if thrust is None:
        # Tilt and side force are given to the centre: nobody stands beside one that is pressed with who knows what.
        yield Note(
            "stop",
            "centre-thrust-unknown",
            "How hard the live centre is pressed is not known: give it at Hold, from the tailstock's own chart.",
        )
        return
    rules = asked.rules
    worst = max(cuts, key=lambda cut: lifts_n(cut, rules))
    least = lifts_n(worst, rules)
    if least > thrust * (1 + 1e-9):
        yield Note(
            "stop",
            "centre-lifts",
            "{name} can push the live centre out of its hole with {x}; it is pressed with {t}. Press it harder, or "
            "cut less.",
            name=worst.name,
            x=Figure(least, "N", "up"),
            t=Figure(thrust, "N", "down"),
        )
    most = thrust + rules.heavier * max(pulls_n(c) for c in cuts)
    if machine.centre_n is None:
        words = "What the live centre of {m} carries is not on its record: its thrust is not checked."
        yield Note("caution", "centre-limit-unknown", words, m=machine.name)
    elif most > machine.centre_n * (1 + 1e-9):
        yield Note(
            "stop",
            "centre-overloaded",
            "The live centre of {m} carries {limit} along the axis; it is pressed with {x}. Press it less.",
            m=machine.name,
            limit=Figure(machine.centre_n, "N", "down"),
            x=Figure(most, "N", "up"),
        )

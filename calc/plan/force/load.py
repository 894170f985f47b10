"""What a cut asks of the grip, as a load on the part."""

from __future__ import annotations

from calc.chuck.demand import CutLoad
from calc.plan.cuts.solve import CutFigures
from calc.plan.hold.figures import HoldFigures
from calc.plan.hold.inputs import Hold

# A blade or a threading edge is pushed aside either way: what no seat carries is counted.
SIDEWAYS = ("groove", "part", "thread")


def is_loose(hold: HoldFigures, entered: Hold) -> bool:
    """Nothing seats the part: a bar goes on behind the jaws, so no floor carries it."""
    return entered.seat == "none" or hold.stick_out_mm is not None


def pressed_n(hold: HoldFigures, entered: Hold) -> float:
    """What of a live centre's thrust the jaws hold [N]: all of it where nothing seats the part, else nothing."""
    thrust = entered.centre_thrust_n if entered.live_centre else None
    return thrust if thrust is not None and is_loose(hold, entered) else 0.0


def load_of(c: CutFigures, hold: HoldFigures, entered: Hold) -> CutLoad:
    """What a cut asks of the grip.

    The overhang runs from the middle of the grip to the worked face with its stock, for every
    cut: the farthest any of them can be. Axial force counts against slipping where nothing seats
    the part, or where the feed pulls it off its seat; so does the thrust of a live centre that no seat takes.
    """
    unseated = is_loose(hold, entered) or c.planned.feeds_away or c.planned.kind in SIDEWAYS
    return CutLoad(
        name=c.name,
        tangential_n=c.tangential_n,
        axial_n=c.axial_n,
        radial_n=c.radial_n,
        cut_diameter_mm=c.diameter_mm,
        overhang_mm=hold.overhang_mm,
        unseated_axial_n=(c.axial_n if unseated else 0.0) + pressed_n(hold, entered),
        torque_only=c.torque_only,
    )

"""What a cut asks of the grip, as a load on the part."""

from __future__ import annotations

from calc.chuck.demand import CutLoad
from calc.plan.cuts.solve import CutFigures
from calc.plan.hold.figures import HoldFigures

# A blade or a threading edge is pushed aside either way: what no seat carries is counted.
SIDEWAYS = ("groove", "part", "thread")


def load_of(c: CutFigures, hold: HoldFigures, seat: str) -> CutLoad:
    """What a cut asks of the grip.

    The overhang runs from the middle of the grip to the worked face with its stock, for every
    cut: the farthest any of them can be. Axial force counts against slipping where nothing seats
    the part, or where the feed pulls it off its seat.
    """
    loose = seat == "none" or hold.stick_out_mm is not None  # a bar goes on behind the jaws: no floor carries it
    unseated = loose or (c.planned.kind != "face" and c.planned.feeds == "away") or c.planned.kind in SIDEWAYS
    return CutLoad(
        name=c.name,
        tangential_n=c.tangential_n,
        axial_n=c.axial_n,
        radial_n=c.radial_n,
        cut_diameter_mm=c.diameter_mm,
        overhang_mm=hold.overhang_mm,
        unseated_axial_n=c.axial_n if unseated else 0.0,
        torque_only=c.torque_only,
    )

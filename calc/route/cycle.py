"""The cycle of a piece on one spindle or two, and the time of a run."""

from __future__ import annotations

from dataclasses import dataclass
from typing import Literal

from calc.working import Working, derived

CYCLE = derived("The cycle of a piece")
RUN = derived("The run")
SETTING_UP = derived("Setting up")
MONEY = derived("What a piece costs")
BY_CALENDAR = derived("By the shop's clock")
Lanes = Literal["one", "in-turn", "together"]


@dataclass(frozen=True)
class Pieces:
    """Time of a piece by where it passes [s]: the main side without its part-off, the part-off, the other side, and
    the transfer between the two spindles.
    """

    main: float
    part_off: float
    other: float
    transfer: float


def cycle_seconds(w: Working, lanes: Lanes, of: Pieces) -> float:
    """Time [s] from one finished piece to the next.

    "one": one spindle, sides after one another or none; "in-turn": two spindles and one turret; "together": two
    spindles, each with a turret, where both hold the piece while it is parted off.

    >>> of = Pieces(60, 8, 45, 6)
    >>> cycle_seconds(Working(), "together", of), cycle_seconds(Working(), "in-turn", of)
    (74.0, 119.0)

    Reference: derived in docs/method.md, “The cycle of a piece”.
    """
    values = {"t_m": of.main, "t_p": of.part_off, "t_o": of.other, "t_v": of.transfer}
    if lanes == "together":
        return w.step(
            "t_c", "One piece every: both lanes at work at once", "max(t_m, t_o) + t_v + t_p", "s", CYCLE, **values
        )
    return w.step("t_c", "One piece every: all after one another", "t_m + t_p + t_v + t_o", "s", CYCLE, **values)


def run_minutes(w: Working, cycle_s: float, pieces: int, used: float, stops_min: float) -> float:
    """Machine time [min] of a run: `used` the share of the time that the machine really runs (0…1), `stops_min` what
    edges and bars take to change.

    >>> run_minutes(Working(), 60.0, 850, 0.85, 40.0)
    1040.0

    Reference: derived in docs/method.md, “The run”.
    """
    values = {"t_c": cycle_s, "N_m": float(pieces), "u": used, "t_x": stops_min}
    return w.step("t_r", "Machine time of the run", "t_c*N_m/(60*u) + t_x", "min", RUN, **values)


def run_minutes_seen(w: Working, seen_s: float, pieces: int) -> float:
    """Machine time [min] of a run whose pieces were seen to come every `seen_s` seconds, all stops in it.

    >>> run_minutes_seen(Working(), 90.0, 200)
    300.0

    Reference: derived in docs/method.md, “The run”.
    """
    return w.step("t_r", "Machine time of the run, as seen", "t_s*N_m/60", "min", RUN, t_s=seen_s, N_m=float(pieces))


def piece_cost(w: Working, minutes: float, edges: int, price: tuple[float, float], good: int) -> float:
    """What a good piece costs, in the shop's money: the minutes of set-up and run, and the edges, over the good pieces.

    `price`: of a minute, and of an edge.

    >>> round(piece_cost(Working(), 600.0, 20, (1.5, 4.0), 200), 3)
    4.9

    Reference: derived in docs/method.md, “What a piece costs”.
    """
    values = {"t_c": minutes, "C_m": price[0], "z": float(edges), "C_e": price[1], "N": float(good)}
    return w.step("C_p", "A good piece costs", "(t_c*C_m + z*C_e)/N", "", MONEY, **values)

"""The spindle in a cut: how fast it turns, what it has, what a cut asks of it."""

from __future__ import annotations

from dataclasses import dataclass
from typing import Generic

from calc.working import BOOK, N, Source, Steps, derived

DRIVE_EFFICIENCY = 0.8  # typical: power at the edge over power at the motor
KIENZLE = Source("standard", "Kienzle; terms of ISO 3002")
TURNS = derived("Facing and parting off")
SPINDLE = derived("What the spindle has")
LEAST_MM = 1e-6  # at the centre itself no speed is defined


@dataclass(frozen=True, eq=False)
class Turning(Generic[N]):
    """How a spindle is driven: constant surface speed [m/min], or a fixed rpm, never above `cap` [rpm]."""

    speed: N | None
    rpm: float | None
    cap: N | float


def turns(w: Steps[N], drive: Turning[N], diameter: N | float) -> N:
    """The spindle's speed [rpm] at a diameter [mm].

    >>> from calc.working import Working
    >>> round(turns(Working(), Turning(157.0796, None, 5000), 100.0)), turns(Working(), Turning(None, 800, 500), 100.0)
    (500, 500.0)

    Reference: n = v/(π·d).
    """
    if drive.rpm is not None:
        return w.step("n", "Spindle speed", "min(n_max, n_e)", "rpm", TURNS, n_max=drive.cap, n_e=drive.rpm)
    return w.step(
        "n",
        "Spindle speed",
        "min(n_max, 1000*v / (pi*max(d, d_0)))",
        "rpm",
        TURNS,
        n_max=drive.cap,
        v=drive.speed,
        d=diameter,
        d_0=LEAST_MM,
    )


def motor_power(w: Steps[N], tangential: N, speed: N, efficiency: float = DRIVE_EFFICIENCY) -> N:
    """Power at the motor [kW] of a tangential force [N] at a surface speed [m/min]; efficiency 0…1 of the drive.

    >>> from calc.working import Working
    >>> motor_power(Working(), 2000.0, 120.0)
    5.0

    Reference: P = F·v.
    """
    return w.step("P", "Power at the motor", "F_t*v / 60000 / η", "kW", KIENZLE, F_t=tangential, v=speed, η=efficiency)


def spindle_torque(w: Steps[N], tangential: N, diameter: N | float) -> N:
    """Torque at the spindle [N·m] of a tangential force [N] at a diameter [mm].

    >>> from calc.working import Working
    >>> spindle_torque(Working(), 2000.0, 100.0)
    100.0

    Reference: M = F·d/2.
    """
    return w.step("M", "Torque at the spindle", "F_t*d / 2000", "N*m", KIENZLE, F_t=tangential, d=diameter)


def spindle_has(w: Steps[N], power_kw: float, torque_nm: float, rpm: N) -> tuple[N, N]:
    """(power [kW], torque [N·m]) that a spindle has at a speed [rpm]: constant torque below base speed.

    >>> from calc.working import Working
    >>> tuple(round(x, 2) for x in spindle_has(Working(), 15, 200, 358.0986))
    (7.5, 200.0)

    Reference: derived in docs/method.md, “What the spindle has”.
    """
    values = {"P_max": power_kw, "M_max": torque_nm, "n": rpm}
    power = w.step("P_av", "Power there is at this speed", "min(P_max, M_max * 2*pi*n / 60000)", "kW", BOOK, **values)
    torque = w.step(
        "M_av", "Torque there is at this speed", "min(M_max, 60000*P_max / (2*pi*n))", "N*m", SPINDLE, **values
    )
    return power, torque

"""The highest speed at which a chuck still holds: calculator `speed-limit`."""

from __future__ import annotations

import math
from dataclasses import dataclass
from typing import Annotated, Literal

from calc import terms
from calc.chuck.speed import StackParts, Transmission, stack_moment
from calc.describing import calculator
from calc.fields import Checked, Quantity, When
from calc.quantities import Figure
from calc.results import Explained, Found
from calc.terms import SIDE, Side
from calc.working import Working, derived

LIMIT = derived("The speed cap")

CAP_WORDS = {
    "chuck": "the chuck",
    "machine": "the machine",
    "grip": "the grip",
    "user": "the own limit",
    "wall": "the wall",
    "guides": "the guides",
    "kept": "the share of grip to be kept",
    "corner": "the worst credible corner",
    "other": "the second spindle",
}


OUTSIDE, INSIDE = When("side", ("od",)), When("side", ("id",))


@dataclass(frozen=True)
class SpeedLimitInput(Checked):
    """Input of `speed-limit`."""

    static_grip_n: Annotated[float, terms.TOTAL_GRIP.called("Static grip", low=0, above=None)]
    required_grip_n: Annotated[float, terms.REQUIRED_GRIP]
    side: Annotated[Side, SIDE]
    stack: StackParts
    chuck_max_rpm: Annotated[float, terms.SPEED_LIMIT.called("Chuck's limit", "")]
    machine_max_rpm: Annotated[float, terms.SPEED_LIMIT.called("Machine's limit", "")]
    user_max_rpm: Annotated[float | None, terms.OWN_LIMIT] = None
    jaws: Annotated[int, terms.JAWS] = 3
    transmission: Transmission = 1.0
    wall_limit_n: Annotated[
        float | None, terms.WALL_LIMIT.called(help="Inside grip, which grows with speed"), INSIDE
    ] = None
    guides_max_rpm: Annotated[
        float | None,
        terms.SPINDLE_SPEED.called("Guides' limit", "Inside grip: where the guides carry what they are rated for"),
        INSIDE,
    ] = None
    demand_max_rpm: Annotated[
        float | None,
        terms.SPINDLE_SPEED.called("Demand's limit", "Where a demand that grows with speed meets the grip"),
    ] = None

    keep_share: Annotated[
        float | None,
        Quantity("Share to be kept", "", "Outside grip: of the static grip; a third is usual", low=0, high=1),
        OUTSIDE,
    ] = None
    corner_static_n: Annotated[
        float | None,
        terms.TOTAL_GRIP.called("Static grip, worst corner", "With the condition it may have", low=0, above=None),
    ] = None
    corner_required_n: Annotated[
        float, terms.REQUIRED_GRIP.called("Needed there", "At the worst credible corner, without the safety")
    ] = 0.0
    corner_max_rpm: Annotated[
        float | None,
        terms.SPINDLE_SPEED.called("Corner's limit", "Where a demand that grows with speed meets that grip"),
    ] = None
    other_max_rpm: Annotated[
        float | None,
        terms.SPINDLE_SPEED.called("Second spindle's cap", "While both hold the piece; empty: one holds it alone"),
    ] = None


CappedBy = Literal["chuck", "machine", "grip", "user", "wall", "guides", "kept", "corner", "other"]


@dataclass(frozen=True, slots=True, kw_only=True)
class SpeedLimitResult(Explained):
    """The highest safe speed and what sets it."""

    grip_limited_rpm: Annotated[float | None, Found("Speed that the grip allows", "rpm", "down")]
    speed_cap_rpm: Annotated[float, Found("Speed cap", "rpm", "down")]
    capped_by: Annotated[CappedBy, Found("Capped by", options=CAP_WORDS)]


def _grip_limited(given: SpeedLimitInput, moment: float, w: Working) -> float | None:
    short = given.static_grip_n - given.required_grip_n
    if given.side == "id":
        # The gain at speed is not credited: guides stick.
        if short >= 0:
            return None
    elif short > 0:
        if moment <= 0:
            return None
        return w.step(
            "n_grip",
            "Speed where the grip meets the demand",
            "60/(2*pi) * sqrt((F_0 - F_req) / (λ * z * S / 1000))",
            "rpm",
            LIMIT,
            F_0=given.static_grip_n,
            F_req=given.required_grip_n,
            λ=given.transmission,
            z=given.jaws,
            S=moment,
        )
    w.note(
        "stop",
        "grip-too-small",
        "Standing still the grip is {grip} and the worst cut needs {need}: no speed is safe.",
        grip=Figure(given.static_grip_n, "N", "down"),
        need=Figure(given.required_grip_n, "N", "up"),
    )
    return 0.0


def _lost(given: SpeedLimitInput, moment: float, w: Working, symbol: str, label: str, may_lose: float) -> float | None:
    """Outside grip: the speed that takes this much of it [N]; None where speed takes nothing."""
    if given.side == "id" or moment <= 0:
        return None
    text = "60/(2*pi) * sqrt(F_d / (λ * z * S / 1000))"
    return w.step(
        symbol, label, text, "rpm", LIMIT, F_d=max(0.0, may_lose), λ=given.transmission, z=given.jaws, S=moment
    )


def _kept_limited(given: SpeedLimitInput, moment: float, w: Working) -> float | None:
    """The speed that leaves the share of the grip which is to be kept."""
    if given.keep_share is None:
        return None
    label = "Speed that leaves the share to be kept"
    return _lost(given, moment, w, "n_kept", label, (1 - given.keep_share) * given.static_grip_n)


def _corner_limited(given: SpeedLimitInput, moment: float, w: Working) -> float | None:
    """The speed where the grip of the worst credible corner is just what is needed there."""
    if given.corner_static_n is None:
        return None
    left = given.corner_static_n - given.corner_required_n
    if left < 0:
        w.note(
            "stop",
            "corner-slips",
            "At the worst credible corner the grip standing still is {held} of what is needed: it could slip.",
            held=Figure(100 * given.corner_static_n / given.corner_required_n, "%", "down"),
        )
        return 0.0
    found = _lost(given, moment, w, "n_corner", "Speed that the worst credible corner allows", left)
    grows = given.corner_max_rpm
    return grows if found is None or (grows is not None and grows < found) else found


def _wall_limited(given: SpeedLimitInput, moment: float, w: Working) -> float | None:
    """Inside grip: the speed where the grip, with its full gain, reaches what the wall stands."""
    if given.side == "od" or given.wall_limit_n is None:
        return None
    room = given.wall_limit_n - given.static_grip_n
    if room <= 0 or moment <= 0:
        return 0.0 if room <= 0 else None
    # A gain is never counted as less than all of it where it presses on a wall.
    return w.step(
        "n_wall",
        "Speed where the grip reaches what the wall stands",
        "60/(2*pi) * sqrt((F_w - F_0) / (max(1, λ) * z * S / 1000))",
        "rpm",
        LIMIT,
        F_w=given.wall_limit_n,
        F_0=given.static_grip_n,
        λ=given.transmission,
        z=given.jaws,
        S=moment,
    )


@calculator(SpeedLimitInput)
def speed_limit(given: SpeedLimitInput) -> SpeedLimitResult:
    """The speed cap: the least of the grip-limited, chuck's, machine's and own limits.

    Parameters
        {parameters}
    Returns
        grip_limited_rpm [rpm], None where speed does not limit (inside grip that is enough standing
        still, or massless jaws), 0 with a stop where the grip is too small standing still;
        speed_cap_rpm [rpm]; capped_by chuck | machine | grip | user, inside grip also wall | guides; where they are
        asked for also kept (a share of the grip) | corner (the worst credible one) | other (a second spindle)
    Raises
        CalcError for values outside the declared ranges
    Validity
        `required_grip_n` is the demand at the cap: a demand that grows with speed (imbalance) is crossed
        with the grip before, and that speed given as demand_max_rpm [rpm].
    Example
        >>> from calc.chuck.speed import StackPart
        >>> r = speed_limit(SpeedLimitInput(46000, 16900, "od", (StackPart(2.45, 65.5),), 4500, 4500))
        >>> round(r.speed_cap_rpm), r.capped_by
        (2348, 'grip')

    Reference
        derived in docs/method.md, “The speed cap”
    """
    w = Working()
    counts = given.side == "od" or given.wall_limit_n is not None
    moment = stack_moment(given.stack, w) if counts else 0.0
    by_grip = _grip_limited(given, moment, w)
    limits: dict[CappedBy, float] = {"chuck": given.chuck_max_rpm, "machine": given.machine_max_rpm}
    if given.user_max_rpm is not None:
        limits["user"] = given.user_max_rpm
    if given.demand_max_rpm is not None and (by_grip is None or given.demand_max_rpm < by_grip):
        by_grip = w.step(
            "n_grip",
            "Speed where the grip meets a demand that grows with speed",
            "n",
            "rpm",
            LIMIT,
            n=given.demand_max_rpm,
        )
    if by_grip is not None:
        limits["grip"] = by_grip
    by_kept, by_corner = _kept_limited(given, moment, w), _corner_limited(given, moment, w)
    if by_kept is not None:
        limits["kept"] = by_kept
    if by_corner is not None:
        limits["corner"] = by_corner
    if given.other_max_rpm is not None:
        limits["other"] = given.other_max_rpm
    by_wall = _wall_limited(given, moment, w)
    if by_wall is not None:
        limits["wall"] = by_wall
    if given.guides_max_rpm is not None and given.side == "id":
        limits["guides"] = given.guides_max_rpm
    least: CappedBy = min(limits, key=lambda name: limits[name])
    names = {
        "chuck": "n_chuck",
        "machine": "n_machine",
        "user": "n_own",
        "grip": "n_grip",
        "wall": "n_wall",
        "guides": "n_guides",
        "kept": "n_kept",
        "corner": "n_corner",
        "other": "n_other",
    }
    cap = w.step(
        "n_cap",
        "Speed cap: the least of the limits",
        f"min({', '.join(names[n] for n in limits)})",
        "rpm",
        LIMIT,
        **{names[n]: v for n, v in limits.items()},
    )
    assert math.isclose(cap, limits[least])
    return SpeedLimitResult(
        grip_limited_rpm=by_grip, speed_cap_rpm=cap, capped_by=least, working=tuple(w.steps), notes=tuple(w.notes)
    )

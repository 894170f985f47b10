"""What a cut asks of a live centre."""

from __future__ import annotations

from calc.working import N, Steps, derived

TIP_DEG = 30.0  # half the angle of a live centre's point
CENTRE = derived("A live centre")


def centre_thrust(w: Steps[N], tangential: N, radial: N, away: N | float = 0.0) -> N:
    """The thrust that keeps a live centre in its hole [N].

    Parameters: `tangential`, `radial` forces of the cut [N]; `away` its axial force [N] where the feed runs away from
    the chuck and pushes the part onto the centre.
    Notes: the whole force across is taken to stand at the centre, as for a cut beside it; friction is not credited.

    >>> from calc.working import Working
    >>> round(centre_thrust(Working(), 1931.0, 517.0), 1)  # hypot 1999 N, times tan 30°
    1154.1

    Reference: equilibrium of a cone of half-angle α pressed into its hole, derived in docs/method.md.
    """
    return w.step(
        "F_c",
        "Thrust that keeps the centre in its hole",
        "sqrt(F_t**2 + F_r**2) * tan(α*pi/180) + F_away",
        "N",
        CENTRE,
        F_t=tangential,
        F_r=radial,
        α=TIP_DEG,
        F_away=away,
    )

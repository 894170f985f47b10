"""How the part is held."""

from __future__ import annotations

from dataclasses import dataclass
from typing import Annotated, Literal

from calc import terms
from calc.fields import Checked, Choice, Flag, Quantity, Text

SEAT = Choice(
    "Seated on",
    {"floor": "the pocket floor", "face": "its shoulder, on the jaw face", "none": "nothing: held by grip alone"},
    "What carries the axial force of the cut",
)
IN_COLLET = Choice(
    "Seated on",
    {
        "floor": "a stop in the collet",
        "face": "its shoulder, on the collet's nose",
        "none": "nothing: held by grip alone",
    },
    "What carries the axial force of the cut",
)
BAR_STOP = Choice(
    "Fed against",
    {"turret": "a stop that goes away", "stays": "a stop that stays", "none": "no stop"},
    "Before the chuck closes, or while it closes too",
)
SURFACES = {
    "auto": "as what is gripped",
    "turned": "soft jaw on a turned part",
    "ground": "soft jaw on a ground or drawn part",
    "rough": "soft jaw on rough stock",
}
FRICTION = Choice("Surfaces", SURFACES, "The pair of surfaces sets the friction")
# What hard jaws and collets bring with them is not chosen.
PAIRS = SURFACES | {"hard": "hard serrated jaw", "collet": "smooth collet", "collet_serrated": "serrated collet"}


@dataclass(frozen=True)
class Hold(Checked):
    """How the part is held."""

    grip: Annotated[str, Text("Grips", "Empty: the best that is fit", most=60)] = ""
    jaw_height_mm: Annotated[float | None, terms.JAW_HEIGHT.called(help="Empty: the jaw's own height")] = None
    depth_mm: Annotated[float | None, terms.POCKET_DEPTH] = None
    stick_out_mm: Annotated[
        float | None,
        Quantity(
            "Bar sticks out",
            "mm",
            "Of jaws or collet, its face stock included; empty: as much as it needs",
            above=0,
            high=1000,
        ),
    ] = None
    bar_stop: Annotated[Literal["turret", "stays", "none"], BAR_STOP] = "turret"
    seat: Annotated[Literal["floor", "face", "none"], SEAT] = "floor"
    live_centre: Annotated[bool, Flag("Live centre", "Takes tilt and side force")] = False
    centre_hole_mm: Annotated[
        float | None,
        Quantity("Centre hole", "mm", "At the face, drilled before; empty: the part's bore", above=0, high=200),
    ] = None
    centre_thrust_n: Annotated[
        float | None,
        Quantity(
            "Centre is pressed with",
            "N",
            "By the tailstock, from its own chart; empty: not checked",
            above=0,
            high=1_000_000,
        ),
    ] = None
    friction: Annotated[Literal["auto", "turned", "ground", "rough"], FRICTION] = "auto"

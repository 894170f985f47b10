"""How the part is held."""

from __future__ import annotations

from dataclasses import dataclass
from typing import Annotated, Literal

from calc import terms
from calc.fields import Checked, Choice, Flag, Text

SEAT = Choice(
    "Seated on",
    {"floor": "the pocket floor", "face": "its shoulder, on the jaw face", "none": "nothing: held by grip alone"},
    "What carries the axial force of the cut",
)
FRICTION = Choice(
    "Surfaces",
    {
        "auto": "as what is gripped",
        "turned": "bored jaw on a turned part",
        "ground": "bored jaw on a ground or drawn part",
        "rough": "bored jaw on rough stock",
    },
    "The pair of surfaces sets the friction",
)


@dataclass(frozen=True)
class Hold(Checked):
    """How the part is held in soft jaws."""

    grip: Annotated[str, Text("Grips", "Empty: the best that is fit", most=60)] = ""
    jaw_height_mm: Annotated[float | None, terms.JAW_HEIGHT.called(help="Empty: the blank's own height")] = None
    depth_mm: Annotated[float | None, terms.POCKET_DEPTH] = None
    seat: Annotated[Literal["floor", "face", "none"], SEAT] = "floor"
    live_centre: Annotated[bool, Flag("Live centre", "Takes tilt and side force")] = False
    friction: Annotated[Literal["auto", "turned", "ground", "rough"], FRICTION] = "auto"

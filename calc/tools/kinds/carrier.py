"""What is asked of anything that carries or is carried: the seat, the shank, the way to the turret, the coolant."""

from __future__ import annotations

from typing import Literal

from calc.fields import Choice, Quantity, Text

SHANK = "The holder's data sheet, or measure it"
SEAT = Text(
    "Seat",
    "Holder and insert of the same seat go together",
    most=20,
    where="The shop's own word, or the holder's data sheet",
)
Hand = Literal["right", "left", "neutral"]
HAND = Choice(
    "Hand",
    {"right": "right", "left": "left", "neutral": "either"},
    "Which way it cuts",
    where="Letter R, L or N of its designation",
)
Side = Literal["outside", "inside"]
SIDE = Choice(
    "Works", {"outside": "outside", "inside": "inside"}, "On the outside, or in a bore", where="Its designation"
)
TURRET = Text("Turret seat", "Such as VDI 30; empty: fits any turret", most=20, where="The block's data sheet")
TURNS = Quantity("Shank", "mm", "Square shank, or diameter of a bar", above=0, high=200, where=SHANK)
Coolant = Literal["outside", "through"]
COOLANT = Choice(
    "Coolant", {"outside": "from outside", "through": "through it"}, "How it gets to the edge", where=SHANK
)

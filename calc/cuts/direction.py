"""Which way a cut winds: the spindle's direction and the feed against the hand of tool, drill or thread."""

from __future__ import annotations

from typing import Literal

from calc.fields import Choice

Turns = Literal["M03", "M04"]
Hand = Literal["right", "left"]
TURNS = Choice(
    "Spindle turns",
    {"M03": "M03, clockwise", "M04": "M04, counter-clockwise"},
    "Seen from behind the spindle; right-hand tools feed toward the chuck in M03",
)


def winds(turns: Turns, feeds: Literal["chuck", "away"]) -> Hand:
    """The hand of the helix that a cut winds, and so the hand of the tool that cuts it.

    Parameters: `turns` M03 (clockwise, seen from behind the spindle) or M04; `feeds` toward the chuck or away from it.
    Returns: "right" or "left".
    Notes: whether the tool stands before or behind the axis, face up or down, changes nothing: turning it about the
    axis keeps the helix, and its mirror image is a tool of the other hand. A drill and the thread itself follow the
    same rule; grooving and parting wind nothing.
    Reference: ISO 6983-1, M03: the direction that drives a right-hand screw into the work.

    >>> winds("M03", "chuck"), winds("M03", "away"), winds("M04", "chuck")
    ('right', 'left', 'left')
    """
    return "right" if (turns == "M03") == (feeds == "chuck") else "left"

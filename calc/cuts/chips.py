"""What a chip tells: whether it should break, and what to change by how it looks."""

from __future__ import annotations

from typing import Literal

from calc.fields import Choice
from calc.working import Working

Seen = Literal["curls", "ribbon", "powder", "straw", "blue", "silver"]
SEEN = Choice(
    "Chips seen",
    {
        "curls": "short curls or sixes",
        "ribbon": "long ribbons",
        "powder": "packed powder or crushed",
        "straw": "straw to brown",
        "blue": "deep blue",
        "silver": "silver, dull",
    },
    "How they come off, or their colour",
)
# What to do, after the way chips look (typical).
ADVICE: dict[str, tuple[Literal["info", "caution"], str]] = {
    "curls": ("info", "Short curls are good: leave it as it is. Spirals just at entry are normal."),
    "ribbon": (
        "caution",
        "Long ribbons: more feed, or more depth, or a tighter breaker, or peck. Stop the machine to clear them; never "
        "by hand.",
    ),
    "powder": (
        "caution",
        "Packed or crushed chips: too much feed for this breaker. Less feed, or a more open breaker.",
    ),
    "straw": ("info", "Straw to brown in steel with carbide: the heat leaves with the chip. Good."),
    "blue": (
        "caution",
        "Deep blue in steel with carbide: near the top of what the edge should be asked. Fine for a tough "
        "heat-resistant grade, else back off the speed.",
    ),
    "silver": ("info", "Silver and dull can be right in stainless; in steel it says that the speed is low."),
}


def read_chip(seen: Seen | None, w: Working) -> None:
    """Add what a look at the chips advises."""
    if seen is not None:
        level, words = ADVICE[seen]
        w.note(level, f"chip-{seen}", "{words}", words=words)

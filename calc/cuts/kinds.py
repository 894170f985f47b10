"""What an operation does, and how much of it: the words that plans, tools and the notebook share."""

from __future__ import annotations

from typing import Literal

from calc.fields import Choice

KIND = Choice(
    "Kind",
    {
        "turn": "turning",
        "face": "facing",
        "bore": "boring",
        "drill": "drilling on centre",
        "groove": "grooving",
        "thread": "threading",
        "part": "parting off",
    },
    "What the tool does",
)
Kind = Literal["turn", "face", "bore", "drill", "groove", "thread", "part"]
STAGE = Choice(
    "Takes",
    {"rough": "the bulk: roughing", "finish": "the last of it: finishing", "both": "all of it"},
    "Roughing and finishing ask for different edges",
)
Stage = Literal["rough", "finish", "both"]

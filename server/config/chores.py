"""What is done again and again while the application runs, by the processes that stand back behind questions.

How long each rests when there is nothing more to do stands in the settings. Each gives whether there is more to do.
"""

from __future__ import annotations

from server.apps.runs.actions.follow_shelf import follow_up
from server.foundation.actions import tidy

AT_A_TIME = 20  # runs: a second


def follow_some() -> bool:
    """Write again how some runs stand, where the shelf or the day has changed."""
    return follow_up(AT_A_TIME) == AT_A_TIME


def tidy_up() -> bool:
    """Let go of what is over."""
    tidy()
    return False

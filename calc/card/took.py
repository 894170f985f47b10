"""How long a set-up took, from the times at which the steps of its card were ticked."""

from __future__ import annotations

from collections.abc import Iterable, Sequence
from dataclasses import dataclass

from calc.card.step import Card, CardStep

PAUSE_MIN = 60.0  # typical: whoever ticks nothing for longer has gone to something else
TASKS = {"tools": "tools", "proving": "prove", "first piece": "first"}


@dataclass(frozen=True)
class StepTook:
    """A step that was ticked: since the tick before [min]; None for the first, and after a pause."""

    step: CardStep
    task: str
    minutes: float | None


@dataclass(frozen=True)
class SetupTook:
    """What a set-up took. `paused_min`: between ticks so far apart that somebody had gone to something else."""

    steps: tuple[StepTook, ...]
    paused_min: float

    def minutes(self, task: str) -> float | None:
        """What a task took [min], as far as it was ticked; None where nothing of it was."""
        found = [s.minutes for s in self.steps if s.task == task and s.minutes is not None]
        return sum(found) if found else None


def task_of(step: CardStep, tasks: Iterable[str]) -> str:
    """The task of a set-up that a step belongs to, by its key. Jaws that come with another side's count to that side.

    Reference
        docs/method.md, “What a set-up took”
    """
    known = TASKS.get(step.place)
    if known is not None:
        return known
    own = f"hold.{step.side or 0}"
    return own if own in set(tasks) else "hold.0"


def took(card: Card, ticks: Sequence[tuple[str, float]], tasks: Sequence[str]) -> SetupTook:
    """How long the steps of a card took.

    A tick ends its step, and begins the next one that is ticked, whichever that is. What is ticked again, or was opened
    and ticked anew, adds to its step.

    Parameters
        card: the card
        ticks: (step, when [s]) of everything that was ticked, skipped or read there, in any order
        tasks: keys of the tasks of the set-up
    Returns
        the steps in the card's order with their minutes; what lies further apart than an hour is left out and told

    Reference
        docs/method.md, “What a set-up took”
    """
    spent: dict[str, float | None] = {}
    paused, before = 0.0, None
    for name, at in sorted(ticks, key=lambda one: one[1]):
        gap = None if before is None else (at - before) / 60
        before = at
        if gap is not None and gap > PAUSE_MIN:
            paused, gap = paused + gap, None
        known = spent.get(name)
        spent[name] = gap if known is None else known + (gap or 0.0)
    steps = (StepTook(s, task_of(s, tasks), spent[s.id]) for s in card.steps if s.id in spent)
    return SetupTook(tuple(steps), paused)

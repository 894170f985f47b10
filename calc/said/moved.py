"""What moved from one plan to another, in words: what each figure was before."""

from __future__ import annotations

from collections.abc import Iterator
from dataclasses import dataclass

from calc.plan.compute import PlanResult
from calc.quantities import System
from calc.said.plan import SideSaid, sides_said
from calc.said.stop import StopPage


@dataclass(frozen=True)
class MovedSaid:
    """A figure that moved, and what it was: "stop:force-s1" a stop's line, "carry:s1:cap" what is carried;
    "fact:force-s1:pressure" and "answer:force-s1:cap" of the stop in view.
    """

    name: str
    was: str


def _figures(key: str, page: StopPage) -> Iterator[tuple[str, str]]:
    yield from ((f"fact:{key}:{fact.name}", fact.text) for fact in page.facts)
    yield from ((f"answer:{key}:{answer.name}", answer.number) for answer in page.answers)


def _carried(sides: list[SideSaid]) -> Iterator[tuple[str, str]]:
    return ((f"carry:{side.id}:{c.name}", c.text or "") for side in sides for c in side.carry)


def _differing(before: Iterator[tuple[str, str]], after: Iterator[tuple[str, str]]) -> Iterator[MovedSaid]:
    was = dict(before)
    return (MovedSaid(name, was[name]) for name, text in after if name in was and was[name] != text)


def moved_said(before: PlanResult, after: PlanResult, system: System) -> list[MovedSaid]:
    """Lines of stops, and figures to carry, that moved; what is only in one of the plans did not."""
    known = {s.key: s for s in before.stops}
    moved = [
        MovedSaid(f"stop:{stop.key}", was)
        for stop in after.stops
        # One that is kept is the same stop: nothing of it moved.
        if (old := known.get(stop.key)) is not None
        and old is not stop
        and (was := old.line.text(system)) != stop.line.text(system)
    ]
    return moved + list(_differing(_carried(sides_said(before, system)), _carried(sides_said(after, system))))


def page_moved(key: str, before: StopPage, after: StopPage) -> list[MovedSaid]:
    """Facts and answers of a stop that moved."""
    return [] if before is after else list(_differing(_figures(key, before), _figures(key, after)))

"""Cleaning up: cuts that go over what is cut already, for a burr or for what an edge sprang back from."""

from __future__ import annotations

from collections.abc import Iterator, Sequence
from typing import Protocol

from shapely.geometry.base import BaseGeometry

from calc.cuts.turning import CutResult
from calc.plan.cuts.inputs import PlannedCut
from calc.plan.cuts.taken import CutShape
from calc.profile.half import rectangle
from calc.quantities import Figure
from calc.route.order import Work
from calc.working import Note

BURR_MM = 0.1  # typical, per side: what a thread's burr stands up, and so what a cut that takes it is judged for
UNDER_MM = 0.2  # beneath a surface: where its metal must be for it to be one
LEAST_SHARE = 0.5  # of the way over which there must be metal
SAME_SPEED = 0.01  # of the speed: a thread and its spring pass begin at the same turn


class Figured(Protocol):
    """A cut with its figures."""

    @property
    def planned(self) -> PlannedCut:
        """As it is entered, with its tool's figures."""

    @property
    def result(self) -> CutResult:
        """At its largest diameter."""


def work_of(planned: PlannedCut) -> Work:
    """A planned cut as its order is looked at."""
    return Work(planned.name, planned.kind, planned.stage, planned.inside, planned.cleans)


def cleaned(cut: CutShape, stock: BaseGeometry) -> Iterator[Note]:
    """Whether there is a surface where a cut cleans up."""
    r, deeper = cut.before / 2 if cut.kind == "groove" else cut.after / 2, UNDER_MM if cut.inside else -UNDER_MM
    low, high = sorted((r, r + deeper))
    under = rectangle(max(0.0, cut.start), cut.end, max(0.0, low), high)
    if cut.kind == "thread" or under.intersection(stock).area >= LEAST_SHARE * under.area:
        return
    yield Note(
        "caution",
        "cleans-nothing",
        "{name}: it cleans up at Ø{d}, and there is no surface of that size where it goes. Change where it goes, or "
        "take it out.",
        name=cut.name,
        d=Figure(2 * r, "mm", places=(2, 3)),
    )


def spring_notes(cuts: Sequence[Figured]) -> list[Note]:
    """Spring passes at another speed than their thread: the slide lags otherwise, and they cut another helix."""
    found = []
    for place, cut in enumerate(cuts):
        if not cut.planned.springs:
            continue
        thread = thread_of(cut.planned, [c.planned for c in cuts[:place]])
        made = next((c for c in cuts[:place] if c.planned is thread), None)
        if made is None:
            found.append(
                Note(
                    "caution",
                    "springs-alone",
                    "{name}: no cut before it makes its thread. Put it behind the thread, or take it out.",
                    name=cut.planned.name,
                )
            )
        elif abs(cut.result.rpm - made.result.rpm) > SAME_SPEED * made.result.rpm:
            found.append(
                Note(
                    "stop",
                    "spring-speed",
                    "{name}: it turns at {n} and {other} at {m}: the slide lags differently, and it cuts a thread of "
                    "its own. Give both the same speed and clamp.",
                    name=cut.planned.name,
                    other=made.planned.name,
                    n=Figure(cut.result.rpm, "rpm"),
                    m=Figure(made.result.rpm, "rpm"),
                )
            )
    return found


def thread_of(spring: PlannedCut, before: Sequence[PlannedCut]) -> PlannedCut | None:
    """The thread that a spring pass goes through once more: the last such cut before it; None where there is none."""
    wanted = (spring.thread, spring.inside, spring.feed_mm_rev)
    cuts = [c for c in before if c.kind == "thread" and not c.cleans]
    return next((c for c in reversed(cuts) if (c.thread, c.inside, c.feed_mm_rev) == wanted), None)

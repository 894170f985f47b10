"""Lines and arcs as one chain: joined end to end, or refused with the place where they do not meet."""

from __future__ import annotations

import math
from collections.abc import Sequence
from dataclasses import dataclass

from calc.errors import FieldProblem
from calc.quantities import Figure, Sentence, counted

MEET_MM = 0.01  # ends this near are one point
FIELD = "text"


@dataclass(frozen=True, slots=True)
class Segment:
    """A line or an arc from (z0, r0) to (z1, r1) [mm]; an arc by its bulge, as in `calc.profile.contour`."""

    z0: float
    r0: float
    z1: float
    r1: float
    bulge: float = 0.0

    def turned(self) -> Segment:
        """The same the other way."""
        return Segment(self.z1, self.r1, self.z0, self.r0, -self.bulge)


def place(z: float, r: float) -> Sentence:
    """A point in words."""
    return Sentence("({x}, {y})", x=Figure(z, "mm", places=(2, 3)), y=Figure(r, "mm", places=(2, 3)))


def _near(a: tuple[float, float], b: tuple[float, float]) -> bool:
    return math.dist(a, b) <= MEET_MM


class _Points:
    """Ends that meet, by number."""

    def __init__(self) -> None:
        self.found: list[tuple[float, float]] = []
        self.cells: dict[tuple[int, int], list[int]] = {}

    def number(self, z: float, r: float) -> int:
        cell = (math.floor(z / MEET_MM), math.floor(r / MEET_MM))
        for dz in (-1, 0, 1):
            for dr in (-1, 0, 1):
                for i in self.cells.get((cell[0] + dz, cell[1] + dr), ()):
                    if _near(self.found[i], (z, r)):
                        return i
        self.found.append((z, r))
        self.cells.setdefault(cell, []).append(len(self.found) - 1)
        return len(self.found) - 1


def joined(segments: Sequence[Segment]) -> tuple[list[Segment], bool]:
    """(the segments in order, whether they close). Raises FieldProblem with the place that is wrong."""
    points = _Points()
    ends = [(points.number(s.z0, s.r0), points.number(s.z1, s.r1)) for s in segments]
    at: dict[int, list[int]] = {}
    for i, (a, b) in enumerate(ends):
        for p in {a, b}:
            at.setdefault(p, []).append(i)
    for p, meeting in at.items():
        if len(meeting) > 2:
            raise FieldProblem(
                FIELD,
                Sentence(
                    "{n} lines meet at {p}: a profile is one line without branches.",
                    n=str(len(meeting)),
                    p=place(*points.found[p]),
                ),
            )
    loose = sorted((p for p, meeting in at.items() if len(meeting) == 1), key=lambda p: points.found[p])
    order, used = _walk(ends, at, loose[0] if loose else ends[0][0])
    if len(used) < len(segments) or len(loose) > 2:
        raise FieldProblem(FIELD, _open_words([points.found[p] for p in loose], len(segments) - len(used)))
    chain = [segments[i] if forward else segments[i].turned() for i, forward in order]
    return chain, not loose


def _walk(ends: list[tuple[int, int]], at: dict[int, list[int]], start: int) -> tuple[list[tuple[int, bool]], set[int]]:
    order: list[tuple[int, bool]] = []
    used: set[int] = set()
    here = start
    while True:
        onward = next((i for i in at[here] if i not in used), None)
        if onward is None:
            return order, used
        used.add(onward)
        a, b = ends[onward]
        order.append((onward, a == here))
        here = b if a == here else a


def _open_words(loose: list[tuple[float, float]], left: int) -> Sentence:
    if len(loose) < 3:
        return Sentence(
            "The drawing has {n} that {do} not join the profile: put {them} on another layer.",
            n=counted(left, "more line"),
            do="does" if left == 1 else "do",
            them="it" if left == 1 else "them",
        )
    gaps = [(math.dist(a, b), a, b) for i, a in enumerate(loose) for b in loose[i + 1 :]]
    gap, a, _ = min(gaps)
    return Sentence(
        "The line is open at {p}: the next end is {g} away. Join them in the drawing.",
        p=place(*a),
        g=Figure(gap, "mm", places=(3, 4)),
    )

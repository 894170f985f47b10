"""Which diameters of a part are fit to be gripped, from either end, and why each is or is not."""

from __future__ import annotations

import math
from collections.abc import Iterator, Sequence
from dataclasses import dataclass

from calc.profile.body import Body, End
from calc.profile.contour import CLOSE, Span
from calc.quantities import Bare, Figure, Sentence
from calc.terms import Side

LEAST_MM = 3.0  # typical: less than this is no grip at all
THIRD = 1 / 3
THIN_WALL = 0.15  # typical: wall over gripped radius below which jaws bend it
STIFF_WALL = 0.30
POINTS = {"length": 30.0, "diameter": 25.0, "finish": 20.0, "stiff": 15.0, "access": 10.0}  # typical weights


def corners_of(flats: int) -> float:
    """Across the corners over across the flats: 2/√3 of a hexagon, √2 of a square; 1 where it is round."""
    return 1 / math.cos(math.pi / flats) if flats else 1.0


@dataclass(frozen=True)
class Reason:
    """One thing said about a grip; `against` where it speaks against it."""

    sentence: Sentence
    against: bool = False


@dataclass(frozen=True)
class Grip:
    """A round face of the part, as jaws would take hold of it from one end.

    `offset_mm` is how far from the held end it begins, `plain_mm` how far from the held end it goes;
    sizes in mm. `key` is its name in a plan, by the id of its step: "stock", "outside:k3f9a2b"; `step` is that id.
    """

    key: str
    name: str
    side: Side
    diameter_mm: float
    offset_mm: float
    plain_mm: float
    smallest_mm: float
    largest_mm: float
    finished: bool
    wall_mm: float
    solid: bool
    edge_mm: float
    fit: bool
    score: float
    reasons: tuple[Reason, ...]
    step: str = ""
    flats: int = 0  # of a bar that has them; its diameter is across them

    @property
    def corners(self) -> float:
        """Across its corners over across its flats; 1 where it is round."""
        return corners_of(self.flats)

    @property
    def length_mm(self) -> float:
        """Length that jaws can touch."""
        return self.plain_mm - self.offset_mm

    @property
    def why_not(self) -> Sentence | None:
        """The first thing that makes it unfit."""
        return None if self.fit else next(r.sentence for r in self.reasons if r.against)


def _mm(value: float) -> Figure:
    return Figure(value, "mm", "down")


def _blocked(steps: Sequence[Span], at: int, outside: bool) -> Span | None:
    """A step before this one, seen from the held end, that keeps the jaws away from it."""
    size = steps[at].step.diameter_mm or 0.0
    for span in steps[:at]:
        sizes = (span.step.diameter_mm or 0.0, span.step.last_diameter_mm or 0.0)
        if (max(sizes) > size + CLOSE) if outside else (min(sizes) < size - CLOSE):
            return span
    return None


def _kind_of(span: Span) -> Sentence | None:
    """Why the step itself is no place to grip."""
    step = span.step
    if step.thread and (
        step.thread_length_mm is None or step.length_mm is None or step.thread_length_mm >= step.length_mm - LEAST_MM
    ):
        return Sentence("threaded: jaws would crush it")
    if step.groove:
        return Sentence("a groove")
    if step.flats:
        return Sentence("not round: it has flats")
    if step.arc_mm is not None:
        return Sentence("not a cylinder")
    if step.end_diameter_mm is not None:
        return Sentence("tapered: it would be pushed out")
    return None


def _in_the_way(steps: Sequence[Span], at: int, outside: bool) -> Iterator[Reason]:
    """What keeps the jaws away: a thread, a groove or a taper, or a step that stands before it."""
    kind, blocked = _kind_of(steps[at]), _blocked(steps, at, outside)
    if kind is not None:
        yield Reason(kind, against=True)
    if blocked is not None:
        word = "larger" if outside else "smaller"
        d = Figure(blocked.step.diameter_mm or 0.0, "mm", exact=True)
        yield Reason(
            Sentence("{name}, Ø{d}, is {word} and stands before it", name=blocked.step.name, d=Bare(d), word=word),
            against=True,
        )


def _how_firm(grip_length: float, body: Body, wall: float, radius: float, solid: bool) -> Iterator[Reason]:
    """How long the grip is, and how stiff what is gripped."""
    if grip_length < LEAST_MM - CLOSE:
        yield Reason(Sentence("{x} long, too short to hold", x=_mm(max(0.0, grip_length))), against=True)
    elif grip_length < body.length_mm * THIRD - CLOSE:
        yield Reason(Sentence("{x} long, under a third of the part", x=_mm(grip_length)))
    else:
        yield Reason(Sentence("{x} long, a third of the part and more", x=_mm(grip_length)))
    if solid:
        yield Reason(Sentence("solid"))
    elif wall < THIN_WALL * radius:
        yield Reason(Sentence("thin: {x} of wall", x=_mm(wall)))
    else:
        yield Reason(Sentence("stiff: {x} of wall", x=_mm(wall)))


def _score(share_length: float, share_diameter: float, finish: float, stiff: float, outside: bool) -> float:
    shares = {
        "length": min(1.0, share_length / THIRD),
        "diameter": min(1.0, share_diameter),
        "finish": finish,
        "stiff": min(1.0, stiff),
        "access": 1.0 if outside else 0.5,
    }
    return sum(POINTS[name] * share for name, share in shares.items())


def _one(body: Body, steps: Sequence[Span], at: int, outside: bool, held: End) -> Grip:
    span = steps[at]
    step = span.step
    assert step.diameter_mm is not None
    edge = step.chamfer_mm or step.round_mm or 0.0
    thread = step.thread_length_mm if step.thread else None
    # The far end keeps clear of the corner and of a thread; a step that starts at the part's end keeps its edge.
    corner = step.corner_mm or 0.0
    near = span.start + (thread or 0.0 if at == 0 else corner if _is_hollow(steps, at, outside) else 0.0)
    far = span.end - (thread or 0.0 if at else 0.0) - (corner if _shoulder_after(steps, at, outside) else 0.0)
    place = (span.start, span.end) if held == "a" else (body.length_mm - span.end, body.length_mm - span.start)
    radius = step.diameter_mm / 2
    # The wall is the ring's own; its broken edges do not make it thinner.
    wall = radius - body.widest_bore(*place) / 2 if outside else body.slimmest(*place) / 2 - radius
    solid = outside and wall >= radius - CLOSE
    reasons = (*_in_the_way(steps, at, outside), *_how_firm(far - near, body, wall, radius, solid))
    limits = step.limits_mm
    widest = max(s.step.diameter_mm or 0.0 for s in body.outside)
    smallest, largest = limits or (step.diameter_mm, step.diameter_mm)
    finish = Sentence("finished to limits") if limits else Sentence("finished, without limits")
    return Grip(
        key=f"{'outside' if outside else 'inside'}:{span.name}",
        step=span.name,
        name=step.name,
        side="od" if outside else "id",
        diameter_mm=step.diameter_mm,
        offset_mm=near,
        plain_mm=far,
        smallest_mm=smallest,
        largest_mm=largest,
        finished=True,
        wall_mm=wall,
        solid=solid,
        edge_mm=edge,
        fit=not any(r.against for r in reasons),
        score=_score(
            max(0.0, far - near) / body.length_mm,
            step.diameter_mm / widest,
            1.0 if limits else 0.6,
            1.0 if solid else wall / radius / STIFF_WALL,
            outside,
        ),
        reasons=(*reasons, Reason(finish)),
    )


def _is_hollow(steps: Sequence[Span], at: int, outside: bool) -> bool:
    before, here = steps[at - 1].step.last_diameter_mm or 0.0, steps[at].step.diameter_mm or 0.0
    return before > here + CLOSE if outside else before < here - CLOSE


def _shoulder_after(steps: Sequence[Span], at: int, outside: bool) -> bool:
    if at + 1 >= len(steps):
        return False
    here, after = steps[at].step.last_diameter_mm or 0.0, steps[at + 1].step.diameter_mm or 0.0
    return after > here + CLOSE if outside else after < here - CLOSE


def from_end(found: Sequence[Span], whole: float, end: End) -> tuple[Span, ...]:
    """Steps along z as seen from an end: the first one is nearest to it."""
    if end == "a":
        return tuple(found)
    return tuple(Span(whole - s.end, whole - s.start, s.step, s.index) for s in reversed(found))


def finished_grips(body: Body, held: End) -> tuple[Grip, ...]:
    """Every step seen from the held end as a place to grip, outside steps first, each with its reasons."""
    outside = from_end(body.outside, body.length_mm, held)
    inside = body.inside if held == "a" else body.inside_b
    through = body.inside_b if held == "a" else body.inside
    # A bore that comes from the other end and goes through can be gripped from here, too.
    if through and through[-1].step.length_mm is None and not inside:
        reach = body.length_mm
        inside = tuple(Span(reach - s.end, reach - s.start, s.step, s.index) for s in reversed(through))
    return (
        *(_one(body, outside, i, True, held) for i in range(len(outside))),
        *(_one(body, inside, i, False, held) for i in range(len(inside))),
    )

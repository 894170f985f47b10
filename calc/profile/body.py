"""The body that a profile makes: its contours, volume, mass, wall, corners and falling flanks."""

from __future__ import annotations

import itertools
import math
from collections.abc import Sequence
from dataclasses import dataclass
from typing import Literal

import numpy as np

from calc.errors import CalcError, FieldError
from calc.profile.contour import CLOSE, Contour, Span, contour, mirrored, points, spans, turned_volume
from calc.profile.steps import TurnedStep
from calc.quantities import Figure, Sentence
from calc.working import Step, Working, derived

BODY = derived("The part's body")
End = Literal["a", "b"]
BESIDE_MM = 1e-6  # a wall is looked at just before and just after every step


@dataclass(frozen=True)
class Body:
    """A profile whose steps all have their figures; z from end A [mm]."""

    length_mm: float
    outside: tuple[Span, ...]
    inside: tuple[Span, ...]  # from end A; z from end A
    inside_b: tuple[Span, ...]  # from end B; z from end B
    outer: Contour
    bore_a: Contour
    bore_b: Contour  # in z from end A

    @property
    def bores(self) -> tuple[Contour, ...]:
        """The bores there are."""
        return tuple(b for b in (self.bore_a, self.bore_b) if b)

    def wall_between(self, start: float, end: float) -> float:
        """Thinnest wall [mm] between two places along the axis; a solid part's is its radius."""
        outer = points(self.outer)
        bores = [points(b) for b in self.bores]
        stops = {start, end, *(z for z, _ in outer), *(z for b in bores for z, _ in b)}
        places = sorted({p for z in stops for p in (z - BESIDE_MM, z + BESIDE_MM) if start < p < end})
        if not places:
            return 0.0
        z = np.array(places)
        wall = _radius_at(outer, z)
        inner = np.zeros_like(z)
        for bore in bores:
            inner = np.maximum(inner, np.where((z >= bore[0][0]) & (z <= bore[-1][0]), _radius_at(bore, z), 0.0))
        return float((wall - inner).min())

    def widest_bore(self, start: float, end: float) -> float:
        """Largest nominal bore [mm] between two places along the axis, its edges left aside; 0 where it is solid."""
        found = [(s.start, s.end, s.step) for s in self.inside]
        found += [(self.length_mm - s.end, self.length_mm - s.start, s.step) for s in self.inside_b]
        return max((_sizes(step)[0] for x0, x1, step in found if x1 > start + CLOSE and x0 < end - CLOSE), default=0.0)

    def slimmest(self, start: float, end: float) -> float:
        """Smallest nominal outside diameter [mm] between two places, grooves left aside."""
        over = [s.step for s in self.outside if s.end > start + CLOSE and s.start < end - CLOSE]
        return min((_sizes(step)[1] for step in over if not step.groove), default=0.0)

    def bore_at(self, z: float) -> float:
        """Diameter [mm] of the bore at a place along the axis, 0 where it is solid."""
        at = np.array([z])
        reach = [points(b) for b in self.bores]
        return 2 * max((float(_radius_at(b, at)[0]) for b in reach if b[0][0] <= z <= b[-1][0]), default=0.0)


def _radius_at(line: list[tuple[float, float]], z: np.ndarray) -> np.ndarray:
    found: np.ndarray = np.interp(z, [p[0] for p in line], [p[1] for p in line])
    return found


def _length_problems(outside: Sequence[Span], a: Sequence[TurnedStep], b: Sequence[TurnedStep]) -> list[FieldError]:
    whole = outside[-1].end
    problems = []
    for name, steps in (("inside", a), ("inside_b", b)):
        for i, step in enumerate(steps[:-1]):
            if step.length_mm is None:
                problems.append(
                    FieldError(
                        f"{name}.{step.id or i}.length_mm",
                        Sentence("Only the last step of a bore goes through: give this one a length."),
                    )
                )
        total = sum(s.length_mm or 0.0 for s in steps)
        if total > whole * (1 + CLOSE) and steps:
            words = Sentence(
                "The bore is longer than the part, {x}: shorten it, or let it go through.",
                x=Figure(whole, "mm", exact=True),
            )
            problems.append(FieldError(f"{name}.{steps[-1].id or len(steps) - 1}.length_mm", words))
    both = sum(s.length_mm or 0.0 for s in (*a, *b))
    if not problems and a and b and both > whole * (1 + CLOSE):
        words = Sentence(
            "The bores from both ends are {x} together and the part is {l} long: they overlap.",
            x=Figure(both, "mm", exact=True),
            l=Figure(whole, "mm", exact=True),
        )
        problems.append(FieldError(f"inside_b.{b[-1].id or len(b) - 1}.length_mm", words))
    if a and b and a[-1].length_mm is None and b[-1].length_mm is None:
        problems.append(
            FieldError(
                f"inside_b.{b[-1].id or len(b) - 1}.length_mm",
                Sentence("One of the two bores goes through: give this one a length."),
            )
        )
    return problems


def _named(field: str, made: Contour | CalcError) -> Contour:
    if isinstance(made, CalcError):
        raise CalcError(FieldError(f"{field}.{e.field}", e.sentence) for e in made.errors)
    return made


def _drawn(
    field: str, steps: Sequence[TurnedStep], *, outside: bool, whole: float, edge: float, opens: bool = True
) -> Contour:
    if not steps:
        return ()
    try:
        return contour(steps, outside=outside, whole=whole, edge_mm=edge, opens=opens)
    except CalcError as error:
        return _named(field, error)


def body_of(
    outside: Sequence[TurnedStep], inside: Sequence[TurnedStep], inside_b: Sequence[TurnedStep], edge_mm: float
) -> Body:
    """The body of a profile whose steps have their diameters and lengths.

    Parameters
        outside from end A to end B; inside from end A inward, inside_b from end B inward;
        edge_mm [mm] on the part's ends where a step gives no edge
    Raises
        CalcError at "outside.0.length_mm" and the like: bores that overlap or are too long, a wall
        of nothing, edges and corners without room
    """
    out = spans(outside)
    whole = out[-1].end
    problems = _length_problems(out, inside, inside_b)
    if problems:
        raise CalcError(problems)
    from_a, from_b = (sum(s.length_mm or 0.0 for s in steps) for steps in (inside, inside_b))
    reach_a, reach_b = whole - from_b, whole - from_a
    bore_b = _drawn("inside_b", inside_b, outside=False, whole=reach_b, edge=edge_mm, opens=not inside)
    made = Body(
        length_mm=whole,
        outside=out,
        inside=spans(inside, reach_a),
        inside_b=spans(inside_b, reach_b),
        outer=_drawn("outside", outside, outside=True, whole=whole, edge=edge_mm),
        bore_a=_drawn("inside", inside, outside=False, whole=reach_a, edge=edge_mm, opens=not inside_b),
        bore_b=mirrored(bore_b, whole) if bore_b else (),
    )
    _has_walls(made)
    return made


def _has_walls(body: Body) -> None:
    """Raise at the bore whose step leaves no wall."""
    for field, found, flip in (("inside", body.inside, False), ("inside_b", body.inside_b, True)):
        for bore in found:
            start, end = (body.length_mm - bore.end, body.length_mm - bore.start) if flip else (bore.start, bore.end)
            over = [s for s in body.outside if s.end > start + CLOSE and s.start < end - CLOSE]
            thin = min(over, key=lambda s: min(s.step.diameter_mm or 0, s.step.last_diameter_mm or 0), default=None)
            if thin is None or body.wall_between(start, end) > CLOSE:
                continue
            size = min(thin.step.diameter_mm or 0.0, thin.step.last_diameter_mm or 0.0)
            words = Sentence(
                "The bore must be smaller than the {name}, Ø{d}.",
                name=thin.step.name.lower(),
                d=Figure(size, "mm", exact=True),
            )
            back = Sentence(
                "This must be larger than the bore, Ø{d}.", d=Figure(bore.step.diameter_mm or 0.0, "mm", exact=True)
            )
            raise CalcError(
                [
                    FieldError(f"{field}.{bore.name}.diameter_mm", words),
                    FieldError(f"outside.{thin.name}.diameter_mm", back),
                ]
            )


@dataclass(frozen=True)
class BodyFigures:
    """What follows from a body: volume [mm³], mass [kg], centre of mass from end A [mm], corners and flanks."""

    volume_mm3: float
    mass_kg: float
    centre_mm: float
    smallest_corner_mm: float | None
    sharp_corners: int
    falling_deg: dict[End, float]
    working: tuple[Step, ...]


def body_figures(body: Body, density_kg_dm3: float) -> BodyFigures:
    """Volume, mass, centre of mass, smallest inside corner and steepest falling flank, with working."""
    w = Working()
    whole, moment = turned_volume(body.outer)
    lengths = {f"l_{s.index + 1}": s.end - s.start for s in body.outside}
    w.step("L", "Overall length", " + ".join(lengths), "mm", BODY, **lengths)
    bored = [turned_volume(b) for b in body.bores]
    inner, inner_moment = sum(v for v, _ in bored), sum(m for _, m in bored)
    for span in body.outside:  # flats stand out of the circle across them
        more = _beside_the_circle(span)
        whole, moment = whole + more, moment + more * (span.start + span.end) / 2
    # The integrals themselves, ∫πr²dz and ∫πr²z dz along the contours, are told in the method.
    volume = w.step("V", "Volume: outside less bores", "V_o - V_i", "mm3", BODY, V_o=whole, V_i=inner)
    mass = w.step("m", "Mass", "V * ρ / 1e6", "kg", BODY, V=volume, ρ=density_kg_dm3)
    centre = w.step(
        "z_s", "Centre of mass from end A", "(M_o - M_i) / V", "mm", BODY, M_o=moment, M_i=inner_moment, V=volume
    )
    corners = [
        c
        for steps, outside in ((body.outside, True), (body.inside, False), (body.inside_b, False))
        for c in _corners(steps, outside)
    ]
    given = [c for c in corners if c is not None]
    return BodyFigures(
        volume_mm3=volume,
        mass_kg=mass,
        centre_mm=centre,
        smallest_corner_mm=min(given, default=None),
        sharp_corners=len(corners) - len(given),
        falling_deg={"a": falling(body, "a"), "b": falling(body, "b")},
        working=tuple(w.steps),
    )


def _beside_the_circle(span: Span) -> float:
    """Volume [mm³] that a step with flats has outside of the circle across them."""
    n, across = span.step.flats, span.step.diameter_mm or 0.0
    if not n:
        return 0.0
    return (n * math.tan(math.pi / n) - math.pi) * (across / 2) ** 2 * (span.end - span.start)


def _corners(found: Sequence[Span], outside: bool) -> list[float | None]:
    """Radius of each inside corner, None where the print gives none."""
    made = []
    for one, two in itertools.pairwise(found):
        r1, r2 = one.step.last_diameter_mm or 0.0, two.step.diameter_mm or 0.0
        if abs(r1 - r2) > CLOSE:
            low = one if (r1 < r2) == outside else two
            if not low.step.groove:
                made.append(low.step.corner_mm)
    return made


def falling(body: Body, worked: End) -> float:
    """Steepest flank [deg] that falls toward the axis as a tool feeds from the worked end to the largest step.

    0 where none falls; 90 is a shoulder that faces away from the tool. Grooves are left out: they are
    made with a tool of their own.
    """
    order = body.outside if worked == "a" else tuple(reversed(body.outside))
    largest = max(_sizes(s.step)[0] for s in order)
    steepest, before = 0.0, None
    for span in order:
        first, last = (span.step.diameter_mm or 0.0, span.step.last_diameter_mm or 0.0)
        if worked == "b":
            first, last = last, first
        if before is not None and first < before - CLOSE and not span.step.groove:
            steepest = 90.0
        if last < first - CLOSE:
            steepest = max(steepest, math.degrees(math.atan2((first - last) / 2, span.end - span.start)))
        if max(first, last) >= largest - CLOSE:
            break
        if not span.step.groove:
            before = last
    return steepest


def _sizes(step: TurnedStep) -> tuple[float, float]:
    sizes = sorted((step.diameter_mm or 0.0, step.last_diameter_mm or 0.0))
    return sizes[1], sizes[0]

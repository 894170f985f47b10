"""A half-profile read from a DXF drawing: x along the axis, y from it."""

from __future__ import annotations

import io
import math
from collections import Counter
from collections.abc import Sequence
from dataclasses import dataclass, replace
from typing import Any

from calc.profile.chain import MEET_MM, Segment, joined, place
from calc.profile.contour import Vertex, arc_centre
from calc.profile.dxf_entities import SILENT, layer_of, refuse, segments_of
from calc.profile.steps import DIAMETER_MOST, LENGTH_MOST, TurnedStep
from calc.quantities import Figure, Sentence

MOST_CHARACTERS = 5_000_000
MOST_LINES = 2_000
INCH = 25.4
UNITS = {1: "in", 4: "mm", 5: "cm", 6: "m"}  # $INSUNITS
MM = {"mm": 1.0, "in": INCH, "cm": 10.0, "m": 1000.0}
# Units that no profile of a lathe part is drawn in, by $INSUNITS: named, and refused.
OTHER_UNITS = {
    2: "feet",
    3: "miles",
    7: "kilometres",
    8: "microinches",
    9: "mils",
    10: "yards",
    13: "microns",
    14: "decimetres",
}
EDGE_MOST_MM = 10.0  # a 45° line or a quarter round up to this size is an edge, beyond it a step of its own
SAME_MM = 0.005


@dataclass(frozen=True)
class DrawnProfile:
    """What a drawing gives: steps from end A and B inward, and what was decided on the way."""

    outside: tuple[TurnedStep, ...]
    inside: tuple[TurnedStep, ...]
    inside_b: tuple[TurnedStep, ...]
    notes: tuple[Sentence, ...]


@dataclass(frozen=True)
class Question:
    """What the drawing does not say by itself: which layer, which unit."""

    layers: tuple[str, ...] = ()
    units: tuple[str, ...] = ()


def _document(text: str) -> Any:
    import ezdxf
    from ezdxf.lldxf.const import DXFError

    if len(text) > MOST_CHARACTERS:
        raise refuse(
            "The file is too large: {n} million characters are read at most. Save the profile alone.",
            n=str(MOST_CHARACTERS // 1_000_000),
        )
    if not text.strip():
        raise refuse("The file is empty.")
    try:
        return ezdxf.read(io.StringIO(text))  # type: ignore[attr-defined]
    except (DXFError, ValueError, KeyError, IndexError, TypeError, AttributeError) as error:
        raise refuse(
            "This is not a DXF drawing that can be read: {why}", why=str(error).strip()[:160] or type(error).__name__
        ) from error


def read_drawing(text: str, layer: str | None = None, unit: str | None = None) -> DrawnProfile | Question:
    """The steps of a half-profile drawn in DXF, or the questions that come first.

    Parameters
        text of the drawing; layer, where several carry lines; unit "mm" or "in", where the file says none
    Raises
        FieldProblem at "text": not a DXF, too large, splines and blocks (with their place), lines that do
        not join or branch, a profile below the axis, nothing drawn
    Validity
        x along the axis, end A at the least x; y the radius. Closed, it holds the bore; open, it is the
        outside alone. 45° lines and quarter rounds up to 10 mm are edges and corners of the step beside them.
    """
    drawing = _document(text)
    space = list(drawing.modelspace())
    drawn = Counter(layer_of(e) for e in space if e.dxftype() not in SILENT)
    if not drawn:
        raise refuse("There are no lines or arcs in this drawing's model space.")
    # A file without the variable is given one on reading: only what the file itself says counts.
    code = drawing.header.get("$INSUNITS", 0) if "$INSUNITS" in text else 0
    if unit is None and code in OTHER_UNITS:
        raise refuse("The drawing is in {u}: save it in millimetres or inches.", u=OTHER_UNITS[code])
    said = UNITS.get(code)
    known = unit or said
    layers = tuple(sorted(drawn))
    if (layer is None and len(layers) > 1) or known is None:
        return Question(layers if layer is None and len(layers) > 1 else (), () if known else ("mm", "in"))
    if layer is not None and layer not in drawn:
        raise refuse("There is no layer “{name}” with lines in this drawing.", name=layer)
    if known not in MM:
        raise refuse("Choose mm or in for the drawing's unit.")
    k = MM[known]
    chosen = layer or layers[0]
    segments = [s for e in space if layer_of(e) == chosen for s in segments_of(e, k)]
    segments = [s for s in segments if math.hypot(s.z1 - s.z0, s.r1 - s.r0) > MEET_MM / 10]
    if not segments:
        raise refuse("There are no lines or arcs on layer “{name}”.", name=chosen)
    if len(segments) > MOST_LINES:
        raise refuse(
            "The profile has {n} lines; {most} are read at most. Is it made of short pieces? Save it with arcs.",
            n=str(len(segments)),
            most=str(MOST_LINES),
        )
    if unit is None and known in ("cm", "m") and _too_large(segments):
        return Question(units=("mm", "in"))  # a drawing program's default that nobody chose
    return _profile(segments)


def _too_large(segments: Sequence[Segment]) -> bool:
    left, right = min(min(s.z0, s.z1) for s in segments), max(max(s.z0, s.z1) for s in segments)
    return right - left > LENGTH_MOST or max(max(s.r0, s.r1) for s in segments) * 2 > DIAMETER_MOST


def _profile(segments: Sequence[Segment]) -> DrawnProfile:
    lowest = min(segments, key=lambda s: min(s.r0, s.r1))
    if min(lowest.r0, lowest.r1) < -MEET_MM:
        z, r = (lowest.z0, lowest.r0) if lowest.r0 < lowest.r1 else (lowest.z1, lowest.r1)
        raise refuse(
            "The profile goes below the axis at {p}: draw the upper half, with the axis at y = 0.", p=place(z, r)
        )
    left = min(min(s.z0, s.z1) for s in segments)
    if _too_large(segments):
        raise refuse(
            "The profile is larger than Ø{d} × {l}: is the unit right?",
            d=Figure(DIAMETER_MOST, "mm"),
            l=Figure(LENGTH_MOST, "mm"),
        )
    chain, closed = joined([replace(s, z0=s.z0 - left, z1=s.z1 - left) for s in segments])
    notes: list[Sentence] = []
    if not closed:
        _open_as_an_outside_is(chain)
        if chain[0].z0 > chain[-1].z1:
            chain = [s.turned() for s in reversed(chain)]
        return DrawnProfile(
            _steps(chain, True, notes),
            (),
            (),
            (Sentence("The line is open: it is read as the outside of a solid part."), *notes),
        )
    outer, inner = _halves(chain)
    outside = _steps(outer, True, notes)
    bores = _bores(inner, notes)
    return DrawnProfile(outside, *bores, tuple(notes))


def _open_as_an_outside_is(chain: list[Segment]) -> None:
    """An outside alone runs from one face to the other: a line that ends elsewhere is an outline with a gap."""
    first, last = (chain[0].z0, chain[0].r0), (chain[-1].z1, chain[-1].r1)
    left, right = min(min(s.z0, s.z1) for s in chain), max(max(s.z0, s.z1) for s in chain)
    ends = sorted((first[0], last[0]))
    if ends[0] - left < MEET_MM and right - ends[1] < MEET_MM:
        return
    raise refuse(
        "The outline has a gap at {p}: its other end is {g} away, at {q}. Close it in the drawing.",
        p=place(*first),
        q=place(*last),
        g=Figure(math.dist(first, last), "mm", places=(3, 4)),
    )


def _halves(chain: list[Segment]) -> tuple[list[Segment], list[Segment]]:
    """(outer, inner) contour, both from the least z to the greatest, without the two end faces' lower parts."""
    area = sum((s.z1 - s.z0) * (s.r0 + s.r1) / 2 for s in chain)
    if area < 0:  # counter-clockwise: the outside runs from right to left
        chain = [s.turned() for s in reversed(chain)]
    least, most = min(s.z0 for s in chain), max(s.z0 for s in chain)
    # The outside begins at the highest point of the left face and ends at the highest of the right one.
    first = max((i for i, s in enumerate(chain) if abs(s.z0 - least) < MEET_MM), key=lambda i: chain[i].r0)
    around = chain[first:] + chain[:first]
    last = max((i for i, s in enumerate(around) if abs(s.z0 - most) < MEET_MM), key=lambda i: around[i].r0)
    return around[:last], [s.turned() for s in reversed(around[last:])]


def _bores(inner: list[Segment], notes: list[Sentence]) -> tuple[tuple[TurnedStep, ...], tuple[TurnedStep, ...]]:
    """(from end A, from end B): what lies between the axis and the material."""
    line = [s for s in inner if max(s.r0, s.r1) > MEET_MM and not (s.r0 < MEET_MM and s.r1 < MEET_MM)]
    if not line:
        return (), ()
    on_axis = [s for s in inner if s.r0 < MEET_MM and s.r1 < MEET_MM and abs(s.z1 - s.z0) > MEET_MM]
    if not on_axis:
        steps = _steps(_trim(line), False, notes)
        return (*steps[:-1], replace(steps[-1], length_mm=None)), ()
    solid = (min(min(s.z0, s.z1) for s in on_axis), max(max(s.z0, s.z1) for s in on_axis))
    from_a = _trim([s for s in line if max(s.z0, s.z1) <= solid[0] + MEET_MM])
    from_b = _trim([s for s in line if min(s.z0, s.z1) >= solid[1] - MEET_MM])
    mirrored = [Segment(-s.z1, s.r1, -s.z0, s.r0, s.bulge) for s in reversed(from_b)]
    ends = [_steps(bore, False, notes) if bore else () for bore in (from_a, mirrored)]
    return ends[0], ends[1]


def _trim(line: list[Segment]) -> list[Segment]:
    """A bore's wall without the faces and bottoms at its two ends that reach the axis or the outside."""
    kept = list(line)
    while kept and abs(kept[0].z1 - kept[0].z0) < SAME_MM:
        kept.pop(0)
    while kept and abs(kept[-1].z1 - kept[-1].z0) < SAME_MM:
        kept.pop()
    return kept


def _is_edge(s: Segment) -> str | None:
    """ "chamfer" for a short 45° line, "round" for a quarter of a circle, else None."""
    dz, dr = abs(s.z1 - s.z0), abs(s.r1 - s.r0)
    if abs(dz - dr) > SAME_MM or not SAME_MM < dz <= EDGE_MOST_MM:
        return None
    if s.bulge == 0:
        return "chamfer"
    return "round" if abs(abs(s.bulge) - math.tan(math.pi / 8)) < 0.005 else None


def _edges(line: Sequence[Segment]) -> dict[int, tuple[str, float]]:
    """Which segments are an edge or corner of the cylinder beside them: index -> (kind, size [mm])."""
    found: dict[int, tuple[str, float]] = {}
    for i, s in enumerate(line):
        kind = _is_edge(s)
        level = [j for j in (i - 1, i + 1) if 0 <= j < len(line) and abs(line[j].r1 - line[j].r0) < SAME_MM]
        upright = i in (0, len(line) - 1) or any(abs(line[j].z1 - line[j].z0) < SAME_MM for j in (i - 1, i + 1))
        if kind and len(level) == 1 and upright:
            found[i] = (kind, abs(s.z1 - s.z0))
    return found


def _steps(line: Sequence[Segment], outside: bool, notes: list[Sentence]) -> tuple[TurnedStep, ...]:
    """Steps of a contour from its end inward; edges and corners go to the cylinder beside them."""
    made: list[TurnedStep] = []
    edges = _edges(line)
    for i, s in enumerate(line):
        if i in edges or abs(s.z1 - s.z0) < SAME_MM:
            continue
        if s.z1 < s.z0:
            raise refuse(
                "The profile turns back at {p}: a lathe tool from either end cannot follow an "
                "undercut drawn like this.",
                p=place(s.z0, s.r0),
            )
        name = f"{'Step' if outside else 'Bore'} {len(made) + 1}"
        if abs(s.r1 - s.r0) < SAME_MM and s.bulge == 0:
            made.append(_cylinder(name, line, i, edges, outside, notes))
        else:
            made.append(_sloped(name, s))
    if not made:
        raise refuse("The drawing has no length along the axis: draw x along the axis and y from it.")
    return tuple(made)


def _cylinder(
    name: str,
    line: Sequence[Segment],
    i: int,
    edges: dict[int, tuple[str, float]],
    outside: bool,
    notes: list[Sentence],
) -> TurnedStep:
    """A cylinder with the edges and corners at its ends."""
    s, proud = line[i], 1 if outside else -1
    length, sizes = s.z1 - s.z0, dict[str, float]()
    for j in (i - 1, i + 1):
        if j not in edges:
            continue
        kind, size = edges[j]
        length += size
        stands = proud * (s.r0 - (line[j].r0 if j < i else line[j].r1)) > 0
        field = ("chamfer_mm" if kind == "chamfer" else "round_mm") if stands else "corner_mm"
        if not stands and kind == "chamfer":
            notes.append(
                Sentence("{name}: the 45° line in its inside corner is read as a corner radius of its size.", name=name)
            )
        if field in sizes and abs(sizes[field] - size) > SAME_MM:
            notes.append(Sentence("{name}: its two edges differ; the larger is taken.", name=name))
        sizes[field] = round(max(size, sizes.get(field, 0.0)), 6)
    return replace(TurnedStep(name, round(2 * s.r0, 6), round(length, 6)), **sizes)  # type: ignore[arg-type]


def _sloped(name: str, s: Segment) -> TurnedStep:
    """A taper or an arc."""
    if min(s.r0, s.r1) < MEET_MM:
        raise refuse("The profile comes to a point on the axis at {p}: end it with a small flat.", p=place(s.z1, s.r1))
    arc = None
    if s.bulge:
        _, _, radius = arc_centre(Vertex(s.z0, s.r0, s.bulge), Vertex(s.z1, s.r1))
        arc = round(-math.copysign(radius, s.bulge), 6)
    return TurnedStep(name, round(2 * s.r0, 6), round(s.z1 - s.z0, 6), end_diameter_mm=round(2 * s.r1, 6), arc_mm=arc)

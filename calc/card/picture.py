"""A side's section on paper: black on white, as SVG."""

from __future__ import annotations

from collections.abc import Iterator, Sequence
from dataclasses import replace
from html import escape

from calc.quantities import System
from calc.scene.shapes import Dimension, Label, Scene, Shape

DRAWN = ("chuck", "master", "jaw", "bolt", "hole", "part", "outline", "axis", "centre", "keepout", "hidden")
HATCHED = {"jaw": "jaw", "master": "jaw", "part": "part", "keepout": "keepout"}
SHADED = {"chuck": "#ddd", "removed": "#999", "gap": "#777", "track": "#fff", "tool": "#eee", "insert": "#fff"}
LINES = {"axis": "10 3 2 3", "hidden": "5 3", "ghost": "2 3"}
STOP = "hold"  # whose layer is drawn: the piece as it is held
TEXT = 0.032  # of the picture's width
TIP = 0.012
ROUND = 0.09  # of the width, left round a small picture for the words at its edges


def svg_of(scene: Scene, system: System, width_mm: float, facts: tuple[str, ...] = (), name: str = "") -> str:
    """The scene's bodies as wide on paper as `width_mm` [mm, > 0], with the dimensions of these facts; pictures of one
    page have a `name` each.

    The text is in the picture's own millimetres, so that it is as large beside a small part as beside a large one.
    """
    wide = scene.box[2] - scene.box[0]
    body = "".join((*_shapes(scene.shapes, wide, name), *_dimensions(scene.dimensions, facts, wide, system)))
    return _framed(scene, system, width_mm, name, body)


def plain_svg(scene: Scene, system: System, width_mm: float, name: str = "") -> str:
    """A small scene with all that is on it, its words too, as wide on paper as `width_mm` [mm, > 0]."""
    left, low, right, high = scene.box
    room = ROUND * (right - left)
    scene = replace(scene, box=(left - room, low - room, right + room, high + room))
    wide = right - left + 2 * room
    facts = tuple(d.fact for d in scene.dimensions)
    every = ("ghost", *DRAWN, *SHADED, "path")
    body = "".join(
        (
            *_shapes(scene.shapes, wide, name, every),
            *_dimensions(scene.dimensions, facts, wide, system),
            *_labels(scene.labels, wide, system),
        )
    )
    return _framed(scene, system, width_mm, name, body)


def _framed(scene: Scene, system: System, width_mm: float, name: str, body: str) -> str:
    left, low, right, high = scene.box
    wide, tall = right - left, high - low
    words = escape(" ".join(w.text(system) for w in scene.words))
    size = f'width="{width_mm:g}mm" height="{width_mm * tall / wide:.2f}mm"'
    box = f'viewBox="{left:.3f} {-high:.3f} {wide:.3f} {tall:.3f}"'
    head = f'<svg xmlns="http://www.w3.org/2000/svg" {size} {box} role="img" aria-label="{words}">'
    return f'{head}{_hatches(wide, name)}<g stroke-linejoin="round">{body}</g></svg>'


def _labels(labels: tuple[Label, ...], wide: float, system: System) -> Iterator[str]:
    for label in labels:
        (x, y), text = label.point, escape(label.text.text(system))
        place = f'x="{x:.3f}" y="{-y:.3f}" text-anchor="{label.anchor}" font-size="{1.4 * TEXT * wide:.3f}"'
        yield f"<text {place}>{text}</text>"


def _hatches(wide: float, of: str) -> str:
    pitch, line = wide / 70, wide / 900

    def hatch(name: str, turned: int, across: bool = False) -> str:
        more = f'<path d="M0 0H{pitch:.3f}" stroke="#000" stroke-width="{line:.3f}"/>' if across else ""
        return (
            f'<pattern id="{name}{of}" width="{pitch:.3f}" height="{pitch:.3f}" patternUnits="userSpaceOnUse" '
            f'patternTransform="rotate({turned})"><path d="M0 0V{pitch:.3f}" stroke="#000" '
            f'stroke-width="{line:.3f}"/>{more}</pattern>'
        )

    return f"<defs>{hatch('jaw', 45)}{hatch('part', -45)}{hatch('keepout', 0, across=True)}</defs>"


def _shapes(shapes: tuple[Shape, ...], wide: float, of: str, drawn: Sequence[str] = DRAWN) -> Iterator[str]:
    thin = wide / 500
    for shape in shapes:
        if shape.role not in drawn or shape.group or (shape.stops and STOP not in shape.stops):
            continue
        path = "L".join(f"{x:.3f} {-y:.3f}" for x, y in shape.points)
        hatched = HATCHED.get(shape.role)
        fill = f"url(#{hatched}{of})" if hatched else SHADED.get(shape.role, "#fff")
        if not shape.closed or shape.role in ("outline", "ghost"):
            fill = "none"
        under = f'<path d="M{path}Z" fill="#fff"/>' if hatched else ""
        dashed = LINES.get(shape.role)
        dash = f' stroke-dasharray="{" ".join(f"{float(d) * thin:.3f}" for d in dashed.split())}"' if dashed else ""
        width = 2 * thin if shape.role == "part" else thin
        yield (
            f'{under}<path d="M{path}{"Z" if shape.closed else ""}" fill="{fill}" stroke="#000" '
            f'stroke-width="{width:.3f}"{dash}/>'
        )


def _dimensions(
    dimensions: tuple[Dimension, ...], facts: tuple[str, ...], wide: float, system: System
) -> Iterator[str]:
    size, thin, tip = TEXT * wide, wide / 700, TIP * wide
    for d in dimensions:
        if d.fact not in facts or d.group:
            continue
        (x0, y0), (x1, y1) = d.start, d.end
        along = y0 == y1 or abs(x1 - x0) > abs(y1 - y0)
        if along:
            y = y0 + d.offset
            ends, at, turn = ((x0, y), (x1, y)), ((x0 + x1) / 2, y + size / 3), 0
        else:
            x = x0 + d.offset
            ends, at, turn = ((x, y0), (x, y1)), (x - size / 3, (y0 + y1) / 2), -90
        text = escape(f"{d.prefix}{d.figure.text(system)}")
        (a, b), (c, e) = ends
        for (px, py), (qx, qy) in ((d.start, ends[0]), (d.end, ends[1])):
            yield f'<path d="M{px:.3f} {-py:.3f}L{qx:.3f} {-qy:.3f}" stroke="#000" stroke-width="{thin / 2:.3f}"/>'
        yield f'<path d="M{a:.3f} {-b:.3f}L{c:.3f} {-e:.3f}" stroke="#000" stroke-width="{thin:.3f}"/>'
        for px, py in ends:
            yield f'<circle cx="{px:.3f}" cy="{-py:.3f}" r="{tip / 3:.3f}"/>'
        yield (
            f'<text transform="translate({at[0]:.3f} {-at[1]:.3f}) rotate({turn})" text-anchor="middle" '
            f'font-size="{size:.3f}" font-weight="600">{text}</text>'
        )

"""The half-section of a part written as a drawing, DXF or SVG: x along the axis, y from it."""

from __future__ import annotations

import io

from calc.profile.body import Body
from calc.profile.chain import MEET_MM
from calc.profile.contour import Vertex, arc_centre


def outline_of(body: Body) -> list[Vertex]:
    """The closed outline of the half-section: along the outside, back along the bores or the axis."""
    around = list(body.outer)
    bores = sorted(body.bores, key=lambda b: b[0].z)
    whole = body.length_mm
    back: list[Vertex] = []
    at = 0.0
    for bore in bores:
        if bore[0].z > at + MEET_MM:
            back += [Vertex(at, 0.0), Vertex(bore[0].z, 0.0)]
        back += list(bore)
        at = bore[-1].z
    if at < whole - MEET_MM:
        back += [Vertex(at, 0.0), Vertex(whole, 0.0)]
    turned = list(reversed(back))
    bulges = [-v.bulge for v in reversed(back[:-1])] + [0.0]
    around += [Vertex(v.z, v.r, bulge) for v, bulge in zip(turned, bulges, strict=True)]
    return around


def write_dxf(body: Body) -> str:
    """The half-section as a DXF drawing in mm: one closed polyline on layer PROFILE, the axis on AXIS."""
    import ezdxf

    drawing = ezdxf.new("R2010", units=4)  # type: ignore[attr-defined]
    drawing.layers.add("PROFILE")
    drawing.layers.add("AXIS", linetype="Continuous")
    space = drawing.modelspace()
    space.add_lwpolyline(
        [(v.z, v.r, v.bulge) for v in outline_of(body)], format="xyb", close=True, dxfattribs={"layer": "PROFILE"}
    )
    space.add_line((-5, 0), (body.length_mm + 5, 0), dxfattribs={"layer": "AXIS"})
    out = io.StringIO()
    drawing.write(out)
    return out.getvalue()


def write_svg(body: Body) -> str:
    """The half-section as an SVG drawing, true to size in mm."""
    outline = outline_of(body)
    top = max(v.r for v in outline) + 5
    path = [f"M{outline[0].z:.4f} {-outline[0].r:.4f}"]
    for a, b in zip(outline, [*outline[1:], outline[0]], strict=True):
        if a.bulge:
            _, _, radius = arc_centre(a, b)
            # y points down in SVG: an arc that turns left turns right there.
            path.append(f"A{radius:.4f} {radius:.4f} 0 0 {0 if a.bulge > 0 else 1} {b.z:.4f} {-b.r:.4f}")
        else:
            path.append(f"L{b.z:.4f} {-b.r:.4f}")
    width, height = body.length_mm + 10, top + 5
    return (
        f'<svg xmlns="http://www.w3.org/2000/svg" width="{width:.3f}mm" height="{height:.3f}mm" '
        f'viewBox="-5 {-top:.3f} {width:.3f} {height:.3f}">'
        f'<path d="{"".join(path)}Z" fill="none" stroke="black" stroke-width="0.35"/>'
        f'<path d="M-5 0H{body.length_mm + 5:.3f}" fill="none" stroke="black" stroke-width="0.18" stroke-dasharray="6 '
        '1 1 1"/></svg>\n'
    )

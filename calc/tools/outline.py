"""The outline of an insert, from its shape, inscribed circle and corner radius."""

from __future__ import annotations

import math

from calc.tools.insert_code import InsertCode

Point = tuple[float, float]
ARC_STEPS = 8


def _vertices(shape: str, ic: float, corner_deg: float) -> list[Point]:
    """Sharp corners around the circle of diameter ic, the cutting corner to the right."""
    r = ic / 2
    regular = {"S": 4, "T": 3, "P": 5, "H": 6, "O": 8}
    if shape in regular:
        n = regular[shape]
        out = r / math.cos(math.pi / n)
        return [(out * math.cos(2 * math.pi * i / n), out * math.sin(2 * math.pi * i / n)) for i in range(n)]
    half = math.radians(corner_deg / 2)
    if shape == "W":
        # Three corners of 80°; the faces between them meet at 160°, each touching the circle.
        sharp, blunt = r / math.sin(half), r / math.sin(math.radians(80.0))
        return [
            (d * math.cos(math.radians(60 * i)), d * math.sin(math.radians(60 * i)))
            for i, d in enumerate((sharp, blunt) * 3)
        ]
    long, short = r / math.sin(half), r / math.cos(half)
    return [(long, 0.0), (0.0, short), (-long, 0.0), (0.0, -short)]


def _rounded(before: Point, at: Point, after: Point, radius: float) -> list[Point]:
    """The corner at a vertex, rounded."""

    def unit(p: Point) -> Point:
        size = math.hypot(p[0] - at[0], p[1] - at[1])
        return ((p[0] - at[0]) / size, (p[1] - at[1]) / size)

    a, b = unit(before), unit(after)
    angle = math.acos(max(-1.0, min(1.0, a[0] * b[0] + a[1] * b[1])))
    back = radius / math.tan(angle / 2)
    middle = (a[0] + b[0], a[1] + b[1])
    size = math.hypot(*middle)
    centre = (
        at[0] + middle[0] / size * radius / math.sin(angle / 2),
        at[1] + middle[1] / size * radius / math.sin(angle / 2),
    )
    start, end = (at[0] + a[0] * back, at[1] + a[1] * back), (at[0] + b[0] * back, at[1] + b[1] * back)
    t0, t1 = (math.atan2(p[1] - centre[1], p[0] - centre[0]) for p in (start, end))
    turn = (t1 - t0 + math.pi) % (2 * math.pi) - math.pi
    return [
        (
            centre[0] + radius * math.cos(t0 + turn * i / ARC_STEPS),
            centre[1] + radius * math.sin(t0 + turn * i / ARC_STEPS),
        )
        for i in range(ARC_STEPS + 1)
    ]


def outline(code: InsertCode) -> tuple[Point, ...]:
    """The insert from above [mm], its centre at the origin, its cutting corner to the right."""
    if code.shape == "R":
        return tuple(
            (code.ic_mm / 2 * math.cos(math.pi * i / 24), code.ic_mm / 2 * math.sin(math.pi * i / 24))
            for i in range(48)
        )
    corners = _vertices(code.shape, code.ic_mm, code.corner_deg)
    if code.corner_radius_mm <= 0:
        return tuple(corners)
    found: list[Point] = []
    for i, at in enumerate(corners):
        blunt = code.shape == "W" and i % 2 == 1
        found += [at] if blunt else _rounded(corners[i - 1], at, corners[(i + 1) % len(corners)], code.corner_radius_mm)
    return tuple(found)

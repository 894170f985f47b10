"""The symbols of indexable inserts: ISO 1832, and ANSI B212.4 with its inch digits."""

from __future__ import annotations

import math
from collections.abc import Callable, Mapping
from dataclasses import dataclass

INCH = 25.4

# Position 1: shape. (what it is, corner angle [deg])
SHAPES: dict[str, tuple[str, float]] = {
    "R": ("round", 360.0),
    "S": ("square, 90°", 90.0),
    "C": ("rhombic, 80°", 80.0),
    "W": ("trigon, 80°", 80.0),
    "T": ("triangle, 60°", 60.0),
    "D": ("rhombic, 55°", 55.0),
    "V": ("rhombic, 35°", 35.0),
    "E": ("rhombic, 75°", 75.0),
    "M": ("rhombic, 86°", 86.0),
    "H": ("hexagon, 120°", 120.0),
    "O": ("octagon, 135°", 135.0),
    "P": ("pentagon, 108°", 108.0),
}
# Position 2: clearance under the cutting edge [deg].
CLEARANCES = {"A": 3, "B": 5, "C": 7, "D": 15, "E": 20, "F": 25, "G": 30, "N": 0, "P": 11}
# Position 3: how closely it is made.
TOLERANCES = {
    "A": "ground, ±0.005 mm at the corner",
    "F": "ground, ±0.005 mm at the corner",
    "C": "ground, ±0.013 mm at the corner",
    "H": "ground, ±0.013 mm at the corner",
    "E": "ground, ±0.025 mm at the corner",
    "G": "ground, ±0.025 mm, thick ±0.13 mm",
    "J": "faces ground, inscribed circle as sintered",
    "K": "faces ground, inscribed circle as sintered",
    "L": "faces ground, inscribed circle as sintered",
    "M": "as sintered, medium",
    "N": "as sintered, thickness ground",
    "U": "as sintered, wide",
}
GROUND = "AFCHEG"
# Position 4: hole and chip breaker. (what it is, faces that cut: 1 single-sided, 2 double-sided)
TYPES: dict[str, tuple[str, int]] = {
    "N": ("no hole, no breaker", 2),
    "R": ("no hole, breaker on one face", 1),
    "F": ("no hole, breaker on both faces", 2),
    "A": ("plain hole, no breaker", 2),
    "M": ("plain hole, breaker on one face", 1),
    "G": ("plain hole, breaker on both faces", 2),
    "W": ("countersunk hole, no breaker", 1),
    "T": ("countersunk hole, breaker on one face", 1),
    "Q": ("hole countersunk from both faces, no breaker", 2),
    "U": ("hole countersunk from both faces, breaker on both", 2),
    "B": ("steep countersink, no breaker", 1),
    "H": ("steep countersink, breaker on one face", 1),
    "C": ("steep countersink from both faces, no breaker", 2),
    "J": ("steep countersink from both faces, breaker on both", 2),
}


def _rhombic(corner_deg: float) -> Callable[[float], float]:
    return lambda ic: ic / math.sin(math.radians(corner_deg))


# Edge length [mm] over the inscribed circle, from the shape's geometry; a trigon's is 0.684 (ISO 6987 table).
_EDGE: dict[str, Callable[[float], float]] = {
    "R": lambda ic: ic,
    "S": lambda ic: ic,
    "T": lambda ic: ic * math.sqrt(3),
    "H": lambda ic: ic / math.sqrt(3),
    "O": lambda ic: ic * math.tan(math.radians(22.5)),
    "P": lambda ic: ic * math.tan(math.radians(36)),
    "W": lambda ic: ic * 0.6842,
    **{s: _rhombic(SHAPES[s][1]) for s in "CDEMV"},
}

# Inscribed circle [mm] by the ANSI size in eighths of an inch.
ANSI_SIZES: dict[str, float] = {
    "1.2": 3.96875,
    "1.5": 4.7625,
    "1.8": 5.55625,
    "2": 6.35,
    "2.5": 7.9375,
    "3": 9.525,
    "4": 12.7,
    "5": 15.875,
    "6": 19.05,
    "7": 22.225,
    "8": 25.4,
    "10": 31.75,
}
ROUND_METRIC = (5.0, 6.0, 8.0, 10.0, 12.0, 16.0, 20.0, 25.0, 32.0)
# ISO thickness symbol -> [mm]; each is a count of sixteenths of an inch.
THICKNESSES: dict[str, float] = {
    "01": 1.5875,
    "T1": 1.984375,
    "02": 2.38125,
    "03": 3.175,
    "T3": 3.96875,
    "04": 4.7625,
    "05": 5.55625,
    "06": 6.35,
    "07": 7.9375,
    "09": 9.525,
}
ANSI_THICKNESSES = {
    "1": "01",
    "1.2": "T1",
    "1.5": "02",
    "2": "03",
    "2.5": "T3",
    "3": "04",
    "3.5": "05",
    "4": "06",
    "5": "07",
    "6": "09",
}
# Corner radius: ISO symbol in tenths of a millimetre; ANSI in 64ths of an inch.
CORNERS: dict[str, float] = {
    "00": 0.0,
    "01": 0.1,
    "02": 0.2,
    "04": 0.4,
    "08": 0.8,
    "12": 1.2,
    "16": 1.6,
    "20": 2.0,
    "24": 2.4,
    "28": 2.8,
    "32": 3.2,
}
ANSI_CORNERS = {
    "0": "00",
    "0.2": "01",
    "0.5": "02",
    "1": "04",
    "2": "08",
    "3": "12",
    "4": "16",
    "5": "20",
    "6": "24",
    "7": "28",
    "8": "32",
}
ANSI_OF_THICKNESS = {iso: ansi for ansi, iso in ANSI_THICKNESSES.items()}
ANSI_OF_CORNER = {iso: ansi for ansi, iso in ANSI_CORNERS.items()}
ANSI_RADII_MM = {symbol: float(symbol) * INCH / 64 for symbol in ANSI_CORNERS} | {"0.2": INCH / 256}
EDGES = {"F": "sharp", "E": "honed", "T": "chamfered", "S": "chamfered and honed"}
HANDS = {"R": "right-hand", "L": "left-hand", "N": "either hand"}
_ROUNDS_UP = 0.01  # 6.35 · √3 = 10.9985 is called 11


def edge_mm(shape: str, ic_mm: float) -> float:
    """Length of the cutting edge [mm] of a shape with this inscribed circle; a round one's is its diameter."""
    return _EDGE[shape](ic_mm)


def edge_symbol(shape: str, ic_mm: float) -> str:
    """The two ISO figures of the edge length: whole millimetres, the rest dropped."""
    return f"{int(edge_mm(shape, ic_mm) + _ROUNDS_UP):02d}"


@dataclass(frozen=True, slots=True)
class Size:
    """An inscribed circle [mm] that a shape is made with, and its ANSI figures; None where there are none."""

    ic_mm: float
    ansi: str | None


def _sizes(shape: str) -> dict[str, Size]:
    found: dict[str, Size] = {}
    for ansi, ic in ANSI_SIZES.items():
        # Where two circles give the same whole millimetres the larger one has the plain figures.
        found[edge_symbol(shape, ic)] = Size(ic, ansi)
    return found


# ISO edge figures -> size, by shape. Round inserts in mm have figures of their own with M0 for the corner.
SIZES: Mapping[str, Mapping[str, Size]] = {shape: _sizes(shape) for shape in SHAPES}
METRIC_ROUNDS = {f"{int(d):02d}": Size(d, None) for d in ROUND_METRIC}

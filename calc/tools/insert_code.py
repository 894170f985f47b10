"""What an insert's designation says, in both systems: calculator `insert-code`."""

from __future__ import annotations

import re
from collections.abc import Iterable
from dataclasses import dataclass
from typing import Annotated, Literal, NoReturn

from calc.describing import calculator
from calc.errors import FieldProblem
from calc.fields import Checked, Text
from calc.quantities import Sentence
from calc.results import Explained, Found
from calc.tools.designation import (
    ANSI_CORNERS,
    ANSI_OF_CORNER,
    ANSI_OF_THICKNESS,
    ANSI_RADII_MM,
    ANSI_SIZES,
    ANSI_THICKNESSES,
    CLEARANCES,
    CORNERS,
    EDGES,
    GROUND,
    HANDS,
    METRIC_ROUNDS,
    SHAPES,
    SIZES,
    THICKNESSES,
    TOLERANCES,
    TYPES,
    Size,
    edge_mm,
    edge_symbol,
)
from calc.working import Source, Working

ISO = Source("standard", "ISO 1832")
ANSI = Source("standard", "ANSI B212.4")
_ISO_FIGURES = re.compile(r"(\d\d)(\d\d|T\d)(\d\d|M0)(.*)")
_TAIL = re.compile(r"(?P<edge>[FETS])?(?P<hand>[RLN])?(?:[-\s](?P<breaker>[A-Z0-9]{1,6}))?")
_SUFFIX = re.compile(r"[A-Z][A-Z0-9]{0,5}")  # a breaker written straight behind the figures
_WITHOUT_TYPE = re.compile(r"([A-Z]{3})(?=[\s\d])")  # an older inch code: no hole and no breaker


SYSTEM_WORDS = {"iso": "ISO 1832", "ansi": "ANSI B212.4"}


@dataclass(frozen=True)
class InsertCodeInput(Checked):
    """Input of `insert-code`."""

    code: Annotated[str, Text("Designation", "Such as CNMG 120408 or CNMG 432", most=30)]


@dataclass(frozen=True, slots=True)
class Letter:
    """One symbol of a designation: which position, what it is called, and what it means."""

    position: Annotated[int, Found("Place")]
    symbol: Annotated[str, Found("Written")]
    name: Annotated[str, Found("Stands for")]
    meaning: Annotated[str, Found("Meaning")]

    @property
    def called(self) -> str:
        """What it stands for."""
        return f"{self.symbol}, {self.name[:1].lower()}{self.name[1:]}"

    @property
    def told(self) -> str:
        """What it means."""
        return self.meaning


@dataclass(frozen=True, slots=True, kw_only=True)
class InsertCode(Explained):
    """An insert, decoded. `iso` and `ansi` are its designations, None where a system has none for it."""

    system: Annotated[Literal["iso", "ansi"], Found("Written in", options=SYSTEM_WORDS)]
    shape: Annotated[str, Found("Shape")]
    clearance_deg: Annotated[float, Found("Clearance", "deg")]
    tolerance: Annotated[str, Found("Tolerance class")]
    type: Annotated[str, Found("Type")]
    ic_mm: Annotated[float, Found("Inscribed circle", "mm", places=(3, 4))]
    edge_mm: Annotated[float, Found("Edge length", "mm")]
    thickness_mm: Annotated[float, Found("Thickness", "mm", places=(3, 4))]
    corner_radius_mm: Annotated[float, Found("Corner radius", "mm")]
    iso: Annotated[str | None, Found("ISO 1832")]
    ansi: Annotated[str | None, Found("ANSI B212.4")]
    corner_deg: Annotated[float, Found("Corner angle", "deg")]
    edges: Annotated[int, Found("Edges")]
    ground: Annotated[bool, Found("Ground")]
    double_sided: Annotated[bool, Found("Double-sided")]
    breaker: Annotated[str, Found("Breaker")]
    letters: Annotated[tuple[Letter, ...], Found("Each place")]


def _refuse(position: int, symbol: str, what: str, known: Iterable[str]) -> NoReturn:
    words = Sentence(
        "Position {n}, “{s}”: {what} may be {known}.",
        n=str(position),
        s=symbol or "nothing",
        what=what,
        known=", ".join(known),
    )
    raise FieldProblem("code", words)


def _letters(code: str) -> str:
    tables = {
        "shape": tuple(SHAPES),
        "clearance": tuple(CLEARANCES),
        "tolerance": tuple(TOLERANCES),
        "type": tuple(TYPES),
    }
    for i, (what, known) in enumerate(tables.items(), start=1):
        symbol = code[i - 1 : i]
        if symbol not in known:
            _refuse(i, symbol, f"the {what}", known)
    return code[:4]


@dataclass(frozen=True, slots=True)
class _Figures:
    """What stands behind the four letters."""

    system: Literal["iso", "ansi"]
    size: Size
    thickness: str  # ISO symbols
    corner: str
    corner_mm: float
    said: tuple[str, str, str]
    tail: str


def _iso_figures(shape: str, rest: str) -> _Figures | None:
    found = _ISO_FIGURES.fullmatch(rest)
    if found is None:
        return None
    size, thickness, corner, tail = found.groups()
    metric_round = shape == "R" and corner == "M0"
    sizes = METRIC_ROUNDS if metric_round else SIZES[shape]
    if size not in sizes:
        _refuse(5, size, f"the edge length of a {SHAPES[shape][0].split(',')[0]} insert", sizes)
    if thickness not in THICKNESSES:
        _refuse(6, thickness, "the thickness", THICKNESSES)
    if corner == "M0" and shape != "R":
        _refuse(7, corner, "the corner radius", CORNERS)
    if not metric_round and corner not in CORNERS:
        _refuse(7, corner, "the corner radius", CORNERS)
    known = sizes[size]
    radius = known.ic_mm / 2 if shape == "R" else CORNERS[corner]
    return _Figures("iso", known, thickness, corner, radius, (size, thickness, corner), tail)


def _ansi_figures(shape: str, rest: str) -> _Figures:
    short = re.fullmatch(r"(\d\d)(0\d|T\d)?", rest)
    if short is not None and short[1] in SIZES[shape]:  # two ISO figures, and not all of the rest
        _refuse(
            7 if short[2] else 6,
            "",
            "the corner radius" if short[2] else "the thickness",
            CORNERS if short[2] else THICKNESSES,
        )
    found = re.fullmatch(r"([\d.]+)(.*)", rest)
    figures, tail = found.groups() if found else ("", rest)
    if not figures:
        _refuse(5, rest[:1], "the size", (*ANSI_SIZES, "or two ISO figures"))
    sizes = [s for s in ANSI_SIZES if figures.startswith(s)]
    if not sizes:
        _refuse(5, figures, "the size in eighths of an inch", ANSI_SIZES)
    for size in sorted(sizes, key=len, reverse=True):
        after = figures[len(size) :]
        for thickness in sorted((t for t in ANSI_THICKNESSES if after.startswith(t)), key=len, reverse=True):
            corner = after[len(thickness) :]
            if shape == "R" and corner == "":
                corner = "0"  # a round insert's radius is its circle's
            corner = "0" + corner if corner.startswith(".") else corner
            if corner in ANSI_CORNERS:
                ic = ANSI_SIZES[size]
                radius = ic / 2 if shape == "R" else ANSI_RADII_MM[corner]
                said = (size, thickness, corner)
                return _Figures(
                    "ansi", Size(ic, size), ANSI_THICKNESSES[thickness], ANSI_CORNERS[corner], radius, said, tail
                )
    after = figures[len(max(sizes, key=len)) :]
    if not any(after.startswith(t) for t in ANSI_THICKNESSES):
        _refuse(6, after, "the thickness in sixteenths of an inch", ANSI_THICKNESSES)
    thickness = max((t for t in ANSI_THICKNESSES if after.startswith(t)), key=len)
    _refuse(7, after[len(thickness) :], "the corner radius in 64ths of an inch", ANSI_CORNERS)


def _ansi(letters: str, f: _Figures) -> str | None:
    if f.size.ansi is None or f.thickness not in ANSI_OF_THICKNESS or f.corner not in ANSI_OF_CORNER:
        return None
    corner = ANSI_OF_CORNER[f.corner]
    return (
        f"{letters} {f.size.ansi}{ANSI_OF_THICKNESS[f.thickness]}{corner.removeprefix('0') if corner != '0' else '0'}"
    )


def _iso(letters: str, f: _Figures) -> str | None:
    shape = letters[0]
    metric_round = shape == "R" and f.size.ansi is None
    if not metric_round and SIZES[shape].get(edge_symbol(shape, f.size.ic_mm)) != f.size:
        return None  # another circle has these whole millimetres
    size = f"{int(f.size.ic_mm):02d}" if metric_round else edge_symbol(shape, f.size.ic_mm)
    return f"{letters} {size}{f.thickness}{f.corner}"


def _tail(text: str) -> tuple[str, str, str]:
    found = _TAIL.fullmatch(text)
    if found is None and _SUFFIX.fullmatch(text):
        return "", "", text
    if found is None:
        _refuse(8, text, "the edge", (*EDGES, *HANDS, "or a hyphen and the breaker's letters"))
    return found["edge"] or "", found["hand"] or "", found["breaker"] or ""


def _explained(letters: str, f: _Figures, tail: tuple[str, str, str]) -> tuple[Letter, ...]:
    shape, clearance, tolerance, kind = tuple(letters)
    size, thickness, corner = f.said
    inch = f.system == "ansi"
    said = [
        Letter(1, shape, "Shape", SHAPES[shape][0]),
        Letter(2, clearance, "Clearance", f"{CLEARANCES[clearance]}° under the edge"),
        Letter(3, tolerance, "Tolerance", TOLERANCES[tolerance]),
        Letter(4, kind, "Type", TYPES[kind][0]),
        Letter(5, size, "Size", f"inscribed circle {f.size.ic_mm:.2f} mm" + (f", {size}/8 in" if inch else "")),
        Letter(
            6, thickness, "Thickness", f"{THICKNESSES[f.thickness]:.2f} mm" + (f", {thickness}/16 in" if inch else "")
        ),
        Letter(
            7,
            corner,
            "Corner",
            "full circle"
            if shape == "R"
            else "sharp"
            if f.corner_mm == 0
            else f"radius {f.corner_mm:.2f} mm" + (f", {corner}/64 in" if inch else ""),
        ),
    ]
    edge, hand, breaker = tail
    if edge:
        said.append(Letter(8, edge, "Edge", EDGES[edge]))
    if hand:
        said.append(Letter(9, hand, "Hand", HANDS[hand]))
    if breaker:
        said.append(Letter(10, breaker, "Breaker", "the shop's or its maker's own letters: see the box"))
    return tuple(said)


def cutting_edges(shape: str, *, double_sided: bool) -> int:
    """How many corners an insert of this shape has to use; a round one counts as eight settings on a face."""
    per_face = {"R": 8, "S": 4, "C": 2, "D": 2, "V": 2, "E": 2, "M": 2, "T": 3, "W": 3, "H": 6, "O": 8, "P": 5}[shape]
    return per_face * (2 if double_sided else 1)


@calculator(InsertCodeInput)
def insert_code(given: InsertCodeInput) -> InsertCode:
    """What an insert's designation says, and how the other system writes it.

    Parameters
        {parameters}
    Returns
        system; shape, tolerance, type: their letters; clearance_deg; ic_mm, edge_mm, thickness_mm,
        corner_radius_mm [mm]; iso, ansi: the designations, None where a system has none; corner_deg;
        edges: corners to use; ground, double_sided; breaker; letters: every symbol explained
    Raises
        FieldProblem at "code" with the position and what may stand there
    Validity
        Shapes whose size is an inscribed circle (R S C W T D V E M H O P); parallelograms and
        rectangles are refused. An ANSI corner is a 64th of an inch (2 = 0.794 mm), an ISO one a tenth of a mm.
    Example
        >>> r = insert_code(InsertCodeInput("CNMG 432"))
        >>> r.iso, r.ic_mm, round(r.corner_radius_mm, 3)
        ('CNMG 120408', 12.7, 0.794)

    Reference
        ISO 1832; ANSI B212.4
    """
    code = given.code.strip().upper().replace(",", ".")
    code = _WITHOUT_TYPE.sub(r"\1N", code, count=1) if _WITHOUT_TYPE.match(code) else code
    letters = _letters(code)
    rest = code[4:].strip()
    figures = _iso_figures(letters[0], rest) or _ansi_figures(letters[0], rest)
    tail = _tail(figures.tail)
    shape, clearance, tolerance, kind = tuple(letters)
    w = Working()
    source = ISO if figures.system == "iso" else ANSI
    inch = figures.system == "ansi"
    if inch and figures.size.ansi:
        ic = w.step("d", "Inscribed circle", "25.4 * n / 8", "mm", source, n=round(figures.size.ic_mm * 8 / 25.4, 4))
    else:
        ic = w.step("d", "Inscribed circle, from the table of this shape", "d_t", "mm", source, d_t=figures.size.ic_mm)
    edge = w.step("l", "Edge length", "k_l * d", "mm", source, k_l=edge_mm(shape, 1.0), d=ic)
    thickness = w.step(
        "s", "Thickness", "25.4 * n_s / 16", "mm", source, n_s=THICKNESSES[figures.thickness] * 16 / 25.4
    )
    if figures.corner_mm > 0:
        w.step("r", "Corner radius", "r_t", "mm", source, r_t=figures.corner_mm)
    double = TYPES[kind][1] == 2 and CLEARANCES[clearance] == 0
    return InsertCode(
        system=figures.system,
        shape=shape,
        clearance_deg=float(CLEARANCES[clearance]),
        tolerance=tolerance,
        type=kind,
        ic_mm=ic,
        edge_mm=edge,
        thickness_mm=thickness,
        corner_radius_mm=figures.corner_mm,
        iso=_iso(letters, figures),
        ansi=_ansi(letters, figures),
        corner_deg=SHAPES[shape][1],
        edges=cutting_edges(shape, double_sided=double),
        ground=tolerance in GROUND,
        double_sided=double,
        breaker=tail[2],
        letters=_explained(letters, figures, tail),
        working=tuple(w.steps),
        notes=tuple(w.notes),
    )

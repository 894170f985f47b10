"""Gauge readings from a typed or pasted table: speed and grip, a line each."""

from __future__ import annotations

import re
from dataclasses import dataclass
from itertools import pairwise

from calc.chuck.fit import GaugePoint
from calc.errors import CalcError, FieldError
from calc.quantities import Sentence, to_core

MOST = 5000
SPEEDS = {"rpm", "1/min", "min-1", "u/min"}
FORCES = {"n": "N", "kn": "kN", "lbf": "lbf"}
COLUMNS = re.compile(
    r"^\s*(?P<name>speed|rpm|n|grip|force|f)\s*[\[(,]?\s*(?P<unit>[a-z0-9/-]*)\s*[\])]?\s*$", re.IGNORECASE
)
FIGURE = re.compile(r"^[-+]?(\d+\.?\d*|\.\d+)$")


@dataclass(frozen=True)
class _Table:
    """How the lines are read: which column is which, and the unit of the grip."""

    speed: int
    grip: int
    unit: str


def _said(words: str, **figures: str) -> CalcError:
    return CalcError([FieldError("readings", Sentence(words, **figures))])


def _cells(line: str) -> list[str]:
    for separator in (";", "\t", ","):
        if separator in line:
            return [c.strip() for c in line.split(separator)]
    return line.split()


def _header(cells: list[str]) -> _Table:
    """The columns by their names. Raises CalcError for columns or units that are not known."""
    found: dict[str, tuple[int, str]] = {}
    for i, cell in enumerate(cells):
        match = COLUMNS.match(cell)
        if match is None:
            raise _said("“{cell}” is no column known here: name them “rpm” and “grip kN” (or N, lbf).", cell=cell[:40])
        name, unit = match["name"].lower(), match["unit"].lower()
        if name in ("speed", "rpm", "n"):
            if unit and unit not in SPEEDS:
                raise _said("Speed is read in rpm; “{unit}” is not known.", unit=unit)
            found["speed"] = (i, "rpm")
        else:
            if unit not in FORCES:
                raise _said("Say the unit of the grip in its column's name: “grip N”, “grip kN” or “grip lbf”.")
            found["grip"] = (i, FORCES[unit])
    if set(found) != {"speed", "grip"}:
        raise _said("Two columns are needed, “rpm” and “grip kN” (or N, lbf).")
    return _Table(found["speed"][0], found["grip"][0], found["grip"][1])


def _figure(cell: str, line: int) -> float:
    if re.fullmatch(r"\d+,\d+", cell):
        raise _said(
            "Line {n}: “{cell}” has a comma for its decimals. Write {dot}.",
            n=str(line),
            cell=cell,
            dot=cell.replace(",", "."),
        )
    plain = re.sub(r"(?<=\d)[ \u00a0\u202f](?=\d{3})", "", cell)
    if not FIGURE.match(plain):
        raise _said("Line {n}: “{cell}” is not a figure.", n=str(line), cell=cell[:40])
    return float(plain)


def read_readings(text: str) -> tuple[GaugePoint, ...]:
    """Readings from a table with a heading: “rpm; grip kN”, then a line a reading.

    Parameters
        text: lines with columns parted by semicolon, tab, comma or blanks; figures with a point
    Returns
        the readings in order; grips in N, sums over all jaws
    Raises
        CalcError at `readings` with the line and what to do: wrong columns or units, commas for decimals,
        a reading twice, a speed that falls and rises again (a run goes up, and down again at most once)
    """
    lines = [(i, line) for i, line in enumerate(text.splitlines(), 1) if line.strip()]
    if not lines:
        raise _said("There are no readings yet: a heading “rpm; grip kN”, then a line a reading.")
    table = _header(_cells(lines[0][1]))
    if len(lines) - 1 > MOST:
        raise _said("{most} readings at most can be taken in at once.", most=str(MOST))
    points: list[GaugePoint] = []
    problems: list[FieldError] = []
    seen: dict[tuple[float, float], int] = {}
    for number, line in lines[1:]:
        try:
            points.append(_reading(table, line, number, seen))
        except CalcError as error:
            problems += [FieldError("readings", e.sentence) for e in error.errors]
    if problems:
        raise CalcError(problems[:8])
    _require_one_rise(points)
    return tuple(points)


def _reading(table: _Table, line: str, number: int, seen: dict[tuple[float, float], int]) -> GaugePoint:
    cells = _cells(line)
    if len(cells) <= max(table.speed, table.grip):
        raise _said("Line {n} has {k} columns; the heading has more.", n=str(number), k=str(len(cells)))
    rpm, grip = _figure(cells[table.speed], number), _figure(cells[table.grip], number)
    if (rpm, grip) in seen:
        raise _said("Line {n} is line {m} again: take one of them out.", n=str(number), m=str(seen[rpm, grip]))
    seen[rpm, grip] = number
    try:
        return GaugePoint(rpm, to_core(grip, table.unit, "N"))
    except CalcError as error:
        raise CalcError(
            FieldError("readings", Sentence("Line {n}: {why}", n=str(number), why=e.sentence)) for e in error.errors
        ) from error


def _require_one_rise(points: list[GaugePoint]) -> None:
    falling = False
    for i, (a, b) in enumerate(pairwise(points), 2):
        if b.rpm < a.rpm:
            falling = True
        elif b.rpm > a.rpm and falling:
            raise _said(
                "The speed falls and rises again at reading {i}: a run goes up, and down again once. Take it in as "
                "two runs.",
                i=str(i),
            )

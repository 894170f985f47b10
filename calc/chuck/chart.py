"""A chuck's chart as it is typed or pasted, and what it means for the grip at heights."""

from __future__ import annotations

import re
from dataclasses import dataclass

from calc.chuck.book import ChuckForce
from calc.chuck.grip import ChuckGripInput, ChuckGripResult, chuck_grip
from calc.errors import CalcError, FieldError
from calc.quantities import Figure, Sentence, System, exact_text, from_core, shown_as
from calc.written import parse

MOST_ROWS = 60
HEIGHTS = (1.0, 1.5, 2.0)  # times the rated height
POINTS = 25  # of a curve drawn from piston figures, which has no points of its own


def read_chart(text: str, system: System = "metric") -> list[tuple[float, float]]:
    """Points (bar, N) from text of two columns, a row a line.

    Columns are parted by a tab, semicolon or spaces; a bare figure is in the unit shown for pressure and
    grip in `system`; a line of words above the figures is passed over. Rows may come in any order.

    Raises CalcError at `chart` with every bad row by its number.

    >>> read_chart("bar kN\\n10 25\\n20 50.5")
    [(10.0, 25000.0), (20.0, 50500.0)]
    """
    problems: list[FieldError] = []
    points: dict[float, float] = {}
    started = False
    for number, line in enumerate(text.splitlines(), 1):
        said = line.strip().strip("|").strip()
        if not said or (not started and not re.search(r"\d", said)):
            continue
        started = True
        try:
            pressure, grip = _row(said, system)
        except CalcError as error:
            problems += [_at_row(number, e.sentence) for e in error.errors]
            continue
        if pressure in points:
            problems.append(
                _at_row(
                    number,
                    Sentence("{p} is there twice; leave one of them out.", p=Figure(pressure, "bar", exact=True)),
                )
            )
        points[pressure] = grip
    if len(points) > MOST_ROWS:
        problems.append(FieldError("chart", Sentence(f"Give {MOST_ROWS} rows at most; straight lines need few.")))
    if problems:
        raise CalcError(problems)
    return sorted(points.items())


def _at_row(number: int, sentence: Sentence) -> FieldError:
    return FieldError("chart", Sentence("Row {n}: {said}", n=str(number), said=sentence))


def _row(said: str, system: System) -> tuple[float, float]:
    cells = [c.strip() for c in re.split(r"[\t;|]", said) if c.strip()]
    if len(cells) == 1:
        # Spaces part the columns; a unit may stand after either figure: "20 bar 50 kN".
        cells = [c.strip() for c in re.findall(r"[-−+]?[\d.,]+\s*[^\d\s.,]*", said)]
    if len(cells) != 2:
        raise CalcError([FieldError("chart", Sentence("Write two figures: pressure, then grip."))])
    pressure = parse(cells[0], "bar", system, "chart")
    grip = parse(cells[1], "N", system, "chart")
    if pressure < 0 or grip < 0:
        raise CalcError([FieldError("chart", Sentence("Neither pressure nor grip is below zero."))])
    return pressure, grip


def write_chart(points: list[tuple[float, float]], system: System = "metric") -> str:
    """The points as text that `read_chart` takes back, in the units of `system`."""

    def cell(value: float, unit: str) -> str:
        return exact_text(float(f"{from_core(value, unit, shown_as(unit, system)):.7g}"))

    return "\n".join(f"{cell(p, 'bar')}\t{cell(g, 'N')}" for p, g in points)


@dataclass(frozen=True)
class HeightCurve:
    """Grip against pressure with the jaws gripping at one height, in bar and N, as far as the chuck allows."""

    height_mm: float
    height_factor: float
    allowable_grip_n: float
    points: tuple[tuple[float, float], ...]
    stops_at_bar: float
    overload: bool

    @property
    def sentence(self) -> Sentence:
        """What the curve means, in words."""
        grip, most = Figure(self.points[-1][1], "N", "down"), Figure(self.stops_at_bar, "bar", "down")
        lost = Figure(100 * (1 - self.height_factor), "%", "up")
        if self.height_factor >= 1:
            return Sentence("{g} at {p}, the whole chart", g=grip, p=most)
        if self.overload:
            return Sentence("{lost} lost to height; no more than {p}, which gives {g}", lost=lost, p=most, g=grip)
        return Sentence("{lost} lost to height; {g} at {p}", lost=lost, g=grip, p=most)


def curves_at_heights(chuck: ChuckForce, jaws: int) -> tuple[HeightCurve, ...]:
    """What the chart means with the grip at the rated height, half as high again, and twice as high.

    Each curve ends at the highest pressure that chart, cylinder and the chuck's rated moment all allow.
    Source: docs/method.md, “What height costs” and “What the chuck can stand”.
    """
    if chuck.guide_length_mm == 0:  # a collet acts at its nose, and height costs it nothing
        return (_curve(chuck, jaws, 0.0),)
    return tuple(_curve(chuck, jaws, chuck.reference_height_mm * times) for times in HEIGHTS)


def _grip(chuck: ChuckForce, jaws: int, pressure: float, height: float) -> ChuckGripResult | None:
    try:
        return chuck_grip(ChuckGripInput(pressure, height, chuck, jaws=jaws))
    except CalcError:
        return None


def _highest(chuck: ChuckForce, jaws: int, height: float) -> tuple[float, bool]:
    """(highest pressure that nothing forbids at this height, whether the moment sets it)."""
    if chuck.chart:
        low, high = chuck.chart[0].pressure_bar, min(chuck.max_pressure_bar, chuck.chart[-1].pressure_bar)
    else:
        low, high = 0.0, chuck.max_pressure_bar

    def allowed(pressure: float) -> bool:
        got = _grip(chuck, jaws, pressure, height)
        return got is not None and not got.overloaded

    if allowed(high):
        return high, False
    moment = _grip(chuck, jaws, high, height) is not None
    # Grip rises with pressure, so halving finds the edge; the lower side is kept: never past it.
    for _ in range(50):
        middle = (low + high) / 2
        low, high = (middle, high) if allowed(middle) else (low, middle)
    return low, moment


def _curve(chuck: ChuckForce, jaws: int, height: float) -> HeightCurve:
    most, moment = _highest(chuck, jaws, height)
    pressures = [p.pressure_bar for p in chuck.chart if 0 < p.pressure_bar < most] if chuck.chart else []
    if not chuck.chart:
        pressures = [most * (i + 1) / POINTS for i in range(POINTS - 1)]
    results = [(p, _grip(chuck, jaws, p, height)) for p in (*pressures, most)]
    points = tuple((p, r.grip_n) for p, r in results if r is not None)
    last = results[-1][1]
    factor, allowable = (last.height_factor, last.allowable_grip_n) if last else (0.0, 0.0)
    return HeightCurve(height, factor, allowable, points or ((0.0, 0.0),), most, moment)

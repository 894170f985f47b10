"""Units, and figures in words.

The core computes in one system (mm, N, bar, m/min, mm/rev, rpm, kg, kW, N·m, degrees). Other units exist only here and
in `calc.written`, which reads them: `Figure` and `Sentence` turn core values into words in either unit system. pint
does the conversions and is loaded when first needed, so that a plain numeric calculation never waits for it.
"""

from __future__ import annotations

import re
from dataclasses import dataclass
from decimal import ROUND_CEILING, ROUND_FLOOR, Decimal
from functools import cache
from pathlib import Path
from typing import Any, Literal

System = Literal["metric", "inch"]
Rounding = Literal["near", "down", "up"]

NARROW_SPACE = "\u202f"


@dataclass(frozen=True, slots=True)
class Shown:
    """How a core unit is shown: the unit beside the figure and its decimal places."""

    unit: str
    places: int
    strip: bool = False  # drop trailing zeros: feeds and factors read better bare


# Core unit -> how it is shown, metric and inch.
SHOWN: dict[str, tuple[Shown, Shown]] = {
    "mm": (Shown("mm", 2), Shown("in", 3)),
    "mm2": (Shown("mm²", 0), Shown("in²", 2)),
    "bar": (Shown("bar", 1), Shown("psi", 0)),
    "m/min": (Shown("m/min", 0), Shown("sfm", 0)),
    "mm/rev": (Shown("mm/rev", 3, strip=True), Shown("ipr", 4)),
    "mm/min": (Shown("mm/min", 0), Shown("in/min", 1)),
    "rpm": (Shown("rpm", 0), Shown("rpm", 0)),
    "N": (Shown("kN", 1), Shown("lbf", 0)),
    "N/rpm2": (Shown("N/rpm²", 5), Shown("lbf/rpm²", 6)),
    "s": (Shown("s", 1, strip=True), Shown("s", 1, strip=True)),
    "min": (Shown("min", 2), Shown("min", 2)),
    "m/s2": (Shown("m/s²", 1, strip=True), Shown("ft/s²", 1, strip=True)),
    "l": (Shown("l", 1), Shown("gal", 1)),
    "N/mm2": (Shown("N/mm²", 0), Shown("ksi", 1)),
    "N*m": (Shown("N·m", 0), Shown("lbf·ft", 0)),
    "kW": (Shown("kW", 1), Shown("hp", 1)),
    "kg": (Shown("kg", 2), Shown("lb", 2)),
    "kg/dm3": (Shown("kg/dm³", 2), Shown("lb/in³", 3)),
    "GPa": (Shown("GPa", 0), Shown("Msi", 1)),
    "um": (Shown("µm", 1), Shown("µin", 0)),
    "deg": (Shown("°", 1, strip=True), Shown("°", 1, strip=True)),
    "%": (Shown("%", 0), Shown("%", 0)),
    "": (Shown("", 3, strip=True), Shown("", 3, strip=True)),
}

# Shown unit -> pint's name, where they differ.
PINT = {
    "rpm": "rpm",
    "°": "degree",
    "%": "percent",
    "": "dimensionless",
    "in/min": "inch/minute",
    "mm²": "mm**2",
    "in²": "inch**2",
    "sfm": "foot/minute",
    "ipr": "inch/revolution",
    "mm/rev": "mm/revolution",
    "m/min": "meter/minute",
    "mm/min": "mm/minute",
    "N/mm²": "N/mm**2",
    "N·m": "N*m",
    "lbf·ft": "lbf*foot",
    "hp": "horsepower",
    "kg/dm³": "kg/dm**3",
    "kN": "kN",
    "lb/in³": "lb/inch**3",
    "Msi": "Mpsi",
    "µm": "um",
    "µin": "uinch",
    "in": "inch",
    "ksi": "kpsi",
    "mm2": "mm**2",
    "N/mm2": "N/mm**2",
    "kg/dm3": "kg/dm**3",
    "deg": "degree",
    "um": "um",
    "N/rpm2": "N/rpm**2",
    "N/rpm²": "N/rpm**2",
    "lbf/rpm²": "lbf/rpm**2",
    "s": "second",
    "m/s2": "meter/second**2",
    "m/s²": "meter/second**2",
    "ft/s²": "foot/second**2",
    "min": "minute",
    "l": "liter",
    "gal": "gallon",
}


@cache
def _registry() -> Any:
    import pint

    return pint.UnitRegistry(str(Path(__file__).parent / "data" / "units.txt"), cache_folder=None)


@cache
def _factor(source: str, target: str) -> float:
    """What one `source` unit is in `target` units (pint names; all are proportional, none has an offset)."""
    # Fourteen digits: 1 in is 25.4 mm, not 25.399999999999999.
    return float(f"{_registry().Quantity(1.0, source).to(target).magnitude:.14g}")


def warm() -> None:
    """Load pint and the factors the screens use, so the first request does not wait for them."""
    for metric, inch in SHOWN.values():
        _factor(PINT.get(inch.unit, inch.unit), PINT.get(metric.unit, metric.unit))


def to_core(value: float, written: str, unit: str) -> float:
    """`value` in a pint unit `written` as a value in the core unit `unit`."""
    target = PINT.get(unit, unit)
    # Fifteen digits take the last bit's noise off the product: 1 7/16 in is 36.5125 mm.
    return value if written == target else float(f"{value * _factor(written, target):.15g}")


def from_core(value: float, unit: str, shown: Shown) -> float:
    """A core value in the unit it is shown in."""
    return value if shown.unit == unit else value * _factor(PINT.get(unit, unit), PINT.get(shown.unit, shown.unit))


def shown_as(unit: str, system: System) -> Shown:
    """How core unit `unit` is shown in `system`."""
    return SHOWN[unit][0 if system == "metric" else 1]


BEYOND = 1e15  # no figure of the trade: told by its power of ten


def _rounded(value: float, places: int, rounding: Rounding) -> str:
    # Twelve significant digits first: 2350.0000000001 shown "up" must not become 2351, nor 1 3/16 in 1.187.
    if rounding == "near":
        return f"{float(f'{value:.12g}'):.{places}f}"
    if abs(value) >= BEYOND:
        return f"{value:.3e}"
    exact = Decimal(f"{value:.12g}")
    mode = ROUND_FLOOR if rounding == "down" else ROUND_CEILING
    return f"{exact.quantize(Decimal(1).scaleb(-places), rounding=mode):f}"


def grouped(number: str) -> str:
    """A number's digits in threes, with a real minus."""
    sign, digits = ("−", number[1:]) if number.startswith("-") else ("", number)
    whole, _, rest = digits.partition(".")
    if len(whole) > 3:
        head = len(whole) % 3
        groups = ([whole[:head]] if head else []) + [whole[i : i + 3] for i in range(head, len(whole), 3)]
        whole = NARROW_SPACE.join(groups)
    return sign + whole + (f".{rest}" if rest else "")


@dataclass(frozen=True, slots=True)
class Figure:
    """A core value that can be printed in either system.

    `rounding` is the safe side (caps and margins "down", demand and needed pressure "up").
    `places` overrides the unit's usual places, as (metric, inch). `exact` prints what was given,
    as a range's bound must be; in a converted unit that is two places more than usual.
    """

    value: float
    unit: str = ""
    rounding: Rounding = "near"
    places: tuple[int, int] | None = None
    exact: bool = False

    def number(self, system: System = "metric") -> str:
        """The figure without its unit: "2 350"."""
        shown = shown_as(self.unit, system)
        value = from_core(self.value, self.unit, shown)
        if self.exact and shown.unit in (self.unit, ""):
            return grouped(exact_text(value))
        if self.exact:
            # Given in another unit, it has no last digit: two more than usual, on the side asked for.
            last = shown.places + 2 if self.places is None else self.places[0 if system == "metric" else 1]
            text = _rounded(value, last, self.rounding)
            return grouped(text.rstrip("0").rstrip(".") if "." in text else text)
        places = shown.places if self.places is None else self.places[0 if system == "metric" else 1]
        text = _rounded(value, places, self.rounding)
        if shown.strip and self.places is None and "." in text:
            text = text.rstrip("0").rstrip(".")
        if re.fullmatch(r"-0(\.0*)?", text):
            text = text[1:]
        return grouped(text)

    def unit_shown(self, system: System = "metric") -> str:
        """The unit beside the figure in `system`."""
        return shown_as(self.unit, system).unit

    def text(self, system: System = "metric") -> str:
        """The figure with its unit: "2 350 rpm"."""
        unit = self.unit_shown(system)
        return f"{self.number(system)}{'' if unit in ('', '°') else chr(0xA0)}{unit}"


@dataclass(frozen=True, slots=True)
class Bare:
    """A figure's number alone, for sentences where the unit is plain from the place."""

    figure: Figure

    def text(self, system: System = "metric") -> str:
        """The number in `system`."""
        return self.figure.number(system)


@dataclass(frozen=True, slots=True)
class Beside:
    """A figure in the other unit system, to stand beside the one shown: psi beside bar."""

    figure: Figure

    def text(self, system: System = "metric") -> str:
        """The figure in the system that is not `system`."""
        return self.figure.text("inch" if system == "metric" else "metric")


def exact_text(value: float) -> str:
    """A value with no digit that is not needed, never in powers of ten: for a field being edited."""
    text = f"{value:.9g}"
    return f"{Decimal(text):f}" if "e" in text else text


class Sentence:
    """Words with figures in them, printed in either unit system.

    >>> str(Sentence("cap {cap} by {what}", cap=Figure(2350.7, "rpm", "down"), what="grip"))
    'cap 2\\u202f350\\xa0rpm by grip'
    """

    __slots__ = ("parts", "template")

    def __init__(self, template: str, **parts: Figure | Bare | Beside | Sentence | str) -> None:
        self.template = template
        self.parts = parts

    def text(self, system: System = "metric") -> str:
        """The sentence in `system`."""
        if not self.parts:
            return self.template
        return self.template.format(
            **{name: part if isinstance(part, str) else part.text(system) for name, part in self.parts.items()}
        )

    def __str__(self) -> str:
        return self.text()

    def __repr__(self) -> str:
        return f"Sentence({self.text()!r})"

    def __eq__(self, other: object) -> bool:
        return isinstance(other, Sentence) and self.text() == other.text() and self.text("inch") == other.text("inch")

    def __hash__(self) -> int:
        return hash(self.text())


def counted(n: int, one: str, many: str = "") -> str:
    """A number with its noun: "1 cut", "3 cuts", its thousands apart as everywhere."""
    return f"{f'{n:,}'.replace(',', NARROW_SPACE)} {one if n == 1 else many or one + 's'}"


def about(words: str, length_mm: float) -> Sentence:
    """A sentence about one length [mm], `{x}` in its words.

    >>> about("Give less than {x}.", 84.0).text()
    'Give less than 84\xa0mm.'
    """
    return Sentence(words, x=Figure(length_mm, "mm", exact=True))

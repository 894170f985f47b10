"""Units, parsing and printing of what a machinist writes.

The core computes in one system (mm, N, bar, m/min, mm/rev, rpm, kg, kW, N·m, degrees). Other units
exist only here: `parse` turns typed text into a core value, `Figure` and `Sentence` turn core values
into words in either unit system. pint does the conversions and is loaded when first needed, so that
a plain numeric calculation never waits for it.
"""

from __future__ import annotations

import math
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
    "min": "minute",
    "l": "liter",
    "gal": "gallon",
}

# What a machinist may write after a number -> pint's name.
WRITTEN = {
    "mm": "mm",
    "in": "inch",
    "inch": "inch",
    '"': "inch",
    "”": "inch",
    "″": "inch",
    "thou": "mil",
    "mil": "mil",
    "cm": "cm",
    "m": "m",
    "um": "um",
    "µm": "um",
    "μm": "um",
    "µin": "uinch",
    "uin": "uinch",
    "bar": "bar",
    "psi": "psi",
    "mpa": "MPa",
    "kpa": "kPa",
    "m/min": "meter/minute",
    "sfm": "foot/minute",
    "sfpm": "foot/minute",
    "ft/min": "foot/minute",
    "mm/rev": "mm/revolution",
    "mmpr": "mm/revolution",
    "ipr": "inch/revolution",
    "in/rev": "inch/revolution",
    "mm/min": "mm/minute",
    "in/min": "inch/minute",
    "ipm": "inch/minute",
    "s": "second",
    "sec": "second",
    "min": "minute",
    "l": "liter",
    "gal": "gallon",
    "rpm": "rpm",
    "1/min": "rpm",
    "min-1": "rpm",
    "n": "N",
    "kn": "kN",
    "lbf": "lbf",
    "nm": "N*m",
    "n·m": "N*m",
    "n*m": "N*m",
    "lbf·ft": "lbf*foot",
    "ft-lb": "lbf*foot",
    "ftlb": "lbf*foot",
    "kw": "kW",
    "w": "W",
    "hp": "horsepower",
    "kg": "kg",
    "g": "g",
    "lb": "lb",
    "lbs": "lb",
    "kg/dm3": "kg/dm**3",
    "kg/dm³": "kg/dm**3",
    "g/cm3": "g/cm**3",
    "lb/in3": "lb/inch**3",
    "lb/in³": "lb/inch**3",
    "gpa": "GPa",
    "msi": "Mpsi",
    "ksi": "kpsi",
    "n/mm2": "N/mm**2",
    "n/mm²": "N/mm**2",
    "mm2": "mm**2",
    "mm²": "mm**2",
    "in2": "inch**2",
    "in²": "inch**2",
    "°": "degree",
    "deg": "degree",
    "%": "percent",
}

EXAMPLES = {
    "mm": "36.5 mm, 1 7/16 in or 8 thou",
    "bar": "18 bar or 260 psi",
    "m/min": "120 m/min or 400 sfm",
    "mm/rev": "0.2 mm/rev or .008 ipr",
    "rpm": "1200 rpm",
    "kg": "1.2 kg or 2.6 lb",
    "N": "12000 N or 12 kN",
    "kW": "15 kW or 20 hp",
    "N*m": "70 N·m",
    "deg": "95",
    "um": "1.6 µm",
    "%": "85",
    "s": "4 s",
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


# --- parsing -----------------------------------------------------------------------------------

LONGEST = 40  # characters of a figure with its unit: what is longer is none, and takes long to be found so
_SPACE = "[ \u00a0\u2009\u202f]"
_NUMBER = re.compile(
    rf"""(?P<sign>[-−+]?)\s*(?:
      (?P<whole>\d+)(?:{_SPACE}+|-)(?P<num>\d+)/(?P<den>\d+)
    | (?P<num1>\d+)/(?P<den1>\d+)
    | (?P<grouped>\d{{1,3}}(?:{_SPACE}\d{{3}})+(?:\.\d+)?)
    | (?P<decimal>\d+\.?\d*(?:[eE][-+]?\d+)?|\.\d+(?:[eE][-+]?\d+)?)
    )""",
    re.VERBOSE,
)


def _unreadable(field: str, text: str, unit: str) -> Exception:
    from calc.errors import Unreadable

    return Unreadable(field, f"“{text}” is not a figure. Write one such as {EXAMPLES.get(unit, '12.5')}.")


def _magnitude(found: re.Match[str]) -> float:
    part = found.groupdict()
    if part["den"] or part["den1"]:
        whole, num, den = part["whole"] or "0", part["num"] or part["num1"], part["den"] or part["den1"]
        size = int(whole) + int(num) / int(den)
    elif part["grouped"]:
        size = float(re.sub(_SPACE, "", part["grouped"]))
    else:
        size = float(part["decimal"])
    return -size if part["sign"] in ("-", "−") else size


# A group of three digits may be thousands; more commas than one are groups, too.
_DECIMAL_COMMA = re.compile(r"^([-+−]?\d*),(\d{1,2}|\d{4,})(?![\d,])")


def parse(text: str, unit: str, system: System | None = "metric", field: str = "") -> float:
    """Read what a machinist writes as a value in the core unit `unit`.

    A bare number is in the unit shown beside the field (`unit` in `system`), or in `unit` itself
    when `system` is None. Fractions, mixed numbers, grouped thousands and a diameter sign are read.
    A comma before one, two, or four and more digits is a decimal comma; before three it may be either, and a fraction
    of bare millimetres may be meant in inches: both are asked, never guessed at.

    Raises Unreadable with a sentence that says what to write.

    >>> parse("1-7/16 in", "mm")
    36.5125
    >>> parse("2 350", "rpm"), parse("36,5", "mm")
    (2350.0, 36.5)
    """
    from calc.errors import Unreadable

    said = text.strip()
    if len(said) > LONGEST:
        example = EXAMPLES.get(unit, "12.5")
        raise Unreadable(field, f"This is too long for a figure: {LONGEST} characters at most, such as {example}.")
    body = re.sub(r"^[ØøΦφ⌀]\s*", "", said)
    if not body:
        raise Unreadable(field, f"Nothing is written here. Write a figure such as {EXAMPLES.get(unit, '12.5')}.")
    body = _DECIMAL_COMMA.sub(r"\1.\2", body)
    if "," in body:
        point, joined = body.replace(",", "."), body.replace(",", "")
        raise Unreadable(field, f"“{said}” can be read two ways. Write {point} or {joined}, without the comma.")
    found = _NUMBER.match(body)
    if not found or int(found["den"] or found["den1"] or 1) == 0:
        raise _unreadable(field, said, unit)
    rest = body[found.end() :].strip()
    if not rest and unit == "mm" and system == "metric" and (found["den"] or found["den1"]):
        raise Unreadable(field, f"“{said}” looks like inches: write {said} in, or the figure in mm.")
    value = _magnitude(found)
    if not math.isfinite(value):
        raise _unreadable(field, said, unit)
    if not rest:
        beside = unit if system is None else shown_as(unit, system).unit
        return to_core(value, PINT.get(beside, beside), unit)
    name = WRITTEN.get(rest.lower().replace(" ", ""))
    if name is None:
        raise _unreadable(field, said, unit)
    try:
        return to_core(value, name, unit)
    except Exception as problem:  # pint's own error types; all mean that the dimension is wrong
        raise Unreadable(
            field, f"“{rest}” is not a unit for this. Write a figure such as {EXAMPLES.get(unit, '12.5')}."
        ) from problem


# --- printing ----------------------------------------------------------------------------------


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


def about(words: str, length_mm: float) -> Sentence:
    """A sentence about one length [mm], `{x}` in its words.

    >>> about("Give less than {x}.", 84.0).text()
    'Give less than 84\xa0mm.'
    """
    return Sentence(words, x=Figure(length_mm, "mm", exact=True))

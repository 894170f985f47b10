"""What a machinist writes, read as core values: numbers, fractions, units."""

from __future__ import annotations

import math
import re

from calc.errors import Unreadable
from calc.quantities import PINT, System, shown_as, to_core

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
    "m/s2": "meter/second**2",
    "m/s²": "meter/second**2",
    "ft/s2": "foot/second**2",
    "ft/s²": "foot/second**2",
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
    "m/s2": "3 m/s²",
}

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

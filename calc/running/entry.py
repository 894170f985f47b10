"""What is measured of a piece, as it is entered: read, brought to 20 °C, and asked about where it looks wrong."""

from __future__ import annotations

from collections.abc import Iterable
from dataclasses import dataclass

from calc.card.ask import times_off
from calc.card.readings.size import FAR_FINISH, SizeAsk
from calc.errors import CalcError, FieldError
from calc.fields import Quantity, check_range
from calc.limits.first_off import AT_C, FirstOffInput, first_off
from calc.quantities import Figure, Sentence, System
from calc.running.lot import Dimension
from calc.running.watch import Standing, verdict
from calc.working import Step
from calc.written import parse

THREAD = {"good": 0.0, "tight": -1.0, "loose": 1.0}  # GO and NOT GO; GO does not go on; NOT GO enters
THREAD_WORDS = {0.0: "both gauges as they should", -1.0: "GO does not go on", 1.0: "NOT GO enters"}
FAR_MM = 0.3
WIDTHS = 5.0  # of the print: further off is asked about, too
TEN, INCH = 10.0, 25.4
READ = {
    "size": Quantity("Size", "mm", "Of the piece as it is now", above=0, high=10_000, places=(4, 5)),
    "finish": Quantity("Finish", "um", "Ra, along the part", above=0, high=100, places=(2, 0)),
}
TEMP = Quantity("Temperature, °C", "", "Of the piece when measured", -20, 150)


@dataclass(frozen=True)
class Entered:
    """One value [core unit, at 20 °C] with its verdict; `far`: why it looks wrong, it counts when it is said again."""

    dimension: Dimension
    value: float
    level: Standing
    told: Sentence
    far: Sentence | None
    steps: tuple[Step, ...] = ()


def shown(dimension: Dimension, value: float) -> Figure | Sentence:
    """A value of a dimension as it is read."""
    if dimension.kind == "thread":
        return Sentence(THREAD_WORDS[value])
    return Figure(value, READ[dimension.kind].unit, places=READ[dimension.kind].places)


def read_value(dimension: Dimension, given: str | float, system: System) -> float:
    """A value [core unit] from what was typed or sent; a bare number is in the unit shown. Raises CalcError at its id.

    A thread is good, tight or loose.
    """
    at, kind = dimension.id, dimension.kind
    if kind == "thread":
        if str(given) not in THREAD:
            raise CalcError([FieldError(at, Sentence("Say good, tight (GO does not go on) or loose (NOT GO enters)."))])
        return THREAD[str(given)]
    spec = READ[kind]
    value = parse(given, spec.unit, system, at) if isinstance(given, str) else float(given)
    check_range(at, spec, value)
    return value


def entered(
    dimension: Dimension, given: str | float, system: System, temp_c: float = AT_C, others: Iterable[Dimension] = ()
) -> Entered:
    """What was entered for a dimension of a lot; `temp_c`: of the piece; `others`: what else is measured of it.

    Raises CalcError at the id of the dimension, or at `temp_c`.

    Reference: ISO 1, as at the first piece; docs/method.md, “Running”
    """
    check_range("temp_c", TEMP, temp_c)
    value, steps = read_value(dimension, given, system), tuple[Step, ...]()
    if isinstance(dimension.ask, SizeAsk):
        ask = dimension.ask
        try:
            given_piece = FirstOffInput(value, ask.target_mm, ask.expansion_1e6_k, temp_c)
        except CalcError:  # more than twice: far off, and asked about as it is
            pass
        else:
            found = first_off(given_piece)
            value, steps = found.at_20_mm, found.working if temp_c != AT_C else ()
    level, told = verdict(dimension, value)
    return Entered(dimension, value, level, told, _far(dimension, value, others), steps)


def _near(value: float, ask: SizeAsk) -> bool:
    low, high = ask.print_mm
    return low - FAR_MM <= value <= high + FAR_MM


def _far(dimension: Dimension, value: float, others: Iterable[Dimension]) -> Sentence | None:
    """Why a value looks wrong; None where it does not."""
    if dimension.kind == "thread":
        return None
    if not isinstance(dimension.ask, SizeAsk):
        wanted = dimension.ask.wanted_um  # type: ignore[union-attr] # of a finish
        if not times_off(value, wanted, FAR_FINISH, 0.2):
            return None
        return Sentence("Ra {a} is predicted. Is it Ra, and in this unit?", a=Figure(wanted, "um", "up"))
    ask = dimension.ask
    low, high = ask.print_mm
    if abs(value - ask.target_mm) <= min(FAR_MM, max(WIDTHS * (high - low), FAR_MM / 10)):
        return None
    said: dict[str, Figure | str] = {"n": ask.name, "d": Figure(ask.target_mm, "mm", places=(4, 5))}
    for other in others:
        if other.id != dimension.id and isinstance(other.ask, SizeAsk) and _near(value, other.ask):
            words = "That is the size of {o}, not of {n}, which is about {d}. Is it that dimension?"
            return Sentence(words, o=other.ask.name, **said)
    for times, what in ((TEN, "ten times"), (INCH, "25.4 times")):
        if _near(value * times, ask) or _near(value / times, ask):
            words = "That is {w} off: {n} should be about {d}. Look at the decimal point and the unit."
            return Sentence(words, w=what, **said)
    return Sentence("{n} should be about {d}. Is it that dimension, and the right unit?", **said)

"""Bar work: how many pieces a bar gives, and whether spindle and feeder take it."""

from __future__ import annotations

from collections.abc import Iterator
from dataclasses import dataclass
from math import ceil

from calc.plan.hold.figures import HoldFigures
from calc.plan.hold.gripped import BEHIND_MM, kerf_of, left_behind
from calc.plan.outcome import Asked
from calc.plan.part.inputs import Stock
from calc.plan.part.solve import PartFigures
from calc.quantities import Bare, Figure
from calc.route.bars import BARS, pieces_of_bar
from calc.shelf.machine import Machine
from calc.working import Note, Step, Working


@dataclass(frozen=True)
class BarFigures:
    """What one bar gives: pieces, what each takes of it and what is left over [mm]; bars for the whole run."""

    each_mm: float
    remnant_mm: float
    pieces: int
    bars: int | None
    steps: tuple[Step, ...]


def bar_figures(asked: Asked, hold: HoldFigures, part: PartFigures) -> BarFigures | None:
    """Figures of the bar; None for what is no bar, or where its length is not known."""
    length, quantity = part.stock.length_mm, asked.document.part.quantity
    if hold.stick_out_mm is None or length is None:
        return None
    w = Working()
    each = w.step(
        "l_p",
        "One piece takes of the bar",
        "L + f + f_2 + b",
        "mm",
        BARS,
        L=part.length_mm,
        f=part.face_stock_mm,
        f_2=left_behind(asked),
        b=kerf_of(asked, part),
    )
    label = "Left over: what still holds the last piece"
    held = w.step("l_r", label, "t + s", "mm", BARS, t=hold.held_mm, s=BEHIND_MM)
    feeder = part.machine.remnant_mm if part.machine.feeder_mm is not None else None
    left = max(held, feeder or 0.0)
    pieces = pieces_of_bar(w, length, left, 0.0, each)
    bars = ceil(quantity / pieces) if quantity and pieces else None
    return BarFigures(each, left, pieces, bars, tuple(w.steps))


def bar_notes(hold: HoldFigures, part: PartFigures, bar_stop: str) -> Iterator[Note]:
    """What speaks against this bar in this spindle and its feeder."""
    if hold.stick_out_mm is None:
        return
    if bar_stop == "none":
        words = "Nothing stops the bar where it should stick out: feed it against a stop."
        yield Note("caution", "no-bar-stop", words)
    machine, stock = part.machine, part.stock
    bar = hold.grip.corners * max(hold.grip.largest_mm, hold.grip.diameter_mm)
    holes = [d for d in (machine.spindle_bore_mm, hold.chuck.bore_mm) if d is not None]
    if holes and bar > min(holes):
        words = "A bar of Ø{d} does not go through spindle and chuck: Ø{s} at most."
        sizes = {"d": Bare(Figure(bar, "mm", "up")), "s": Bare(Figure(min(holes), "mm", "down"))}
        yield Note("stop", "bar-too-thick", words, **sizes)
    if machine.feeder_mm is not None:
        yield from _feeder(machine, stock, bar)
    elif machine.spindle_length_mm is not None and stock.length_mm is not None:
        reach = machine.spindle_length_mm + hold.nose_mm + hold.stick_out_mm
        if stock.length_mm > reach:
            words = "A bar of {x} leaves the rear of the spindle and whips: {m} has no feeder; cut it to {s} at most."
            sizes_ = {"x": Figure(stock.length_mm, "mm"), "s": Figure(reach, "mm", "down")}
            yield Note("stop", "bar-leaves-spindle", words, m=machine.name, **sizes_)


def _feeder(machine: Machine, stock: Stock, bar_mm: float) -> Iterator[Note]:
    assert machine.feeder_mm is not None
    if bar_mm > machine.feeder_mm + 1e-9:
        words = "The bar feeder of {m} takes Ø{s}; the bar is Ø{d} over all."
        sizes = {"d": Bare(Figure(bar_mm, "mm", "up")), "s": Bare(Figure(machine.feeder_mm, "mm", "down"))}
        yield Note("stop", "over-the-feeder", words, m=machine.name, **sizes)
    most = machine.feeder_length_mm
    if most is not None and stock.length_mm is not None and stock.length_mm > most:
        words = "The bar feeder of {m} takes bars of {s}; these are {x} long: cut them."
        yield Note(
            "stop",
            "too-long-for-the-feeder",
            words,
            m=machine.name,
            x=Figure(stock.length_mm, "mm", "up"),
            s=Figure(most, "mm", "down"),
        )

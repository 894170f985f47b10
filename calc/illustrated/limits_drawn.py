"""Pictures of sizes: the drift with its line and where it may go, and how the print is kept."""

from __future__ import annotations

import math

from calc.illustrated.graph import Axis, Graph, Level, Line, line_of
from calc.limits.capability import CapabilityInput, CapabilityResult
from calc.limits.drift import DriftInput, DriftResult
from calc.limits.working import WorkingLimitsInput, WorkingLimitsResult
from calc.quantities import Figure, Sentence

AHEAD_LEAST, AHEAD_MOST = 0.25, 2.0  # of the pieces measured: so far the line is drawn on
PLACES = (4, 5)
LINE = "{n} sizes; the line is at {s} and moves {d} a piece. "
SPREADS = 4.0  # to each side of the mean


def drift_line(given: DriftInput, found: DriftResult) -> Graph:
    """Sizes by piece, the line through them, and between what it goes on."""
    numbers = given.pieces or tuple(range(1, len(given.sizes_mm) + 1))
    first, last = numbers[0], numbers[-1]
    long = max(1, last - first)
    ahead = min(AHEAD_MOST * long, max(AHEAD_LEAST * long, float(found.pieces_left or 0)))
    end, now = last + ahead, found.fitted_now_mm
    lines = (
        Line("", ((first, now - found.slope_mm * (last - first)), (last, now))),
        Line("", ((last, now), (end, now + found.slope_mm * ahead)), "other"),
        Line("", ((last, now), (end, now + found.slope_low_mm * ahead)), "aim"),
        Line("", ((last, now), (end, now + found.slope_high_mm * ahead)), "aim"),
    )
    sizes = (*given.sizes_mm, given.low_mm, given.high_mm)
    room = 0.15 * (max(sizes) - min(sizes) or 0.01)
    levels = (Level("y", "upper", given.high_mm), Level("y", "lower", given.low_mm))
    sure = found.pieces_left_sure
    words = Sentence(
        LINE + ("It is never for sure at a limit." if sure is None else "For sure it has {k} more pieces."),
        n=str(len(given.sizes_mm)),
        s=Figure(now, "mm", places=PLACES),
        d=Figure(found.slope_mm, "mm", places=(5, 6)),
        k=str(sure),
    )
    axes = Axis("piece", "", first, end), Axis("size", "mm", min(sizes) - room, max(sizes) + room)
    return Graph(*axes, lines, words, levels, tuple(zip(map(float, numbers), given.sizes_mm, strict=True)))


def print_kept(given: CapabilityInput, found: CapabilityResult) -> Graph | None:
    """How often each size came, beside what its mean and spread would give, and the print's limits."""
    if found.sd_mm <= 0:
        return None
    low = min(given.low_mm, found.mean_mm - SPREADS * found.sd_mm)
    high = max(given.high_mm, found.mean_mm + SPREADS * found.sd_mm)
    lowest, highest = min(given.sizes_mm), max(given.sizes_mm)
    many = max(4, math.ceil(math.sqrt(len(given.sizes_mm))))
    wide = (highest - lowest) / many or found.sd_mm
    counts = [0] * many
    for size in given.sizes_mm:
        counts[min(many - 1, int((size - lowest) / wide))] += 1
    steps = [(lowest, 0.0)]
    for i, n in enumerate(counts):
        steps += [(lowest + i * wide, float(n)), (lowest + (i + 1) * wide, float(n))]
    steps.append((highest, 0.0))
    scale = len(given.sizes_mm) * wide / (found.sd_mm * math.sqrt(2 * math.pi))
    bell = line_of("", low, high, lambda x: scale * math.exp(-(((x - found.mean_mm) / found.sd_mm) ** 2) / 2), "other")
    top = 1.2 * max(*counts, scale)
    levels = (
        Level("x", "lower", given.low_mm, "danger"),
        Level("x", "upper", given.high_mm, "danger"),
        Level("x", "mean", found.mean_mm, "aim"),
    )
    words = Sentence(
        "{n} sizes between {a} and {b}; the print allows {l} to {h}.",
        n=str(len(given.sizes_mm)),
        a=Figure(lowest, "mm", places=PLACES),
        b=Figure(highest, "mm", places=PLACES),
        l=Figure(given.low_mm, "mm", places=PLACES),
        h=Figure(given.high_mm, "mm", places=PLACES),
    )
    room = 0.05 * (high - low)
    axes = Axis("size", "mm", low - room, high + room), Axis("pieces", "", 0, top)
    return Graph(*axes, (Line("", tuple(steps)), bell), words, levels)


def limits(given: WorkingLimitsInput, found: WorkingLimitsResult) -> Graph | None:
    """The print's limits, and those to work to within them."""
    wide = given.high - given.low
    if wide <= 0:
        return None
    lines = (
        Line("the print", ((given.low, 2), (given.high, 2)), "other"),
        Line("to work to", ((found.low, 1), (found.high, 1))),
    )
    levels = tuple(Level("x", "", x) for x in (given.low, given.high, found.low, found.high))
    words = Sentence(
        "The print allows {a} to {b}; to work to are {l} to {h}.",
        a=Figure(given.low, "mm", exact=True),
        b=Figure(given.high, "mm", exact=True),
        l=Figure(found.low, "mm", "up", PLACES),
        h=Figure(found.high, "mm", "down", PLACES),
    )
    axes = Axis("size", "mm", given.low - 0.2 * wide, given.high + 0.5 * wide), Axis("", "", 0, 3)
    return Graph(*axes, lines, words, levels)

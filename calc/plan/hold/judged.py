"""What stands in the way of a hold: room at the machine, slender work, recess, centre, a pocket in a pocket."""

from __future__ import annotations

from collections.abc import Iterator

from calc.plan.document import Document, Setup
from calc.plan.hold.bar import bar_notes
from calc.plan.hold.figures import HoldFigures, JawHold
from calc.plan.part.solve import PartFigures
from calc.quantities import Bare, Figure
from calc.working import Level, Note

SLENDER, TOO_SLENDER = 3.0, 5.0  # typical: stands out over its diameter, warned and stopped without a centre
# Over a centre it bends as much as that at 3.24 times the length: ∛((1/3) / 0.0098), rounded down.
CENTRED, TOO_SLENDER_CENTRED = 9.0, 16.0
# Typical: what is held over less than a sixth of its length and stands out more than its diameter is held by its end.
HELD_OVER, STUBBY = 6.0, 1.0
LEAST_SEAT_MM = 3.0  # per side, typical: less floor than this seats nothing


def judged(hold: HoldFigures, setup: Setup, part: PartFigures) -> Iterator[Note]:
    """All that must be said about any hold that has its figures."""
    yield from _slender(hold, setup)
    yield from _held_by_its_end(hold, setup)
    yield from _room(hold, part)
    if setup.hold.live_centre and hold.centre_mm <= 0:
        words = "A live centre needs a hole to stand in: drill one before this side, and give its diameter."
        yield Note("stop", "no-centre-hole", words)
    yield from bar_notes(hold, part, setup.hold.bar_stop)


def judged_in_jaws(hold: JawHold, document: Document, setup: Setup, part: PartFigures) -> Iterator[Note]:
    """What must be said about a hold in jaws besides."""
    yield from _recess(hold, setup)
    yield from _flats_in_jaws(hold, part)
    if hold.blank.is_hard and hold.grip.finished:
        words = "Hard jaws mark {g}, which is finished: hold it in soft jaws or in a collet."
        yield Note("stop", "marks-finished", words, g=hold.grip.name)
    if hold.blank.is_hard and hold.stick_out_mm is not None and (hold.blank.seat_mm or 0.0) > 0:
        yield Note(
            "stop", "bar-meets-step", "The seat of these jaws stands in the way of a bar: take jaws without one."
        )
    if hold.other:
        yield from _bore_in_bore(hold, document, part)


def _flats_in_jaws(hold: JawHold, part: PartFigures) -> Iterator[Note]:
    """A bar with flats sits on flat jaws, as many as divide its flats."""
    flats, jaws = part.stock.flats, hold.chuck.jaws
    if flats == 0 or hold.grip.finished:
        return
    if not hold.blank.is_hard:
        words = "A {s} has no seat in bored jaws: take hard jaws with flat faces, or a {s} collet."
        yield Note("stop", "flats-in-bored-jaws", words, s=part.stock.section)
    if flats % jaws:
        words = "{z} jaws that close on one centre do not hold a {s}: take a chuck of {n} jaws, or a {s} collet."
        yield Note("stop", "flats-and-jaws", words, z=str(jaws), s=part.stock.section, n="3" if flats == 6 else "4")


def _recess(hold: JawHold, setup: Setup) -> Iterator[Note]:
    """A recess behind the part that takes its seat away, or the floor above the bolt heads."""
    (radius, deep), pocket = hold.recess_mm, hold.pocket
    if deep <= 0:
        return
    if radius > pocket.bore_diameter_mm / 2 - LEAST_SEAT_MM:
        words = (
            "The recess of Ø{d} leaves no floor to sit on: seat the part on something else, or bore it on another side."
        )
        yield Note("stop", "no-floor-left", words, d=Bare(Figure(2 * radius, "mm")))
    most = pocket.floor_mm - setup.jaws.floor_min_mm
    if deep > most + 1e-9:
        words = "With a recess of {x} too little floor is left above the bolt heads: {m} at most."
        figures = {"x": Figure(deep, "mm"), "m": Figure(max(0.0, most), "mm", "down")}
        yield Note("stop", "recess-too-deep", words, **figures)


def _bore_in_bore(hold: JawHold, document: Document, part: PartFigures) -> list[Note]:
    """What stands in the way of a part that sits in the inner pocket of two."""
    body, start = part.body, hold.pocket.bore_depth_mm
    end = start + hold.mouth_mm
    place = (start, end) if hold.held_end == "a" else (body.length_mm - end, body.length_mm - start)
    over = [s for s in body.outside if s.end > place[0] + 1e-9 and s.start < place[1] - 1e-9]
    widest = max((max(s.step.diameter_mm or 0.0, s.step.last_diameter_mm or 0.0) for s in over), default=0.0)
    assert hold.other is not None
    notes = []
    if widest > hold.other.bore_diameter_mm + 1e-9:
        notes.append(
            Note(
                "stop",
                "outer-pocket-small",
                "Ø{d} of the part does not go into the outer pocket of Ø{p}: bore the inner one deeper.",
                d=Figure(widest, "mm", exact=True),
                p=Figure(hold.other.bore_diameter_mm, "mm"),
            )
        )
    elif widest > hold.grip.diameter_mm + 1e-9:
        inside = end - min(
            s.start if hold.held_end == "a" else body.length_mm - s.end
            for s in over
            if (s.step.diameter_mm or 0) > hold.grip.diameter_mm
        )
        notes.append(
            Note(
                "caution",
                "inside-outer-pocket",
                "{x} of Ø{d} stands inside the outer pocket: it cannot be turned from this side.",
                x=Figure(inside, "mm", "up"),
                d=Figure(widest, "mm", exact=True),
            )
        )
    return notes


def _slender(hold: HoldFigures, setup: Setup) -> list[Note]:
    """Work that stands far out of outside jaws."""
    if hold.side == "id":
        return []
    centred = setup.hold.live_centre
    ratio, (warned, most) = hold.out_mm / hold.grip.diameter_mm, (SLENDER, TOO_SLENDER)
    if centred:
        warned, most = CENTRED, TOO_SLENDER_CENTRED
    if ratio <= warned:
        return []
    level: Level = "caution" if ratio <= most else "stop"
    figures = {
        "x": Figure(hold.out_mm, "mm", "up"),
        "r": Figure(ratio, "", "up", (1, 1)),
        "m": Figure(warned if level == "caution" else most, "", places=(0, 0)),
    }
    words = {
        ("caution", False): "It stands out {x}, {r} times its diameter: above {m} it bends and chatters; support it "
        "with a centre.",
        ("stop", False): "It stands out {x}, {r} times its diameter; without a centre {m} is the most: support it, or "
        "grip it longer.",
        ("caution", True): "It stands out {x}, {r} times its diameter: above {m} it bends and chatters even over a "
        "centre; take light cuts.",
        ("stop", True): "It stands out {x}, {r} times its diameter; over a centre {m} is the most: it needs a steady, "
        "which is not planned here, or a longer grip.",
    }
    return [Note(level, "slender" if level == "caution" else "too-slender", words[level, centred], **figures)]


def least_held_mm(hold: HoldFigures) -> float:
    """The grip below which long work is held by its end [mm]."""
    return (hold.held_mm + hold.out_mm) / HELD_OVER


def _held_by_its_end(hold: HoldFigures, setup: Setup) -> Iterator[Note]:
    """Long work in a short grip: a hundredth of play in the grip is many at its end, and a catch of the tool levers it.

    Tilt is counted in Force by the cut's own load; this holds for what no load names: a seat that gives, a chip in it.
    """
    long, least = hold.out_mm > STUBBY * hold.grip.diameter_mm, least_held_mm(hold)
    if setup.hold.live_centre or not long or hold.held_mm >= least - 1e-9:
        return
    figures = {
        "h": Figure(hold.held_mm, "mm", "down"),
        "x": Figure(hold.out_mm, "mm", "up"),
        "t": Figure(hold.out_mm / hold.held_mm, "", "up", (1, 1)),
        "m": Figure(least, "mm", "up"),
    }
    words = (
        "Held over {h} while {x} stands out, {t} times as much: without a centre what is longer than its diameter is "
        "held over a sixth of its length, {m}, at least. Support it with a centre, or grip it longer."
    )
    yield Note("stop", "held-by-its-end", words, **figures)


def _room(hold: HoldFigures, part: PartFigures) -> list[Note]:
    """What the machine has no room for, where its record says how much there is."""
    machine, chuck, notes = part.machine, hold.chuck, []
    across = 2 * part.held_radii_mm[0]
    if machine.swing_mm is not None and across > machine.swing_mm:
        words = "Ø{d} does not turn on {m}, which swings Ø{s}."
        figures = {"d": Figure(across, "mm", "up"), "s": Figure(machine.swing_mm, "mm", "down")}
        notes.append(Note("stop", "over-the-swing", words, m=machine.name, **figures))
    far = hold.nose_mm + hold.out_mm
    if machine.turning_length_mm is not None and far > machine.turning_length_mm:
        words = "The work ends {x} before the spindle's face; {m} turns over {s}."
        figures = {"x": Figure(far, "mm", "up"), "s": Figure(machine.turning_length_mm, "mm", "down")}
        notes.append(Note("stop", "over-the-travel", words, m=machine.name, **figures))
    mass = (chuck.mass_kg or 0.0) + part.held_mass_kg
    if machine.spindle_load_kg is not None and mass > machine.spindle_load_kg:
        words = "Chuck and part weigh {w}; the spindle of {m} carries {s}."
        figures = {"w": Figure(mass, "kg", "up"), "s": Figure(machine.spindle_load_kg, "kg", "down")}
        notes.append(Note("stop", "too-heavy-for-the-spindle", words, m=machine.name, **figures))
    return notes

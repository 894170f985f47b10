"""What soft jaws close on while they are cut: calculator `jaw-backing`."""

from __future__ import annotations

from collections.abc import Iterator
from dataclasses import dataclass
from typing import Annotated, Literal

from calc import terms
from calc.describing import calculator
from calc.errors import FieldError
from calc.fields import Checked, Choice, Group, Quantity, Text, When
from calc.quantities import Bare, Figure, Sentence
from calc.results import Explained, Found
from calc.terms import SIDE, Side
from calc.working import Working, derived

BACKING = derived("What the jaws close on")
CLOSE = 1e-9
Closing = Literal["ring", "plug", "groove-ring"]


CLOSING_WORDS = {"ring": "a boring ring", "plug": "a plug, two stages", "groove-ring": "a ring in a groove of the jaws"}


@dataclass(frozen=True)
class BoringRing(Checked):
    """A ring in the jaw screw holes; its limits are its own record's, None where nobody wrote them down."""

    name: Annotated[str, Text("Name", most=80)]
    inner_mm: Annotated[float, terms.RING_INNER]
    outer_mm: Annotated[float, terms.RING_OUTER.called(help="")]
    max_bar: Annotated[float | None, terms.RING_BAR.called(help="Of the ring")] = None
    max_rpm: Annotated[float | None, terms.RING_RPM.called(help="Of the ring")] = None

    def contradictions(self) -> Iterator[FieldError]:
        if self.inner_mm >= self.outer_mm:
            yield FieldError("inner_mm", Sentence("The ring's inner diameter must be below its outer one."))


@dataclass(frozen=True)
class BoringPlug(Checked):
    """A plug clamped at the bottom of the bore."""

    diameter_mm: Annotated[float, terms.PLUG_DIAMETER]


OUTSIDE = When("side", ("od",))


@dataclass(frozen=True)
class JawBackingInput(Checked):
    """Input of `jaw-backing`."""

    side: Annotated[Side, SIDE]
    grip_diameter_mm: Annotated[
        float, Quantity("Bore", "mm", "Diameter bored or turned into the jaws", above=0, high=4000)
    ]
    pressure_bar: Annotated[float, terms.PRESSURE.called("Production pressure")]
    rings: Annotated[tuple[BoringRing, ...], Group("Rings", "That fit this chuck", most=60)] = ()
    plug: Annotated[BoringPlug | None, Group("Plug", "Outside grip only"), OUTSIDE] = None
    tool_clearance_mm: Annotated[float, terms.TOOL_CLEARANCE.called(help="Per side")] = 3.0
    prefer: Annotated[
        Literal["ring", "plug"],
        Choice("Where both fit", {"ring": "a ring, up to its limit", "plug": "a plug, at the production pressure"}),
        OUTSIDE,
    ] = "ring"

    least_plug_mm: Annotated[
        float | None,
        Quantity(
            "Smallest plug", "mm", "That the jaws reach with metal to spare; empty: not checked", low=0, high=4000
        ),
        OUTSIDE,
    ] = None

    @property
    def largest_plug_mm(self) -> float:
        """The largest plug that leaves the tool room."""
        return max(0.0, self.grip_diameter_mm - 2 * self.tool_clearance_mm)


@dataclass(frozen=True, slots=True)
class Rejected:
    """Something that will not do, and why."""

    name: Annotated[str, Found("Tool")]
    why: Annotated[Sentence, Found("Why not")]


@dataclass(frozen=True, slots=True, kw_only=True)
class JawBackingResult(Explained):
    """What to close on, at which pressure and speed, why not the others, and the steps to take."""

    choice: Annotated[Closing | None, Found("Close the jaws on", options=CLOSING_WORDS)]
    ring: Annotated[str | None, Found("Ring")]
    plug_mm: Annotated[float | None, Found("Plug", "mm")]
    bore_pressure_bar: Annotated[float | None, Found("Pressure while boring", "bar", "down")]
    bore_max_rpm: Annotated[float | None, Found("Highest speed while boring", "rpm", "down")]
    rejected: Annotated[tuple[Rejected, ...], Found("Passed over")]
    steps: Annotated[tuple[Sentence, ...], Found("Steps")]


def _mm(value: float, rounding: Literal["near", "down", "up"] = "near") -> Figure:
    return Figure(value, "mm", rounding)


def _why_not(ring: BoringRing, given: JawBackingInput, w: Working) -> Sentence | None:
    d, c = given.grip_diameter_mm, given.tool_clearance_mm
    if given.side == "od":
        need = w.step("d_i", "Inner diameter the tool needs", "d + 2*c", "mm", BACKING, d=d, c=c)
        if ring.inner_mm < need - CLOSE:
            return Sentence(
                "its Ø{a} is in the way: Ø{b} must pass", a=Bare(_mm(ring.inner_mm, "down")), b=Bare(_mm(need, "up"))
            )
    else:
        need = w.step("d_o", "Outer diameter that leaves the tool room", "d - 2*c", "mm", BACKING, d=d, c=c)
        if ring.outer_mm > need + CLOSE:
            return Sentence(
                "its Ø{a} is in the way: the tool comes in to Ø{b}",
                a=Bare(_mm(ring.outer_mm, "up")),
                b=Bare(_mm(need, "down")),
            )
    if ring.max_bar is None or ring.max_rpm is None:
        return Sentence("its pressure and speed limits are not on its record")
    return None


def _rank(ring: BoringRing, given: JawBackingInput) -> tuple[float, float, float]:
    assert ring.max_bar is not None and ring.max_rpm is not None
    room = ring.inner_mm - given.grip_diameter_mm if given.side == "od" else given.grip_diameter_mm - ring.outer_mm
    return -min(given.pressure_bar, ring.max_bar), -ring.max_rpm, room


def _ring_steps(given: JawBackingInput, bar: float, rpm: float) -> tuple[Sentence, ...]:
    verb = "bore" if given.side == "od" else "turn"
    closes = "close the jaws on it" if given.side == "od" else "open the jaws against it"
    return (
        Sentence("Put the ring in the jaw screw holes, {way}, the same way as they will hold the part.", way=closes),
        Sentence("Set {p}; the ring turns {n} at most.", p=Figure(bar, "bar", "down"), n=Figure(rpm, "rpm", "down")),
        Sentence(
            "{verb} to Ø{d}, light cuts: the jaws are an interrupted cut.",
            verb=verb.capitalize(),
            d=Bare(_mm(given.grip_diameter_mm)),
        ),
        Sentence("Cut the floor groove, break the edges, take the ring out."),
    )


def _plug_steps(given: JawBackingInput, plug: BoringPlug, seat: BoringRing | None) -> tuple[Sentence, ...]:
    first = (
        Sentence(
            "Seat: close the jaws on {ring} at {p} and {n} at most, and bore a seat to the plug's Ø{d}, as short as "
            "it can stand.",
            ring=seat.name,
            p=Figure(min(given.pressure_bar, seat.max_bar or 0), "bar", "down"),
            n=Figure(seat.max_rpm or 0, "rpm", "down"),
            d=Bare(_mm(plug.diameter_mm)),
        )
        if seat
        else Sentence(
            "Seat: bore a seat to the plug's Ø{d} at the bottom; no ring on the shelf leaves room for it, so make one "
            "first.",
            d=Bare(_mm(plug.diameter_mm)),
        )
    )
    return (
        first,
        Sentence("Take the ring out and clamp the plug at the bottom of the jaws, flat on the seat."),
        Sentence(
            "Set the production pressure, {p}: the jaws bend now as they will under the part.",
            p=Figure(given.pressure_bar, "bar", "down"),
        ),
        Sentence(
            "Bore to Ø{d} down to the plug, cut the groove, break the edges, take the plug out.",
            d=Bare(_mm(given.grip_diameter_mm)),
        ),
        Sentence("Check with a feeler at the mouth; at the same pressure usually no taper is needed."),
    )


def _groove_steps(given: JawBackingInput) -> tuple[Sentence, ...]:
    return (
        Sentence(
            "Cut a narrow groove or relief into the jaw faces, below Ø{d}, on a ring that does go in.",
            d=Bare(_mm(given.grip_diameter_mm - 2 * given.tool_clearance_mm, "down")),
        ),
        Sentence(
            "Turn a plain ring to sit in that groove, and write its pressure and speed limits on its record before use."
        ),
        Sentence("Open the jaws against the ring in its groove and turn to Ø{d}.", d=Bare(_mm(given.grip_diameter_mm))),
        Sentence("Break the edges, take the ring out and keep it with the set."),
    )


@calculator(JawBackingInput)
def jaw_backing(given: JawBackingInput) -> JawBackingResult:
    """What the jaws close on while they are cut, with pressure, speed, reasons and steps.

    Parameters
        {parameters}
    Returns
        choice ring, plug or groove-ring, None where nothing will do; ring: its name;
        bore_pressure_bar [bar], bore_max_rpm [rpm], None where no record gives one;
        rejected: name and why; steps: what to do, in order
    Raises
        CalcError: a ring whose inner diameter is not below its outer one
    Validity
        Tested in the order ring, plug, groove ring. Of the rings that fit: the most pressure, then the
        most speed, then the least room. A ring without its limits on record is never used.
    Example
        >>> ring = BoringRing("B", 95, 140, 6, 750)
        >>> r = jaw_backing(JawBackingInput("od", 84, 18, (ring,)))
        >>> r.choice, r.ring, r.bore_pressure_bar, r.bore_max_rpm
        ('ring', 'B', 6.0, 750.0)

    Reference
        derived in docs/method.md, “What the jaws close on”
    """
    w = Working()
    outside = given.side == "od"
    verdicts = [(ring, _why_not(ring, given, w)) for ring in given.rings]
    rejected = [Rejected(ring.name, why) for ring, why in verdicts if why]
    fit = sorted((ring for ring, why in verdicts if not why), key=lambda r: _rank(r, given))
    if any(r.max_bar is None or r.max_rpm is None for r in given.rings):
        w.note("caution", "ring-without-limits", "A ring whose limits are not on record is not used: ask its maker.")
    if fit and given.prefer == "plug" and outside and _seats_plug(given):
        rejected += [Rejected(r.name, Sentence("fits; a plug matches the production pressure")) for r in fit]
        return _plug_or_nothing(given, rejected, w)
    if fit:
        best = fit[0]
        assert best.max_bar is not None and best.max_rpm is not None
        bar = w.step("p_b", "Boring pressure", "min(p, p_r)", "bar", BACKING, p=given.pressure_bar, p_r=best.max_bar)
        rejected += [Rejected(r.name, Sentence("fits; {ring} bears more", ring=best.name)) for r in fit[1:]]
        if bar < given.pressure_bar - CLOSE:
            w.note(
                "caution",
                "ring-limits",
                "The ring stands {b} and turns {n} at most; the part is held at {p}, and the jaws bend more then. See "
                "the taper.",
                b=Figure(bar, "bar", "down"),
                n=Figure(best.max_rpm, "rpm", "down"),
                p=Figure(given.pressure_bar, "bar"),
            )
        else:
            w.note("caution", "ring-limits", "The ring turns {n} at most.", n=Figure(best.max_rpm, "rpm", "down"))
        return JawBackingResult(
            choice="ring",
            ring=best.name,
            plug_mm=None,
            bore_pressure_bar=bar,
            bore_max_rpm=float(best.max_rpm),
            rejected=tuple(rejected),
            steps=_ring_steps(given, bar, best.max_rpm),
            working=tuple(w.steps),
            notes=tuple(w.notes),
        )
    if not outside:
        w.note(
            "caution",
            "ring-to-make",
            "No ring on the shelf goes in: a groove ring is made for this, and its limits recorded first.",
        )
        return JawBackingResult(
            choice="groove-ring",
            ring=None,
            plug_mm=None,
            bore_pressure_bar=None,
            bore_max_rpm=None,
            rejected=tuple(rejected),
            steps=_groove_steps(given),
            working=tuple(w.steps),
            notes=tuple(w.notes),
        )
    return _plug_or_nothing(given, rejected, w)


def _seats(given: JawBackingInput, plug: BoringPlug) -> list[BoringRing]:
    """Rings with limits on record that leave room to bore the plug's seat."""
    need = plug.diameter_mm + 2 * given.tool_clearance_mm
    return [r for r in given.rings if r.inner_mm >= need - CLOSE and r.max_bar is not None and r.max_rpm is not None]


def _seats_plug(given: JawBackingInput) -> bool:
    """Whether the plug leaves the tool room and its own seat can be bored."""
    plug = given.plug
    return plug is not None and _reached(given, plug) and bool(_seats(given, plug))


def _reached(given: JawBackingInput, plug: BoringPlug) -> bool:
    """Whether the plug leaves the tool room, and the jaws reach it."""
    least = given.least_plug_mm or 0.0
    return least - CLOSE <= plug.diameter_mm <= given.largest_plug_mm + CLOSE


def _plug_or_nothing(given: JawBackingInput, rejected: list[Rejected], w: Working) -> JawBackingResult:
    most = w.step(
        "d_p",
        "Largest plug that leaves the tool room",
        "max(0, d - 2*c)",
        "mm",
        BACKING,
        d=given.grip_diameter_mm,
        c=given.tool_clearance_mm,
    )
    plug = given.plug
    if plug is not None and _reached(given, plug):
        able = _seats(given, plug)
        seat = min(able, key=lambda r: _rank(r, given)) if able else None
        if seat is None:
            w.note("caution", "no-seat-ring", "No ring with limits on record leaves room to bore the plug's seat.")
        return JawBackingResult(
            choice="plug",
            ring=None,
            plug_mm=plug.diameter_mm,
            bore_pressure_bar=float(given.pressure_bar),
            bore_max_rpm=None,
            rejected=tuple(rejected),
            steps=_plug_steps(given, plug, seat),
            working=tuple(w.steps),
            notes=tuple(w.notes),
        )
    least = given.least_plug_mm or 0.0
    if plug is not None and plug.diameter_mm < least - CLOSE:
        words = "its Ø{a} is not reached: with travel left for the part the jaws close no further than Ø{b}"
        said = Sentence(words, a=Bare(_mm(plug.diameter_mm, "down")), b=Bare(_mm(least, "up")))
        rejected.append(Rejected("plug", said))
    elif plug is not None:
        rejected.append(
            Rejected(
                "plug",
                Sentence(
                    "its Ø{a} blocks the cutting path: Ø{b} at most",
                    a=Bare(_mm(plug.diameter_mm, "up")),
                    b=Bare(_mm(most, "down")),
                ),
            )
        )
    w.note(
        "stop",
        "nothing-to-close-on",
        "Nothing on the shelf lets these jaws be cut: get a ring with more than Ø{a} inside{or_plug}.",
        a=Bare(_mm(given.grip_diameter_mm + 2 * given.tool_clearance_mm, "up")),
        or_plug=Sentence(", or a plug of Ø{l} to Ø{b}", l=Bare(_mm(least, "up")), b=Bare(_mm(most, "down")))
        if least > 0
        else Sentence(", or a plug of up to Ø{b}", b=Bare(_mm(most, "down")))
        if most >= least
        else Sentence(""),
    )
    return JawBackingResult(
        choice=None,
        ring=None,
        plug_mm=None,
        bore_pressure_bar=None,
        bore_max_rpm=None,
        rejected=tuple(rejected),
        steps=(),
        working=tuple(w.steps),
        notes=tuple(w.notes),
    )

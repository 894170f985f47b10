"""A thread's limits, passes and size over wires: calculator `thread`."""

from __future__ import annotations

from collections.abc import Iterator
from dataclasses import dataclass
from typing import Annotated, Literal

from calc import terms
from calc.describing import calculator
from calc.errors import CalcError, FieldError
from calc.fields import Checked, Choice, Flag, Quantity, Text, When
from calc.quantities import Figure, Sentence
from calc.results import Explained, Found
from calc.threads import asme_b1, iso965
from calc.threads.designation import INCH
from calc.working import Source, Working, derived

FORM = Choice(
    "Form",
    {
        "iso": "metric ISO, 60°",
        "un": "unified, 60°",
        "whitworth": "Whitworth, 55°",
        "trapezoidal": "metric trapezoidal, 30°",
        "acme": "Acme, 29°",
        "pg": "conduit Pg, 80°",
    },
    "Of the thread's profile",
)
Form = Literal["iso", "un", "whitworth", "trapezoidal", "acme", "pg"]
ANGLES = {"iso": 60.0, "un": 60.0, "whitworth": 55.0, "trapezoidal": 30.0, "acme": 29.0, "pg": 80.0}
STANDARD = {
    "iso": "ISO 68-1, ISO 965-1",
    "un": "ASME B1.1",
    "whitworth": "BS 84",
    "trapezoidal": "ISO 2904",
    "acme": "ASME B1.5",
    "pg": "DIN 40430",
}
# Depth of thread over pitch (§5.4), outside and inside.
DEPTHS = {"iso": (0.613434, 0.541266), "un": (0.613434, 0.541266), "whitworth": (0.640327, 0.640327)}
# DIN 40430: major [mm] -> (threads per inch, core [mm]).
PG = {
    12.5: (20, 11.28),
    15.2: (18, 13.86),
    18.6: (18, 17.26),
    20.4: (18, 19.06),
    22.5: (18, 21.16),
    28.3: (16, 26.78),
    37.0: (16, 35.48),
    47.0: (16, 45.48),
    54.0: (16, 52.48),
    59.3: (16, 57.78),
}
PASSES = derived("Passes with an equal chip")
WIRES = derived("Over wires")
DEFAULT_CLASS = {("iso", False): "6g", ("iso", True): "6H", ("un", False): "2A", ("un", True): "2B"}


CLASSED, OUTSIDE = When("form", ("iso", "un")), When("internal", (False,))


@dataclass(frozen=True)
class ThreadInput(Checked):
    """Input of `thread`."""

    form: Annotated[Form, FORM]
    diameter_mm: Annotated[float, Quantity("Major diameter", "mm", "Nominal", above=0, high=1000)]
    pitch_mm: Annotated[float, Quantity("Pitch", "mm", "From one thread to the next", above=0, high=50)]
    internal: Annotated[bool, Flag("Inside", "A nut's thread")] = False
    class_: Annotated[str, Text("Class", "Such as 6g, 5g6g, 6H, 2A or 3B; empty: 6g, 6H, 2A, 2B", most=8), CLASSED] = ""
    passes: Annotated[int, terms.THREAD_PASSES] = 6
    engagement_mm: Annotated[
        float | None,
        Quantity("Engagement", "mm", "Length that screws together; empty: the standard's", above=0, high=1000),
        CLASSED,
    ] = None
    starts: Annotated[int, Quantity("Starts", "", "", low=1, high=12, whole=True)] = 1
    wire_mm: Annotated[
        float | None, Quantity("Wires", "mm", "Diameter; empty: the best", above=0, high=60), OUTSIDE
    ] = None

    def contradictions(self) -> Iterator[FieldError]:
        if self.pitch_mm >= self.diameter_mm:
            words = Sentence(
                "A thread's pitch is smaller than its diameter, {d}.", d=Figure(self.diameter_mm, "mm", exact=True)
            )
            yield FieldError("pitch_mm", words)


@dataclass(frozen=True, slots=True)
class Limits:
    """Largest and smallest [mm]; None where the standard sets none."""

    max: Annotated[float | None, Found("at most", "mm", "down", places=(3, 4))]
    min: Annotated[float | None, Found("at least", "mm", "up", places=(3, 4))]


@dataclass(frozen=True, slots=True, kw_only=True)
class ThreadResult(Explained):
    """A thread's sizes [mm]. `over_wires_mm`: largest and smallest, empty for an inside thread."""

    major: Annotated[Limits, Found("Major diameter")]
    pitch_diameter: Annotated[Limits, Found("Pitch diameter")]
    minor: Annotated[Limits, Found("Minor diameter")]
    depth_mm: Annotated[float, Found("Depth of thread", "mm", places=(3, 4))]
    lead_mm: Annotated[float, Found("Lead", "mm", places=(3, 4))]
    pass_depths_mm: Annotated[tuple[float, ...], Found("Depth after each pass", "mm", places=(3, 4))]
    wire_mm: Annotated[float, Found("Best wire", "mm", places=(3, 4))]
    over_wires_mm: Annotated[tuple[float, ...], Found("Over the wires, least and most", "mm", places=(3, 4))]
    angle_deg: Annotated[float, Found("Profile angle", "deg")]


@dataclass(frozen=True, slots=True)
class _Sizes:
    major: Limits
    pitch: Limits
    minor: Limits
    depth: float


@calculator(ThreadInput)
def thread(given: ThreadInput) -> ThreadResult:
    """The limits of a thread, the depth after each pass, and its size over wires.

    Parameters
        {parameters}
    Returns
        major, pitch_diameter, minor: each max and min [mm], None where the standard sets none (an inside
        major's largest, an outside unified minor's smallest); depth_mm [mm] per side; lead_mm;
        pass_depths_mm [mm] after each pass; wire_mm [mm], the best one unless given;
        over_wires_mm [mm] largest and smallest, outside only; angle_deg
    Raises
        CalcError for values outside these ranges, sizes the standard does not have, unknown classes
    Validity
        Limits for metric ISO and unified threads; the other forms give basic sizes and say so.
    Example
        >>> r = thread(ThreadInput("iso", 24, 1.5))
        >>> r.pitch_diameter, [round(p, 4) for p in r.pass_depths_mm][-1]
        (Limits(max=22.994, min=22.844), 0.9202)

    Reference
        ISO 68-1, ISO 965-1, ASME B1.1, ISO 2904, ASME B1.5, BS 84, DIN 40430; passes and wires derived in
        docs/method.md
    """
    w = Working()
    source = Source("standard", STANDARD[given.form])
    sizes = _SIZES[given.form](given, w, source)
    problems = [FieldError("pitch_mm", Sentence("This pitch is too coarse for the diameter: no core is left."))]
    if (sizes.minor.min or sizes.minor.max or 0.0) <= 0 or (sizes.pitch.min or 0.0) <= 0:
        raise CalcError(problems)
    if given.form not in ("iso", "un"):
        w.note("caution", "basic-sizes", "Basic sizes only: take the limits from {s}.", s=STANDARD[given.form])
        if given.class_:
            w.note("info", "class-unknown", "The class {c} is not computed for this form.", c=given.class_)
    lead = w.step("P_h", "Lead, the feed per turn", "z * P", "mm", source, z=float(given.starts), P=given.pitch_mm)
    depths = tuple(
        w.step(
            f"t_{i}",
            f"Depth after pass {i}",
            "h * sqrt(i/n)",
            "mm",
            PASSES,
            h=sizes.depth,
            i=float(i),
            n=float(given.passes),
        )
        for i in range(1, given.passes + 1)
    )
    wire, over = _over_wires(given, sizes, w)
    _notes(given, w)
    return ThreadResult(
        major=sizes.major,
        pitch_diameter=sizes.pitch,
        minor=sizes.minor,
        depth_mm=sizes.depth,
        lead_mm=lead,
        pass_depths_mm=depths,
        wire_mm=wire,
        over_wires_mm=over,
        angle_deg=ANGLES[given.form],
        working=tuple(w.steps),
        notes=tuple(w.notes),
    )


def _notes(given: ThreadInput, w: Working) -> None:
    w.note("info", "thread-burr", "Threading raises a burr at each end: deburr, and take a spring pass.")
    if given.starts > 1:
        w.note("info", "starts", "Each of the {n} starts is cut by itself, a pitch further on.", n=str(given.starts))
    if given.form == "iso" and given.engagement_mm is not None:
        low, high = iso965.engagement(given.diameter_mm, given.pitch_mm)
        if not low <= given.engagement_mm <= high:
            w.note(
                "caution",
                "engagement",
                "An engagement of {x} is outside {a} to {b}, which the classes are meant for: ask for another grade.",
                x=Figure(given.engagement_mm, "mm"),
                a=Figure(low, "mm"),
                b=Figure(high, "mm"),
            )


def _class(given: ThreadInput) -> str:
    return given.class_ or DEFAULT_CLASS[given.form, given.internal]


def _basic(given: ThreadInput, w: Working, source: Source, places: int = 3, unit: float = 1.0) -> tuple[float, float]:
    """(pitch, minor) basic diameters in the standard's unit, rounded as it rounds them."""
    d, p = given.diameter_mm / unit, given.pitch_mm / unit
    name = "mm" if unit == 1.0 else "in"
    pitch = w.step("d_2", "Basic pitch diameter", "d - 0.649519*P", name, source, d=d, P=p)
    minor = w.step("d_1", "Basic minor diameter", "d - 1.082532*P", name, source, d=d, P=p)
    return round(pitch, places), round(minor, places + (2 if unit != 1.0 else 0))


def _iso(given: ThreadInput, w: Working, source: Source) -> _Sizes:
    d, p = given.diameter_mm, given.pitch_mm
    t = iso965.tolerances(d, p, _class(given), internal=given.internal)
    pitch, minor = _basic(given, w, source)
    said = {"T_p": t.pitch_mm, "E": t.deviation_mm}
    if given.internal:
        low = w.step("D_2min", "Smallest pitch diameter", "d_2 + E", "mm", source, d_2=pitch, E=t.deviation_mm)
        high = w.step("D_2max", "Largest pitch diameter", "d_2 + E + T_p", "mm", source, d_2=pitch, **said)
        least = w.step("D_1min", "Smallest minor diameter", "d_1 + E", "mm", source, d_1=minor, E=t.deviation_mm)
        most = w.step(
            "D_1max",
            "Largest minor diameter",
            "d_1 + E + T_c",
            "mm",
            source,
            d_1=minor,
            E=t.deviation_mm,
            T_c=t.crest_mm,
        )
        major = Limits(None, _mm(d + t.deviation_mm))
        return _Sizes(major, Limits(_mm(high), _mm(low)), Limits(_mm(most), _mm(least)), _depth(given, w, source))
    top = w.step("d_max", "Largest major diameter", "d + E", "mm", source, d=d, E=t.deviation_mm)
    bottom = w.step(
        "d_min", "Smallest major diameter", "d + E - T_c", "mm", source, d=d, E=t.deviation_mm, T_c=t.crest_mm
    )
    high = w.step("d_2max", "Largest pitch diameter", "d_2 + E", "mm", source, d_2=pitch, E=t.deviation_mm)
    low = w.step("d_2min", "Smallest pitch diameter", "d_2 + E - T_p", "mm", source, d_2=pitch, **said)
    most = w.step("d_1max", "Largest minor diameter", "d_1 + E", "mm", source, d_1=minor, E=t.deviation_mm)
    least = w.step("d_1min", "Smallest minor diameter", "d_2min - 0.616025*P", "mm", source, d_2min=low, P=p)
    return _Sizes(
        Limits(_mm(top), _mm(bottom)),
        Limits(_mm(high), _mm(low)),
        Limits(_mm(most), _mm(least)),
        _depth(given, w, source),
    )


def _mm(value: float) -> float:
    return round(value + 1e-12, 3)


def _unified(given: ThreadInput, w: Working, source: Source) -> _Sizes:
    d, per_inch = given.diameter_mm / INCH, INCH / given.pitch_mm
    name = _class(given)
    engaged = None if given.engagement_mm is None else given.engagement_mm / INCH
    t = asme_b1.tolerances(d, per_inch, name, internal=given.internal, engagement_in=engaged)
    pitch, minor = _basic(given, w, source, 4, INCH)
    if not asme_b1.is_standard(d, per_inch):
        w.note(
            "info",
            "special-thread",
            "Not of UNC, UNF or 8UN: limits are for an engagement of nine pitches unless one is given.",
        )
    if given.internal:
        high = w.step("D_2max", "Largest pitch diameter", "d_2 + T_p", "in", source, d_2=pitch, T_p=t.pitch_in)
        # The tables add to the minor diameter in four places; the least of a class 3B they give in three.
        least = round(minor + 1e-9, 4)
        most = w.step("D_1max", "Largest minor diameter", "d_1 + T_c", "in", source, d_1=least, T_c=t.crest_in)
        small = d < asme_b1.FOUR_PLACES_BELOW_IN
        places = 4 if name.upper() == "3B" or small else 3
        return _Sizes(
            Limits(None, _inch(d)),
            Limits(_inch(high), _inch(pitch)),
            Limits(_inch(most, places), _inch(minor, 4 if small else 3)),
            _depth(given, w, source),
        )
    a = t.allowance_in
    top = w.step("d_max", "Largest major diameter", "d - es", "in", source, d=d, es=a)
    bottom = w.step("d_min", "Smallest major diameter", "d - es - T_c", "in", source, d=d, es=a, T_c=t.crest_in)
    high = w.step("d_2max", "Largest pitch diameter", "d_2 - es", "in", source, d_2=pitch, es=a)
    low = w.step("d_2min", "Smallest pitch diameter", "d_2 - es - T_p", "in", source, d_2=pitch, es=a, T_p=t.pitch_in)
    most = w.step("d_1max", "Largest minor diameter", "d_1 - es", "in", source, d_1=minor, es=a)
    return _Sizes(
        Limits(_inch(top), _inch(bottom)),
        Limits(_inch(high), _inch(low)),
        Limits(_inch(most), None),
        _depth(given, w, source),
    )


def _inch(value: float, places: int = 4) -> float:
    """Inches as mm, rounded to the standard's places first."""
    return round(round(value + 1e-9, places) * INCH, 6)


def _depth(given: ThreadInput, w: Working, source: Source) -> float:
    outside, inside = DEPTHS[given.form]
    return w.step(
        "h", "Depth of thread", "k_h * P", "mm", source, k_h=inside if given.internal else outside, P=given.pitch_mm
    )


def _exactly(major: float, pitch: float, minor: float, depth: float) -> _Sizes:
    return _Sizes(Limits(major, major), Limits(pitch, pitch), Limits(minor, minor), depth)


def _whitworth(given: ThreadInput, w: Working, source: Source) -> _Sizes:
    d, p = given.diameter_mm, given.pitch_mm
    depth = _depth(given, w, source)
    pitch = w.step("d_2", "Basic pitch diameter", "d - 0.640327*P", "mm", source, d=d, P=p)
    return _exactly(d, pitch, w.step("d_1", "Basic minor diameter", "d - 2*0.640327*P", "mm", source, d=d, P=p), depth)


def crest_clearance(pitch_mm: float) -> float:
    """Crest clearance a_c [mm] of a metric trapezoidal thread.

    >>> crest_clearance(1.5), crest_clearance(5), crest_clearance(12), crest_clearance(14)
    (0.15, 0.25, 0.5, 1.0)
    """
    return 0.15 if pitch_mm <= 1.5 else 0.25 if pitch_mm <= 5 else 0.5 if pitch_mm <= 12 else 1.0


def _trapezoidal(given: ThreadInput, w: Working, source: Source) -> _Sizes:
    d, p, a = given.diameter_mm, given.pitch_mm, crest_clearance(given.pitch_mm)
    depth = w.step("h", "Depth of thread", "0.5*P + a_c", "mm", source, P=p, a_c=a)
    pitch = w.step("d_2", "Basic pitch diameter", "d - 0.5*P", "mm", source, d=d, P=p)
    if given.internal:
        minor = w.step("D_1", "Minor diameter", "d - P", "mm", source, d=d, P=p)
        return _exactly(d + 2 * a, pitch, minor, depth)
    return _exactly(d, pitch, w.step("d_3", "Core diameter", "d - P - 2*a_c", "mm", source, d=d, P=p, a_c=a), depth)


def _acme(given: ThreadInput, w: Working, source: Source) -> _Sizes:
    # Clearance 0.010 in from ten threads per inch upward in pitch, 0.005 in for finer ones.
    d, p = given.diameter_mm, given.pitch_mm
    a = (0.010 if p >= INCH / 10 * (1 - 1e-9) else 0.005) * INCH
    depth = w.step("h", "Depth of thread", "0.5*P + a_c", "mm", source, P=p, a_c=a)
    pitch = w.step("d_2", "Basic pitch diameter", "d - 0.5*P", "mm", source, d=d, P=p)
    if given.internal:
        minor = w.step("D_1", "Minor diameter", "d - P", "mm", source, d=d, P=p)
        return _exactly(d + 2 * a, pitch, minor, depth)
    return _exactly(d, pitch, w.step("d_1", "Core diameter", "d - P - 2*a_c", "mm", source, d=d, P=p, a_c=a), depth)


def _pg(given: ThreadInput, w: Working, source: Source) -> _Sizes:
    found = next((d for d in PG if abs(d - given.diameter_mm) < 1e-6), None)
    if found is None:
        known = ", ".join(f"{d:g}" for d in PG)
        raise CalcError(
            [FieldError("diameter_mm", Sentence("DIN 40430 has these major diameters, in mm: {k}.", k=known))]
        )
    per_inch, core = PG[found]
    if abs(given.pitch_mm - INCH / per_inch) > 0.005:
        raise CalcError(
            [
                FieldError(
                    "pitch_mm",
                    Sentence(
                        "This size has {n} threads per inch, a pitch of {p}.",
                        n=str(per_inch),
                        p=Figure(INCH / per_inch, "mm", places=(3, 4)),
                    ),
                )
            ]
        )
    depth = w.step("h", "Depth of thread", "(d - d_1)/2", "mm", source, d=found, d_1=core)
    return _exactly(found, (found + core) / 2, core, depth)


_SIZES = {"iso": _iso, "un": _unified, "whitworth": _whitworth, "trapezoidal": _trapezoidal, "acme": _acme, "pg": _pg}


def _over_wires(given: ThreadInput, sizes: _Sizes, w: Working) -> tuple[float, tuple[float, ...]]:
    angle = ANGLES[given.form]
    best = w.step("w_b", "Best wire", "P / (2*cos(radians(α/2)))", "mm", WIRES, P=given.pitch_mm, α=angle)
    wire = given.wire_mm if given.wire_mm is not None else best
    if given.internal:
        return wire, ()
    found = []
    for which, size in (("max", sizes.pitch.max), ("min", sizes.pitch.min)):
        assert size is not None
        found.append(
            w.step(
                f"M_{which}",
                f"Over wires, {'largest' if which == 'max' else 'smallest'}",
                "d_2 + w*(1 + 1/sin(radians(α/2))) - P/2 * cos(radians(α/2))/sin(radians(α/2))",
                "mm",
                WIRES,
                d_2=size,
                w=wire,
                α=angle,
                P=given.pitch_mm,
            )
        )
    if not 0.85 * best <= wire <= 1.2 * best:
        w.note(
            "caution",
            "wire-unfit",
            "Wires of {x} touch the flanks far from the pitch line: the best is {b}.",
            x=Figure(wire, "mm", places=(3, 4)),
            b=Figure(best, "mm", places=(3, 4)),
        )
    return wire, tuple(found)

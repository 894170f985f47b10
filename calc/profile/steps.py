"""One step of a turned profile: what a line of the print says about one diameter."""

from __future__ import annotations

import math
from collections.abc import Iterator
from dataclasses import dataclass
from typing import Annotated, Literal

from calc import terms
from calc.errors import CalcError, FieldError
from calc.fields import Checked, Choice, Flag, Quantity, Text
from calc.identity import Identity
from calc.profile.limits import class_limits
from calc.quantities import Figure, Sentence, about

DIAMETER_MOST = 1000.0
LENGTH_MOST = 2000.0
NAME_MOST = 40

LEFT = Choice(
    "Left as",
    {"turned": "turned", "hexagon": "the hexagon bar is", "square": "the square bar is"},
    "Its diameter is then across the flats",
)
Name = Annotated[str, Text("Name", "What it is called here", most=NAME_MOST)]


@dataclass(frozen=True)
class TurnedStep(Checked):
    """One step, outside or inside: a cylinder, a taper or an arc, with its limits, edges, finish and thread.

    The edge (chamfer or round) is on its corners that stand proud, the corner radius in those that are
    hollow. Limits are deviations from the nominal, so that they move with it; or a tolerance class.
    """

    name: Name
    diameter_mm: Annotated[
        float | None, Quantity("Diameter", "mm", "Finished, nominal, from the print", above=0, high=DIAMETER_MOST)
    ] = None
    length_mm: Annotated[
        float | None,
        Quantity("Length", "mm", "Along the axis; a bore without one goes through", above=0, high=LENGTH_MOST),
    ] = None
    upper_mm: Annotated[
        float | None, Quantity("Upper limit", "mm", "Deviation from nominal", low=-5, high=5, places=(3, 4))
    ] = None
    lower_mm: Annotated[
        float | None, Quantity("Lower limit", "mm", "Deviation from nominal", low=-5, high=5, places=(3, 4))
    ] = None
    fit: Annotated[str, Text("Tolerance class", "ISO 286, such as h7", most=6)] = ""
    end_diameter_mm: Annotated[
        float | None, Quantity("Diameter at its end", "mm", "Of a taper or an arc", above=0, high=DIAMETER_MOST)
    ] = None
    arc_mm: Annotated[
        float | None,
        Quantity("Arc radius", "mm", "Above 0 bulges from the axis, below 0 toward it", low=-5000, high=5000),
    ] = None
    chamfer_mm: Annotated[float | None, Quantity("Chamfer", "mm", "45°, on its edges", low=0, high=50)] = None
    round_mm: Annotated[float | None, Quantity("Edge round", "mm", "On its edges", low=0, high=50)] = None
    corner_mm: Annotated[
        float | None, Quantity("Corner radius", "mm", "Most that its inside corner may have", low=0, high=50)
    ] = None
    ra_um: Annotated[float | None, terms.FINISH] = None
    thread: Annotated[str, Text("Thread", "Such as M24x1.5-6g or 3/4-16 UNF-2A", most=30)] = ""
    thread_length_mm: Annotated[
        float | None, Quantity("Thread length", "mm", "Empty: the whole step", above=0, high=LENGTH_MOST)
    ] = None
    groove: Annotated[bool, Flag("Groove", "Made with a grooving tool")] = False
    left: Annotated[Literal["turned", "hexagon", "square"], LEFT] = "turned"
    id: Identity = ""

    def contradictions(self) -> Iterator[FieldError]:
        yield from self._limits()
        yield from self._shape()
        if self.thread_length_mm is not None and not self.thread:
            yield FieldError("thread_length_mm", Sentence("A thread length needs its thread, such as M24x1.5-6g."))
        length = self.length_mm
        if self.thread_length_mm is not None and length is not None and self.thread_length_mm > length:
            words = Sentence("The thread is longer than its step of {x}.", x=Figure(length, "mm", exact=True))
            yield FieldError("thread_length_mm", words)

    def _limits(self) -> Iterator[FieldError]:
        hi, lo = self.upper_mm, self.lower_mm
        if hi is not None and lo is not None and lo > hi:
            yield FieldError("lower_mm", about("The lower limit cannot be above the upper one, {x}.", hi))
            yield FieldError("upper_mm", about("The upper limit cannot be below the lower one, {x}.", lo))
        if self.fit and (hi is not None or lo is not None):
            yield FieldError("fit", Sentence("Give the limits as a class or as figures, not both."))
        elif self.fit and self.diameter_mm is not None:
            try:
                class_limits(self.diameter_mm, self.fit)
            except CalcError as error:
                yield from error.errors

    def _shape(self) -> Iterator[FieldError]:
        if self.chamfer_mm is not None and self.round_mm is not None:
            yield FieldError("round_mm", Sentence("An edge is chamfered or rounded, not both."))
        bent = self.end_diameter_mm is not None or self.arc_mm is not None
        edges = [n for n in ("chamfer_mm", "round_mm", "corner_mm") if getattr(self, n)]
        if bent and self.thread:
            yield FieldError("thread", Sentence("A thread stands on a plain step, not on a taper or an arc."))
        if bent and edges:
            yield FieldError(
                edges[0], Sentence("Edges and corners are given at plain steps: draw this one as a step of its own.")
            )
        if self.flats and (bent or self.thread or self.groove):
            yield FieldError("left", Sentence("Flats are left as the bar is: no thread, groove or taper goes on them."))
        d, end, length = self.diameter_mm, self.end_diameter_mm, self.length_mm
        if self.arc_mm is not None and d is not None and length is not None:
            chord = math.hypot(length, ((end or d) - d) / 2)
            if 2 * abs(self.arc_mm) < chord * (1 - 1e-9):
                least = Figure(chord / 2, "mm", "up")
                yield FieldError("arc_mm", Sentence("An arc over this step has a radius of {r} or more.", r=least))

    @property
    def limits_mm(self) -> tuple[float, float] | None:
        """(smallest, largest) diameter, None while not all of it is entered."""
        d = self.diameter_mm
        if d is None:
            return None
        if self.fit:
            low, high = class_limits(d, self.fit)
            return d + low, d + high
        if self.upper_mm is None or self.lower_mm is None:
            return None
        return d + self.lower_mm, d + self.upper_mm

    @property
    def is_plain(self) -> bool:
        """A cylinder without a thread."""
        bent = self.end_diameter_mm is not None or self.arc_mm is not None
        return not bent and not self.thread and not self.groove and not self.flats

    @property
    def flats(self) -> int:
        """How many flats it has, where it is left as the bar is; 0 where it is turned."""
        return terms.FLATS[self.left]

    @property
    def last_diameter_mm(self) -> float | None:
        """Diameter at its far end."""
        return self.diameter_mm if self.end_diameter_mm is None else self.end_diameter_mm

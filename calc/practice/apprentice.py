"""The bench of the apprentice: a chuck that answers to pressure, height, speed and grease, and jaws to be brought even
by blue with the fewest cuts.
"""

from __future__ import annotations

import math
from dataclasses import dataclass, replace
from typing import Annotated, Literal

from calc.card.readings.feeler import STEP_MM
from calc.chuck.book import ChartPoint, ChuckForce
from calc.chuck.grip import ChuckGripInput, ChuckGripResult, chuck_grip
from calc.chuck.speed import GripAtSpeedInput, GripAtSpeedResult, StackPart, grip_at_speed
from calc.errors import FieldProblem
from calc.fields import Checked, Choice, Quantity
from calc.illustrated.graph import Graph
from calc.illustrated.grip_drawn import at_speed
from calc.illustrated.jaws_drawn import wall
from calc.jaws.taper import JawTaperInput, jaw_taper
from calc.practice.draw import Draw
from calc.practice.jaw_kinds import blued
from calc.quantities import Figure, Sentence, counted
from calc.scene.shapes import Scene
from calc.walls.lobing import WallLobingInput, WallLobingResult, wall_lobing

CHUCK = ChuckForce(100_000, 30, 45, 85, 0.08, (ChartPoint(5, 100_000 / 6), ChartPoint(30, 100_000)))
STACK = (StackPart(1.4, 72), StackPart(1.2, 64))
JAWS, BORED_AT_BAR = 3, 6.0
OUTER_MM, INNER_MM, LONG_MM, WRAP_DEG = 150.0, 126.0, 30.0, 60.0
WIDTH_MM, THICK_MM, STEEL_GPA = 40.0, 45.0, 205.0
RPM_MOST = 3500.0
CUTS_MOST = 9  # then the jaws are used up
EVEN_WITHIN = STEP_MM / 2
CONDITION = {"today": 1.0, "week": 0.85, "long": 0.5}  # typical
Grease = Literal["today", "week", "long"]
Shows = Literal["base", "tip", "even"]


@dataclass(frozen=True)
class Bench(Checked):
    """How the chuck is set."""

    pressure_bar: Annotated[float, Quantity("Gauge pressure", "bar", "", low=5, high=30)] = 20.0
    height_mm: Annotated[float, Quantity("Grip height", "mm", "Above the master jaw's guide", low=40, high=90)] = 60.0
    rpm: Annotated[float, Quantity("Spindle speed", "rpm", "", low=0, high=RPM_MOST)] = 1500.0
    grease: Annotated[
        Grease, Choice("Greased", {"today": "today", "week": "within a week", "long": "longer ago, or unknown"})
    ] = "week"


@dataclass(frozen=True)
class Standing:
    """What the chuck answers: grips, the wall, what the taper is estimated at, in pictures and words."""

    grip: ChuckGripResult
    left: GripAtSpeedResult
    wall: WallLobingResult
    estimate_mm: float
    told: tuple[Sentence, ...]
    curve: Graph | None
    squeezed: Scene | None


@dataclass(frozen=True)
class Blued:
    """A cut of the jaws: the taper that was put in, and what the blue shows then."""

    taper_mm: float
    shows: Shows


@dataclass(frozen=True)
class Even:
    """How far the jaws are: every cut, the last one's picture, whether they are even, and with how many cuts somebody
    does it who steps by the blue from the estimate on.
    """

    cuts: tuple[Blued, ...]
    picture: Scene | None
    done: bool
    par: int
    told: Sentence


def _grip(bench: Bench, bar: float) -> ChuckGripResult:
    return chuck_grip(ChuckGripInput(bar, bench.height_mm, CHUCK, CONDITION[bench.grease], JAWS))


def standing(bench: Bench) -> Standing:
    """What the chuck answers to how it is set.

    Reference: docs/method.md, “Practice”
    """
    grip = _grip(bench, bench.pressure_bar)
    asked = GripAtSpeedInput(grip.grip_n, "od", STACK, bench.rpm, JAWS)
    left = grip_at_speed(asked)
    ring = WallLobingInput(grip.grip_n, "od", OUTER_MM, INNER_MM, LONG_MM, STEEL_GPA, 0.3, JAWS, WRAP_DEG)
    lobed = wall_lobing(ring)
    told = []
    if grip.overloaded:
        told.append(
            Sentence(
                "The chuck carries more than its rated moment: at this height it may give {a}.",
                a=Figure(grip.allowable_grip_n, "N", "down"),
            )
        )
    if left.kept_fraction < 1 / 3:
        told.append(Sentence("Less than a third of the grip is left at this speed: nobody turns so."))
    if bench.grease == "long":
        told.append(Sentence("Without grease half of the grip stays in the guides: grease it, then measure."))
    return Standing(grip, left, lobed, _taper(bench), tuple(told), _curve(asked, left), wall(ring, lobed))


def _curve(asked: GripAtSpeedInput, left: GripAtSpeedResult) -> Graph | None:
    """The grip over all speeds that can be set, so that the point moves and not the scale."""
    far = replace(asked, rpm=RPM_MOST)
    whole = at_speed(far, grip_at_speed(far))
    return None if whole is None else replace(whole, mark=(asked.rpm, left.grip_n))


def _taper(bench: Bench) -> float:
    """Taper on diameter [mm] that the estimate asks for: production pressure against the boring ring's."""
    force, cut = (_grip(bench, bar).per_jaw_n for bar in (bench.pressure_bar, BORED_AT_BAR))
    if force <= cut:
        return 0.0
    given = JawTaperInput(force, cut, bench.height_mm, LONG_MM, WIDTH_MM, THICK_MM, STEEL_GPA)
    return jaw_taper(given).taper_on_diameter_mm


def true_taper(bench: Bench, seed: int) -> float:
    """What these jaws really need [mm on diameter]: the joint gives, by how much only the blue knows."""
    return _taper(bench) * Draw("apprentice", seed, 1).value(1.1, 2.0, 0.05)


def _shows(taper: float, needed: float) -> Shows:
    off = taper - needed
    return "even" if abs(off) <= EVEN_WITHIN * (1 + 1e-9) else "base" if off > 0 else "tip"


def par_of(estimate: float, needed: float) -> int:
    """Cuts from the estimate on, a step of the blue at a time, until it is even.

    >>> par_of(0.10, 0.105), par_of(0.10, 0.145)
    (1, 3)
    """
    off = max(0.0, abs(needed - estimate) - EVEN_WITHIN)
    return 1 + math.ceil(off / STEP_MM - 1e-9)


def bring_even(bench: Bench, seed: int, tapers_mm: tuple[float, ...]) -> Even:
    """The jaws after so many cuts. Raises FieldProblem where there are more than they have metal for."""
    if len(tapers_mm) > CUTS_MOST:
        raise FieldProblem("tapers_mm", f"After {CUTS_MOST} cuts these jaws are used up: begin with a new set.")
    needed = true_taper(bench, seed)
    cuts = tuple(Blued(t, _shows(t, needed)) for t in tapers_mm)
    done, par = bool(cuts) and cuts[-1].shows == "even", par_of(_taper(bench), needed)
    if not cuts:
        told = Sentence("Cut the jaws with a taper, then look at the blue.")
    elif done and len(cuts) <= par:
        told = Sentence("Even after {n}: nobody does it in fewer by the blue alone.", n=counted(len(cuts), "cut"))
    elif done:
        told = Sentence("Even after {n}; by steps of the blue it takes {p}.", n=counted(len(cuts), "cut"), p=str(par))
    elif len(cuts) == CUTS_MOST:
        told = Sentence("The jaws are used up and not even. Take a new set, and step by what the blue says.")
    else:
        told = Sentence("Not even yet. Which way, and how far?")
    return Even(cuts, blued(cuts[-1].shows) if cuts else None, done, par, told)

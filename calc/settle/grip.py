"""What the grip leaves to one cut at a pressure: how fast a candidate may turn before it would not be held."""

from __future__ import annotations

import math
from collections.abc import Callable
from dataclasses import dataclass, replace

import numpy as np

from calc.chuck.demand import CutLoad, GripDemandInput, Pushes, beside, terms_of
from calc.chuck.speed import KEPT_LEAST
from calc.many import MANY, Array
from calc.rules import Rules

HALVINGS = 40
ENDLESS = 1e15


@dataclass(frozen=True)
class Grip:
    """Grip standing still [N], what speed takes of it [N/rpm²], and the most that the spindle may turn [rpm], by name.

    `keeps`: a share of it must be kept at speed, which an outside grip loses.
    """

    static_n: float
    loss: float
    keeps: bool
    most: tuple[tuple[str, float], ...]

    @property
    def most_rpm(self) -> float:
        """The least of what the spindle may turn."""
        return min(rpm for _, rpm in self.most)

    @property
    def most_by(self) -> str:
        """What sets it."""
        return min(self.most, key=lambda one: one[1])[0]

    def endless(self) -> Grip:
        """The same spindle with more grip than any cut asks for."""
        return replace(self, static_n=ENDLESS, loss=0.0)

    def unlimited(self, times: float) -> Grip:
        """The same grip with a spindle that may turn so many times as fast."""
        return replace(self, most=tuple((name, times * rpm) for name, rpm in self.most))


@dataclass(frozen=True, eq=False)
class Pushed:
    """Forces of the candidates [N]: tangential at the edge, along and across the axis, passive on a bar."""

    tangential: Array
    axial: Array
    radial: Array
    passive: Array


@dataclass(frozen=True, eq=False)
class Asking:
    """What a cut asks of the grip, as planned and at the worst credible corner: forces are the candidates'."""

    asked: GripDemandInput
    corner: GripDemandInput
    load: CutLoad
    rules: Rules
    factor: float  # on the tangential force of an interrupted cut
    pressed_n: float = 0.0  # of a live centre's thrust, what the jaws hold
    most_rpm: float = math.inf  # up to where a second spindle holds what is parted off

    def needs(self, forces: Pushed, *, corner: bool) -> Callable[[Array | float], Array]:
        """The grip [N] that each candidate needs at a speed [rpm]; at the corner without the safety."""
        given, load = (self.corner if corner else self.asked), self.load
        more = self.rules.heavier if corner else 1.0
        axial = more * forces.axial
        push = Pushes(
            more * self.factor * forces.tangential,
            axial,
            more * forces.radial,
            (axial if load.unseated_axial_n > self.pressed_n else np.zeros_like(axial)) + more * self.pressed_n,
            load.cut_diameter_mm,
            load.overhang_mm,
            load.torque_only,
        )
        safety = given.safety if corner else 1.0

        def at(rpm: Array | float) -> Array:
            weighs = beside(MANY, given, np.asarray(rpm, dtype=np.float64)) if given.part_mass_kg > 0 else None
            found: Array = terms_of(MANY, "", push, given, weighs).required / safety
            return found

        return at

    @property
    def grows(self) -> bool:
        """Imbalance makes it rise with speed."""
        return self.asked.offset_mm > 0 and self.asked.part_mass_kg > 0 and not self.asked.tailstock


def allowed_rpm(asking: Asking, forces: Pushed, grip: Grip) -> Array:
    """The highest speed [rpm] at which each candidate is held: with its safety, at the worst credible corner, with a
    third of the grip kept; 0 where it is not held standing still.
    """
    worst = 1 - asking.rules.corner_condition_pct / 100
    demands = (
        (grip.static_n, asking.needs(forces, corner=False)),
        (worst * grip.static_n, asking.needs(forces, corner=True)),
    )
    most = np.full_like(forces.tangential, min(grip.most_rpm, asking.most_rpm))
    if grip.keeps and grip.loss > 0:
        most = np.minimum(most, np.sqrt((1 - KEPT_LEAST) * grip.static_n / grip.loss))
    for static, needs in demands:
        most = np.minimum(most, _meets(static, grip.loss, needs, most, grows=asking.grows))
    return most


def _meets(static: float, loss: float, needs: Callable[[Array | float], Array], most: Array, *, grows: bool) -> Array:
    if not grows:
        left = static - needs(0.0)
        if loss <= 0:
            return np.where(left >= 0, most, 0.0)
        return np.sqrt(np.maximum(left, 0.0) / loss)
    low, high = np.zeros_like(most), most.copy()
    fine = static - loss * high**2 >= needs(high)
    for _ in range(HALVINGS):
        middle = (low + high) / 2
        holds = static - loss * middle**2 >= needs(middle)
        low, high = np.where(holds, middle, low), np.where(holds, high, middle)
    return np.where(fine, most, low)

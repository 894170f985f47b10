"""What a plan takes from the shelf."""

from __future__ import annotations

from dataclasses import dataclass, field

from calc.chuck.calibration import Calibration
from calc.shelf.machine import Machine
from calc.shelf.material import Material
from calc.shelf.workholding import Chuck, JawBlank, JawSet, Plug, Ring
from calc.tools.library import EMPTY, Library


@dataclass(frozen=True)
class SetupShelf:
    """What one set-up takes from the shelf; None while not chosen.

    `blanks`, `rings` and `jaw_sets` are all that the chuck could carry; `on_machine`: the chuck is on
    the run's machine.
    """

    chuck: Chuck | None = None
    blank: JawBlank | None = None
    blanks: tuple[JawBlank, ...] = ()
    on_machine: bool = True
    rings: tuple[Ring, ...] = ()
    plugs: tuple[Plug, ...] = ()
    jaw_set: JawSet | None = None
    jaw_sets: tuple[JawSet, ...] = ()
    calibration: Calibration | None = None  # the chuck's latest gauge run, preferably with this jaw set
    greased_on: str | None = None  # ISO date of the greasing log's last entry


@dataclass(frozen=True)
class Shelf:
    """What a plan takes from the shelf."""

    machine: Machine | None = None
    material: Material | None = None
    setups: tuple[SetupShelf, ...] = field(default=(SetupShelf(),))
    tools: Library = EMPTY
    today: str = ""  # ISO date; what was measured or greased counts for some days

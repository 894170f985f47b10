"""What a plan takes from the shelf."""

from __future__ import annotations

from dataclasses import dataclass, field
from typing import Annotated

from calc.calendar.calendar import Calendar
from calc.chuck.calibration import Calibration
from calc.fields import Flag, Group, Text
from calc.shelf.chuck import Chuck
from calc.shelf.collet import Collet
from calc.shelf.jaw_blank import JawBlank
from calc.shelf.jaw_set import JawSet
from calc.shelf.machine import Machine
from calc.shelf.material import Material
from calc.shelf.plug import Plug
from calc.shelf.ring import Ring
from calc.tools.library import EMPTY, Library

MOST = 2000  # of a kind


@dataclass(frozen=True)
class SetupShelf:
    """What one set-up takes from the shelf; None while not chosen.

    `blanks`, `rings` and `jaw_sets` are all that the chuck could carry; `on_machine`: the chuck is on
    the run's machine.
    """

    chuck: Annotated[Chuck | None, Group("Chuck")] = None
    blank: Annotated[JawBlank | None, Group("Top jaw")] = None
    blanks: Annotated[tuple[JawBlank, ...], Group("Top jaws", "All that the chuck could carry", most=MOST)] = ()
    collet: Annotated[Collet | None, Group("Collet")] = None
    collets: Annotated[tuple[Collet, ...], Group("Collets", "All that the chuck could close", most=MOST)] = ()
    on_machine: Annotated[bool, Flag("On the machine", "The chuck is on the run's machine")] = True
    rings: Annotated[tuple[Ring, ...], Group("Boring rings", most=MOST)] = ()
    plugs: Annotated[tuple[Plug, ...], Group("Boring plugs", most=MOST)] = ()
    jaw_set: Annotated[JawSet | None, Group("Jaw set")] = None
    jaw_sets: Annotated[tuple[JawSet, ...], Group("Jaw sets", "All that were bored on the chuck", most=MOST)] = ()
    calibration: Annotated[
        Calibration | None, Group("Gauge run", "The chuck's latest, preferably with this jaw set")
    ] = None
    greased_on: Annotated[str | None, Text("Greased on", "ISO date of the greasing log's last entry", most=10)] = None


@dataclass(frozen=True)
class Shelf:
    """What a plan takes from the shelf."""

    machine: Annotated[Machine | None, Group("Machine")] = None
    material: Annotated[Material | None, Group("Material")] = None
    setups: Annotated[tuple[SetupShelf, ...], Group("Set-ups", least=1, most=2)] = field(default=(SetupShelf(),))
    tools: Annotated[Library, Group("Tools")] = EMPTY
    calendar: Annotated[Calendar, Group("Calendar", "When the shop works")] = field(default_factory=Calendar)
    today: Annotated[
        str, Text("Day that counts", "ISO date; what was measured or greased counts for some days", most=10)
    ] = ""

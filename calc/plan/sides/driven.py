"""The part of a set-up with the lathe as that set-up's spindle drives it: the second one, or a bar in its feeder."""

from __future__ import annotations

from dataclasses import replace
from functools import lru_cache

from calc.plan.outcome import Asked, Solved
from calc.plan.part.solve import PART, PartFigures
from calc.plan.sides.solve import is_bar_work
from calc.shelf.machine import Machine

KEPT = 64


def is_fed(asked: Asked, machine: Machine) -> bool:
    """A bar that the machine's feeder pushes on."""
    return is_bar_work(asked.document, asked.index) and machine.feeder_mm is not None


@lru_cache(maxsize=KEPT)
def _with(part: PartFigures, machine: Machine) -> PartFigures:
    return replace(part, machine=machine)


def _find(asked: Asked) -> PartFigures:
    part, chuck = asked.need(PART), asked.taken.chuck
    machine = part.machine
    if chuck is not None and chuck.spindle == "second":
        machine = machine.on_second()
    if is_fed(asked, machine) and machine.feeder_rpm is not None:
        machine = replace(machine, max_rpm=min(machine.max_rpm, machine.feeder_rpm))
    return part if machine == part.machine else _with(part, machine)


DRIVEN = Solved("driven", "Part", _find)

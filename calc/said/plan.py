"""A whole computed plan as it is read: its stops, then each side with what is carried and drawn."""

from __future__ import annotations

from dataclasses import dataclass

from calc.plan.compute import PlanResult
from calc.plan.outcome import State
from calc.plan.scenes import scenes_of
from calc.plan.stop_kind import Carried
from calc.quantities import Beside, System
from calc.said.drawn import SceneSaid, scene_said
from calc.said.stop import Reader, StopSaid, stop_said


@dataclass(frozen=True)
class CarriedSaid:
    """A figure that a setter carries to the machine, null while it is not known."""

    name: str
    label: str
    text: str | None


@dataclass(frozen=True)
class SideSaid:
    """One set-up as it is drawn and carried."""

    index: int
    id: str
    title: str
    end: str
    verdict: State
    carry: list[CarriedSaid]
    scenes: list[SceneSaid]


def _carried(carried: Carried, system: System) -> CarriedSaid:
    figure = carried.figure
    text = None if figure is None else figure.text(system)
    if figure is not None and carried.both:
        text = f"{text} · {Beside(figure).text(system)}"
    return CarriedSaid(carried.name, carried.label, text)


def stops_said(result: PlanResult, reader: Reader) -> list[StopSaid]:
    """Every stop."""
    return [stop_said(s, reader) for s in result.stops]


def sides_said(result: PlanResult, system: System) -> list[SideSaid]:
    """Every side, with its drawing."""
    return [
        SideSaid(
            s.index,
            s.id,
            s.title,
            s.end,
            s.verdict,
            [_carried(c, system) for c in s.carry],
            [scene_said(x, system) for x in scenes_of(result, s.index)],
        )
        for s in result.sides
    ]

"""A computed plan as it is read: its sides with what is carried, and its parts, each asked for by its name.

A part is what a screen shows at one place: "stop:force-s1" (the page of a stop), "helps:force-s1", "tables:hold-s1",
"pictures:cuts-s1", "working:force-s1:cap" (how an answer came about), "drawing:s1:section".
"""

from __future__ import annotations

from collections.abc import Iterator
from dataclasses import dataclass
from typing import Literal, TypeVar

from calc.plan.compute import PlanResult
from calc.plan.outcome import State
from calc.plan.pictures import ForceChart
from calc.plan.scenes import drawings_of
from calc.plan.stop import Answer, Lack, Stop
from calc.plan.stop_kind import Carried, Drawing
from calc.quantities import Beside, System
from calc.said.drawn import ChartSaid, SceneSaid, chart_said, scene_said
from calc.said.pictures import PictureSaid, picture_said
from calc.said.reader import Reader
from calc.said.stop import (
    Around,
    HelpSaid,
    LackSaid,
    Offer,
    StepSaid,
    StopPage,
    help_said,
    offers_of,
    page_said,
    steps_said,
)
from calc.said.table import TableSaid, table_said


@dataclass(frozen=True)
class CarriedSaid:
    """A figure that a setter carries to the machine, null while it is not known."""

    name: str
    label: str
    text: str | None
    warning: str | None


@dataclass(frozen=True)
class SideSaid:
    """One set-up as it is carried."""

    index: int
    id: str
    title: str
    end: str
    verdict: State
    carry: list[CarriedSaid]
    proposed: int = 0  # facts that nobody has looked at yet


def _carried(carried: Carried, system: System) -> CarriedSaid:
    figure = carried.figure
    text = None if figure is None else figure.text(system)
    if figure is not None and carried.both:
        text = f"{text} · {Beside(figure).text(system)}"
    warning = None if carried.warning is None else carried.warning.text(system)
    return CarriedSaid(carried.name, carried.label, text, warning)


def sides_said(result: PlanResult, system: System) -> list[SideSaid]:
    """Every side."""
    left = result.left_to_look_at
    return [
        SideSaid(s.index, s.id, s.title, s.end, s.verdict, [_carried(c, system) for c in s.carry], left.get(s.id, 0))
        for s in result.sides
    ]


T = TypeVar("T")
Kind = Literal["stop", "helps", "tables", "pictures", "steps", "scene", "chart"]
Content = (
    StopPage | list[HelpSaid] | list[TableSaid] | list[PictureSaid] | list[StepSaid] | SceneSaid | ChartSaid | None
)


@dataclass(frozen=True)
class PartSaid:
    """A part, and of which kind what it holds is."""

    name: str
    kind: Kind
    content: Content


def names_of(result: PlanResult) -> Iterator[str]:
    """The names of all parts of a plan."""
    for stop in result.stops:
        yield from (f"{what}:{stop.key}" for what in ("stop", "helps", "tables", "pictures"))
        yield from (f"working:{stop.key}:{answer.name}" for answer in stop.answers)
    for view in result.views:
        yield from (f"drawing:{view.setup.id}:{drawing.name}" for drawing in drawings_of(view))


def stop_of(result: PlanResult, key: str) -> Stop:
    """The stop of a key. Raises KeyError."""
    return _first((s for s in result.stops if s.key == key), key)


def around(result: PlanResult, stop: Stop) -> Around:
    """What the page of a stop shows that is not of the stop alone."""
    offers = tuple(offers_of(stop, drawings_of(result.view_of(stop))))
    mine = frozenset(f.path for f in stop.facts if f.path is not None) & result.proposed
    lacks = tuple(_where(result, stop, lack) for lack in stop.lacks)
    return Around(offers, result.checks(stop), result.program(stop), mine, lacks)


def _where(result: PlanResult, stop: Stop, lack: Lack) -> LackSaid:
    """Where what a stop lacks is given: at the stop that has the fact, or that has that title."""
    here = [s for s in result.stops if stop.side is None or s.side in (None, stop.side)]
    if not lack.path:
        return LackSaid(
            lack.label,
            _first((s for s in here if s.title == lack.label and s.state != "settled"), lack.label).key,
            None,
        )
    holds = (s for s in here if any(f.path == lack.path for f in s.facts))
    lists = (s for s in here if any(one.path == lack.path for one in s.lists))
    found = next(holds, None) or next(lists, stop)
    return LackSaid(lack.label.lower(), found.key, lack.path)


def part_of(offer: Offer, stop: Stop, setup: str) -> str:
    """The name of the part that holds a picture; `setup` is the id of the set-up in view."""
    return f"pictures:{stop.key}" if offer.of == "pictures" else f"drawing:{setup}:{offer.name}"


def part_said(result: PlanResult, name: str, reader: Reader) -> PartSaid:
    """The part of a name. Raises KeyError where the plan has none."""
    what, _, rest = name.partition(":")
    if what == "drawing":
        setup, _, drawn = rest.partition(":")
        view = _first((v for v in result.views if v.setup.id == setup), name)
        return _drawn(name, _first((d for d in drawings_of(view) if d.name == drawn), name), reader)
    key, _, asked = rest.partition(":")
    stop = stop_of(result, key)
    match what:
        case "stop":
            return PartSaid(name, "stop", page_said(stop, around(result, stop), reader))
        case "helps":
            return PartSaid(name, "helps", [help_said(h, reader) for h in result.helps(stop)])
        case "tables":
            return PartSaid(name, "tables", [table_said(t, reader) for t in result.tables(stop)])
        case "pictures":
            return PartSaid(name, "pictures", [picture_said(p, reader.system) for p in stop.pictures])
        case "working":
            answer: Answer = _first((a for a in stop.answers if a.name == asked), name)
            return PartSaid(name, "steps", steps_said(answer.steps))
    raise KeyError(name)


def _drawn(name: str, drawing: Drawing, reader: Reader) -> PartSaid:
    drawn = drawing.draw()
    if isinstance(drawn, ForceChart):
        return PartSaid(name, "chart", chart_said(drawn, reader.system, reader.takes))
    return PartSaid(name, "scene", scene_said(drawn, reader.system))


def _first(found: Iterator[T], name: str) -> T:
    for one in found:
        return one
    raise KeyError(name)

"""A plan as a screen is sent it: every stop in its line, and in full only what the screen shows."""

from __future__ import annotations

from collections.abc import Iterable
from dataclasses import dataclass, field
from typing import Any

from calc.plan.compute import PlanResult
from calc.plan.stop import Stop
from calc.quantities import System
from calc.said.moved import MovedSaid, moved_said, page_moved
from calc.said.plan import names_of, part_of, sides_said
from calc.said.reader import Reader
from calc.said.stop import line_said
from server.apps.gauge.queries import today
from server.apps.runs.convert.parts import Held, page_of, parts_sent
from server.apps.runs.convert.plates import run_plate
from server.apps.runs.models import Run
from server.apps.runs.schemas import PlanOut, PreviewOut
from server.apps.shelf.queries import Snapshot


@dataclass(frozen=True)
class Look:
    """What a screen shows of a plan: the stop in view, its picture by name, for a stop of the part the set-up; and
    the digests of what it holds of the kept plan.
    """

    system: System = "metric"
    stop: str = ""
    picture: str = ""
    setup: str = ""
    held: Held = field(default_factory=dict)
    whole: bool = False


@dataclass(frozen=True)
class Sent:
    """A plan as it is sent. The parts are JSON already: the screen waits for this at every key."""

    head: PlanOut | PreviewOut
    parts: list[bytes]

    def json(self) -> bytes:
        """The whole answer."""
        head = self.head.model_dump_json(exclude={"parts"}).encode()
        return b'%b,"parts":[%b]}' % (head[:-1], b",".join(self.parts))


def moment_of(run: Run, on_shelf: Snapshot) -> str:
    """What is the same while nothing that a kept plan rests on has changed."""
    return f"{run.revision} {on_shelf.token.hex[:12]} {today()}"


def stop_in_view(result: PlanResult, key: str) -> Stop:
    """The stop of a key; of one that is gone the first of its name, else the first of all."""
    named = (s for s in result.stops if s.name == key.partition("-")[0])
    return next((s for s in result.stops if s.key == key), None) or next(named, result.stops[0])


def _picture(result: PlanResult, stop: Stop, reader: Reader, look: Look) -> str:
    """The part that holds the picture in view: the one asked for, else what the stop opens with."""
    offers = page_of(result, stop, reader).offers
    setup = stop.setup or next((s.id for s in result.sides if s.id == look.setup), result.sides[0].id)
    chosen = next((o for o in offers if o.name == look.picture), None) or next(iter(offers), None)
    return part_of(chosen, stop, setup) if chosen else ""


def _moved(was: PlanResult | None, result: PlanResult, stop: Stop, reader: Reader) -> list[MovedSaid]:
    if was is None:
        return []
    before = next((s for s in was.stops if s.key == stop.key), None)
    here = page_moved(stop.key, page_of(was, before, reader), page_of(result, stop, reader)) if before else []
    return moved_said(was, result, reader.system) + here


@dataclass(frozen=True)
class Shown:
    """A computed plan as somebody's screen shows it; `was`: the plan that it is compared with."""

    run: Run
    result: PlanResult
    on_shelf: Snapshot
    look: Look
    reader: Reader
    was: PlanResult | None = None

    def plan(self) -> Sent:
        """As it is kept; what is only of the draft is left out."""
        head = PlanOut(may_edit=False, undo=False, redo=False, at=None, rules=None, release=None, **self._seen())
        return Sent(head, self._parts(head.view))

    def preview(self, path: str) -> Sent:
        """As it would be with one entry."""
        head = PreviewOut(path=path, **self._seen())
        return Sent(head, self._parts(head.view))

    def _seen(self) -> dict[str, Any]:
        run, result, system = self.run, self.result, self.look.system
        stop = stop_in_view(result, self.look.stop)
        return {
            "run": run_plate(run, self.on_shelf),
            "revision": run.revision,
            "moment": moment_of(run, self.on_shelf),
            "units": system,
            "verdict": result.verdict,
            "stops": [line_said(s, system) for s in result.stops],
            "sides": sides_said(result, system),
            "moved": _moved(self.was, result, stop, self.reader),
            "view": _picture(result, stop, self.reader, self.look),
            "parts": [],
        }

    def _parts(self, view: str) -> list[bytes]:
        stop = stop_in_view(self.result, self.look.stop)
        names: Iterable[str] = (f"stop:{stop.key}", view)
        if self.look.whole:
            names = names_of(self.result)
        return parts_sent(self.result, names, self.reader, self.look.held)

"""The turret seen from the front: its stations, and the tools at them."""

from __future__ import annotations

import math
from collections.abc import Iterator
from functools import partial

from calc.plan.cuts.tooling import edge_name
from calc.plan.route.solve import ROUTE, RouteFigures
from calc.plan.stop_kind import Drawing
from calc.plan.view import View
from calc.quantities import Sentence
from calc.scene.shapes import Label, Point, Scene, Shape, arc, box_of, rectangle, turned

BODY_MM, SEAT_MM, NAMES_MM = 120.0, 100.0, 150.0  # drawn only: radius of the disc, of its seats, of their words
TOP = 90.0  # station 1 stands upright, the others follow clockwise


def _seat(stations: int) -> tuple[Point, ...]:
    wide = min(14.0, 0.6 * math.pi * SEAT_MM / stations)
    return rectangle(SEAT_MM - 12, -wide, BODY_MM, wide)


def turret_front(found: RouteFigures, which: int, stations: int) -> Scene:
    """One turret with what stands at its stations, in the order of their numbers."""
    turret, sides = found.turrets[which], found.sides if len(found.turrets) == 1 else (found.sides[which],)
    at = {number: tool for tool, number in turret.stations.items()}
    cuts = {o.tool: o.cut for side in sides for o in side.operations}
    shapes = [Shape("turret", "chuck", arc(BODY_MM, 0, 360)), Shape("hub", "hole", arc(0.35 * BODY_MM, 0, 360))]
    labels, words = [], []
    for number in range(1, stations + 1):
        angle = TOP - 360 / stations * (number - 1)
        taken = at.get(number)
        shapes.append(Shape(f"station_{number}", "piece" if taken else "ghost", turned(_seat(stations), angle)))
        x, y = turned(((NAMES_MM, 0.0),), angle)[0]
        name = Sentence("{n}", n=str(number))
        if taken:
            said = edge_name(cuts[taken].tool) if cuts[taken].tool else taken
            name = Sentence("{n} {tool}", n=str(number), tool=said)
            words.append(Sentence("Station {n}: {tool}.", n=str(number), tool=said))
        anchor = "middle" if abs(x) < 0.3 * NAMES_MM else "start" if x > 0 else "end"
        labels.append(Label((x, y), name, anchor=anchor))  # type: ignore[arg-type] # one of the three
    return Scene(tuple(shapes), (), box_of(tuple(shapes), ()), tuple(words), tuple(labels))


def drawings(view: View) -> Iterator[Drawing]:
    """A picture for each turret."""
    found, machine = view[ROUTE], view.shelf.machine
    if found is None or machine is None:
        return
    titles = ("Turret",) if len(found.turrets) == 1 else ("Main turret", "Second turret")
    for which, title in enumerate(titles):
        draw = partial(turret_front, found, which, machine.turret_stations)
        yield Drawing(f"turret-{which}", title, ("route",), draw)

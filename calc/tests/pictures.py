"""Every picture of many plans as the screens are sent it, a JSON line each: their own tests place texts in them.

`python -m calc.tests.pictures` writes them to stdout: the plans of the demo, and ten of odd sizes.
"""

import json
import sys
from collections.abc import Iterator
from dataclasses import asdict, replace
from pathlib import Path
from typing import Any

from calc.plan.compute import compute
from calc.plan.document import Document
from calc.plan.run_file import read_run
from calc.plan.scenes import drawings_of
from calc.said.plan import Reader, part_said
from calc.said.stop import offers_of

FILES = Path(__file__).parent / "plan" / "refused"
DEMO = ("spigot", "wear-ring", "collet", "hexagon", "kept", "centre", "tube", "shaft")
SIDES = ("outside", "inside", "inside_b")
# Of a plan whose sizes are taken so many times larger: (plan, across, along).
ODD = (
    ("spigot", 0.3, 0.3),
    ("spigot", 2.2, 0.5),
    ("spigot", 0.4, 2.5),
    ("spigot", 1.7, 1.7),
    ("wear-ring", 0.5, 2.0),
    ("wear-ring", 2.0, 0.4),
    ("collet", 0.5, 0.6),
    ("shaft", 1.5, 2.0),
    ("shaft", 0.5, 0.4),
    ("kept", 1.8, 1.8),
)


def sized(document: Document, across: float, along: float) -> Document:
    """The plan with its print and stock so many times larger."""
    times = {"diameter_mm": across, "bore_mm": across, "length_mm": along, "thread_length_mm": along}

    def larger(thing: Any, *facts: str) -> Any:
        known = {f: getattr(thing, f) for f in facts if getattr(thing, f, None) is not None}
        return replace(thing, **{f: round(value * times[f], 2) for f, value in known.items()})

    part = document.part
    of_step = ("diameter_mm", "length_mm", "thread_length_mm")
    lists = {n: tuple(larger(s, *of_step) for s in getattr(part.profile, n)) for n in SIDES}
    stock = larger(part.stock, "diameter_mm", "bore_mm", "length_mm")
    return replace(document, part=replace(part, profile=replace(part.profile, **lists), stock=stock))


def plans() -> Iterator[tuple[str, Any]]:
    """(name, computed plan) of each."""
    for name in DEMO:
        run = read_run((FILES / f"twin-{name}.json").read_text(encoding="utf-8"))
        yield name, compute(run.document, run.shelf)
    for name, across, along in ODD:
        run = read_run((FILES / f"twin-{name}.json").read_text(encoding="utf-8"))
        document = replace(sized(run.document, across, along), proposed=())
        yield f"{name} {across} x {along}", compute(document, run.shelf)


def pictures() -> Iterator[dict[str, Any]]:
    """Each picture with the stop that it is offered at, and the headings that can be in view there."""
    for name, result in plans():
        drawn: dict[str, Any] = {}  # the section is offered at every stop
        for stop in result.stops:
            view = result.view_of(stop)
            for offer in offers_of(stop, drawings_of(view)):
                if offer.of == "pictures":
                    continue
                part = f"drawing:{view.setup.id}:{offer.name}"
                if part not in drawn:
                    drawn[part] = part_said(result, part, Reader("metric"))
                said = drawn[part]
                groups = sorted({s.group for s in said.content.shapes if s.group}) if said.kind == "scene" else []
                yield {
                    "name": f"{name}: {stop.key}, {offer.title}",
                    "stop": stop.name,
                    "groups": groups,
                    said.kind: asdict(said.content),
                }


if __name__ == "__main__":
    for picture in pictures():
        sys.stdout.write(json.dumps(picture, ensure_ascii=False) + "\n")

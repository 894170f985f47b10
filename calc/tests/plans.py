"""A plan for tests, with round figures that can be checked by hand; not the demo's."""

from __future__ import annotations

from dataclasses import replace
from typing import Any

from calc.chuck.grip import ChartPoint, ChuckForce
from calc.plan.compute import PlanResult, compute
from calc.plan.document import (
    Document,
    Force,
    Hold,
    InsideStep,
    OutsideStep,
    Part,
    PlannedCut,
    Profile,
    Setup,
    replaced,
)
from calc.plan.shelf import Chuck, JawBlank, Machine, Material, SetupShelf, Shelf

MACHINE = Machine("m", "Test lathe", 4000, 20, 300)
MATERIAL = Material("c45", "carbon steel C45", "P", 2220, 0.14, 100, 320, 7.85, 210)
FORCE = ChuckForce(100_000, 40, 60, 80, 0.08, (ChartPoint(5, 12_500), ChartPoint(40, 100_000)))  # 2 500 N per bar
CHUCK = Chuck("c", "Test chuck", FORCE, 3, 4000, 210, 80, 15, 5.5, 1.5, 2.0, 1.2, 70, "M12", 100, 70)
STEEL = JawBlank("s50", "steel 50", "steel", 40, 75, 50, 7.85, 20, 35)
ALUMINIUM = JawBlank("a50", "aluminium 50", "aluminium", 40, 75, 50, 2.7, 20, 35)
TALL = JawBlank("s70", "steel 70", "steel", 40, 75, 70, 7.85, 20, 35)
SHELF = Shelf(MACHINE, MATERIAL, (SetupShelf(CHUCK, STEEL, (STEEL, ALUMINIUM, TALL)),))

DOCUMENT = Document(
    part=Part(
        profile=Profile(
            outside=(
                OutsideStep("Spigot", 84.0, 40.0, 0.0, -0.035),
                OutsideStep("Flange", 118.0, 14.0, stock_diameter_mm=122.0),
            ),
            inside=(InsideStep(52.0),),
        ),
        quantity=100,
        face_stock_mm=2.0,
    ),
    setups=(
        Setup(
            "Side 2",
            hold=Hold(depth_mm=20.0),
            force=Force(pressure_bar=32.0, condition="today"),
            clamp_rpm=1000.0,
            cuts=(
                PlannedCut("Face", "face", 122.0, 52.0, speed_m_min=120.0, feed_mm_rev=0.15, depth_mm=1.0),
                PlannedCut("Turn", "turn", 122.0, 119.0, speed_m_min=120.0, feed_mm_rev=0.2, depth_mm=1.5),
            ),
        ),
    ),
)


def with_facts(**facts: Any) -> Document:
    """The document with facts changed; __ stands for a dot of the path."""
    document = DOCUMENT
    for path, value in facts.items():
        document = replaced(document, path.replace("__", "."), value)
    return document


def plan(shelf: Shelf = SHELF, **facts: Any) -> PlanResult:
    """The plan computed with facts changed."""
    return compute(with_facts(**facts), shelf)


def shelf_with(**changes: Any) -> Shelf:
    """The shelf with its chuck, blank, machine or material replaced."""
    chosen = SHELF.setups[0]
    setup = replace(chosen, **{k: v for k, v in changes.items() if k in ("chuck", "blank", "blanks", "on_machine")})
    top = {k: v for k, v in changes.items() if k in ("machine", "material")}
    return replace(SHELF, setups=(setup,), **top)


def codes(result: PlanResult, stop: str, level: str = "stop") -> set[str]:
    """Codes of a stop's notes at a level."""
    return {n.code for n in result.stop(stop).notes if n.level == level}

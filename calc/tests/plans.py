"""A plan for tests, with round figures that can be checked by hand; not the demo's."""

from __future__ import annotations

from dataclasses import replace
from typing import Any

from calc.chuck.book import ChartPoint, ChuckForce
from calc.plan.compute import PlanResult, compute
from calc.plan.cuts.inputs import PlannedCut
from calc.plan.document import Document, Setup
from calc.plan.force.inputs import Force
from calc.plan.hold.inputs import Hold
from calc.plan.part.inputs import Part, Profile, Stock
from calc.plan.paths import replaced
from calc.plan.scenes import drawings_of
from calc.plan.sides.inputs import Sides
from calc.plan.stop import Help, Table
from calc.profile.lines import read_line
from calc.profile.steps import TurnedStep
from calc.shelf.chuck import Chuck
from calc.shelf.jaw_blank import JawBlank
from calc.shelf.machine import Machine
from calc.shelf.material import Material
from calc.shelf.taken import SetupShelf, Shelf

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
            outside=(TurnedStep("Spigot", 84.0, 40.0, 0.0, -0.035), TurnedStep("Flange", 118.0, 14.0)),
            inside=(TurnedStep("Bore", 52.0),),
        ),
        stock=Stock(diameter_mm=122.0),
        quantity=100,
        face_stock_mm=2.0,
    ),
    setups=(
        Setup(
            "Side 2",
            hold=Hold(grip="outside:o1", depth_mm=20.0),
            force=Force(pressure_bar=32.0, condition="today"),
            clamp_rpm=1000.0,
            cuts=(
                PlannedCut("Face", "face", 122.0, 52.0, speed_m_min=120.0, feed_mm_rev=0.15, depth_mm=1.0),
                PlannedCut("Turn", "turn", 122.0, 119.0, speed_m_min=120.0, feed_mm_rev=0.2, depth_mm=1.5),
            ),
        ),
    ),
    sides=Sides("b"),
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


def unsettled(result: PlanResult) -> set[tuple[str, str]]:
    """The stops that are not settled, and how each stands."""
    return {(s.name, s.state) for s in result.stops if s.state != "settled"}


def helps(result: PlanResult, stop: str) -> tuple[Help, ...]:
    """What would help a stop."""
    return result.helps(result.stop(stop))


def tables(result: PlanResult, stop: str) -> dict[str, Table]:
    """The tables of a stop, by name."""
    return {table.name: table for table in result.tables(result.stop(stop))}


def drawn(result: PlanResult, name: str, side: int = 0) -> Any:
    """A picture of a set-up. Raises StopIteration where it has none."""
    return next(d for d in drawings_of(result.views[side]) if d.name == name).draw()


def codes(result: PlanResult, stop: str, level: str = "stop") -> set[str]:
    """Codes of a stop's notes at a level."""
    return {n.code for n in result.stop(stop).notes if n.level == level}


NO_TOOLS = {("tools", "open")}  # these plans have figures by hand: no tool is chosen for them
TOOTHED = replace(CHUCK, teeth=24, tnut_radius_0_mm=60.0)
IN_TOOTH_0 = replace(STEEL, face_radius_mm=20.0)
PIE = JawBlank("pie", "pie", "aluminium", None, 60, 50, 2.7, 20, 20, "pie", 118.0)


def steps(*lines: str, stem: str = "o") -> tuple[TurnedStep, ...]:
    """Steps as a setter writes them, with ids such as "o1"."""
    return tuple(replace(read_line(line, "metric", f"Step {i}"), id=f"{stem}{i}") for i, line in enumerate(lines, 1))


def ring_inputs(blank: JawBlank | None, pressure: float = 3.0, **facts: Any) -> tuple[Document, Shelf]:
    """A thin ring gripped inside while its rim is finished; without a blank, in regular jaws."""
    part = Part(Profile(steps("Rim: 168 h8 x 32"), steps("Bore: 148 H7 through", stem="i")), quantity=10)
    cut = PlannedCut("Rim", "turn", 169.0, 168.0, speed_m_min=200.0, feed_mm_rev=0.1, depth_mm=0.5)
    setup = Setup(
        "Two", Hold(grip="inside:i1", depth_mm=12.0), force=Force(pressure, "today"), clamp_rpm=400.0, cuts=(cut,)
    )
    document = Document(part, (setup,), Sides("b"))
    for path, value in facts.items():
        document = replaced(document, path.replace("__", "."), value)
    low, high = FORCE.chart
    chuck = replace(CHUCK, force=replace(FORCE, chart=(replace(low, pressure_bar=1.0, grip_n=2_500.0), high)))
    regular = replace(STEEL, face_radius_mm=20.0, length_mm=56.0)
    return document, Shelf(MACHINE, MATERIAL, (SetupShelf(chuck, blank or regular, (regular, PIE)),))


def ring_plan(blank: JawBlank | None, pressure: float = 3.0, **facts: Any) -> PlanResult:
    """`ring_inputs`, computed."""
    return compute(*ring_inputs(blank, pressure, **facts))

"""Small runs for tests of proposing and settling: a part, a lathe, a chuck, steel jaws and the starting tools."""

from dataclasses import replace

from calc.chuck.book import ChartPoint, ChuckForce
from calc.plan.document import Document, Setup
from calc.plan.force.inputs import Force
from calc.plan.hold.inputs import Hold
from calc.plan.part.inputs import Part, Profile, Stock
from calc.plan.part.solve import PART
from calc.plan.sides.inputs import Sides
from calc.plan.sides.solve import SIDES
from calc.plan.solve import solve
from calc.profile.steps import TurnedStep
from calc.propose.operations import propose
from calc.propose.side import side_of
from calc.shelf.chuck import Chuck
from calc.shelf.jaw_blank import JawBlank
from calc.shelf.machine import Machine
from calc.shelf.material import Material
from calc.shelf.taken import SetupShelf, Shelf
from calc.tests.tools.shelf import starting_library

MACHINE = Machine("m", "Lathe", 4000, 20, 300, shank_mm=25, bar_seat_mm=40)
STEEL = Material("c45", "C45", "P", 2220, 0.14, 180, 320, 7.85, 210)
CHUCK = Chuck(
    key="c",
    name="Chuck",
    jaws=3,
    max_rpm=4500,
    force=ChuckForce(110_000, 35, 50, 82, chart=(ChartPoint(4, 13_000), ChartPoint(35, 118_000))),
    body_diameter_mm=210,
    body_length_mm=84,
    guide_to_jaw_base_mm=12,
    jaw_stroke_mm=5.5,
    serration_pitch_mm=1.5,
    teeth=24,
    tnut_radius_0_mm=60,
    heaviest_jaw_kg=2.5,
    master_mass_kg=1.35,
    master_radius_mm=72,
)
BLANK = JawBlank(
    key="b",
    name="Steel",
    metal="steel",
    kind="block",
    width_mm=40,
    length_mm=75,
    height_mm=50,
    density_kg_dm3=7.85,
    bolt_head_mm=20,
    face_radius_mm=20,
)


def shelf(machine=MACHINE, material=STEEL, setups=1):
    return Shelf(machine, material, (SetupShelf(CHUCK, BLANK, (BLANK,)),) * setups, tools=starting_library())


def plan(outside=None, inside=(), stock=90.0, **more):
    """One set-up, gripped on the stock's far end: a shaft end of two steps unless told otherwise."""
    outside = outside or (
        TurnedStep("Pin", 50.0, 30.0, fit="h7", ra_um=1.6, corner_mm=0.8),
        TurnedStep("Body", 84.0, 40.0),
    )
    part = Part(
        Profile(tuple(outside), tuple(inside)),
        Stock("slug", "turned", stock, stock, stock),
        quantity=100,
        face_stock_mm=2.0,
    )
    setup = Setup(
        "One",
        hold=Hold(grip="stock", depth_mm=18.0),
        force=Force(pressure_bar=24.0, condition="today"),
        clamp_rpm=2500.0,
    )
    return replace(Document(part, (setup,), Sides("a")), **more)


def proposed(document, taken, index=0):
    """The document with its operations as proposed."""
    figures = solve(document, taken, index)
    cuts = propose(side_of(document, figures[PART], figures[SIDES].first, index, taken.tools))
    return replace(
        document, setups=tuple(replace(s, cuts=cuts) if i == index else s for i, s in enumerate(document.setups))
    )

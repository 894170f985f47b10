"""A stop added through the list alone is in the plan, the scenes, what is said of it, and how the plan stands."""

from __future__ import annotations

from collections.abc import Iterator
from dataclasses import replace

import pytest

from calc.plan import all_stops
from calc.plan.compute import compute
from calc.plan.outcome import Asked, Solved
from calc.plan.part.solve import PART, PartFigures
from calc.plan.scenes import drawings_of
from calc.plan.standing import headlines, standing
from calc.plan.stop import Amount, Stop, computed, without_figures
from calc.plan.stop_kind import Carried, Drawing, Headline, StopKind
from calc.plan.view import View
from calc.quantities import Figure, Sentence
from calc.said.plan import part_said, sides_said
from calc.said.reader import Reader
from calc.said.stop import StopPage, line_said
from calc.scene.shapes import Layer, Scene, Shape, Standing
from calc.tests.plans import DOCUMENT, NO_TOOLS, SHELF, drawn, unsettled, with_facts

MASS = 2.0  # of a pallet, kg
LINE = ((0.0, 0.0), (10.0, 10.0))


def _find(asked: Asked) -> float:
    part: PartFigures = asked.need(PART)
    return MASS + 10 * part.held_mass_kg


PALLET: Solved[float] = Solved("pallet", "Pallet", _find)


def show(view: View) -> Stop:
    weighs = view[PALLET]
    if weighs is None:
        return without_figures(view.outcome(PALLET), ())
    fact = computed("pallet_mass", "Ten pieces", Amount(weighs, "kg", "up"), "with the pallet")
    return Stop("", "", "settled", Sentence("weighs {m}", m=Figure(weighs, "kg", "up")), (fact,))


def layers(_: View, __: Standing) -> Iterator[Layer]:
    yield Layer(99, (Shape("pallet", "ghost", LINE),))


def drawings(view: View) -> Iterator[Drawing]:
    shapes, box = (Shape("pallet", "part", LINE),), (0.0, 0.0, 10.0, 10.0)
    yield Drawing("pallet", "On the pallet", ("pallet",), lambda: Scene(shapes, (), box, (Sentence("Ten."),)))


ADDED = StopKind(
    "pallet",
    "Pallet",
    "What ten pieces weigh",
    show,
    layers=layers,
    drawings=drawings,
    headlines=(Headline("pallet", "pallet", "kg", "up", lambda view: view[PALLET], place=9),),
    carries=lambda view: (Carried("pallet", "Pallet", Figure(view[PALLET] or 0.0, "kg", "up"), 9),),
)


@pytest.fixture
def added() -> Iterator[None]:
    all_stops.ALL_STOPS.append(ADDED)
    yield
    all_stops.ALL_STOPS.remove(ADDED)


@pytest.mark.usefixtures("added")
def test_it_is_computed_shown_drawn_and_carried():
    result = compute(DOCUMENT, SHELF)
    stop = result.stop("pallet")
    assert (stop.key, stop.title, stop.heading, stop.state) == (
        "pallet-s1",
        "Pallet",
        "What ten pieces weigh",
        "settled",
    )
    weighs = result.figures[0][PART].held_mass_kg * 10 + MASS
    assert stop.facts[0].value == pytest.approx(weighs)
    offered = {d.name: d for d in drawings_of(result.views[0])}
    assert "pallet" in {s.name for s in drawn(result, "section").shapes}
    assert offered["pallet"].title == "On the pallet"
    assert result.sides[0].carry[-1].name == "pallet"
    assert unsettled(result) == NO_TOOLS


@pytest.mark.usefixtures("added")
def test_it_waits_as_every_stop_does_and_stands_on_the_bench():
    open_part = with_facts(part__profile__outside__o1__length_mm=None)
    stop = compute(open_part, SHELF).stop("pallet")
    assert (stop.state, str(stop.line)) == ("open", "waiting on Part")
    little = standing(DOCUMENT, SHELF)
    assert [s.name for s in little.stops[-2:]] == ["pallet", "route"]  # what rests on all sides stands behind them
    assert little.headlines["pallet"] == pytest.approx(compute(DOCUMENT, SHELF).figures[0][PALLET])
    assert little.sides[-1]["pallet"] == little.headlines["pallet"]
    assert "pallet" in headlines()


@pytest.mark.usefixtures("added")
def test_it_is_said_as_every_stop_is():
    result = compute(DOCUMENT, SHELF)
    said = part_said(result, "stop:pallet-s1", Reader("inch")).content
    assert isinstance(said, StopPage)
    assert (said.heading, said.facts[0].unit) == ("What ten pieces weigh", "lb")
    assert line_said(result.stop("pallet"), "inch").line == result.stop("pallet").line.text("inch")
    assert sides_said(result, "metric")[0].carry[-1].label == "Pallet"


@pytest.mark.usefixtures("added")
def test_it_is_there_for_each_side_and_leaves_when_the_list_does():
    second = replace(DOCUMENT.setups[0], id="s2", cuts=tuple(replace(c, id="") for c in DOCUMENT.setups[0].cuts))
    two = replace(DOCUMENT, setups=(*DOCUMENT.setups, second))
    both = compute(two, replace(SHELF, setups=SHELF.setups * 2))
    assert [s.key for s in both.stops if s.name == "pallet"] == ["pallet-s1", "pallet-s2"]
    all_stops.ALL_STOPS.remove(ADDED)
    try:
        assert "pallet" not in {s.name for s in compute(DOCUMENT, SHELF).stops}
    finally:
        all_stops.ALL_STOPS.append(ADDED)

"""The steps of a card for every kind of hold, and what stands at its head."""

from dataclasses import replace
from functools import cache

import pytest

from calc.card.make import NoCard, asked, card_of, tried
from calc.card.readings.feeler import FeelerAsk
from calc.card.readings.jaws import TouchOffAsk
from calc.plan.compute import compute
from calc.plan.cuts.solve import CUTS
from calc.plan.document import new_document
from calc.plan.force.solve import FORCE
from calc.plan.hold.solve import HOLD
from calc.plan.jaws.solve import JAWS
from calc.plan.run_file import read_run
from calc.shelf.taken import Shelf
from calc.tests.pictures import FILES
from calc.tests.plan.test_ways_to_hold import HARD


@cache
def computed(name):
    run = read_run((FILES / f"twin-{name}.json").read_text(encoding="utf-8"))
    return compute(run.document, run.shelf)


@cache
def card(name):
    return card_of(computed(name))


def of_side(name, index):
    """The ids of a side's steps, without the set-up's own."""
    return [s.id.partition(".")[2] for s in card(name).steps if s.side == index]


CUT = ["cut", "groove", "jaw-size", "deburr", "feeler", "blue"]
HELD = ["pressure", "grip", "load", "runout"]
MOUNTED = ["clean", "grease", "mount", "torque"]


@pytest.mark.parametrize(
    ("name", "begins"),
    [
        ("shaft", [*MOUNTED, "close-on", "stroke", *CUT, *HELD]),  # a ring
        ("bronze", [*MOUNTED, "close-on", "stroke", *CUT, *HELD]),  # a ring in a groove, inside
        ("kept", [*MOUNTED, "marks", *HELD]),  # refitted: nothing is cut
        ("collet", ["clean", "put-in", "draw", "stop-behind", "pressure", "load", "runout"]),
    ],
)
def test_each_kind_of_hold_has_its_own_steps(name, begins):
    assert of_side(name, 0)[: len(begins)] == begins


def test_with_a_plug_the_jaws_are_bored_as_bent_as_they_hold():
    jaws = computed("plug").views[0][JAWS]
    steps = of_side("plug", 0)
    assert jaws.backing.choice == "plug"
    title = card("plug").step(f"{computed('plug').sides[0].id}.close-on").title
    assert title == "Seat and clamp the plug"
    assert ("feeler" in steps) is (jaws.taper is None or jaws.taper.needed)


def test_jaws_that_grip_inside_are_turned():
    steps = {s.id.partition(".")[2]: s for s in card("bronze").steps}
    assert steps["cut"].title == "Turn the jaws"
    assert steps["close-on"].title == "Make the ring's groove"
    assert steps["feeler"].ask.side == "id"


def test_two_pockets_of_one_set_are_cut_once():
    assert computed("spigot").views[0].document.one_set
    assert "cut" in of_side("spigot", 0)
    second = of_side("spigot", 1)
    assert not {"clean", "mount", "cut", "close-on"} & set(second)
    assert second[:3] == ["jaw-size", "feeler", "blue"]


def test_a_second_spindle_takes_the_piece_over():
    assert "transfer" in of_side("collet", 1)
    assert "load" not in of_side("collet", 1)


def hard(name):
    """A plan whose jaws are hard ones."""
    run = read_run((FILES / f"twin-{name}.json").read_text(encoding="utf-8"))
    setups = tuple(replace(s, blank=HARD, blanks=(HARD,)) for s in run.shelf.setups)
    return compute(run.document, replace(run.shelf, setups=setups))


def test_hard_jaws_are_mounted_and_not_cut():
    result = hard("shaft")
    assert result.views[0][HOLD].blank.is_hard
    steps = [s.id.partition(".")[2] for s in card_of(result).steps if s.side == 0]
    assert steps[:8] == [*MOUNTED, *HELD]


def recut():
    """The kept set, mounted elsewhere since it was cut."""
    run = read_run((FILES / "twin-kept.json").read_text(encoding="utf-8"))
    worn = replace(run.shelf.setups[0].jaw_set, lent_to="Lathe 5", damage_mm=0.15)
    setups = (replace(run.shelf.setups[0], jaw_set=worn, jaw_sets=(worn,)), *run.shelf.setups[1:])
    return compute(run.document, replace(run.shelf, setups=setups))


def test_a_set_that_was_used_elsewhere_is_touched_off_and_cut_again():
    result = recut()
    assert result.views[0][JAWS].keep.verdict == "recut"
    made = card_of(result)
    steps = [s.id.partition(".")[2] for s in made.steps if s.side == 0]
    assert steps[:6] == [*MOUNTED, "clamp-near", "touch-off"]
    ask = asked(made, f"{result.sides[0].id}.touch-off")
    assert isinstance(ask, TouchOffAsk)
    assert ask.damage_mm == 0.15


@pytest.mark.parametrize("name", ["shaft", "bronze", "kept", "collet", "plug", "spigot", "hexagon", "tube"])
def test_what_holds_of_every_card(name):
    made, result = card(name), computed(name)
    ids = [s.id for s in made.steps]
    assert len(set(ids)) == len(ids)
    assert all(s.title and s.words and s.words[0].text() for s in made.steps)
    assert all((s.kind == "read") is (s.ask is not None) for s in made.steps)
    # First spin and dry run are cautions, and no piece is measured before them.
    for side in result.sides:
        order = of_side(name, side.index)
        spin = order.index("first-spin")
        assert order.index("dry") < spin < order.index("first-off")
        assert all(i > spin for i, s in enumerate(order) if s.startswith(("size", "finish", "thread")))
    assert {s.id for s in made.steps if s.kind == "caution"} >= {f"{side.id}.first-spin" for side in result.sides}
    # The same plan makes the same card.
    again = read_run((FILES / f"twin-{name}.json").read_text(encoding="utf-8"))
    assert [s.id for s in card_of(compute(again.document, again.shelf)).steps] == ids


def test_the_figures_to_set_are_the_plans_own():
    made, views = card("spigot"), computed("spigot").views
    for view in views:
        mine = {f.label: f for f in made.to_set if f.side == view.index}
        assert mine["Pressure"].figure.value == view[FORCE].pressure_bar
        assert mine["Jaws bored to"].figure.value == view[HOLD].pocket.bore_diameter_mm
        for cut in view[CUTS].cuts:
            assert mine[f"{cut.name}: clamp"].figure.value == cut.clamp_rpm
            assert mine[f"{cut.name}: clamp"].figure.rounding == "down"


def test_every_tool_stands_once_with_its_cuts():
    made = card("spigot")
    cuts = [c.name for v in computed("spigot").views for c in v[CUTS].cuts]
    assert sorted(n for t in made.tools for n in t.cuts) == sorted(cuts)
    assert len({(t.turret, t.station) for t in made.tools}) == len(made.tools)
    assert sum(s.id.startswith("tool.") for s in made.steps) == len(made.tools)


def test_only_what_the_print_has_is_measured():
    made, part = card("spigot"), computed("spigot").views[0].document.part
    known = {s.id for s in (*part.profile.outside, *part.profile.inside)}
    limited = {s.id for s in (*part.profile.outside, *part.profile.inside) if s.limits_mm}
    measured = {s.ask.of for s in made.steps if ".size." in s.id}
    assert measured <= limited <= known
    assert measured


def test_the_feeler_is_predicted_from_the_plans_taper():
    result = computed("shaft")
    ask = asked(card("shaft"), f"{result.sides[0].id}.feeler")
    assert isinstance(ask, FeelerAsk)
    assert ask.predicted_mm == result.views[0][JAWS].taper.gap_mm
    assert asked(card("shaft"), f"{result.sides[0].id}.clean") is None
    assert asked(card("shaft"), "nothing") is None


def test_another_pressure_has_the_plan_computed_beside_itself():
    result = computed("spigot")
    side, view = result.sides[0].id, result.views[0]
    ask = asked(card("spigot"), f"{side}.pressure")
    planned = view[FORCE].pressure_bar
    low = ask.told(ask.read({"pressure_bar": planned / 3}))
    holds, why = tried(view.document, view.shelf, low)
    assert not holds
    assert why and all(w.text() for w in why)
    near = ask.told(ask.read({"pressure_bar": planned - 0.3}))
    assert tried(view.document, view.shelf, near)[0]
    assert compute(view.document, view.shelf).verdict == "settled"  # the plan itself is as it was


def test_a_plan_that_lacks_something_has_no_card():
    with pytest.raises(NoCard) as refused:
        card_of(compute(new_document(), Shelf()))
    assert "lacks" in refused.value.why.text()


def test_limits_at_the_machine_are_by_the_shops_rule():
    view = computed("spigot").views[0]
    asks = {}
    for rule in ("print", "narrowed", "uncertainty"):
        rules = replace(view.document.rules, machine_limits=rule, kept_back_pct=50.0, uncertainty_mm=0.002)
        made = card_of(compute(replace(view.document, rules=rules), view.shelf))
        asks[rule] = next(s.ask for s in made.steps if ".size." in s.id)
    low, high = asks["print"].print_mm
    assert asks["print"].working_mm == (low, high)
    assert asks["narrowed"].working_mm == pytest.approx((low + (high - low) / 4, high - (high - low) / 4))
    assert asks["uncertainty"].working_mm == pytest.approx((low + 0.002, high - 0.002))

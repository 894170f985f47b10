"""What a plan asked its calculators: the same question has the plan's own answer, and goes back to its facts."""

from functools import reduce

import pytest

from calc.catalog import CALCULATORS
from calc.from_plan import taken
from calc.plan.cuts.solve import CUTS
from calc.plan.force.solve import FORCE
from calc.tests.card.test_steps import computed

FLANGE, BUSH = computed("flange"), computed("bush")


def test_every_cut_is_asked_by_its_name_with_the_plans_own_answer():
    found = {t.words: t for t in taken(FLANGE, "cut")}
    for index, view in enumerate(FLANGE.views):
        for cut in view[CUTS].cuts:
            if cut.result.given is None:
                continue
            asked = found[f"Side {index + 1} · {cut.name}"]
            assert CALCULATORS["cut"].function(asked.given).tangential_n == cut.result.tangential_n


def test_a_grip_is_asked_once_a_side():
    found = taken(FLANGE, "chuck-grip")
    assert [t.words for t in found] == ["Side 1 · Force", "Side 2 · Force"]
    for t, view in zip(found, FLANGE.views, strict=True):
        assert CALCULATORS["chuck-grip"].function(t.given).grip_n == view[FORCE].grip.grip_n


@pytest.mark.parametrize("plan", [FLANGE, BUSH])
@pytest.mark.parametrize("name", CALCULATORS)
def test_a_field_goes_back_to_the_fact_that_it_is(plan, name):
    """The fact at the path has the value that was taken; what was computed has no way back."""
    document = plan.views[0].document
    for one in taken(plan, name):
        for field, path in one.paths.items():
            assert value_at(document, path) == getattr(one.given, field)


def value_at(document, path):
    """By ids, as paths of the plan are."""
    return reduce(
        lambda at, key: next(i for i in at if i.id == key) if isinstance(at, tuple) else getattr(at, key),
        path.split("."),
        document,
    )


def test_what_follows_from_other_facts_is_not_put_back():
    assert taken(FLANGE, "chuck-grip")[0].paths == {"pressure_bar": "setups.s1.force.pressure_bar"}
    speeds = next(t for t in taken(BUSH, "cut") if t.words == "Face").paths
    assert speeds["feed_mm_rev"] == "setups.s1.cuts.c1.feed_mm_rev"
    assert "diameter_mm" not in speeds
    assert "kc11" not in speeds


def test_one_side_is_not_named_and_a_turret_is_asked_once():
    assert {t.words for t in taken(BUSH, "chuck-grip")} == {"Force"}
    assert len(taken(FLANGE, "turret-order")) == 1

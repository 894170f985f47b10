"""House rules: each of them moves what it should, a plan may depart from one with its reason, and keeps its own."""

from dataclasses import replace
from uuid import UUID

import pytest

from calc.errors import CalcError
from calc.fields import fields_of
from calc.identity import Identities
from calc.plan.cuts.solve import CUTS
from calc.plan.document import Departure
from calc.plan.force.solve import FORCE
from calc.plan.hold.solve import HOLD
from calc.plan.jaws.solve import JAWS
from calc.plan.lists import NewItem, new_item
from calc.rules import PLAN_RULES, Rules
from calc.tests.plans import plan, tables


def facts(result, stop):
    return {f.name: f for f in result.stop(stop).facts}


def force(result):
    return result.figures[0][FORCE]


def test_safety_scales_the_demand_and_nothing_else():
    base, more = force(plan()), force(plan(rules__safety=3.0))
    assert more.asked.nominal.required_grip_n == pytest.approx(1.5 * base.asked.nominal.required_grip_n)
    assert more.worst.held == pytest.approx(base.worst.held)


def test_a_heavier_worn_edge_asks_more_of_grip_and_spindle():
    base, worn = plan(), plan(rules__worn=1.95)
    for i, cut in enumerate(base.figures[0][CUTS].cuts):
        assert worn.figures[0][CUTS].cuts[i].tangential_n == pytest.approx(1.5 * cut.tangential_n)


def test_friction_conditions_and_the_corner_are_rules():
    assert plan(rules__friction_turned=0.12).figures[0][HOLD].friction == pytest.approx(0.12)
    half = force(plan(rules__condition_today=0.5))
    assert half.grip.grip_n == pytest.approx(force(plan()).grip.grip_n / 2)
    none = {f"rules__corner_{n}_pct": 0.0 for n in ("friction", "condition", "force")}
    level = force(plan(**none))
    assert level.weakest.held_corner == pytest.approx(level.worst.held)


@pytest.mark.parametrize(("rule", "bored"), [("nominal", 122.0), ("middle", 122.2), ("largest", 123.0)])
def test_the_pocket_for_raw_stock_follows_its_school(rule, bored):
    made = plan(
        rules__raw_stock=rule,
        setups__s1__hold__grip="stock",
        setups__s1__hold__depth_mm=12.0,
        sides__first_end="a",
        part__stock__diameter_mm=122.0,
        part__stock__smallest_mm=121.4,
        part__stock__largest_mm=123.0,
    )
    assert made.figures[0][HOLD].grip.diameter_mm == pytest.approx(bored)


def test_a_departure_counts_in_this_plan_and_is_told_with_its_reason():
    mine = Departure("thin flange, proven on the last run", "safety", 1.6)
    result = plan(departures=(mine,))
    assert force(result).safety == 1.6
    assert "thin flange" in str(facts(result, "force")["safety"].source)
    assert facts(result, "force")["departure_d1"].value == 1.6
    table = tables(result, "force")["rules"]
    assert [r.label for r in table.rows if r.chosen] == ["Safety on the grip"]
    assert len(table.rows) == len(fields_of(Rules)) - 1


def test_a_departure_needs_a_reason_and_stays_in_the_rules_own_range():
    with pytest.raises(CalcError, match="Write the reason"):
        Departure("x", "safety", 2.0)
    with pytest.raises(CalcError, match=r"1\.5"):
        Departure("a good reason", "safety", 1.2)
    with pytest.raises(CalcError, match="departs from this rule already"):
        plan(departures=(Departure("one reason", "worn", 1.2), Departure("another reason", "worn", 1.1)))


def test_a_new_departure_starts_at_the_house_rule():
    document = {"departures": [], "rules": {"number": 4, "safety": 2.5}}
    ids = Identities(UUID(int=1), ())
    made = new_item(document, "departures", NewItem("proven before", "safety"), ids)
    assert {n: made[n] for n in ("name", "rule", "value")} == {"name": "proven before", "rule": "safety", "value": 2.5}
    with pytest.raises(CalcError, match="Write the reason"):
        new_item(document, "departures", NewItem("x", "safety"), ids)


def test_every_rule_a_plan_may_depart_from_is_a_number_with_its_reason():
    known = {f.name: f.spec for f in fields_of(Rules)}
    for name in PLAN_RULES:
        assert known[name].help
        assert known[name].low is not None


def test_the_jaws_are_bored_on_a_plug_where_the_house_rule_says_so():
    from calc.shelf.plug import Plug
    from calc.shelf.ring import Ring
    from calc.tests.plans import SHELF

    shelf = replace(
        SHELF,
        setups=(
            replace(SHELF.setups[0], rings=(Ring("b", "Ring B", 95, 140, 6, 750),), plugs=(Plug("p", "Plug", 70),)),
        ),
    )
    ring, plug = (plan(shelf, rules__jaw_boring=school).figures[0][JAWS].backing for school in ("ring", "plug"))
    assert (ring.choice, ring.bore_pressure_bar) == ("ring", 6)
    assert (plug.choice, plug.bore_pressure_bar) == ("plug", 32)

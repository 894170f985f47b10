"""What a stop shows: its ledger, answers and lines, in both unit systems."""

import pytest

from calc.fields import Quantity
from calc.plan.cuts.inputs import PlannedCut
from calc.plan.lists import line_of
from calc.plan.stop import field_at
from calc.profile.steps import TurnedStep
from calc.tests.plans import ALUMINIUM, plan, shelf_with

STOPS = ["part", "sides", "hold", "jaws", "force", "tools", "cuts"]
SHELF_PATHS = ("machine", "material", "setups.s1.chuck", "setups.s1.jaw_blank", "setups.s1.jaw_set")


def facts(result, stop):
    return {f.name: f for f in result.stop(stop).facts}


def answers(result, stop):
    return {a.name: a for a in result.stop(stop).answers}


@pytest.mark.parametrize("stop", STOPS)
def test_every_entered_fact_is_one_the_document_declares(stop):
    for fact in plan().stop(stop).facts:
        if fact.path is None or fact.path in SHELF_PATHS or line_of(fact.path):
            continue
        declared = field_at(fact.path)
        # What is gripped and which end comes first are chosen among this part's own places.
        assert fact.spec is declared.spec or fact.options is not None
        if fact.name == "grip":
            continue
        assert fact.optional is declared.nullable


@pytest.mark.parametrize("stop", STOPS)
def test_names_are_unique_and_every_sentence_prints_in_both_systems(stop):
    result = plan()
    shown = result.stop(stop)
    names = [f.name for f in shown.facts]
    assert len(names) == len(set(names))
    sentences = [f.source for f in shown.facts] + [n.sentence for n in shown.notes] + [shown.line]
    sentences += [a.below for a in shown.answers if a.below] + [h.label for h in result.helps(shown)]
    for said in sentences:
        for system in ("metric", "inch"):
            assert "{" not in said.text(system)
        assert " mm" not in said.text("inch").replace("\xa0", " ")


@pytest.mark.parametrize("stop", STOPS)
def test_every_stop_has_two_or_three_answers_with_working(stop):
    shown = plan().stop(stop)
    assert 2 <= len(shown.answers) <= 3
    assert all(a.steps or str(a.words) == "not known" for a in shown.answers)


def test_lines_are_a_summary_of_the_plan():
    result = plan()
    lines = {s.name: str(s.line).replace("\xa0", " ").replace("\u202f", " ") for s in result.stops}
    assert lines["part"] == "carbon steel C45 · Ø 118 × 54 mm"
    assert result.stop("part").line.text("inch") == "carbon steel C45 · Ø 4.646 × 2.126\xa0in"
    assert lines["hold"] == "outside Ø 84 mm · steel jaws"
    assert lines["jaws"] == "Ø 84.00 × 20.00 deep, floor groove"
    assert lines["force"].startswith("32.0 bar · cap ")
    assert lines["cuts"] == "2 cuts · top 735 rpm"  # 734.6 shown on the safe side
    assert "aluminium" in str(plan(shelf_with(blank=ALUMINIUM)).stop("hold").line)


def test_limits_follow_the_nominal_and_show_their_last_digit():
    moved = plan(part__profile__outside__o1__diameter_mm=80.0)
    assert "79.965 to 80.000" in str(facts(moved, "part")["step_o1"].source)
    classed = plan(part__profile__outside__o1=TurnedStep("Spigot", 84.0, 40.0, fit="h7"))
    assert "83.965 to 84.000" in str(facts(classed, "part")["step_o1"].source)


def test_a_tight_tolerance_shows_one_place_more():
    tight = plan(part__profile__outside__o1__lower_mm=-0.02)
    assert answers(tight, "jaws")["bore_diameter"].figure.text() == "84.000\xa0mm"
    assert answers(tight, "jaws")["bore_diameter"].figure.text("inch") == "3.3071\xa0in"
    assert answers(plan(), "jaws")["bore_diameter"].figure.text() == "84.00\xa0mm"


def test_depth_per_side_has_the_amount_on_diameter_beside_it():
    shown = facts(plan(), "cuts")
    assert str(shown["cut_c2_depth_mm"].source) == "3.00\xa0mm on diameter"
    assert "diameter" not in str(shown["cut_c1_depth_mm"].source)  # facing goes along the axis


def test_a_fixed_rpm_rules_and_the_surface_speed_follows():
    shown = facts(plan(setups__s1__cuts__c2__rpm=500.0), "cuts")
    speed = shown["cut_c2_speed_m_min"]
    assert speed.path is None
    assert speed.value == pytest.approx(3.14159265 * 122 * 0.5)
    assert facts(plan(), "cuts")["cut_c2_speed_m_min"].path == "setups.s1.cuts.c2.speed_m_min"


def test_one_jaw_stands_beside_all_of_them_and_psi_beside_bar():
    shown = facts(plan(), "force")
    assert shown["per_jaw"].value == pytest.approx(shown["static_grip"].value / 3)
    assert "464\xa0psi" in str(shown["pressure"].source)
    assert "32.0\xa0bar" in shown["pressure"].source.text("inch")


def test_each_cut_stands_in_force_by_its_name():
    labels = [f.label for f in plan().stop("force").facts]
    assert {"Face needs", "Turn needs"} <= set(labels)
    assert {"Out of balance", "Spindle stops in"} <= set(labels)


def test_typical_values_are_told_as_such_until_measured():
    assert facts(plan(), "hold")["friction"].basis == "typical"
    assert facts(plan(), "force")["condition"].basis == "typical"
    assert "condition_measured" not in facts(plan(), "force")
    measured = plan(
        setups__s1__force__condition_measured=0.9,
        setups__s1__force__condition_date="2026-11-20",
        setups__s1__force__condition="measured",
    )
    assert facts(measured, "force")["condition"].basis == "measured"
    assert facts(measured, "force")["condition_measured"].value == 0.9


def test_what_is_needed_is_rounded_up_and_what_there_is_down():
    shown = facts(plan(), "force")
    assert {shown[n].rounding for n in ("static_grip", "per_jaw", "allowable")} == {"down"}
    assert {shown[n].rounding for n in ("demand_c1", "demand_c2", "centrifugal", "top_rpm")} == {"up"}
    assert answers(plan(), "force")["cap"].figure.rounding == "down"
    assert answers(plan(), "force")["held"].figure.rounding == "down"


def test_bars_stay_within_their_track():
    for pressure in (8.0, 20.0, 39.0):
        for stop in plan(setups__s1__force__pressure_bar=pressure).stops:
            for answer in stop.answers:
                if answer.bar:
                    assert 0 <= answer.bar.share <= 1
                    assert 0 <= answer.bar.mark <= 1


def test_cautions_stand_where_they_belong():
    said = {s.name: {n.code for n in s.notes if n.level == "caution"} for s in plan().stops}
    assert {"mounting", "deburr"} <= said["jaws"]
    assert "never-exceed" in said["force"]
    assert "chips" in said["cuts"]
    assert "not-seated" in {n.code for n in plan(setups__s1__hold__seat="none").stop("hold").notes}
    bored = PlannedCut("Bore", "bore", 77.0, 78.0, speed_m_min=120.0, feed_mm_rev=0.1, depth_mm=0.5)
    thin = plan(part__profile__inside__i1=TurnedStep("Bore", 78.0, fit="H7"), setups__s1__cuts=(bored,))
    assert "wall-limit" in {n.code for n in thin.stop("force").notes}


def test_quantities_carry_label_and_unit_from_their_declaration():
    depth = facts(plan(), "hold")["depth"]
    assert isinstance(depth.spec, Quantity)
    assert (depth.label, depth.spec.unit) == ("Depth of grip", "mm")
    with pytest.raises(KeyError):
        field_at("setups.s1.hold.colour")

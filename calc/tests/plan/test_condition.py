"""Which condition counts on a day: the gauge run while it counts, else the greasing log, and never in silence."""

from dataclasses import replace

import pytest

from calc.chuck.calibration import Calibration
from calc.plan.force.solve import FORCE
from calc.tests.plan.test_rules import facts, force
from calc.tests.plans import SHELF, plan

RUN = Calibration(0.9, 0.8, "2026-11-01")
AUTO = {"setups__s1__force__condition": "auto"}


def on_day(today, calibration=RUN, greased=None, **more):
    setup = replace(SHELF.setups[0], calibration=calibration, greased_on=greased)
    return plan(replace(SHELF, setups=(setup,), today=today), **AUTO, **more)


def codes(result):
    return {n.code for n in result.stop("force").notes}


@pytest.mark.parametrize(
    ("today", "greased", "counted"),
    [
        ("2026-11-01", None, 0.9),
        ("2027-01-30", None, 0.9),  # 90 days on it still counts
        ("2027-01-31", None, 0.5),
        ("2027-01-31", "2027-01-31", 1.0),
        ("2027-01-31", "2027-01-24", 0.85),
        ("2027-01-31", "2027-01-23", 0.5),
        ("2027-01-31", "2027-02-01", 0.5),  # greased tomorrow is a slip of the pen
    ],
)
def test_the_best_that_is_known_on_a_day(today, greased, counted):
    assert force(on_day(today, greased=greased)).condition == counted


def test_without_a_day_nothing_is_known():
    assert force(on_day("", greased="2026-11-01")).condition == 0.5


def test_it_says_what_it_used_and_how_to_do_better():
    measured = on_day("2026-11-02")
    assert "gauge run of 2026-11-01, counts until 2027-01-30" in str(facts(measured, "force")["condition"].source)
    assert facts(measured, "force")["condition"].basis == "measured"
    assert codes(on_day("2027-05-01")) >= {"gauge-expired", "condition-unknown"}
    week = on_day("2026-11-20", None, "2026-11-18")
    assert "grease-due" in codes(week)
    assert "condition-unknown" not in codes(week)


def test_the_house_rule_says_how_long_a_run_counts():
    assert force(on_day("2026-11-20", rules__gauge_days=10)).condition == 0.5


def test_transmission_counts_only_with_the_jaws_it_was_measured_with():
    from calc.shelf.jaw_set import JawSet

    own = replace(RUN, jaw_set="set-1")
    jaw_set = JawSet("set-1", "Set 1", "od", 84.0, 20.0, 4.0, tooth=0, numbers="1-1", chuck_key="c")
    setup = replace(SHELF.setups[0], calibration=own)
    other = force(plan(replace(SHELF, setups=(setup,), today="2026-11-02"), **AUTO))
    mine = plan(replace(SHELF, setups=(replace(setup, jaw_set=jaw_set),), today="2026-11-02"), **AUTO).figures[0][FORCE]
    assert other.transmission == 1
    assert mine is None or mine.transmission == 0.8
    if mine is not None:
        # Only 0.8 of the pull reaches the grip: the cap is 1/√0.8 of what it would be.
        assert mine.lowest.limit.grip_limited_rpm == pytest.approx(other.lowest.limit.grip_limited_rpm / 0.8**0.5)

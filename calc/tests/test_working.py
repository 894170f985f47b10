"""Every step of every working: what is put in evaluates to what is said."""

import math

import pytest

from calc.errors import CalcError
from calc.plan.compute import PlanResult
from calc.tests.plans import ALUMINIUM, plan, shelf_with
from calc.working import FUNCTIONS, Note, Source, Working

PLANS = {
    "as it is": {},
    "shoulder on the face": {"setups__s1__hold__seat": "face", "setups__s1__hold__depth_mm": None},
    "live centre, interrupted": {"setups__s1__hold__live_centre": True, "setups__s1__cuts__c2__interrupted": True},
    "fixed rpm, sharp corner": {"setups__s1__cuts__c2__rpm": 400.0, "setups__s1__cuts__c2__corner_radius_mm": 0.0},
    "within the corner": {"setups__s1__cuts__c2__depth_mm": 0.4},
    "held to the clamp": {"setups__s1__clamp_rpm": 250.0},
    "unseated, pulled away": {"setups__s1__hold__seat": "none", "setups__s1__cuts__c2__feeds": "away"},
    "depth left to the rule": {"setups__s1__hold__depth_mm": None},
    "measured": {
        "setups__s1__force__condition_measured": 0.9,
        "setups__s1__force__condition_date": "2026-11-20",
        "setups__s1__force__condition": "measured",
    },
}


def steps_of(result: PlanResult):
    return [step for stop in result.stops for answer in stop.answers for step in answer.steps]


@pytest.mark.parametrize("name", PLANS)
def test_each_step_evaluates_to_its_value(name):
    result = plan(**PLANS[name])
    assert not [s for s in result.stops if s.state == "open" and s.name != "tools"]
    steps = steps_of(result)
    assert len(steps) > 30
    for step in steps:
        said = eval(step.substituted, {"__builtins__": {}}, FUNCTIONS)
        assert said == pytest.approx(step.value, rel=2e-6, abs=1e-6), step.label
        assert math.isfinite(step.value)
        assert step.source.text
        assert step.label


def test_steps_survive_another_jaw():
    assert steps_of(plan(shelf_with(blank=ALUMINIUM)))


def test_a_negative_figure_is_put_in_brackets():
    w = Working()
    value = w.step("x", "Difference", "a - b", "mm", Source("derived", "here"), a=1.0, b=-2.5)
    assert value == 3.5
    assert w.steps[0].substituted == "1 - (-2.5)"


def test_notes_are_plain_data():
    assert Note("caution", "code", "Say this.").as_dict() == {"level": "caution", "code": "code", "text": "Say this."}


@pytest.mark.parametrize(
    ("formula", "values"),
    [("a / b", {"a": 1.0, "b": 0.0}), ("a * b", {"a": 1e300, "b": 1e300}), ("a - b", {"a": math.inf, "b": math.inf})],
)
def test_what_is_beyond_all_numbers_is_told_and_never_infinite(formula, values):
    with pytest.raises(CalcError) as caught:
        Working().step("x", "Demand", formula, "N", Source("entered", "e"), **values)
    assert "Demand cannot be computed" in caught.value.errors[0].message

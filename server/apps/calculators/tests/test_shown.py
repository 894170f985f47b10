"""The calculators as the screen shows them: examples, answers with pictures, and what a plan asked."""

import uuid

import pytest

from calc.catalog import CALCULATORS
from server import kept_demo
from server.apps.runs.models import Run
from server.conftest import _signed_in


def test_all_of_them_stand_in_the_order_of_the_work_with_their_units(planner):
    metric = planner.get("/api/calculators").json()
    inch = planner.get("/api/calculators?units=inch").json()
    assert [c["name"] for c in metric["calculators"]] == list(CALCULATORS)
    assert {c["group"] for c in metric["calculators"]} == {key for key, _ in metric["groups"]}

    def unit(listed, name, field):
        one = next(c for c in listed["calculators"] if c["name"] == name)
        return next(f for f in one["fields"] if f["name"] == field)["unit"]

    assert (unit(metric, "chuck-grip", "pressure_bar"), unit(inch, "chuck-grip", "pressure_bar")) == ("bar", "psi")


@pytest.mark.parametrize("name", CALCULATORS)
def test_an_example_answers_as_it_is_sent(planner, name):
    listed = planner.get("/api/calculators").json()["calculators"]
    example = next(c["example"] for c in listed if c["name"] == name)
    for units in ("metric", "inch"):
        status, answer = planner.send(f"calculators/{name}", {"given": example, "units": units})
        assert status == 200, answer
        assert answer["answers"]
        assert answer["working"]
        assert (answer["scene"] or answer["graph"] or None) is None or CALCULATORS[name].picture
        again = planner.send(f"calculators/{name}", {"given": answer["given"], "units": units})[1]
        assert again["answers"] == answer["answers"]


def test_what_is_typed_is_in_the_units_shown_and_comes_back_as_it_was_read(planner):
    given = {"low": "3.3057", "high": "84 mm", "rule": "print"}
    status, answer = planner.send("calculators/working-limits", {"given": given, "units": "inch"})
    assert status == 200
    assert answer["given"]["low"] == pytest.approx(83.96478)
    assert answer["shown"]["low"] == "3.3057"
    assert answer["given"]["keep_fraction"] == pytest.approx(1 / 3)  # as usual, and told so


def test_a_wrong_row_is_told_at_its_place(planner):
    points = [{"rpm": 0, "grip_n": 1e4}, {"rpm": "fast", "grip_n": 9e3}, {"rpm": 900, "grip_n": 8e3}]
    given = {"side": "od", "points": points}
    status, answer = planner.send("calculators/grip-fit", {"given": given})
    assert status == 422
    assert [e["field"] for e in answer["errors"]] == ["points.1.rpm"]


def test_there_is_no_other(planner):
    assert planner.send("calculators/none", {"given": {}})[0] == 404
    assert planner.get("/api/calculators/none/from/1").status_code == 404


@pytest.fixture
def carrier(db):
    kept_demo.half_set()
    return Run.objects.get(drawing_number="LH-2041")


def test_a_plan_is_taken_from_and_put_back_into(carrier):
    planner = _signed_in("planner")
    found = planner.get(f"/api/calculators/chuck-grip/from/{carrier.pk}").json()
    assert (found["revision"], found["release"]) == (carrier.revision, None)
    (first, *_) = found["taken"]
    status, answer = planner.send("calculators/chuck-grip", {"given": first["given"]})
    assert status == 200, answer
    path = first["paths"]["pressure_bar"]
    given = {"path": path, "value": first["given"]["pressure_bar"] - 1, "units": "metric"}
    given |= {"base_revision": found["revision"], "key": str(uuid.uuid4())}
    assert planner.send(f"runs/{carrier.pk}/edits", given)[0] == 200
    again = planner.get(f"/api/calculators/chuck-grip/from/{carrier.pk}").json()
    assert again["taken"][0]["given"]["pressure_bar"] == first["given"]["pressure_bar"] - 1


def test_who_sees_releases_alone_takes_from_what_is_released_and_puts_nothing_back(carrier):
    operator = _signed_in("operator")
    found = operator.get(f"/api/calculators/chuck-grip/from/{carrier.pk}").json()
    assert found["release"] == 1
    assert found["taken"]
    assert not any(t["paths"] for t in found["taken"])
    ring = Run.objects.exclude(releases__isnull=False).first()
    assert operator.get(f"/api/calculators/cut/from/{ring.pk}").status_code in (403, 404)

"""A stop added through the list alone is in the API's answer, on the bench, in the history and in a release."""

import pytest

from calc.plan import all_stops
from calc.tests.plan.test_added_stop import ADDED
from server.apps.runs.actions.follow_shelf import follow_all
from server.apps.runs.tests.test_history import edit, texts
from server.apps.runs.tests.test_releases import release


@pytest.fixture
def added():
    all_stops.ALL_STOPS.append(ADDED)
    yield
    all_stops.ALL_STOPS.remove(ADDED)


def test_it_is_answered_listed_told_and_released(demo, planner, operator, added):
    follow_all()
    plan = planner.plan(demo)
    stop = next(s for s in plan["stops"] if s["name"] == "pallet")
    assert (stop["key"], stop["heading"], stop["facts"][0]["unit"]) == ("pallet-s1", "What ten pieces weigh", "kg")
    assert "pallet" in {s["name"] for s in plan["sides"][0]["scenes"]}
    row = next(r for r in planner.get("/api/runs").json()["rows"] if r["id"] == demo.pk)
    assert "Pallet" in {line["title"] for line in row["lines"]}
    edit(planner, demo, "part.stock.diameter_mm", text="124")
    assert "pallet " in texts(planner, demo)[0]
    edit(planner, demo, "part.stock.diameter_mm", text="122")
    assert release(planner, demo)[0] == 200
    shown = operator.plan(demo)
    assert shown["stops"][-1]["line"] == plan["stops"][-1]["line"]

"""The calculators over HTTP: the same names, fields and answers as the core."""

import json

import pytest

from calc.catalog import CALCULATORS

GRIP = {"static_grip_n": 10_000, "side": "od", "rpm": 954.93, "stack": [{"mass_kg": 1, "radius_mm": 100}]}


def test_the_list_has_fields_units_and_ranges(planner):
    listed = {c["name"]: c for c in planner.get("/api/calc").json()}
    assert list(listed) == list(CALCULATORS)
    rpm = next(f for f in listed["grip-at-speed"]["fields"] if f["name"] == "rpm")
    assert (rpm["unit"], rpm["low"], rpm["high"], rpm["required"]) == ("rpm", 0, 20_000, True)


def test_an_answer_is_the_cores_own(planner):
    status, answer = planner.send("calc/grip-at-speed", GRIP)
    assert status == 200
    assert answer == json.loads(json.dumps(CALCULATORS["grip-at-speed"].run(GRIP)))
    assert answer["grip_n"] == pytest.approx(7_000, abs=1)


def test_an_answer_is_printed_in_the_units_asked_for(planner):
    # 10 000 N − 3·1·0.1·(2π·954/60)² N = 7 005.8 N = 1 574.97 lbf
    for units, text in (("metric", "7.0\xa0kN"), ("inch", "1574\xa0lbf")):
        answer = planner.send(f"calc/grip-at-speed?units={units}", GRIP | {"rpm": 954})[1]
        told = {a["label"]: a["text"].replace("\u202f", "") for a in answer["answers"]}
        assert told["Grip at speed"] == text
    far = GRIP | {"stack": [{"mass_kg": 1, "radius_mm": 2001}]}
    status, answer = planner.send("calc/grip-at-speed?units=inch", far)
    assert status == 422
    assert "78.74" in answer["errors"][0]["message"]  # 2000 mm


def test_bad_input_names_the_field(planner):
    status, answer = planner.send("calc/grip-at-speed", GRIP | {"rpm": -1, "stack": [{"mass_kg": "x", "radius_mm": 1}]})
    assert status == 422
    assert {e["field"] for e in answer["errors"]} == {"rpm", "stack.0.mass_kg"}


@pytest.mark.parametrize("body", [b"", b"{", b"\xff\xfe", b"[" * 100_000])
def test_what_is_no_json_is_told(planner, body):
    answer = planner.generic("POST", "/api/calc/cut", body, content_type="application/json")
    assert answer.status_code == 400
    assert answer["Content-Type"] == "application/problem+json"


def test_what_is_no_text_is_quoted_back_escaped(planner):
    body = b'{"rpm": "\\ud800", "static_grip_n": 1e400, "side": "od"}'
    answer = planner.generic("POST", "/api/calc/grip-at-speed", body, content_type="application/json")
    assert answer.status_code == 422
    assert {e["field"] for e in json.loads(answer.content)["errors"]} == {"rpm", "static_grip_n", "stack"}


def test_a_list_where_a_choice_is_asked_for_is_told(planner):
    status, answer = planner.send("calc/grip-at-speed", GRIP | {"side": [[], []]})
    assert (status, answer["errors"][0]["field"]) == (422, "side")


@pytest.mark.parametrize("body", [None, [], 5, "text"])
def test_what_is_no_object_is_told(planner, body):
    assert planner.send("calc/cut", body)[0] == 422


def test_another_name_is_told(planner):
    status, answer = planner.send("calc/nothing", {})
    assert status == 404
    assert "GET /api/calc" in answer["title"]


def test_the_document_describes_every_calculators_input():
    from server.config.api import api

    paths = api.get_openapi_schema()["paths"]
    for name in CALCULATORS:
        schema = paths[f"/api/calc/{name}"]["post"]["requestBody"]["content"]["application/json"]["schema"]
        assert schema["properties"]

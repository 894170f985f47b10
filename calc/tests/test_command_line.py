import json
import subprocess
import sys

from calc.catalog import CALCULATORS


def run(*arguments, given=""):
    done = subprocess.run(
        [sys.executable, "-m", "calc", *arguments], input=given, capture_output=True, text=True, check=False
    )
    return done.returncode, json.loads(done.stdout)


def test_a_calculator_answers_with_working():
    given = {"static_grip_n": 46000, "side": "od", "stack": [{"mass_kg": 2, "radius_mm": 60}], "rpm": 0}
    code, answer = run("grip-at-speed", given=json.dumps(given))
    assert code == 0
    assert answer["grip_n"] == 46000
    assert {"symbol", "label", "formula", "substituted", "value", "unit", "source"} <= set(answer["working"][0])
    assert answer["notes"] == []


def test_answers_are_printed_with_label_and_unit_in_the_units_asked_for():
    given = json.dumps({"static_grip_n": 44483, "side": "od", "stack": [{"mass_kg": 2, "radius_mm": 60}], "rpm": 0})
    for flags, text in (((), "44.4 kN"), (("--units", "inch"), "10\u202f000 lbf")):
        answers = run("grip-at-speed", *flags, given=given)[1]["answers"]
        told = {a["label"]: a["text"].replace("\xa0", " ") for a in answers}
        assert told["Grip at speed"] == text
    assert run("grip-at-speed", "--units", "cubit", given=given)[0] == 2


def test_bad_input_exits_2_and_names_the_field():
    code, answer = run("grip-at-speed", given='{"static_grip_n": "36,500"}')
    assert code == 2
    assert {"static_grip_n", "side", "stack", "rpm"} == {e["field"] for e in answer["errors"]}


def test_what_is_no_json_and_what_is_no_calculator_are_told():
    assert run("cut", given="not json")[0] == 2
    code, answer = run("nothing", given="{}")
    assert code == 2
    assert "chuck-grip" in answer["errors"][0]["message"]


def test_it_lists_what_there_is():
    assert [c["name"] for c in run()[1]["calculators"]] == list(CALCULATORS)
    assert run("cut", "--fields")[1]["fields"][0]["unit"] == "mm"


def test_it_needs_neither_web_nor_database():
    done = subprocess.run(
        [sys.executable, "-X", "importtime", "-m", "calc"], input="", capture_output=True, text=True, check=True
    )
    assert not any(name in done.stderr for name in ("django", "psycopg", "ninja"))

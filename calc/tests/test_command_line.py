import io
import json
import subprocess
import sys

import pytest

from calc.__main__ import main
from calc.catalog import CALCULATORS


@pytest.fixture
def run(monkeypatch, capsys):
    """The command, in this process: it takes longer to begin one than to answer."""

    def ask(*arguments, given=""):
        monkeypatch.setattr(sys, "stdin", io.StringIO(given))
        code = main(list(arguments))
        return code, json.loads(capsys.readouterr().out)

    return ask


def test_a_calculator_answers_with_working_as_a_program():
    given = {"static_grip_n": 46000, "side": "od", "stack": [{"mass_kg": 2, "radius_mm": 60}], "rpm": 0}
    command = [sys.executable, "-m", "calc", "grip-at-speed"]
    done = subprocess.run(command, input=json.dumps(given), capture_output=True, text=True, check=False)
    code, answer = done.returncode, json.loads(done.stdout)
    assert code == 0
    assert answer["grip_n"] == 46000
    assert {"symbol", "label", "formula", "substituted", "value", "unit", "source"} <= set(answer["working"][0])
    assert answer["notes"] == []


def test_answers_are_printed_with_label_and_unit_in_the_units_asked_for(run):
    given = json.dumps({"static_grip_n": 44483, "side": "od", "stack": [{"mass_kg": 2, "radius_mm": 60}], "rpm": 0})
    for flags, text in (((), "44.4 kN"), (("--units", "inch"), "10\u202f000 lbf")):
        answers = run("grip-at-speed", *flags, given=given)[1]["answers"]
        told = {a["label"]: a["text"].replace("\xa0", " ") for a in answers}
        assert told["Grip at speed"] == text
    assert run("grip-at-speed", "--units", "cubit", given=given)[0] == 2


def test_bad_input_exits_2_and_names_the_field(run):
    code, answer = run("grip-at-speed", given='{"static_grip_n": "36,500"}')
    assert code == 2
    assert {"static_grip_n", "side", "stack", "rpm"} == {e["field"] for e in answer["errors"]}


def test_what_is_no_json_and_what_is_no_calculator_are_told(run):
    assert run("cut", given="not json")[0] == 2
    code, answer = run("nothing", given="{}")
    assert code == 2
    assert "chuck-grip" in answer["errors"][0]["message"]


def test_it_lists_what_there_is(run):
    assert [c["name"] for c in run()[1]["calculators"]] == list(CALCULATORS)
    assert run("cut", "--fields")[1]["fields"][0]["unit"] == "mm"


def test_it_needs_neither_web_nor_database():
    done = subprocess.run(
        [sys.executable, "-X", "importtime", "-m", "calc"], input="", capture_output=True, text=True, check=True
    )
    assert not any(name in done.stderr for name in ("django", "psycopg", "ninja"))

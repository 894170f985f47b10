"""A plan on the command line: a run of the demo or a file, with changes, and sentences for what is not right."""

from __future__ import annotations

import json

import pytest

from commands.plan import main, opened
from server.apps.demo.runs import RUNS


@pytest.fixture(scope="module")
def kept(tmp_path_factory):
    """The vent plug as a file."""
    file = tmp_path_factory.mktemp("runs") / "plug.json"
    assert main(["LH-2215", "--export", str(file)]) == 0
    return file


def told(capsys, *arguments):
    code = main([str(a) for a in arguments])
    return code, json.loads(capsys.readouterr().out)


@pytest.mark.parametrize("number", [r["drawing_number"] for r in RUNS])
def test_every_run_of_the_demo_is_computed(number, capsys):
    code, found = told(capsys, number)
    assert (code, found["verdict"]) == (0, "settled")
    assert [s["key"] for s in found["stops"]][:2] == ["part", "sides"]
    for side in found["sides"]:
        assert {n for n, v in side.items() if v is None} <= {"bore_mm"}  # a collet is not bored
        assert side["kept_fraction"] > 0.25
        assert side["corner"] > 0


def test_a_file_computes_to_what_the_run_does_and_comes_back_the_same(kept, capsys, tmp_path):
    of_run = told(capsys, "lh-2215")
    assert told(capsys, kept) == of_run
    again = tmp_path / "again.json"
    told(capsys, kept, "--export", again)
    assert again.read_text() == kept.read_text()
    assert opened(str(kept)).shelf.setups[0].chuck.force.chart[0].grip_n == 7_500


def test_changes_are_typed_as_on_the_screen_in_the_units_of_the_run(kept, capsys):
    code, found = told(capsys, kept, "--set", "setups.0.force.pressure_bar=290 psi")
    assert (code, round(found["sides"][0]["pressure_bar"], 2)) == (0, 19.99)
    _, named = told(capsys, kept, "--set", 'part.profile.outside."Bar".diameter_mm=1.4')
    assert named["sides"][0]["bore_mm"] == pytest.approx(1.4 * 25.4)
    _, by_id = told(capsys, kept, "--set", "part.profile.outside.o1.diameter_mm=1.4")
    assert by_id == named


def test_one_side_and_what_stops_it(capsys):
    code, found = told(capsys, "LH-2041", "--side", "1", "--set", "setups.1.force.pressure_bar=4")
    assert (code, found["verdict"], len(found["sides"])) == (0, "stopped", 1)
    assert {s["side"] for s in found["stops"]} == {None, 1}
    assert any(n["level"] == "stop" for s in found["stops"] for n in s["notes"])


@pytest.mark.parametrize(
    ("arguments", "field", "says"),
    [
        ([], "arguments", "required"),
        (["LH-9999"], "run", "no run of the demo"),
        (["LH-2215", "--side", "1"], "--side", "no such side"),
        (["LH-2215", "--set", "setups.0.clamp_rpm"], "--set", "PATH=VALUE"),
        (["LH-2215", "--set", "setups.3.clamp_rpm=900"], "setups.3.clamp_rpm", "no item"),
        (["LH-2215", "--set", "setups.0.nothing=9"], "setups.0.nothing", "no such fact"),
        (["LH-2215", "--set", "setups.0.force.pressure_bar=much"], "setups.s1.force.pressure_bar", "not a figure"),
        (["LH-2215", "--export", "/no/such/folder/x"], "--export", "cannot be written"),
    ],
)
def test_what_is_not_right_exits_2_with_a_sentence_at_its_field(arguments, field, says, capsys):
    code, found = told(capsys, *arguments)
    assert (code, found["errors"][0]["field"]) == (2, field)
    assert says in found["errors"][0]["message"]


def test_a_name_that_two_items_have_is_refused(kept, capsys, tmp_path):
    plain = json.loads(kept.read_text())
    for step in plain["document"]["part"]["profile"]["outside"][:2]:
        step["name"] = "Bar"
    file = tmp_path / "twice.json"
    file.write_text(json.dumps(plain))
    code, found = told(capsys, file, "--set", 'part.profile.outside."Bar".diameter_mm=1.4')
    assert (code, "2 items are called “Bar”" in found["errors"][0]["message"]) == (2, True)


@pytest.mark.parametrize(
    ("change", "field"),
    [
        (lambda p: p.pop("shelf"), "shelf"),
        (lambda p: p["shelf"].update(setups=[]), "shelf.setups"),
        (lambda p: p["document"].update(version=9), "document.version"),
        (lambda p: p["document"]["setups"][0].update(clamp_rpm="fast"), "document.setups.s1.clamp_rpm"),
        (lambda p: p["shelf"]["machine"].update(max_rpm=-1), "shelf.machine.max_rpm"),
        (lambda p: p.update(format="other"), "format"),
        (lambda p: p.update(more=1), "more"),
    ],
)
def test_a_file_that_is_not_right_says_where(kept, change, field, capsys, tmp_path):
    plain = json.loads(kept.read_text())
    change(plain)
    file = tmp_path / "wrong.json"
    file.write_text(json.dumps(plain))
    code, found = told(capsys, file)
    assert (code, found["errors"][0]["field"]) == (2, field)


def test_what_is_no_json_is_told(capsys, tmp_path):
    file = tmp_path / "x.json"
    file.write_text("{")
    assert told(capsys, file)[1]["errors"][0]["message"].startswith("This is not a JSON file")

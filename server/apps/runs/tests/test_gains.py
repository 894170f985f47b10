"""What would gain most, through the API: looked at, settled in turn, and taken as one edit."""

import uuid

import pytest

from server.apps.runs.models import Edit, Run
from server.apps.runs.tests.test_run_file import figures, read_in, saved
from server.apps.shelf.models import Collet


@pytest.fixture
def plug(demo):
    """The vent plug, held in steel jaws on Twin 2."""
    return Run.objects.get(name="Vent plug")


def take(client, run, idea, question, base=0):
    body = {"key": str(uuid.uuid4()), "base_revision": base, "question": question}
    return client.send(f"runs/{run.pk}/sides/s1/ideas/{idea}/taken", body)


def test_ideas_are_looked_at_and_each_is_answered_by_itself(planner, plug):
    ideas = planner.get(f"/api/runs/{plug.pk}/sides/s1/ideas").json()
    assert {"jaws-t2-aluminium-38", "jaws-t2-hard-36"} <= {i["key"] for i in ideas}
    status, found = planner.answer(f"runs/{plug.pk}/sides/s1/ideas/jaws-t2-hard-36", {})
    assert (status, found["gains"]) == (200, False)
    assert "Hard jaws mark" in found["why_not"]
    status, told = planner.answer(f"runs/{plug.pk}/sides/s1/ideas/no-such", {})
    assert (status, "no such change" in told["title"]) == (404, True)


def test_a_gain_is_taken_with_its_jaws_and_figures_as_one_edit_and_taken_back(planner, plug):
    _, found = planner.answer(f"runs/{plug.pk}/sides/s1/ideas/jaws-t2-aluminium-38", {})
    assert found["gains"] and found["saves_min"] > 0
    assert found["saves_h"] == pytest.approx(found["saves_min"] * 600 / 60, abs=0.02)
    status, plan = take(planner, plug, "jaws-t2-aluminium-38", planner.question)
    assert (status, Edit.objects.count()) == (200, 1)
    plug.refresh_from_db()
    assert plug.setups.get().jaw_blank.key == "t2-aluminium-38"
    assert plan["verdict"] == "settled"
    _, undone = planner.send(f"runs/{plug.pk}/undo", {"key": str(uuid.uuid4())})
    assert undone["revision"] == 2
    assert Run.objects.get(pk=plug.pk).setups.get().jaw_blank.key == "t2-steel-38"


def test_what_was_found_for_another_draft_is_not_taken(planner, plug):
    planner.answer(f"runs/{plug.pk}/sides/s1/ideas/jaws-t2-aluminium-38", {})
    question = planner.question
    assert planner.edit(plug, "setups.s1.clamp_rpm", text="1800")[0] == 200
    assert take(planner, plug, "jaws-t2-aluminium-38", question, base=1)[0] == 409
    assert take(planner, plug, "deeper", question, base=1)[0] == 404


def test_a_collet_is_chosen_and_kept_in_the_runs_file(planner, plug):
    assert planner.edit(plug, "setups.s1.chuck", value="twin-2-collet")[0] == 200
    assert planner.edit(plug, "setups.s1.collet", value="collet-38-serrated", base_revision=1)[0] == 200
    lines = {key: line for key, _, line in figures(planner.plan(plug))}
    assert lines["jaws-s1"] == "Collet 38 serrated, nothing to bore"
    status, made = read_in(planner, saved(planner, plug))
    assert status == 201
    assert Run.objects.get(pk=made["id"]).setups.get().collet.key == "collet-38-serrated"
    status, said = planner.send("shelf/collet/items/collet-38-serrated", None, "delete")
    assert (status, "taken by" in said["title"]) == (409, True)
    assert Collet.objects.filter(key="collet-38-serrated").exists()

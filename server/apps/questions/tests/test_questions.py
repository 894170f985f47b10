"""Questions that take long: asked once, limited, dropped when stale, cancelled, told how far they are."""

from __future__ import annotations

import uuid

import pytest
from django.utils import timezone
from procrastinate.contrib.django.models import ProcrastinateJob

from server.apps.questions.actions import ask as asking
from server.apps.questions.actions.answer import answer, begun, give_up, tell_again
from server.apps.questions.models import Question
from server.apps.questions.work import _here, recover

SETTLE = {"units": "metric"}


def answered(key: str) -> None:
    """What the worker does with a question, here and now."""
    question = begun(key)
    if question is not None:
        answer(question)


def asked(client, run, what="settle", **more):
    given = {"key": str(uuid.uuid4()), "units": "metric"} | more
    status, question = client.send(f"runs/{run.pk}/sides/s1/{what}", given)
    return status, question


def stands(client, question):
    return client.get(f"/api/questions/{question['key']}").json()


def test_a_question_is_answered_and_what_it_found_is_taken_as_one_edit(planner, demo):
    status, question = asked(planner, demo)
    assert (status, question["state"], question["answer"]) == (202, "waiting", None)
    answered(question["key"])
    told = stands(planner, question)
    assert (told["state"], told["problem"]) == ("done", None)
    assert len(told["answer"]["cuts"]) == 3
    keep = {"key": str(uuid.uuid4()), "base_revision": 0, "question": question["key"]}
    status, plan = planner.send(f"runs/{demo.pk}/sides/s1/settled", keep)
    assert (status, plan["revision"]) == (200, 1)


def test_the_same_question_is_asked_once(planner, demo):
    _, first = asked(planner, demo)
    _, same = asked(planner, demo)
    assert same["key"] == first["key"]
    answered(first["key"])
    assert asked(planner, demo)[1]["state"] == "done"  # and while nothing has changed its answer stands
    assert Question.objects.count() == 1


def test_sending_a_question_twice_asks_once(planner, demo):
    key = str(uuid.uuid4())
    _, first = asked(planner, demo, key=key)
    _, twice = asked(planner, demo, key=key)
    assert first["key"] == twice["key"] == key


def test_a_newer_question_about_the_same_takes_the_place_of_the_older(planner, demo):
    _, whole = asked(planner, demo)
    _, one = asked(planner, demo, cut="c1")
    assert (stands(planner, whole)["state"], stands(planner, one)["state"]) == ("cancelled", "waiting")


def test_a_question_about_a_draft_that_is_gone_is_dropped_and_never_taken(planner, demo):
    _, stale = asked(planner, demo)
    assert planner.edit(demo, "setups.s1.force.pressure_bar", text="27")[0] == 200
    answered(stale["key"])
    assert stands(planner, stale)["state"] == "dropped"
    _, question = asked(planner, demo)
    answered(question["key"])
    demo.refresh_from_db()
    assert planner.edit(demo, "setups.s1.force.pressure_bar", text="26")[0] == 200
    keep = {"key": str(uuid.uuid4()), "base_revision": 2, "question": question["key"]}
    status, told = planner.send(f"runs/{demo.pk}/sides/s1/settled", keep)
    assert (status, "has changed" in told["title"]) == (409, True)


def test_what_cannot_be_answered_is_told_at_its_field(planner, demo):
    planner.edit(demo, "setups.s1.force.pressure_bar", text="")
    _, question = asked(planner, demo)
    answered(question["key"])
    told = stands(planner, question)
    assert (told["state"], told["problem"]["status"]) == ("failed", 422)
    assert "Settling needs the grip" in told["problem"]["errors"][0]["message"]


def test_nobody_asks_more_than_a_few_at_once_and_the_queue_has_an_end(planner, demo, signed_in, monkeypatch):
    monkeypatch.setattr(asking, "PERSON_MOST", 2)
    for check in ("limit-analysis", "real-contact"):
        assert asked(planner, demo, f"checks/{check}")[0] == 202
    status, told = asked(planner, demo)
    assert (status, "2 of your questions" in told["title"]) == (429, True)
    assert asked(signed_in("setter"), demo, "checks/limit-analysis")[0] == 202  # another person's are another's
    monkeypatch.setattr(asking, "ALL_MOST", 3)
    assert asked(signed_in("owner"), demo)[0] == 429


def test_a_question_is_ones_own(planner, demo, signed_in):
    _, question = asked(planner, demo)
    owner = signed_in("owner")
    assert owner.get(f"/api/questions/{question['key']}").status_code == 404
    assert owner.delete(f"/api/questions/{question['key']}").status_code == 404
    answered(question["key"])
    keep = {"key": str(uuid.uuid4()), "base_revision": 0, "question": question["key"]}
    assert owner.send(f"runs/{demo.pk}/sides/s1/settled", keep)[0] == 404


def test_a_cancelled_question_stays_so_whatever_comes_of_it(planner, demo):
    _, question = asked(planner, demo)
    working = begun(question["key"])
    assert planner.delete(f"/api/questions/{question['key']}").status_code == 204
    answer(working)
    assert stands(planner, question)["state"] == "cancelled"
    assert begun(question["key"]) is None


def test_it_is_told_how_far_it_has_come(planner, demo):
    _, question = asked(planner, demo)
    told = []
    answer(begun(question["key"]), lambda done, of: told.append((done, of)))
    assert told[0] == (0, told[0][1])
    assert [done for done, _ in told] == sorted(done for done, _ in told)
    assert told[-1][0] < told[-1][1]


def test_what_a_killed_worker_left_is_told_and_asked_once_more(planner, demo):
    _, question = asked(planner, demo)
    begun(question["key"])
    assert recover() == 1
    told = stands(planner, question)
    assert (told["state"], "once more" in told["told"]) == ("waiting", True)
    begun(question["key"])
    assert recover() == 1
    assert stands(planner, question)["state"] == "failed"
    assert recover() == 0


def test_what_the_database_lost_when_it_was_killed_is_asked_once_more(planner, demo):
    _, question = asked(planner, demo)
    assert recover() == 0  # its job waits in the queue
    ProcrastinateJob.objects.filter(status="todo").update(status="doing")  # taken, and then nobody was there any more
    assert recover(older_s=60) == 0  # it may be on its way
    with _here(question["key"]):
        assert recover() == 0
    assert recover() == 1
    assert ProcrastinateJob.objects.filter(status="todo").count() == 1
    assert stands(planner, question)["state"] == "waiting"


def test_one_that_was_given_up_is_not_taken_up_again(planner, demo):
    _, question = asked(planner, demo)
    give_up(question["key"], "It took longer than 60 seconds and was ended.")
    tell_again(question["key"])
    assert stands(planner, question)["told"] == "It took longer than 60 seconds and was ended."


def test_how_many_wait_before_it_is_told(planner, demo, signed_in):
    asked(signed_in("owner"), demo)
    _, question = asked(planner, demo)
    assert question["before"] == 1


def test_old_questions_go(planner, demo):
    _, question = asked(planner, demo)
    answered(question["key"])
    Question.objects.update(asked_at=timezone.now() - 2 * asking.KEPT)
    asked(planner, demo, "checks/limit-analysis")
    assert planner.get(f"/api/questions/{question['key']}").status_code == 404


@pytest.mark.parametrize("what", ["checks/no-such", "settle"])
def test_what_there_is_not_is_told_when_it_is_asked(planner, demo, what):
    setup = "s9" if what == "settle" else "s1"
    given = {"key": str(uuid.uuid4()), "units": "metric"}
    assert planner.send(f"runs/{demo.pk}/sides/{setup}/{what}", given)[0] == 404

"""The worker as a process of its own: it computes, and is ended, killed and started again."""

from __future__ import annotations

import os
import signal
import subprocess
import sys
import time
import uuid
from pathlib import Path

import psutil
import pytest
from django.conf import settings
from django.db import connection

from server.apps.questions.actions.ask import ask, cancel
from server.apps.questions.models import Question
from server.apps.questions.pool import COMPUTING
from server.apps.questions.tests import kinds
from server.foundation.models import Person

pytestmark = pytest.mark.django_db(transaction=True)
ROOT = Path(__file__).parents[4]
BY_NAME = {kind.name: kind for kind in kinds.ALL_KINDS}


def started():
    """A worker on the database of the tests."""
    where = {"NOBLE_ANVIL_DB_NAME": settings.DATABASES["default"]["NAME"]}
    env = {**os.environ, **where, "DJANGO_SETTINGS_MODULE": "server.apps.questions.tests.settings"}
    command = [sys.executable, "-m", "server.work"]
    return subprocess.Popen(command, cwd=ROOT, env=env, stderr=subprocess.DEVNULL, start_new_session=True)


def ended(worker, how=signal.SIGTERM):
    if worker.poll() is None:
        worker.send_signal(how)
        worker.wait(10)


@pytest.fixture
def worker(monkeypatch):
    monkeypatch.setattr("server.apps.questions.kind._kinds", lambda: BY_NAME)
    process = started()
    yield process
    ended(process)


@pytest.fixture
def person():
    return Person.objects.create(username="asker", role="planner")


def asked(person, kind, **arguments):
    key = uuid.uuid4()
    ask(BY_NAME[kind], arguments | {"key": str(key)}, key, person)
    return key


def until(key, states=("done", "failed", "dropped", "cancelled"), seconds=20.0):
    """The question once it is in one of the states."""
    end = time.monotonic() + seconds
    while time.monotonic() < end:
        question = Question.objects.get(key=key)
        if question.state in states:
            return question
        time.sleep(0.02)
    raise AssertionError(f"still {question.state}: {question.told}")


def computing(worker):
    """Processes below the worker that use the processor."""
    return [p for p in psutil.Process(worker.pid).children(recursive=True) if p.cpu_percent(0.1) > 20]


def test_questions_are_answered_in_another_process_one_after_the_other(worker, person):
    keys = [asked(person, "quick") for _ in range(3)]
    pids = {until(key).answer["pid"] for key in keys}
    assert 1 <= len(pids) <= COMPUTING
    assert os.getpid() not in pids and worker.pid not in pids


def test_a_slow_one_tells_how_far_it_is_and_is_ended_within_a_second_of_being_cancelled(worker, person):
    key = asked(person, "slow")
    until(key, ("working",))
    time.sleep(0.8)
    assert 0 < Question.objects.get(key=key).done < 100 == Question.objects.get(key=key).of
    cancel(key, person)
    since = time.monotonic()
    next_one = until(asked(person, "quick"), seconds=5)
    assert next_one.state == "done"
    assert time.monotonic() - since < 3
    assert Question.objects.get(key=key).state == "cancelled"


def test_what_is_cancelled_stops_computing(worker, person, monkeypatch):
    key = asked(person, "stuck")
    until(key, ("working",))
    assert any(computing(worker) for _ in range(8))  # on a busy machine it waits its turn
    cancel(key, person)
    time.sleep(1.0)
    assert not computing(worker)


def test_what_takes_too_long_is_ended_and_told(worker, person):
    question = until(asked(person, "stuck"))
    assert (question.state, question.told) == ("failed", "It took longer than 1 seconds and was ended.")
    assert until(asked(person, "quick")).state == "done"


def test_a_process_that_dies_is_told_and_its_question_asked_once_more(worker, person):
    question = until(asked(person, "dying", times=1))
    assert (question.state, question.tries, "once more" in question.told) == ("done", 2, True)


def test_one_that_dies_twice_is_given_up_and_the_next_is_answered(worker, person):
    question = until(asked(person, "dying", times=9))
    assert (question.state, question.tries, "twice" in question.told) == ("failed", 2, True)
    assert until(asked(person, "quick")).state == "done"


def test_what_computes_may_die_while_nothing_is_asked_of_it(worker, person):
    answered = until(asked(person, "quick"))
    idle = psutil.Process(answered.answer["pid"])
    (beside,) = [p for p in idle.parent().children() if p != idle]  # both were made from the same process
    for process in (idle, beside):
        process.kill()
    psutil.wait_procs([idle, beside], timeout=3)
    again = until(asked(person, "quick"))
    assert (again.state, again.answer["pid"] in (idle.pid, beside.pid)) == ("done", False)


def test_what_goes_wrong_is_told_and_the_next_is_answered(worker, person):
    question = until(asked(person, "broken"))
    assert (question.state, "went wrong" in question.told) == ("failed", True)
    assert until(asked(person, "quick")).state == "done"


def test_a_worker_that_is_killed_takes_its_processes_along_and_the_next_asks_once_more(worker, person):
    key = asked(person, "slow")
    until(key, ("working",))
    below = psutil.Process(worker.pid).children(recursive=True)
    ended(worker, signal.SIGKILL)
    _, alive = psutil.wait_procs(below, timeout=3)
    assert not [p for p in alive if p.status() != psutil.STATUS_ZOMBIE]
    again = started()
    try:
        end = time.monotonic() + 30
        while Question.objects.get(key=key).tries < 2 and time.monotonic() < end:
            time.sleep(0.05)
        question = Question.objects.get(key=key)
        assert (question.tries, "once more" in question.told) == (2, True)
        cancel(key, person)
    finally:
        ended(again)


def test_it_ends_when_it_is_told_to_whatever_it_computes(worker, person):
    key = asked(person, "stuck")
    until(key, ("working",))
    ended(worker)  # which waits ten seconds at most
    assert worker.returncode == 0
    connection.close()

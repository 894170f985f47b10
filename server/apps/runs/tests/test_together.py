"""Several people at once, on real PostgreSQL with real transactions."""

import threading
import uuid

import pytest
from django.db import connection

from calc.plan.entry import Entry
from server import kept_demo
from server.apps.runs.actions.asked import Asked
from server.apps.runs.actions.keep_edit import keep_edit
from server.apps.runs.models import Edit, Run
from server.apps.runs.queries.look import Look
from server.foundation.models import Person
from server.foundation.once import digest_of
from server.foundation.problems import Conflict

PRESSURE = "setups.s1.force.pressure_bar"
FACTS = [
    PRESSURE,
    "setups.s1.clamp_rpm",
    "setups.s2.hold.depth_mm",
    "part.quantity",
    "part.edge_mm",
    "part.face_stock_mm",
]
VALUES = ["27", "650", "20", "300", "0.4", "1.5"]


@pytest.fixture
def run(transactional_db):
    kept_demo.begun()
    return Run.objects.get(drawing_number="LH-2041")


def at_once(tasks):
    """Run all tasks in threads of their own, let go together; gives what each raised."""
    gate = threading.Barrier(len(tasks))
    raised = []

    def go(task):
        gate.wait()
        try:
            task()
        except Exception as error:
            raised.append(error)
        finally:
            connection.close()

    threads = [threading.Thread(target=go, args=[task]) for task in tasks]
    for t in threads:
        t.start()
    for t in threads:
        t.join()
    return raised


def edit(run, path, text, key=None):
    planner = Person.objects.get(username="planner")
    asked = Asked(planner, Look(), key or uuid.uuid4(), 0, digest_of(path, text))
    return lambda: keep_edit(run.pk, Entry(path, text, None, "metric"), asked)


def test_edits_of_different_facts_are_all_kept_each_with_its_revision(run):
    assert at_once([edit(run, path, text) for path, text in zip(FACTS, VALUES, strict=True)]) == []
    kept = list(Edit.objects.order_by("revision").values_list("revision", "path"))
    assert [revision for revision, _ in kept] == [1, 2, 3, 4, 5, 6]
    assert {path for _, path in kept} == set(FACTS)
    run.refresh_from_db()
    assert run.revision == 6
    assert run.document["setups"][0]["force"]["pressure_bar"] == 27.0
    assert run.document["part"]["quantity"] == 300


def test_of_edits_of_the_same_fact_one_is_kept_and_the_others_are_told(run):
    raised = at_once([edit(run, PRESSURE, text) for text in ("25", "26", "27", "29")])
    assert [type(error) for error in raised] == [Conflict] * 3
    assert Edit.objects.count() == 1
    assert all(error.details["theirs"] == Edit.objects.get().typed for error in raised)


def test_the_same_edit_sent_many_times_at_once_is_kept_once(run):
    key = uuid.uuid4()
    assert at_once([edit(run, PRESSURE, "27", key) for _ in range(5)]) == []
    assert Edit.objects.count() == 1

"""What is kept is true whoever changes what at the same moment: the bench, keys sent twice, what is deleted."""

import threading
import uuid
from datetime import timedelta

import pytest
from django.db import connection, transaction
from django.utils import timezone

from calc.plan.entry import Entry
from server import kept_demo
from server.apps.gauge.actions.runs import grease
from server.apps.runs.actions.asked import Asked
from server.apps.runs.actions.change import try_change
from server.apps.runs.actions.follow_shelf import follow_all, follow_up
from server.apps.runs.actions.keep_edit import keep_edit
from server.apps.runs.actions.manage import Form, Names, copy_run, new_run
from server.apps.runs.actions.release import release
from server.apps.runs.convert.standing import stand_today
from server.apps.runs.models import Edit, Release, Run
from server.apps.runs.queries.bench import bench
from server.apps.runs.queries.find import run_by_id
from server.apps.runs.queries.look import Look
from server.apps.runs.queries.plan import computed, plan
from server.apps.shelf.actions.keep_item import keep_item, remove_item
from server.apps.shelf.models import Chuck, Machine
from server.apps.shelf.queries import current
from server.apps.shelf.queries.form import Given
from server.foundation.actions import add_person
from server.foundation.models import Person
from server.foundation.problems import BadValue, Conflict, NotFound

PRESSURE = "setups.s1.force.pressure_bar"


@pytest.fixture
def shop(transactional_db):
    kept_demo.begun()
    return Run.objects.get(drawing_number="LH-2041")


def planner():
    return Person.objects.get(username="planner")


def at_once(*tasks):
    """Run all tasks in threads of their own, let go together; gives what each raised or gave."""
    gate, found = threading.Barrier(len(tasks)), [None] * len(tasks)

    def go(place, task):
        gate.wait()
        try:
            found[place] = task()
        except Exception as error:
            found[place] = error
        finally:
            connection.close()

    threads = [threading.Thread(target=go, args=pair) for pair in enumerate(tasks)]
    for t in threads:
        t.start()
    for t in threads:
        t.join(60)
    assert not any(t.is_alive() for t in threads), "they wait for each other"
    return found


def asked(key=None, said="", by=None):
    return Asked(by or planner(), Look(), key or uuid.uuid4(), Run.objects.first().revision, said or uuid.uuid4().hex)


def edit(run, path, text, key=None, said=""):
    with_it = asked(key, said)
    return lambda: keep_edit(run.pk, Entry(path, text, None, "metric"), with_it)


def chuck_limit(rpm):
    return lambda: keep_item(
        "chuck",
        "lathe-3-chuck",
        Given({"max_rpm": str(rpm)}),
        Chuck.objects.get(key="lathe-3-chuck").revision,
        planner(),
    )


def assert_the_bench_tells_the_truth():
    shown = {row.id: (row.verdict, row.needs) for row in bench("", False, 0).rows}
    for run in Run.objects.prefetch_related("setups"):
        assert shown[run.pk][0] == plan(run_by_id(run.pk), Look(), None).head.verdict, run.name
        stored, run.stands_on = run.standing, ""
        stand_today(run, current())
        if Run.objects.get(pk=run.pk).stands_on == run.stands_on:
            assert run.standing == stored


@pytest.mark.parametrize("turn", range(2))
def test_a_chuck_changed_while_a_plan_is_edited_is_seen_in_both(shop, turn):
    # 400 rpm stops the demo's plan, 4500 does not.
    rpm = (400, 4500)[turn % 2]
    Chuck.objects.filter(key="lathe-3-chuck").update(max_rpm=(4500, 400)[turn % 2])
    follow_all()
    found = at_once(edit(shop, "part.edge_mm", f"0.{turn + 3}"), chuck_limit(rpm), edit(shop, "part.quantity", "300"))
    assert [f for f in found if isinstance(f, Exception)] == []
    assert_the_bench_tells_the_truth()
    assert bench("", False, 0).rows[0].verdict == ("stopped" if rpm == 400 else "settled")


def test_a_plan_that_is_being_edited_waits_for_no_more_than_the_shelfs_own_change(shop, monkeypatch):
    """The edit holds the shelf: whoever changes it meanwhile comes after, and sees the edit."""
    tried, go_on = threading.Event(), threading.Event()

    def slow(*args, **more):
        found = try_change(*args, **more)
        tried.set()
        go_on.wait(10)
        return found

    monkeypatch.setattr("server.apps.runs.actions.keep_edit.try_change", slow)
    order = []

    def editing():
        edit(shop, "part.edge_mm", "0.4")()
        order.append("edit")

    def changing():
        tried.wait(10)
        threading.Timer(0.3, go_on.set).start()
        chuck_limit(400)()
        order.append("chuck")

    assert [f for f in at_once(editing, changing) if f is not None] == []
    assert order == ["edit", "chuck"]
    assert_the_bench_tells_the_truth()


def test_many_runs_follow_later_and_are_shown_as_they_stand_meanwhile(shop, monkeypatch):
    monkeypatch.setattr("server.apps.runs.actions.follow_shelf.AT_ONCE", 0)
    chuck_limit(400)()
    kept = Run.objects.get(pk=shop.pk)
    assert (kept.stands_on, kept.standing["verdict"]) == ("", "settled")  # not written yet
    assert_the_bench_tells_the_truth()
    assert follow_up(10) == Run.objects.filter(setups__chuck__key="lathe-3-chuck").distinct().count() > 0
    kept = Run.objects.get(pk=shop.pk)
    assert (kept.stands_on != "", kept.standing["verdict"]) == (True, "stopped")
    assert follow_up(10) == 0


def test_a_day_later_runs_stand_as_they_do_then(shop, monkeypatch):
    grease("lathe-3-chuck", "", "", planner())
    keep_edit(shop.pk, Entry("setups.s1.force.condition", None, "auto", "metric"), asked())
    later = (timezone.localdate() + timedelta(days=200)).isoformat()
    for place in ("gauge.known", "gauge.queries", "runs.convert.document", "runs.convert.standing"):
        monkeypatch.setattr(f"server.apps.{place}.today", lambda: later)
    monkeypatch.setattr("server.apps.runs.actions.follow_shelf.today", lambda: later)
    before = {r.pk: r.standing for r in Run.objects.all()}
    assert_the_bench_tells_the_truth()
    assert follow_up(10) == Run.objects.count()
    assert any(before[r.pk] != r.standing for r in Run.objects.all())  # grease and gauge run are old by then


def test_a_key_is_for_one_thing_of_one_person(shop, planner_client):
    key, other = uuid.uuid4(), Run.objects.exclude(pk=shop.pk).first()
    body = {"path": "part.quantity", "text": "300", "base_revision": 0, "key": str(key)}
    where = f"runs/{shop.pk}/edits"
    assert planner_client.send(where, body)[0] == 200
    assert planner_client.send(where, body | {"base_revision": 1})[0] == 200  # sent again
    assert Edit.objects.count() == 1
    for place, changed in (
        (where, {"text": "301"}),
        (where, {"path": "part.edge_mm"}),
        (f"runs/{other.pk}/edits", {}),
        (f"runs/{shop.pk}/undo", {}),
        (f"runs/{shop.pk}/items", {"path": "setups.s1.cuts", "name": "Skim", "kind": "turn"}),
    ):
        status, answer = planner_client.send(place, body | changed)
        assert (status, "under a key that something else" in answer["title"]) == (409, True), place
    owner = type(planner_client)()
    owner.force_login(Person.objects.get(username="owner"))
    assert owner.send(where, body)[0] == 409
    assert Edit.objects.count() == 1


@pytest.fixture
def planner_client(shop):
    from server.conftest import _signed_in

    return _signed_in("planner")


def test_a_gauge_run_and_a_proven_cut_are_kept_under_their_own_key_only(planner_client):
    key = str(uuid.uuid4())
    run = {"source": "live", "side": "od", "pressure": "24", "height": "60", "key": key}
    assert planner_client.send("chucks/lathe-3-chuck/gauge-runs", run)[0] == 201
    assert planner_client.send("chucks/lathe-3-chuck/gauge-runs", run)[0] == 201
    assert planner_client.send("chucks/lathe-5-chuck/gauge-runs", run)[0] == 409
    assert planner_client.send("chucks/lathe-3-chuck/gauge-runs", run | {"pressure": "25"})[0] == 409
    cut = {"fields": {"kind": "turn", "material": "C45", "speed_m_min": "200", "feed_mm_rev": "0.2"}, "key": key}
    assert planner_client.send("notebook/cuts", cut)[0] == 409
    cut["key"] = str(uuid.uuid4())
    assert [planner_client.send("notebook/cuts", cut)[0] for _ in range(2)] == [201, 201]
    assert planner_client.send("notebook/cuts", cut | {"fields": cut["fields"] | {"feed_mm_rev": "0.3"}})[0] == 409
    side = f"runs/{Run.objects.first().pk}/sides/s1/checks/real-contact"
    question = {"key": str(uuid.uuid4())}
    assert [planner_client.send(side, question)[0] for _ in range(2)] == [202, 202]
    assert planner_client.send(side, question | {"units": "inch"})[0] == 409


def test_two_releases_with_one_key_are_one(shop):
    confirmed = [c.code for c in cautions(shop)]
    key, said = uuid.uuid4(), "one release"
    sent = [asked(key, said), asked(key, said)]
    found = at_once(*(lambda a=a: release(shop.pk, confirmed, "", a) for a in sent))
    assert [f for f in found if isinstance(f, Exception)] == []
    assert Release.objects.count() == 1
    with pytest.raises(Conflict):
        release(Run.objects.exclude(pk=shop.pk).first().pk, confirmed, "", asked(key, "another"))


def cautions(run):
    from calc.plan.cautions import cautions_of
    from server.apps.runs.convert.document import document_of

    run = run_by_id(run.pk)
    return cautions_of(document_of(run), computed(run, current()))


LATHE = Given({"name": "Lathe 9", "max_rpm": "3000", "power_kw": "10", "torque_nm": "90"})


def test_the_same_new_machine_or_person_at_once_is_there_once(shop):
    machine = lambda: keep_item("machine", None, LATHE, 0, planner())  # noqa: E731
    found = at_once(machine, machine, machine)
    assert sum(isinstance(f, str) for f in found) == 1
    assert all("name already" in str(f.errors[0].sentence) for f in found if not isinstance(f, str))
    owner = Person.objects.get(username="owner")
    given = {"username": "dora", "role": "setter", "password": "soft-jaws-and-tea"}
    found = at_once(*(lambda n=n: add_person(given | {"username": n}, owner) for n in ("dora", "Dora", "DORA")))
    assert sum(isinstance(f, Person) for f in found) == 1
    assert all(isinstance(f, (Person, BadValue)) for f in found)


@pytest.mark.parametrize("turn", range(2))
def test_a_machine_deleted_while_it_is_taken_is_taken_or_gone(shop, turn):
    key = keep_item("machine", None, LATHE, 0, planner())
    edits = Entry("machine", None, key, "metric")
    given = asked()
    found = at_once(
        lambda: keep_edit(shop.pk, edits, given),
        lambda: remove_item("machine", key, planner()),
        lambda: new_run(Form("New", f"X-{turn}", machine=key), "metric", planner()),
        lambda: copy_run(shop.pk, Names("Copy", f"Y-{turn}"), planner()),
    )
    told = [f for f in found if isinstance(f, Exception)]
    assert all(type(f).__name__ in ("Conflict", "CalcError", "FieldProblem") for f in told), told
    there = Machine.objects.filter(key=key).exists()
    assert there == Run.objects.filter(machine__key=key).exists()
    assert_the_bench_tells_the_truth()


def test_a_run_taken_off_while_runs_follow_is_no_hindrance(shop, monkeypatch):
    Run.objects.update(stands_on="")

    def gone(pk):
        raise NotFound("gone")

    monkeypatch.setattr("server.apps.runs.actions.follow_shelf.run_to_change", gone)
    assert follow_up(10) == Run.objects.count()


def test_what_was_refused_leaves_its_key_free(shop):
    key = uuid.uuid4()
    with pytest.raises(Exception, match="figure"), transaction.atomic():
        edit(shop, PRESSURE, "abc", key, "one")()
    edit(shop, PRESSURE, "27", key, "two")()
    assert Edit.objects.count() == 1

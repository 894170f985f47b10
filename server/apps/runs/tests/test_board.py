"""The board: a run put on it, moved, refused where the machine is taken, and what slips is told."""

import uuid
from datetime import UTC, datetime
from itertools import zip_longest

import icalendar
import pytest

from server.apps.house.models import ShopCalendar
from server.apps.runs.actions import manage
from server.apps.runs.models import Edit, Run
from server.apps.shelf.actions.load import renew
from server.foundation.models import Person

MONDAY = datetime(2027, 3, 1, 6, tzinfo=UTC).timestamp()
HOUR = 3600.0


@pytest.fixture
def two(planner, demo):
    """Two runs of one machine in a shop of two shifts; gives both."""
    hours = {"zone": "UTC", "shifts": "Mon-Fri 06:00-14:00, 14:00-22:00", "breaks": "", "unattended": "", "off": ""}
    number = planner.get("/api/calendar").json()["number"]
    ShopCalendar.objects.create(number=number + 1, values=hours, by=Person.objects.get(username="planner"))
    off = demo.document | {"route": demo.document["route"] | {"start": None}}
    Run.objects.filter(pk=demo.pk).update(document=off)  # nothing is on the board yet
    renew()
    owner = Person.objects.get(username="planner")
    return demo, manage.copy_run(demo.pk, manage.Names("Seal carrier again", "LH-2042"), owner)


def minutes(run):
    """What the plan says: the board is tried with whatever it is. It is done within the day."""
    known = Run.objects.get(pk=run.pk).standing["minutes"]
    assert known["setup"] + known["run"] < 16 * 60
    return known["setup"], known["setup"] + known["run"]


def move(person, run, begins, base=None):
    revision = Run.objects.get(pk=run.pk).revision if base is None else base
    body = {"key": str(uuid.uuid4()), "base_revision": revision, "begins": begins, "first": "2027-03-01"}
    return person.send(f"runs/{run.pk}/board", body)


def page(person):
    return person.get("/api/board?first=2027-03-01").json()


def runs_of(board):
    return {r["id"]: r for m in board["machines"] for r in m["runs"]}


def test_a_run_waits_until_it_is_put_on_the_board_and_begins_with_the_people(planner, two):
    one, _ = two
    assert one.pk in [w["id"] for w in page(planner)["waiting"]]
    status, board = move(planner, one, MONDAY - 3 * HOUR)
    assert status == 200, board
    placed = runs_of(board)[one.pk]
    assert (placed["begins"], placed["running"]) == (MONDAY, MONDAY + 60 * minutes(one)[0])
    assert placed["begins_said"] == "Mon 1 Mar 2027 06:00"
    assert one.pk not in [w["id"] for w in board["waiting"]]
    assert board["told"].startswith("LH-2041 Seal carrier begins Mon 1 Mar 2027 06:00, finished ")
    edit = Edit.objects.filter(run=one).latest("revision")
    assert (edit.path, edit.new) == ("route.start", "2027-03-01 06:00")


def test_a_start_within_another_run_is_refused_with_when_the_machine_is_free(planner, two):
    one, other = two
    move(planner, one, MONDAY)
    status, told = move(planner, other, MONDAY + 2 * HOUR)
    assert status == 422
    (error,) = told["errors"]
    assert error["field"] == "start"
    assert error["message"].startswith("LH-2041 Seal carrier is on this machine until Mon 1 Mar 2027 ")
    assert Run.objects.get(pk=other.pk).document["route"]["start"] is None


def test_what_slips_is_told_and_stands_behind_the_other(planner, two):
    one, other = two
    move(planner, other, MONDAY + 26 * HOUR)
    status, board = move(planner, one, MONDAY + 24 * HOUR)
    assert status == 200
    assert "LH-2042 Seal carrier again slips to" in board["told"]
    first, behind = runs_of(board)[one.pk], runs_of(board)[other.pk]
    assert behind["begins"] == first["done"]
    assert behind["slips"].startswith("waits for LH-2041 Seal carrier")
    _, board = move(planner, one, None)
    assert "comes forward to" in board["told"]
    assert runs_of(board)[other.pk]["slips"] == ""


def test_an_undo_in_the_plan_takes_it_off_the_board(planner, two):
    one, _ = two
    move(planner, one, MONDAY)
    planner.send(f"runs/{one.pk}/undo", {"key": str(uuid.uuid4()), "units": "metric"})
    assert one.pk in [w["id"] for w in page(planner)["waiting"]]


def test_who_moved_it_meanwhile_is_told_and_a_setter_only_looks(planner, two, signed_in):
    one, _ = two
    revision = Run.objects.get(pk=one.pk).revision
    assert move(planner, one, MONDAY, revision)[0] == 200
    status, told = move(planner, one, MONDAY + 48 * HOUR, revision)
    assert (status, "moved this run since you looked" in told["title"]) == (409, True)
    setter = signed_in("setter")
    assert page(setter)["may_edit"] is False
    assert move(setter, one, MONDAY)[0] == 403
    assert signed_in("operator").get("/api/board").status_code == 403


def test_a_run_without_a_time_says_so(planner, two):
    one, _ = two
    Run.objects.filter(pk=one.pk).update(standing=Run.objects.get(pk=one.pk).standing | {"minutes": None})
    status, told = move(planner, one, MONDAY)
    assert (status, "has no time yet" in told["errors"][0]["message"]) == (422, True)
    assert next(w["why"] for w in page(planner)["waiting"] if w["id"] == one.pk) == "its route has no time yet"


def test_the_days_and_hours_are_of_the_shops_clock(planner, two):
    board = planner.get("/api/board?first=2027-03-27&days=3").json()
    assert [d["said"] for d in board["days"]] == ["Sat 27 Mar", "Sun 28 Mar", "Mon 29 Mar"]
    assert [(h["ends"] - h["begins"]) / HOUR for h in board["hours"]] == [16]
    number = planner.get("/api/calendar").json()["number"]
    planner.send("calendar", {"base_number": number, "values": {"zone": "Europe/Berlin"}})
    board = planner.get("/api/board?first=2027-03-27&days=3").json()
    assert [(d["ends"] - d["begins"]) / HOUR for d in board["days"]] == [24, 23, 24]


def test_the_board_as_a_calendar_file_reads_back(planner, two):
    one, _ = two
    move(planner, one, MONDAY)
    answer = planner.get("/api/board.ics")
    assert answer["Content-Type"].startswith("text/calendar")
    events = icalendar.Calendar.from_ical(answer.content.decode()).walk("VEVENT")
    (event,) = (e for e in events if str(e["SUMMARY"]).startswith("LH-2041 Seal carrier, "))
    assert event.start.timestamp() == MONDAY
    assert 0 <= event.end.timestamp() - MONDAY - 60 * minutes(one)[1] < 60  # up to the full minute


TOOLS = ("g-3/g3-out-25", "m15-outside/t16e-out-25")


def stays(person, run):
    return person.get(f"/api/runs/{run.pk}/stays").json()


def with_tools(person, run, tools):
    """The run's first cuts with these tools of the shelf, the others without one."""
    for cut, tool in zip_longest(run.document["setups"][0]["cuts"], tools):
        status, told = person.edit(Run.objects.get(pk=run.pk), f"setups.s1.cuts.{cut['id']}.tool", value=tool or "")
        assert status == 200, told


def test_tools_of_the_run_before_stay_and_are_counted_where_one_says_so(planner, two):
    one, other = two
    assert stays(planner, one)["told"].startswith("No run stands before this one")
    with_tools(planner, one, TOOLS[:1])
    with_tools(planner, other, TOOLS)
    move(planner, one, MONDAY)
    # One of the other's two tools stands there, whether it has a start or not.
    told = "LH-2041 Seal carrier stands before it on this machine: 1 of 2 tools stays."
    assert stays(planner, other) == {"tools": 1, "now": 0, "told": told}
    assert stays(planner, one)["tools"] == 0  # it is the first
    before = Run.objects.get(pk=other.pk).standing["minutes"]["setup"]
    planner.edit(Run.objects.get(pk=other.pk), "route.stay", value=1)
    assert stays(planner, other)["now"] == 1
    # Four minutes a tool and one to touch it off.
    assert Run.objects.get(pk=other.pk).standing["minutes"]["setup"] == before - 5


def test_a_run_that_begins_later_is_not_the_one_before(planner, two):
    one, other = two
    for run in two:
        with_tools(planner, run, TOOLS)
    move(planner, one, MONDAY)
    status, told = move(planner, other, MONDAY - 72 * HOUR)
    assert status == 200, told
    assert stays(planner, other)["tools"] == 0
    assert stays(planner, one)["tools"] == 2

"""What waited on a tablet without network: its order is when it was done, and two tablets merge step by step."""

import uuid
from datetime import UTC, datetime, timedelta

import pytest
from django.utils import timezone

from server.apps.card.models import Mark, Reading
from server.apps.card.tests.test_card import mark, page, read, released, setter  # noqa: F401 # fixtures
from server.foundation.said_time import when

pytestmark = pytest.mark.django_db
SIX = datetime(2026, 11, 28, 6, 0, tzinfo=UTC)


@pytest.fixture
def ago():
    """A moment so many minutes ago, as a tablet sends it; the release is older."""

    def said(minutes):
        return (timezone.now() - timedelta(minutes=minutes)).isoformat()

    return said


@pytest.fixture
def older(released):  # noqa: F811
    """The release of the fixture, made an hour ago."""
    released.releases.update(at=timezone.now() - timedelta(hours=1))
    return released


def test_when_it_was_done_is_neither_before_the_release_nor_later_than_now():
    now = timezone.now()
    assert when(now - timedelta(minutes=5), SIX) == now - timedelta(minutes=5)
    assert when(SIX - timedelta(days=1), SIX) == SIX  # a clock that is slow
    assert abs(when(now + timedelta(days=1), SIX) - now) < timedelta(seconds=10)  # a clock that is fast
    assert abs(when(None, SIX) - now) < timedelta(seconds=10)


def test_of_two_tablets_the_later_tick_counts_whichever_came_first(setter, operator, older, ago):  # noqa: F811
    assert mark(setter, older, "s1.clean", "open", at=ago(5))[0] == 200
    status, done = mark(operator, older, "s1.clean", at=ago(20))
    assert status == 200
    (clean,) = [m for m in done["marks"] if m["step"] == "s1.clean"]
    assert (clean["state"], clean["by"]) == ("open", "setter")
    status, done = mark(operator, older, "s1.clean", at=ago(1))
    assert [m["by"] for m in done["marks"] if m["step"] == "s1.clean"] == ["operator"]
    assert Mark.objects.count() == 3  # nothing is taken away


def test_ticks_of_two_tablets_stand_side_by_side(setter, operator, older, ago):  # noqa: F811
    mark(setter, older, "s1.clean", at=ago(9))
    _, done = mark(operator, older, "s1.mount", at=ago(12))
    assert {m["step"]: m["by"] for m in done["marks"]} == {"s1.clean": "setter", "s1.mount": "operator"}
    assert all(m["title"] for m in done["marks"])
    assert done["steps"] == len(page(setter, older)["card"]["steps"])


def test_a_step_read_on_two_tablets_keeps_both_and_says_so(setter, operator, older, ago):  # noqa: F811
    assert read(setter, older, "s1.runout", {"reading_mm": 0.01}, seen=0, at=ago(9))[0] == 200
    status, done = read(operator, older, "s1.runout", {"reading_mm": 0.012}, seen=0, at=ago(4))
    assert status == 200
    assert [(r["by"], r["twice"]) for r in done["readings"]] == [("setter", True), ("operator", True)]
    # Whoever knew of both has read it again, which is no accident.
    _, done = read(operator, older, "s1.runout", {"reading_mm": 0.011}, seen=2)
    assert [r["twice"] for r in done["readings"]] == [True, True, False]


def test_what_one_of_two_found_to_stop_is_not_settled_by_the_other(setter, operator, older, ago):  # noqa: F811
    assert read(setter, older, "s1.runout", {"reading_mm": 0.5}, seen=0, sure=True, at=ago(9))[0] == 200
    Reading.objects.update(level="stop")
    # Read before that one, and come after it.
    _, done = read(operator, older, "s1.runout", {"reading_mm": 0.01}, seen=0, at=ago(14))
    assert [m["state"] for m in done["marks"] if m["step"] == "s1.runout"] == ["open"]
    _, done = read(operator, older, "s1.runout", {"reading_mm": 0.01}, seen=2)
    assert [m["state"] for m in done["marks"] if m["step"] == "s1.runout"] == ["done"]


def test_what_waits_is_sent_once_and_far_off_is_asked_about_first(setter, older, ago):  # noqa: F811
    given = {"key": str(uuid.uuid4()), "at": ago(3), "seen": 0}
    status, refused = read(setter, older, "s1.pressure", {"pressure_bar": 5}, **given)
    assert (status, refused["asks"]) == (409, "sure")
    for _ in range(2):
        assert read(setter, older, "s1.pressure", {"pressure_bar": 5}, sure=True, **given)[0] == 200
    (kept,) = Reading.objects.all()
    assert kept.came_at - kept.at > timedelta(minutes=2)


def test_what_the_set_up_took_stands_beside_what_is_planned(planner, setter, operator, older, ago):  # noqa: F811
    told = planner.get(f"/api/runs/{older.pk}/card/took").json()
    assert (told["told"].startswith("No card"), told["tasks"]) == (True, [])
    for step, minutes in (("s1.clean", 30), ("s1.grease", 24), ("s1.mount", 20)):
        mark(setter, older, step, at=ago(minutes))
    told = planner.get(f"/api/runs/{older.pk}/card/took").json()
    assert "Release 1" in told["told"] and told["told"].endswith("3 steps ticked.")
    by_task = {t["task"].split(": ")[-1]: t for t in told["tasks"]}
    jaws = by_task["jaws mounted and bored"]
    # Mounted 10 and bored 15 min are planned; from the first tick to the third 10 min went by.
    assert (jaws["planned"], jaws["took"]) == ("25\xa0min", "10\xa0min")
    assert [s["minutes"] for s in jaws["steps"]] == ["", "6\xa0min", "4\xa0min"]
    assert by_task["program proved"]["took"] == ""
    assert operator.get(f"/api/runs/{older.pk}/card/took").status_code == 403


@pytest.mark.parametrize("at", ["yesterday", "2026-11-28T06:00:00", "9" * 40])
def test_a_time_that_is_none_is_told(setter, older, at):  # noqa: F811
    assert mark(setter, older, "s1.clean", at=at)[0] == 422

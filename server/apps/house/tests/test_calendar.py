"""The shop's calendar: changed in lines, brought from another program's file, counted by every plan at once."""

from datetime import date

import pytest

from calc.calendar.calendar import Calendar
from calc.calendar.working_time import wall
from server.apps.house import queries
from server.apps.house.calendar_file import events_of
from server.apps.house.models import ShopCalendar
from server.apps.runs.tests.test_edits import stop
from server.foundation.problems import BadValue

pytestmark = pytest.mark.django_db
DAY = date(2026, 11, 1)


def ics(*events):
    body = "\r\n".join("BEGIN:VEVENT\r\nDTSTAMP:20260101T000000Z\r\n" + e + "\r\nEND:VEVENT" for e in events)
    return f"BEGIN:VCALENDAR\r\nVERSION:2.0\r\nPRODID:-//made up//EN\r\n{body}\r\nEND:VCALENDAR\r\n"


CHRISTMAS = "UID:1\r\nSUMMARY:Works closed\r\nDTSTART;VALUE=DATE:20261224\r\nDTEND;VALUE=DATE:20270102"
YEARLY = (
    "UID:2\r\nSUMMARY:First of May\r\nDTSTART;VALUE=DATE:20200501\r\nDTEND;VALUE=DATE:20200502\r\nRRULE:FREQ=YEARLY"
)
MEETING = "UID:3\r\nSUMMARY:Talk\r\nDTSTART:20261102T120000Z\r\nDTEND:20261102T130000Z\r\nRRULE:FREQ=WEEKLY"


def days(text, zone="Europe/Berlin"):
    clock = Calendar(zone)
    return [
        (e.name, *(f"{wall(clock, at):%Y-%m-%d %H:%M}" for at in (e.away.begins, e.away.ends)))
        for e in events_of(text, zone, DAY)
    ]


def change(person, values=None, base=1, **more):
    return person.send("calendar", {"base_number": base, "values": values or {}, **more})


def test_whole_days_are_of_the_shops_own_clock_and_what_recurs_is_there_each_time():
    found = days(ics(CHRISTMAS, YEARLY))
    assert found[0] == ("Works closed", "2026-12-24 00:00", "2027-01-02 00:00")
    assert [f[1] for f in found[1:]] == [f"{y}-05-01 00:00" for y in (2027, 2028, 2029, 2030, 2031)]


def test_a_recurrence_without_end_is_read_for_five_years_and_keeps_its_hour_through_both_changes_of_the_clock():
    berlin = MEETING.replace("DTSTART:20261102T120000Z", "DTSTART;TZID=Europe/Berlin:20261102T130000").replace(
        "DTEND:20261102T130000Z", "DTEND;TZID=Europe/Berlin:20261102T140000"
    )
    found = days(ics(berlin))
    assert 265 < len(found) < 275
    assert {f[1][11:] for f in found} == {"13:00"}
    universal = days(ics(MEETING))  # an event of universal time is an hour later on the wall in summer
    assert {f[1][11:] for f in universal} == {"13:00", "14:00"}


def test_what_is_free_or_called_off_is_no_time_off():
    free, off = MEETING + "\r\nTRANSP:TRANSPARENT", CHRISTMAS + "\r\nSTATUS:CANCELLED"
    assert days(ics(free, off)) == []
    skipped = YEARLY + "\r\nEXDATE;VALUE=DATE:20280501"
    assert "2028-05-01 00:00" not in [f[1] for f in days(ics(skipped))]


@pytest.mark.parametrize(
    ("text", "says"),
    [
        ("Monday to Friday", "no calendar"),
        ("BEGIN:VCALENDAR\r\nEND:VCALENDAR", "no event"),
        (ics(MEETING.replace("WEEKLY", "SECONDLY")), "more often than daily"),
        (ics(MEETING.replace("RRULE:FREQ=WEEKLY", "RRULE:FREQ=NEVER")), "times or its rule"),
        (ics("UID:9\r\nSUMMARY:odd\r\nDTSTART:tomorrow"), "calendar"),
        ("x" * 400_001, "letters"),
    ],
)
def test_a_file_that_is_no_calendar_says_what_to_do(text, says):
    with pytest.raises(BadValue, match=says):
        events_of(text, "UTC", DAY)


def test_a_change_counts_for_every_plan_at_once(planner, demo):
    before = answer(planner, demo)
    page = planner.get("/api/calendar").json()
    status, page = change(planner, {"shifts": "Mon 06:00-07:00"}, page["number"])
    assert (status, [f["text"] for f in page["fields"] if f["name"] == "shifts"]) == (200, ["Mon 06:00-07:00"])
    assert answer(planner, demo) != before


def answer(person, run):
    return next(a for a in stop(person.plan(run), "route")["answers"] if a["name"] == "finished")


def test_a_file_is_kept_taken_out_and_left_as_it_was(planner):
    number = planner.get("/api/calendar").json()["number"]
    status, page = change(planner, file=ics(CHRISTMAS, MEETING), base=number)
    assert (status, page["has_file"], page["off"][-1]["name"]) == (200, True, "Talk")
    assert page["off_count"] > 255
    status, page = change(planner, {"zone": "UTC"}, page["number"])
    assert (status, page["has_file"]) == (200, True)
    status, page = change(planner, file="", base=page["number"])
    assert (status, page["has_file"], page["off"]) == (200, False, [])


@pytest.mark.parametrize(
    ("given", "field"),
    [
        ({"values": {"shifts": ""}}, "shifts"),
        ({"values": {"zone": "Moon/Base"}}, "zone"),
        ({"values": {"luck": "daily 06:00-14:00"}}, "luck"),
        ({"values": {"away": "1"}}, "away"),
        ({"values": {"shifts": "Mon 06:00-14:00" * 40}}, "shifts"),
        ({"file": "no calendar"}, "file"),
        ({}, ""),
    ],
)
def test_a_wrong_calendar_gets_its_sentence_and_keeps_nothing(planner, given, field):
    kept, number = ShopCalendar.objects.count(), planner.get("/api/calendar").json()["number"]
    status, told = planner.send("calendar", {"base_number": number, "values": {}} | given)
    assert (status, [e["field"] for e in told["errors"]]) == (422, [field])
    assert ShopCalendar.objects.count() == kept


def test_who_changed_it_meanwhile_is_told_and_a_setter_may_only_look(planner, signed_in):
    setter = signed_in("setter")
    number = planner.get("/api/calendar").json()["number"]
    assert change(planner, {"zone": "Europe/Berlin", "shifts": "Sat 06:00-12:00"}, number)[0] == 200
    status, told = change(planner, {"zone": "UTC"}, number)
    assert (status, "changed the calendar since" in told["title"]) == (409, True)
    assert setter.get("/api/calendar").json()["may_edit"] is False
    assert change(setter, {"zone": "UTC"}, number + 1)[0] == 403
    assert queries.calendar_page(may_edit=False).number == number + 1


def test_a_file_of_too_many_stretches_is_refused_and_one_that_grew_over_it_stops_no_plan(planner, demo, monkeypatch):
    number, often = planner.get("/api/calendar").json()["number"], MEETING.replace("WEEKLY", "DAILY")
    crowd = ics(*(often.replace("UID:3", f"UID:{i}") for i in range(4)))
    status, told = change(planner, file=crowd, base=number)
    assert (status, "stretches off" in told["errors"][0]["message"]) == (422, True)
    assert change(planner, file=ics(MEETING), base=number)[0] == 200
    monkeypatch.setattr(queries, "AWAY_MOST", 3)
    kept = queries.calendar_of(ShopCalendar.objects.first(), DAY)
    assert len(kept.away) == 3
    assert planner.get("/api/board").status_code == 200

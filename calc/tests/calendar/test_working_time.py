"""Where work ends by the clock, by hand: breaks, days off, month ends, a leap day, both changes of the clock."""

from datetime import datetime, timedelta
from itertools import pairwise
from random import Random

import pytest

from calc.calendar.calendar import Away, Calendar
from calc.calendar.working_time import ends_at, first_hour, hours_of, moment, wall
from calc.errors import CalcError

TWO = Calendar("Europe/Berlin", "Mon-Fri 06:00-14:00, 14:00-22:00", "Mon-Fri 09:30-09:45, 17:30-18:00")


def done(calendar, begins, minutes, alone_min=0.0):
    at = ends_at(calendar, moment(calendar, datetime.fromisoformat(begins)), minutes, alone_min)
    return None if at is None else wall(calendar, at).isoformat(" ", "minutes")


@pytest.mark.parametrize(
    ("begins", "minutes", "ends"),
    [
        ("2026-12-01 06:00", 60, "2026-12-01 07:00"),  # a Tuesday
        ("2026-12-01 09:00", 60, "2026-12-01 10:15"),  # over the quarter of an hour's break
        ("2026-12-01 05:00", 60, "2026-12-01 07:00"),  # before the shift nobody works
        ("2026-12-01 21:00", 90, "2026-12-02 06:30"),  # over the night
        ("2026-12-04 21:30", 60, "2026-12-07 06:30"),  # over a week-end
        ("2026-12-01 06:00", 915, "2026-12-01 22:00"),  # the whole day: 16 h less 45 min, and no second of the next
        ("2026-12-01 06:00", 0, "2026-12-01 06:00"),
        ("2026-12-31 21:00", 120, "2027-01-01 07:00"),  # over the year's end, a Friday
        ("2028-02-28 21:00", 60 + 915 + 30, "2028-03-01 06:30"),  # Tuesday 29 February is a day of work
        ("2027-02-26 21:00", 60 + 30, "2027-03-01 06:30"),  # no leap year: Friday 26 February, then Monday
    ],
)
def test_work_ends_where_it_does_on_paper(begins, minutes, ends):
    assert done(TWO, begins, minutes) == ends


@pytest.mark.parametrize(
    ("day", "hours"),
    [("2027-03-27", 7), ("2026-10-24", 9), ("2027-04-03", 8)],  # put on, put back, neither: Saturday to Sunday
)
def test_a_night_over_a_change_of_the_clock_has_the_hours_that_pass(day, hours):
    night = Calendar("Europe/Berlin", "Sat 22:00-06:00", "")
    sunday = (datetime.fromisoformat(day) + timedelta(1)).date().isoformat()
    assert done(night, f"{day} 22:00", hours * 60) == f"{sunday} 06:00"
    assert done(night, f"{day} 22:00", hours * 60 + 1)[:10] > sunday  # and no minute more


def test_a_monday_after_the_change_begins_at_six_on_the_wall():
    assert done(TWO, "2027-03-26 21:30", 60) == "2027-03-29 06:30"
    assert done(TWO, "2026-10-23 21:30", 60) == "2026-10-26 06:30"


def test_days_off_and_what_a_file_brings_are_left_out():
    off = Calendar("Europe/Berlin", TWO.shifts, "", off="2026-12-24 to 2027-01-01; 2026-12-08")
    assert done(off, "2026-12-23 21:30", 60) == "2027-01-04 06:30"
    assert done(off, "2026-12-07 21:30", 60) == "2026-12-09 06:30"
    noon = moment(TWO, datetime(2026, 12, 1, 12))
    away = Calendar("Europe/Berlin", TWO.shifts, "", away=(Away(noon, noon + 7200),))
    assert done(away, "2026-12-01 11:00", 90) == "2026-12-01 14:30"


def test_a_night_before_a_day_off_ends_at_midnight():
    night = Calendar("UTC", "Thu 22:00-06:00", "", off="2026-12-04")
    assert done(night, "2026-12-03 22:00", 120) == "2026-12-04 00:00"
    assert done(night, "2026-12-03 22:00", 121) == "2026-12-10 22:01"


def test_bar_work_goes_on_without_people_only_where_the_calendar_says_so_and_as_long_as_it_can():
    bar = Calendar("UTC", "Mon-Fri 06:00-22:00", "", unattended="Mon-Fri 22:00-02:00")
    assert done(bar, "2026-12-01 21:00", 120) == "2026-12-02 07:00"
    assert done(bar, "2026-12-01 21:00", 120, 240) == "2026-12-01 23:00"
    assert done(bar, "2026-12-01 21:00", 120, 30) == "2026-12-02 06:30"  # its bar is used up after half an hour
    assert done(bar, "2026-12-04 21:00", 6 * 60, 1e9) == "2026-12-07 07:00"  # Friday's until two, then Monday
    first = first_hour(bar, moment(bar, datetime(2026, 12, 5, 1)))
    assert wall(bar, first) == datetime(2026, 12, 7, 6)  # a set-up waits for people


def test_what_stopped_alone_stands_until_people_come():
    twice = Calendar("UTC", "Fri 06:00-22:00", "", unattended="Fri 22:00-24:00; Sat 10:00-12:00")
    assert done(twice, "2026-12-04 21:00", 60 + 90, 90) == "2026-12-04 23:30"
    assert done(twice, "2026-12-04 21:00", 60 + 91, 90) == "2026-12-11 06:01"  # not on Saturday: nobody started it
    assert done(twice, "2026-12-04 21:00", 60 + 130, 200) == "2026-12-05 10:10"


def test_what_is_not_done_in_five_years_is_not_told():
    week = Calendar("UTC", "Mon 08:00-09:00", "")
    assert done(week, "2026-12-01 08:00", 60 * 250) is not None
    assert done(week, "2026-12-01 08:00", 60 * 300) is None
    nobody = Calendar("UTC", "Mon 08:00-09:00", "Mon 08:00-09:00")
    assert (done(nobody, "2026-12-01 08:00", 1), first_hour(nobody, 0.0)) == (None, None)


def test_the_same_by_counting_every_minute():
    """A second method: each minute of the wall asked whether it is worked."""
    chance = Random(16)
    calendar = Calendar("Europe/Berlin", TWO.shifts, TWO.breaks, off="2027-03-30")
    windows = [(6 * 60, 22 * 60)]
    breaks = [(570, 585), (1050, 1080)]
    for _ in range(12):
        start = datetime(2027, 3, 22) + timedelta(minutes=chance.randrange(14 * 1440))
        left = minutes = chance.randrange(1, 3000)
        at = moment(calendar, start)
        while True:
            clock = wall(calendar, at)
            m = clock.hour * 60 + clock.minute
            works = any(a <= m < b for a, b in windows) and not any(a <= m < b for a, b in breaks)
            at += 60
            if works and clock.weekday() < 5 and clock.date() != datetime(2027, 3, 30).date():
                left -= 1
                if left == 0:
                    break
        assert ends_at(calendar, moment(calendar, start), minutes) == pytest.approx(at)


def test_months_are_whole_and_apart():
    """No minute of a year is lost or counted twice between months, also where a night crosses their bound."""
    night = Calendar("Europe/Berlin", "daily 18:00-03:00", "daily 00:00-00:20", unattended="daily 03:00-05:00")
    spans = [s for month in range(1, 13) for s, _ in hours_of(night, 2028, month).in_order]
    assert all(a[1] <= b[0] for a, b in pairwise(spans))
    # 366 days of 11 h less 20 min; on 26 March the hour from two to three is not there, on 29 October twice.
    assert sum(b - a for a, b in spans) / 60 == 366 * (11 * 60 - 20)


@pytest.mark.parametrize(
    ("field", "value", "says"),
    [
        ("shifts", "", "without hours never ends"),
        ("shifts", "Mon-Fri", "Write days and hours"),
        ("shifts", "Mon-Fri 6-14", "Write hours from and to"),
        ("shifts", "Moo 06:00-14:00", "no day"),
        ("shifts", "Mon 06:00-06:00", "no time at all"),
        ("shifts", "Mon 06:00-25:00", "24 hours"),
        ("zone", "Atlantis/Deep", "no time zone"),
        ("zone", "../etc/passwd", "no time zone"),
        ("off", "2026-02-30", "no day of any year"),
        ("off", "2027-01-01 to 2026-12-24", "ends before"),
        ("off", "Christmas", "Write a day"),
    ],
)
def test_what_cannot_be_a_calendar_says_what_to_write(field, value, says):
    with pytest.raises(CalcError) as refused:
        Calendar(**({"zone": "UTC", "shifts": "Mon 06:00-14:00"} | {field: value}))
    assert [(e.field, says in str(e)) for e in refused.value.errors] == [(field, True)]


def test_dashes_and_short_hours_are_read_as_they_are_typed():
    assert (
        Calendar(shifts="mon – fri 6:00–14:00").day_windows[0] == Calendar(shifts="Mon-Fri 06:00-14:00").day_windows[0]
    )
    assert len(Calendar(shifts="Sat-Mon 08:00-12:00").day_windows[0]) == 3

"""The pace of a lot by hand, through a night, and its finish by it."""

from datetime import UTC, datetime

import pytest

from calc.calendar.calendar import Calendar
from calc.calendar.working_time import worked_between
from calc.running.pace import Clocked, pace_of
from calc.tests.running.lots import lot_of

DAYS = Calendar(shifts="Mon-Fri 06:00-14:00", zone="UTC")
LOT = lot_of("flange")


def at(day, hour, minute=0):
    return datetime(2026, 11, day, hour, minute, tzinfo=UTC).timestamp()


def test_worked_time_leaves_the_night_out():
    """Monday 13:00 to Tuesday 07:00: an hour and an hour."""
    assert worked_between(DAYS, at(23, 13), at(24, 7)) == 2 * 3600
    assert worked_between(DAYS, at(24, 7), at(23, 13)) == 0


def test_pieces_by_the_hours_between_the_first_and_the_last():
    """Eleven pieces from 13:00 to 07:00 next day: ten gaps in two hours, 12 minutes each; 5 left take an hour."""
    pace = pace_of(LOT, 11, 5, Clocked(at(23, 13), at(24, 7), at(24, 7), 0.0), DAYS, at(24, 7))
    assert (pace.minutes, pace.seen, pace.per_hour) == (12.0, True, 5.0)
    assert pace.done == at(24, 8)


def test_fewer_than_five_go_by_the_plan():
    pace = pace_of(LOT, 4, 1, Clocked(at(23, 7), at(23, 8), at(23, 8), 0.0), DAYS, at(23, 8))
    assert not pace.seen
    assert pace.minutes == pytest.approx(LOT.piece_s / 60 / LOT.used)


def test_a_lot_that_ran_where_nobody_works_goes_by_the_plain_clock():
    pace = pace_of(LOT, 7, 0, Clocked(at(28, 10), at(28, 11), at(28, 11), 0.0), DAYS, at(28, 11))  # a Saturday
    assert pace.minutes == pytest.approx(10)
    assert pace.done == at(28, 11)

"""Runs on one machine: by hand, and on random boards by what must hold of any."""

from datetime import datetime
from itertools import pairwise
from random import Random

from calc.calendar.calendar import Calendar
from calc.calendar.working_time import ends_at, moment, wall
from calc.route.board import Job, Really, follow, in_the_way

SHOP = Calendar("Europe/Berlin", "Mon-Fri 06:00-14:00, 14:00-22:00", "")


def at(text):
    return moment(SHOP, datetime.fromisoformat(text))


def told(calendar, jobs):
    return [
        (p.job.key, *(f"{wall(calendar, t):%a %d %H:%M}" for t in (p.begins, p.running, p.done)))
        for p in follow(calendar, jobs)
    ]


def test_runs_follow_one_another_by_hand():
    jobs = [
        Job(1, at("2026-11-30 06:00"), 60, 16 * 60),  # Monday: 15 h of the run today, one tomorrow
        Job(2, at("2026-11-30 12:00"), 90, 60),
        Job(3, at("2026-12-05 09:00"), 30, 30),  # a Saturday
    ]
    assert told(SHOP, jobs) == [
        (1, "Mon 30 06:00", "Mon 30 07:00", "Tue 01 07:00"),
        (2, "Tue 01 07:00", "Tue 01 08:30", "Tue 01 09:30"),
        (3, "Mon 07 06:00", "Mon 07 06:30", "Mon 07 07:00"),
    ]
    first, second, third = follow(SHOP, jobs)
    assert (first.after, second.after, third.after) == (None, 1, None)
    assert second.slips_s == 19 * 3600


def test_what_is_done_at_night_lets_the_next_begin_with_the_people():
    bar = Calendar("UTC", "Mon-Fri 06:00-22:00", "", unattended="Mon-Fri 22:00-06:00")
    start = moment(bar, datetime(2026, 11, 30, 20))
    jobs = [Job(1, start, 60, 180, 240), Job(2, start + 60, 30, 30)]
    assert told(bar, jobs)[0][-1] == "Tue 01 00:00"
    assert told(bar, jobs)[1][1] == "Tue 01 06:00"


def test_a_run_that_never_ends_leaves_those_behind_it_without_a_time():
    rare = Calendar("UTC", "Mon 06:00-06:10", "")
    placed = follow(rare, [Job(1, 0.0, 10, 10_000), Job(2, 1.0, 1, 1)])
    assert placed[0].done is None
    assert (placed[1].begins, placed[1].after) == (None, 1)


def test_a_run_whose_pieces_come_is_done_by_their_pace_and_those_behind_it_wait():
    """Planned for Tuesday, begun on Monday at 8; on Monday at 12 there are 11 h left: 10 until the shift's end at 22,
    and one on Tuesday."""
    early = Really(at("2026-11-30 08:00"), 11 * 60, at("2026-11-30 12:00"))
    jobs = [
        Job(1, at("2026-12-01 06:00"), 60, 60, really=early),
        Job(2, at("2026-11-27 06:00"), 30, 30),  # was to begin on Friday, and did not
    ]
    assert told(SHOP, jobs) == [
        (1, "Mon 30 08:00", "Mon 30 08:00", "Tue 01 07:00"),
        (2, "Tue 01 07:00", "Tue 01 07:30", "Tue 01 08:00"),
    ]
    assert follow(SHOP, jobs)[1].after == 1
    made = Really(at("2026-11-30 08:00"), 0.0, at("2026-11-30 11:00"))
    assert told(SHOP, [Job(1, 0.0, 60, 60, really=made)])[0][-1] == "Mon 30 11:00"


def test_a_start_within_anothers_time_is_in_its_way_and_one_at_its_end_is_not():
    placed = follow(SHOP, [Job(1, at("2026-11-30 06:00"), 60, 120), Job(2, at("2026-12-01 06:00"), 60, 60)])
    assert in_the_way(placed, at("2026-11-30 08:59")).job.key == 1
    assert in_the_way(placed, at("2026-11-30 09:00")) is None
    assert in_the_way(placed, at("2026-11-30 05:59")) is None


def test_on_any_board_nothing_overlaps_and_no_run_is_shorter_than_it_takes():
    chance = Random(17)
    for _ in range(60):
        base = at("2026-11-30 00:00")
        jobs = [
            Job(i, base + chance.randrange(30 * 86400), chance.randrange(200), chance.randrange(3000), 45 * (i % 2))
            for i in range(chance.randrange(1, 9))
        ]
        placed = follow(SHOP, jobs)
        assert sorted(p.job.key for p in placed) == sorted(j.key for j in jobs)
        for one, following in pairwise(placed):
            assert one.done <= following.begins + 1e-6
            assert one.job.start <= following.job.start
        for p in placed:
            assert p.begins >= p.job.start
            assert p.running == ends_at(SHOP, p.begins, p.job.setup_min)
            assert (p.slips_s > 0) == (p.after is not None and p.begins > p.job.start)

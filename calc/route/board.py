"""Runs on one machine after one another, by the shop's calendar: when each begins, runs and is done."""

from __future__ import annotations

from collections.abc import Iterable, Sequence
from dataclasses import dataclass

from calc.calendar.calendar import Calendar
from calc.calendar.working_time import ends_at, first_hour

QUARTER_S = 900.0  # a start is at a full quarter of an hour


@dataclass(frozen=True)
class Really:
    """How a run goes that pieces have come of: when the first of them was begun [s since 1970, UTC], the minutes that
    are left at the pace that is seen, and when that was told: `now` where some are left, the last piece where none is.
    """

    began: float
    left_min: float
    at: float


@dataclass(frozen=True)
class Job:
    """A run as the board counts it: when its set-up is to begin [s since 1970, UTC], and its minutes.

    `alone_min`: how long it goes on without people; `really`: how it goes, once pieces come.
    """

    key: int
    start: float
    setup_min: float
    run_min: float
    alone_min: float = 0.0
    really: Really | None = None


@dataclass(frozen=True)
class Placed:
    """A run on the board [s]; None where the calendar has no such hours. `after`: the run that it waits for."""

    job: Job
    begins: float | None
    running: float | None
    done: float | None
    after: int | None = None

    @property
    def slips_s(self) -> float:
        """How much later than planned it begins, for another run's sake."""
        return 0.0 if self.after is None or self.begins is None else self.begins - self.job.start


def _placed(calendar: Calendar, job: Job, begins: float | None, after: int | None) -> Placed:
    running = None if begins is None else ends_at(calendar, begins, job.setup_min)
    done = None if running is None else ends_at(calendar, running, job.run_min, job.alone_min)
    return Placed(job, begins, running, done, after)


def _as_it_goes(calendar: Calendar, job: Job, really: Really) -> Placed:
    return Placed(job, really.began, really.began, ends_at(calendar, really.at, really.left_min, job.alone_min))


def follow(calendar: Calendar, jobs: Iterable[Job]) -> list[Placed]:
    """The runs of one machine in the order of their starts, those before them that are on it: none begins before
    people are there, nor before the one before it is done. Where one never ends by the calendar, those behind it have
    no time at all. A run that pieces come of is where it is, and is done by their pace.
    """
    every = list(jobs)
    on_it = sorted((j.really.began, j.key, j, j.really) for j in every if j.really is not None)
    found: list[Placed] = [_as_it_goes(calendar, job, really) for _, _, job, really in on_it]
    for job in sorted((j for j in every if j.really is None), key=lambda j: (j.start, j.key)):
        planned = first_hour(calendar, job.start)
        before = found[-1] if found else None
        if before is None or planned is None:
            found.append(_placed(calendar, job, planned, None))
        elif before.done is None:
            found.append(Placed(job, None, None, None, before.job.key))
        else:
            waits = before.done > planned
            begins = first_hour(calendar, before.done) if waits else planned
            found.append(_placed(calendar, job, begins, before.job.key if waits else None))
    return found


def in_the_way(placed: Sequence[Placed], begins: float) -> Placed | None:
    """The run that the machine is on at a moment; None: it is free then."""
    for other in placed:
        if other.begins is not None and other.begins <= begins and (other.done is None or begins < other.done):
            return other
    return None

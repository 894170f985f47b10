"""A run put on the board, moved on it, or taken off: an edit of when its set-up begins."""

from __future__ import annotations

from datetime import date

from django.db import transaction

from calc.calendar.calendar import Calendar
from calc.calendar.words import clock_words
from calc.calendar.working_time import first_hour, wall
from calc.route.board import QUARTER_S, Placed, follow, in_the_way
from server.apps.runs.actions.asked import Asked
from server.apps.runs.actions.change import at, change
from server.apps.runs.queries.board import Row, board, is_on_it, job_of, rows, shop_calendar
from server.apps.runs.queries.find import run_to_change
from server.apps.runs.queries.may import require_may_change
from server.apps.runs.schemas import BoardOut
from server.foundation.problems import BadValue, Conflict

START = "route.start"
CHANGED = "{who} moved this run since you looked. Look at the board again, then move it."


def _named(row: Row) -> str:
    return f"{row.drawing_number} {row.name}"


def _placed(calendar: Calendar, every: list[Row]) -> dict[int, Placed]:
    jobs = [job for row in every if (job := job_of(row, calendar)) is not None]
    return {p.job.key: p for p in follow(calendar, jobs)}


@transaction.atomic
def move_run(run_id: int, begins: float | None, asked: Asked, first: date | None, days: int) -> BoardOut:
    """Let a run's set-up begin at a moment [s since 1970, UTC], in the next working quarter of an hour; None takes it
    off the board.

    Raises NotAllowed, NotFound, Conflict, or BadValue where the machine has another run then.
    """
    require_may_change(asked.person, START)
    run = run_to_change(run_id)
    if run.machine_id is None:
        raise Conflict("This run has no machine yet: choose one at Part, then put it on the board.")
    calendar, every = shop_calendar(), rows(run.machine_id)
    before = _placed(calendar, every)
    mine = next(row for row in every if row.pk == run.pk)
    if is_on_it(mine):
        raise Conflict("Pieces of this run have come: it is where it is, and its finish follows them.")
    start = None if begins is None else _start(calendar, mine, begins, every)
    change(run_id, START, asked, CHANGED, lambda _: at(START, start))
    after = _placed(calendar, rows(run.machine_id))
    return board(first, days, may_edit=True, told=_told(calendar, every, mine, before, after))


def _start(calendar: Calendar, mine: Row, begins: float, every: list[Row]) -> str:
    """When it begins, by the shop's clock. Raises BadValue where it cannot."""
    if mine.minutes is None:
        raise BadValue("start", f"{_named(mine)} has no time yet: settle its route, then put it on the board.")
    hour = first_hour(calendar, -(-begins // QUARTER_S) * QUARTER_S)
    if hour is None:
        raise BadValue("start", "The shop's calendar has no hours then. Give it some in House rules.")
    others = [row for row in every if row.pk != mine.pk]
    other = in_the_way(list(_placed(calendar, others).values()), hour)
    if other is not None:
        name = next(_named(row) for row in others if row.pk == other.job.key)
        if other.done is None:
            raise BadValue("start", f"{name} is on this machine, and by the calendar it never ends.")
        free = clock_words(calendar, other.done)
        raise BadValue("start", f"{name} is on this machine until {free}. Begin then or later.")
    return f"{wall(calendar, hour):%Y-%m-%d %H:%M}"


def _told(calendar: Calendar, every: list[Row], mine: Row, before: dict[int, Placed], after: dict[int, Placed]) -> str:
    """What moved, in sentences: the run itself, and those that slip or come sooner for it."""
    names = {row.pk: _named(row) for row in every}

    def said(moment: float | None) -> str:
        return "never" if moment is None else clock_words(calendar, moment)

    own = after.get(mine.pk)
    if own is None:
        words = [f"{names[mine.pk]} is off the board."]
    else:
        words = [f"{names[mine.pk]} begins {said(own.begins)}, finished {said(own.done)}."]
    for key, was in before.items():
        now = after.get(key)
        if key != mine.pk and now is not None and now.begins != was.begins:
            verb = "slips to" if (now.begins or 1e18) > (was.begins or 1e18) else "comes forward to"
            words.append(f"{names[key]} {verb} {said(now.begins)}, finished {said(now.done)}.")
    return " ".join(words)

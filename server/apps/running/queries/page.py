"""A lot as it stands at the machine."""

from __future__ import annotations

from collections.abc import Iterator
from dataclasses import dataclass
from datetime import UTC, datetime, timedelta
from typing import Any

from django.utils import timezone

from calc.calendar.calendar import Calendar
from calc.calendar.words import clock_words
from calc.calendar.working_time import ends_at
from calc.plan.route.solve import ROUTE
from calc.quantities import System, counted
from calc.route.board import Really
from calc.running.lot import Lot as CoreLot
from calc.running.pace import Clocked, Pace, pace_of
from calc.running.said import lot_said, signed
from calc.running.standing import LotStanding, standing_of
from calc.running.story import STOPPED, WHY
from server.apps.card.queries.instruments import instrument_lines
from server.apps.running.convert import lots_for, story_of
from server.apps.running.models import Happening, Listened, Lot, Piece
from server.apps.running.schemas import (
    HeadOut,
    InstrumentAt,
    LogLine,
    LotLine,
    ReleaseAt,
    RunningOut,
    RunningPulse,
    StillOut,
    WhyOut,
)
from server.apps.runs.queries.board import shop_calendar
from server.apps.runs.queries.find import run_by_id
from server.apps.runs.queries.released_plan import released_result
from server.apps.runs.queries.releases import latest_number, names_of, release_for
from server.apps.shelf import queries as shelf
from server.foundation.problems import NotFound
from server.foundation.roles import may_mark

LOG = 30
LISTENS = timedelta(minutes=10)  # since a machine said anything: a long piece says nothing for long
SOON_S = 60.0  # a finish that differs from the board's by less is on time


@dataclass(frozen=True)
class Now:
    """This moment, and when the shop works: asked once for all that is told of it."""

    at: float
    calendar: Calendar

    def clock(self, at: float) -> str:
        """A moment by the shop's clock."""
        return clock_words(self.calendar, at, datetime.fromtimestamp(self.at, UTC).year)


def from_now() -> Now:
    """This moment."""
    return Now(timezone.now().timestamp(), shop_calendar())


@dataclass(frozen=True)
class LotAt:
    """A lot of a release with its row, once there is one, and those that are made before it."""

    run: Any  # as the runs' queries give it
    release: Any
    lot: CoreLot
    row: Lot | None
    before: tuple[tuple[CoreLot, Lot], ...]

    def standing(self) -> LotStanding:
        """How it stands."""
        return standing_of(self.lot, story_of(self.lot, self.row, self.before))


def lot_at(run: Any, release: Any, key: str) -> LotAt:
    """A lot of a release; without a key the first that is not made yet. Raises NotFound."""
    lots, rows = lots_for(release.key), {row.key: row for row in Lot.objects.filter(release=release.pk)}
    if not key:
        key = next((lot.key for lot in lots if not _is_made(lot, rows.get(lot.key))), lots[-1].key)
    at = next((i for i, lot in enumerate(lots) if lot.key == key), None)
    if at is None:
        raise NotFound("This release has no such lot.")
    before = tuple((lot, rows[lot.key]) for lot in lots[:at] if lot.key in rows)
    return LotAt(run, release, lots[at], rows.get(key), before)


def _is_made(lot: CoreLot, row: Lot | None) -> bool:
    return row is not None and (row.closed_at is not None or row.good >= lot.quantity)


def page(run_id: int, number: int | None, key: str, system: System, person: Any) -> RunningOut:
    """A lot of a release as it stands. Raises NotFound, NotAllowed."""
    run = run_by_id(run_id)
    return page_of(lot_at(run, release_for(run, number, person), key), system, person)


def page_of(at: LotAt, system: System, person: Any) -> RunningOut:
    """A lot as it stands."""
    run, release, lot, row = at.run, at.release, at.lot, at.row
    standing, now, stops = at.standing(), from_now(), _stops_of([row] if row else [])
    pace = pace_at(lot, row, standing.left, now, stops)

    def when(pieces: int) -> str:
        done = ends_at(now.calendar, now.at, pieces * pace.minutes, lot.alone_min)
        return "" if done is None else now.clock(done)

    name, drawing_number = names_of(release, system)
    machine, (counts, trouble) = machine_of(at), _listening(machine_of(at), at)
    still = next((s for s in reversed(stops) if s.until is None), None)
    rows = {r.key: r for r in Lot.objects.filter(release=release.pk)}
    return RunningOut(
        run=run.pk,
        name=name,
        drawing_number=drawing_number,
        machine=machine,
        units=system,
        release=ReleaseAt(
            number=release.number, by=release.by.username, at=release.at, replaced=latest_number(run) != release.number
        ),
        place=run.place,
        may_mark=may_mark(person) and not run.put_away,
        lots=[_line(one, rows.get(one.key)) for one in lots_for(release.key)],
        lot=lot.key,
        revision=row.revision if row else 0,
        head=_head(at, standing, pace, now),
        standing=lot_said(standing, system, shelf.stock_of(e.insert for e in lot.edges), when),
        still=StillOut(since=still.at, why=_stop_words(still)) if still else None,
        log=list(_log(row, system)) if row else [],
        instruments=[InstrumentAt(name=i.name, kind=i.kind) for i in instrument_lines()],
        changed_for=[WhyOut(key=k, words=w) for k, w in WHY.items()],
        stopped_for=[WhyOut(key=k, words=w) for k, w in STOPPED.items()],
        counts_itself=counts,
        machine_trouble=trouble,
    )


def machine_of(at: LotAt) -> str:
    """The machine that a release is planned for, by its name."""
    machine = released_result(at.release.key).views[0].shelf.machine
    return machine.name if machine else ""


def lot_that_runs(release: int) -> Lot | None:
    """The lot that was counted last and is not closed: what a machine goes on with, over its quantity too."""
    return Lot.objects.filter(release=release, counted__gt=0, closed_at=None).order_by("-last_at").first()


def _listening(machine: str, at: LotAt) -> tuple[bool, str]:
    """(whether a machine counts this lot by itself now, what is wrong with it)."""
    row = Listened.objects.filter(name=machine).first() if machine else None
    if row is None:
        return False, ""
    if row.trouble:
        return False, f"{row.trouble} Until it is heard again, count by hand."
    if row.heard_at is None or timezone.now() - row.heard_at >= LISTENS:
        return False, f"{machine} is not listened to just now: count by hand."
    runs = lot_that_runs(at.release.pk)
    if runs is not None and runs.key != at.lot.key:
        return False, f"{machine} counts for {_named(at, runs.key)} until the first piece is counted here."
    return True, ""


def _named(at: LotAt, key: str) -> str:
    return next(lot.name.split(",")[0] for lot in lots_for(at.release.key) if lot.key == key)


def _line(lot: CoreLot, row: Lot | None) -> LotLine:
    return LotLine(
        key=lot.key,
        name=lot.name,
        counted=row.counted if row else 0,
        good=row.good if row else 0,
        quantity=lot.quantity,
        closed=row is not None and row.closed_at is not None,
    )


def _head(at: LotAt, standing: LotStanding, pace: Pace, now: Now) -> HeadOut:
    story = standing.story
    return HeadOut(
        counted=story.counted,
        good=story.good,
        scrap=story.scrap,
        quantity=at.lot.quantity,
        left=standing.left,
        done=_done(pace, standing, now),
        pace=_pace(pace),
        board=_board(at, pace, standing, now),
    )


def pace_now(at: LotAt, standing: LotStanding) -> Pace:
    """How fast its pieces come, and when it is done."""
    return pace_at(at.lot, at.row, standing.left, from_now(), _stops_of([at.row] if at.row else []))


def _stops_of(rows: list[Lot]) -> list[Happening]:
    """Every stop of some lots, the first first."""
    return list(Happening.objects.filter(lot__in=[row.pk for row in rows], kind="stop").order_by("pk"))


def pace_at(lot: CoreLot, row: Lot | None, left: int, now: Now, stops: list[Happening]) -> Pace:
    """The pace of a lot with so many pieces left; its stops are among `stops`."""
    clocked = None
    if row is not None and row.began_at is not None and row.last_at is not None:
        own = ((s.until.timestamp() if s.until else now.at) - s.at.timestamp() for s in stops if s.lot_id == row.pk)
        clocked = Clocked(row.began_at.timestamp(), row.last_at.timestamp(), now.at, sum(own) / 60)
    return pace_of(lot, row.counted if row else 0, left, clocked, now.calendar, now.at)


def how_it_goes(release: Any) -> tuple[Really, str] | None:
    """(how a release goes over all its lots, how far the lot is that pieces come of); None while no piece has come."""
    rows = {row.key: row for row in Lot.objects.filter(release=release.pk)}
    lots = lots_for(release.key)
    begun = [(row.last_at, lot, row) for lot in lots if (row := rows.get(lot.key)) is not None and row.last_at]
    if not begun:
        return None
    last, at, counted_of = max(begun, key=lambda one: one[0])
    now, stops = from_now(), _stops_of(list(rows.values()))
    left_min = 0.0
    for lot in lots:
        row = rows.get(lot.key)
        if row is None or row.closed_at is None:
            left = max(0, lot.quantity - (row.good if row else 0))
            left_min += left * pace_at(lot, row, left, now, stops).minutes
    began = min(row.began_at for _, _, row in begun if row.began_at is not None)
    side = f"{at.name.split(',')[0]}: " if len(lots) > 1 else ""
    said = f"{side}{counted_of.good} of {at.quantity} good pieces"
    return Really(began.timestamp(), left_min, last.timestamp()), said


def _done(pace: Pace, standing: LotStanding, now: Now) -> str:
    if standing.left == 0:
        return "all good pieces are made"
    if pace.done is None:
        return "nobody knows when it is done"
    return f"done {now.clock(pace.done)}"


def _pace(pace: Pace) -> str:
    said = f"{pace.per_hour:.1f} pieces an hour" if pace.per_hour < 10 else f"{pace.per_hour:.0f} pieces an hour"
    said += ", stops with it" if pace.seen else ", by the plan"
    return said + (f"; it stood still {pace.stopped_min:.0f} min" if pace.stopped_min >= 1 else "")


def _board(at: LotAt, pace: Pace, standing: LotStanding, now: Now) -> str:
    """Beside when it was to be done by the board, as it was released."""
    route = released_result(at.release.key).views[0][ROUTE]
    clock = route.run.clock if route is not None else None
    if clock is None or clock.done is None or not clock.planned or pace.done is None or standing.left == 0:
        return ""
    if at.lot.key != lots_for(at.release.key)[-1].key:
        return ""
    planned = now.clock(clock.done)
    off = pace.done - clock.done
    if abs(off) < SOON_S:
        return f"as planned, {planned}"
    return f"planned was {planned}: {'later' if off > 0 else 'sooner'} by {_long(abs(off))}"


def _long(seconds: float) -> str:
    minutes = round(seconds / 60)
    if minutes < 120:
        return counted(minutes, "minute")
    hours = round(minutes / 60)
    return counted(hours, "hour") if hours < 48 else counted(round(hours / 24), "day")


def _stop_words(stop: Happening) -> str:
    return STOPPED[stop.why] + (f": {stop.note}" if stop.note else "")


def _log(row: Lot, system: System) -> Iterator[LogLine]:
    """What happened, the newest first: changes, stops, scrap and corrections."""
    found = [
        LogLine(at=h.at, by=_who(h), after=h.after, words=happening_words(h, system))
        for h in Happening.objects.filter(lot=row.pk).select_related("by").order_by("-after", "-at", "-pk")[:LOG]
    ]
    scrap = Piece.objects.filter(lot=row.pk, good=False).select_related("by").order_by("-number")[:LOG]
    found += [
        LogLine(at=p.at, by=_who(p), after=p.number, words=f"piece {p.number} is scrap: {p.reason}") for p in scrap
    ]
    corrections = row.corrections.select_related("by").order_by("-pk")[:LOG]
    found += [
        LogLine(at=c.at, by=_who(c), after=c.piece, words=f"piece {c.piece} corrected: {c.why}") for c in corrections
    ]
    yield from sorted(found, key=lambda one: (one.at, one.after), reverse=True)[:LOG]


def _who(row: Any) -> str:
    return row.by.username if row.by is not None else getattr(row, "source", "")


def happening_words(h: Happening, system: System) -> str:
    """What was changed or stopped, in words."""
    station = h.edge.rpartition(".")[2]
    if h.kind == "edge":
        return f"fresh edge on tool {station}: {WHY[h.why]}"
    if h.kind == "offset":
        return f"tool {station}, X {signed(h.amount_mm, system)}"
    lasted = "" if h.until is None else f", {counted(round((h.until - h.at).total_seconds() / 60), 'minute')}"
    return f"stopped for {_stop_words(h)}{lasted}"


def pulse(run_id: int, number: int, key: str, person: Any) -> RunningPulse:
    """Whether anything was kept since. Raises NotFound, NotAllowed."""
    run = run_by_id(run_id)
    release = release_for(run, number, person)
    row = Lot.objects.filter(release=release.pk, key=key).only("revision").first()
    return RunningPulse(revision=row.revision if row else 0, replaced=latest_number(run) != release.number)

"""A reading at a card: what would follow from it, and keeping it."""

from __future__ import annotations

from collections.abc import Mapping
from typing import Any
from uuid import uuid5

from django.db import transaction
from django.utils.timezone import localtime

from calc.card.ask import Ask
from calc.card.step import Card, CardStep
from calc.quantities import Figure
from calc.reading import write
from calc.tools.all_kinds import TOOL_KINDS
from calc.tools.library import JOINT
from server.apps.card.actions.mark import AWAY, FIRST_PIECE
from server.apps.card.convert import ask_at, card_for, follows
from server.apps.card.instrument import instruments, read_once
from server.apps.card.models import Mark, Reading
from server.apps.card.queries.cards import coolant_before, done
from server.apps.card.schemas import DoneOut, FollowsOut, InstrumentIn, InstrumentOut, LookIn, ReadIn
from server.apps.gauge.actions.runs import KeptAt, keep_reading
from server.apps.runs.actions.place import Place, moved_on
from server.apps.runs.queries.find import run_by_id
from server.apps.runs.queries.released_plan import ReleasedPlan, released_plan
from server.apps.runs.queries.releases import release_for, release_of
from server.apps.shelf import queries as shelf
from server.apps.shelf.actions.learn import learn
from server.foundation.once import digest_of, was_sent
from server.foundation.problems import Conflict
from server.foundation.roles import require_at_machine
from server.foundation.said_time import when

PIECE = "first piece"


def look(run_id: int, given: LookIn, person: Any) -> FollowsOut:
    """What would follow from a reading; nothing is kept. Raises NotFound, NotAllowed, CalcError."""
    run = run_by_id(run_id)
    release = release_for(run, given.release, person)
    ask = ask_at(card_for(release.key, coolant_before(run.machine_id)), given.step)
    entered = ask.read(_values(given.values), given.units)
    said = follows(released_plan(release.key), ask.told(entered), ask.far(entered))
    return FollowsOut.model_validate(said[given.units])


def read_instrument(given: InstrumentIn, person: Any) -> InstrumentOut:
    """One reading of an instrument, as it is entered. Raises NotAllowed, NotFound, or Conflict with what went wrong."""
    require_at_machine(person)
    value = read_once(given.name)
    unit = "" if instruments()[given.name].kind == "coolant" else "mm"
    text = Figure(value, unit, places=(4, 5)).number(given.units)
    return InstrumentOut(name=given.name, text=text)


def _values(given: Mapping[str, Any]) -> dict[str, Any]:
    return {name: value for name, value in given.items() if value is not None}


@transaction.atomic
def read(run_id: int, given: ReadIn, person: Any) -> DoneOut:
    """Keep a reading with what follows from it, which ticks its step where nothing is left to do there; the same key
    keeps it once.

    Raises NotAllowed, NotFound, CalcError, and Conflict for one that is far off and was not said twice.
    """
    somebody = require_at_machine(person)
    run = run_by_id(run_id)
    release = release_of(
        run, given.release, lock=True
    )  # of two tablets that send at once, the second knows of the first
    if run.put_away:
        raise Conflict(AWAY)
    card = card_for(release.key, coolant_before(run.machine_id))
    ask, step = ask_at(card, given.step), card.step(given.step)
    entered = ask.read(_values(given.values), given.units)
    told, far = ask.told(entered), ask.far(entered)
    if far is not None and not given.sure:
        raise Conflict(far.text(given.units), asks="sure")
    if not was_sent(given.key, somebody, digest_of("reading", run_id, given.model_dump(mode="json"))):
        plan, at = released_plan(release.key), when(given.at, release.at)
        assert step is not None  # it asks for something
        unknown, against = _unknown(release.pk, given), _against(plan, step, ask)
        Reading.objects.filter(pk__in=[r.pk for r in unknown]).update(twice=True)
        kept = Reading.objects.create(
            release_id=release.pk,
            step=given.step,
            kind=ask.kind,
            of=ask.of,
            values=write(entered),
            typed={n: v for n, v in given.values.items() if isinstance(v, str)},
            instrument=given.instrument,
            measured=told.measured,
            predicted=told.predicted,
            level=told.level,
            passes=told.passes,
            told=follows(plan, told, far),
            key=given.key,
            twice=bool(unknown),
            by=somebody,
            at=at,
            **against,
        )
        kept.tools.set(_tools(ask))
        # What one of two tablets found is not settled by the other, whichever came first.
        stops = bool(unknown) and "stop" in {told.level, *(r.level for r in unknown)}
        Mark.objects.create(
            release_id=release.pk,
            step=given.step,
            state="done" if told.done and not stops else "open",
            key=uuid5(given.key, "mark"),
            by=somebody,
            at=max([at, *(r.at for r in unknown)]),
        )
        if told.teaches is not None and told.teaches.key in shelf.current().ids[told.teaches.kind]:
            learn(told.teaches.kind, told.teaches.key, told.teaches.field, told.teaches.better, somebody)
        if told.gauged is not None and (chuck := against["chuck_id"]) is not None:
            day, note = localtime(at).date(), f"card of {release.run.drawing_number}, release {release.number}"
            place = KeptAt(chuck, against["jaw_set_id"], day, uuid5(given.key, "gauged"), note[:120])
            keep_reading(told.gauged, place, somebody)
        moved_on(run.pk, _place(card, release.pk), somebody)
    return done(run_id, given.release, given.units, person)


def _unknown(release: int, given: ReadIn) -> list[Reading]:
    """Readings of the step that were not known where this one was made."""
    if given.seen is None:
        return []
    return list(Reading.objects.filter(release=release, step=given.step).order_by("pk")[given.seen :])


def _tools(ask: Ask) -> list[int]:
    """The rows of the edge that a reading tells of and of what carries it; what is not there any more is left out."""
    ids, keys = shelf.current().ids, ask.tool_key.split(JOINT)
    return [ids[kind][key] for kind in TOOL_KINDS for key in keys if key in ids[kind]]


def _against(plan: ReleasedPlan, step: CardStep, ask: Ask) -> dict[str, int | None]:
    """The rows of the shelf that a reading is kept against; what is not there any more is left out."""
    ids, taken = shelf.current().ids, plan.shelf
    setup = taken.setups[step.side or 0]
    keys = {
        "machine": taken.machine.key if taken.machine else None,
        "material": taken.material.key if taken.material else None,
        "chuck": setup.chuck.key if setup.chuck and step.side is not None else None,
        "jaw_set": setup.jaw_set.key if setup.jaw_set and step.side is not None else None,
        "ring": ask.ring_key,
    }
    return {f"{kind}_id": ids[kind].get(key) if key else None for kind, key in keys.items()}


def _place(card: Card, release: int) -> Place:
    """Where the run stands after a reading: running once every reading of the first pieces was made and passes."""
    wanted = {s.id for s in card.steps if s.place == PIECE and s.ask is not None}
    last = {r.step: r.passes for r in Reading.objects.filter(release=release, step__in=wanted)}
    marked = {m.step: m.state for m in Mark.objects.filter(release=release)}
    left = [s for s in wanted if not last.get(s, marked.get(s) == "skipped")]
    if wanted and not left:
        return "running"
    begun = any(step.endswith(f".{FIRST_PIECE}") and state == "done" for step, state in marked.items())
    return "proving" if begun or last else "setting"

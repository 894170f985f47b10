"""Reads of cards: the card of a release, what was done at it, and what was read of a shelf item."""

from __future__ import annotations

from dataclasses import dataclass
from typing import Any

from calc.card.readings.all_kinds import TITLES, UNITS
from calc.card.said import card_said
from calc.card.step import Card
from calc.plan.compute import PlanResult
from calc.plan.view import View
from calc.quantities import Figure, System
from calc.tools.all_kinds import TOOL_KINDS
from server.apps.card.convert import Coolant, card_for, made_card, mark_out, reading_out, scenes_for
from server.apps.card.models import Mark, Reading
from server.apps.card.queries.instruments import instrument_lines
from server.apps.card.schemas import CardOut, CardReadingOut, ComparedOut, ComparedPoint, DoneOut, MarkOut, ReleaseLine
from server.apps.runs.queries.find import run_by_id
from server.apps.runs.queries.plan import computed
from server.apps.runs.queries.released_plan import released_result
from server.apps.runs.queries.releases import latest, names_of, release_for
from server.apps.shelf import queries as shelf
from server.foundation.roles import may_mark, require_sees_drafts

COOLANT = ("factor", "target_percent", "volume_l")
SHOWN = 200  # readings of a shelf item, the latest


def coolant_before(machine: int | None) -> Coolant:
    """Factor, strength and tank that counted last on a machine."""
    last = Reading.objects.filter(kind="coolant", machine=machine).last() if machine else None
    return tuple((n, float(last.values[n])) for n in COOLANT if n in last.values) if last else ()


def last_marks(release: int, card: Card) -> list[MarkOut]:
    """The mark that counts of each step, in the order of their times."""
    marks = Mark.objects.filter(release=release).select_related("by")
    return [mark_out(m, card) for m in {m.step: m for m in marks}.values()]


def readings_of(release: int, card: Card, system: System) -> list[CardReadingOut]:
    """Every reading at a card."""
    return [reading_out(r, card, system) for r in Reading.objects.filter(release=release).select_related("by")]


@dataclass(frozen=True)
class OneCard:
    """A card as it is sent, and what its sides are drawn from."""

    page: CardOut
    views: tuple[View, ...]


def card_page(run_id: int, number: int | None, system: System, person: Any) -> OneCard:
    """The card of a release with what was done at it. Raises NotFound, NotAllowed."""
    run = run_by_id(run_id)
    release, standing = release_for(run, number, person), latest(run)
    coolant = coolant_before(run.machine_id)
    line = ReleaseLine(
        number=release.number,
        by=release.by.username,
        at=release.at,
        replaced=standing is not None and standing.number != release.number,
    )
    result, made = released_result(release.key), card_for(release.key, coolant)
    page = _page(run, result, made, line, system)
    page.name, page.drawing_number = names_of(release, system)
    page.may_mark = may_mark(person) and not run.put_away
    page.instruments = instrument_lines()
    page.scenes = list(scenes_for(release.key, system))
    page.marks, page.readings = last_marks(release.pk, made), readings_of(release.pk, made, system)
    return OneCard(page, result.views)


def draft_card(run_id: int, system: System, person: Any) -> OneCard:
    """The card that the draft would have. Raises NotFound, NotAllowed."""
    require_sees_drafts(person)
    run = run_by_id(run_id)
    result = computed(run, shelf.current())
    card = made_card(result, coolant_before(run.machine_id))
    nobody = ReleaseLine(number=0, by="", at=run.changed_at, replaced=False)
    return OneCard(_page(run, result, card, nobody, system), result.views)


def _page(run: Any, result: PlanResult, card: Card, release: ReleaseLine, system: System) -> CardOut:
    """A card at which nothing was done, without its pictures."""
    taken, part = result.views[0].shelf, result.views[0].document.part
    size = Figure(part.stock.diameter_mm, "mm", exact=True).text(system) if part.stock.diameter_mm else ""
    return CardOut(
        run=run.pk,
        name=run.name,
        drawing_number=run.drawing_number,
        machine=taken.machine.name if taken.machine else "",
        material=taken.material.name if taken.material else "",
        stock=f"{part.stock.form} Ø{size}",
        quantity=part.quantity,
        units=system,
        sides=[s.name for s in result.views[0].document.setups],
        release=release,
        place=run.place,
        may_mark=False,
        card=card_said(card, system),
        scenes=[],
        instruments=[],
        marks=[],
        readings=[],
    )


def done(run_id: int, number: int, system: System, person: Any) -> DoneOut:
    """What was done at a card so far. Raises NotFound, NotAllowed."""
    run = run_by_id(run_id)
    release, standing = release_for(run, number, person), latest(run)
    card = card_for(release.key, coolant_before(run.machine_id))
    return DoneOut(
        steps=len(card.steps),
        replaced=standing is not None and standing.number != release.number,
        place=run.place,
        marks=last_marks(release.pk, card),
        readings=readings_of(release.pk, card, system),
    )


def compared(kind: str, item_id: int, system: System) -> list[ComparedOut]:
    """Predicted and measured of a shelf item, by what was read: a chart each."""
    against = "tools" if kind in TOOL_KINDS else kind
    readings = Reading.objects.filter(**{against: item_id}, measured__isnull=False).select_related("by", "release__run")
    by_kind: dict[str, list[Reading]] = {}
    for reading in readings.order_by("-at", "-pk")[:SHOWN]:
        by_kind.setdefault(reading.kind, []).insert(0, reading)
    return [
        ComparedOut(
            kind=name,
            title=TITLES[name],
            unit=Figure(0.0, UNITS[name]).unit_shown(system),
            points=[_point(r, system) for r in found],
        )
        for name, found in by_kind.items()
        if name in TITLES
    ]


def _point(reading: Reading, system: System) -> ComparedPoint:
    unit = UNITS[reading.kind]
    assert reading.measured is not None

    def figure(value: float) -> float:
        return float(Figure(value, unit, places=(4, 5)).number(system).replace("\u202f", "").replace("−", "-"))

    predicted = reading.predicted
    words = Figure(reading.measured, unit).text(system)
    if predicted is not None:
        words += f", predicted {Figure(predicted, unit).text(system)}"
    return ComparedPoint(
        at=reading.at,
        by=reading.by.username,
        run=f"{reading.release.run.drawing_number} {reading.release.run.name}",
        measured=figure(reading.measured),
        predicted=None if predicted is None else figure(predicted),
        words=words,
    )

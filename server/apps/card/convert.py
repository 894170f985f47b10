"""A release ↔ its card, and readings as they are sent."""

from __future__ import annotations

from functools import lru_cache
from typing import Any
from uuid import UUID

from calc.card.ask import Ask, Told
from calc.card.make import NoCard, card_of, tried
from calc.card.said import told_said
from calc.card.step import Card
from calc.errors import CalcError
from calc.fields import Choice, Flag, Quantity, fields_of
from calc.plan.compute import PlanResult
from calc.plan.scenes import section
from calc.quantities import Figure, Sentence, System
from calc.said.drawn import SceneSaid, scene_said
from server.apps.card.models import Mark, Reading
from server.apps.card.schemas import CardReadingOut, FollowsOut, MarkOut, TrialOut
from server.apps.runs.queries.released_plan import ReleasedPlan, released_result
from server.foundation.problems import NotFound

KEPT = 32  # releases, which never change
SYSTEMS: tuple[System, ...] = ("metric", "inch")
NO_STEP = "This card has no such step."
Coolant = tuple[tuple[str, float], ...]


@lru_cache(maxsize=KEPT)
def card_for(release: UUID, coolant: Coolant) -> Card:
    """The card of a release, by its key; `coolant`: what counted last on its machine. Raises NotFound."""
    return made_card(released_result(release), coolant)


def made_card(result: PlanResult, coolant: Coolant) -> Card:
    """The card of a plan. Raises NotFound where it lacks something."""
    try:
        return card_of(result, dict(coolant))
    except NoCard as error:
        raise NotFound(str(error)) from error


@lru_cache(maxsize=KEPT)
def scenes_for(release: UUID, system: System) -> tuple[SceneSaid, ...]:
    """The section of each side."""
    return tuple(scene_said(section(view), system) for view in released_result(release).views)


def ask_at(card: Card, step: str) -> Ask:
    """What a step asks for. Raises NotFound."""
    found = card.step(step)
    if found is None:
        raise NotFound(NO_STEP)
    if found.ask is None:
        raise NotFound("There is nothing to read at this step.")
    return found.ask


def follows(plan: ReleasedPlan, told: Told, far: Sentence | None) -> dict[System, dict[str, Any]]:
    """What follows from a reading, in both unit systems, as it is kept and shown."""
    trial = tried(plan.document, plan.shelf, told) if told.trial is not None else None
    found: dict[System, dict[str, Any]] = {}
    for system in SYSTEMS:
        said = TrialOut(holds=trial[0], why=[w.text(system) for w in trial[1]]) if trial else None
        found[system] = FollowsOut(told=told_said(told, far, system), trial=said).model_dump(mode="json")
    return found


def title_of(card: Card, step: str) -> str:
    """What a step is called; a step that the card has no more keeps its id."""
    found = card.step(step)
    return found.title if found else step


def mark_out(mark: Mark, card: Card) -> MarkOut:
    """A mark as it is sent."""
    return MarkOut(
        step=mark.step,
        title=title_of(card, mark.step),
        state=mark.state,  # type: ignore[arg-type] # one of its choices
        reason=mark.reason,
        by=mark.by.username,
        at=mark.at,
    )


def shown(ask: Ask | None, values: dict[str, Any], system: System) -> str:
    """What was read, in a line."""
    if ask is None:
        return ", ".join(str(v) for v in values.values())
    try:
        entered = ask.read(values)
    except CalcError:  # kept under other ranges than today's
        return ", ".join(str(v) for v in values.values())
    return ", ".join(_shown(ask, entered, name, system) for name in values)


def _shown(ask: Ask, entered: Any, name: str, system: System) -> str:
    spec, value = next(f.spec for f in fields_of(ask.entry) if f.name == name), getattr(entered, name)
    match spec:
        case Quantity():
            return Figure(float(value), spec.unit, places=spec.places).text(system)
        case Choice():
            return spec.options[value]
        case Flag():
            return spec.label if value else f"not {spec.label.lower()}"
    return str(value)


def reading_out(reading: Reading, card: Card, system: System) -> CardReadingOut:
    """A reading as it is sent."""
    step = card.step(reading.step)
    return CardReadingOut(
        step=reading.step,
        title=title_of(card, reading.step),
        kind=reading.kind,
        shown=shown(step.ask if step else None, reading.values, system),
        instrument=reading.instrument,
        twice=reading.twice,
        by=reading.by.username,
        at=reading.at,
        follows=FollowsOut.model_validate(reading.told[system]),
    )

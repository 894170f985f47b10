"""A step ticked, skipped with a reason, or opened again."""

from __future__ import annotations

from typing import Any

from django.db import transaction

from calc.card.step import CardStep
from server.apps.card.convert import NO_STEP, card_for
from server.apps.card.models import Mark
from server.apps.card.queries.cards import coolant_before, done
from server.apps.card.schemas import DoneOut, MarkIn
from server.apps.runs.actions.place import moved_on
from server.apps.runs.queries.find import run_by_id
from server.apps.runs.queries.releases import release_of
from server.foundation.once import digest_of, was_sent
from server.foundation.problems import BadValue, Conflict, NotFound
from server.foundation.roles import require_at_machine
from server.foundation.said_time import when

FIRST_PIECE = "first-off"
AWAY = "This run is put away. Bring it back to the bench first."


@transaction.atomic
def mark(run_id: int, given: MarkIn, person: Any) -> DoneOut:
    """Keep a mark; the same key keeps it once. Raises NotAllowed, NotFound, Conflict, BadValue."""
    somebody = require_at_machine(person)
    run = run_by_id(run_id)
    release = release_of(run, given.release)
    if run.put_away:
        raise Conflict(AWAY)
    step = card_for(release.key, coolant_before(run.machine_id)).step(given.step)
    if step is None:
        raise NotFound(NO_STEP)
    reason = " ".join(given.reason.split())
    _require(step, given.state, reason)
    if not was_sent(given.key, somebody, digest_of("mark", run_id, given.model_dump(mode="json"))):
        Mark.objects.create(
            release_id=release.pk,
            step=given.step,
            state=given.state,
            reason=reason,
            key=given.key,
            by=somebody,
            at=when(given.at, release.at),
        )
        if given.state != "open":
            moved_on(run.pk, "proving" if given.step.endswith(f".{FIRST_PIECE}") else "setting", somebody)
    return done(run_id, given.release, given.units, person)


def _require(step: CardStep, state: str, reason: str) -> None:
    """Raise BadValue where a step cannot be marked so."""
    if state == "skipped" and step.kind == "caution":
        raise BadValue("state", "This step is a caution: it is done, never skipped.")
    if state == "skipped" and not reason:
        raise BadValue("reason", "Say why it is skipped.")
    if state == "done" and step.kind == "read":
        raise BadValue("state", "This step is ticked by its reading. Write what you read, or skip it and say why.")

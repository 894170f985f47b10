"""Loading a chuck's past for the demo: gauge runs that were kept, and days on which it was greased."""

from __future__ import annotations

import random
from collections.abc import Iterable
from datetime import timedelta
from typing import Any

from django.db import transaction
from django.utils import timezone

from devices.gauge import Model, grips
from server.apps.gauge.actions.runs import grease, keep
from server.apps.gauge.models import GaugeRun, Reading
from server.apps.gauge.queries import chuck_id_of
from server.apps.shelf import queries as shelf

POINTS = 60


@transaction.atomic
def load_past(chuck: str, greased: Iterable[int], runs: Iterable[dict[str, Any]], by: Any) -> None:
    """Greased so many days ago; runs by the day and what the simulated gauge shows of the chuck then."""
    now = timezone.localdate()
    for days in greased:
        grease(chuck, (now - timedelta(days=days)).isoformat(), "", by)
    for i, one in enumerate(runs):
        given = dict(one)
        days, model = given.pop("days"), Model(**given.pop("model"))
        jaw_set = given.pop("jaw_set", None)
        run = GaugeRun.objects.create(
            chuck_id=chuck_id_of(chuck),
            by=by,
            source="live",
            on=now - timedelta(days=days),
            key=given.pop("key"),
            jaw_set_id=shelf.current().ids["jaw_set"][jaw_set] if jaw_set else None,
            **given,
        )
        chance = random.Random(i)  # noqa: S311 - the demo is the same every time
        Reading.objects.bulk_create(
            Reading(run=run, number=n, rpm=round(rpm), grip_n=round(grip))
            for n, (rpm, grip) in enumerate(grips(model, POINTS, chance), 1)
        )
        keep(run.pk, by)

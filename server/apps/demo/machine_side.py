"""What happened at the machines of the demo: two releases, one of them half set, with a reading that is off."""

from __future__ import annotations

from datetime import timedelta
from typing import Any
from uuid import NAMESPACE_URL, uuid5

from django.db import transaction
from django.utils import timezone

from server.apps.card.actions.mark import mark
from server.apps.card.actions.read import read
from server.apps.card.schemas import MarkIn, ReadIn
from server.apps.runs.actions.asked import Asked
from server.apps.runs.actions.load_run import released_at
from server.apps.runs.actions.release import release
from server.apps.runs.queries.find import run_numbered
from server.apps.runs.queries.look import Look
from server.apps.runs.queries.releases import page
from server.foundation.once import digest_of
from server.foundation.queries import demo_person

NAMES = uuid5(NAMESPACE_URL, "noble-anvil/demo/machine-side")
AGO_MIN = 6  # since the last of it
HALF_SET, READY = "LH-2041", "LH-2107"
# Seal carrier, as far as its setter came: step, its minutes, what was read. The feeler found more than estimated.
DONE: tuple[tuple[str, int, dict[str, Any] | None], ...] = (
    ("s1.clean", 0, None),
    ("s1.grease", 4, None),
    ("s1.mount", 9, None),
    ("s1.torque", 3, None),
    ("s1.close-on", 4, None),
    ("s1.stroke", 1, None),
    ("s1.cut", 14, None),
    ("s1.groove", 3, None),
    ("s1.jaw-size", 4, {"size_mm": 122.004}),
    ("s1.deburr", 3, None),
    ("s1.feeler", 5, {"gap_mm": 0.04}),
)


def _released(number: str) -> int:
    planner, run = demo_person("planner"), run_numbered(number)
    codes = [c.code for c in page(run, "metric").cautions]
    key = uuid5(NAMES, f"release {number}")
    release(run.pk, codes, "", Asked(planner, Look(), key, run.revision, digest_of("demo", number)))
    return int(run.pk)


@transaction.atomic
def set_half() -> None:
    """Release two runs of the demo, and set the first half."""
    setter, run = demo_person("setter"), _released(HALF_SET)
    _released(READY)
    at = timezone.now() - timedelta(minutes=AGO_MIN + sum(minutes for _, minutes, _ in DONE))
    released_at(run, at - timedelta(hours=1))
    for step, minutes, values in DONE:
        at += timedelta(minutes=minutes)
        key = uuid5(NAMES, step)
        if values is None:
            mark(run, MarkIn(key=key, release=1, step=step, state="done", reason="", units="metric", at=at), setter)
        else:
            read(run, ReadIn(key=key, release=1, step=step, values=values, instrument="", sure=True, at=at), setter)

"""What happened at the machines of the demo: three releases, one half set with a reading that is off, one running."""

from __future__ import annotations

import random
from datetime import timedelta
from typing import Any
from uuid import NAMESPACE_URL, uuid5

from django.db import transaction
from django.utils import timezone

from server.apps.card.actions.mark import mark
from server.apps.card.actions.read import read
from server.apps.card.schemas import MarkIn, ReadIn
from server.apps.running.actions.load import Past, load_past
from server.apps.runs.actions.asked import Asked
from server.apps.runs.actions.load_run import released_at
from server.apps.runs.actions.release import release
from server.apps.runs.queries.find import run_numbered
from server.apps.runs.queries.look import Look
from server.apps.runs.queries.releases import page, standing_release
from server.foundation.once import digest_of
from server.foundation.queries import demo_person

NAMES = uuid5(NAMESPACE_URL, "noble-anvil/demo/machine-side")
AGO_MIN = 6  # since the last of it
HALF_SET, READY, RUNNING = "LH-2041", "LH-1980", "LH-2107"
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


# Wear ring, first side: what was measured of its bore as its finishing edge wears, which its offset was moved for once.
BORE, RA = "s1.size.i1", "s1.finish.i1"
PIECES, CYCLE_MIN, OFFSET_AFTER = 46, 2.3, 20
BEGAN_MM, MOVED_MM, WEAR_MM, NOISE_MM = 148.0225, 0.010, 0.00045, 0.0011
ROUGHER_AFTER = {19: "due", 36: "worn"}
HAPPENED = (
    *(
        {"kind": "edge", "edge": "main.1", "after": after, "why": why, "note": "CCGT 09T304"}
        for after, why in ROUGHER_AFTER.items()
    ),
    {"kind": "offset", "edge": "main.2", "after": OFFSET_AFTER, "amount_mm": MOVED_MM},
    {"kind": "stop", "after": 28, "why": "chips", "minutes": 6},
)
SCRAP = {31: "struck the jaw when it was taken out"}


def bores() -> dict[int, float]:
    """What the bore measured, piece by piece, at 20 °C [mm]."""
    chance = random.Random(11)  # noqa: S311 # made-up figures, the same every time
    moved = {n: MOVED_MM if n > OFFSET_AFTER else 0.0 for n in range(1, PIECES + 1)}
    return {n: round(BEGAN_MM - WEAR_MM * n + m + chance.gauss(0.0, NOISE_MM), 4) for n, m in moved.items()}


def _run() -> None:
    """The wear ring's first side, half made."""
    run, setter = _released(RUNNING), demo_person("setter")
    ended = timezone.now() - timedelta(minutes=1)
    released_at(run, ended - timedelta(minutes=PIECES * CYCLE_MIN + 90))
    standing = standing_release(run_numbered(RUNNING))
    finish = {1: 1.31, 2: 1.28, 21: 1.36, 41: 1.44}
    past = Past(PIECES, CYCLE_MIN, ended, {BORE: bores(), RA: finish}, SCRAP, HAPPENED)
    load_past(run_numbered(RUNNING), standing.pk, "s1", past, setter, NAMES)


def _released(number: str) -> int:
    planner, run = demo_person("planner"), run_numbered(number)
    codes = [c.code for c in page(run, "metric").cautions]
    key = uuid5(NAMES, f"release {number}")
    release(run.pk, codes, "", Asked(planner, Look(), key, run.revision, digest_of("demo", number)))
    return int(run.pk)


@transaction.atomic
def set_half() -> None:
    """Release three runs of the demo: the first is set half, the second ready, the third half made."""
    setter, run = demo_person("setter"), _released(HALF_SET)
    _released(READY)
    _run()
    at = timezone.now() - timedelta(minutes=AGO_MIN + sum(minutes for _, minutes, _ in DONE))
    released_at(run, at - timedelta(hours=1))
    for step, minutes, values in DONE:
        at += timedelta(minutes=minutes)
        key = uuid5(NAMES, step)
        if values is None:
            mark(run, MarkIn(key=key, release=1, step=step, state="done", reason="", units="metric", at=at), setter)
        else:
            read(run, ReadIn(key=key, release=1, step=step, values=values, instrument="", sure=True, at=at), setter)

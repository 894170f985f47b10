"""What plans count with: the latest gauge run and the last greasing of each chuck, read once for a state of the
shelf.
"""

from __future__ import annotations

from dataclasses import dataclass
from functools import lru_cache
from uuid import UUID

from django.utils import timezone

from calc.chuck.calibration import Calibration
from server.apps.gauge.models import GaugeRun, Greasing
from server.apps.shelf.queries import NO_STATE


@dataclass(frozen=True)
class Measured:
    """By chuck, and by (chuck, jaw set): database ids."""

    runs: dict[tuple[int, int | None], Calibration]
    greased: dict[int, str]

    def calibration(self, chuck_id: int | None, jaw_set_id: int | None) -> Calibration | None:
        """The latest run with this jaw set, else the chuck's latest with any."""
        if chuck_id is None:
            return None
        own = self.runs.get((chuck_id, jaw_set_id)) if jaw_set_id is not None else None
        return own or self.runs.get((chuck_id, None))


def today() -> str:
    """The day that counts, ISO."""
    return timezone.localdate().isoformat()


def measured(token: UUID) -> Measured:
    """What is known; every change of it renews the shelf's token."""
    return _read() if token == NO_STATE else _kept(token)


@lru_cache(maxsize=2)
def _kept(token: UUID) -> Measured:
    return _read()


def _read() -> Measured:
    runs: dict[tuple[int, int | None], Calibration] = {}
    rows = GaugeRun.objects.filter(kept_at__isnull=False).select_related("jaw_set").order_by("on", "pk")
    for row in rows:
        assert row.condition is not None
        made = Calibration(
            row.condition, row.transmission or 1.0, row.on.isoformat(), row.jaw_set.key if row.jaw_set else ""
        )
        runs[row.chuck_id, row.jaw_set_id] = made
        runs[row.chuck_id, None] = made  # the latest of them all, whichever jaws
    greased = {g.chuck_id: g.on.isoformat() for g in Greasing.objects.order_by("on")}
    return Measured(runs, greased)

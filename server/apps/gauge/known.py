"""What plans count with: the latest gauge run and the last greasing of each chuck, read once for a state of the
shelf.
"""

from __future__ import annotations

from dataclasses import dataclass, replace
from functools import lru_cache
from uuid import UUID

from django.utils import timezone

from calc.chuck.calibration import Calibration
from server.apps.gauge.models import GaugeRun, Greasing
from server.apps.shelf.queries import NO_STATE


@dataclass(frozen=True)
class Measured:
    """The latest run of each chuck, and the latest fit of each (chuck, jaw set): database ids."""

    runs: dict[int, Calibration]
    fits: dict[tuple[int, int], Calibration]
    greased: dict[int, str]

    def calibration(self, chuck_id: int | None, jaw_set_id: int | None) -> Calibration | None:
        """The condition is the chuck's, by its latest run with whichever jaws; λ is of the jaws it was fitted with."""
        latest = self.runs.get(chuck_id) if chuck_id is not None else None
        if latest is None or chuck_id is None or jaw_set_id is None:
            return latest
        fit = self.fits.get((chuck_id, jaw_set_id))
        return replace(latest, transmission=fit.transmission, jaw_set=fit.jaw_set) if fit else latest


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
    runs: dict[int, Calibration] = {}
    fits: dict[tuple[int, int], Calibration] = {}
    rows = GaugeRun.objects.filter(kept_at__isnull=False).select_related("jaw_set").order_by("on", "pk")
    for row in rows:
        assert row.condition is not None
        made = Calibration(
            row.condition, row.transmission or 1.0, row.on.isoformat(), row.jaw_set.key if row.jaw_set else ""
        )
        runs[row.chuck_id] = made
        if row.jaw_set_id is not None and row.source != "card":  # one reading at rest says nothing of speed
            fits[row.chuck_id, row.jaw_set_id] = made
    greased = {g.chuck_id: g.on.isoformat() for g in Greasing.objects.order_by("on")}
    return Measured(runs, fits, greased)

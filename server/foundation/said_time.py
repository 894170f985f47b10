"""When something was done, as the tablet says that it was done on."""

from __future__ import annotations

from datetime import datetime

from django.utils import timezone


def when(said: datetime | None, not_before: datetime) -> datetime:
    """When something was done: as it was said, but neither before what it follows nor later than now.

    A tablet's clock may be wrong; what it says is the order of what was done on it.
    """
    now = timezone.now()
    return now if said is None else max(not_before, min(said, now))

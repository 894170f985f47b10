"""What was read at cards, as lines of the notebook, and where coolant is to be measured again."""

from __future__ import annotations

from django.utils import timezone

from calc.card.readings.all_kinds import TITLES
from calc.quantities import System
from server.apps.card.models import Reading
from server.foundation.schemas import NotedOut

COOLANT = "coolant"
COOLANT_DAYS = 7  # typical: water goes with heat and concentrate with chips


def noted(system: System, most: int) -> list[NotedOut]:
    """The newest readings."""
    rows = Reading.objects.select_related("by", "release__run", "machine").order_by("-at", "-pk")[:most]
    return [
        NotedOut(
            kind="coolant" if r.kind == COOLANT else "reading",
            of=_of(r),
            words=f"{TITLES.get(r.kind, r.kind)}: {_words(r, system)}",
            on=r.at.date(),
            by=r.by.username,
            href=f"/runs/{r.release.run_id}/card",
        )
        for r in rows
    ]


def _of(reading: Reading) -> str:
    if reading.kind == COOLANT and reading.machine is not None:
        return reading.machine.name
    return f"{reading.release.run.name} ({reading.release.run.drawing_number})"


def _words(reading: Reading, system: System) -> str:
    told = reading.told[system]["told"]
    figure = " ".join(filter(None, (told["label"], f"{told['prefix']}{told['number']}", told["unit"])))
    words = " ".join(told["words"])
    # Some words go on from the figure, others are sentences of their own.
    return f"{figure}. {words}" if words[:1].isupper() else f"{figure} {words}".strip()


def coolant_due() -> list[str]:
    """Machines whose coolant was measured once and is to be measured again, in sentences."""
    newest: dict[str, Reading] = {}
    for reading in Reading.objects.filter(kind=COOLANT, machine__isnull=False).select_related("machine"):
        assert reading.machine is not None
        newest[reading.machine.name] = reading
    today, found = timezone.localdate(), []
    for name, reading in sorted(newest.items()):
        days = (today - reading.at.date()).days
        if days >= COOLANT_DAYS:
            found.append(f"{name}: its coolant was measured {days} days ago. Measure it again.")
    return found

"""What the bench keeps of a run: how it stands, in lines, and the words it is found by."""

from __future__ import annotations

from dataclasses import asdict
from typing import Any

from calc.plan.standing import Standing, bench_words, moved, standing
from calc.quantities import System, counted
from server.apps.gauge.queries import today
from server.apps.runs.convert.document import document_of, shelf_of
from server.apps.runs.models import Run
from server.apps.shelf.queries import Snapshot


def system_of(run: Run) -> System:
    """The units that the run is planned in."""
    return "inch" if run.units == "inch" else "metric"


def _words(run: Run, on_shelf: Snapshot, verdict: str) -> str:
    names = [run.drawing_number, run.name, verdict, *(s["name"] for s in run.document["setups"])]
    taken: list[tuple[dict[int, Any], int | None]] = [
        (on_shelf.machines, run.machine_id),
        (on_shelf.materials, run.material_id),
        *((on_shelf.chucks, s.chuck_id) for s in run.setups.all()),
        *((on_shelf.blanks, s.jaw_blank_id) for s in run.setups.all()),
        *((on_shelf.collets, s.collet_id) for s in run.setups.all()),
    ]
    names += [rows[pk].name for rows, pk in taken if pk is not None]
    return " ".join(names).lower()


def bench_figures_said(standing: Standing, system: System) -> list[dict[str, str]]:
    """What the bench shows of each side, as it reads."""
    return [bench_words(figures, system) for figures in standing.sides]


def stand_today(run: Run, on_shelf: Snapshot) -> None:
    """Compute how the loaded run stands, where what is kept of it is not of today's shelf; saves nothing."""
    day = today()
    if run.stands_on != day:
        put_standing(run, standing(document_of(run), shelf_of(run, on_shelf)), on_shelf, day)


def _needs(run: Run, standing: Standing, system: System) -> str:
    """What a run needs next: the stop to look at with why, else that what was proposed is looked at."""
    if standing.needs is not None:
        place = standing.needs.place([s["name"] for s in run.document["setups"]])
        return f"{place}: {standing.needs.line.text(system)}"
    return f"look at {counted(standing.proposed, 'proposed value')}" if standing.proposed else ""


def put_standing(run: Run, standing: Standing, on_shelf: Snapshot, day: str) -> dict[str, Any]:
    """Set on the loaded run how it stands on a day; gives what that moved: [before, after] by name."""
    before = run.standing
    run.stands_on = day
    system, needs = system_of(run), standing.needs
    run.attention = standing.attention
    run.words = _words(run, on_shelf, standing.verdict)
    run.standing = {
        "verdict": standing.verdict,
        "needs": _needs(run, standing, system),
        "next": needs.key if needs else "",
        "lines": [
            {"key": s.key, "title": s.title, "state": s.state, "line": s.line.text(system), "side": s.side}
            for s in standing.stops
        ],
        "headlines": standing.headlines,
        "figures": bench_figures_said(standing, system),
        "minutes": asdict(standing.minutes) if standing.minutes else None,
        "turret": list(standing.turret),
    }
    if not before:
        return {}
    found: dict[str, Any] = moved(before["headlines"], standing.headlines)
    if before["verdict"] != standing.verdict:
        found["verdict"] = [before["verdict"], standing.verdict]
    return found

"""What the bench keeps of a run: how it stands, in lines, and the words it is found by."""

from __future__ import annotations

from typing import Any

from calc.plan.standing import Standing, moved
from calc.quantities import System
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


def put_standing(run: Run, standing: Standing, on_shelf: Snapshot) -> dict[str, Any]:
    """Set on the loaded run how it stands; gives what that moved: [before, after] by name."""
    before = run.standing
    system, needs = system_of(run), standing.needs
    run.attention = standing.attention
    run.words = _words(run, on_shelf, standing.verdict)
    run.standing = {
        "verdict": standing.verdict,
        "needs": f"{needs.place(len(run.document['setups']))}: {needs.line.text(system)}" if needs else "",
        "next": needs.key if needs else "",
        "lines": [
            {"key": s.key, "title": s.title, "state": s.state, "line": s.line.text(system), "side": s.side}
            for s in standing.stops
        ],
        "headlines": standing.headlines,
    }
    if not before:
        return {}
    found: dict[str, Any] = moved(before["headlines"], standing.headlines)
    if before["verdict"] != standing.verdict:
        found["verdict"] = [before["verdict"], standing.verdict]
    return found

"""A run and a release in a line: what tells one from another."""

from __future__ import annotations

from typing import Any

from server.apps.runs.models import PLACES, Release, Run
from server.apps.runs.schemas import BenchRow, LineOut, ReleaseOut, RunOut
from server.apps.shelf.queries import Snapshot
from server.foundation.schemas import Units


def units_of(run: Run) -> Units:
    """The units that the run is planned in."""
    return "inch" if run.units == "inch" else "metric"


def run_plate(run: Run, on_shelf: Snapshot) -> RunOut:
    """The run's name plate."""
    return RunOut(
        id=run.pk,
        drawing_number=run.drawing_number,
        name=run.name,
        units=units_of(run),
        machine="" if run.machine_id is None else on_shelf.machines[run.machine_id].name,
        quantity=run.document["part"].get("quantity"),
        setup=", ".join(s["name"] for s in run.document["setups"]),
        revision=run.revision,
        changed_at=run.changed_at,
        put_away=run.put_away,
        released=run.released_at is not None,
        place=dict(PLACES)[run.place],
        placed_at=run.placed_at,
        placed_by=run.placed_by,
    )


def bench_row(run: Run, on_shelf: Snapshot) -> BenchRow:
    """A run on the bench, from what is kept of how it stands: nothing is computed."""
    kept = run.standing
    lines = [LineOut(**line) for line in kept["lines"]]
    plate = dict(run_plate(run, on_shelf))
    told = {name: kept.get(name, "") for name in ("verdict", "needs", "next")}
    return BenchRow(**plate, **told, lines=lines, figures=kept.get("figures", []))


def words_of_plate(plate: dict[str, Any]) -> str:
    """What a release is found by: what its name plate says."""
    return " ".join(str(plate.get(name) or "") for name in ("drawing_number", "name", "machine", "setup")).lower()


def released_row(run: Run, release: Release, plate: dict[str, Any]) -> BenchRow:
    """A run as who sees only releases is shown it: what is released, under the name that it was released with."""
    lines = [LineOut(**line) for line in release.lines[run.units]]
    here = {"revision": release.revision, "changed_at": release.at, "put_away": run.put_away, "released": True}
    here |= {"place": dict(PLACES)[run.place], "placed_at": run.placed_at, "placed_by": run.placed_by}
    told = {"verdict": "settled", "needs": f"release {release.number}"}
    return BenchRow(**plate | here | told, lines=lines, figures=release.figures.get(run.units, []))


def release_plate(release: Release) -> ReleaseOut:
    """Who released what, when."""
    return ReleaseOut(
        number=release.number,
        revision=release.revision,
        rules=release.rules,
        by=release.by.username,
        at=release.at,
        note=release.note,
        confirmed=[c["text"] for c in release.confirmed],
    )

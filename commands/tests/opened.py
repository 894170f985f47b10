"""What a restored shop shows, as JSON: run as a program of its own, against the database that it is given."""

from __future__ import annotations

import json
from typing import Any


def facts(view: dict[str, Any]) -> int:
    """How many facts the pages of a plan hold."""
    return sum(len(part["stop"]["facts"]) for part in view["parts"] if "stop" in part)


def shop() -> dict[str, Any]:
    """Every run by its number: verdict, history, and each release as it was frozen and as it is read."""
    from server.apps.runs.models import Release, Run
    from server.apps.runs.queries import history, plan, releases
    from server.apps.runs.queries.find import run_by_id
    from server.apps.runs.queries.look import Look

    found = {}
    for pk in Run.objects.values_list("pk", flat=True):
        run = run_by_id(pk)
        shown = {}
        for release in Release.objects.filter(run=run):
            views = {units: releases.released_view(release, Look(units)) for units in ("metric", "inch")}
            shown[release.number] = {
                "frozen": {units: [s["line"] for s in release.views[units]["stops"]] for units in views},
                "read": {units: [s["line"] for s in view["stops"]] for units, view in views.items()},
                "facts": {units: facts(view) for units, view in views.items()},
                "bench": [line["line"] for line in release.lines[run.units]],
                "differs": len(releases.compare(run, release.number, None, "metric").rows),
            }
        told = history.history(run, None, "metric")
        found[run.drawing_number] = {
            "verdict": plan.plan(run, Look(), None).head.verdict,
            "history": [e.text for e in told.entries],
            "first": told.first,
            "revision": run.revision,
            "releases": shown,
            "typed": run.typed,
        }
    return found


if __name__ == "__main__":
    import django

    django.setup()
    print(json.dumps(shop()))

"""Speed and memory, measured: `./anvil bench`. A table to read, never a test that fails."""

from __future__ import annotations

import gzip
import json
import os
import statistics
import sys
from collections.abc import Callable
from typing import Any

import psutil

from bench.crowds import crowd, long_history, many_readings, many_runs
from bench.measure import PRESSURE, Client, row, times
from bench.screens import cold_load, drag, key_to_pixels, live_gauge
from calc.plan.compute import compute
from calc.plan.document import Document
from calc.plan.paths import replaced
from calc.reading import read
from commands.places import WEB, say


def core() -> list[float]:
    """The seal carrier recomputed in the core at ever other pressures, no database."""
    from server.apps.runs.convert.document import shelf_of
    from server.apps.runs.queries.find import runs
    from server.apps.shelf.queries import current

    run = runs().get(drawing_number="LH-2041")
    document, shelf = read(Document, run.document), shelf_of(run, current())
    variants = [replaced(document, PRESSURE, 20 + i / 40) for i in range(320)]
    return times(300, lambda i: compute(variants[i], shelf))


def first_load() -> tuple[int, int]:
    """Gzip size of the JavaScript, and of everything, that the first page loads."""
    manifest = json.loads((WEB / "dist" / ".vite" / "manifest.json").read_text())
    entry = manifest["index.html"]
    scripts = [entry["file"], *(manifest[i]["file"] for i in entry.get("imports", []))]
    packed = sum(len(gzip.compress((WEB / "dist" / s).read_bytes(), 9)) for s in scripts)
    fonts = sum((WEB / "dist" / a).stat().st_size for a in entry.get("assets", []))
    return packed, packed + fonts


def memory() -> list[tuple[str, float]]:
    """Resident memory of the server's processes [MB]."""
    server = psutil.Process(int(os.environ["NOBLE_ANVIL_SERVER_PID"]))
    processes = [server, *server.children(recursive=True)]
    return [("master" if p is server else "worker", p.memory_info().rss / 1e6) for p in processes]


def _plans(client: Client) -> None:
    row("plan recompute in the core", core(), "≤ 5 ms median")
    row("preview over HTTP on loopback", times(300, client.preview), "≤ 40 ms at 95 %")
    row("edit kept over HTTP on loopback", times(200, client.edit), "≤ 40 ms at 95 %")
    row("key press to changed pixels", key_to_pixels(client.run), "≤ 100 ms at 95 %")


def _many(client: Client) -> None:
    listed, found = many_runs(client)
    row("bench of 5 000 runs, a page", listed, "≤ 150 ms")
    row("bench of 5 000 runs, find", found, "≤ 150 ms")


def _history(client: Client) -> None:
    client.edit(0)
    asked, opened = long_history(client)
    row("history of 2 000 edits over HTTP", asked, "≤ 300 ms")
    row("history of 2 000 edits, click to lines", opened, "≤ 300 ms")


def _load(client: Client) -> None:
    row("first load of a plan, cold cache", cold_load(client.run), "")


def _crowd(client: Client) -> None:
    edits, errors = crowd()
    row(f"50 people for 60 s: an edit ({len(edits)} kept, {errors} errors)", edits, "errors 0")


def _walls(client: Client) -> None:
    """The thin wall in the core, and the real contact over HTTP as the screen asks for it."""
    from calc.walls.contact import WallContactInput, wall_contact
    from calc.walls.lobing import WallLobingInput, per_newton, wall_lobing
    from calc.walls.ring import jaw_response

    def fresh(solve: Callable[[], Any]) -> Callable[[int], Any]:
        def one(_: int) -> Any:
            jaw_response.cache_clear()  # a wall that was never asked before
            per_newton.cache_clear()
            return solve()

        return one

    lobing = WallLobingInput(30_000, "od", 110, 90, 10, 200, 0.3, 3, 50)
    contact = WallContactInput(30_000, "od", 110, 90, 10, 200, 0.3, 3, 50, jaw_diameter_mm=110.05)
    row("wall-lobing, 40 harmonics, in the core", times(200, fresh(lambda: wall_lobing(lobing))), "≤ 3 ms")
    row("the real contact of one bore, in the core", times(100, fresh(lambda: wall_contact(contact))), "≤ 50 ms")
    ring = next(r["id"] for r in client.get("/api/runs?find=LH-2107")["rows"])
    asked = f"/api/runs/{ring}/sides/s2/checks/real-contact"
    row("its table of ten over HTTP", times(30, lambda _: client.get(asked)), "")


def _tools(client: Client) -> None:
    """Choosing over a large shelf, and settling."""
    from calc.settle.operation import settle_operation
    from calc.settle.setup import settle_setup
    from calc.tests.tools.shelf import enlarged
    from calc.tools.choose import Job, choose
    from calc.tools.rules.all_rules import BOOKS
    from server.apps.runs.convert.document import document_of, shelf_of
    from server.apps.runs.queries.find import runs
    from server.apps.shelf.queries import current

    library = enlarged(5000)

    def job(i: int) -> Job:  # never asked before
        return Job(
            "turn",
            "M",
            stage="rough",
            depth_mm=2 + i / 1000,
            stock_mm=10,
            square=True,
            shank_mm=25,
            quantity=240,
            minutes=3,
        )

    choose(library, BOOKS["turn"], job(-1))
    row("a tool out of 5 000 items", times(60, lambda i: choose(library, BOOKS["turn"], job(i))), "≤ 50 ms")
    run = runs().get(drawing_number="LH-2041")
    document, shelf = document_of(run), shelf_of(run, current())
    row(
        "one operation settled, 199 360 candidates",
        times(8, lambda _: settle_operation(document, shelf, 0, document.setups[0].cuts[1].id)),
        "≤ 1 s",
    )
    row("a set-up of six operations settled", times(5, lambda _: settle_setup(document, shelf, 0)), "")


def _force(client: Client) -> None:
    """What is solved beside the plan, and a chuck with very many readings."""
    run = client.run
    row(
        "limit analysis of a side over HTTP",
        times(20, lambda _: client.get(f"/api/runs/{run}/sides/s2/checks/limit-analysis")),
        "",
    )
    row("an edit under house rules that changed, preview", _under_old_rules(client), "")
    many_readings()
    row(
        "chuck page with 100 000 readings",
        times(40, lambda _: client.get("/api/chucks/lathe-3-chuck/gauge")),
        "≤ 200 ms",
    )
    newest = client.get("/api/chucks/lathe-3-chuck/gauge")["runs"][0]["id"]
    row("one run of 5 000 readings with its fit", times(20, lambda _: client.get(f"/api/gauge-runs/{newest}")), "")
    shown, lag = live_gauge()
    say(f"| live gauge: readings on the screen in 5 s ({shown:.0f} a second) | {lag:.0f} ms behind | | 20 a second |")


def _under_old_rules(client: Client) -> list[float]:
    rules = client.get("/api/rules")
    client.post("/api/rules", {"base_number": rules["number"], "values": {"worn": "1.35"}, "reason": "for the bench"})
    return times(30, client.preview)


MEASURED = {
    "force": _force,
    "plans": _plans,
    "walls": _walls,
    "tools": _tools,
    "drag": drag,
    "many": _many,
    "history": _history,
    "load": _load,
    "crowd": _crowd,
}


def main() -> None:
    import django

    django.setup()
    asked = [name for name in sys.argv[1:] if name in MEASURED] or list(MEASURED)
    say("| what | median | 95th percentile | want |\n|---|---|---|---|")
    for name in asked:
        MEASURED[name](Client())
    packed, whole = first_load()
    say(f"\nJavaScript on first load, gzip: {packed / 1000:.0f} kB (want ≤ 260); with fonts {whole / 1000:.0f} kB")
    say("Memory: " + ", ".join(f"{name} {size:.0f} MB" for name, size in memory()))
    reference = times(50, lambda _: sum(range(100_000)))
    say(f"This machine just now: adding 100 000 integers takes {statistics.median(reference):.1f} ms")


if __name__ == "__main__":
    main()

"""Speed and memory, measured: `./anvil bench`. A table to read, never a test that fails."""

from __future__ import annotations

import gzip
import json
import os
import statistics
import sys
import time
from collections.abc import Callable
from dataclasses import replace
from functools import cache
from typing import Any

import psutil

from bench.board import board
from bench.card import card
from bench.crowds import crowd, long_history, many_readings, many_runs
from bench.heavy import heavy, slow
from bench.lot import lot
from bench.measure import PRESSURE, Client, row, times, told
from bench.practice import practice
from bench.screens import cold_load, drag, key_to_pixels, live_gauge
from calc.plan.compute import compute
from calc.plan.document import Document
from calc.plan.paths import replaced
from calc.plan.scenes import drawings_of
from calc.plan.solve import forget
from calc.said.plan import names_of, part_said
from calc.said.reader import Reader
from calc.shelf.taken import Shelf
from commands.places import WEB, say


@cache
def seal_carrier() -> tuple[Document, Shelf]:
    """The demo's seal carrier with what it takes from the shelf, as it was when first asked for."""
    from server.apps.runs.convert.document import document_of, shelf_of
    from server.apps.runs.queries.find import runs
    from server.apps.shelf.queries import current

    run = runs().get(drawing_number="LH-2041")
    return document_of(run), shelf_of(run, current())


def _recomputed(document: Document, shelf: Shelf, path: str, value: Callable[[int], float], repeat: int) -> list[float]:
    variants = [replaced(document, path, value(i)) for i in range(repeat + 10)]
    compute(document, shelf)
    return times(repeat, lambda i: compute(variants[i + 10], shelf), warm=0)


def every_part(document: Document, shelf: Shelf) -> None:
    """A plan with everything that comes into view later, in words and figures."""
    result = compute(document, shelf)
    for name in names_of(result):
        part_said(result, name, Reader("metric"))


def with_operations(document: Document, shelf: Shelf, count: int) -> Document:
    """The plan with so many operations on its first side: those there are, again and again."""
    cuts = document.setups[0].cuts
    more = tuple(replace(cuts[i % len(cuts)], id=f"m{i}", name=f"{cuts[i % len(cuts)].name} {i}") for i in range(count))
    return replace(document, setups=(replace(document.setups[0], cuts=more), *document.setups[1:]))


def _core(_: Client) -> None:
    """The plan recomputed in the core, no database."""
    document, shelf = seal_carrier()
    pressures = _recomputed(document, shelf, PRESSURE, lambda i: 20 + i / 400, 300)
    row("plan recomputed in the core, a pressure changed", pressures, "≤ 8 ms median")
    feed = f"setups.s1.cuts.{document.setups[0].cuts[1].id}.feed_mm_rev"
    fed = _recomputed(document, shelf, feed, lambda i: 0.2 + i / 5000, 200)
    row("the same, a feed changed", fed, "≤ 8 ms median")

    def cold(_: int) -> None:
        forget()
        compute(document, shelf)

    row("the same with nothing kept: seen for the first time", times(40, cold, warm=3), "")
    variants = [replaced(document, PRESSURE, 22 + i / 400) for i in range(60)]
    row("with every late part, in words and figures", times(50, lambda i: every_part(variants[i], shelf), warm=5), "")

    def late_figures(i: int) -> None:
        result = compute(replaced(document, PRESSURE, 24 + i / 400), shelf)
        for stop in result.stops:
            result.helps(stop), result.tables(stop)
        for view in result.views:
            for drawing in drawings_of(view):
                drawing.draw()

    row("with every late part, figures alone", times(50, late_figures, warm=5), "≤ 25 ms median")
    for count in (5, 10, 20, 40):
        plan = with_operations(document, shelf, count)
        found = _recomputed(plan, shelf, "setups.s1.cuts.m1.feed_mm_rev", lambda i: 0.2 + i / 5000, 60)
        row(f"{count} operations on a side, a feed changed", found, "no faster than they")


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
    found = []
    for name, variable in (("web", "NOBLE_ANVIL_SERVER_PID"), ("questions", "NOBLE_ANVIL_WORKER_PID")):
        process = psutil.Process(int(os.environ[variable]))
        found += [(name, p.memory_info().rss / 1e6) for p in (process, *process.children(recursive=True))]
    return found


def _plans(client: Client) -> None:
    """What a key press asks over HTTP."""
    run = f"/api/runs/{client.run}"
    pulse = times(200, lambda _: client.get(f"{run}/pulse"))
    row("the pulse, the simplest question", pulse, "")
    seen = times(300, client.preview)
    row("preview of a pressure over HTTP", seen, "≤ 25 ms median")
    told("as a multiple of the pulse", f"{statistics.median(seen) / statistics.median(pulse):.1f}", "≤ 3")
    told("its answer", f"{client.size / 1000:.1f} kB, {client.packed / 1000:.1f} kB packed", "≤ 25 kB, ≤ 8 kB")
    whole = client.get(f"{run}/plan?units=metric&whole=true")
    names = [p["name"] for p in whole["parts"] if not p["name"].startswith("working:")]
    row("all late parts of a preview at once", times(30, lambda _: client.late_parts(names[:64])), "≤ 200 ms")
    row("edit kept over HTTP on loopback", times(200, client.edit), "≤ 30 ms median")
    before = processor()
    edits = 100
    for i in range(edits):
        client.edit(i)
    told("processor of one edit, all of the server", f"{(processor() - before) / edits * 1000:.1f} ms", "≤ 20 ms")
    row("key press to changed pixels", key_to_pixels(client.run), "≤ 60 ms at 95 %")


def processor() -> float:
    """Seconds that the server's processes have computed."""
    server = psutil.Process(int(os.environ["NOBLE_ANVIL_SERVER_PID"]))
    spent = [p.cpu_times() for p in (server, *server.children(recursive=True))]
    return sum(s.user + s.system for s in spent)


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


def _crowd(_: Client) -> None:
    edits, errors = crowd()
    row(f"100 people for 60 s: an edit ({len(edits)} kept, {errors} errors)", edits, "≤ 250 ms at 95 %, errors 0")


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
    client.answered(client.question(asked, {"units": "metric"}))
    start = time.perf_counter()
    client.answered(client.question(asked, {"units": "inch"}))
    row("its table of ten, asked and answered", [(time.perf_counter() - start) * 1000], "")


def _tools(client: Client) -> None:
    """Choosing over a large shelf, and settling."""
    from calc.settle.operation import settle_operation
    from calc.settle.setup import settle_setup
    from calc.tests.tools.shelf import enlarged
    from calc.tools.choose import Job, choose
    from calc.tools.rules.all_rules import BOOKS

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
    document, shelf = seal_carrier()
    row(
        "one operation settled",
        times(8, lambda _: settle_operation(document, shelf, 0, document.setups[0].cuts[1].id)),
        "≤ 0.5 s",
    )
    row("a set-up of seven operations settled", times(5, lambda _: settle_setup(document, shelf, 0)), "≤ 2 s")


def _force(client: Client) -> None:
    """What is solved beside the plan, and a chuck with very many readings."""
    run = client.run
    asked = f"/api/runs/{run}/sides/s2/checks/limit-analysis"
    client.answered(client.question(asked, {"units": "metric"}))
    start = time.perf_counter()
    client.answered(client.question(asked, {"units": "inch"}))
    row("limit analysis of a side, asked and answered", [(time.perf_counter() - start) * 1000], "")
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


def _rules(client: Client) -> None:
    """Last: from here on every plan of the shop rests on rules that are no longer in force."""
    rules = client.get("/api/rules")
    client.post("/api/rules", {"base_number": rules["number"], "values": {"worn": "1.35"}, "reason": "for the bench"})
    row("an edit under house rules that changed, preview", times(30, client.preview), "")


MEASURED = {
    "core": _core,
    "force": _force,
    "plans": _plans,
    "walls": _walls,
    "tools": _tools,
    "drag": drag,
    "card": card,  # before the board, whose hundreds of copies of the run have no release
    "lot": lot,
    "practice": practice,
    "board": board,
    "many": _many,
    "history": _history,
    "load": _load,
    "heavy": heavy,
    "slow": slow,
    "crowd": _crowd,
    "rules": _rules,
}


def main() -> None:
    import django

    django.setup()
    seal_carrier()  # before what is measured changes it: a plan that is stopped cannot be settled
    asked = [name for name in sys.argv[1:] if name in MEASURED] or list(MEASURED)
    say("| what | median | 95th percentile | want |\n|---|---|---|---|")
    for name in asked:
        MEASURED[name](Client())
    packed, whole = first_load()
    say(f"\nJavaScript on first load, gzip: {packed / 1000:.0f} kB (want ≤ 260); with fonts {whole / 1000:.0f} kB")
    say("Memory (want ≤ 300 MB each): " + ", ".join(f"{name} {size:.0f} MB" for name, size in memory()))
    reference = times(50, lambda _: sum(range(100_000)))
    say(f"This machine just now: adding 100 000 integers takes {statistics.median(reference):.1f} ms")


if __name__ == "__main__":
    main()

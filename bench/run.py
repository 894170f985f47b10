"""Speed and memory, measured: `./anvil bench`. A table to read, never a test that fails."""

from __future__ import annotations

import gzip
import http.cookiejar
import json
import os
import random
import statistics
import sys
import threading
import time
import urllib.error
import urllib.request
import uuid
from collections.abc import Callable
from typing import Any

import psutil

from bench.browser import browser_page
from calc.plan.compute import compute
from calc.plan.document import Document, replaced
from calc.reading import read
from commands.places import WEB, say

URL = os.environ["NOBLE_ANVIL_URL"]
PRESSURE = "setups.0.force.pressure_bar"


def times(repeat: int, what: Callable[[int], Any], warm: int = 10) -> list[float]:
    """Milliseconds of each of `repeat` calls, after some that are not counted."""
    for i in range(warm):
        what(i)
    found = []
    for i in range(repeat):
        start = time.perf_counter()
        what(i)
        found.append((time.perf_counter() - start) * 1000)
    return found


def row(name: str, found: list[float], want: str) -> None:
    """A line of the table."""
    ordered = sorted(found)
    middle, late = statistics.median(ordered), ordered[int(len(ordered) * 0.95) - 1]
    say(f"| {name} | {middle:.1f} ms | {late:.1f} ms | {want} |")


def core() -> list[float]:
    """The seal carrier recomputed in the core at ever other pressures, no database."""
    from server.apps.runs.convert import shelf_of
    from server.apps.runs.queries import runs
    from server.apps.shelf.queries import current

    run = runs().get(drawing_number="LH-2041")
    document, shelf = read(Document, run.document), shelf_of(run, current())
    variants = [replaced(document, PRESSURE, 20 + i / 40) for i in range(320)]
    return times(300, lambda i: compute(variants[i], shelf))


class Client:
    """A signed-in client of the API on loopback."""

    def __init__(self) -> None:
        self.jar = http.cookiejar.CookieJar()
        self.opener = urllib.request.build_opener(urllib.request.HTTPCookieProcessor(self.jar))
        self.opener.open(URL + "/").read()
        self.token = next(c.value for c in self.jar if c.name == "csrftoken") or ""
        self.run = next(r["id"] for r in self.get("/api/runs?find=LH-2041")["rows"])
        self.revision = self.get(f"/api/runs/{self.run}/pulse")["revision"]

    def get(self, path: str) -> Any:
        return json.loads(self.opener.open(URL + path).read())

    def post(self, path: str, body: Any) -> Any:
        headers = {"Content-Type": "application/json", "X-CSRFToken": self.token}
        request = urllib.request.Request(URL + path, json.dumps(body).encode(), headers)
        return json.loads(self.opener.open(request).read())

    def preview(self, i: int) -> None:
        self.post(f"/api/runs/{self.run}/preview", {"path": PRESSURE, "text": f"{20 + i / 40}"})

    def edit(self, i: int, path: str = PRESSURE, run: int | None = None) -> None:
        revision = self.revision if run is None else self.get(f"/api/runs/{run}/pulse")["revision"]
        body = {"path": path, "text": f"{20 + i / 40}", "base_revision": revision, "key": str(uuid.uuid4())}
        self.revision = self.post(f"/api/runs/{run or self.run}/edits", body)["revision"]


# Counts from the key press to the first frame painted after the figure changed.
WATCH = """
(label) => new Promise((resolve) => {
  const target = document.querySelector('aside');
  const field = document.querySelector(`input[aria-label="${label}"]`);
  let start = 0;
  field.addEventListener('keydown', () => { start = performance.now(); }, { once: true });
  const watcher = new MutationObserver(() => {
    watcher.disconnect();
    requestAnimationFrame(() => setTimeout(() => resolve(performance.now() - start), 0));
  });
  watcher.observe(target, { childList: true, characterData: true, subtree: true });
  setTimeout(() => resolve(5000), 5000);  // told as it is, never waited for without end
})
"""


def key_to_pixels(run: int) -> list[float]:
    """Typing a digit into the pressure until the cap on the slip has been painted anew."""
    label = "Gauge pressure, bar"
    found = []
    with browser_page() as page:
        page.goto(f"{URL}/runs/{run}/force")
        page.wait_for_load_state("networkidle")
        field = page.get_by_role("textbox", name=label)
        field.click()
        field.fill("29.1")
        page.wait_for_timeout(500)
        for i in range(60):
            page.keyboard.press("End")
            page.evaluate(f"() => {{ window.__measured = ({WATCH})({json.dumps(label)}); }}")
            page.keyboard.press("Backspace" if i % 2 else "9")
            found.append(page.evaluate("window.__measured"))  # the promise is awaited
    return found[5:]


def many_runs(client: Client, count: int = 5000) -> tuple[list[float], list[float]]:
    """The bench with thousands of runs: a page of it, and finding by words."""
    from server.apps.runs.models import Run, RunSetup

    source = Run.objects.get(pk=client.run)
    chosen = source.setups.get()
    made = []
    for i in range(count):
        name = f"{('Seal carrier', 'Pump shaft', 'Wear ring', 'Guide bush')[i % 4]} {i}"
        made.append(
            Run(drawing_number=f"LH-{10_000 + i}", name=name, machine_id=source.machine_id, units="metric",
                material_id=source.material_id, document=source.document, standing=source.standing,
                attention=i % 3, words=f"lh-{10_000 + i} {name} {source.words}".lower())
        )  # fmt: skip
    runs = Run.objects.bulk_create(made, batch_size=500)
    RunSetup.objects.bulk_create(
        (RunSetup(run=r, position=0, chuck_id=chosen.chuck_id, jaw_blank_id=chosen.jaw_blank_id) for r in runs),
        batch_size=500,
    )
    listed = times(60, lambda i: client.get(f"/api/runs?page={i % 20}"))
    found = times(60, lambda i: client.get(f"/api/runs?find=guide%20bush%20{i}"))
    return listed, found


def long_history(client: Client, count: int = 2000) -> tuple[list[float], list[float]]:
    """A run with thousands of edits: the history's first page, and the screen from click to lines."""
    from server.apps.runs.models import Edit, Run

    run = Run.objects.get(pk=client.run)
    by = run.edits.first().by
    Edit.objects.bulk_create(
        Edit(run=run, revision=run.revision + i + 1, path=PRESSURE, old=28.0, new=28.0 + i / 1000, key=uuid.uuid4(), by=by,
             label="Gauge pressure", moved={"cap": [800.0, 800.0 + i]})
        for i in range(count)
    )  # fmt: skip
    Run.objects.filter(pk=run.pk).update(revision=run.revision + count)
    client.revision = run.revision + count
    asked = times(60, lambda _: client.get(f"/api/runs/{run.pk}/history"))
    opened = []
    with browser_page() as page:
        page.goto(f"{URL}/runs/{run.pk}/part")
        page.wait_for_load_state("networkidle")
        for _ in range(12):
            link = page.get_by_role("link", name="draft")
            link.wait_for()
            opened.append(
                page.evaluate(
                    """() => new Promise((resolve) => {
                      const start = performance.now();
                      document.querySelector('a[href$="/history"]').click();
                      const look = () => document.querySelector('[data-revision]')
                        ? setTimeout(() => resolve(performance.now() - start), 0) : requestAnimationFrame(look);
                      look();
                    })"""
                )
            )
            page.go_back()
    return asked, opened[2:]


def cold_load(run: int) -> list[float]:
    """From asking for a plan with an empty cache until its answers are painted."""
    found = []
    for _ in range(8):
        with browser_page() as page:
            page.goto("about:blank")
            start = time.perf_counter()
            page.goto(f"{URL}/runs/{run}/force", wait_until="commit")
            page.locator('[data-answer="cap"]').wait_for()
            found.append((time.perf_counter() - start) * 1000)
    return found


def crowd(people: int = 50, seconds: float = 60) -> tuple[list[float], int]:
    """Many people, each editing a run of the bench every other second and asking for news; (edit times, errors)."""
    runs = [r["id"] for r in Client().get("/api/runs")["rows"]][:25]
    spent: list[float] = []
    errors: list[str] = []
    until = time.monotonic() + seconds

    def person(number: int) -> None:
        choose = random.Random(number)
        try:
            client = Client()
            path = (PRESSURE, "setups.0.clamp_rpm")[number % 2]
            while time.monotonic() < until:
                time.sleep(choose.uniform(1.0, 3.0))
                run = runs[number % len(runs)]
                start = time.perf_counter()
                try:
                    client.edit(choose.randrange(300), path, run)
                except urllib.error.HTTPError as answer:
                    if answer.code != 409:  # somebody else was at this fact just now: an answer, too
                        raise
                spent.append((time.perf_counter() - start) * 1000)
                client.get(f"/api/runs/{run}/pulse")
        except Exception as error:
            errors.append(repr(error))

    threads = [threading.Thread(target=person, args=[i]) for i in range(people)]
    for t in threads:
        t.start()
    for t in threads:
        t.join()
    for error in errors[:3]:
        say(f"error: {error}")
    return spent, len(errors)


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


MEASURED = {"plans": _plans, "many": _many, "history": _history, "load": _load, "crowd": _crowd}


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

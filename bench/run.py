"""Speed and memory, measured: `./anvil bench`. A table to read, never a test that fails."""

from __future__ import annotations

import gzip
import http.cookiejar
import json
import os
import statistics
import time
import urllib.request
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
    import django

    django.setup()
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
        self.run = next(r["id"] for r in self.get("/api/runs") if r["drawing_number"] == "LH-2041")
        self.revision = 0

    def get(self, path: str) -> Any:
        return json.loads(self.opener.open(URL + path).read())

    def post(self, path: str, body: Any) -> Any:
        headers = {"Content-Type": "application/json", "X-CSRFToken": self.token}
        request = urllib.request.Request(URL + path, json.dumps(body).encode(), headers)
        return json.loads(self.opener.open(request).read())

    def preview(self, i: int) -> None:
        self.post(f"/api/runs/{self.run}/preview", {"path": PRESSURE, "text": f"{20 + i / 40}"})

    def edit(self, i: int) -> None:
        import uuid

        body = {"path": PRESSURE, "text": f"{20 + i / 40}", "base_revision": self.revision, "key": str(uuid.uuid4())}
        self.revision = self.post(f"/api/runs/{self.run}/edits", body)["revision"]


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


def main() -> None:
    say("| what | median | 95th percentile | want |\n|---|---|---|---|")
    row("plan recompute in the core", core(), "≤ 5 ms median")
    client = Client()
    row("preview over HTTP on loopback", times(300, client.preview), "≤ 40 ms at 95 %")
    row("edit kept over HTTP on loopback", times(200, client.edit), "≤ 40 ms at 95 %")
    row("key press to changed pixels", key_to_pixels(client.run), "≤ 100 ms at 95 %")
    packed, whole = first_load()
    say(f"\nJavaScript on first load, gzip: {packed / 1000:.0f} kB (want ≤ 260); with fonts {whole / 1000:.0f} kB")
    say("Memory: " + ", ".join(f"{name} {size:.0f} MB" for name, size in memory()))
    reference = times(50, lambda _: sum(range(100_000)))
    say(f"This machine just now: adding 100 000 integers takes {statistics.median(reference):.1f} ms")


if __name__ == "__main__":
    main()

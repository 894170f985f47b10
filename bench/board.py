"""The board with hundreds of runs: asked for, and a run dragged along it, traced in the browser."""

from __future__ import annotations

from datetime import date, timedelta
from typing import Any

from bench.browser import browser_page
from bench.crowds import copies
from bench.measure import URL, Client, row, times, told

Event = dict[str, Any]  # of a trace
RUNS = 500
MOVES = 120
SCRIPT_AND_LAYOUT = {"EventDispatch", "FunctionCall", "UpdateLayoutTree", "Layout", "PrePaint"}


def _filled(run: int) -> None:
    """Hundreds of short runs on three machines, over about a month."""
    from server.apps.runs.models import Run
    from server.apps.shelf.models import Machine

    machines = list(Machine.objects.values_list("pk", flat=True))
    rows = list(Run.objects.filter(pk__in=copies(run, 20_000, RUNS)))
    for i, one in enumerate(rows):
        start = f"{date.today() + timedelta(i // 24)} {6 + i % 12:02d}:00"
        one.document = one.document | {"route": one.document["route"] | {"start": start}}
        one.standing = one.standing | {"minutes": {"setup": 30.0, "run": 90.0, "alone": 0.0}}
        one.machine_id = machines[i % len(machines)]
    Run.objects.bulk_update(rows, ["document", "standing", "machine_id"], batch_size=100)


def _work(events: list[Event]) -> list[float]:
    """Script and layout [ms] of each frame of the page's main thread, what lies within another counted once."""
    main = {
        (e["pid"], e["tid"]) for e in events if e["name"] == "thread_name" and e["args"].get("name") == "CrRendererMain"
    }
    mine = [e for e in events if (e["pid"], e["tid"]) in main]
    frames = sorted(e["ts"] for e in mine if e["name"] == "Commit")
    found, ends = dict.fromkeys(range(len(frames)), 0.0), 0.0
    for event in sorted((e for e in mine if e["name"] in SCRIPT_AND_LAYOUT and "dur" in e), key=lambda e: e["ts"]):
        if event["ts"] < ends:
            continue
        ends = event["ts"] + event["dur"]
        frame = sum(1 for f in frames if f < event["ts"])  # that ends with the next commit
        if frame < len(frames):
            found[frame] += event["dur"] / 1000
    return list(found.values())


def _dragged() -> list[float]:
    with browser_page() as page:
        page.goto(f"{URL}/board")
        page.wait_for_load_state("networkidle")
        block = page.locator("[data-may-move]").first
        box = block.bounding_box() or {"x": 0, "y": 0, "width": 10, "height": 10}
        told("runs on the board in the two weeks shown", str(page.locator("[data-may-move]").count()), "")
        session = page.context.new_cdp_session(page)
        events: list[Event] = []
        done: list[bool] = []
        session.on("Tracing.dataCollected", lambda data: events.extend(data["value"]))
        session.on("Tracing.tracingComplete", lambda _: done.append(True))
        session.send("Tracing.start", {"categories": "devtools.timeline,disabled-by-default-devtools.timeline"})
        page.mouse.move(box["x"] + 4, box["y"] + 8)
        page.mouse.down()
        for i in range(MOVES):
            page.mouse.move(box["x"] + 4 + 3 * i, box["y"] + 8)
        session.send("Tracing.end")
        while not done:
            page.wait_for_timeout(50)
        page.keyboard.press("Escape")
        return _work(events)


def board(client: Client) -> None:
    """The board over HTTP, and script and layout of a frame while dragging on it."""
    _filled(client.run)
    row(f"board with {RUNS} runs", times(40, lambda _: client.get("/api/board")), "≤ 200 ms")
    work = _dragged()
    row("script and layout of a frame while dragging on it", work, "≤ 10 ms at 95 %")
    told("frames traced", str(len(work)), "")

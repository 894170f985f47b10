"""Timing calls, and a client of the running application."""

from __future__ import annotations

import http.cookiejar
import json
import os
import statistics
import time
import urllib.request
import uuid
from collections.abc import Callable
from typing import Any

from commands.places import say

URL = os.environ["NOBLE_ANVIL_URL"]
PRESSURE = "setups.s1.force.pressure_bar"


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

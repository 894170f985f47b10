"""Timing calls, and a client of the running application."""

from __future__ import annotations

import gzip
import http.client
import http.cookiejar
import itertools
import json
import os
import statistics
import time
import urllib.error
import urllib.request
import uuid
from collections.abc import Callable
from io import BytesIO
from typing import Any
from urllib.parse import urlsplit

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


def late(found: list[float]) -> float:
    """The 95th percentile."""
    ordered = sorted(found)
    return ordered[max(0, int(len(ordered) * 0.95) - 1)]


def row(name: str, found: list[float], want: str) -> None:
    """A line of the table."""
    say(f"| {name} | {statistics.median(found):.1f} ms | {late(found):.1f} ms | {want} |")


def told(name: str, words: str, want: str) -> None:
    """A line of the table that is no time."""
    say(f"| {name} | {words} | | {want} |")


class Client:
    """A signed-in client of the API on loopback, on one connection as a browser has it."""

    def __init__(self) -> None:
        self.headers = {"Content-Type": "application/json", "Accept-Encoding": "gzip"}
        self._come_in()
        self.packed = self.size = 0  # bytes of the last answer as it came, and unpacked
        where = urlsplit(URL)
        self.connection = http.client.HTTPConnection(where.hostname or "", where.port, timeout=120)
        self.numbers = itertools.count()
        self.run = next(r["id"] for r in self.get("/api/runs?find=LH-2041")["rows"])
        self.revision = self.get(f"/api/runs/{self.run}/pulse")["revision"]

    def ask(self, method: str, path: str, body: Any = None) -> Any:
        """The answer to a request. Raises HTTPError where it is refused."""
        whole = self.fetch(path, body, method)
        return json.loads(whole) if whole else None

    def fetch(self, path: str, body: Any = None, method: str = "GET") -> bytes:
        """The same as it comes, which may be no JSON."""
        said = None if body is None else json.dumps(body).encode()
        self.connection.request(method, path, said, self.headers)
        answer = self.connection.getresponse()
        came = answer.read()
        whole = gzip.decompress(came) if answer.getheader("Content-Encoding") == "gzip" else came
        self.packed, self.size = len(came), len(whole)
        if answer.status >= 400:
            raise urllib.error.HTTPError(path, answer.status, whole[:200].decode(), answer.headers, BytesIO(whole))
        return whole

    def signed_in(self, name: str, word: str) -> None:
        """Sign in with name and password instead."""
        self.connection.request("DELETE", "/api/session", None, self.headers)
        self.connection.getresponse().read()
        self._come_in("/api/session", {"username": name, "password": word})

    def look_as(self, role: str) -> None:
        """Take another role of the demo."""
        self._come_in("/api/session/look-as", {"role": role})

    def _come_in(self, path: str = "", body: Any = None) -> None:
        """Open the page as a new browser does, and send something with its cookies."""
        jar = http.cookiejar.CookieJar()
        opener = urllib.request.build_opener(urllib.request.HTTPCookieProcessor(jar))
        opener.open(URL + "/").read()
        token = lambda: next(c.value for c in jar if "anvil-token" in c.name) or ""  # noqa: E731
        if path:
            headers = {"Content-Type": "application/json", "X-CSRFToken": token()}
            opener.open(urllib.request.Request(URL + path, json.dumps(body).encode(), headers)).read()
        self.headers |= {"X-CSRFToken": token(), "Cookie": "; ".join(f"{c.name}={c.value}" for c in jar)}

    def close(self) -> None:
        """End the connection."""
        self.connection.close()

    def get(self, path: str) -> Any:
        return self.ask("GET", path)

    def post(self, path: str, body: Any) -> Any:
        return self.ask("POST", path, body)

    def pressure(self) -> str:
        """A pressure that was never asked for."""
        return f"{20 + next(self.numbers) % 3000 / 1000 + time.monotonic() % 1 / 10_000:.6f}"

    def preview(self, _: int = 0) -> None:
        """A key pressed at Force."""
        self.post(f"/api/runs/{self.run}/preview", {"path": PRESSURE, "text": self.pressure(), "stop": "force-s1"})

    def edit(self, i: int, path: str = PRESSURE) -> None:
        """An edit kept."""
        body = {"path": path, "text": f"{20 + i / 40}", "base_revision": self.revision, "key": str(uuid.uuid4())}
        self.revision = self.post(f"/api/runs/{self.run}/edits", body | {"stop": "force-s1"})["revision"]

    def late_parts(self, names: list[str]) -> None:
        """Everything that comes into view later, of a preview."""
        entry = {"path": PRESSURE, "text": self.pressure()}
        self.post(f"/api/runs/{self.run}/parts", {"names": names, "entry": entry})

    def question(self, path: str, body: Any) -> Any:
        """A question that takes long, asked and not waited for."""
        return self.post(path, {"key": str(uuid.uuid4())} | body)

    def answered(self, question: Any) -> Any:
        """A question once it has ended."""
        while question["state"] in ("waiting", "working"):
            time.sleep(0.02)
            question = self.get(f"/api/questions/{question['key']}")
        return question

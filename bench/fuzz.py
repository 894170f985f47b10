"""Requests that nobody means, seeded: `./anvil fuzz [N] [--seed S]`. None of them may be answered by a failure.

Half of them are drawn over the API's own document, with bodies that fit it, nearly fit it, or do not fit at all; half
over the paths of plans: every fact of the demo's plans with figures, words and signs that a person, a broken program or
an attacker might send. What is answered is a plain answer or a problem document of 4xx, never 5xx.
"""

from __future__ import annotations

import argparse
import http.client
import json
import random
import sys
import threading
import time
from collections import Counter
from dataclasses import dataclass, field
from typing import Any
from urllib.parse import quote, urlencode, urlsplit

from bench.measure import URL, Client
from bench.odd import Fitting, Shape, deep, odd
from commands.places import ROOT, say

ROLES = ("planner", "owner", "operator")
SECONDS_MOST = 3600
PROBLEM = "application/problem+json"
# Becoming nobody, and taking away what is asked about, would end the test; server/config/tests asks these.
LEFT_OUT = {
    ("delete", "/api/session"),
    ("delete", "/api/session/everywhere"),
    ("post", "/api/session/look-as"),
    ("patch", "/api/people/{person_id}"),
    ("delete", "/api/runs/{run_id}"),
}
METHODS = ("GET", "POST", "PUT", "PATCH", "DELETE", "OPTIONS", "HEAD", "TRACE", "BREW")
HEADERS = (
    {},
    {},
    {},
    {"Script-Name": "/elsewhere"},
    {"Content-Type": "text/xml"},
    {"Accept-Language": "x" * 4000},
    {"Content-Encoding": "gzip"},
    {"X-HTTP-Method-Override": "DELETE"},
)


@dataclass
class Told:
    """What was answered, by status, and what no answer may be."""

    statuses: Counter[int] = field(default_factory=Counter)
    wrong: list[str] = field(default_factory=list)
    sent: int = 0


@dataclass(eq=False)  # a thread is itself, not its values
class Fuzzer(threading.Thread):
    """One client that sends odd requests without pause."""

    seed: int
    count: int
    until: float
    document: Shape
    role: str
    told: Told = field(default_factory=Told)

    def __post_init__(self) -> None:
        super().__init__(daemon=True)
        self.choose = random.Random(self.seed)

    def run(self) -> None:
        self.client = Client()
        where = urlsplit(URL)
        self.at = (where.hostname or "", where.port or 80)
        self.connection = http.client.HTTPConnection(*self.at, timeout=60)
        self.known = self._known()  # as planner: whoever has planned knows all of it
        self.client.look_as(self.role)
        self.fitting = Fitting(self.document["components"]["schemas"], self.known, self.choose)
        self.operations = sorted(
            (method, path)
            for path, methods in self.document["paths"].items()
            for method in methods
            if (method, path) not in LEFT_OUT
        )
        while self.told.sent < self.count and time.monotonic() < self.until:
            self._of_a_plan() if self.choose.random() < 0.5 else self._of_the_document()

    def _known(self) -> dict[str, list[Any]]:
        """Names that mean something here, so that requests come further than the door."""
        rows = self.client.get("/api/runs")["rows"]
        runs = [r["id"] for r in rows]
        self.paths: dict[int, list[str]] = {run: self._facts(run) for run in runs}
        shelf = self.client.get("/api/shelf")
        return {
            "run_id": [*runs, 0, 999_999, -1],
            "setup": ["s1", "s2", "s9", "1"],
            "cut": ["c1", "c2", "c99"],
            "key": [i["key"] for kind in shelf for i in kind["items"]][:60],
            "kind": [kind["kind"] for kind in shelf],
            "name": ["cut", "thread", "real-contact", "Skim"],
            "units": ["metric", "inch"],
            "path": [path for paths in self.paths.values() for path in paths] + ["setups.s1.cuts", "setups", "plan"],
            "base_revision": [0, 1, 5, 2**31 - 1],
            "field": ["name", "max_rpm", "chucks", "chuck", "blank", "diameter_mm", "stock", "kind", "material"],
            "text": ["24", "24 bar", "8 thou", "1 7/16", '{"version": 1}', "name;max_rpm\nLathe;3000", "0\nSECTION\n"],
        }

    def _facts(self, run: int) -> list[str]:
        """The paths of a plan's facts."""
        parts = self.client.get(f"/api/runs/{run}/plan?whole=true")["parts"]
        return [
            fact["path"] for part in parts if part.get("stop") for fact in part["stop"]["facts"] if fact.get("path")
        ]

    def _of_a_plan(self) -> None:
        """An entry at a fact of a plan, kept or only looked at."""
        choose = self.choose
        run = choose.choice(list(self.paths))
        path = choose.choice(self.paths[run] or ["part.quantity"])
        if choose.random() < 0.1:
            path = choose.choice(
                (path[:-1], f"{path}.x", path.replace("s1", "s²"), path.replace(".", ".."), odd(choose))
            )
        body: dict[str, Any] = {"path": path, "units": choose.choice(("metric", "inch"))}
        body[choose.choice(("text", "text", "value"))] = odd(choose)
        place = choose.choice(("preview", "preview", "edits", "parts"))
        if place == "edits":
            body |= {"base_revision": 2**31 - 1, "key": f"{choose.getrandbits(128):032x}"}
        if place == "parts":
            body = {"names": [choose.choice(("helps:force-s1", "stop:cuts-s1", "x", "\x00"))], "entry": body}
        self._send("POST", f"/api/runs/{run}/{place}", self._written(body))

    def _of_the_document(self) -> None:
        """An operation of the document, with something like what it asks for."""
        choose = self.choose
        method, path = choose.choice(self.operations)
        operation = self.document["paths"][path][method]
        query = {}
        for given in operation.get("parameters", ()):
            value = self.fitting.value(given["schema"], given["name"])
            if given["in"] == "path":
                text = str(value) or "x"
                path = path.replace(f"{{{given['name']}}}", quote(text.encode(errors="surrogatepass"), safe=""))
            elif choose.random() < 0.7:
                query[given["name"]] = str(value).encode(errors="surrogatepass")
        body = None
        content = operation.get("requestBody", {}).get("content", {})
        if content:
            body = self._written(self.fitting.value(content["application/json"]["schema"]))
        if choose.random() < 0.03 and not path.startswith("/api/session"):
            method = choose.choice(METHODS)
        self._send(method.upper(), path + (f"?{urlencode(query)}" if query else ""), body)

    def _written(self, body: Any) -> bytes:
        """A body as it is sent: as JSON, and now and then as something else."""
        drawn = self.choose.random()
        if drawn < 0.02:
            return deep(self.choose).encode()
        if drawn < 0.04:
            return self.choose.randbytes(self.choose.choice((1, 40, 3000)))
        said = json.dumps(body).encode()
        return said[: self.choose.randrange(len(said) + 1)] if drawn < 0.06 else said

    def _send(self, method: str, path: str, body: bytes | None) -> None:
        headers = self.client.headers | self.choose.choice(HEADERS)
        self.told.sent += 1
        try:
            self.connection.request(method, path[:6000], body, headers)
            answer = self.connection.getresponse()
            said = answer.read()
        except (OSError, http.client.HTTPException, ValueError) as error:
            self.connection.close()
            self.connection = http.client.HTTPConnection(*self.at, timeout=60)
            if not isinstance(error, (ConnectionError, http.client.HTTPException)):
                self.told.wrong.append(f"{method} {path[:200]}: {error!r}")
            return
        self.told.statuses[answer.status] += 1
        is_told = answer.getheader("Content-Type", "").startswith(PROBLEM) or answer.status in (413, 414, 431)
        if answer.status >= 500 or (
            answer.status >= 400 and method != "HEAD" and path.startswith("/api/") and not is_told
        ):
            self.told.wrong.append(f"{answer.status} {method} {path[:300]} {(body or b'')[:300]!r} → {said[:200]!r}")


def fuzz(count: int, seed: int) -> int:
    """Send so many requests; gives 0 where none was answered by a failure."""
    document = json.loads((ROOT / "docs" / "openapi.json").read_text())
    began = time.monotonic()
    each = -(-count // len(ROLES))
    clients = [Fuzzer(seed * 1000 + i, each, began + SECONDS_MOST, document, role) for i, role in enumerate(ROLES)]
    for client in clients:
        client.start()
    while any(c.is_alive() for c in clients):
        for client in clients:
            client.join(60)
        say(f"{sum(c.told.sent for c in clients)} requests in {time.monotonic() - began:.0f} s")
    sent, statuses = sum(c.told.sent for c in clients), sum((c.told.statuses for c in clients), Counter())
    wrong = [line for c in clients for line in c.told.wrong]
    say(f"{sent} requests in {time.monotonic() - began:.0f} s, seed {seed}: {dict(sorted(statuses.items()))}")
    for line in wrong[:20]:
        say(f"WRONG {line}")
    if sent < count:
        say(f"Only {sent} of {count} were sent within {SECONDS_MOST / 60:.0f} minutes.")
    say("None was answered by a failure." if not wrong else f"{len(wrong)} were answered by a failure.")
    return 1 if wrong or sent < count or not statuses[200] else 0


def main() -> int:
    parser = argparse.ArgumentParser(prog="./anvil fuzz", description=__doc__)
    parser.add_argument("requests", nargs="?", type=int, default=2000)
    parser.add_argument("--seed", type=int, default=1)
    given = parser.parse_args()
    if not 1 <= given.requests <= 200_000:
        parser.error("give 1 to 200 000 requests")
    return fuzz(given.requests, given.seed)


if __name__ == "__main__":
    sys.exit(main())

"""Kill server, workers and database at random under a stream of edits, then prove that nothing was lost.

`./anvil torture [--kills N]`: bounded, on loopback, with a real `./anvil start` in a folder of its own that is thrown
away. Every edit that was acknowledged must be in the history once, the plan must be what its history says, and the
bench must stand as the plan does; every question that was asked must have come to an end; each kill must be noticed and
mended.
"""

from __future__ import annotations

import argparse
import http.client
import http.cookiejar
import json
import os
import random
import shutil
import signal
import statistics
import sys
import threading
import time
import urllib.error
import urllib.request
import uuid
from collections import Counter, defaultdict
from dataclasses import dataclass, field
from typing import Any

import psutil

from bench.running import PATIENCE_S, Running, kill
from commands.cluster import Cluster
from commands.places import DATA, HERE, environment, say

CLIENTS = 2
# What is killed, and how often against the others: what takes long to come back more seldom.
KILLED = {"server": 2, "process": 3, "worker": 3, "database": 3, "start": 1, "computing": 2}
IN_PAIRS = 0.6  # of the kills that follow the first of each: a second one strikes while the first is being mended
# Each of these starts the other again: with both gone nothing of it is left, as after a power cut (what_stop_leaves).
# The same holds of a keeper that is killed while it takes over from the server that began it.
KEEP_EACH_OTHER = {"start", "server"}
STRUCK_AGAIN = 3  # times the patience with one mending that a stream has: a kill every three seconds strikes it, too
NOTICED = {"worker": "long questions had ended", "server": "web server had ended", "database": "The database had ended"}
# Never the value that is there already: an edit that changes nothing is acknowledged and rightly leaves no entry.
FACTS = {
    "setups.s1.force.pressure_bar": lambda r: f"{r.uniform(20, 29):.9f}",
    "setups.s1.clamp_rpm": lambda r: f"{r.uniform(200, 900):.9f}",
    "part.edge_mm": lambda r: f"{r.uniform(0.1, 0.5):.9f}",
    "part.face_stock_mm": lambda r: f"{r.uniform(1, 3):.9f}",
}


@dataclass(eq=False)  # a thread is itself, not its values
class Stream(threading.Thread):
    """One person who edits without pause, and sends an edit again under its key until it is answered."""

    url: str
    seed: int
    stop: threading.Event
    acknowledged: dict[str, tuple[int, str]] = field(default_factory=dict)
    questions: list[str] = field(default_factory=list)
    again: int = 0
    wrong: list[str] = field(default_factory=list)

    def __post_init__(self) -> None:
        super().__init__(daemon=True)
        self.choose = random.Random(self.seed)
        self.jar = http.cookiejar.CookieJar()
        self.opener = urllib.request.build_opener(urllib.request.HTTPCookieProcessor(self.jar))

    def _ask(self, path: str, body: Any = None) -> Any:
        token = next((c.value for c in self.jar if "anvil-token" in c.name), "") or ""
        data = None if body is None else json.dumps(body).encode()
        headers = {"Content-Type": "application/json", "X-CSRFToken": token}
        with self.opener.open(urllib.request.Request(self.url + path, data, headers), timeout=10) as answer:
            return json.loads(answer.read())

    def run(self) -> None:
        """Edit until told to stop; the edit under way is still brought to its answer."""
        try:
            self._until_answered(lambda: self.opener.open(self.url + "/", timeout=10).read())
            runs = self._until_answered(lambda: self._ask("/api/runs"))["rows"]
            while not self.stop.is_set():
                self._edit(self.choose.choice(runs)["id"])
                if self.choose.random() < 0.1:
                    self._ask_long(self.choose.choice(runs)["id"])
        except Exception as error:
            self.wrong.append(repr(error))

    def _until_answered(self, ask: Any) -> Any:
        """Ask until it is answered. Each kill may strike the very request again, so a stream bears several of them."""
        began, came = time.monotonic(), Counter[str]()
        while True:
            try:
                return ask()
            except urllib.error.HTTPError as error:
                if error.code < 500:
                    raise
                # 500s other than the API's own “not just now” are faults of ours.
                if error.code not in (502, 503, 504):
                    self.wrong.append(f"{error.code} {error.read()[:300]!r}")
                came[str(error.code)] += 1
            except OSError as error:
                came[repr(getattr(error, "reason", error))[:60]] += 1
            except (http.client.HTTPException, json.JSONDecodeError):
                came["broke off"] += 1
            if time.monotonic() - began > STRUCK_AGAIN * PATIENCE_S:
                raise TimeoutError(f"no answer in {time.monotonic() - began:.0f} s: {dict(came)}")
            self.again += 1
            time.sleep(0.15)

    def _ask_long(self, run: int) -> None:
        """A question that a worker answers; nobody waits for it here."""
        key = str(uuid.uuid4())
        place = f"/api/runs/{run}/sides/s1/checks/real-contact"
        try:
            self._until_answered(lambda: self._ask(place, {"key": key}))
        except urllib.error.HTTPError as error:
            if error.code not in (409, 422, 429):  # too many wait, or the plan has nothing to solve
                raise
            return
        self.questions.append(key)

    def _edit(self, run: int) -> None:
        path = self.choose.choice(list(FACTS))
        key = str(uuid.uuid4())
        base = self._until_answered(lambda: self._ask(f"/api/runs/{run}/pulse"))["revision"]
        body = {"path": path, "text": FACTS[path](self.choose), "base_revision": base, "key": key}
        try:
            self._until_answered(lambda: self._ask(f"/api/runs/{run}/edits", body))
        except urllib.error.HTTPError as error:
            if error.code not in (409, 422):  # somebody was first, or the plan refuses it: that is an answer, too
                raise
            return
        self.acknowledged[key] = (run, path)


def prove(streams: list[Stream]) -> list[str]:
    """What is not as it must be; empty when all is."""
    import django

    django.setup()
    from calc.plan.document import Document
    from calc.plan.paths import with_value
    from calc.plan.standing import standing
    from calc.reading import read, write
    from server.apps.demo import runs as demo
    from server.apps.demo.actions import ready
    from server.apps.runs.convert.document import document_of, shelf_of
    from server.apps.runs.models import Edit, Run
    from server.apps.runs.queries.find import runs
    from server.apps.shelf.queries import current

    found = [f"stream: {w}" for s in streams for w in s.wrong]
    kept = {str(e.key): e for e in Edit.objects.all()}
    for stream in streams:
        for key, (run_id, path) in stream.acknowledged.items():
            edit = kept.get(key)
            if edit is None:
                found.append(f"acknowledged and not there: {key}")
            elif (edit.run_id, edit.path) != (run_id, path):
                found.append(f"acknowledged as another: {key}")
    documents = {r["drawing_number"]: write(read(Document, ready(r)["document"])) for r in demo.RUNS}
    for run in runs():
        edits = list(Edit.objects.filter(run=run).order_by("revision"))
        if [e.revision for e in edits] != list(range(1, run.revision + 1)):
            found.append(f"{run}: revisions have gaps")
        document = documents[run.drawing_number]
        for edit in edits:
            document = with_value(document, edit.path, edit.new)
        if document != run.document:
            found.append(f"{run}: the plan is not what its history says")
        now = standing(document_of(run), shelf_of(run, current()))
        if run.standing["headlines"] != now.headlines or run.standing["verdict"] != now.verdict:
            found.append(f"{run}: the bench does not stand as the plan does")
    if Run.objects.count() != len(documents):
        found.append("runs were lost or made")
    return found


def questions_left(streams: list[Stream]) -> list[str]:
    """Questions that were taken and never came to an end."""
    from server.apps.questions.models import Question

    asked = [key for stream in streams for key in stream.questions]
    until = time.monotonic() + 2 * PATIENCE_S
    while time.monotonic() < until:
        left = Question.objects.filter(pk__in=asked, state__in=("waiting", "working")).values_list("pk", "state")
        if not left:
            return []
        time.sleep(0.5)
    return [f"question {key} is still {state}" for key, state in left]


def _order(kills: int, choose: random.Random) -> list[str]:
    """What is killed one after the other: each thing once, then what chance wants."""
    return [*KILLED, *choose.choices(list(KILLED), list(KILLED.values()), k=kills)][:kills]


def _next(order: list[str], choose: random.Random, *, paired: bool) -> list[str]:
    """Take what is killed next off the order: one thing, or two that strike shortly one after the other."""
    pair = order[:2]
    alone = not paired or choose.random() >= IN_PAIRS or ("start" in pair and set(pair) <= KEEP_EACH_OTHER)
    together = pair[:1] if alone else pair
    del order[: len(together)]
    return together


def what_was_said(running: Running, struck: Counter[str]) -> list[str]:
    """Where the end of something was mended without a word; what was said before the last new keeper is gone."""
    said = running.words()
    if struck["start"]:
        return []
    return [f"nothing was said of {n}" for n, w in NOTICED.items() if struck[n] and w not in said]


def what_stop_leaves(running: Running) -> list[str]:
    """What ./anvil status and stop do not see or end, where what keeps the application is killed with its server."""
    found = []
    if running.command("status")[0] != 0:
        found.append("status does not see it run")
    pids = running.pids() | {"postmaster": running.postmaster()}
    os.killpg(pids["server"], signal.SIGSTOP)  # so that it cannot have the application kept again
    kill(pids["pid"])
    os.killpg(pids["server"], signal.SIGKILL)
    running.until(lambda: not running.answers(), "the server was killed and answers")
    code, told = running.command("status")
    if code != 1 or "has ended" not in told:
        found.append(f"status does not see that it has ended: {told}")
    code, told = running.command("stop")
    if code != 0 or "left running" not in told:
        found.append(f"stop did not end what was left: {told}")
    left = [f"{name} {pid}" for name, pid in pids.items() if name != "port" and _lives(pid)]
    code, told = running.command("status")
    if left or code != 3:
        found.append(f"stop left {left}; status: {told}")
    return found


def _lives(pid: int) -> bool:
    return psutil.pid_exists(pid) and psutil.Process(pid).status() != psutil.STATUS_ZOMBIE


def _told(name: str, seconds: list[float]) -> str:
    return f"{len(seconds)} of {name} {statistics.median(seconds):.1f} and {max(seconds):.1f} s"


def torture(kills: int, seed: int) -> int:
    """Kill `kills` times at random moments; gives 0 where nothing was lost."""
    choose = random.Random(seed)
    stop = threading.Event()
    if DATA == HERE:
        raise SystemExit("Say in NOBLE_ANVIL_DATA where a shop may be made and thrown away.")
    running = Running(DATA)
    streams = [Stream(f"http://127.0.0.1:{running.port}", seed + i, stop) for i in range(CLIENTS)]
    took: dict[str, list[float]] = defaultdict(list)
    struck: Counter[str] = Counter()
    found: list[str] = []
    began = time.monotonic()
    try:
        for stream in streams:
            stream.start()
        order, told = _order(kills, choose), 0
        while order:
            together = _next(order, choose, paired=len(order) + len(KILLED) <= kills)
            time.sleep(choose.uniform(0.05, 0.6))
            at = time.monotonic()
            running.kill(*together, apart_s=choose.uniform(0, 1.0))
            struck.update(together)
            took["two at once" if len(together) > 1 else together[0]].append(time.monotonic() - at)
            if (kills - len(order)) // 20 > told:
                told = (kills - len(order)) // 20
                say(f"{kills - len(order)} kills, {sum(len(s.acknowledged) for s in streams)} edits acknowledged")
            if not any(s.is_alive() for s in streams):
                break
        time.sleep(0.5)
        stop.set()
        for stream in streams:
            stream.join(PATIENCE_S * 2)
        cluster = Cluster("pg")
        cluster.port = cluster.running_port() or 0
        os.environ.update(environment(**cluster.environment()))
        found = prove(streams) + questions_left(streams) + what_was_said(running, struck)
        found += [f"nobody's: {stray}" for stray in running.strays()] + what_stop_leaves(running)
    except TimeoutError as error:
        found = [str(error)]
    finally:
        stop.set()
        folder = Cluster("pg").folder
        running.close()
        for gone in (folder, DATA):
            shutil.rmtree(gone, ignore_errors=True)
    acknowledged = sum(len(s.acknowledged) for s in streams)
    say(
        f"{struck.total()} kills in {time.monotonic() - began:.0f} s; back again, median and "
        f"longest: {', '.join(_told(name, s) for name, s in took.items() if s)}; "
        f"{acknowledged} edits acknowledged, {sum(s.again for s in streams)} sent again; "
        f"{sum(len(s.questions) for s in streams)} long questions."
    )
    if acknowledged == 0:
        found.append("not one edit was acknowledged")
    for line in found[:20]:
        say(f"WRONG {line}")
    say("Every acknowledged edit is there once, and no half edit is." if not found else "Something was lost.")
    return 1 if found else 0


def main() -> int:
    signal.signal(signal.SIGTERM, lambda *_: sys.exit(143))  # a polite end still ends what was started here
    parser = argparse.ArgumentParser(prog="./anvil torture", description=__doc__)
    parser.add_argument("--kills", type=int, default=200)
    parser.add_argument("--seed", type=int, default=1)
    given = parser.parse_args()
    if not 1 <= given.kills <= 1000:
        parser.error("give 1 to 1000 kills")
    return torture(given.kills, given.seed)


if __name__ == "__main__":
    sys.exit(main())

"""Kill the server and the database at random under a stream of edits, then prove that nothing was lost.

`./anvil torture [--kills N]`: bounded, on loopback, with a cluster of its own that is thrown away. Every edit
that was acknowledged must be in the history once, and the plan must be what its history says: no half edit.
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
import subprocess
import sys
import threading
import time
import urllib.error
import urllib.request
import uuid
from collections import Counter
from dataclasses import dataclass, field
from typing import Any

from commands.cluster import Cluster, free_port
from commands.places import environment, say
from commands.preparing import prepare_database
from commands.processes import end, serve, wait_until_answering

NAME = "torture-pg"
CLIENTS = 3
# Never the value that is there already: an edit that changes nothing is acknowledged and rightly leaves no entry.
FACTS = {
    "setups.s1.force.pressure_bar": lambda r: f"{r.uniform(20, 29):.9f}",
    "setups.s1.clamp_rpm": lambda r: f"{r.uniform(200, 900):.9f}",
    "part.edge_mm": lambda r: f"{r.uniform(0.1, 0.5):.9f}",
    "part.face_stock_mm": lambda r: f"{r.uniform(1, 3):.9f}",
}
SECONDS_MOST = 45.0  # a place that does not come back in this time is a failure, not something to wait for


@dataclass
class Shop:
    """The application under torture: a durable cluster and a server, each of which can be killed."""

    cluster: Cluster
    port: int
    env: dict[str, str]
    server: subprocess.Popen[bytes] | None = None

    def start_server(self) -> None:
        self.server = serve(self.port, self.env, "--processes", "1")
        wait_until_answering(self.port, self.server, SECONDS_MOST)

    def kill_server(self) -> None:
        assert self.server is not None
        os.killpg(self.server.pid, signal.SIGKILL)
        self.server.wait()
        self.start_server()

    def kill_database(self) -> None:
        pid = int((self.cluster.folder / "postmaster.pid").read_text().split()[0])
        os.kill(pid, signal.SIGKILL)
        told = self.cluster.start(self.cluster.port)
        if "not clean" not in told:
            raise RuntimeError(f"a killed database started as if nothing had been: {told!r}")

    def close(self) -> None:
        if self.server is not None:
            end(self.server)
        self.cluster.stop()
        shutil.rmtree(self.cluster.folder, ignore_errors=True)


def open_shop() -> Shop:
    """A fresh shop with the demo, on a cluster that keeps what it acknowledges."""
    cluster = Cluster(NAME)
    if cluster.running_port() is not None:
        cluster.stop()
    shutil.rmtree(cluster.folder, ignore_errors=True)
    cluster.start()
    env = environment(**cluster.environment())
    shop = Shop(cluster, free_port(), env)
    try:
        prepare_database(cluster, env)
        shop.start_server()
    except BaseException:
        shop.close()
        raise
    return shop


@dataclass(eq=False)  # a thread is itself, not its values
class Stream(threading.Thread):
    """One person who edits without pause, and sends an edit again under its key until it is answered."""

    url: str
    seed: int
    stop: threading.Event
    acknowledged: dict[str, tuple[int, str]] = field(default_factory=dict)
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
        except Exception as error:
            self.wrong.append(repr(error))

    def _until_answered(self, ask: Any) -> Any:
        until = time.monotonic() + SECONDS_MOST
        while True:
            try:
                return ask()
            except urllib.error.HTTPError as error:
                if error.code < 500:
                    raise
                # 500s other than the API's own “not just now” are faults of ours.
                if error.code not in (502, 503, 504):
                    self.wrong.append(f"{error.code} {error.read()[:300]!r}")
            except OSError:
                pass
            except (http.client.HTTPException, json.JSONDecodeError):
                pass  # the answer broke off
            if time.monotonic() > until:
                raise TimeoutError("no answer")
            self.again += 1
            time.sleep(0.05)

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


def torture(kills: int, seed: int) -> int:
    """Kill `kills` times at random moments; gives 0 where nothing was lost."""
    choose = random.Random(seed)
    stop = threading.Event()
    shop = open_shop()
    streams: list[Stream] = []
    killed: Counter[str] = Counter()
    began = time.monotonic()
    try:
        streams += [Stream(f"http://127.0.0.1:{shop.port}", seed + i, stop) for i in range(CLIENTS)]
        for stream in streams:
            stream.start()
        for i in range(kills):
            time.sleep(choose.uniform(0.05, 1.2))
            what = choose.choice(["server", "database"])
            shop.kill_server() if what == "server" else shop.kill_database()
            killed[what] += 1
            if (i + 1) % 20 == 0:
                say(f"{i + 1} kills, {sum(len(s.acknowledged) for s in streams)} edits acknowledged")
            if not any(s.is_alive() for s in streams):
                break
        time.sleep(0.5)
        stop.set()
        for stream in streams:
            stream.join(SECONDS_MOST * 2)
        os.environ.update(shop.env)
        found = prove(streams)
    finally:
        stop.set()
        shop.close()
    acknowledged = sum(len(s.acknowledged) for s in streams)
    say(
        f"{killed['server']} kills of the server, {killed['database']} of the database in "
        f"{time.monotonic() - began:.0f} s; "
        f"{acknowledged} edits acknowledged, {sum(s.again for s in streams)} sent again."
    )
    if acknowledged == 0:
        found.append("not one edit was acknowledged")
    for line in found[:20]:
        say(f"WRONG {line}")
    say("Every acknowledged edit is there once, and no half edit is." if not found else "Something was lost.")
    return 1 if found else 0


def main() -> int:
    parser = argparse.ArgumentParser(prog="./anvil torture", description=__doc__)
    parser.add_argument("--kills", type=int, default=200)
    parser.add_argument("--seed", type=int, default=1)
    given = parser.parse_args()
    if not 1 <= given.kills <= 1000:
        parser.error("give 1 to 1000 kills")
    return torture(given.kills, given.seed)


if __name__ == "__main__":
    sys.exit(main())

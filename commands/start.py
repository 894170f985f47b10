"""Set up, start the database and the server, keep them running, and stop all again."""

from __future__ import annotations

import argparse
import fcntl
import json
import os
import signal
import subprocess
import sys
import time
from typing import IO, Any

from commands.cluster import Cluster
from commands.logs import bound
from commands.places import DATA, PYTHON, ROOT, Stop, environment, open_data, say
from commands.preparing import DEMO, REAL, prepare_database, refuse_full, refuse_taken, secret
from commands.processes import (
    Worker,
    answers,
    end,
    end_left,
    end_orphan,
    is_ours,
    serve,
    serve_gauge,
    serve_instruments,
    serve_listener,
    serve_machine,
    serve_worker,
)
from commands.setup import ensure

LOCK = DATA / "start.lock"
Known = dict[str, Any]  # what a running application wrote of itself: its processes by name, and its port
LETS_GO_S = 5.0  # of its port, by a server that was ended
WATCH_S = 0.5  # between two looks whether all is running
READY_S = 60.0
BROKEN_S = 6.0  # what ends sooner than this after it began, again and again, is broken and not started for ever
BROKEN_TIMES = 5


def take_lock() -> IO[str]:
    """The lock that one running application holds. Says where it is when it is taken."""
    open_data()
    file = os.fdopen(os.open(LOCK, os.O_RDWR | os.O_CREAT, 0o600), "r+")
    try:
        fcntl.flock(file, fcntl.LOCK_EX | fcntl.LOCK_NB)
    except BlockingIOError:
        known = read_lock(file)
        where = f" at http://127.0.0.1:{known['port']}" if known.get("port") else ""
        raise Stop(f"Noble Anvil is already running{where}. ./anvil stop ends it.") from None
    return file


def read_lock(file: IO[str]) -> Known:
    """What the running application wrote of itself; nothing where it was killed while it wrote."""
    file.seek(0)
    try:
        known = json.loads(file.read() or "{}")
    except json.JSONDecodeError:
        return {}
    return known if isinstance(known, dict) else {}


def _write(file: IO[str], **known: Any) -> None:
    file.seek(0)
    file.truncate()
    file.write(json.dumps(known))
    file.flush()


def start(arguments: list[str]) -> int:
    """./anvil start"""
    parser = argparse.ArgumentParser(prog="./anvil start", description="Set up and serve the application.")
    parser.add_argument("--port", type=int, default=8000)
    parser.add_argument("--no-demo", action="store_true", help="begin a real shop, in which people sign in")
    given = parser.parse_args(arguments)
    if not 1 <= given.port <= 65_535:
        raise Stop("A port is a number from 1 to 65535.")
    with take_lock() as lock:
        known = read_lock(lock)
        orphan = known.get("server") if is_ours(known.get("server"), "server.serve") else None
        if orphan is None or known.get("port") != given.port:
            refuse_taken(given.port)
        refuse_full(DATA)
        _write(lock, pid=os.getpid(), port=given.port, server=orphan)
        ensure()
        return Keeper(lock, given.port, orphan).run(REAL if given.no_demo else "")


class Keeper:
    """What stands beside the running application: whatever of it ends is started again, and that is said."""

    def __init__(self, lock: IO[str], port: int, orphan: int | None) -> None:
        # A server that an earlier start left goes on answering until there is one to take its place.
        self.lock, self.port, self.orphan = lock, port, orphan
        self.cluster = Cluster("pg")
        self.env: dict[str, str] = {}
        self.children: dict[str, subprocess.Popen[bytes]] = {}
        self.worker: Worker | None = None
        self.began: dict[str, float] = {}
        self.short: dict[str, int] = {}

    def run(self, wanted: str) -> int:
        """Serve until told to stop."""

        def stop(*_: object) -> None:
            raise KeyboardInterrupt

        for name in (signal.SIGTERM, signal.SIGHUP):
            signal.signal(name, stop)
        try:
            told = self.cluster.start()
            if told:
                say(told)
            self._begin(wanted)
            self._until_ready()
            while True:
                self._look()
                time.sleep(WATCH_S)
        except KeyboardInterrupt:
            say("\nStopping …")
            return 0
        finally:
            for name in (signal.SIGINT, signal.SIGTERM, signal.SIGHUP):
                signal.signal(name, signal.SIG_IGN)
            for child in self.children.values():
                end(child)
            end_orphan(self.orphan)  # told to stop before it took over, it leaves none of it running
            self.cluster.stop()

    def _begin(self, wanted: str) -> None:
        kind = self._prepared(wanted)
        told = end_orphan(self.orphan)
        if told:
            say(told)
            refuse_taken(self.port, LETS_GO_S)
        self.orphan = None
        simulated = ("gauge", "instruments", "machine") if kind == DEMO else ()
        for name in (*simulated, "server", "worker"):
            self._start(name)
        if self.env.get("NOBLE_ANVIL_MACHINES"):
            self._start("listener")

    def _prepared(self, wanted: str) -> str:
        """Bring the database up; where it ends meanwhile it is started again, and brought up once more."""
        for tries_left in reversed(range(BROKEN_TIMES)):
            self.env = environment(**self.cluster.environment())
            self.env["NOBLE_ANVIL_SECRET_KEY"] = secret()
            try:
                return prepare_database(self.cluster, self.env, wanted)
            except (Stop, subprocess.SubprocessError, OSError):
                time.sleep(1)  # what was killed lingers about a second
                if self.cluster.is_alive() or tries_left == 0:
                    raise
                say("The database had ended; it is started again.")
                self.cluster.start()
        raise AssertionError  # the last try returns or raises

    def _until_ready(self) -> None:
        """Wait until the API answers and long questions find somebody; what ends before is started again as ever."""
        until = time.monotonic() + READY_S
        while not (answers(self.port) and self._is_awake()):
            if time.monotonic() > until:
                raise Stop("The server did not answer in time; its words are above.")
            self._look()
            time.sleep(0.05)
        say(f"Noble Anvil is ready: http://127.0.0.1:{self.port}   (Ctrl-C stops it)")

    def _is_awake(self) -> bool:
        return self.worker is not None and self.worker.is_awake()

    def _wake(self) -> Worker:
        self.worker = serve_worker(self.env)
        return self.worker

    def _start(self, name: str) -> None:
        made = {
            "gauge": lambda: serve_gauge(self.env),
            "instruments": lambda: serve_instruments(self.env),
            "machine": lambda: serve_machine(self.env),
            "listener": lambda: serve_listener(self.env),
            "server": lambda: serve(self.port, self.env, "--kept", str(os.getpid())),
            "worker": self._wake,
        }
        self.children[name] = made[name]()
        self.began[name] = time.monotonic()
        pids = {other: child.pid for other, child in self.children.items()}
        _write(self.lock, pid=os.getpid(), port=self.port, **pids)

    def _look(self) -> None:
        """Start again what has ended."""
        if not self.cluster.is_alive():
            say("The database had ended; it is started again.")
            if self.cluster.ended_by_itself():
                self._count("database")
            told = self.cluster.start(self.cluster.port)
            self.began["database"] = time.monotonic()
            say(told or "The database is there again.")
        for name, child in list(self.children.items()):
            if child.poll() is not None:
                say(f"The {TITLES[name]} had ended; it is started again.")
                # Killed from without, or ended with its database, it is not broken.
                if child.returncode != -signal.SIGKILL and not self._is_new("database"):
                    self._count(name)
                self._start(name)
        bound(self.cluster)

    def _is_new(self, name: str) -> bool:
        """It was started again only just now."""
        return time.monotonic() - self.began.get(name, 0.0) < BROKEN_S

    def _count(self, name: str) -> None:
        """Stop where something ends each time as soon as it was started: starting it for ever mends nothing."""
        self.short[name] = self.short.get(name, 0) + 1 if self._is_new(name) else 0
        if self.short[name] >= BROKEN_TIMES:
            raise Stop(f"The {TITLES[name]} ends as soon as it is started; its words are above.")


LEFT = {
    "worker": "server.work",
    "listener": "server.listen",
    "gauge": "devices.gauge",
    "instruments": "devices.instrument",
    "machine": "devices.machine",
}
TITLES = {
    "database": "database",
    "server": "web server",
    "worker": "process that answers the long questions",
    "gauge": "simulated gauge",
    "instruments": "simulated instruments",
    "machine": "simulated lathe",
    "listener": "process that listens to the machines",
}


def stop(arguments: list[str]) -> int:
    """./anvil stop: ends what runs, however it was started and whatever of it is left."""
    if not LOCK.exists():
        say("Noble Anvil is not running.")
        return 0
    with LOCK.open("r+") as file:
        try:
            fcntl.flock(file, fcntl.LOCK_EX | fcntl.LOCK_NB)
        except BlockingIOError:
            pid = read_lock(file).get("pid")
            if not pid:
                raise Stop("It is starting just now; try again in a moment.") from None
            os.kill(pid, signal.SIGTERM)
            fcntl.flock(file, fcntl.LOCK_EX)
            say("Stopped.")
            return 0
        # Nobody keeps it: what a start that was killed left running is ended here.
        known = read_lock(file)
        left = [end_orphan(known.get("server"))]
        for name, module in LEFT.items():
            end_left(known.get(name), module)
        cluster = Cluster("pg")
        if cluster.running_port() is not None:
            cluster.stop()
            left.append("The database was left running; it was stopped.")
        for sentence in filter(None, left):
            say(sentence)
        say("Stopped." if any(left) else "Noble Anvil is not running.")
    return 0


def manage(arguments: list[str]) -> int:
    """A management command against the running application's database."""
    cluster = Cluster("pg")
    port = cluster.running_port()
    if port is None:
        raise Stop("Start the application first: ./anvil start")
    cluster.port = port
    env = environment(**cluster.environment())
    env["NOBLE_ANVIL_SECRET_KEY"] = secret()
    return subprocess.run([str(PYTHON), "-m", "django", *arguments], cwd=ROOT, env=env, check=False).returncode


if __name__ == "__main__":
    sys.exit(start(sys.argv[1:]))

"""A real ./anvil start in a folder of its own, whose every process can be found and killed."""

from __future__ import annotations

import json
import os
import signal
import subprocess
import time
from collections.abc import Callable
from pathlib import Path
from typing import Any

import psutil

from commands.cluster import free_port
from commands.places import ROOT, environment
from commands.processes import answers

PATIENCE_S = 45.0  # of a loaded machine
FIRST_S = 120.0  # with everything to prepare
MODULES = (
    "server.work",
    "server.serve",
    "server.listen",
    "devices.gauge",
    "devices.instrument",
    "devices.machine",
    "anvil start",
)


class Running:
    """The application, started; `folder` is where its data lie."""

    def __init__(self, folder: Path) -> None:
        self.folder, self.port = folder, free_port()
        self._cluster: Path | None = None
        folder.mkdir(parents=True, exist_ok=True)
        self.env = environment(NOBLE_ANVIL_DATA=str(folder))
        self.start()

    def start(self) -> None:
        """Start it, and wait until it says that it is ready."""
        self._said.unlink(missing_ok=True)
        with self._said.open("a") as said:
            command = [ROOT / "anvil", "start", "--port", str(self.port)]
            self.starter = subprocess.Popen(command, env=self.env, stdout=said, stderr=said, start_new_session=True)
        self.until(lambda: "is ready" in self.words(), "it did not start", FIRST_S)

    @property
    def _said(self) -> Path:
        return self.folder / "said.log"

    def command(self, *arguments: str) -> tuple[int, str]:
        """What ./anvil gives and says with these arguments."""
        command = [str(ROOT / "anvil"), *arguments]
        done = subprocess.run(command, env=self.env, capture_output=True, text=True, check=False, timeout=90)
        return done.returncode, done.stdout + done.stderr

    def words(self) -> str:
        """What it said since it was started; what was started again by itself says it elsewhere."""
        said = self._said.read_text(errors="replace")
        later = self.folder / "keeping.log"
        return said + (later.read_text(errors="replace") if later.exists() else "")

    def answers(self) -> bool:
        """Whether the API answers a stranger as it should."""
        return answers(self.port)

    def pids(self) -> dict[str, Any]:
        """What it wrote of itself: its processes by name, and its port."""
        try:
            known = json.loads((self.folder / "start.lock").read_text())
        except (OSError, ValueError):
            return {}
        return known if isinstance(known, dict) else {}

    def strays(self) -> list[str]:
        """Processes of it that belong to nobody: neither written down by it, nor a child of those that are."""
        known = {pid for name, pid in self.pids().items() if name != "port"}
        for pid in tuple(known):
            if psutil.pid_exists(pid):
                known |= {child.pid for child in psutil.Process(pid).children(recursive=True)}
        found = []
        for process in psutil.process_iter(["cmdline"]):
            command = " ".join(process.info["cmdline"] or ())
            try:
                is_ours = process.environ().get("NOBLE_ANVIL_DATA") == str(self.folder)
            except psutil.Error:
                continue  # another person's, or gone
            if is_ours and process.pid not in known and any(module in command for module in MODULES):
                found.append(f"{process.pid} {command}")
        return found

    def until(self, what: Callable[[], object], why: str, seconds: float = PATIENCE_S) -> None:
        """Wait for something. Raises TimeoutError with what was said."""
        end = time.monotonic() + seconds
        while not what():
            if time.monotonic() > end:
                raise TimeoutError(f"{why}\n{self.words()[-3000:]}")
            time.sleep(0.05)

    def postmaster(self) -> int:
        """The database's first process; 0 while there is none."""
        if self._cluster is None:
            told = [line for line in self.command("status")[1].splitlines() if line.strip().startswith("data ")]
            self._cluster = Path(told[0].split(maxsplit=1)[1])
        try:
            pid = int((self._cluster / "postmaster.pid").read_text().split()[0])
            return pid if psutil.Process(pid).status() != psutil.STATUS_ZOMBIE else 0
        except (OSError, IndexError, ValueError, psutil.NoSuchProcess):
            return 0

    def kill(self, *names: str, apart_s: float = 0.0) -> None:
        """Kill something of it, and what else is named a moment later; see that each is noticed, and that all is
        there again.

        A name is "start", "server" (its first process), "process" (one that answers), "worker", "computing" (all that
        compute for it), "gauge" or "database".
        """
        noticed = []
        for place, name in enumerate(names):
            time.sleep(apart_s if place else 0)
            noticed.append((name, self._strike(name)))
        for name, is_noticed in noticed:
            self.until(is_noticed, f"{name}: nobody noticed")
        said = " and ".join(names)
        self.until(lambda: {"server", "worker"} <= set(self.pids()), f"{said}: not all is there again")
        self.until(self.answers, f"{said}: no answer")

    def _strike(self, name: str) -> Callable[[], bool]:
        """Kill one thing; gives what tells that it was noticed. What another kill took along already is no less so."""
        before = self.pids()
        try:
            if name == "process":
                kill(self._answering(before["server"]))
                return lambda: True
            if name == "computing":
                for pid in self._computing(before["worker"]):
                    kill(pid)
                return lambda: True
            if name == "database":
                postmaster = self.postmaster()
                kill(postmaster)
                return lambda: self.postmaster() not in (0, postmaster)
            key = "pid" if name == "start" else name
            kill(before[key])
        except (KeyError, ProcessLookupError, psutil.NoSuchProcess):
            return lambda: True  # it is not there just now: something that was killed before is being mended
        return lambda: self.pids().get(key) not in (None, before[key])

    def _answering(self, server: int) -> int:
        """A process that answers for the web server: no keeper that it just has begun; 0 where there is none."""
        made = psutil.Process(server).children()
        return next((child.pid for child in made if "server.serve" in " ".join(child.cmdline())), 0)

    def _computing(self, worker: int) -> list[int]:
        """The processes that compute: made by one that the worker keeps for it."""
        below = psutil.Process(worker).children(recursive=True)
        return [child.pid for child in below if child.ppid() != worker]

    def close(self) -> None:
        """End it, whatever of it is left."""
        self.command("stop")
        if self.starter.poll() is None:
            self.starter.kill()
        self.starter.wait()


def kill(pid: int) -> None:
    """End a process without a word. Raises ProcessLookupError where there is none."""
    if pid <= 0:  # to the system these are groups of processes, this one's among them
        raise ProcessLookupError(pid)
    os.kill(pid, signal.SIGKILL)

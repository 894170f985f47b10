"""The running application is kept: whatever of it is killed is noticed, said and started again; stop ends all of it."""

import json
import os
import signal
import subprocess
import time
import urllib.error
import urllib.request
from pathlib import Path

import pytest

from commands import places
from commands.cluster import free_port

PATIENCE_S = 25.0  # of a loaded machine; far less than half a minute of silence


class Running:
    """A real ./anvil start in a folder of its own."""

    def __init__(self, folder):
        self.folder, self.port = folder, free_port()
        self.env = places.environment(NOBLE_ANVIL_DATA=str(folder))
        self.start()

    def start(self):
        """Start it, and wait until it says that it is ready."""
        with (self.folder.parent / "said").open("w") as said:
            command = [places.ROOT / "anvil", "start", "--port", str(self.port)]
            self.starter = subprocess.Popen(command, env=self.env, stdout=said, stderr=said, start_new_session=True)
        self.until(lambda: "is ready" in self.words(), "it did not start", 90.0)

    def command(self, *arguments):
        done = subprocess.run(
            [places.ROOT / "anvil", *arguments], env=self.env, capture_output=True, text=True, check=False, timeout=60
        )
        return done.returncode, done.stdout + done.stderr

    def words(self):
        return (self.folder.parent / "said").read_text()

    def answers(self):
        """Whether the API answers a stranger as it should."""
        try:
            urllib.request.urlopen(f"http://127.0.0.1:{self.port}/api/runs", timeout=5)
        except urllib.error.HTTPError as error:
            return error.code == 401
        except OSError:
            return False
        return False

    def pids(self):
        try:
            return json.loads((self.folder / "start.lock").read_text())
        except (OSError, ValueError):
            return {}

    def until(self, what, why, seconds=PATIENCE_S):
        end = time.monotonic() + seconds
        while not what():
            assert time.monotonic() < end, f"{why}\n{self.words()[-2000:]}"
            time.sleep(0.1)

    def postmaster(self):
        """Its process, wherever the cluster's folder is."""
        told = next(line for line in self.command("status")[1].splitlines() if line.strip().startswith("data "))
        return int((Path(told.split(maxsplit=1)[1]) / "postmaster.pid").read_text().split()[0])


@pytest.fixture
def running(tmp_path):
    made = Running(tmp_path / "data")
    try:
        yield made
    finally:
        made.command("stop")
        made.starter.poll() is None and made.starter.kill()
        made.starter.wait()


def killed(pid):
    os.kill(pid, signal.SIGKILL)


def test_whatever_is_killed_is_started_again_and_stop_ends_all(running):
    first = running.pids()
    code, told = running.command("status")
    assert (code, f":{running.port}, for 0 min" in told, "the demo: 5 runs, 4 people" in told) == (0, True, True), told
    assert "never backed up" in told and "GB free" in told
    # Its parts, one after the other.
    for name, says in (
        ("worker", "long questions had ended"),
        ("gauge", "gauge had ended"),
        ("server", "web server had"),
    ):
        killed(first[name])
        running.until(lambda n=name: running.pids().get(n) not in (None, first[n]), f"{name} is not back")
        running.until(running.answers, "no answer")
        assert says in running.words()
    before = running.postmaster()
    killed(before)
    running.until(lambda: "The database had ended" in running.words(), "nobody noticed")
    running.until(running.answers, "no answer")
    assert running.postmaster() != before
    # What keeps it all.
    killed(first["pid"])
    running.starter.wait()
    running.until(lambda: running.pids().get("pid") != first["pid"] and "worker" in running.pids(), "nobody keeps it")
    running.until(running.answers, "no answer")
    assert running.command("status")[0] == 0
    left = {n: pid for n, pid in running.pids().items() if n != "port"} | {"postmaster": running.postmaster()}
    code, told = running.command("stop")
    assert (code, told) == (0, "Stopped.\n")
    running.until(lambda: not any(Path(f"/proc/{pid}").exists() for pid in left.values()), f"left: {left}")
    code, told = running.command("status")
    assert (code, "is not running" in told) == (3, True)
    assert running.command("stop") == (0, "Noble Anvil is not running.\n")
    # Once more, killed together with its server: nobody is left who would start it again.
    running.start()
    pids, postmaster = running.pids(), running.postmaster()
    os.killpg(pids["server"], signal.SIGSTOP)
    killed(pids["pid"])
    os.killpg(pids["server"], signal.SIGKILL)
    running.starter.wait()
    code, told = running.command("status")
    assert (code, "has ended" in told) == (1, True), told
    code, told = running.command("stop")
    assert (code, "The database was left running; it was stopped." in told) == (0, True), told
    running.until(lambda: not Path(f"/proc/{postmaster}").exists(), "the database runs")

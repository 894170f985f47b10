"""The running application is kept: whatever of it is killed is noticed, said and started again; stop ends all of it."""

import os
import signal
from pathlib import Path

import pytest

from bench.running import Running, kill

NOTICED = {
    "worker": "long questions had ended",
    "gauge": "gauge had ended",
    "server": "web server had",
    "database": "The database had ended",
}


@pytest.fixture
def running(tmp_path):
    made = Running(tmp_path / "data")
    try:
        yield made
    finally:
        made.close()


def test_whatever_is_killed_is_started_again_and_stop_ends_all(running):
    code, told = running.command("status")
    assert (code, f":{running.port}, for 0 min" in told, "the demo: 5 runs, 4 people" in told) == (0, True, True), told
    assert "never backed up" in told and "GB free" in told
    for name, says in NOTICED.items():
        running.kill(name)
        running.until(lambda s=says: s in running.words(), f"{name}: nothing was said")
    running.kill("process")
    running.kill("start")
    running.starter.wait()
    assert running.command("status")[0] == 0
    left = {n: pid for n, pid in running.pids().items() if n != "port"} | {"postmaster": running.postmaster()}
    assert running.command("stop") == (0, "Stopped.\n")
    running.until(lambda: not any(Path(f"/proc/{pid}").exists() for pid in left.values()), f"left: {left}")
    code, told = running.command("status")
    assert (code, "is not running" in told) == (3, True)
    assert running.command("stop") == (0, "Noble Anvil is not running.\n")
    # Once more, killed together with its server: nobody is left who would start it again.
    running.start()
    pids, postmaster = running.pids(), running.postmaster()
    os.killpg(pids["server"], signal.SIGSTOP)
    kill(pids["pid"])
    os.killpg(pids["server"], signal.SIGKILL)
    running.starter.wait()
    code, told = running.command("status")
    assert (code, "has ended" in told) == (1, True), told
    code, told = running.command("stop")
    assert (code, "The database was left running; it was stopped." in told) == (0, True), told
    running.until(lambda: not Path(f"/proc/{postmaster}").exists(), "the database runs")

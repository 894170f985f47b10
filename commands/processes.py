"""The application's own processes: begun, waited for, ended, and what a start that was killed left behind."""

from __future__ import annotations

import os
import select
import signal
import subprocess
import time
import urllib.error
import urllib.request
from contextlib import suppress
from pathlib import Path

from commands.cluster import free_port
from commands.places import PYTHON, ROOT, Stop

# What a large body or question took is given back to the machine, not kept for the next one.
GIVING_BACK = {"MALLOC_ARENA_MAX": "2", "MALLOC_MMAP_THRESHOLD_": "262144", "MALLOC_TRIM_THRESHOLD_": "262144"}
PATIENCE_S = 10.0  # for a polite end


def serve(port: int, env: dict[str, str], *more: str) -> subprocess.Popen[bytes]:
    """The web server as a child, in a session of its own so that Ctrl-C reaches it only through us."""
    return _own("server.serve", ["--port", str(port), *more], env)


MACHINE = "Lathe 5"  # of the demo: it counts its pieces by itself
INSTRUMENTS = (("Micrometer 3", "size"), ("Indicator 1", "indicator"), ("Refractometer", "coolant"))


class Worker(subprocess.Popen[bytes]):
    """What answers the questions that take long, as a child that ends with us and tells once when it is awake."""

    def __init__(self, env: dict[str, str]) -> None:
        told, tells = os.pipe()
        self._told = os.fdopen(told, "rb")
        # Named, since who asks for its parent a moment late is told of the one that takes in orphans.
        command = [str(PYTHON), "-m", "server.work", "--with", str(os.getpid()), "--tells", str(tells)]
        lean = {**env, **GIVING_BACK}
        super().__init__(command, cwd=ROOT, env=lean, start_new_session=True, pass_fds=(tells,))
        os.close(tells)

    def is_awake(self) -> bool:
        """Whether a question asked now finds a process that is there. One that has ended is not waited for either."""
        return bool(select.select([self._told], [], [], 0)[0])


def serve_worker(env: dict[str, str]) -> Worker:
    """What answers the questions that take long."""
    return Worker(env)


def _own(module: str, arguments: list[str], env: dict[str, str]) -> subprocess.Popen[bytes]:
    lean = {**env, **GIVING_BACK}
    return subprocess.Popen([str(PYTHON), "-m", module, *arguments], cwd=ROOT, env=lean, start_new_session=True)


def serve_gauge(env: dict[str, str]) -> subprocess.Popen[bytes]:
    """The simulated grip gauge of the demo as a process of its own; `env` then tells the application where it is."""
    # Started again where it was: the application goes on knowing it.
    port = int(env["NOBLE_ANVIL_GAUGES"].rpartition(":")[2]) if env.get("NOBLE_ANVIL_GAUGES") else free_port()
    env["NOBLE_ANVIL_GAUGES"] = f"Simulated gauge=127.0.0.1:{port}"
    return subprocess.Popen(
        [str(PYTHON), "-m", "devices.gauge", "--port", str(port), "--with", str(os.getpid())],
        cwd=ROOT,
        env=env,
        stdout=subprocess.DEVNULL,
        start_new_session=True,
    )


def serve_instruments(env: dict[str, str]) -> subprocess.Popen[bytes]:
    """The simulated instruments of the demo, one process; `env` then tells the application where each is."""
    if not env.get("NOBLE_ANVIL_INSTRUMENTS"):
        named = (f"{name}={kind}@127.0.0.1:{free_port()}" for name, kind in INSTRUMENTS)
        env["NOBLE_ANVIL_INSTRUMENTS"] = ",".join(named)
    places = [one.partition("=")[2].split("@") for one in env["NOBLE_ANVIL_INSTRUMENTS"].split(",")]
    kinds = [f"{kind}:{place.rpartition(':')[2]}" for kind, place in places]
    return subprocess.Popen(
        [str(PYTHON), "-m", "devices.instrument", *kinds, "--with", str(os.getpid())],
        cwd=ROOT,
        env=env,
        stdout=subprocess.DEVNULL,
        start_new_session=True,
    )


def serve_machine(env: dict[str, str]) -> subprocess.Popen[bytes]:
    """The simulated lathe of the demo as a process of its own; `env` then tells the application where it is."""
    port = int(env["NOBLE_ANVIL_MACHINES"].rpartition(":")[2]) if env.get("NOBLE_ANVIL_MACHINES") else free_port()
    env["NOBLE_ANVIL_MACHINES"] = f"{MACHINE}=127.0.0.1:{port}"
    return subprocess.Popen(
        [str(PYTHON), "-m", "devices.machine", "--port", str(port), "--with", str(os.getpid())],
        cwd=ROOT,
        env=env,
        stdout=subprocess.DEVNULL,
        start_new_session=True,
    )


def serve_listener(env: dict[str, str]) -> subprocess.Popen[bytes]:
    """What listens to the machines that `env` names, as a process of its own that ends with this one."""
    return subprocess.Popen(
        [str(PYTHON), "-m", "server.listen", "--with", str(os.getpid())], cwd=ROOT, env=env, start_new_session=True
    )


def answers(port: int) -> bool:
    """Whether the API answers a stranger as it should."""
    try:
        urllib.request.urlopen(f"http://127.0.0.1:{port}/api/session", timeout=2)
    except urllib.error.HTTPError as answer:
        return answer.code == 401
    except OSError:
        pass
    return False


def wait_until_answering(port: int, server: subprocess.Popen[bytes], seconds: float = 90) -> None:
    """Wait until the API answers; stop where the server ends before that."""
    end = time.monotonic() + seconds
    while time.monotonic() < end:
        if server.poll() is not None:
            raise Stop("The server ended before it answered; its words are above.")
        if answers(port):
            return
        time.sleep(0.05)
    raise Stop("The server did not answer in time.")


def end(process: subprocess.Popen[bytes]) -> None:
    """End a child and wait for it."""
    if process.poll() is None:
        process.terminate()
        try:
            process.wait(PATIENCE_S)
        except subprocess.TimeoutExpired:
            process.kill()
            process.wait()


def is_ours(pid: object, module: str) -> bool:
    """Whether a process lives that runs this module of this folder."""
    if not isinstance(pid, int):
        return False
    try:
        process = Path(f"/proc/{pid}")
        said = (process / "cmdline").read_bytes().decode(errors="replace")
        return module in said and (process / "cwd").resolve() == ROOT
    except OSError:
        return False


def end_orphan(pid: object) -> str:
    """End a web server that an earlier start left behind when it was killed; gives a sentence where there was one."""
    if not isinstance(pid, int) or not is_ours(pid, "server.serve"):
        return ""
    # It has a session of its own: those that it started go with it, and the port is free once all are gone.
    os.killpg(pid, signal.SIGTERM)
    until = time.monotonic() + PATIENCE_S
    while _group_lives(pid):
        if time.monotonic() > until:
            os.killpg(pid, signal.SIGKILL)
            break
        time.sleep(0.05)
    return "A server of an earlier start that did not end cleanly was still running; it was ended."


def end_left(pid: object, module: str) -> None:
    """End another process of ours that was left behind, if it has not seen yet that it is alone."""
    until = time.monotonic() + PATIENCE_S
    while isinstance(pid, int) and is_ours(pid, module):
        with suppress(ProcessLookupError):
            os.kill(pid, signal.SIGTERM if time.monotonic() < until else signal.SIGKILL)
        time.sleep(0.05)


def _group_lives(group: int) -> bool:
    """Whether a process of the group does anything yet; one that only waits to be counted does not."""
    for stat in Path("/proc").glob("[0-9]*/stat"):
        try:
            state, _, of = stat.read_text().rpartition(")")[2].split()[:3]
        except OSError:
            continue
        if int(of) == group and state != "Z":
            return True
    return False

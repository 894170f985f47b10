"""Set up, start the database and the server, and stop both again."""

from __future__ import annotations

import argparse
import fcntl
import json
import os
import secrets
import shutil
import signal
import socket
import subprocess
import sys
import time
import urllib.error
import urllib.request
from pathlib import Path
from typing import IO, Any

from commands.cluster import Cluster, free_port
from commands.places import DATA, PYTHON, ROOT, Stop, digest, environment, is_fresh, mark_fresh, run, say
from commands.setup import ensure

# What a large body or question took is given back to the machine, not kept for the next one.
GIVING_BACK = {"MALLOC_ARENA_MAX": "2", "MALLOC_MMAP_THRESHOLD_": "262144", "MALLOC_TRIM_THRESHOLD_": "262144"}
LOCK = DATA / "start.lock"
WATCH_S = 0.5  # between two looks whether all is running
ROOM_LEAST = 100_000_000  # bytes: a day of edits and PostgreSQL's own log


def take_lock() -> IO[str]:
    """The lock that one running application holds. Says where it is when it is taken."""
    DATA.mkdir(exist_ok=True)
    file = LOCK.open("a+")
    try:
        fcntl.flock(file, fcntl.LOCK_EX | fcntl.LOCK_NB)
    except BlockingIOError:
        known = _read(file)
        where = f" at http://127.0.0.1:{known['port']}" if known.get("port") else ""
        raise Stop(f"Noble Anvil is already running{where}. ./anvil stop ends it.") from None
    return file


def _read(file: IO[str]) -> dict[str, Any]:
    file.seek(0)
    try:
        known = json.loads(file.read() or "{}")
    except json.JSONDecodeError:  # a start that was killed while it wrote
        return {}
    return known if isinstance(known, dict) else {}


def _write(file: IO[str], **known: Any) -> None:
    file.seek(0)
    file.truncate()
    file.write(json.dumps(known))
    file.flush()


def refuse_taken(port: int) -> None:
    """Say so when another program has the port."""
    with socket.socket() as s:
        s.setsockopt(socket.SOL_SOCKET, socket.SO_REUSEADDR, 1)
        try:
            s.bind(("127.0.0.1", port))
        except OSError:
            raise Stop(f"Port {port} is taken by another program. Try ./anvil start --port {port + 1}.") from None


def refuse_full(folder: Path) -> None:
    """Say so when the disk has no room left for edits."""
    free = shutil.disk_usage(folder).free
    if free < ROOM_LEAST:
        raise Stop(
            f"Only {free / 1e6:.0f} MB are free on the disk that holds {folder}; {ROOM_LEAST / 1e6:.0f} MB are needed "
            "to keep edits safely. Free some space, then start again."
        )


def end_orphan(pid: object) -> str:
    """End a web server that an earlier start left behind when it was killed; gives a sentence where there was one."""
    if not isinstance(pid, int):
        return ""
    try:
        process = Path(f"/proc/{pid}")
        said = (process / "cmdline").read_bytes().decode(errors="replace")
        ours = "server.serve" in said and (process / "cwd").resolve() == ROOT
    except OSError:
        return ""
    if not ours:
        return ""
    os.killpg(pid, signal.SIGTERM)  # it has a session of its own: its workers go with it
    for _ in range(100):
        try:
            if not (process / "cmdline").read_bytes():  # dead, and only waited for by nobody yet
                break
        except OSError:
            break
        time.sleep(0.1)
    else:
        os.killpg(pid, signal.SIGKILL)
    return "A server of an earlier start that did not end cleanly was still running; it was ended."


def secret() -> str:
    """The key that signs sessions, made once."""
    file = DATA / "secret"
    if not file.exists():
        file.touch(mode=0o600)
        file.write_text(secrets.token_urlsafe(50))
    return file.read_text()


def prepare_database(cluster: Cluster, env: dict[str, str], demo: bool) -> None:
    """Migrate when migrations changed, and load the demo once."""
    cluster.ensure_database("noble_anvil")
    # The stamps name the cluster itself: a new one in the same folder is migrated and filled again.
    migrated, demoed = f"migrations-{cluster.folder.name}", f"demo-{cluster.folder.name}"
    mark = cluster.identity()
    stamp = digest(sorted(ROOT.glob("server/**/migrations/*.py")), mark)
    if not is_fresh(migrated, stamp):
        say("Preparing the database …")
        run([PYTHON, "-m", "django", "migrate", "--noinput", "-v", "0"], env=env, quiet=True)
        mark_fresh(migrated, stamp)
    stocked = f"starting-shelf-{cluster.folder.name}"
    if not is_fresh(stocked, mark):  # once: what the shop took off its shelf stays off
        run([PYTHON, "-m", "django", "load_starting_shelf"], env=env, quiet=True)
        mark_fresh(stocked, mark)
    # What the bench keeps of how runs stand follows from the rules: new rules, new standing.
    followed = f"standing-{cluster.folder.name}"
    rules = digest(
        sorted(p for p in ROOT.glob("calc/**/*") if p.suffix in (".py", ".csv") and "tests" not in p.parts), mark
    )
    if not is_fresh(followed, rules):
        run([PYTHON, "-m", "django", "follow_shelf"], env=env, quiet=True)
        mark_fresh(followed, rules)
    if demo and not is_fresh(demoed, mark):
        run([PYTHON, "-m", "django", "load_demo"], env=env, quiet=True)
        mark_fresh(demoed, mark)


def serve(port: int, env: dict[str, str], *more: str) -> subprocess.Popen[bytes]:
    """The web server as a child, in a session of its own so that Ctrl-C reaches it only through us."""
    return _own("server.serve", ["--port", str(port), *more], env)


def serve_worker(env: dict[str, str]) -> subprocess.Popen[bytes]:
    """What answers the questions that take long, as a child that ends with us."""
    return _own("server.work", ["--with-parent"], env)


def _own(module: str, arguments: list[str], env: dict[str, str]) -> subprocess.Popen[bytes]:
    lean = {**env, **GIVING_BACK}
    return subprocess.Popen([str(PYTHON), "-m", module, *arguments], cwd=ROOT, env=lean, start_new_session=True)


def serve_gauge(env: dict[str, str]) -> subprocess.Popen[bytes]:
    """The simulated grip gauge of the demo as a process of its own; `env` then tells the application where it is."""
    port = free_port()
    env["NOBLE_ANVIL_GAUGES"] = f"Simulated gauge=127.0.0.1:{port}"
    return subprocess.Popen(
        [str(PYTHON), "-m", "devices.gauge", "--port", str(port), "--with-parent"],
        cwd=ROOT,
        env=env,
        stdout=subprocess.DEVNULL,
        start_new_session=True,
    )


def wait_until_answering(port: int, server: subprocess.Popen[bytes], seconds: float = 30) -> None:
    """Wait until the API answers; stop where the server ends before that."""
    end = time.monotonic() + seconds
    while time.monotonic() < end:
        if server.poll() is not None:
            raise Stop("The server ended before it answered; its words are above.")
        try:
            urllib.request.urlopen(f"http://127.0.0.1:{port}/api/session", timeout=2)
        except urllib.error.HTTPError as answer:
            if answer.code == 401:
                return
        except OSError:
            pass
        time.sleep(0.05)
    raise Stop("The server did not answer in time.")


def end(server: subprocess.Popen[bytes]) -> None:
    """End the web server and wait for it."""
    if server.poll() is None:
        server.terminate()
        try:
            server.wait(10)
        except subprocess.TimeoutExpired:
            server.kill()
            server.wait()


def start(arguments: list[str]) -> int:
    """./anvil start"""
    parser = argparse.ArgumentParser(prog="./anvil start", description="Set up and serve the application.")
    parser.add_argument("--port", type=int, default=8000)
    parser.add_argument("--no-demo", action="store_true", help="no demo shop, and people sign in with passwords")
    given = parser.parse_args(arguments)
    if not 1 <= given.port <= 65_535:
        raise Stop("A port is a number from 1 to 65535.")
    with take_lock() as lock:
        told = end_orphan(_read(lock).get("server"))
        if told:
            say(told)
        refuse_taken(given.port)
        refuse_full(DATA)
        _write(lock, pid=os.getpid(), port=given.port)
        ensure()
        return _run(lock, given.port, not given.no_demo)


def _run(lock: IO[str], port: int, demo: bool) -> int:
    cluster = Cluster("pg")
    stopping = False

    def stop(*_: object) -> None:
        nonlocal stopping
        stopping = True
        raise KeyboardInterrupt

    signal.signal(signal.SIGTERM, stop)
    server: subprocess.Popen[bytes] | None = None
    gauge: subprocess.Popen[bytes] | None = None
    worker: subprocess.Popen[bytes] | None = None
    try:
        told = cluster.start()
        if told:
            say(told)
        env = environment(NOBLE_ANVIL_SECRET_KEY=secret(), **cluster.environment())
        env["NOBLE_ANVIL_DEMO"] = "1" if demo else "0"
        prepare_database(cluster, env, demo)
        if demo:
            gauge = serve_gauge(env)
        server, worker = serve(port, env), serve_worker(env)
        _write(lock, pid=os.getpid(), port=port, server=server.pid)
        wait_until_answering(port, server)
        say(f"Noble Anvil is ready: http://127.0.0.1:{port}   (Ctrl-C stops it)")
        while server.poll() is None:
            if worker.poll() is not None:
                say("What answers the long questions had ended; it is started again.")
                worker = serve_worker(env)
            time.sleep(WATCH_S)
        return server.returncode
    except KeyboardInterrupt:
        say("\nStopping …")
        return 0
    finally:
        signal.signal(signal.SIGINT, signal.SIG_IGN)
        signal.signal(signal.SIGTERM, signal.SIG_IGN)
        for process in (server, worker, gauge):
            if process is not None:
                end(process)
        cluster.stop()


def stop(arguments: list[str]) -> int:
    """./anvil stop"""
    if not LOCK.exists():
        say("Noble Anvil is not running.")
        return 0
    with LOCK.open("r+") as file:
        try:
            fcntl.flock(file, fcntl.LOCK_EX | fcntl.LOCK_NB)
        except BlockingIOError:
            pid = _read(file).get("pid")
            if not pid:
                raise Stop("It is starting just now; try again in a moment.") from None
            os.kill(pid, signal.SIGTERM)
            fcntl.flock(file, fcntl.LOCK_EX)
            say("Stopped.")
            return 0
    say("Noble Anvil is not running.")
    return 0


def manage(arguments: list[str]) -> int:
    """A management command against the running application's database."""
    cluster = Cluster("pg")
    port = cluster.running_port()
    if port is None:
        raise Stop("Start the application first: ./anvil start")
    cluster.port = port
    env = environment(NOBLE_ANVIL_SECRET_KEY=secret(), **cluster.environment())
    return subprocess.run([str(PYTHON), "-m", "django", *arguments], cwd=ROOT, env=env, check=False).returncode


if __name__ == "__main__":
    sys.exit(start(sys.argv[1:]))

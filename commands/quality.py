"""Tests, checks, and tools that need the application running on its own."""

from __future__ import annotations

import os
import shutil
import signal
import subprocess
import sys
import tempfile
from collections.abc import Callable
from concurrent.futures import ThreadPoolExecutor
from functools import partial
from pathlib import Path

from commands.cluster import Cluster, free_port
from commands.places import HERE, PYTHON, ROOT, WEB, environment, say
from commands.preparing import prepare_database
from commands.processes import end, serve, serve_gauge, serve_worker, wait_until_answering
from commands.setup import ensure

PYTHON_SOURCES = ["anvil", "commands", "calc", "server", "e2e", "bench", "devices"]
AT_ONCE = 3  # on two processors: tests wait for servers, browsers and each other
BIN = ROOT / ".venv" / "bin"
WEB_TESTS = ["npm", "run", "--silent", "test"]
API = ROOT / "docs" / "openapi.json"
TYPES = WEB / "src" / "api" / "schema.d.ts"


def _ok(title: str, command: list[str | Path], cwd: Path = ROOT, env: dict[str, str] | None = None) -> bool:
    done = subprocess.run(
        [str(c) for c in command], cwd=cwd, env=env or environment(), capture_output=True, text=True, check=False
    )
    say(f"{'ok  ' if done.returncode == 0 else 'FAIL'} {title}")
    if done.returncode:
        say(done.stdout + done.stderr)
    return done.returncode == 0


def _write_api(target: Path) -> None:
    with target.open("w") as file:
        subprocess.run(
            [str(PYTHON), "-m", "django", "export_openapi_schema", "--api", "server.config.api.api", "--indent", "1"],
            cwd=ROOT,
            env=environment(),
            stdout=file,
            check=True,
        )


def _write_types(source: Path, target: Path) -> None:
    subprocess.run(
        [str(WEB / "node_modules" / ".bin" / "openapi-typescript"), str(source), "-o", str(target)],
        cwd=WEB,
        check=True,
        stdout=subprocess.DEVNULL,
    )


def _api_is_current() -> bool:
    with tempfile.TemporaryDirectory() as folder:
        fresh, types = Path(folder) / "openapi.json", Path(folder) / "schema.d.ts"
        _write_api(fresh)
        _write_types(fresh, types)
        same = API.exists() and fresh.read_text() == API.read_text() and types.read_text() == TYPES.read_text()
    say(f"{'ok  ' if same else 'FAIL'} API document and its types" + ("" if same else ": ./anvil format writes them"))
    return same


def check(arguments: list[str]) -> int:
    """./anvil check"""
    ensure()
    npx = WEB / "node_modules" / ".bin"
    migrations: list[str | Path] = [PYTHON, "-m", "django", "makemigrations", "--check", "--dry-run", "-v", "0"]
    checks: list[Callable[[], bool]] = [  # the longest first
        partial(_ok, "Python types", [BIN / "mypy"]),
        partial(_ok, "Web lint", [npx / "eslint", "src"], WEB),
        partial(_ok, "Web types", [npx / "tsc", "-b"], WEB),
        _api_is_current,
        partial(_ok, "Python import rules", [BIN / "lint-imports", "--no-cache"]),
        partial(_ok, "Web import rules", [npx / "depcruise", "src"], WEB),
        partial(_ok, "Migrations complete", migrations),
        partial(_ok, "Web format and lint", [npx / "biome", "check", "."], WEB),
        partial(_ok, "Python format", [BIN / "ruff", "format", "--check", "-q", *PYTHON_SOURCES]),
        partial(_ok, "Python lint", [BIN / "ruff", "check", "-q", *PYTHON_SOURCES]),
    ]
    with ThreadPoolExecutor(AT_ONCE) as pool:
        results = list(pool.map(lambda one: one(), checks))
    return 0 if all(results) else 1


def tidy(arguments: list[str]) -> int:
    """./anvil format"""
    ensure()
    subprocess.run([BIN / "ruff", "check", "-q", "--fix", *PYTHON_SOURCES], cwd=ROOT, check=False)
    subprocess.run([BIN / "ruff", "format", "-q", *PYTHON_SOURCES], cwd=ROOT, check=True)
    subprocess.run([WEB / "node_modules" / ".bin" / "biome", "check", "--write", "."], cwd=WEB, check=False)
    _write_api(API)
    _write_types(API, TYPES)
    return 0


def _throwaway(name: str) -> Cluster:
    cluster = Cluster(name, fast=True)
    if cluster.running_port() is not None:
        cluster.stop()
    shutil.rmtree(cluster.folder, ignore_errors=True)
    cluster.start()
    return cluster


def test(arguments: list[str]) -> int:
    """./anvil test"""
    ensure(browser=True)
    _end_on_terminate()
    cluster = _throwaway("test-pg")
    # Beside the Python tests, which often wait for a browser. Its report is shown only where something failed: what
    # failed of the others then stands at the end, where a log that is cut short still has it.
    report = tempfile.TemporaryFile()  # noqa: SIM115 # open until it is read below
    web = None if arguments else subprocess.Popen(WEB_TESTS, cwd=WEB, stdout=report, stderr=subprocess.STDOUT)
    try:
        env = environment(DJANGO_ALLOW_ASYNC_UNSAFE="true", **cluster.environment())
        # The whole set is shared by some processes, each with its own database, server and browser.
        chosen = arguments or ["-n", str(AT_ONCE), "--dist", "worksteal", "--durations", "15"]
        python = subprocess.run([str(PYTHON), "-m", "pytest", *chosen], cwd=ROOT, env=env, check=False).returncode
        if web is None:
            return python
        failed = web.wait()
        report.seek(0)
        said = report.read().decode(errors="replace")
        say(said if failed else "The screens' own tests passed.")
        if python:
            say("Some of the Python tests failed: they are named above.")
        return failed or python
    finally:
        if web is not None:
            end(web)
        report.close()
        cluster.stop()


def _end_on_terminate() -> None:
    """A polite end from outside still stops what was started here."""
    signal.signal(signal.SIGTERM, lambda *_: sys.exit(143))


def with_app(module: str, arguments: list[str]) -> int:
    """Run a tool against a fresh application with the demo, on its own cluster and port."""
    ensure(browser=True)
    _end_on_terminate()
    cluster = _throwaway("tool-pg")
    server = worker = gauge = None
    try:
        env = environment(**cluster.environment())
        prepare_database(cluster, env)
        port = free_port()
        gauge = serve_gauge(env)
        server, worker = serve(port, env), serve_worker(env)
        wait_until_answering(port, server)
        env |= {"NOBLE_ANVIL_URL": f"http://127.0.0.1:{port}", "NOBLE_ANVIL_SERVER_PID": str(server.pid)}
        env["NOBLE_ANVIL_WORKER_PID"] = str(worker.pid)
        return subprocess.run([str(PYTHON), "-m", module, *arguments], cwd=ROOT, env=env, check=False).returncode
    finally:
        for process in (server, worker, gauge):
            if process is not None:
                end(process)
        cluster.stop()


def torture(arguments: list[str]) -> int:
    """./anvil torture"""
    ensure()
    _end_on_terminate()
    folder = HERE / f"torture-{os.getpid()}"
    env = environment(NOBLE_ANVIL_DATA=str(folder))
    return subprocess.run([str(PYTHON), "-m", "bench.torture", *arguments], cwd=ROOT, env=env, check=False).returncode

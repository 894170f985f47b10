"""Keeping the shop's data: a backup into one file, and putting one back."""

from __future__ import annotations

import os
import subprocess
from collections.abc import Iterator
from contextlib import contextmanager
from pathlib import Path

from commands.cluster import Cluster
from commands.places import PYTHON, Stop, environment, run, say
from commands.setup import ensure_debian, ensure_python
from commands.start import secret, take_lock

LIVE, COMING, BEFORE = "noble_anvil", "noble_anvil_coming", "noble_anvil_before"


@contextmanager
def _running(cluster: Cluster) -> Iterator[None]:
    """The cluster running, and stopped again afterwards if it was not running before."""
    port = cluster.running_port()
    if port is not None:
        cluster.port = port
        yield
        return
    cluster.start()
    try:
        yield
    finally:
        cluster.stop()


def _file(arguments: list[str], command: str) -> Path:
    if len(arguments) != 1 or arguments[0].startswith("-"):
        raise Stop(f"Say which file: ./anvil {command} FILE")
    return Path(arguments[0]).expanduser().absolute()


def _program(cluster: Cluster, name: str, *arguments: str) -> subprocess.CompletedProcess[str]:
    reach = ["-h", "127.0.0.1", "-p", str(cluster.port), "-U", "noble_anvil"]
    return subprocess.run(
        [str(cluster.programs / name), *reach, *arguments], capture_output=True, text=True, check=False
    )


def _databases(cluster: Cluster) -> set[str]:
    return set(_program(cluster, "psql", "-d", "postgres", "-tAc", "SELECT datname FROM pg_database").stdout.split())


def _sql(cluster: Cluster, *statements: str) -> None:
    for statement in statements:
        done = _program(cluster, "psql", "-d", "postgres", "-v", "ON_ERROR_STOP=1", "-qc", statement)
        if done.returncode:
            raise Stop(f"The database refused: {done.stderr.strip()}")


def backup(arguments: list[str], cluster: Cluster | None = None) -> int:
    """./anvil backup FILE: everything into one file, while the application runs or not."""
    file = _file(arguments, "backup")
    if file.exists():
        raise Stop(f"{file} is there already. Give another name, or move it away first.")
    if not file.parent.is_dir():
        raise Stop(f"There is no folder {file.parent}.")
    ensure_debian(browser=False)
    cluster = cluster or Cluster("pg")
    if not (cluster.folder / "PG_VERSION").exists():
        raise Stop("There is no data yet. Start the application first: ./anvil start")
    part = file.with_name(file.name + ".part")
    with _running(cluster):
        done = _program(cluster, "pg_dump", "-d", LIVE, "-Fc", "-f", str(part))
    if done.returncode:
        part.unlink(missing_ok=True)
        raise Stop(f"The backup was not written: {done.stderr.strip()}")
    # Under its own name only once it is whole.
    with part.open("rb+") as written:
        os.fsync(written.fileno())
    part.rename(file)
    say(f"Kept in {file} ({file.stat().st_size / 1000:.0f} kB). ./anvil restore puts it back.")
    return 0


def restore(arguments: list[str], cluster: Cluster | None = None) -> int:
    """./anvil restore FILE: what is there now is set aside, and only once the file has been read whole."""
    file = _file(arguments, "restore")
    if not file.is_file():
        raise Stop(f"There is no file {file}.")
    with take_lock():  # not while the application runs
        ensure_debian(browser=False)
        ensure_python()
        cluster = cluster or Cluster("pg")
        with _running_from_now(cluster):
            _put_back(file, cluster)
    say(f"Put back from {file}. What was there before stands in the database {BEFORE} until the next restore.")
    return 0


@contextmanager
def _running_from_now(cluster: Cluster) -> Iterator[None]:
    """The same for a cluster that may not exist yet, such as on a new machine."""
    if cluster.running_port() is None:
        cluster.create()
    with _running(cluster):
        yield


def _put_back(file: Path, cluster: Cluster) -> None:
    there = _databases(cluster)
    if COMING in there:
        _sql(cluster, f"DROP DATABASE {COMING} WITH (FORCE)")
    _sql(cluster, f"CREATE DATABASE {COMING}")
    done = _program(cluster, "pg_restore", "-d", COMING, "--no-owner", "--exit-on-error", str(file))
    if done.returncode:
        _sql(cluster, f"DROP DATABASE {COMING} WITH (FORCE)")
        said = (done.stderr.strip().splitlines() or ["no reason given"])[0]
        raise Stop(f"{file} is not a backup that can be read ({said}). Nothing was changed.")
    # A backup of an older version is brought up to this one before it takes the place.
    env = environment(NOBLE_ANVIL_SECRET_KEY=secret(), NOBLE_ANVIL_DB_NAME=COMING, **cluster.environment())
    run([PYTHON, "-m", "django", "migrate", "--noinput", "-v", "0"], env=env, quiet=True)
    run([PYTHON, "-m", "django", "follow_shelf"], env=env, quiet=True)
    if BEFORE in there and LIVE in there:
        _sql(cluster, f"DROP DATABASE {BEFORE} WITH (FORCE)")
    if LIVE in there:
        _sql(cluster, f"ALTER DATABASE {LIVE} RENAME TO {BEFORE}")
    _sql(cluster, f"ALTER DATABASE {COMING} RENAME TO {LIVE}")

"""Keeping the shop's data: a backup into one file, and putting one back."""

from __future__ import annotations

import getpass
import os
import shlex
import subprocess
import tempfile
from collections.abc import Iterator
from contextlib import contextmanager
from fnmatch import fnmatch
from pathlib import Path

from commands.cluster import APPLICATION, Cluster
from commands.places import PYTHON, ROOT, Stop, environment, say
from commands.preparing import DEMO, LIVE, REAL, secret, shop_of
from commands.setup import ensure_debian, ensure_python
from commands.start import take_lock

COMING, BEFORE = "noble_anvil_coming", "noble_anvil_before"
# Not kept: who is signed in, and questions that nobody waits for any more.
LEFT_OUT = ("django_session", "axes_*", "questions_question", "procrastinate_*")
# What a backup is made of. Programs are none of it: functions and triggers come from this version, never from a file.
TAKEN: tuple[str, ...] = (
    "TABLE",
    "TABLE DATA",
    "SEQUENCE",
    "SEQUENCE OWNED BY",
    "SEQUENCE SET",
    "DEFAULT",
    "CONSTRAINT",
    "INDEX",
)
TAKEN += ("FK CONSTRAINT",)
PROGRAMS = ("FUNCTION", "TYPE", "TRIGGER", "COMMENT", "ACL")
QUEUE = "procrastinate"


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


def _django(cluster: Cluster, database: str, *arguments: str) -> subprocess.CompletedProcess[str]:
    env = environment(NOBLE_ANVIL_DB_NAME=database, **cluster.environment())
    env["NOBLE_ANVIL_SECRET_KEY"] = secret()
    command = [str(PYTHON), "-m", "django", *arguments]
    return subprocess.run(command, cwd=ROOT, env=env, capture_output=True, text=True, check=False)


def _told(what: str, file: Path) -> str:
    """The command that notes it on the trail."""
    return shlex.join(["trail", what, f"{file.name}, by {getpass.getuser()}"])


def backup(arguments: list[str], cluster: Cluster | None = None) -> int:
    """./anvil backup FILE: everything into one file that only its owner reads, while the application runs or not."""
    file = _file(arguments, "backup")
    if file.exists():
        raise Stop(f"{file} is there already. Give another name, or move it away first.")
    if not file.parent.is_dir():
        raise Stop(f"There is no folder {file.parent}.")
    ensure_debian(browser=False)
    ensure_python()
    cluster = cluster or Cluster("pg")
    if not (cluster.folder / "PG_VERSION").exists():
        raise Stop("There is no data yet. Start the application first: ./anvil start")
    part = file.with_name(file.name + ".part")
    part.unlink(missing_ok=True)
    os.close(os.open(part, os.O_WRONLY | os.O_CREAT | os.O_EXCL, 0o600))
    without = [f"--exclude-table-data=public.{name}" for name in LEFT_OUT]
    with _running(cluster):
        done = cluster.program("pg_dump", "-d", LIVE, "-Fc", "-f", str(part), *without, role=APPLICATION)
        if done.returncode:
            part.unlink(missing_ok=True)
            raise Stop(f"The backup was not written: {done.stderr.strip()}")
        # Under its own name only once it is whole.
        with part.open("rb+") as written:
            os.fsync(written.fileno())
        part.rename(file)
        _django(cluster, LIVE, "in_turn", _told("backup", file))
    say(f"Kept in {file} ({file.stat().st_size / 1000:.0f} kB). ./anvil restore puts it back.")
    return 0


def restore(arguments: list[str], cluster: Cluster | None = None) -> int:
    """./anvil restore FILE: what is there now is set aside, and only once the file was put back beside it and read."""
    file = _file(arguments, "restore")
    if not file.is_file():
        raise Stop(f"There is no file {file}.")
    with take_lock():  # not while the application runs
        ensure_debian(browser=False)
        ensure_python()
        cluster = cluster or Cluster("pg")
        with _running_from_now(cluster):
            try:
                _drill(file, cluster)
                _take_place(cluster)
            finally:
                cluster.sql(f"DROP DATABASE IF EXISTS {COMING} WITH (FORCE)")
    say(f"Put back from {file}. What was there before stands in the database {BEFORE} until the next restore.")
    return 0


@contextmanager
def _running_from_now(cluster: Cluster) -> Iterator[None]:
    """The same for a cluster that may not exist yet, such as on a new machine."""
    if cluster.running_port() is None:
        cluster.create()
    with _running(cluster):
        yield


def _contents(file: Path, cluster: Cluster) -> str:
    """What is to be taken of a file, for pg_restore. Stops at one that is no backup of ours."""
    listed = cluster.program("pg_restore", "-l", str(file))
    if listed.returncode:
        said = (listed.stderr.strip().splitlines() or ["no reason given"])[0]
        raise Stop(f"{file} is not a backup that can be read ({said}). Nothing was changed.")
    taken = []
    for line in listed.stdout.splitlines():
        if not line or line.startswith(";"):
            continue
        words = line.split(" ", 3)[3]  # after the number in the file, and two of PostgreSQL's own
        kind = next((k for k in sorted((*TAKEN, *PROGRAMS), key=len, reverse=True) if words.startswith(f"{k} ")), "")
        is_of_queue = QUEUE in words
        if not kind or (kind in PROGRAMS and not is_of_queue):
            raise Stop(f"{file} holds what no backup of Noble Anvil has ({words}). Nothing was changed.")
        # Backups of earlier versions hold who was signed in.
        is_left_out = kind == "TABLE DATA" and any(fnmatch(words.split()[-2], name) for name in LEFT_OUT)
        if not is_of_queue and not is_left_out:
            taken.append(line)
    return "\n".join(taken) + "\n"


def _drill(file: Path, cluster: Cluster) -> None:
    """Put the file back into a database of its own, as the application and never as the keeper, bring it up to this
    version, and read it. What is there is not touched.
    """
    contents = _contents(file, cluster)
    cluster.sql(f"DROP DATABASE IF EXISTS {COMING} WITH (FORCE)", f"CREATE DATABASE {COMING} OWNER {APPLICATION}")
    with tempfile.NamedTemporaryFile("w") as wanted:
        wanted.write(contents)
        wanted.flush()
        put = ("--no-owner", "--no-privileges", "--exit-on-error", "-L", wanted.name, str(file))
        done = cluster.program("pg_restore", "-d", COMING, *put, role=APPLICATION)
    if done.returncode:
        said = (done.stderr.strip().splitlines() or ["no reason given"])[0]
        raise Stop(f"{file} is not a backup that can be read ({said}). Nothing was changed.")
    steps = ("known_version", "new_queue", "migrate --noinput -v 0", "follow_shelf", _told("restored", file))
    done = _django(cluster, COMING, "in_turn", *steps)
    if done.returncode:
        said = (done.stderr.strip().splitlines() or ["no reason given"])[-1].removeprefix("CommandError: ")
        raise Stop(f"{file} cannot be put back: {said}. Nothing was changed.")
    there = cluster.databases()
    if LIVE in there and shop_of(cluster) == REAL and shop_of(cluster, COMING) == DEMO:
        raise Stop(f"{file} holds the demo, and a real shop is here. Nothing was changed.")


def _take_place(cluster: Cluster) -> None:
    """Set aside what is there, and put what was drilled in its place."""
    if LIVE in cluster.databases():
        cluster.sql(f"DROP DATABASE IF EXISTS {BEFORE} WITH (FORCE)", f"ALTER DATABASE {LIVE} RENAME TO {BEFORE}")
    cluster.sql(f"ALTER DATABASE {COMING} RENAME TO {LIVE}")

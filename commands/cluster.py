"""The application's own PostgreSQL cluster, on a free loopback port; Debian's own is never touched."""

from __future__ import annotations

import hashlib
import os
import pwd
import shutil
import socket
import subprocess
import time
from pathlib import Path

from commands.places import DATA, ROOT, Stop
from commands.setup import postgres_programs

SETTINGS = ["listen_addresses=127.0.0.1", "unix_socket_directories=''", "max_connections=60"]
UNSAFE_FAST = ["fsync=off", "synchronous_commit=off", "full_page_writes=off"]  # throw-away clusters only


def free_port() -> int:
    """A loopback port that nobody listens on."""
    with socket.socket() as s:
        s.bind(("127.0.0.1", 0))
        return int(s.getsockname()[1])


def _reachable(folder: Path) -> bool:
    """Whether another user can walk down to this folder."""
    return all(parent.stat().st_mode & 0o001 for parent in folder.parents)


class Cluster:
    """One cluster in a folder. `fast` gives up safety for speed: for tests."""

    def __init__(self, name: str, *, fast: bool = False) -> None:
        programs = postgres_programs()
        if programs is None:
            raise Stop("PostgreSQL is not installed.")
        self.programs = programs
        self.name = name
        self.fast = fast
        self.as_root = os.geteuid() == 0
        self.folder = DATA / name
        if self.as_root and not _reachable(self.folder):
            # PostgreSQL refuses root, and its own user cannot walk into here.
            mark = hashlib.sha256(str(ROOT).encode()).hexdigest()[:10]
            self.folder = Path("/var/lib/postgresql") / f"noble-anvil-{mark}-{name}"
        self.port = 0

    def _command(self, program: str, *arguments: str) -> subprocess.CompletedProcess[str]:
        command = [str(self.programs / program), *arguments]
        if self.as_root:
            user = pwd.getpwnam("postgres")
            command = ["setpriv", f"--reuid={user.pw_uid}", f"--regid={user.pw_gid}", "--clear-groups", *command]
        env = {"LC_ALL": "C.UTF-8", "PATH": os.environ.get("PATH", "/usr/bin:/bin")}
        # pg_ctl's child keeps the pipes open, so output goes to a file that can be read back.
        with (DATA / f"{self.folder.name}.out").open("w+") as out:
            done = subprocess.run(
                command,
                cwd="/",
                env=env,
                stdout=out,
                stderr=subprocess.STDOUT,
                text=True,
                check=False,
                start_new_session=True,
            )
            out.seek(0)
            return subprocess.CompletedProcess(command, done.returncode, out.read())

    def create(self) -> bool:
        """Make the cluster if it is not there; gives whether it was made now."""
        if (self.folder / "PG_VERSION").exists():
            return False
        shutil.rmtree(self.folder, ignore_errors=True)
        self.folder.mkdir(parents=True, mode=0o700)
        if self.as_root:
            user = pwd.getpwnam("postgres")
            os.chown(self.folder, user.pw_uid, user.pw_gid)
        made = self._command(
            "initdb",
            "-D",
            str(self.folder),
            "-U",
            "noble_anvil",
            "-A",
            "trust",
            "-E",
            "UTF8",
            "--locale=C.UTF-8",
            "--data-checksums",
        )
        if made.returncode:
            shutil.rmtree(self.folder, ignore_errors=True)
            raise Stop(f"The database could not be created:\n{made.stdout}")
        return True

    def identity(self) -> str:
        """What tells this cluster from every other: PostgreSQL's own number for it."""
        told = self._command("pg_controldata", "-D", str(self.folder)).stdout
        return next(line for line in told.splitlines() if "system identifier" in line)

    def running_port(self) -> int | None:
        """The port of a running postmaster of this folder."""
        try:
            lines = (self.folder / "postmaster.pid").read_text().splitlines()
        except (FileNotFoundError, PermissionError):
            return None
        if self._command("pg_ctl", "status", "-D", str(self.folder)).returncode or len(lines) < 4:
            return None
        return int(lines[3])

    def _left_running(self) -> int | None:
        """The port of a postmaster that was left running and answers; one that is just dying is waited for."""
        for _ in range(60):
            port = self.running_port()
            if port is None:
                return None
            if self._command("pg_isready", "-h", "127.0.0.1", "-p", str(port)).returncode == 0:
                return port
            time.sleep(0.25)
        raise Stop(f"The database in {self.folder} is running and does not answer; its words are in server.log there.")

    def start(self, port: int | None = None) -> str:
        """Start it, on a free port where none is given; gives a sentence where there is something to tell."""
        self.create()
        told = ""
        left = self._left_running()
        if left is not None:
            self.port = left
            return "The database was still running from a start that did not end cleanly; it is used on."
        if (self.folder / "postmaster.pid").exists():
            told = "The last stop was not clean; the database put itself right."
        settings = SETTINGS + (UNSAFE_FAST if self.fast else [])
        for attempt in range(3):
            self.port = port or free_port()
            options = " ".join(f"-c {s}" for s in (*settings, f"port={self.port}"))
            started = self._command(
                "pg_ctl",
                "start",
                "-w",
                "-t",
                "30",
                "-D",
                str(self.folder),
                "-l",
                str(self.folder / "server.log"),
                "-o",
                options,
            )
            if started.returncode == 0:
                return told
            # A killed postmaster lingers about a second and blocks the new one.
            if attempt < 2:
                time.sleep(1)
        raise Stop(f"The database did not start:\n{started.stdout}{self._last_words()}")

    def _last_words(self) -> str:
        """The end of PostgreSQL's own log, and a sentence where the disk is full."""
        try:
            said = (self.folder / "server.log").read_text(errors="replace").splitlines()[-5:]
        except OSError:
            said = []
        full = any("No space left on device" in line for line in said)
        return "\n".join(said) + (f"\nThe disk that holds {self.folder} is full: free some space." if full else "")

    def stop(self) -> None:
        """Stop it."""
        self._command("pg_ctl", "stop", "-m", "fast", "-w", "-D", str(self.folder))

    def ensure_database(self, name: str) -> None:
        """Create a database if it is not there."""
        args = ["-h", "127.0.0.1", "-p", str(self.port), "-U", "noble_anvil"]
        there = self._command(
            "psql", *args, "-d", "postgres", "-tAc", f"SELECT 1 FROM pg_database WHERE datname='{name}'"
        )
        if there.stdout.strip() != "1":
            made = self._command("createdb", *args, name)
            if made.returncode:
                raise Stop(f"The database could not be created:\n{made.stdout}")

    def environment(self) -> dict[str, str]:
        """What the application needs to reach it."""
        return {"NOBLE_ANVIL_DB_PORT": str(self.port), "NOBLE_ANVIL_DB_USER": "noble_anvil"}

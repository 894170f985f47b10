"""The application's own PostgreSQL cluster, on a free loopback port; Debian's own is never touched.

Nobody connects without a secret. The application's role owns its databases and is no superuser; the keeper's role makes
databases and nothing of the application runs as it. Both secrets lie in a closed folder of whoever starts the cluster.
"""

from __future__ import annotations

import hashlib
import json
import os
import pwd
import secrets
import shutil
import socket
import subprocess
import tempfile
import time
from pathlib import Path

from commands.places import DATA, HERE, ROOT, Stop, closed, kept
from commands.setup import postgres_programs

SETTINGS = ["listen_addresses=127.0.0.1", "unix_socket_directories=''", "max_connections=60"]
KEEPER, APPLICATION = "noble_anvil", "noble_anvil_app"
DOORS = """# Nobody connects without a secret, and nobody from another machine.
local all all reject
host all all 127.0.0.1/32 scram-sha-256
host all all 0.0.0.0/0 reject
host all all ::/0 reject
"""
# Everything of an earlier version's database, to the application's role: that version ran as the superuser.
HAND_OVER = f"""
DO $$ DECLARE one record; BEGIN
  FOR one IN
    SELECT 'TABLE ' || oid::regclass AS named FROM pg_class
      WHERE relnamespace = 'public'::regnamespace AND relkind IN ('r', 'p')
    UNION ALL SELECT 'ROUTINE ' || oid::regprocedure FROM pg_proc WHERE pronamespace = 'public'::regnamespace
    UNION ALL SELECT 'TYPE ' || oid::regtype FROM pg_type WHERE typnamespace = 'public'::regnamespace
      AND (typtype IN ('e', 'd')
        OR typtype = 'c' AND (SELECT relkind FROM pg_class WHERE pg_class.oid = typrelid) = 'c')
  LOOP EXECUTE 'ALTER ' || one.named || ' OWNER TO {APPLICATION}'; END LOOP;
END $$"""
GAVE_UP = ("PANIC: ", "startup process failure")  # what its log says where it ends of its own accord
# Throw-away clusters only. Each process that runs tests has a server and a worker of its own on the one cluster.
UNSAFE_FAST = ["fsync=off", "synchronous_commit=off", "full_page_writes=off", "max_connections=150"]


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
            whose = ROOT if DATA == HERE else DATA
            mark = hashlib.sha256(str(whose).encode()).hexdigest()[:10]
            self.folder = Path("/var/lib/postgresql") / f"noble-anvil-{mark}-{name}"
        self.port = 0

    def _command(self, program: str, *arguments: str, said: str = "") -> subprocess.CompletedProcess[str]:
        """Run a program of PostgreSQL's as the user it runs as; `said` is what it reads."""
        command = [str(self.programs / program), *arguments]
        if self.as_root:
            user = pwd.getpwnam("postgres")
            command = ["setpriv", f"--reuid={user.pw_uid}", f"--regid={user.pw_gid}", "--clear-groups", *command]
        env = {"LC_ALL": "C.UTF-8", "PATH": os.environ.get("PATH", "/usr/bin:/bin")}
        # pg_ctl's child keeps the pipes open, so output goes to a file that can be read back.
        with tempfile.TemporaryFile("w+") as out, tempfile.TemporaryFile("w+") as read:
            read.write(said)
            read.seek(0)
            done = subprocess.run(
                command,
                cwd="/",
                env=env,
                stdin=read,
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
        # Closed before it is started for the first time: no moment in which anybody could connect.
        how = ("-U", KEEPER, "-A", "trust", "-E", "UTF8", "--locale=C.UTF-8", "--data-checksums")
        made = self._command("initdb", "-D", str(self.folder), *how)
        if made.returncode:
            shutil.rmtree(self.folder, ignore_errors=True)
            raise Stop(f"The database could not be created:\n{made.stdout}")
        return True

    def _secrets_file(self) -> Path:
        return closed(DATA / "secrets") / f"{self.folder.name}.json"

    def _secrets(self) -> dict[str, str]:
        """The secret of each role. Raises KeyError where they are not known."""
        try:
            known = json.loads(self._secrets_file().read_text())
            return {role: str(known[role]) for role in (KEEPER, APPLICATION)}
        except (OSError, ValueError, TypeError) as error:
            raise KeyError("secrets") from error

    def _lock(self) -> None:
        """Give both roles their secrets and let nobody in without one; of a cluster that stands still.

        One of an earlier version, whose door was open, and one whose secrets were lost are closed the same way.
        """
        if self._is_locked():
            return
        (self.folder / "pg_hba.conf").write_text(DOORS)
        given = {role: secrets.token_urlsafe(32) for role in (KEEPER, APPLICATION)}
        more = "CREATEDB" if self.fast else "NOCREATEDB"  # tests make databases of their own
        said = [
            f"CREATE ROLE {APPLICATION}",  # complains where it is there already, which does no harm
            f"ALTER ROLE {APPLICATION} LOGIN NOSUPERUSER NOCREATEROLE NOREPLICATION {more} "
            f"PASSWORD '{given[APPLICATION]}'",
            f"ALTER ROLE {KEEPER} PASSWORD '{given[KEEPER]}'",
        ]
        # Alone with the files, without any connection.
        alone = self._command("postgres", "--single", "-D", str(self.folder), "postgres", said="\n".join(said) + "\n")
        if alone.returncode:
            raise Stop(f"The database could not be given its secrets:\n{alone.stdout}")
        kept(self._secrets_file(), json.dumps(given))

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

    def is_alive(self) -> bool:
        """Whether its postmaster lives; quick enough to be asked all the time."""
        try:
            pid = (self.folder / "postmaster.pid").read_text().split()[0]
            return str(self.folder).encode() in Path(f"/proc/{pid}/cmdline").read_bytes()
        except (OSError, IndexError):
            return False

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
        if left is not None and not self._is_locked():
            self.stop()
            left = None
        if left is not None:
            self.port = left
            return "The database was still running from a start that did not end cleanly; it is used on."
        if (self.folder / "postmaster.pid").exists():
            told = "The last stop was not clean; the database put itself right."
        self._lock()
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

    def _is_locked(self) -> bool:
        """Whether it has its secrets and lets nobody in without one."""
        try:
            self._secrets()
            return (self.folder / "pg_hba.conf").read_text() == DOORS
        except (KeyError, OSError):
            return False

    def _said(self) -> list[str]:
        """PostgreSQL's own log, in lines."""
        try:
            return (self.folder / "server.log").read_text(errors="replace").splitlines()
        except OSError:
            return []

    def ended_by_itself(self) -> bool:
        """Whether it gave up since it was last started; one that was killed had no time to say anything."""
        said = self._said()
        begun = max((i for i, line in enumerate(said) if "starting PostgreSQL" in line), default=0)
        return any(sign in line for line in said[begun:] for sign in GAVE_UP)

    def _last_words(self) -> str:
        """The end of PostgreSQL's own log, and a sentence where the disk is full."""
        said = self._said()[-5:]
        full = any("No space left on device" in line for line in said)
        return "\n".join(said) + (f"\nThe disk that holds {self.folder} is full: free some space." if full else "")

    def stop(self) -> None:
        """Stop it."""
        self._command("pg_ctl", "stop", "-m", "fast", "-w", "-D", str(self.folder))

    def program(self, name: str, *arguments: str, role: str = KEEPER) -> subprocess.CompletedProcess[str]:
        """Run a client program of PostgreSQL's against this cluster in a role."""
        env = {
            "LC_ALL": "C.UTF-8",
            "PATH": os.environ.get("PATH", "/usr/bin:/bin"),
            "PGPASSWORD": self._secrets()[role],
            "PGHOST": "127.0.0.1",
            "PGPORT": str(self.port),
            "PGUSER": role,
        }
        return subprocess.run(
            [str(self.programs / name), *arguments], env=env, capture_output=True, text=True, check=False
        )

    def sql(self, *statements: str, database: str = "postgres") -> str:
        """Run statements as the keeper; gives what the last one found. Stops where one is refused."""
        found = ""
        for statement in statements:
            done = self.program("psql", "-d", database, "-v", "ON_ERROR_STOP=1", "-qtAc", statement)
            if done.returncode:
                raise Stop(f"The database refused: {done.stderr.strip()}")
            found = done.stdout.strip()
        return found

    def databases(self) -> set[str]:
        """The databases there are."""
        return set(self.sql("SELECT datname FROM pg_database").split())

    def ensure_database(self, name: str) -> None:
        """Create a database of the application's if it is not there; one of an earlier version becomes its own."""
        owner = self.sql(f"SELECT pg_get_userbyid(datdba) FROM pg_database WHERE datname = '{name}'")
        if not owner:
            self.sql(f"CREATE DATABASE {name} OWNER {APPLICATION}")
        elif owner != APPLICATION:
            self.sql(f"ALTER DATABASE {name} OWNER TO {APPLICATION}")
            self.sql(HAND_OVER, database=name)

    def environment(self) -> dict[str, str]:
        """What the application needs to reach it."""
        return {
            "NOBLE_ANVIL_DB_PORT": str(self.port),
            "NOBLE_ANVIL_DB_USER": APPLICATION,
            "NOBLE_ANVIL_DB_PASSWORD": self._secrets()[APPLICATION],
        }

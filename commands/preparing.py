"""What must be so before the application is served: room, a free port, a secret, a database and a shop in it."""

from __future__ import annotations

import secrets
import shutil
import socket
import time
from pathlib import Path

from commands.cluster import Cluster
from commands.places import DATA, PYTHON, ROOT, Stop, closed, digest, is_fresh, kept, mark_fresh, run, say

LIVE, DEMO_ASIDE = "noble_anvil", "noble_anvil_demo"
ROOM_LEAST = 100_000_000  # bytes: a day of edits and PostgreSQL's own log
DEMO, REAL = "demo", "real"


def _is_free(port: int) -> bool:
    with socket.socket() as s:
        s.setsockopt(socket.SOL_SOCKET, socket.SO_REUSEADDR, 1)
        try:
            s.bind(("127.0.0.1", port))
        except OSError:
            return False
    return True


def refuse_taken(port: int, patience_s: float = 0.0) -> None:
    """Say so when another program has the port; one that was just ended may let go of it a moment later."""
    until = time.monotonic() + patience_s
    while not _is_free(port):
        if time.monotonic() >= until:
            raise Stop(f"Port {port} is taken by another program. Try ./anvil start --port {port + 1}.")
        time.sleep(0.05)


def refuse_full(folder: Path) -> None:
    """Say so when the disk has no room left for edits."""
    free = shutil.disk_usage(folder).free
    if free < ROOM_LEAST:
        raise Stop(
            f"Only {free / 1e6:.0f} MB are free on the disk that holds {folder}; {ROOM_LEAST / 1e6:.0f} MB are needed "
            "to keep edits safely. Free some space, then start again."
        )


def secret() -> str:
    """The key that signs sessions, made once."""
    file, earlier = closed(DATA / "secrets") / "key", DATA / "secret"
    if earlier.exists():  # where earlier versions had it
        earlier.replace(file)
        file.chmod(0o600)
    if not file.exists():
        kept(file, secrets.token_urlsafe(50))
    return file.read_text()


def shop_of(cluster: Cluster, database: str = LIVE) -> str:
    """Whether a database holds the demo or a real shop, "" while nothing was begun in it. It is kept with the data."""
    if not cluster.sql("SELECT to_regclass('foundation_shop')", database=database):
        return ""
    return cluster.sql("SELECT kind FROM foundation_shop", database=database)


class _Steps:
    """What is to be done to the database, in one process; each is remembered by its stamp once all were done."""

    def __init__(self, cluster: Cluster, env: dict[str, str]) -> None:
        self.cluster, self.env = cluster, env
        self.commands: list[str] = []
        self.stamps: list[tuple[str, str]] = []

    def add(self, command: str, name: str = "", stamp: str = "") -> None:
        """Have a command done, unless it was done for this stamp."""
        name = f"{name}-{self.cluster.folder.name}" if name else ""
        if not name or not is_fresh(name, stamp):
            self.commands.append(command)
            self.stamps += [(name, stamp)] if name else []

    def take(self) -> None:
        """Do what was added."""
        if self.commands:
            say("Preparing the database …")
            run([PYTHON, "-m", "django", "in_turn", *self.commands], env=self.env, quiet=True)
        for name, stamp in self.stamps:
            mark_fresh(name, stamp)


def _bring_up(cluster: Cluster, env: dict[str, str], begin: str) -> None:
    """Bring the database up to this version, and begin a shop of the kind `begin` in it where it is empty."""
    cluster.ensure_database(LIVE)
    # The stamps name the cluster and the database: a new one in the same place is migrated and filled again.
    mark = f"{cluster.identity()} {cluster.sql(f'SELECT oid FROM pg_database WHERE datname = {LIVE!r}')}"
    steps = _Steps(cluster, env)
    migrations = digest(sorted(ROOT.glob("server/**/migrations/*.py")), mark)
    steps.add("migrate --noinput -v 0", "migrations", migrations)
    # Once: what the shop took off its shelf stays off.
    steps.add("load_starting_shelf", "starting-shelf", mark)
    # What the bench keeps of how runs stand follows from the rules: new rules, new standing.
    rules = [p for p in ROOT.glob("calc/**/*") if p.suffix in (".py", ".csv") and "tests" not in p.parts]
    steps.add("follow_shelf", "standing", digest(sorted(rules), mark))
    if not shop_of(cluster):
        steps.add(f"begin_shop {begin} --unless-begun")
    steps.take()


def prepare_database(cluster: Cluster, env: dict[str, str], wanted: str = "") -> str:
    """Bring the database up to this version and begin a shop in it where there is none; gives which kind it is.

    A shop is what it was begun as, whatever is asked for later: a real one never opens as the demo, and a real one that
    is asked for where the demo stands begins empty, with the demo set aside.
    """
    _bring_up(cluster, env, wanted or DEMO)
    if (shop_of(cluster), wanted) == (DEMO, REAL):
        if DEMO_ASIDE in cluster.databases():
            cluster.sql(f"DROP DATABASE {DEMO_ASIDE} WITH (FORCE)")
        cluster.sql(f"ALTER DATABASE {LIVE} RENAME TO {DEMO_ASIDE}")
        say(f"The demo ends here: it was set aside as the database {DEMO_ASIDE}, and an empty shop begins.")
        _bring_up(cluster, env, REAL)
    return shop_of(cluster)

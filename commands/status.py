"""./anvil status: what runs, where, since when, and how full it is."""

from __future__ import annotations

import fcntl
import shutil
from pathlib import Path

from commands.cluster import Cluster
from commands.places import DATA, say
from commands.preparing import LIVE, ROOM_LEAST
from commands.processes import is_ours
from commands.start import LOCK, Known, read_lock

MODULES = {
    "server": "server.serve",
    "worker": "server.work",
    "gauge": "devices.gauge",
    "instruments": "devices.instrument",
    "machine": "devices.machine",
    "listener": "server.listen",
}
TITLES = {
    "server": "web server",
    "worker": "long questions",
    "gauge": "simulated gauge",
    "instruments": "simulated instruments",
    "machine": "simulated lathe",
    "listener": "listens to machines",
}


def _since(pid: int) -> str:
    """How long a process has lived."""
    ticks = int(Path(f"/proc/{pid}/stat").read_text().rpartition(")")[2].split()[19])
    uptime = float(Path("/proc/uptime").read_text().split()[0])
    minutes = int((uptime - ticks / 100) / 60)
    return f"{minutes // 60} h {minutes % 60} min" if minutes >= 60 else f"{minutes} min"


def _memory(pid: int) -> int:
    """What a process and those it started hold in memory [bytes]."""
    found = 0
    for status in Path("/proc").glob("[0-9]*/status"):
        try:
            lines = dict(line.split(":", 1) for line in status.read_text().splitlines() if ":" in line)
        except OSError:
            continue  # it has ended
        if pid in (int(lines["Pid"]), int(lines["PPid"])):
            found += int(lines.get("VmRSS", "0 kB").split()[0]) * 1024
    return found


def kept() -> tuple[Known, bool]:
    """What the application wrote of itself when it was started, and whether something still keeps it."""
    if not LOCK.exists():
        return {}, False
    with LOCK.open("r+") as file:
        try:
            fcntl.flock(file, fcntl.LOCK_EX | fcntl.LOCK_NB)
        except BlockingIOError:
            return read_lock(file), True
        return read_lock(file), False


def status(arguments: list[str]) -> int:
    """Tell it; gives 0 where everything runs, 1 where something does not, 3 where nothing does."""
    known, is_kept = kept()
    cluster = Cluster("pg")
    has_data = (cluster.folder / "PG_VERSION").exists()
    runs = [name for name, module in MODULES.items() if is_ours(known.get(name), module)]
    database = cluster.running_port() if has_data else None
    if is_kept:
        pid = known["pid"]
        say(f"Noble Anvil runs: http://127.0.0.1:{known['port']}, for {_since(pid)}, process {pid}")
    elif runs or database:
        say("What kept Noble Anvil running has ended. ./anvil stop ends what is left of it, ./anvil start begins anew.")
    else:
        say("Noble Anvil is not running. ./anvil start begins it.")
    for name in runs:
        pid = known[name]
        say(f"  {TITLES[name]:16} process {pid}, for {_since(pid)}, {_memory(pid) / 1e6:.0f} MB")
    missing = [TITLES[name] for name in MODULES if is_kept and name in known and name not in runs]
    if is_kept and not database:
        missing.append("database")
    for title in missing:
        say(f"  {title:16} has ended; it is started again in a moment")
    if database:
        cluster.port = database
        say(f"  {'database':16} port {database}, {_of_the_database(cluster)}")
    if has_data:
        say(f"  {'data':16} {cluster.folder}")
    free = shutil.disk_usage(DATA if DATA.exists() else DATA.parent).free
    short = "" if free > 10 * ROOM_LEAST else ": that is little, free some space"
    say(f"  {'disk':16} {free / 1e9:.1f} GB free{short}")
    return 3 if not (is_kept or runs or database) else 0 if is_kept and not missing else 1


ASKED = """
SELECT (SELECT sum(pg_database_size(oid)) FROM pg_database), (SELECT count(*) FROM runs_run),
  (SELECT count(*) FROM foundation_person WHERE is_active), (SELECT kind FROM foundation_shop),
  (SELECT max(at)::timestamp(0) FROM foundation_trailentry WHERE what = 'backup')
"""


def _of_the_database(cluster: Cluster) -> str:
    done = cluster.program("psql", "-d", LIVE, "-qtAc", ASKED)
    if done.returncode:
        return "just beginning, or not answering"
    size, runs, people, kind, backup = done.stdout.strip().split("|")
    told = f"last backup {backup} UTC" if backup else "never backed up"
    shop = {"demo": "the demo", "real": "a real shop"}.get(kind, "no shop yet")
    return f"{int(size) / 1e6:.0f} MB, {shop}: {runs} runs, {people} people, {told}"

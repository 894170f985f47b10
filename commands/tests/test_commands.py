"""What ./anvil does around the application: stamps, ports, the lock, the cluster."""

import fcntl
import json
import os
import shutil
import signal
import socket
import subprocess
import sys

import pytest

from commands import cluster as clusters
from commands import keeping, logs, places, preparing, processes, setup, start
from commands.main import COMMANDS, main


def test_a_stamp_changes_with_contents_names_and_what_is_added(data, monkeypatch):
    monkeypatch.setattr(places, "ROOT", data)
    folder = data / "src"
    folder.mkdir()
    (folder / "a").write_text("1")
    stamps = [places.digest([folder])]
    (folder / "a").write_text("2")
    stamps.append(places.digest([folder]))
    (folder / "a").rename(folder / "b")
    stamps.append(places.digest([folder]))
    (folder / "c").write_text("")
    stamps.append(places.digest([folder]))
    stamps.append(places.digest([folder], "more"))
    assert len(set(stamps)) == len(stamps)
    assert places.digest([folder], "more") == stamps[-1]
    assert places.digest([data / "not there"]) == places.digest([])


def test_a_step_is_fresh_only_for_its_own_stamp(data):
    assert not places.is_fresh("npm", "x")
    places.mark_fresh("npm", "x")
    assert places.is_fresh("npm", "x")
    assert not places.is_fresh("npm", "y")
    assert not places.is_fresh("python", "x")


def test_a_program_that_fails_stops_with_its_words(capsys):
    places.run([sys.executable, "-c", ""], quiet=True)
    with pytest.raises(places.Stop):
        places.run([sys.executable, "-c", "print('why'); exit(3)"], quiet=True)
    assert "why" in capsys.readouterr().err


def test_a_taken_port_gets_its_sentence(capsys):
    with socket.socket() as taken:
        taken.bind(("127.0.0.1", 0))
        taken.listen()
        port = taken.getsockname()[1]
        with pytest.raises(SystemExit):
            preparing.refuse_taken(port)
    assert f"--port {port + 1}" in capsys.readouterr().err
    preparing.refuse_taken(clusters.free_port())


@pytest.mark.parametrize("port", ["0", "65536", "-1"])
def test_a_port_that_is_none_gets_its_sentence(port, data, capsys):
    with pytest.raises(SystemExit):
        start.start(["--port", port])
    assert "from 1 to 65535" in capsys.readouterr().err


def test_starting_twice_says_where_it_runs(data, capsys):
    with start.take_lock() as lock:
        start._write(lock, pid=1, port=8123)
        second = (
            "from pathlib import Path; from commands import start\n"
            f"start.DATA = Path({str(data)!r}); start.LOCK = start.DATA / 'start.lock'\n"
            "start.take_lock()"
        )
        done = subprocess.run(
            [sys.executable, "-c", second], capture_output=True, text=True, cwd=places.ROOT, check=False
        )
        assert done.returncode == 1
        assert "already running at http://127.0.0.1:8123" in done.stderr
    start.take_lock().close()  # free again


def test_stopping_what_does_not_run_says_so(data, capsys):
    assert start.stop([]) == 0
    start.take_lock().close()
    assert start.stop([]) == 0
    assert capsys.readouterr().out.count("not running") == 2


def test_the_secret_is_made_once_and_is_nobody_elses(data):
    first = preparing.secret()
    assert len(first) > 50
    assert preparing.secret() == first
    file = data / "secrets" / "key"
    assert (file.stat().st_mode & 0o077, file.parent.stat().st_mode & 0o077) == (0, 0)
    file.replace(data / "secret")  # where earlier versions had it, readable by all
    (data / "secret").chmod(0o644)
    assert preparing.secret() == first
    assert not (data / "secret").exists() and file.stat().st_mode & 0o077 == 0


def test_missing_packages_print_the_exact_line_to_run(monkeypatch, capsys):
    monkeypatch.setattr(setup, "postgres_programs", lambda: None)
    monkeypatch.setattr(setup.os, "geteuid", lambda: 1000)
    with pytest.raises(SystemExit):
        setup.ensure_debian(browser=False)
    said = capsys.readouterr().err
    assert "sudo apt-get update && sudo apt-get install -y --no-install-recommends postgresql" in said


@pytest.mark.parametrize("known", [True, False])
def test_the_browser_without_windows_is_installed_and_the_whole_one_where_debian_has_no_other(
    known, monkeypatch, tmp_path
):
    asked = []

    def run(command, **_):
        asked.append(command[-2:])
        if "install" in command and not known and "chromium-headless-shell" in command:
            raise places.Stop("Unable to locate package")

    for name in ("HEADLESS", "CHROMIUM"):
        monkeypatch.setattr(setup, name, tmp_path / getattr(setup, name).name)
    monkeypatch.setattr(setup, "postgres_programs", lambda: tmp_path)
    monkeypatch.setattr(setup.os, "geteuid", lambda: 0)
    monkeypatch.setattr(setup, "run", run)
    setup.ensure_debian(browser=True)
    assert asked[-1] == ["chromium-headless-shell" if known else "chromium", "fonts-dejavu-core"]


def test_too_old_a_node_is_told(monkeypatch, capsys):
    old = subprocess.CompletedProcess([], 0, stdout="v18.19.0\n")
    monkeypatch.setattr(setup.subprocess, "run", lambda *a, **k: old)
    with pytest.raises(SystemExit):
        setup._node_version()
    assert "Node 20" in capsys.readouterr().err


def test_the_cluster_is_created_started_found_and_stopped(own_cluster):
    assert own_cluster.start() == ""
    mark = own_cluster.identity()
    own_cluster.ensure_database("shop")
    own_cluster.ensure_database("shop")
    assert own_cluster.running_port() == own_cluster.port
    again = clusters.Cluster(own_cluster.name)
    assert "still running" in again.start()
    assert again.port == own_cluster.port
    own_cluster.stop()
    assert own_cluster.running_port() is None
    assert own_cluster.create() is False
    assert own_cluster.identity() == mark


def test_nobody_connects_without_the_secret_and_the_application_is_no_superuser(own_cluster):
    own_cluster.start()
    own_cluster.ensure_database("shop")
    psql = str(own_cluster.programs / "psql")
    at = ["-h", "127.0.0.1", "-p", str(own_cluster.port), "-d", "postgres", "-tAc", "SELECT 1"]
    for role in (clusters.KEEPER, clusters.APPLICATION, "postgres"):
        for said in ("", "guess", own_cluster._secrets()[clusters.APPLICATION][:-1]):
            env = {"PATH": os.environ["PATH"], "PGPASSWORD": said}
            done = subprocess.run([psql, "-w", "-U", role, *at], env=env, capture_output=True, text=True, check=False)
            assert done.returncode and "1" not in done.stdout, (role, said)
    as_application = lambda sql: own_cluster.program("psql", "-d", "shop", "-c", sql, role=clusters.APPLICATION)  # noqa: E731
    assert as_application("CREATE TABLE mine (n int)").returncode == 0
    for forbidden in (
        "COPY mine FROM PROGRAM 'id'",
        "SELECT pg_read_file('/etc/passwd')",
        f"ALTER ROLE {clusters.APPLICATION} SUPERUSER",
        "CREATE ROLE another",
        f"SET ROLE {clusters.KEEPER}",
    ):
        assert "ERROR" in as_application(forbidden).stderr, forbidden
    secrets = own_cluster._secrets_file()
    assert (secrets.stat().st_mode & 0o777, secrets.parent.stat().st_mode & 0o777) == (0o600, 0o700)
    assert own_cluster.folder.stat().st_mode & 0o777 == 0o700


def test_a_cluster_whose_door_was_open_is_closed_and_its_data_are_the_applications(own_cluster):
    """As an earlier version left it: anybody comes in, and the application was the superuser."""
    own_cluster.create()
    open_to_all = (own_cluster.folder / "pg_hba.conf").read_text()
    own_cluster.start()
    own_cluster.sql("CREATE DATABASE shop")
    own_cluster.sql(
        "CREATE TABLE runs (id bigint GENERATED ALWAYS AS IDENTITY, name text)",
        "INSERT INTO runs (name) VALUES ('carrier')",
        "CREATE TYPE state AS ENUM ('open')",
        "CREATE FUNCTION one() RETURNS int LANGUAGE sql AS 'SELECT 1'",
        database="shop",
    )
    own_cluster.stop()
    (own_cluster.folder / "pg_hba.conf").write_text(open_to_all)
    own_cluster._secrets_file().unlink()
    assert own_cluster.start() == ""
    own_cluster.ensure_database("shop")
    asked = (
        "ALTER TABLE runs ADD more state; INSERT INTO runs (name) VALUES ('ring'); SELECT count(*) + one() FROM runs"
    )
    assert in_database(own_cluster, asked, "shop").split()[-1] == "3"
    assert (own_cluster.folder / "pg_hba.conf").read_text() == clusters.DOORS


def test_a_cluster_left_running_with_its_door_open_is_closed(own_cluster):
    own_cluster.start()
    (own_cluster.folder / "pg_hba.conf").write_text("host all all 127.0.0.1/32 trust\n")
    assert own_cluster.start() == ""  # it was stopped first
    assert (own_cluster.folder / "pg_hba.conf").read_text() == clusters.DOORS
    own_cluster.ensure_database("shop")


def test_the_datas_folder_is_passable_and_each_below_it_is_closed(data, monkeypatch):
    data.chmod(0o755)
    places.open_data()
    assert data.stat().st_mode & 0o777 == 0o711
    assert {p.name: p.stat().st_mode & 0o777 for p in data.iterdir()} == dict.fromkeys(
        ("secrets", "stamps", "compiled"), 0o700
    )
    with start.take_lock():
        assert (data / "start.lock").stat().st_mode & 0o777 == 0o600


def test_a_log_is_cut_where_it_has_grown_long(tmp_path):
    log = tmp_path / "server.log"
    logs.cut(log, 1000)  # there is none yet
    log.write_bytes(b"old\n" * 100 + b"new\n" * 200)
    with log.open("ab") as writer:
        logs.cut(log, 1000)
        writer.write(b"later\n")
    assert log.read_bytes() == b"later\n"
    aside = tmp_path / "server.log.1"
    assert (aside.stat().st_size, aside.stat().st_mode & 0o777) == (1000, 0o600)
    logs.cut(log, 1000)
    assert log.read_bytes() == b"later\n"


def test_a_cluster_that_was_killed_starts_again_and_says_so(own_cluster):
    own_cluster.start()
    own_cluster._command("pg_ctl", "stop", "-m", "immediate", "-w", "-D", str(own_cluster.folder))
    pid = own_cluster.folder / "postmaster.pid"
    pid.write_text("999999\n" + str(own_cluster.folder) + "\n")  # what a killed postmaster leaves behind
    if own_cluster.as_root:
        shutil.chown(pid, "postgres")
    assert "not clean" in own_cluster.start()


def test_a_cluster_killed_a_moment_ago_is_waited_for_and_never_taken_for_running(own_cluster):
    own_cluster.start()
    os.kill(int((own_cluster.folder / "postmaster.pid").read_text().split()[0]), signal.SIGKILL)
    assert not own_cluster.ended_by_itself()
    assert "not clean" in own_cluster.start()
    own_cluster.ensure_database("shop")


def test_a_cluster_that_gives_up_is_told_from_one_that_was_killed(own_cluster, capsys):
    own_cluster.start()
    own_cluster._command("pg_ctl", "stop", "-m", "immediate", "-w", "-D", str(own_cluster.folder))
    for written in (own_cluster.folder / "pg_wal").glob("0*"):
        written.unlink()  # nothing is left to put it right from
    with pytest.raises(places.Stop):
        own_cluster.start()
    assert "did not start" in capsys.readouterr().err
    assert own_cluster.ended_by_itself()


def test_a_full_disk_gets_its_sentence(data, monkeypatch, capsys):
    preparing.refuse_full(data)
    monkeypatch.setattr(
        preparing.shutil, "disk_usage", lambda _: shutil._ntuple_diskusage(10**9, 10**9 - 5_000_000, 5_000_000)
    )
    with pytest.raises(SystemExit):
        preparing.refuse_full(data)
    assert "Only 5 MB are free" in capsys.readouterr().err


def test_a_database_whose_disk_is_full_says_so(own_cluster):
    own_cluster.create()
    (own_cluster.folder / "server.log").write_text("FATAL: could not write: No space left on device\n")
    assert "is full: free some space" in own_cluster._last_words()


def test_a_server_left_behind_is_ended_and_nobody_elses_is(data):
    program = "import time\nprint('up', flush=True)\ntime.sleep(60)"

    def left(*more):
        made = subprocess.Popen(
            [sys.executable, "-c", program, *more], cwd=places.ROOT, start_new_session=True, stdout=subprocess.PIPE
        )
        made.stdout.readline()
        return made

    ours, another = left("server.serve"), left("something.else")
    try:
        assert "still running; it was ended" in processes.end_orphan(ours.pid) or ours.poll() is not None
        ours.wait(10)
        for pid in (another.pid, 2**22 - 1, None, "7"):
            assert processes.end_orphan(pid) == ""
        assert another.poll() is None
    finally:
        another.kill()
        another.wait()
        another.stdout.close()
        ours.stdout.close()


def test_a_lock_that_was_half_written_is_no_hindrance(data):
    with start.take_lock() as lock:
        lock.write('{"pid": 1, "po')
        lock.flush()
        assert start.read_lock(lock) == {}


def in_database(cluster, sql, name="noble_anvil"):
    return cluster.program("psql", "-d", name, "-tAc", sql, role=clusters.APPLICATION).stdout.strip()


@pytest.fixture(scope="session")
def full(tmp_path_factory, worker_id):
    """Where a cluster with the demo in it is kept, for every process that tests; nothing is there before the first."""
    folder = tmp_path_factory.getbasetemp()
    return (folder if worker_id == "master" else folder.parent) / "full-shop"


@pytest.fixture
def shop(own_cluster, data, full):
    """A cluster with the demo in it."""
    with full.with_suffix(".lock").open("w") as lock:
        fcntl.flock(lock, fcntl.LOCK_EX)
        if not full.exists():
            own_cluster.start()
            preparing.prepare_database(own_cluster, places.environment(**own_cluster.environment()))
            own_cluster.stop()
            subprocess.run(["cp", "-a", own_cluster.folder, full], check=True)
    shutil.rmtree(own_cluster.folder, ignore_errors=True)
    subprocess.run(["cp", "-a", full, own_cluster.folder], check=True)
    own_cluster.start()
    return own_cluster


def dumped(cluster, file, *statements, into="crafted"):
    """A file as pg_dump makes it, of the shop's database with something changed."""
    cluster.sql(f"DROP DATABASE IF EXISTS {into}", f"CREATE DATABASE {into} TEMPLATE noble_anvil")
    cluster.sql(*statements, database=into)
    assert cluster.program("pg_dump", "-d", into, "-Fc", "-f", str(file)).returncode == 0
    return file


EVIL = "CREATE FUNCTION evil() RETURNS trigger LANGUAGE plpgsql AS $$ BEGIN RETURN NULL; END $$"
NOT_OURS = [
    ("a function", [EVIL], "holds what no backup of Noble Anvil has"),
    ("a trigger", [EVIL, "CREATE TRIGGER e BEFORE INSERT ON runs_run EXECUTE FUNCTION evil()"], "holds what no backup"),
    ("an extension's", ["CREATE SCHEMA other"], "holds what no backup"),
    ("a view", ["CREATE VIEW v AS SELECT 1"], "holds what no backup"),
    ("another application's", ["DELETE FROM django_migrations WHERE app = 'runs'"], "this is no backup of Noble Anvil"),
    (
        "a newer version's",
        ["INSERT INTO django_migrations (app, name, applied) VALUES ('runs', '9999_to_come', now())"],
        "a newer version of Noble Anvil wrote this (runs 9999_to_come)",
    ),
]


def test_a_file_that_is_not_ours_or_of_a_newer_version_changes_nothing(shop, tmp_path, capsys):
    before = in_database(shop, "SELECT count(*) FROM runs_run"), shop.databases()
    for name, statements, says in NOT_OURS:
        file = dumped(shop, tmp_path / f"{name}.backup", *statements)
        shop.sql("DROP DATABASE crafted")
        with pytest.raises(SystemExit):
            keeping.restore([str(file)], shop)
        assert says in capsys.readouterr().err, name
        assert (in_database(shop, "SELECT count(*) FROM runs_run"), shop.databases()) == before, name


LAST = "SELECT what FROM foundation_trailentry ORDER BY id DESC LIMIT 1"
# A program that goes by a name of the queue's own.
EVIL_QUEUE = (
    "CREATE OR REPLACE FUNCTION procrastinate_notify_queue_job_inserted_v1() RETURNS trigger LANGUAGE plpgsql "
    "AS $$ BEGIN DELETE FROM runs_run; RETURN NEW; END $$"
)


def test_the_drill_a_backup_is_put_back_after_all_was_lost(shop, tmp_path, capsys):
    file = tmp_path / "shop.backup"
    asked = "SELECT string_agg(drawing_number || attention || words, ',' ORDER BY id) FROM runs_run"
    before = in_database(shop, asked)
    assert "LH-2041" in before
    in_database(shop, "INSERT INTO django_session VALUES ('abc', 'data', now() + interval '1 day')")
    assert keeping.backup([str(file)], shop) == 0
    assert (file.stat().st_mode & 0o777, in_database(shop, LAST)) == (0o600, "backup")
    assert in_database(shop, "UPDATE runs_run SET drawing_number = 'spoilt' RETURNING 1")
    assert keeping.restore([str(file)], shop) == 0
    assert (in_database(shop, asked), in_database(shop, LAST)) == (before, "restored")
    assert in_database(shop, "SELECT count(*) FROM django_session") == "0"
    assert "spoilt" in in_database(shop, asked, keeping.BEFORE)  # what was there is set aside, not thrown away
    # A second time, from a file with a program in it: that is left out, this version's own comes in its place.
    assert keeping.restore([str(dumped(shop, tmp_path / "evil.backup", EVIL_QUEUE))], shop) == 0
    programs = in_database(shop, "SELECT string_agg(prosrc, '') FROM pg_proc WHERE proname LIKE 'procrastinate%'")
    assert "procrastinate" in programs and "DELETE FROM runs_run" not in programs
    owners = "SELECT DISTINCT pg_get_userbyid(relowner) FROM pg_class WHERE relnamespace = 'public'::regnamespace"
    assert in_database(shop, owners) == clusters.APPLICATION
    # On a new machine there is no cluster yet.
    shop.stop()
    shutil.rmtree(shop.folder)
    assert keeping.restore([str(file)], shop) == 0
    shop.start()
    assert in_database(shop, asked) == before
    assert "Put back" in capsys.readouterr().out


def test_the_demo_never_lands_in_a_real_shop(shop, tmp_path, capsys):
    file = tmp_path / "demo.backup"
    keeping.backup([str(file)], shop)
    in_database(shop, "UPDATE foundation_shop SET kind = 'real'")
    with pytest.raises(SystemExit):
        keeping.restore([str(file)], shop)
    assert "holds the demo, and a real shop is here" in capsys.readouterr().err
    assert preparing.shop_of(shop) == "real"


def test_a_shop_is_what_it_was_begun_as_whatever_it_is_started_with(shop, capsys):
    env = places.environment(**shop.environment())
    assert preparing.prepare_database(shop, env) == "demo"
    # A real shop that is asked for where the demo stands begins empty; the demo's people and sessions are not in it.
    assert preparing.prepare_database(shop, env, "real") == "real"
    assert "it was set aside" in capsys.readouterr().out
    assert in_database(shop, "SELECT count(*) FROM foundation_person") == "0"
    assert in_database(shop, "SELECT count(*) FROM runs_run") == "0"
    assert in_database(shop, "SELECT count(*) FROM foundation_person", preparing.DEMO_ASIDE) == "4"
    for wanted in ("", "real", "demo"):
        assert preparing.prepare_database(shop, env, wanted) == "real"


def test_what_is_no_backup_changes_nothing(shop, tmp_path, capsys):
    file = tmp_path / "wrong"
    file.write_bytes(b"PGDMP but no more")
    runs = in_database(shop, "SELECT count(*) FROM runs_run")
    for arguments, says in (
        ([str(file)], "Nothing was changed"),
        ([str(tmp_path / "none")], "There is no file"),
        ([], "Say which file"),
    ):
        with pytest.raises(SystemExit):
            keeping.restore(arguments, shop)
        assert says in capsys.readouterr().err
    assert in_database(shop, "SELECT count(*) FROM runs_run") == runs
    assert keeping.COMING not in shop.databases()
    for arguments, says in (([str(file)], "is there already"), (["/no/such/folder/x"], "no folder")):
        with pytest.raises(SystemExit):
            keeping.backup(arguments, shop)
        assert says in capsys.readouterr().err


def test_nothing_is_put_back_under_a_running_application(shop, tmp_path, capsys):
    file = tmp_path / "shop.backup"
    keeping.backup([str(file)], shop)
    holder = (
        "from pathlib import Path; from commands import start; import sys\n"
        f"start.DATA = Path({str(start.DATA)!r}); start.LOCK = start.DATA / 'start.lock'\n"
        "lock = start.take_lock(); print('held', flush=True); sys.stdin.read()"
    )
    held = subprocess.Popen(
        [sys.executable, "-c", holder], cwd=places.ROOT, stdin=subprocess.PIPE, stdout=subprocess.PIPE
    )
    held.stdout.readline()
    try:
        with pytest.raises(SystemExit):
            keeping.restore([str(file)], shop)
        assert "already running" in capsys.readouterr().err
    finally:
        held.communicate(timeout=10)


def test_torture_in_little_loses_nothing(tmp_path):
    done = subprocess.run(
        [sys.executable, "-m", "bench.torture", "--kills", "5", "--seed", "4"],
        cwd=places.ROOT,
        capture_output=True,
        text=True,
        timeout=240,
        check=False,
        env=places.environment(NOBLE_ANVIL_DATA=str(tmp_path / "data")),
    )
    assert done.returncode == 0, done.stdout + done.stderr[-3000:]
    assert "Every acknowledged edit is there once" in done.stdout


def test_every_command_is_listed_and_an_unknown_one_is_refused(capsys):
    assert main(["help"]) == 0
    said = capsys.readouterr().out
    assert all(f"  {name}" in said for name in COMMANDS)
    assert main(["dance"]) == 2


def test_calc_answers_from_the_command_itself():
    given = json.dumps({"static_grip_n": 100, "side": "od", "rpm": 0, "stack": [{"mass_kg": 1, "radius_mm": 1}]})
    done = subprocess.run(
        [str(places.ROOT / "anvil"), "calc", "grip-at-speed"], input=given, capture_output=True, text=True, check=True
    )
    assert json.loads(done.stdout)["grip_n"] == 100

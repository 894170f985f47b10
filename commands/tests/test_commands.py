"""What ./anvil does around the application: stamps, ports, the lock, the cluster."""

import json
import os
import shutil
import signal
import socket
import subprocess
import sys
import tempfile
from pathlib import Path

import pytest

from commands import cluster as clusters
from commands import keeping, places, setup, start
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
            start.refuse_taken(port)
    assert f"--port {port + 1}" in capsys.readouterr().err
    start.refuse_taken(clusters.free_port())


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
    first = start.secret()
    assert len(first) > 50
    assert start.secret() == first
    assert (data / "secret").stat().st_mode & 0o077 == 0


def test_missing_packages_print_the_exact_line_to_run(monkeypatch, capsys):
    monkeypatch.setattr(setup, "postgres_programs", lambda: None)
    monkeypatch.setattr(setup.os, "geteuid", lambda: 1000)
    with pytest.raises(SystemExit):
        setup.ensure_debian(browser=False)
    said = capsys.readouterr().err
    assert "sudo apt-get update && sudo apt-get install -y --no-install-recommends postgresql" in said


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
    assert "not clean" in own_cluster.start()
    own_cluster.ensure_database("shop")


def test_a_full_disk_gets_its_sentence(data, monkeypatch, capsys):
    start.refuse_full(data)
    monkeypatch.setattr(
        start.shutil, "disk_usage", lambda _: shutil._ntuple_diskusage(10**9, 10**9 - 5_000_000, 5_000_000)
    )
    with pytest.raises(SystemExit):
        start.refuse_full(data)
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
        assert "still running; it was ended" in start.end_orphan(ours.pid) or ours.poll() is not None
        ours.wait(10)
        for pid in (another.pid, 2**22 - 1, None, "7"):
            assert start.end_orphan(pid) == ""
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
        assert start._read(lock) == {}


def in_database(cluster, sql, name="noble_anvil"):
    return keeping._program(cluster, "psql", "-d", name, "-tAc", sql).stdout.strip()


@pytest.fixture(scope="module")
def full():
    """Where a cluster with the demo in it is kept for the next test; nothing is there before the first."""
    with tempfile.TemporaryDirectory() as folder:
        yield Path(folder) / "pg"


@pytest.fixture
def shop(own_cluster, data, full):
    """A cluster with the demo in it."""
    if not full.exists():
        own_cluster.start()
        env = places.environment(NOBLE_ANVIL_SECRET_KEY="drill", **own_cluster.environment())
        start.prepare_database(own_cluster, env, demo=True)
        own_cluster.stop()
        subprocess.run(["cp", "-a", own_cluster.folder, full], check=True)
    shutil.rmtree(own_cluster.folder, ignore_errors=True)
    subprocess.run(["cp", "-a", full, own_cluster.folder], check=True)
    own_cluster.start()
    return own_cluster


def test_the_drill_a_backup_is_put_back_after_all_was_lost(shop, tmp_path, capsys):
    file = tmp_path / "shop.backup"
    asked = "SELECT string_agg(drawing_number || attention || words, ',' ORDER BY id) FROM runs_run"
    before = in_database(shop, asked)
    assert "LH-2041" in before
    assert keeping.backup([str(file)], shop) == 0
    assert in_database(shop, "UPDATE runs_run SET drawing_number = 'spoilt' RETURNING 1")
    assert keeping.restore([str(file)], shop) == 0
    assert in_database(shop, asked) == before
    assert "spoilt" in in_database(shop, asked, keeping.BEFORE)  # what was there is set aside, not thrown away
    assert keeping.restore([str(file)], shop) == 0  # and a second time
    # On a new machine there is no cluster yet.
    shop.stop()
    shutil.rmtree(shop.folder)
    assert keeping.restore([str(file)], shop) == 0
    shop.start()
    assert in_database(shop, asked) == before
    assert "Put back" in capsys.readouterr().out


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
    assert keeping.COMING not in keeping._databases(shop)
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


def test_torture_in_little_loses_nothing():
    done = subprocess.run(
        [sys.executable, "-m", "bench.torture", "--kills", "1", "--seed", "6"],
        cwd=places.ROOT,
        capture_output=True,
        text=True,
        timeout=240,
        check=False,
        env=places.environment(),
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

"""What ./anvil does around the application: stamps, ports, packages, the lock."""

import json
import shutil
import socket
import subprocess
import sys

import pytest

from commands import cluster as clusters
from commands import logs, places, preparing, processes, setup, start
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


def test_the_datas_folder_is_passable_and_each_below_it_is_closed(data, monkeypatch):
    data.chmod(0o755)
    monkeypatch.setattr(places, "COMPILED", data / "compiled")
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


def test_a_full_disk_gets_its_sentence(data, monkeypatch, capsys):
    preparing.refuse_full(data)
    monkeypatch.setattr(
        preparing.shutil, "disk_usage", lambda _: shutil._ntuple_diskusage(10**9, 10**9 - 5_000_000, 5_000_000)
    )
    with pytest.raises(SystemExit):
        preparing.refuse_full(data)
    assert "Only 5 MB are free" in capsys.readouterr().err


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


def test_torture_in_little_loses_nothing(tmp_path):
    done = subprocess.run(
        [sys.executable, "-m", "bench.torture", "--kills", "4", "--seed", "4"],
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

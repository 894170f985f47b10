"""Backups, and what is put back from them: nothing that is not ours, nothing over what must stay."""

import fcntl
import shutil
import subprocess
import sys

import pytest

from commands import cluster as clusters
from commands import keeping, places, preparing, start
from commands.tests.conftest import in_database


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

"""The application's own PostgreSQL: made, closed, found, killed and full."""

import os
import shutil
import signal
import subprocess

import pytest

from commands import cluster as clusters
from commands import places
from commands.tests.conftest import in_database


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

    def as_application(sql):
        return own_cluster.program("psql", "-d", "shop", "-c", sql, role=clusters.APPLICATION)

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


def test_a_database_whose_disk_is_full_says_so(own_cluster):
    own_cluster.create()
    (own_cluster.folder / "server.log").write_text("FATAL: could not write: No space left on device\n")
    assert "is full: free some space" in own_cluster._last_words()

"""A folder and a cluster of a test's own."""

import shutil

import pytest

from commands import cluster as clusters
from commands import keeping, places, preparing, start


@pytest.fixture
def data(tmp_path, monkeypatch):
    """The application's folder, somewhere else."""
    for module in (places, clusters, start, preparing):
        monkeypatch.setattr(module, "DATA", tmp_path, raising=False)
    monkeypatch.setattr(places, "HERE", tmp_path)
    # What is compiled stays where it is: a program that is compiled anew each time starts three times as long.
    monkeypatch.setattr(places, "STAMPS", tmp_path / "stamps")
    tmp_path.chmod(0o711)
    monkeypatch.setattr(start, "LOCK", tmp_path / "start.lock")
    # The packages are this place's own: their stamp is not in the folder somewhere else.
    monkeypatch.setattr(keeping, "ensure_python", lambda: None)
    return tmp_path


@pytest.fixture
def own_cluster(data, worker_id):
    """A throw-away cluster of this test's own."""
    made = clusters.Cluster(f"commands-test-pg-{worker_id}", fast=True)
    shutil.rmtree(made.folder, ignore_errors=True)
    yield made
    made.stop()
    shutil.rmtree(made.folder, ignore_errors=True)


def in_database(cluster, sql, name="noble_anvil"):
    return cluster.program("psql", "-d", name, "-tAc", sql, role=clusters.APPLICATION).stdout.strip()

"""What stands beside the running application: what it does where something ends at a bad moment."""

import signal
import subprocess

import pytest

from commands import places, start


class Cluster:
    """A database that lives for as long as it is told to."""

    port = 1
    gives_up = False

    def __init__(self, *lives):
        self.lives, self.started, self.stopped = list(lives), 0, False

    def ended_by_itself(self):
        return self.gives_up

    def is_alive(self):
        return self.lives.pop(0) if self.lives else True

    def start(self, _=None):
        self.started += 1
        return ""

    def stop(self):
        self.stopped = True

    def environment(self):
        return {}


class Child:
    """A process that has ended."""

    pid = 7

    def __init__(self, returncode):
        self.returncode = returncode

    def poll(self):
        return self.returncode


@pytest.fixture
def keeper(tmp_path, monkeypatch):
    """A keeper whose processes are none; gives it with a cluster of its own to be put in."""
    monkeypatch.setattr(start, "secret", lambda: "x" * 40)
    monkeypatch.setattr(start, "bound", lambda _: None)
    monkeypatch.setattr(start.time, "sleep", lambda _: None)
    with (tmp_path / "lock").open("w+") as lock:
        made = start.Keeper(lock, 8123, 4711)
        made.cluster = Cluster()
        yield made


def test_told_to_stop_before_it_took_over_it_ends_the_server_of_the_start_before(keeper, monkeypatch):
    ended = []
    monkeypatch.setattr(start, "end_orphan", lambda pid: ended.append(pid) or "")
    monkeypatch.setattr(start.signal, "signal", lambda *_: None)

    def stopped(_):
        raise KeyboardInterrupt

    monkeypatch.setattr(keeper, "_begin", stopped)
    assert keeper.run("") == 0
    assert (ended, keeper.cluster.stopped) == ([4711], True)


def test_a_database_that_ends_while_it_is_brought_up_is_started_and_brought_up_again(keeper, monkeypatch, capsys):
    tries = []

    def prepare(*_):
        tries.append(1)
        if len(tries) < 3:
            raise places.Stop("It does not answer.")
        return "demo"

    keeper.cluster = Cluster(False, False)
    monkeypatch.setattr(start, "prepare_database", prepare)
    assert keeper._prepared("") == "demo"
    assert (len(tries), keeper.cluster.started) == (3, 2)
    assert "The database had ended" in capsys.readouterr().out


def test_what_cannot_be_brought_up_while_the_database_lives_is_told_at_once(keeper, monkeypatch):
    def prepare(*_):
        raise places.Stop("A migration failed.")

    keeper.cluster = Cluster(True)
    monkeypatch.setattr(start, "prepare_database", prepare)
    with pytest.raises(places.Stop):
        keeper._prepared("")
    assert keeper.cluster.started == 0


def gave_up(keeper):
    """Whether it stops, rather than starting again what has ended as often as it looks."""
    try:
        for _ in range(start.BROKEN_TIMES + 3):
            keeper._look()
    except places.Stop:
        return True
    return False


@pytest.mark.parametrize(("code", "given_up"), [(-signal.SIGKILL, False), (1, True)])
def test_what_is_killed_from_without_is_not_broken_and_what_ends_by_itself_again_and_again_is(
    code, given_up, keeper, monkeypatch
):
    monkeypatch.setattr(keeper, "_start", lambda name: keeper.began.update({name: start.time.monotonic()}))
    keeper.children["worker"] = Child(code)
    keeper.began["worker"] = start.time.monotonic()
    assert gave_up(keeper) == given_up


@pytest.mark.parametrize("gives_up", [False, True])
def test_a_database_that_is_killed_again_and_again_is_started_and_one_that_gives_up_is_not(gives_up, keeper):
    keeper.cluster = Cluster(*[False] * 20)
    keeper.cluster.gives_up = gives_up
    assert gave_up(keeper) == gives_up


def test_what_ends_with_its_database_again_and_again_is_not_broken(keeper, monkeypatch):
    now = [1000.0]
    monkeypatch.setattr(start.time, "monotonic", lambda: now[0])
    monkeypatch.setattr(keeper, "_start", lambda name: keeper.began.update({name: now[0]}))
    keeper.children["worker"] = Child(1)
    for _ in range(start.BROKEN_TIMES + 3):
        now[0] += start.BROKEN_S + 1  # the database lived a while, was killed, and took the worker along
        keeper.cluster = Cluster(False)
        keeper._look()
    assert keeper.cluster.started == 1


@pytest.mark.parametrize("module", ["server.work", "devices.gauge", "devices.instrument"])
def test_a_process_whose_starter_was_killed_before_it_was_up_ends(module, tmp_path):
    """It is then a child of whoever takes in orphans, who never ends."""
    gone = subprocess.Popen(["true"])
    gone.wait()
    env = places.environment(NOBLE_ANVIL_SECRET_KEY="x" * 40)
    command = [str(places.PYTHON), "-m", module, "--with", str(gone.pid)]
    done = subprocess.run(command, cwd=places.ROOT, env=env, capture_output=True, text=True, timeout=30, check=False)
    assert "Traceback" not in done.stderr  # it ended by its own will


def test_what_is_gone_already_ends_whoever_wanted_to_end_with_it(tmp_path):
    gone = subprocess.Popen(["true"])
    gone.wait()
    code = f"from server.ending import end_with; end_with({gone.pid}); print('went on')"
    done = subprocess.run([places.PYTHON, "-c", code], capture_output=True, text=True, cwd=places.ROOT, check=False)
    assert (done.returncode, done.stdout, done.stderr) == (1, "", "")

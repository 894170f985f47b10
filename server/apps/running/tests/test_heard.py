"""What a machine says: pieces, values, stops; a count that jumps or goes back; what it is told; its faults."""

import asyncio
import random
import threading

import pytest
from django.db import connections

from devices.machine import Lathe, Machine, Size
from server.apps.running import listening
from server.apps.running.actions.heard import heard, news_for, note
from server.apps.running.models import Happening, Listened, Lot, Measured, News, Piece
from server.apps.running.tests.test_running import page, piece, released, send, setter  # noqa: F401 # fixtures
from server.apps.runs.models import Run

NAME, SPIGOT = "Lathe 3", "s1.size.o1"


@pytest.fixture
def running(released):  # noqa: F811
    """The seal carrier, running."""
    Run.objects.filter(pk=released.pk).update(place="running")
    return released


def say(*lines):
    return [heard(NAME, line) for line in lines]


@pytest.mark.django_db
def test_where_nothing_runs_nothing_is_counted(released):  # noqa: F811
    assert say("C 5", "P 6") == ["", ""]
    assert Lot.objects.filter(release__run=released).count() == 0


@pytest.mark.django_db
def test_it_counts_measures_stops_and_runs(running):
    assert say("C 7", "P 8", "M 8 1 83.982 mm", "P 9", "M 9 1 3.30638 in", "M 9 2 1.2 um", "X door open") == [""] * 7
    lot = Lot.objects.get(release__run=running)
    assert (lot.counted, lot.good) == (2, 2)
    values = {(m.piece, m.dimension): m.value for m in Measured.objects.filter(lot=lot)}
    assert values[1, SPIGOT] == 83.982
    assert values[2, SPIGOT] == pytest.approx(3.30638 * 25.4)
    assert values[2, "s1.finish.o1"] == pytest.approx(1.2)
    assert Happening.objects.get(lot=lot).until is None
    say("R")
    assert Happening.objects.get(lot=lot).until is not None


@pytest.mark.django_db
def test_what_came_while_nobody_listened_is_counted_without_what_was_counted_by_hand(running, setter):  # noqa: F811
    say("C 10", "P 11")
    piece(setter, running)
    piece(setter, running)
    say("C 16")  # five more, two of them by hand
    assert Lot.objects.get(release__run=running).counted == 1 + 2 + 3
    say("C 16")
    assert Lot.objects.get(release__run=running).counted == 6


@pytest.mark.django_db
def test_what_was_counted_by_hand_before_it_was_listened_to_is_nothing_of_its(running, setter):  # noqa: F811
    for _ in range(3):
        piece(setter, running)
    say("C 100", "P 101", "P 102")
    assert Lot.objects.get(release__run=running).counted == 5


@pytest.mark.django_db
def test_a_count_that_goes_back_begins_anew(running):
    say("C 50", "P 51", "P 1", "P 2", "C 2")
    assert Lot.objects.get(release__run=running).counted == 3
    say("P 9000000")
    assert Lot.objects.get(release__run=running).counted == 4


@pytest.mark.django_db
@pytest.mark.parametrize(
    ("line", "words"),
    [
        ("hello", "nothing to count"),
        ("P x", "nothing to count"),
        ("M 1 99 83.98 mm", "none like it"),
        ("M 5 1 83.98 mm", "none like it"),
        ("M 1 1 839.8 mm", "far off"),
        ("M 1 1 wide mm", "no size"),
        ("M 1 1 nan mm", "no size"),
        ("M 1 1 83.98 psi", "nothing to count"),
    ],
)
def test_what_is_no_reading_is_told_and_not_kept(running, line, words):
    say("C 0", "P 1")
    assert words in heard(NAME, line)
    assert Measured.objects.filter(lot__release__run=running).count() == 0


@pytest.mark.django_db
def test_a_value_outside_the_print_makes_a_piece_scrap_and_is_kept_once(running):
    say("C 0", "P 1", "M 1 1 83.96 mm", "M 1 1 83.98 mm")
    lot = Lot.objects.get(release__run=running)
    assert (lot.counted, lot.good) == (1, 0)
    assert Measured.objects.get(lot=lot).value == 83.96


@pytest.mark.django_db
def test_what_is_noted_is_told_to_a_machine_that_is_listened_to_once(running, setter):  # noqa: F811
    send(setter, running, "changes", kind="edge", edge="main.3", why="worn")
    assert News.objects.count() == 0
    note(NAME)
    send(setter, running, "changes", kind="edge", edge="main.3", why="worn")
    send(setter, running, "changes", kind="offset", edge="main.3", amount="-0.012")
    assert news_for(NAME) == ["NEWS edge 3", "NEWS offset 3 -0.0120"]
    assert news_for(NAME) == []


@pytest.mark.django_db
def test_the_screen_says_whether_it_counts_or_what_is_wrong(running, setter):  # noqa: F811
    assert page(setter, running)["machine_trouble"] == ""
    note(NAME)
    assert page(setter, running)["counts_itself"]
    note(NAME, "Lathe 3 broke off.", heard=False)
    found = page(setter, running)
    assert not found["counts_itself"]
    assert found["machine_trouble"] == "Lathe 3 broke off. Until it is heard again, count by hand."


@pytest.mark.django_db
def test_another_lot_is_begun_by_a_person(running, setter):  # noqa: F811
    note(NAME)
    say("C 0", "P 1")

    def second():
        return setter.get(f"/api/runs/{running.pk}/running?lot=s2").json()

    assert page(setter, running)["counts_itself"]
    found = second()
    assert not found["counts_itself"]
    assert found["machine_trouble"] == "Lathe 3 counts for Side 1 until the first piece is counted here."
    piece(setter, running, lot="s2")
    say("P 2", "P 3")
    assert second()["counts_itself"]
    assert {lot.key: lot.counted for lot in Lot.objects.filter(release__run=running)} == {"s1": 1, "s2": 3}


def simulated(**more):
    return Lathe((Size(83.982, 0.001, 0.001, 3),), chance=random.Random(5), **more)


def test_the_simulated_lathe_wears_breaks_and_takes_news():
    lathe = simulated(breaks=0.0)
    values = [float(list(lathe.piece())[1].split()[3]) for _ in range(30)]
    assert values[-1] - values[0] == pytest.approx(0.029, abs=0.005)
    list(lathe.news("NEWS offset 3 -0.02"))
    assert float(list(lathe.piece())[1].split()[3]) == pytest.approx(83.982 + 0.031 - 0.02, abs=0.004)
    list(lathe.news("NEWS edge 3"))
    assert float(list(lathe.piece())[1].split()[3]) == pytest.approx(83.983 - 0.02, abs=0.004)
    broken = simulated(breaks=1000.0)
    assert list(broken.piece())[-1] == "X edge of tool 3 broke"
    assert list(broken.piece()) == []
    assert list(broken.news("NEWS edge 3")) == ["R"]
    assert list(broken.news("NEWS what")) == []
    cold = simulated(breaks=0.0, warm_mm=0.05)
    first = float(list(cold.piece())[1].split()[3])
    assert first > 83.982 + 0.03


def in_a_thread(go):
    """Run what is asynchronous in a thread of its own: a browser's journeys may have left a loop in this one."""

    async def whole():
        try:
            await go()
        finally:
            await listening.sync_to_async(connections.close_all)()

    thread = threading.Thread(target=lambda: asyncio.run(whole()))
    thread.start()
    thread.join(60)
    assert not thread.is_alive()


def listened(fault, until, monkeypatch, pieces=0):
    """Listen to a simulated lathe until something is so."""
    machine = Machine(0, simulated(breaks=0.0), 0.05, fault, pieces)
    threading.Thread(target=machine.serve_forever, daemon=True).start()
    monkeypatch.setattr(listening, "AGAIN_S", 1.0)
    monkeypatch.setattr(listening, "SILENT_S", 1.0)

    async def go():
        task = asyncio.create_task(listening._listen(NAME, machine.server_address))
        for _ in range(200):
            await asyncio.sleep(0.1)
            if await listening.sync_to_async(until)():
                break
        task.cancel()
        await asyncio.sleep(0)

    in_a_thread(go)
    machine.shutdown()
    machine.server_close()


@pytest.mark.django_db(transaction=True)
def test_a_lathe_is_listened_to_over_its_line(running, monkeypatch):
    listened("", lambda: Measured.objects.filter(lot__release__run=running).count() >= 4, monkeypatch)
    lot = Lot.objects.get(release__run=running)
    assert lot.counted >= 4
    assert Piece.objects.filter(lot=lot, source=NAME).count() == lot.counted
    assert Listened.objects.get(name=NAME).trouble == ""


@pytest.mark.django_db(transaction=True)
@pytest.mark.parametrize(
    ("fault", "words"), [("silent", "said nothing for"), ("nonsense", "nothing to count"), ("drops", "broke off")]
)
def test_its_faults_are_told(running, monkeypatch, fault, words):
    listened(fault, lambda: Listened.objects.filter(trouble__contains=words).exists(), monkeypatch)
    assert words in Listened.objects.get(name=NAME).trouble


@pytest.mark.django_db(transaction=True)
def test_one_that_is_not_there_is_told(running, monkeypatch):
    monkeypatch.setattr(listening, "AGAIN_S", 0.05)

    async def go():
        task = asyncio.create_task(listening._listen(NAME, ("127.0.0.1", 9)))
        await asyncio.sleep(1.0)
        task.cancel()

    in_a_thread(go)
    assert "does not answer at 127.0.0.1:9" in Listened.objects.get(name=NAME).trouble

"""Instruments over their line protocol: one reading in the right unit, and every way in which one goes wrong."""

import socket
import threading

import pytest

from devices.instrument import Instrument, Measures
from server.apps.card import instrument
from server.apps.card.instrument import instruments, read_once
from server.foundation.problems import Conflict


@pytest.fixture
def named(settings):
    """Gives a function that starts an instrument and names it to the shop."""
    running = []

    def start(kind="size", value=84.0213, fault="", **more):
        made = Instrument(0, Measures(kind, value, fault=fault, **more))
        threading.Thread(target=made.serve_forever, daemon=True).start()
        running.append(made)
        settings.INSTRUMENTS = f"Micrometer 3={kind}@127.0.0.1:{made.socket.getsockname()[1]}"

    yield start
    for one in running:
        one.shutdown()
        one.server_close()


def test_one_reading_with_its_bias(named):
    named(bias=0.01)
    assert read_once("Micrometer 3") == pytest.approx(84.031, abs=5e-4)
    named("coolant", 5.3)
    assert read_once("Micrometer 3") == 5.3


def test_inches_are_read_as_millimetres(settings):
    said = b"INSTRUMENT 1 size other\n", b"V 3.3079 in\n"
    with Talking(settings, *said):
        assert read_once("Other") == pytest.approx(3.3079 * 25.4)


class Talking:
    """An instrument that greets, waits to be asked, and says something of ours."""

    def __init__(self, settings, greeting, answer):
        self.server = socket.create_server(("127.0.0.1", 0))
        settings.INSTRUMENTS = f"Other=size@127.0.0.1:{self.server.getsockname()[1]}"
        self.said = greeting, answer

    def __enter__(self):
        threading.Thread(target=self.talk, daemon=True).start()

    def talk(self):
        one, _ = self.server.accept()
        with one:
            one.sendall(self.said[0])
            one.recv(100)
            one.sendall(self.said[1])

    def __exit__(self, *_):
        self.server.close()


@pytest.mark.parametrize(
    ("fault", "says"),
    [
        ("silent", "says nothing"),
        ("nonsense", "said what is no reading"),
        ("wrong-unit", "reads in psi"),
        ("two-values", "said two values"),
        ("drops", "broke off"),
    ],
)
def test_what_goes_wrong_is_told_in_words(named, monkeypatch, fault, says):
    monkeypatch.setattr(instrument, "SILENT_S", 0.4)
    named(fault=fault)
    with pytest.raises(Conflict, match=says):
        read_once("Micrometer 3")


def test_another_kind_and_one_that_is_not_there(named, settings):
    named("coolant")
    settings.INSTRUMENTS = settings.INSTRUMENTS.replace("coolant@", "size@")
    with pytest.raises(Conflict, match="no instrument of this kind"):
        read_once("Micrometer 3")
    settings.INSTRUMENTS = "Gone=size@127.0.0.1:1"
    with pytest.raises(Conflict, match="does not answer"):
        read_once("Gone")


@pytest.mark.parametrize(
    "named_so", ["", "no", "A=size@127.0.0.1", "A=thread@127.0.0.1:1", "A=size@127.0.0.1:x", "=size@127.0.0.1:1"]
)
def test_what_is_named_wrong_is_no_instrument(settings, named_so):
    settings.INSTRUMENTS = named_so
    assert instruments() == {}


@pytest.mark.django_db
def test_a_setter_reads_one_into_the_field(named, signed_in):
    named()
    status, found = signed_in("setter").send("instruments/read", {"name": "Micrometer 3", "units": "inch"})
    # 84.021 mm are 3.30791 in.
    assert (status, found) == (200, {"name": "Micrometer 3", "text": "3.30791"})
    assert signed_in("setter").send("instruments/read", {"name": "Another"})[0] == 404
    assert signed_in("planner").send("instruments/read", {"name": "Micrometer 3"})[0] == 403
    named(fault="nonsense")
    status, told = signed_in("setter").send("instruments/read", {"name": "Micrometer 3"})
    assert (status, "no reading" in told["title"]) == (409, True)

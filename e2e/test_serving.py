"""The web server beside slow clients, large bodies and a process that is killed; the worker that is started again."""

from __future__ import annotations

import os
import signal
import socket
import subprocess
import threading
import time
import urllib.error
import urllib.request

import psutil
import pytest
import requests

from commands.cluster import free_port
from commands.processes import end, serve, wait_until_answering
from server import serve as server_serve
from server.foundation.models import Person, Shop, TrailEntry

GOOD = "soft-jaws-and-tea"

SLOW = 30


def answers(server, path="/api/session"):
    """Seconds until a light question is answered."""
    start = time.monotonic()
    with pytest.raises(urllib.error.HTTPError, match="401"):
        urllib.request.urlopen(server.url + path, timeout=10)
    return time.monotonic() - start


def dripping(server, whole, at_once, ending):
    """A client that sends what is left of a request a byte at a time."""
    with socket.create_connection(("127.0.0.1", server.port)) as connection:
        connection.sendall(whole[:at_once])
        for i in range(at_once, len(whole)):
            if ending.wait(0.05):
                return
            connection.sendall(whole[i : i + 1])


@pytest.fixture
def slow(server):
    """Thirty clients, half slow with their headers, half with their body."""
    head = f"POST /api/session HTTP/1.1\r\nHost: 127.0.0.1:{server.port}\r\nContent-Length: 5000\r\n\r\n".encode()
    whole, ending = head + b" " * 5000, threading.Event()
    threads = [
        threading.Thread(target=dripping, args=(server, whole, 0 if i % 2 else len(head), ending), daemon=True)
        for i in range(SLOW)
    ]
    for thread in threads:
        thread.start()
    time.sleep(0.5)
    yield
    ending.set()
    for thread in threads:
        thread.join(5)


def test_slow_clients_stop_nobody(server, run, slow):
    assert max(answers(server) for _ in range(10)) < 2


def refused(server, size):
    request = urllib.request.Request(server.url + "/api/session", b" " * size, {"Content-Type": "application/json"})
    try:
        urllib.request.urlopen(request, timeout=20)
    except urllib.error.HTTPError as answer:
        return answer.code
    except OSError:  # what never ends is not read to its end
        return None
    return 200


def memory(server):
    return max(p.memory_info().rss for p in psutil.Process(server.process.pid).children()) / 1e6


def test_bodies_are_bounded_and_give_their_memory_back(server, run):
    answers(server)
    before = memory(server)
    assert refused(server, 14_000_000) in (413, None)
    for _ in range(6):
        assert refused(server, 11_500_000) in (400, 403, 413, 422)
    answers(server)
    assert memory(server) - before < 60


def test_a_process_that_is_killed_is_started_again(server, run):
    (child,) = psutil.Process(server.process.pid).children()
    os.kill(child.pid, signal.SIGKILL)
    end = time.monotonic() + 40  # a machine that is busy starts it late
    while time.monotonic() < end:
        try:
            answers(server)
            break
        except OSError:
            time.sleep(0.1)
    assert {p.pid for p in psutil.Process(server.process.pid).children()} != {child.pid}
    answers(server)  # raises where it does not


@pytest.fixture
def behind(server, run, monkeypatch):
    """Gives the port of a real shop's server that believes a proxy, and of one that believes none."""
    Shop.objects.update(kind="real")
    Person.objects.create_user("ada", password=GOOD, role="owner")
    made = []

    def start(**env):
        port = free_port()
        made.append(serve(port, server.env | env, "--processes", "1"))
        wait_until_answering(port, made[-1])
        return port

    yield start
    for process in made:
        end(process)


def signed_in_through(port, **said):
    """Sign in with headers as a proxy sets them; the address that the trail has, and the cookies."""
    session = requests.Session()
    base = f"http://127.0.0.1:{port}"
    headers = {
        "X-Forwarded-For": "198.51.100.7",
        "X-Forwarded-Proto": "https",
        "X-Forwarded-Host": "shop.example",
    } | said
    page = session.get(base + "/", headers=headers, timeout=10)
    assert page.status_code == 200, page.text
    token = next(c.value for c in page.cookies if "anvil-token" in c.name)
    headers |= {"X-CSRFToken": token, "Cookie": "; ".join(f"{c.name}={c.value}" for c in page.cookies)}
    headers |= {"Referer": "https://shop.example/", "Origin": "https://shop.example"} if said.get("trusted") else {}
    answer = requests.post(
        base + "/api/session", json={"username": "ada", "password": GOOD}, headers=headers, timeout=10
    )
    return answer, page


def test_forwarded_headers_count_from_the_proxy_that_was_named_and_from_nobody_else(behind):
    answer, page = signed_in_through(behind())
    assert answer.status_code == 200, answer.text
    assert TrailEntry.objects.filter(what="signed-in").latest("pk").address == "127.0.0.1"
    assert "Strict-Transport-Security" not in page.headers and "Secure" not in page.headers["Set-Cookie"]
    port = behind(NOBLE_ANVIL_PROXY="127.0.0.1", NOBLE_ANVIL_HTTPS="1", NOBLE_ANVIL_HOSTS="shop.example")
    answer, page = signed_in_through(port, trusted="yes")
    assert answer.status_code == 200, answer.text
    assert TrailEntry.objects.filter(what="signed-in").latest("pk").address == "198.51.100.7"
    assert int(page.headers["Strict-Transport-Security"].partition("=")[2]) > 10**7
    assert all("Secure" in c and "__Host-" in c for c in page.headers["Set-Cookie"].split(", anvil"))
    foreign = requests.get(f"http://127.0.0.1:{port}/", headers={"X-Forwarded-Host": "other.example"}, timeout=10)
    assert foreign.status_code == 400


def test_a_keeper_that_is_killed_before_it_took_over_is_followed_by_another(monkeypatch, tmp_path):
    """A keeper that is gone before anybody looked at it is noticed; one that is killed starting is followed by another
    without end, one that gives a reason a few times."""
    gone, codes, done = subprocess.Popen(["true"]), [-9, -9, -9, 2, 2, -9, 2, 2, 2, 1], threading.Event()
    gone.wait()

    class Keeper:
        def __init__(self, command, **_):
            assert command[1:] == ["start", "--port", "8123"]

        def wait(self):
            code = codes.pop(0)
            if len(codes) == 1:
                done.set()
            return code

    monkeypatch.setenv("NOBLE_ANVIL_DATA", str(tmp_path))
    monkeypatch.setattr(server_serve, "AGAIN_S", 0.01)
    monkeypatch.setattr(server_serve.subprocess, "Popen", Keeper)
    server_serve.keep_kept(gone.pid, 8123)
    assert done.wait(5)
    time.sleep(0.05)
    assert codes == [1]

"""Heavy questions, slow clients and large bodies beside light ones."""

from __future__ import annotations

import socket
import threading
import time
import urllib.error
from urllib.parse import urlsplit

from bench.measure import URL, Client, late, row, times, told

WAITING = 30
PEOPLE = 8  # each may ask four at once
SLOW = 30


def _people(count: int) -> list[Client]:
    """Clients of so many planners."""
    from django.contrib.auth.hashers import make_password

    from server.foundation.models import Person

    found = []
    for i in range(count):
        name, word = f"bench-{i}", "a long enough word"
        Person.objects.update_or_create(
            username=name, defaults={"role": Person.Role.PLANNER, "password": make_password(word)}
        )
        client = Client()
        client.signed_in(name, word)
        found.append(client)
    return found


def _asked(people: list[Client]) -> list[tuple[Client, str]]:
    """As many settlements as each may ask, of different runs; gives the questions."""
    runs = [r["id"] for r in people[0].get("/api/runs")["rows"]]
    asked = []
    for number, client in enumerate(people):
        for i in range(4):
            run = runs[(number + i) % len(runs)]
            path = f"/api/runs/{run}/sides/s1/settle"
            if i % 2:
                path = f"/api/runs/{run}/sides/s1/checks/limit-analysis"
            try:
                question = client.question(path, {"units": "inch" if i > 1 else "metric"})
                asked.append((client, question["key"]))
            except urllib.error.HTTPError:
                continue  # this one is asked already
    return asked


def heavy(client: Client) -> None:
    """A light edit while heavy questions wait; how long a long file takes to be looked at."""
    people = _people(PEOPLE)
    spent: list[float] = []
    asked: list[tuple[Client, str]] = []
    rounds = 0
    while len(spent) < 60 and rounds < 20:
        rounds += 1
        asked = _asked(people)
        spent += times(6, client.edit, warm=0)
    waiting = people[0].get("/api/runs")["total"]
    row(f"a light edit while heavy questions wait ({PEOPLE * 4} asked, {waiting} runs)", spent, "≤ 150 ms at 95 %")
    lines = [f"long-{i},Long drill {i},{5 + i / 100},60,P10-P30,0.1,0.2" for i in range(500)]
    text = "\n".join(["key,name,DC,LU,application,feed_min,feed_max", *lines])
    for one, key in asked:  # what waits now is not measured with what follows
        one.ask("DELETE", f"/api/questions/{key}")
    for one in people:
        one.close()
    start = time.perf_counter()
    looked = client.answered(client.question("/api/shelf/drill/file/look", {"text": text}))
    row(f"a file of 500 lines looked at ({looked['state']})", [(time.perf_counter() - start) * 1000], "≤ 2 s")


def _drip(kind: str, ending: threading.Event) -> None:
    """A client that sends its headers, or its body, a byte at a time."""
    where = urlsplit(URL)
    head = f"POST /api/session HTTP/1.1\r\nHost: {where.netloc}\r\nContent-Type: application/json\r\n"
    whole = head.encode() + b"Content-Length: 9000\r\n\r\n" + b" " * 9000
    with socket.create_connection((where.hostname, where.port)) as connection:
        sent = 0 if kind == "headers" else whole.index(b"\r\n\r\n") + 4
        connection.sendall(whole[:sent])
        while not ending.wait(0.2) and sent < len(whole):
            try:
                connection.sendall(whole[sent : sent + 1])
            except OSError:
                return
            sent += 1


def slow(client: Client) -> None:
    """Previews while thirty clients are slow, and after bodies as large as are taken."""
    ending = threading.Event()
    drips = [
        threading.Thread(target=_drip, args=("headers" if i % 2 else "body", ending), daemon=True) for i in range(SLOW)
    ]
    for one in drips:
        one.start()
    time.sleep(1)
    seen = times(100, client.preview)
    ending.set()
    row(f"preview beside {SLOW} slow clients", seen, "as without them")
    refused = []
    for size in (12_500_000, 11_000_000, 5_000_000):
        try:
            client.post(f"/api/runs/{client.run}/drawing", {"text": "x" * size, "units": "metric"})
            refused.append("taken")
        except urllib.error.HTTPError as error:
            refused.append(str(error.code))
    told("bodies of 12.5, 11 and 5 MB", ", ".join(refused), "refused with a sentence")
    told("preview after them, 95th percentile", f"{late(times(50, client.preview)):.1f} ms", "")

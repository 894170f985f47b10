"""Running with a hundred thousand pieces behind it: its page, one more piece, and machines that count by themselves."""

from __future__ import annotations

import uuid
from datetime import timedelta

from bench.measure import Client, row, times

PIECES, NEW, MACHINES = 100_000, 40, 20
SIZE, FINISH = "s1.size.o1", "s1.finish.o1"


def _fill(run: int) -> str:
    """Give the first side of a released run its past; gives the machine it runs on."""
    from django.utils import timezone

    from server.apps.running.models import Lot, Measured, Piece
    from server.apps.runs.models import Run

    at = Run.objects.get(pk=run)
    release, now = at.releases.first(), timezone.now()
    lot, _ = Lot.objects.get_or_create(release=release, key="s1")
    begun, first = now - timedelta(days=60), lot.counted + 1
    pieces = range(first, PIECES + 1)
    Piece.objects.bulk_create(
        (Piece(lot=lot, number=n, good=True, key=uuid.uuid4(), at=begun) for n in pieces), batch_size=5000
    )
    Measured.objects.bulk_create(
        (
            Measured(lot=lot, piece=n, dimension=d, value=v + (n * 7919 % 100 - 50) / 50_000, at=begun)
            for n in pieces
            for d, v in ((SIZE, 83.982), (FINISH, 1.2))
        ),
        batch_size=5000,
    )
    Lot.objects.filter(pk=lot.pk).update(counted=PIECES, good=PIECES, began_at=begun, last_at=now)
    Run.objects.filter(pk=run).update(place="running", placed_at=now)
    assert at.machine is not None
    return str(at.machine.name)


def _reported(machine: str, first: int) -> None:
    from server.apps.running.actions.heard import heard

    for n in range(first, first + MACHINES):
        heard(machine, f"P {n}")
        heard(machine, f"M {n} 1 83.982 mm")


def lot(client: Client) -> None:
    """The seal carrier's first side, far on."""
    machine = _fill(client.run)
    client.look_as("operator")
    path = f"/api/runs/{client.run}/running"
    row(f"page of a lot of {PIECES} pieces", times(20, lambda _: client.get(f"{path}?lot=s1")), "≤ 300 ms")

    def one(i: int) -> None:
        given = {"release": 1, "lot": "s1", "values": {SIZE: f"{83.98 + i / 10_000:.4f}"}, "sure": True}
        client.post(f"{path}/pieces", given | {"key": str(uuid.uuid4())})

    row("one more piece of it, measured, to its chart", times(NEW, one, warm=5), "≤ 100 ms")
    at_end = times(5, lambda _: client.get(f"{path}/1/s1/closing"), warm=1)
    row("the same lot at its end, planned beside real", at_end, "")
    found = times(10, lambda i: _reported(machine, 1 + i * MACHINES), warm=1)
    row(f"{MACHINES} pieces with a size each, as machines report them", found, "≤ 1000 ms")

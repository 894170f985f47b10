"""Practice: the next exercise of each kind, and an answer graded."""

from __future__ import annotations

import uuid

from bench.measure import Client, row, times
from calc.practice.kinds import KINDS

EACH = 5


def practice(client: Client) -> None:
    """Every kind at its levels, drawn as it is asked for."""
    client.look_as("setter")
    asked = [f"/api/practice/exercises/{k.name}?level={1 + i % k.levels}" for k in KINDS.values() for i in range(EACH)]
    found = times(len(asked), lambda i: client.get(asked[i % len(asked)]))
    row(f"the next exercise, {len(KINDS)} kinds at all their levels", found, "≤ 100 ms")

    def one(i: int) -> None:
        given = {"kind": "grip-left", "seed": i, "level": 1, "given": "20 kN"}
        client.post("/api/practice/answers", given | {"key": str(uuid.uuid4())})

    row("an answer graded and kept", times(20, one), "")
    example = next(c for c in client.get("/api/calculators")["calculators"] if c["name"] == "drift")["example"]
    drift = times(20, lambda _: client.post("/api/calculators/drift", {"given": example}))
    row("a calculator while one types: drift with its picture", drift, "")

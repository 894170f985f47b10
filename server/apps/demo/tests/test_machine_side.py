"""The demo's machine side: one run half set with a reading that is off, one ready to set."""

import pytest

from server import kept_demo
from server.apps.card.models import Reading
from server.apps.demo.machine_side import DONE, PIECES, SCRAP, set_half
from server.apps.runs.models import Run
from server.conftest import _signed_in


@pytest.mark.django_db
def test_the_carrier_is_half_set_and_the_ring_is_ready():
    kept_demo.begun()
    set_half()
    places = dict(Run.objects.values_list("drawing_number", "place"))
    assert (places["LH-2041"], places["LH-1980"], places["LH-2107"]) == ("setting", "ready", "running")
    assert places["LH-2215"] == "planning"
    carrier = Run.objects.get(drawing_number="LH-2041")
    card = _signed_in("setter").get(f"/api/runs/{carrier.pk}/card").json()
    assert [m["step"] for m in card["marks"]] == [step for step, _, _ in DONE]
    off = Reading.objects.get(kind="feeler")
    assert off.measured > 2 * off.predicted  # more than the estimate, which is from below
    rows = {r["drawing_number"]: r for r in _signed_in("planner").get("/api/runs").json()["rows"]}
    assert (rows["LH-2041"]["place"], rows["LH-2041"]["placed_by"]) == ("setting", "setter")
    assert (rows["LH-1980"]["place"], rows["LH-1980"]["placed_by"]) == ("ready to set", "planner")
    assert rows["LH-2215"]["placed_at"] is None
    ring = Run.objects.get(drawing_number="LH-2107")
    lot = _signed_in("operator").get(f"/api/runs/{ring.pk}/running").json()
    assert (lot["head"]["counted"], lot["head"]["good"], lot["lot"]) == (PIECES, PIECES - len(SCRAP), "s1")
    assert ring.really["said"].endswith(f"{PIECES - len(SCRAP)} of 90 good pieces")
    (bore, finish) = lot["standing"]["dimensions"]
    assert len(bore["chart"]["stretches"]) == 2
    assert bore["advice"]["told"].startswith(f"after piece {PIECES}: X +0.0")  # a bore shrinks as its edge wears
    assert lot["standing"]["check"]["pieces"] >= 0
    assert finish["level"] == "good"

"""While pieces come off: counted and measured by hand, by a machine that counts itself, without network, to the end."""

import random
import re
import threading

import pytest
from playwright.sync_api import expect

from devices.machine import Lathe, Machine, Size
from e2e.screen import address, go, look_as, until
from e2e.test_accessibility import seen_in_both_sets
from server import kept_demo
from server.apps.notebook.models import ProvenCut
from server.apps.running.models import Happening, Lot, Measured, Piece
from server.apps.runs.models import Run


@pytest.fixture
def run(server, transactional_db):
    """The whole demo with what happened at its machines."""

    kept_demo.half_set()
    server.start_worker()
    return run_of("LH-2041")


def run_of(number):
    return Run.objects.get(drawing_number=number)


def open_running(app, number, role="operator"):
    look_as(app, role)
    go(app, f"/runs/{run_of(number).pk}/running")
    expect(app.get_by_role("region", name="Now")).to_be_visible()


def press(app, name):
    app.get_by_role("button", name=name, exact=True).click()


def test_a_lot_is_counted_measured_corrected_and_stops(app, run):
    open_running(app, "LH-2041")
    now = app.get_by_role("region", name="Now")
    expect(now).to_contain_text("Next check")
    press(app, "Good piece")
    expect(app.get_by_text("Piece 1 is kept.")).to_be_visible()
    app.get_by_label("Spigot Ø 84", exact=True).fill("8.398")
    press(app, "Good piece, measured")
    expect(app.get_by_text(re.compile("ten times off"))).to_be_visible()
    app.get_by_label("Spigot Ø 84", exact=True).fill("83.982")
    press(app, "Good piece, measured")
    expect(app.get_by_text("Spigot Ø 84: Within the limits to work to.")).to_be_visible()
    expect(app.get_by_role("img", name=re.compile("Chart of Spigot Ø 84: 1 pieces"))).to_be_visible()
    # Two pieces on the rougher's edge, as many as it lasts: one press.
    press(app, "Fresh edge is in, tool 2")
    until(app, lambda: Happening.objects.filter(kind="edge", lot__release__run=run_of("LH-2041")).count() == 1)
    press(app, "Scrap")
    app.keyboard.type("burr struck the jaw")
    press(app, "Keep it")
    expect(app.get_by_text(re.compile("1 scrap"))).to_be_visible()
    press(app, "It stopped")
    press(app, "chips")
    expect(app.get_by_text("It stands still: chips")).to_be_visible()
    press(app, "It goes on")
    expect(app.get_by_role("button", name="Good piece", exact=True)).to_be_enabled()
    # What was written wrong is put right, and what stood there stays.
    app.get_by_role("tab", name="What happened").click()
    app.get_by_label("Piece", exact=True).fill("2")
    app.get_by_label(re.compile("^Spigot Ø 84: 83.9820")).fill("83.985")
    app.get_by_label("Why it is corrected").fill("read the drum wrong")
    press(app, "Correct what was measured")
    expect(app.get_by_text("Spigot Ø 84 83.9850 mm, was 83.9820 mm: read the drum wrong")).to_be_visible()
    assert Measured.objects.get(lot__release__run=run_of("LH-2041")).value == pytest.approx(83.985)


def test_advice_is_followed_and_the_lot_is_closed(app, run):
    open_running(app, "LH-2107", "setter")
    app.get_by_role("button", name=re.compile("^Done after piece 46")).click()
    expect(app.get_by_text(re.compile("too early"))).to_be_visible()
    app.get_by_role("tab", name="At its end").click()
    expect(app.get_by_role("row", name=re.compile("^Good pieces 90 45"))).to_be_visible()
    app.get_by_label("What the next one should know").fill("The bore shrinks 0.0005 a piece: measure one in ten.")
    app.get_by_role("button", name=re.compile("^Close it, keep")).click()
    expect(app.get_by_role("heading", name=re.compile("^Closed"))).to_be_visible()
    assert ProvenCut.objects.filter(remarks__contains="45 good pieces").exists()
    app.goto(address(app, "/"))
    look_as(app, "planner")
    go(app, f"/runs/{run_of('LH-2107').pk}/part")
    expect(app.get_by_role("region", name="Last time")).to_contain_text("The bore shrinks")


def test_a_machine_that_counts_by_itself(app, run, server):
    """It counts and measures; an edge breaks; a fresh one is noted and it goes on."""
    lathe = Lathe((Size(148.02, 0.001, -0.0002, 2),), breaks=0.0, chance=random.Random(1))
    machine = Machine(0, lathe, 0.3)
    threading.Thread(target=machine.serve_forever, daemon=True).start()
    server.start_listener("Lathe 5", machine.server_address[1])
    try:
        open_running(app, "LH-2107")
        expect(app.get_by_role("button", name="Lathe 5 counts")).to_be_visible()
        lot = Lot.objects.get(release__run=run_of("LH-2107"))
        until(app, lambda: Piece.objects.filter(lot=lot, source="Lathe 5").count() >= 3)
        expect(app.get_by_text(re.compile(r"^(4[89]|5\d)$")).first).to_be_visible()
        lathe.broken = 2
        machine.tell(iter(["X edge of tool 2 broke"]))
        expect(app.get_by_text("It stands still: the machine stopped: edge of tool 2 broke")).to_be_visible()
        app.get_by_role("tab", name="Edges").click()
        row = app.get_by_role("listitem").filter(has_text="Tool 2 ·")
        row.get_by_role("button", name="Fresh edge or offset").click()
        press(app, "it broke")
        until(app, lambda: lathe.broken is None)
        expect(app.get_by_role("button", name="Lathe 5 counts")).to_be_visible()
        machine.shutdown()
        machine.server_close()
        lathe.broken = 2  # it makes no more
        machine.fault = "drops"
        for heard in list(machine.heard):
            heard.shutdown(2)
        expect(app.get_by_text(re.compile("Until it is heard again, count by hand"))).to_be_visible()
        expect(app.get_by_role("button", name="Good piece", exact=True)).to_be_enabled()
    finally:
        server.stop_listener()
        machine.server_close()


def test_pieces_counted_without_the_server_are_sent_once(app, run, server):
    open_running(app, "LH-2041")
    press(app, "Good piece")
    expect(app.get_by_text("Piece 1 is kept.")).to_be_visible()
    until(app, lambda: app.evaluate("navigator.serviceWorker.controller !== null"))
    server.stop()
    try:
        press(app, "Good piece")
        expect(app.get_by_text(re.compile("The server does not answer"))).to_be_visible()
        press(app, "Good piece")
        expect(app.get_by_text(re.compile("2 steps wait here"))).to_be_visible()
    finally:
        server.start()
    lot = Lot.objects.get(release__run=run_of("LH-2041"))
    until(app, lambda: Piece.objects.filter(lot=lot).count() == 3)
    expect(app.get_by_text(re.compile("The server does not answer"))).to_have_count(0)
    assert sorted(Piece.objects.filter(lot=lot).values_list("number", flat=True)) == [1, 2, 3]


def test_a_planner_watches_and_running_is_clean_for_everybody(app, run):
    go(app, f"/runs/{run_of('LH-2107').pk}/running")
    expect(app.get_by_role("button", name="Scrap", exact=True)).to_be_disabled()
    assert seen_in_both_sets(app) == {}
    for tab in ("Edges", "What happened", "At its end"):
        app.get_by_role("tab", name=tab).click()
        assert seen_in_both_sets(app) == {}
    for width, height in ((1024, 768), (390, 844)):
        app.set_viewport_size({"width": width, "height": height})
        assert app.evaluate("document.documentElement.scrollWidth") <= width

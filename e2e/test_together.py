"""Two people on one plan, and a server that goes away in the middle."""

import re

import pytest
from playwright.sync_api import expect

from e2e.screen import PATIENCE_MS, address, field, look_as, open_stop, rail, type_into
from server.apps.runs.models import Edit


@pytest.fixture
def other(app, run, browser, browser_context_args):
    """A second person, the owner, with a browser of their own, on the same plan."""
    context = browser.new_context(**browser_context_args)
    page = context.new_page()
    page.set_default_timeout(PATIENCE_MS)
    page.goto(address(app, "/"))
    look_as(page, "owner")
    open_stop(page, run, "force")
    yield page
    context.close()


def test_edits_to_different_facts_merge_and_are_on_the_other_screen(app, run, other):
    open_stop(app, run, "force")
    type_into(app, "Gauge pressure, bar", "27").press("Enter")
    expect(field(other, "Gauge pressure, bar")).to_have_value("27.0")
    expect(other.get_by_text(re.compile("planner: Gauge pressure 28.bar → 27.bar, cap"))).to_be_visible()
    # Enter led on to the own speed limit: a field one stands in is not written over.
    type_into(other, "Wanted speed, rpm", "900").press("Enter")
    expect(field(app, "Wanted speed, rpm")).to_have_value("900")
    assert [e.by.username for e in Edit.objects.order_by("revision")] == ["planner", "owner"]


def test_what_is_being_typed_stays_while_the_other_ones_edit_comes_in(app, run, other):
    open_stop(app, run, "force")
    entry = type_into(app, "Gauge pressure, bar", "26")
    expect(app.get_by_text("Preview: Enter keeps it")).to_be_visible()
    type_into(other, "Own speed limit, rpm", "250").press("Enter")
    expect(field(app, "Own speed limit, rpm")).to_have_value("250")
    expect(entry).to_have_value("26")
    expect(rail(app, "Force")).to_contain_text("250")  # the preview is of the plan as it is now
    entry.press("Enter")
    expect(app.get_by_role("link", name="draft 2")).to_be_visible()
    assert Edit.objects.get(revision=2).new == 26.0


def test_undo_is_refused_in_words_where_the_other_changed_it_since(app, run, other):
    open_stop(app, run, "force")
    type_into(app, "Gauge pressure, bar", "27").press("Enter")
    expect(field(other, "Gauge pressure, bar")).to_have_value("27.0")
    type_into(other, "Gauge pressure, bar", "26").press("Enter")
    expect(field(app, "Gauge pressure, bar")).to_have_value("26.0")
    app.get_by_role("button", name="Undo").click()
    expect(app.get_by_text(re.compile("Gauge pressure is not undone: owner changed it after you"))).to_be_visible()
    expect(field(app, "Gauge pressure, bar")).to_have_value("26.0")


def test_a_change_of_the_shelf_moves_a_plan_in_view(app, run, other):
    open_stop(app, run, "force")
    other.goto(address(app, "/shelf/chuck/lathe-3-chuck"))
    other.get_by_label("bar, then kN").fill("4 13\n10 31\n20 62\n32 99")
    expect(other.get_by_text("1 of 1 plans would move")).to_be_visible()
    other.get_by_role("button", name="Keep the change").click()
    expect(rail(app, "Force")).not_to_contain_text("cap 791")
    expect(app.get_by_text("The shelf has changed.")).to_be_visible()


def test_a_server_that_goes_away_loses_nothing(app, run, server):
    open_stop(app, run, "force")
    server.stop()
    try:
        type_into(app, "Gauge pressure, bar", "30").press("Enter")
        expect(app.locator('[data-fact="pressure"]').get_by_role("alert")).to_contain_text("waits here")
        type_into(app, "Own speed limit, rpm", "900").press("Enter")
        type_into(app, "Gauge pressure, bar", "29").press("Enter")
        expect(app.get_by_text("3 edits wait here for the server.")).to_be_visible()
        expect(field(app, "Gauge pressure, bar")).to_have_value("29")
    finally:
        server.start()
    expect(app.get_by_role("link", name="draft 3")).to_be_visible(timeout=15_000)  # sent by themselves
    expect(app.get_by_role("alert")).to_have_count(0)
    sent = [(e.path.split(".")[-1], e.new) for e in Edit.objects.order_by("revision")]
    assert sent == [("pressure_bar", 30.0), ("user_max_rpm", 900.0), ("pressure_bar", 29.0)]


def test_a_stop_works_without_a_picture_that_did_not_come_until_it_comes(app, run):
    app.route("**/ForceChart*", lambda asked: asked.abort())
    open_stop(app, run, "force")
    expect(app.get_by_text("This part of the screen has not come")).to_be_visible()
    type_into(app, "Gauge pressure, bar", "27").press("Enter")
    expect(app.get_by_role("link", name="draft 1")).to_be_visible()
    app.unroute("**/ForceChart*")
    expect(app.get_by_role("group", name="Grip against spindle speed")).to_be_visible()


def test_what_waits_survives_a_reload_and_is_sent_once(app, run, server):
    open_stop(app, run, "force")
    server.stop()
    try:
        type_into(app, "Gauge pressure, bar", "30").press("Enter")
        expect(app.get_by_text("One edit waits here for the server.")).to_be_visible()
        app.goto("about:blank")  # the tab is closed; the page itself cannot be loaded without its server
    finally:
        server.start()
    assert not Edit.objects.exists()
    app.goto(server.url)
    expect(app.get_by_text("One edit waits in this browser")).to_be_visible()
    app.get_by_role("link", name="open the plan to send").click()
    expect(app.get_by_role("link", name="draft 1")).to_be_visible()
    app.reload()
    rail(app, "Force").click()
    expect(field(app, "Gauge pressure, bar")).to_have_value("30.0")
    assert [e.new for e in Edit.objects.all()] == [30.0]

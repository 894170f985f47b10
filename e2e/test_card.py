"""The card at the machine: set by keys and by a finger, two at one card, on the shelf afterwards."""

import re

import pytest
from playwright.sync_api import expect

from e2e.screen import address, go, look_as, released, until
from e2e.test_accessibility import seen_in_both_sets
from server import kept_demo
from server.apps.card.models import Mark, Reading
from server.apps.runs.models import Run


@pytest.fixture
def run(server, transactional_db):
    """The whole demo, its seal carrier released."""
    kept_demo.begun()
    server.start_worker()
    carrier = Run.objects.get(drawing_number="LH-2041")
    released(carrier)
    return carrier


def open_card(app, run):
    look_as(app, "setter")
    go(app, f"/runs/{run.pk}/card")
    expect(app.get_by_role("heading", name="Seal carrier", level=1)).to_be_visible()


def go_to(app, title):
    app.get_by_role("button", name=f"{title}: open", exact=True).first.click()
    expect(app.get_by_role("heading", name=title, level=2)).to_be_visible()


def test_a_machine_is_set_by_its_card(app, run):
    open_card(app, run)
    expect(app.locator("dd", has_text="24.3 bar").first).to_be_visible()
    app.get_by_role("button", name="Begin").click()
    app.get_by_role("button", name="Done. Next: grease the chuck").click()
    expect(app.get_by_role("heading", name="Grease the chuck")).to_be_visible()
    app.get_by_role("button", name="skip, and why").click()
    app.keyboard.type("greased this morning")
    app.get_by_role("button", name="Skip it").click()
    # A caution is not skipped.
    expect(app.get_by_role("heading", name="Mount the jaws")).to_be_visible()
    expect(app.get_by_role("button", name="skip, and why")).to_have_count(0)
    go_to(app, "Feeler gauge at the jaw's tip")
    app.get_by_role("button", name="0.050").click()
    expect(app.get_by_text("U 0.100")).to_be_visible()
    app.get_by_role("button", name="Keep it. Next: blue round the mouth").click()
    expect(app.get_by_role("heading", name="Blue round the mouth")).to_be_visible()
    app.get_by_role("button", name="at the tip first").click()
    expect(app.get_by_text("U 0.020")).to_be_visible()
    app.get_by_role("button", name="Keep it, and read again").click()
    until(app, lambda: Reading.objects.filter(kind="blue").count() == 1)
    expect(app.get_by_text(re.compile("Read before: at the tip first"))).to_be_visible()
    # One comes back to where one was: the first step that is open.
    app.reload()
    expect(app.get_by_role("heading", name="Mount the jaws")).to_be_visible()
    assert {m.step: m.state for m in Mark.objects.all()} == {
        "s1.clean": "done",
        "s1.grease": "skipped",
        "s1.feeler": "done",
        "s1.blue": "open",
    }
    app.goto(address(app, "/"))
    expect(app.get_by_text(re.compile(r"setting since .*, setter"))).to_be_visible()


def test_a_pressure_off_the_plan_is_computed_beside_it(app, run):
    open_card(app, run)
    go_to(app, "Set the production pressure")
    entry = app.get_by_label("The gauge shows")
    entry.fill("8")
    expect(app.get_by_text(re.compile("Is the gauge read right"))).to_be_visible()
    expect(app.get_by_text(re.compile("^Stopped"))).to_be_visible()
    entry.fill("24 mm")
    expect(app.get_by_role("alert")).to_contain_text("is not a unit for this")
    entry.fill("24.3")
    expect(app.get_by_text("As planned.")).to_be_visible()
    # An instrument that types like a keyboard: into the field with the focus, and Enter says nothing yet.
    entry.fill("")
    app.keyboard.type("24.2")
    expect(app.get_by_text("As planned.")).to_be_visible()


def test_two_at_one_card_see_each_other(app, run, server, browser):
    open_card(app, run)
    app.get_by_role("button", name="Begin").click()
    other = browser.new_page()
    other.goto(server.url)
    look_as(other, "operator")
    other.goto(f"{server.url}/runs/{run.pk}/card")
    other.get_by_role("button", name="Begin").click()
    other.get_by_role("button", name="Done. Next: grease the chuck").click()
    expect(app.get_by_text(re.compile("Done by operator"))).to_be_visible()
    other.close()


def test_a_planner_watches(app, run):
    go(app, f"/runs/{run.pk}/card")
    app.get_by_role("button", name="Begin").click()
    app.keyboard.press("ArrowRight")
    expect(app.get_by_role("heading", name="Mount the jaws")).to_have_count(0)
    expect(app.get_by_role("button", name=re.compile("^Next: "))).to_be_visible()
    expect(app.get_by_role("button", name=re.compile("^Done"))).to_have_count(0)


def test_the_card_is_clean_for_everybody(app, run):
    open_card(app, run)
    assert seen_in_both_sets(app) == {}
    for title in ("Feeler gauge at the jaw's tip", "Blue round the mouth"):
        go_to(app, title)
        assert seen_in_both_sets(app) == {}
    for width, height in ((1024, 768), (390, 844)):
        app.set_viewport_size({"width": width, "height": height})
        assert app.evaluate("document.documentElement.scrollWidth") <= width


def test_what_was_read_stands_on_the_shelf(app, run):
    open_card(app, run)
    go_to(app, "Indicator on the piece")
    app.get_by_label("The indicator swings").fill("0.012")
    app.get_by_role("button", name=re.compile("^Keep it")).click()
    until(app, lambda: Reading.objects.filter(kind="runout").count() == 1)
    look_as_planner_and_open(app, "/shelf/chuck/lathe-3-chuck")
    part = app.get_by_role("region", name="Read at the machine")
    expect(part.get_by_role("img", name=re.compile("1 read; the last 0.01 mm, predicted 0.02 mm"))).to_be_visible()


def look_as_planner_and_open(app, path):
    app.goto(address(app, "/"))
    look_as(app, "planner")
    app.goto(address(app, path))

"""The route of a plan: what pulls on it, what it shows, what is taken from it."""

import re

from playwright.sync_api import expect

from e2e.screen import answer, open_stop, rail, type_into


def test_everything_pulls_on_the_route_and_it_is_taken_as_a_file(app, run):
    open_stop(app, run, "route")
    expect(app.get_by_role("img", name="Lanes.")).to_be_visible()
    cycle, whole = answer(app, "cycle"), answer(app, "run")
    expect(cycle).to_contain_text(re.compile(r"\d+\.\d\d"))
    before = whole.inner_text()
    app.get_by_role("button", name="The run", exact=True).click()
    type_into(app, "Quantity", "480").press("Enter")
    expect(whole).not_to_have_text(before)
    expect(rail(app, "Route")).to_contain_text(re.compile(r"min a piece · \d+ h"))
    told = rail(app, "Route").inner_text()
    # A slower cut at another stop moves the line in the rail at once.
    open_stop(app, run, "cuts")
    type_into(app, "Feed, mm/rev", "0.15").press("Enter")
    expect(rail(app, "Route")).not_to_have_text(told)
    rail(app, "Route").click()
    expect(app.get_by_role("table", name="In the order it happens")).to_contain_text("Face")
    with app.expect_download() as saved:
        app.get_by_role("link", name="save the time of every operation").click()
    assert saved.value.path().read_text().startswith("side,operation,station")

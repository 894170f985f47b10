"""Releasing a plan, changing it afterwards, comparing, and what an operator is shown."""

import re

from playwright.sync_api import expect

from e2e.screen import address, field, go, look_as, open_stop, type_into, until
from server.apps.runs.models import Release


def test_a_plan_is_released_changed_and_compared_and_operators_see_the_release(app, run):
    open_stop(app, run, "force")
    app.get_by_role("link", name="not for the machine").click()
    expect(app.get_by_label("What always holds")).to_contain_text("guards are shut")
    boxes = app.get_by_role("checkbox")
    for i in range(boxes.count()):
        boxes.nth(i).check()
    app.get_by_label("Remark").fill("first lot")
    app.get_by_role("button", name="Sign, and release draft 0 as release 1").click()
    expect(app.get_by_text("Release 1 is at the machine.")).to_be_visible()
    app.get_by_role("link", name="draft 0").click()
    expect(app.get_by_role("link", name="release 1, for the machine")).to_be_visible()

    type_into(app, "Gauge pressure, bar", "29").press("Enter")
    expect(app.get_by_role("link", name="not for the machine; release 1 is")).to_be_visible()
    app.get_by_role("link", name="not for the machine; release 1 is").click()
    table = app.get_by_role("table", name="Release 1 and the draft")
    expect(table.get_by_role("row", name=re.compile("Gauge pressure 28.0 bar 29.0 bar"))).to_be_visible()
    app.get_by_role("link", name="look").click()
    expect(app.get_by_text("Release 1, draft 0, as planner released it.")).to_be_visible()
    expect(app.get_by_role("textbox", name="Gauge pressure, bar")).to_have_count(0)

    look_as(app, "operator")
    app.goto(address(app, "/"))
    expect(app.get_by_role("link", name="Seal carrier")).to_be_visible()
    expect(app.get_by_role("link", name="Vent plug")).to_have_count(0)
    go(app, f"/runs/{run.pk}/force")
    expect(app.locator('[data-fact="pressure"]')).to_contain_text("28.0")
    until(app, lambda: Release.objects.get().note == "first lot")


def test_house_rules_are_changed_with_a_reason_and_a_plan_takes_them(app, run):
    app.get_by_role("link", name="House rules").click()
    entry = app.get_by_role("textbox", name="Safety on the grip")
    entry.fill("1.2")
    app.get_by_label("Why it is changed").fill("two pieces slipped in May")
    app.get_by_role("button", name="Keep as revision 2").click()
    expect(app.get_by_text(re.compile("give a figure from 1.5"))).to_be_visible()
    entry.fill("1.9")
    app.get_by_role("button", name="Keep as revision 2").click()
    expect(app.get_by_text("Revision 2: Safety on the grip 2.00 → 1.90")).to_be_visible()
    open_stop(app, run, "force")
    banner = app.get_by_text(re.compile("Computed under house rules 1; today’s are 2"))
    expect(banner).to_contain_text("cap 791")
    app.get_by_role("button", name="Take today’s rules").click()
    expect(banner).to_have_count(0)
    expect(app.locator('[data-fact="safety"]')).to_contain_text("1.9")
    app.get_by_role("button", name="Put in a departure").click()
    app.get_by_label("Reason of the new departure").fill("proven on the last run")
    app.get_by_role("button", name="Put in", exact=True).click()
    expect(field(app, "Safety on the grip")).to_have_value("1.9")
    type_into(app, "Safety on the grip", "1.7").press("Enter")
    expect(app.locator('[data-fact="safety"]')).to_contain_text("proven on the last run")

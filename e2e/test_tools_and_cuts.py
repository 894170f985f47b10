"""A tool chosen by keyboard, a set-up settled, a proven cut kept and found again."""

from __future__ import annotations

import re

from playwright.sync_api import Page, expect

from e2e.screen import go, look_as, open_stop, rail, until
from server.apps.notebook.models import ProvenCut
from server.apps.runs.models import Edit, Run


def pick_cut(app: Page, name: str) -> None:
    app.get_by_role("group", name="Facts in view").get_by_role("button", name=name, exact=True).click()


def test_a_tool_is_chosen_by_keyboard(app, run):
    open_stop(app, run, "tools-s1")
    pick_cut(app, "Rough flange")
    app.locator('[data-fact="tool_c2"] button').focus()
    app.keyboard.press("Enter")
    app.keyboard.press("Home")  # the best for it; its own stands last
    app.keyboard.press("Enter")
    until(app, lambda: Edit.objects.filter(path="setups.s1.cuts.c2.tool").exists())
    # The holder is drawn with its insert in it; the insert alone with each letter explained.
    drawing = app.get_by_role("region", name="Drawing")
    expect(drawing.locator('[data-role="tool"]')).to_have_count(1)
    expect(drawing.locator('[data-role="insert"]')).to_have_count(1)
    drawing.get_by_role("button", name=re.compile("^[A-Z]{4} ")).click()
    letters = app.get_by_label(re.compile("^What .* says"))
    expect(letters).to_contain_text("Shape")
    expect(letters).to_contain_text("Corner")
    # And at Cuts its corner is no entry any more.
    app.get_by_role("link", name=re.compile("^Cuts")).click()
    pick_cut(app, "Rough flange")
    expect(app.locator('[data-fact="cut_c2_corner_radius_mm"] input')).to_have_count(0)
    app.locator("[data-scrolls]").evaluate("e => e.scrollTo(0, e.scrollHeight)")
    expect(app.get_by_text("Feed window")).to_be_visible()


def test_why_not_this_one_is_answered_for_any_tool(app, run):
    open_stop(app, run, "tools-s1")
    pick_cut(app, "Rough flange")
    app.get_by_role("button", name="every tool for Rough flange, and why not").click()
    app.get_by_role("searchbox", name="Find a tool").fill("CCGT")
    panel = app.get_by_role("region", name="Every tool for Rough flange")
    expect(panel.get_by_text("Not this one:").first).to_be_visible()
    expect(panel.get_by_text("not for ISO M").first).to_be_visible()


def test_operations_are_proposed_settled_and_taken(app, run):
    run.document["setups"][0]["force"]["condition"] = "today"
    run.save()
    open_stop(app, run, "cuts-s1")
    app.get_by_role("button", name="propose all operations again from the profile").click()
    expect(app.get_by_role("group", name="Facts in view")).to_contain_text("Turn Flange")
    app.get_by_role("button", name="Settle the set-up").click()
    found = app.get_by_role("region", name="What settling found")
    expect(found).to_be_visible()
    cuts = app.get_by_role("table", name="All cuts of this side")
    expect(cuts.get_by_role("columnheader", name="held back by")).to_be_visible()
    expect(cuts.get_by_text("→").first).to_be_visible()  # before and after in the same table
    expect(cuts.get_by_role("row")).to_have_count(5)  # its head, and the four cuts
    assert Edit.objects.count() == 1  # shown, not kept
    found.get_by_role("button", name="Take it").click()
    expect(found).to_have_count(0)
    expect(rail(app, "Force")).not_to_contain_text("stopped")
    until(app, lambda: Edit.objects.count() == 2)
    app.get_by_role("button", name="Undo").click()
    until(app, lambda: Edit.objects.count() == 3)


def test_the_cuts_are_stepped_through_at_work_by_keyboard(app, run):
    open_stop(app, run, "cuts-s1")
    drawing, group = app.get_by_role("region", name="Drawing"), app.get_by_role("group", name="Facts in view")
    expect(drawing.locator('[data-role="cut"]')).to_have_count(1)
    expect(group.get_by_role("button", name="Face", exact=True)).to_have_attribute("aria-pressed", "true")
    drawing.get_by_role("group", name=re.compile("arrows move")).focus()
    app.keyboard.press("ArrowRight")
    expect(group.get_by_role("button", name="Rough flange", exact=True)).to_have_attribute("aria-pressed", "true")
    expect(drawing.get_by_role("group", name="Go through the cuts")).to_contain_text("Rough flange2 of 3")
    expect(drawing.locator('[data-role="gap"], [data-role="danger"]')).to_have_count(1)
    expect(drawing).to_contain_text("to the jaws")
    app.keyboard.press("ArrowLeft")
    expect(group.get_by_role("button", name="Face", exact=True)).to_have_attribute("aria-pressed", "true")


def test_a_pinned_feed_stays_when_its_cut_is_settled(app, run):
    open_stop(app, run, "cuts-s1")
    pick_cut(app, "Rough flange")
    row = app.locator('[data-fact="cut_c2_feed_mm_rev"]')
    row.get_by_role("button", name="pin Feed").click()
    expect(row.get_by_role("button", name="pinned Feed")).to_have_attribute("aria-pressed", "true")
    until(app, lambda: Run.objects.get(pk=run.pk).document["setups"][0]["cuts"][1]["pin_feed"])
    app.get_by_role("button", name="Settle Rough flange").click()
    expect(app.get_by_role("region", name="What settling found")).to_contain_text("0.15 mm/rev")


def test_cuts_are_put_in_another_order_and_split(app, run):
    open_stop(app, run, "cuts-s1")
    group = app.get_by_role("group", name="Facts in view")
    pick_cut(app, "Rough flange")
    app.get_by_role("button", name="earlier").click()
    expect(group.get_by_role("button").first).to_have_text("Rough flange")
    app.get_by_role("button", name="split into roughing and finishing").click()
    expect(group).to_contain_text("Rough flange, finishing")
    # What cannot be split says why.
    pick_cut(app, "Face")
    app.get_by_role("button", name="split into roughing and finishing").click()
    expect(app.get_by_text("Turning and boring are split")).to_be_visible()


def test_a_cut_that_worked_is_kept_and_found(app, run):
    open_stop(app, run, "cuts-s1")
    look_as(app, "setter")
    open_stop(app, run, "cuts-s1")
    pick_cut(app, "Finish flange")
    app.get_by_role("button", name="Finish flange worked: keep it").click()
    app.get_by_label("Finish Ra measured").fill("rough")
    app.get_by_role("button", name="Keep it in the notebook").click()
    expect(
        app.get_by_text(re.compile("cannot be read|is not a figure|Write"))
    ).to_be_visible()  # told at the field, nothing lost
    app.get_by_label("Finish Ra measured").fill("1.2")
    app.get_by_label("Remarks").fill("mirror after the second edge")
    app.get_by_role("button", name="Keep it in the notebook").click()
    expect(app.get_by_text("It is in the notebook.")).to_be_visible()
    expect(app.get_by_role("region", name="Notebook for Finish flange")).to_contain_text("mirror after the second edge")
    go(app, "/notebook")
    app.get_by_role("searchbox", name="Find in the notebook").fill("mirror")
    expect(app.get_by_text("1 cut.", exact=True)).to_be_visible()
    expect(app.get_by_role("row", name=re.compile("duplex"))).to_contain_text("mirror after the second edge")
    assert ProvenCut.objects.filter(remarks__startswith="mirror").count() == 1


def test_proven_figures_are_taken_into_the_plan(app, run):
    open_stop(app, run, "cuts-s1")
    pick_cut(app, "Rough flange")
    panel = app.get_by_role("region", name="Notebook for Rough flange")
    expect(panel).to_contain_text("same material")
    panel.get_by_role("button", name=re.compile("take these figures")).first.click()
    until(app, lambda: Edit.objects.filter(path="setups.s1.cuts.c2").exists())
    speed = Run.objects.get(pk=run.pk).document["setups"][0]["cuts"][1]["speed_m_min"]
    assert ProvenCut.objects.filter(speed_m_min=speed, kind="turn").exists()


def test_a_cut_is_written_down_by_hand_with_what_is_wrong_told(app, run):
    go(app, "/notebook")
    app.get_by_role("button", name="Write a cut down").click()
    form = app.get_by_role("form", name="A proven cut")
    form.get_by_label("Material", exact=True).fill("C45")
    form.get_by_label(re.compile("^Surface speed")).fill("210")
    form.get_by_role("button", name="Write it down").click()
    expect(form.get_by_text(re.compile("Feed"))).not_to_have_count(0)
    form.get_by_label(re.compile("^Feed")).fill("0.25")
    form.get_by_role("button", name="Write it down").click()
    expect(form).to_have_count(0)
    until(app, lambda: ProvenCut.objects.filter(material="C45").exists())


def test_every_figure_of_the_table_of_cuts_is_edited_by_keys_alone(app, run):
    open_stop(app, run, "cuts-s1")
    cuts = app.get_by_role("table", name="All cuts of this side")
    speed = cuts.get_by_role("textbox", name="Rough flange: Surface speed, m/min")
    speed.focus()
    app.keyboard.press("Control+A")
    app.keyboard.type("100")
    app.keyboard.press("Enter")
    expect(cuts.get_by_role("textbox", name="Rough flange: Feed, mm/rev")).to_be_focused()
    until(app, lambda: Edit.objects.filter(path="setups.s1.cuts.c2.speed_m_min", new=100.0).exists())
    expect(cuts.get_by_role("row", name=re.compile("^Rough flange"))).to_contain_text("%")
    app.keyboard.press("Control+A")
    app.keyboard.type("9")
    app.keyboard.press("Enter")  # no feed of a lathe
    expect(app.get_by_role("alert").first).to_be_visible()


def test_what_would_gain_most_is_tried_and_taken(app, run):
    plug = Run.objects.get(name="Vent plug")
    open_stop(app, plug, "cuts-s1")
    slip = app.get_by_role("region", name="What would gain most")
    slip.get_by_role("button", name="Try other ways to hold it").click()
    expect(slip.get_by_role("button", name="Look again")).to_be_visible(timeout=90_000)
    best = slip.get_by_role("listitem").get_by_role("button").first
    expect(best).to_be_visible()
    best.click()
    until(app, lambda: Edit.objects.count() == 1)
    assert len(Edit.objects.get().parts) > 1  # the change, and what was settled for it
    expect(rail(app, "Force")).not_to_contain_text("stopped")

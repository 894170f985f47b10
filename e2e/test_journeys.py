"""Journeys of a setter through the real application."""

import pytest
from playwright.sync_api import expect

from e2e.screen import answer, dimension, field, open_stop, rail, released, type_into
from server.apps.runs.models import Edit, Run
from server.foundation.models import Person

PRESSURE = "setups.s1.force.pressure_bar"


def test_the_bench_leads_to_a_plan(app):
    expect(app.get_by_role("heading", name="Bench")).to_be_visible()
    app.get_by_role("link", name="Seal carrier").click()
    expect(app.get_by_text("not for the machine")).to_be_visible()
    expect(app.get_by_label("To carry to the machine")).to_contain_text("28.0 bar")
    app.get_by_role("link", name="Noble Anvil").click()
    expect(app.get_by_role("link", name="Vent plug")).to_be_visible()


def test_changing_the_gripped_diameter_moves_bore_drawing_and_cap(app, run):
    open_stop(app, run, "part")
    cap = rail(app, "Force").inner_text()
    drawn = app.locator('[data-shape="part"]').get_attribute("d")
    entry = type_into(app, "Spigot", "80 0/-0.035 x 40")
    expect(dimension(app, "diameter-o1")).to_contain_text("Ø 80.00")
    expect(app.locator('[data-fact="step_o1"]')).to_contain_text("was 84 0/-0.035 x 40")
    expect(rail(app, "Jaws")).to_contain_text("Ø 80.00")
    assert rail(app, "Force").inner_text() != cap
    assert app.locator('[data-shape="part"]').get_attribute("d") != drawn
    assert not Edit.objects.exists()  # typing previews and saves nothing
    entry.press("Enter")
    expect(app.get_by_text("draft 1, kept")).to_be_visible()
    assert [(e.old["diameter_mm"], e.new["diameter_mm"]) for e in Edit.objects.all()] == [(84.0, 80.0)]
    app.reload()
    expect(field(app, "Spigot")).to_have_value("80 0/-0.035 x 40")
    expect(app.get_by_label("To carry to the machine")).to_contain_text("80.00 mm")


def test_escape_puts_back_what_was_there(app, run):
    open_stop(app, run, "part")
    entry = type_into(app, "Spigot", "80 0/-0.035 x 40")
    expect(rail(app, "Jaws")).to_contain_text("Ø 80.00")
    entry.press("Escape")
    expect(rail(app, "Jaws")).to_contain_text("Ø 84.00")
    app.keyboard.press("Tab")
    expect(field(app, "Spigot")).to_have_value("84 0/-0.035 x 40")
    assert not Edit.objects.exists()


def test_raising_the_clamp_until_it_stops_and_taking_the_help(app, run):
    open_stop(app, run, "cuts")
    type_into(app, "Spindle clamp, rpm", "3000").press("Enter")
    type_into(app, "To diameter, mm", "2").press("Enter")
    expect(rail(app, "Force")).to_contain_text("stopped")
    rail(app, "Force").click()
    expect(app.get_by_role("alert").first).to_contain_text("Face")
    app.get_by_role("button", name="Hold the clamp of Face to").click()
    expect(rail(app, "Force")).not_to_contain_text("stopped")
    clamp = Edit.objects.latest("revision")
    assert clamp.path == "setups.s1.cuts.c1.clamp_rpm"
    assert clamp.new % 10 == 0


def test_inch_at_a_key_changes_what_is_shown_and_nothing_that_is_kept(app, run):
    open_stop(app, run, "part")
    app.keyboard.press("u")
    expect(field(app, "Edge break, in")).to_have_value("0.012")
    expect(app.get_by_label("To carry to the machine")).to_contain_text("psi")
    field(app, "Roundness, in").click()
    app.keyboard.press("Tab")
    app.keyboard.press("u")
    expect(field(app, "Edge break, in")).to_have_count(1)  # inside a field the letter is text
    app.keyboard.press("Escape")
    app.keyboard.press("Alt+u")
    expect(field(app, "Spigot")).to_have_value("84 0/-0.035 x 40")
    assert not Edit.objects.exists()


def test_switching_units_never_reads_a_value_again(app, run):
    open_stop(app, run, "force")
    app.keyboard.press("u")
    expect(field(app, "Gauge pressure, psi")).to_have_value("406")
    app.keyboard.press("u")
    type_into(app, "Gauge pressure, bar", "30")
    app.keyboard.press("Alt+u")  # still in the field: what is typed is kept as bar, then shown as psi
    expect(field(app, "Gauge pressure, psi")).to_have_value("435")
    assert [e.new for e in Edit.objects.all()] == [30.0]
    type_into(app, "Gauge pressure, psi", "abc").press("Enter")
    app.keyboard.press("Alt+u")
    expect(app.get_by_text("An entry typed in inches is not kept.")).to_be_visible()
    expect(field(app, "Gauge pressure, bar")).to_have_value("30.0")


def test_the_inch_plan_opens_in_inches_and_reads_fractions(app):
    plug = Run.objects.get(drawing_number="LH-2215")
    open_stop(app, plug, "part")
    expect(field(app, "Bar")).to_have_value("1.5 0/-0.003 x 0.875")
    type_into(app, "Body", "1 3/16 x 3/4").press("Enter")
    expect(app.get_by_text("draft 1, kept")).to_be_visible()
    expect(field(app, "Body")).to_have_value("1.1875 x 0.75")
    expect(app.locator('[data-fact="step_o2"]')).to_contain_text("was 1.25 x 0.75")
    plug.refresh_from_db()
    assert plug.document["part"]["profile"]["outside"][1]["diameter_mm"] == pytest.approx(30.1625)
    assert plug.typed["part.profile.outside.o2"] == "1 3/16 x 3/4"


def test_every_answer_opens_its_working(app, run):
    for stop in ("part", "sides", "hold", "jaws", "force", "tools", "cuts"):
        open_stop(app, run, stop)
        buttons = app.get_by_role("button", name="show working")
        expect(buttons).to_have_count(2 if stop in ("sides", "tools") else 3)
        for name in [b.get_attribute("aria-label") for b in buttons.all()]:
            app.get_by_role("button", name=name).click()
            sheet = app.get_by_role("region", name="Working of")
            expect(sheet.locator("code").first).to_contain_text("=")
        app.get_by_role("button", name="back to the facts").click()
        expect(app.get_by_role("region", name="Facts of")).to_be_visible()


def test_keyboard_only(app, run):
    open_stop(app, run, "part")
    app.keyboard.press("Alt+7")
    expect(app.get_by_role("heading", name="What makes the grip")).to_be_visible()
    app.keyboard.press("w")
    expect(app.get_by_role("region", name="Working of Never above")).to_be_visible()
    app.keyboard.press("w")
    for _ in range(40):
        app.keyboard.press("Tab")
        if app.evaluate("document.activeElement.getAttribute('aria-label')") == "Gauge pressure, bar":
            break
    app.keyboard.press("Control+a")
    app.keyboard.type("29.5")
    app.keyboard.press("Enter")
    expect(app.get_by_text("draft 1, kept")).to_be_visible()
    assert app.evaluate("document.activeElement !== document.body")
    app.keyboard.press("Alt+6")
    expect(app.get_by_role("heading", name="Which edge does each cut")).to_be_visible()
    app.keyboard.press("Alt+5")
    expect(app.get_by_role("heading", name="What each cut does")).to_be_visible()
    app.locator("body").press("?")
    sheet = app.get_by_role("dialog", name="Keys")
    expect(sheet).to_be_visible()
    app.keyboard.press("Escape")
    expect(sheet).to_be_hidden()
    assert Edit.objects.get().new == 29.5


def test_choices_and_yes_or_no_by_keyboard(app, run):
    open_stop(app, run, "hold")
    chooser = app.get_by_role("button", name="Top jaw")
    chooser.focus()
    app.keyboard.press("Enter")
    app.get_by_role("option", name="aluminium 50 high, L3").press("Enter")
    expect(rail(app, "Hold")).to_contain_text("aluminium")
    centre = app.get_by_role("radiogroup", name="Live centre").get_by_role("radio", name="yes")
    centre.focus()
    app.keyboard.press("Space")
    expect(app.locator('[data-shape="live-centre"]')).to_be_visible()
    assert set(Edit.objects.values_list("path", flat=True)) == {"setups.s1.jaw_blank", "setups.s1.hold.live_centre"}


BAD = ["abc", "0", "-3", "28,500", "33", "28 mm"]


@pytest.mark.parametrize("text", BAD)
def test_bad_input_gets_a_sentence_at_the_field_and_nothing_is_lost(app, run, text):
    open_stop(app, run, "force")
    before = "28.0 bar · cap 791 rpm"
    expect(rail(app, "Force")).to_contain_text(before)
    entry = type_into(app, "Gauge pressure, bar", text)
    row = app.locator('[data-fact="pressure"]')
    expect(row.get_by_role("alert")).to_be_visible()
    expect(app.get_by_text("The drawing shows the last good state.")).to_be_visible()
    entry.press("Enter")
    expect(row.get_by_role("alert")).to_be_visible()
    rail(app, "Cuts").click()
    expect(app.get_by_text("is not kept")).to_be_visible()
    rail(app, "Force").click()
    expect(field(app, "Gauge pressure, bar")).to_have_value(text)  # what was typed is still there
    assert not Edit.objects.exists()
    type_into(app, "Gauge pressure, bar", "28").press("Enter")
    expect(row.get_by_role("alert")).to_be_hidden()
    expect(rail(app, "Force")).to_contain_text(before)


def test_contradictions_are_told_where_they_are_typed(app, run):
    open_stop(app, run, "part")
    app.get_by_role("button", name="Bore from end A").click()
    type_into(app, "Bore", "84 through")
    expect(app.locator('[data-fact="step_i1"]').get_by_role("alert")).to_contain_text("smaller than the spigot")
    open_stop(app, run, "hold")
    type_into(app, "Depth of grip, mm", "41")
    expect(app.locator('[data-fact="depth"]').get_by_role("alert")).to_contain_text("plain length of 40 mm")


def test_two_people_on_the_same_fact_see_both_values(app, run, context):
    open_stop(app, run, "force")
    other = context.new_page()
    other.goto(app.url)
    entry = type_into(app, "Gauge pressure, bar", "26")
    type_into(other, "Gauge pressure, bar", "27").press("Enter")
    expect(app.get_by_text("draft 1, kept")).to_be_visible()  # theirs came in while this one was being typed
    expect(entry).to_have_value("26")
    entry.press("Enter")
    row = app.locator('[data-fact="pressure"]')
    expect(row.get_by_role("alert")).to_contain_text("Theirs: 27")
    row.get_by_role("button", name="keep mine").click()
    expect(app.get_by_text("draft 2, kept")).to_be_visible()
    assert list(Edit.objects.order_by("revision").values_list("new", flat=True)) == [27.0, 26.0]


def test_pointing_lights_drawing_and_ledger_together(app, run):
    open_stop(app, run, "jaws")
    app.locator('[data-fact="floor"]').hover()
    expect(dimension(app, "floor")).to_have_attribute("data-lit", "true")
    app.locator('[data-dimension="depth"] text').hover(force=True)
    expect(app.locator('[data-fact="depth"]')).to_have_attribute("data-lit", "true")
    expect(answer(app, "depth")).to_have_attribute("data-lit", "true")


def test_an_operator_looks_and_changes_nothing(app, run, server):
    released(run)
    Person.objects.filter(username="planner").update(role="operator")
    open_stop(app, run, "force")
    expect(answer(app, "cap")).to_contain_text("791")
    expect(app.get_by_role("textbox")).to_have_count(0)
    expect(app.get_by_role("button", name="Chuck condition")).to_have_count(0)


def test_the_pressure_is_dragged_on_the_picture_and_moved_by_arrow_keys(app, run):
    open_stop(app, run, "force")
    handle = app.get_by_role("slider", name="Gauge pressure on the picture, bar")
    spot = handle.bounding_box()
    x, y = spot["x"] + spot["width"] / 2, spot["y"] + spot["height"] / 2
    app.mouse.move(x, y)
    app.mouse.down()
    app.mouse.move(x, y + 40, steps=4)
    expect(rail(app, "Force")).not_to_contain_text("28.0 bar")
    app.mouse.up()
    expect(app.get_by_text("draft 1, kept")).to_be_visible()
    dragged = Edit.objects.get().new
    assert dragged < 28
    assert dragged % 0.5 == 0
    handle.press("ArrowUp")
    handle.press("Enter")
    expect(app.get_by_text("draft 2, kept")).to_be_visible()
    assert Edit.objects.latest("revision").new == dragged + 0.5
    app.get_by_role("slider", name="Clamp of Face on the picture, rpm").press("ArrowLeft")
    expect(rail(app, "Cuts")).to_contain_text("top 540 rpm")
    app.keyboard.press("Escape")
    expect(rail(app, "Cuts")).to_contain_text("top 551 rpm")


def test_the_chart_marks_the_cap_on_the_demand(app, run):
    open_stop(app, run, "force")
    spot = app.locator("circle.cap-dot").bounding_box()
    line = app.locator("path.demand").bounding_box()
    assert spot["y"] + spot["height"] / 2 == pytest.approx(line["y"] + line["height"] / 2, abs=1.5)
    app.get_by_role("button", name="Section").click()
    expect(dimension(app, "overhang")).to_be_visible()

"""The route of a plan: what pulls on it, what it shows, what is taken from it."""

import re

from playwright.sync_api import expect

from e2e.screen import answer, go, open_stop, rail, type_into, until
from server.apps.demo.actions import ready
from server.apps.demo.runs import RUNS
from server.apps.runs.actions import manage
from server.apps.runs.actions.load_run import load_run
from server.apps.runs.models import Run
from server.foundation.models import Person

BUSH = next(r for r in RUNS if r["drawing_number"] == "LH-1980")
BORED = ["face", "bore", "bore"]


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
    type_into(app, "Feed, mm/rev", "0.11").press("Enter")
    expect(rail(app, "Route")).not_to_have_text(told)
    rail(app, "Route").click()
    app.get_by_role("button", name="A piece", exact=True).click()
    expect(app.get_by_role("table", name="In the order it happens")).to_contain_text("Face")
    with app.expect_download() as saved:
        app.get_by_role("link", name="save the time of every operation").click()
    assert saved.value.path().read_text().startswith("side,operation,station")


def test_a_run_is_moved_on_the_board_by_keys_and_put_back(app, run):
    go(app, "/board")
    block = app.get_by_role("button", name=re.compile("^LH-2041 Seal carrier set-up begins"))
    expect(block).to_be_visible()
    before = block.text_content()
    told = app.get_by_role("status").first
    block.focus()
    app.keyboard.press("Shift+ArrowRight")
    app.keyboard.press("ArrowRight")
    expect(told).to_contain_text("LH-2041 Seal carrier would begin")
    app.keyboard.press("Escape")
    expect(told).not_to_contain_text("would begin")
    assert Run.objects.get(pk=run.pk).revision == 0
    app.keyboard.press("Shift+ArrowRight")
    app.keyboard.press("Enter")
    expect(told).to_contain_text(re.compile("LH-2041 Seal carrier begins .* finished "))
    moved = app.get_by_role("button", name=re.compile("^LH-2041 Seal carrier set-up begins"))
    expect(moved).not_to_have_text(before)
    app.get_by_role("button", name="Put back").click()
    expect(moved).to_have_text(before)
    # It is an edit as any other: the plan tells it.
    open_stop(app, run, "route")
    expect(answer(app, "finished")).to_contain_text("set up ")
    assert Run.objects.get(pk=run.pk).revision == 2


def test_a_run_is_dragged_refused_where_the_machine_is_taken_and_taken_off(app, run):
    planner = Person.objects.get(username="planner")
    manage.copy_run(run.pk, manage.Names("Seal carrier again", "LH-2042"), planner)
    go(app, "/board")
    waiting = app.get_by_role("row", name=re.compile("LH-2042"))
    waiting.get_by_role("button", name="Put behind the others").click()
    block = app.get_by_role("button", name=re.compile("^LH-2042 Seal carrier again set-up begins"))
    expect(block).to_be_visible()
    other = app.get_by_role("button", name=re.compile("^LH-2041 Seal carrier set-up begins")).bounding_box()
    mine = block.bounding_box()
    app.mouse.move(mine["x"] + 4, mine["y"] + 20)
    app.mouse.down()
    app.mouse.move(other["x"] + other["width"] / 2 + 4, mine["y"] + 20, steps=8)
    app.mouse.up()
    expect(app.get_by_role("alert")).to_contain_text("LH-2041 Seal carrier is on this machine until")
    expect(block).to_have_css("transform", "none")
    app.get_by_role("row", name=re.compile("LH-2042")).get_by_role("button", name="Take off").click()
    expect(app.get_by_role("status").first).to_contain_text("LH-2042 Seal carrier again is off the board.")
    expect(block).to_have_count(0)


CLOSED = """BEGIN:VCALENDAR
VERSION:2.0
PRODID:-//made up//EN
BEGIN:VEVENT
UID:1
DTSTAMP:20260101T000000Z
SUMMARY:Works closed
DTSTART;VALUE=DATE:20200101
DTEND;VALUE=DATE:20200102
RRULE:FREQ=DAILY;COUNT=20000
END:VEVENT
END:VCALENDAR"""


def test_a_calendar_that_is_pasted_moves_the_finish_and_wrong_hours_are_refused_at_their_line(app, run):
    open_stop(app, run, "route")
    before = answer(app, "finished").inner_text()
    go(app, "/rules")
    shifts = app.get_by_role("textbox", name="Shifts")
    shifts.fill("Monday morning")
    app.get_by_role("button", name="Keep these hours").click()
    expect(app.get_by_text("Write days and hours, such as")).to_be_visible()
    shifts.fill("Mon-Fri 06:00-14:00")
    app.get_by_role("textbox", name=re.compile("paste its iCalendar text")).fill(CLOSED.replace("20000", "60"))
    app.get_by_role("button", name="Keep these hours").click()
    expect(app.get_by_role("button", name="Keep these hours")).to_have_count(0)
    expect(shifts).to_have_value("Mon-Fri 06:00-14:00")
    expect(app.get_by_role("button", name="Take the other calendar out")).to_be_visible()
    open_stop(app, run, "route")
    expect(answer(app, "finished")).not_to_have_text(before)
    go(app, "/rules")
    # Closed every day for years: a run has no end then, and the plan says so.
    app.get_by_role("textbox", name=re.compile("paste its iCalendar text")).fill(CLOSED)
    app.get_by_role("button", name="Keep these hours").click()
    expect(app.get_by_text("Works closed: ").first).to_be_visible()
    open_stop(app, run, "route")
    expect(app.get_by_text("By the shop's calendar this run does not end within 5 years.").first).to_be_visible()


def test_a_lane_is_balanced_and_the_order_moved_by_keys(app, run):
    """A bush on two lanes: its bore goes to the second spindle, and the pieces come quicker at once."""
    load_run(ready(BUSH))
    bush = Run.objects.get(drawing_number="LH-1980")
    open_stop(app, bush, "route")
    before, first = answer(app, "cycle").inner_text(), bush.document
    told = re.search(r"[\d.]+ min a piece", rail(app, "Route").inner_text().replace("\xa0", " "))[0]
    table = app.get_by_role("table", name="What would balance the lanes")
    table.get_by_role("button", name="take Even Bore and Finish Bore on the other spindle").click()
    expect(answer(app, "cycle")).not_to_have_text(before)
    until(app, lambda: [c["kind"] for c in Run.objects.get(pk=bush.pk).document["setups"][1]["cuts"]] == BORED)
    order = app.get_by_role("region", name="Order")
    names = order.get_by_role("button")
    expect(names.nth(1)).to_have_text("Rough Collar")
    names.nth(1).focus()
    app.keyboard.press("ArrowRight")
    expect(names.nth(2)).to_have_text("Rough Collar")
    app.keyboard.press("ArrowLeft")  # the focus went along
    expect(names.nth(1)).to_have_text("Rough Collar")
    until(app, lambda: Run.objects.get(pk=bush.pk).revision == 3)
    for revision in (4, 5, 6):  # both moves, then what went across, all of it at once
        app.get_by_role("button", name="Undo").click()
        until(app, lambda: Run.objects.get(pk=bush.pk).revision == revision)  # noqa: B023 - asked at once
    assert Run.objects.get(pk=bush.pk).document == first
    expect(rail(app, "Route")).to_contain_text(told)  # the screen went to what was taken back

"""Journeys of a shop's own work: new runs, the bench, the shelf, history, the find box, roles."""

import re
from pathlib import Path

from playwright.sync_api import expect

from e2e.screen import address, answer, field, go, look_as, open_stop, rail, released, type_into, until
from server.apps.runs.models import Edit, Run
from server.apps.shelf.models import Chuck, Machine
from server.foundation.models import Person

REFUSED = Path(__file__).parent.parent / "calc" / "tests" / "plan" / "refused"


def choose(app, label, option):
    app.get_by_role("button", name=re.compile(rf"{label}$")).click()
    app.get_by_role("option", name=option, exact=True).click()


def test_a_new_run_from_what_is_known_to_a_settled_plan(app, run):
    app.get_by_role("button", name="New run").click()
    app.get_by_label("Name", exact=True).fill("Pump shaft")
    choose(app, "Machine", "Lathe 3")
    choose(app, "Material", "carbon steel C45")
    app.get_by_label("Outside").fill("36,500 x 3 in")
    app.get_by_label("Quantity").fill("24")
    app.get_by_role("button", name="put it on the bench as it is").click()
    expect(app.get_by_text("Drawing number cannot be empty")).to_be_visible()
    expect(app.get_by_text("can be read two ways")).to_be_visible()
    expect(app.get_by_label("Name", exact=True)).to_have_value("Pump shaft")  # nothing is lost
    app.get_by_label("Drawing number").fill("LH-3001")
    app.get_by_label("Outside").fill("36,5 x 3 in")
    app.get_by_role("button", name="put it on the bench as it is").click()

    expect(rail(app, "Part")).to_contain_text("Ø 36.5 × 76.2")
    expect(rail(app, "Hold")).to_contain_text("top jaw missing")
    expect(rail(app, "Cuts")).to_contain_text("a cut missing")
    rail(app, "Hold").click()
    choose(app, "Top jaw", "steel 50 high, L3")
    # The part is held on Ø 36.5: the jaws meet further in than these blanks stand, so a tall order of metal.
    rail(app, "Cuts").click()
    app.get_by_role("button", name="Put in a cut").click()
    app.get_by_label("Name of the new cut").fill("Rough")
    app.get_by_role("button", name="Put in", exact=True).click()
    expect(app.get_by_role("button", name="Rough", exact=True)).to_be_visible()
    for label, text in {
        "From diameter, mm": "38.5",
        "To diameter, mm": "36.5",
        "Surface speed, m/min": "150",
        "Feed, mm/rev": "0.15",
        "Length, mm": "30",
        "Depth per side, mm": "1",
        "Spindle clamp, rpm": "1200",
    }.items():
        type_into(app, label, text).press("Enter")
        expect(app.get_by_role("alert")).to_have_count(0)
    expect(rail(app, "Cuts")).to_contain_text("1 cut · top")
    rail(app, "Force").click()
    type_into(app, "Gauge pressure, bar", "20").press("Enter")
    expect(answer(app, "cap")).to_be_visible()
    app.get_by_role("link", name="Noble Anvil").click()
    expect(app.get_by_role("link", name="Pump shaft")).to_be_visible()
    until(app, lambda: (Run.objects.get(drawing_number="LH-3001").standing["headlines"]["cap"] or 0) > 0)


def test_what_is_being_put_in_outlives_an_edit_that_is_still_on_its_way(app, run):
    open_stop(app, run, "force-s1")
    held = []

    def hold(route):
        held.append(route)

    app.route("**/edits", hold)
    type_into(app, "Gauge pressure, bar", "19").press("Enter")
    rail(app, "Cuts").click()
    app.get_by_role("button", name="Put in a cut").click()
    name = app.get_by_label("Name of the new cut")
    name.fill("Rou")
    until(app, lambda: held)
    with app.expect_response("**/parts"):  # the page of Cuts is of before the edit, and is asked for again
        held[0].continue_()
    expect(name).to_have_value("Rou")


def do(app, name, action):
    app.get_by_role("button", name=f"more to do with {name}", exact=True).click()
    app.get_by_role("menuitem", name=action).click()


def test_a_run_is_saved_as_a_file_and_read_in_again(app, run, tmp_path):
    with app.expect_download() as download:
        do(app, "Seal carrier", "Save as a file")
    file = tmp_path / download.value.suggested_filename
    download.value.save_as(file)
    assert file.name == "LH-2041.json"
    app.get_by_role("button", name="New run").click()
    with app.expect_file_chooser() as chooser:
        app.get_by_role("button", name="Read a file in …").click()
    chooser.value.set_files(file)
    expect(app.get_by_role("heading", name="Seal carrier")).to_be_visible()
    assert Run.objects.filter(drawing_number="LH-2041").count() == 2
    # A file that is not right is told at its field, and takes nothing.
    file.write_text(re.sub(r'"quantity": \d+', '"quantity": -1', file.read_text()))
    go(app, "/new")
    with app.expect_file_chooser() as chooser:
        app.get_by_role("button", name="Read a file in …").click()
    chooser.value.set_files(file)
    expect(app.get_by_text("document.part.quantity:")).to_be_visible()
    assert Run.objects.filter(drawing_number="LH-2041").count() == 2


def test_a_cut_that_is_in_the_way_is_taken_out_by_its_help(app, run):
    app.get_by_role("button", name="New run").click()
    with app.expect_file_chooser() as chooser:
        app.get_by_role("button", name="Read a file in …").click()
    chooser.value.set_files(REFUSED / "parting-in-the-jaws.json")
    app.get_by_role("button", name="Open the run").click()
    rail(app, "Cuts").first.click()
    group = app.get_by_role("group", name="Facts in view")
    expect(group.get_by_role("button", name="Part off", exact=True)).to_be_visible()
    app.get_by_role("button", name="Take Part off out").click()
    expect(group.get_by_role("button", name="Part off", exact=True)).to_have_count(0)
    expect(app.get_by_role("complementary", name="Answers of Cuts")).not_to_contain_text("Stopped")
    app.get_by_role("button", name="Undo").click()
    expect(group.get_by_role("button", name="Part off", exact=True)).to_be_visible()


def test_a_run_is_copied_renamed_put_away_brought_back_and_deleted(app, run):
    do(app, "Seal carrier", "Copy")
    app.get_by_label("Name", exact=True).fill("Seal carrier, long")
    app.get_by_role("button", name="Copy it").click()
    expect(app.get_by_role("heading", name="Seal carrier, long")).to_be_visible()
    app.get_by_role("link", name="Noble Anvil").click()
    do(app, "Seal carrier, long", "Rename")
    app.get_by_label("Name", exact=True).fill("Carrier B")
    app.get_by_role("button", name="Keep", exact=True).click()
    expect(app.get_by_role("link", name="Carrier B")).to_be_visible()
    do(app, "Carrier B", "Put away")
    expect(app.get_by_role("link", name="Carrier B")).to_have_count(0)
    app.get_by_role("radio", name="Put away 1").click()
    app.get_by_role("link", name="Carrier B").click()
    expect(app.get_by_text("This run is put away.")).to_be_visible()
    expect(app.get_by_role("textbox")).to_have_count(0)
    app.get_by_role("button", name="Bring it back").click()
    expect(field(app, "Spigot")).to_be_visible()
    app.get_by_role("link", name="Noble Anvil").click()
    do(app, "Carrier B", "Delete")
    app.get_by_role("button", name="Delete it for good").click()
    expect(app.get_by_role("link", name="Carrier B")).to_have_count(0)
    assert Run.objects.count() == 2


def test_the_bench_finds_by_any_word(app, run):
    app.get_by_role("searchbox").fill("6082 twin")
    expect(app.get_by_role("link", name="Seal carrier")).to_have_count(0)
    expect(app.get_by_role("link", name="Vent plug")).to_be_visible()
    app.get_by_role("searchbox").fill("no such thing")
    app.get_by_role("button", name="Show all").click()
    expect(app.get_by_role("link", name="Seal carrier")).to_be_visible()


def test_undo_and_redo_by_keys_across_stops_and_a_reload(app, run):
    open_stop(app, run, "part")
    type_into(app, "Spigot", "80 x 40").press("Enter")
    rail(app, "Force").click()
    type_into(app, "Gauge pressure, bar", "27").press("Enter")
    expect(app.get_by_role("link", name="draft 2")).to_be_visible()
    app.reload()
    expect(field(app, "Gauge pressure, bar")).to_have_value("27.0")
    app.locator("body").press("z")
    expect(field(app, "Gauge pressure, bar")).to_have_value("28.0")
    field(app, "Gauge pressure, bar").press("Alt+z")  # inside a field the letter is text; with Alt it undoes
    expect(rail(app, "Jaws")).to_contain_text("Ø 84.00")
    # It says what it undid, and goes there.
    expect(app.get_by_text(re.compile("^Undone: Spigot 80 x 40 → 84"))).to_be_visible()
    expect(app).to_have_url(address(app, f"/runs/{run.pk}/part"))
    expect(app.get_by_role("button", name="Undo")).to_be_disabled()
    field(app, "Spigot").press("Alt+Shift+Z")
    expect(rail(app, "Jaws")).to_contain_text("Ø 80.00")
    app.get_by_role("button", name="Redo").click()
    expect(app).to_have_url(address(app, f"/runs/{run.pk}/force-s1"))
    expect(field(app, "Gauge pressure, bar")).to_have_value("27.0")
    assert Edit.objects.count() == 6


def test_the_history_is_read_an_earlier_draft_looked_at_and_brought_back(app, run):
    open_stop(app, run, "force")
    type_into(app, "Gauge pressure, bar", "27").press("Enter")
    expect(app.get_by_role("link", name="draft 1")).to_be_visible()
    type_into(app, "Own speed limit, rpm", "500").press("Enter")
    app.get_by_role("link", name="draft 2").click()
    line = app.locator('[data-revision="1"]')
    expect(line).to_contain_text(re.compile("Gauge pressure 28.bar → 27.bar, cap 791.rpm → "))
    expect(line).to_contain_text("planner")
    line.get_by_role("link", name="look at").click()
    expect(app.get_by_text("Draft 1 as it was")).to_be_visible()
    expect(app.get_by_role("textbox")).to_have_count(0)
    rail(app, "Force").click()
    expect(app.locator('[data-fact="pressure"]')).to_contain_text("27.0")
    expect(app.locator('[data-fact="own_limit"]')).not_to_contain_text("500")
    app.get_by_role("link", name="to the history").click()
    app.get_by_role("button", name="bring back draft 0").click()
    expect(app.get_by_role("link", name="draft 3")).to_be_visible()
    rail(app, "Force").click()
    expect(field(app, "Gauge pressure, bar")).to_have_value("28.0")
    assert Edit.objects.get(revision=3).path == "plan"


def test_a_chuck_shows_what_a_change_moves_before_it_is_kept(app, run):
    app.get_by_role("link", name="Shelf").click()
    app.get_by_role("link", name=re.compile("^Chucks")).click()
    app.get_by_role("searchbox", name="Find in chucks").fill("lathe 3")
    app.get_by_role("link", name=re.compile("^Lathe 3 chuck")).click()
    curve = app.locator('[data-curve^="50"]').get_attribute("d")
    columns = app.get_by_label("bar, then kN")
    columns.fill("bar\tkN\n4\t13\n10\t31\n20\t62\n32\tx")
    expect(app.get_by_role("alert")).to_contain_text("Row 5")
    columns.fill("bar\tkN\n4\t13\n10\t31\n20\t62\n32\t99")
    slip = app.get_by_role("complementary", name="What it moves")
    expect(slip).to_contain_text("1 of 1 plans would move")
    expect(slip).to_contain_text(re.compile("cap 791.rpm →"))
    assert app.locator('[data-curve^="50"]').get_attribute("d") != curve
    assert Chuck.objects.get(key="lathe-3-chuck").chart.count() == 5  # nothing is kept yet
    app.get_by_role("button", name="Keep the change").click()
    expect(slip).to_contain_text("5 points → 4 points")
    slip.get_by_role("link", name="Seal carrier").first.click()
    expect(rail(app, "Force")).not_to_contain_text("cap 791")


def test_bad_figures_on_the_shelf_are_answered_and_nothing_is_lost(app, run):
    go(app, "/shelf/machine/lathe-5")
    speed = field(app, "Top speed, rpm")
    speed.click()
    speed.fill("fast")
    speed.press("Enter")
    expect(app.get_by_role("alert")).to_contain_text("is not a figure")
    app.get_by_role("button", name="Keep the change").click()
    expect(app.get_by_text("Some entries need another look")).to_be_visible()
    expect(field(app, "Top speed, rpm")).to_have_value("fast")
    type_into(app, "Top speed, rpm", "3600").press("Enter")
    app.get_by_role("button", name="Keep the change").click()
    expect(app.get_by_text("Kept.")).to_be_visible()
    assert Machine.objects.get(key="lathe-5").max_rpm == 3600


def test_a_machine_goes_in_by_hand_and_by_file(app, run, tmp_path):
    go(app, "/shelf/machine/new")
    for label, text in {
        "Name": "Lathe 9",
        "Top speed, rpm": "3000",
        "Spindle power, kW": "20 hp",
        "Spindle torque, N·m": "150",
    }.items():
        type_into(app, label, text).press("Enter")
    app.get_by_role("button", name="Put it on the shelf").click()
    expect(app.get_by_role("heading", name="Lathe 9")).to_be_visible()
    expect(app.locator('[data-field="turret_stations"]')).to_contain_text("typical")
    app.get_by_role("button", name="it is ours: Turret stations").click()
    app.get_by_role("button", name="Keep the change").click()
    expect(app.locator('[data-field="turret_stations"]')).not_to_contain_text("typical")

    app.get_by_role("link", name="Machines as a file").click()
    with app.expect_download() as saved:
        app.get_by_role("link", name="Save machines as CSV").click()
    text = saved.value.path().read_text()
    file = tmp_path / "machines.csv"
    columns = text.splitlines()[0].split(",")
    good = {"key": "lathe-10", "name": "Lathe 10", "max_rpm": "2500", "power_kw": "11", "torque_nm": "120"}
    bad = {"name": "Bad", "max_rpm": "fast", "power_kw": "1", "torque_nm": "1"}
    lines = (",".join(row.get(c, "") for c in columns) for row in (good, bad))
    file.write_text(text + "\r\n".join(lines) + "\r\n")
    with app.expect_file_chooser() as chooser:
        app.get_by_role("button", name="Look at a file").click()
    chooser.value.set_files(file)
    expect(app.get_by_text("6 lines: 5 can be taken, 1 cannot.")).to_be_visible()
    expect(app.get_by_role("row", name="7 Bad")).to_contain_text("is not a figure")
    assert Machine.objects.count() == 4
    app.get_by_role("button", name="Keep the good lines only").click()
    expect(app.get_by_role("link", name=re.compile("^Lathe 10"))).to_be_visible()
    assert Machine.objects.get(key="lathe-10").max_rpm == 2500


def test_the_find_box_jumps_to_a_fact_a_run_and_the_shelf(app, run):
    open_stop(app, run, "part")
    app.locator("body").press("/")
    app.keyboard.type("clamp")
    expect(app.get_by_role("menuitem", name="Spindle clamp")).to_be_visible()
    app.keyboard.press("Enter")
    expect(field(app, "Spindle clamp, rpm")).to_be_focused()
    app.keyboard.press("Alt+/")  # from inside a field
    app.keyboard.type("vent")
    app.get_by_role("menuitem", name="Vent plug").click()
    expect(app.get_by_role("heading", name="Vent plug")).to_be_visible()
    app.locator("body").press("/")
    app.keyboard.type("chuck lathe 5")
    app.get_by_role("menuitem", name="Lathe 5 chuck").click()
    expect(app.get_by_role("heading", name="Lathe 5 chuck")).to_be_visible()


def test_each_role_sees_what_it_may_do(app, run):
    released(run)
    open_stop(app, run, "force")
    look_as(app, "operator")
    expect(app.get_by_role("textbox")).to_have_count(0)
    expect(app.get_by_role("button", name=re.compile("Chuck condition"))).to_have_count(0)
    look_as(app, "setter")
    expect(app.get_by_role("button", name=re.compile("Chuck condition"))).to_be_visible()
    expect(field(app, "Gauge pressure, bar")).to_have_count(0)
    choose(app, "Chuck condition", "greased today")
    expect(app.get_by_role("link", name="draft 1")).to_be_visible()
    assert Edit.objects.get().by.username == "setter"
    app.get_by_role("link", name="Noble Anvil").click()
    expect(app.get_by_role("button", name="New run")).to_have_count(0)
    go(app, "/people")
    expect(app.get_by_role("alert")).to_contain_text("owner")
    expect(app.get_by_role("textbox")).to_have_count(0)


def test_an_owner_adds_somebody_and_gives_them_a_role(app, run):
    look_as(app, "owner")
    app.get_by_role("button", name="owner · demo").click()
    app.get_by_role("menuitem", name="People").click()
    app.get_by_label("Name to sign in with").fill("ada")
    app.get_by_label("First password").fill("short")
    app.get_by_role("button", name="Add", exact=True).click()
    expect(app.get_by_text("at least 10 characters")).to_be_visible()
    app.get_by_label("First password").fill("soft-jaws-and-tea")
    app.get_by_role("button", name="Add", exact=True).click()
    app.get_by_role("button", name="Role of ada").click()
    app.get_by_role("option", name=re.compile("^setter")).click()
    expect(app.get_by_role("button", name="Role of ada")).to_contain_text("setter")
    app.get_by_role("button", name="Role of owner").click()
    app.get_by_role("option", name=re.compile("^planner")).click()
    expect(app.get_by_role("alert").filter(has_text="only owner")).to_be_visible()
    ada = Person.objects.get(username="ada")
    assert (ada.role, ada.check_password("soft-jaws-and-tea")) == ("setter", True)


def test_the_section_is_looked_at_closer_and_fitted_again(app, run):
    open_stop(app, run, "jaws")
    jaw = app.locator('[data-shape="jaw"]')
    fitted = jaw.bounding_box()
    app.get_by_role("group", name="Drawing: plus").focus()
    for key in ("+", "+", "ArrowLeft"):
        app.keyboard.press(key)
    assert jaw.bounding_box()["width"] > fitted["width"] * 1.5
    app.get_by_role("button", name="Fit").click()
    assert abs(jaw.bounding_box()["x"] - fitted["x"]) < 0.6
    middle = app.locator('[data-shape="jaw"]').bounding_box()
    app.mouse.move(middle["x"] + 20, middle["y"] + 20)
    app.mouse.wheel(0, -400)
    closer = jaw.bounding_box()
    assert closer["width"] > fitted["width"] * 1.3
    app.mouse.down()
    app.mouse.move(middle["x"] - 20, middle["y"] + 20, steps=4)
    app.mouse.up()
    assert jaw.bounding_box()["x"] < closer["x"] - 30


def test_the_dark_set_stays_on_this_machine(app, run):
    app.get_by_role("button", name="planner · demo").click()
    app.get_by_role("menuitem", name="Dark, for a dim shop").click()
    dark = app.evaluate("getComputedStyle(document.body).backgroundColor")
    app.reload()
    expect(app.locator("html")).to_have_attribute("data-set", "dark")
    assert app.evaluate("getComputedStyle(document.body).backgroundColor") == dark == "rgb(27, 31, 33)"

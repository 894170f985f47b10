"""From an empty run to a downloaded jaw program, outside and inside; a drawing read; a jaw set's life."""

import io
import re

import ezdxf
import pytest
from playwright.sync_api import expect

from e2e.screen import address, answer, field, go, open_stop, rail, type_into
from server import kept_demo
from server.apps.runs.models import Edit, Run

WORDS = {
    "Word for feed per turn": "G95",
    "Word for the spindle clamp": "G92",
    "Word for the program number": "O",
    "Word for the end": "M30",
}


@pytest.fixture
def run(server, transactional_db):
    """The whole demo shop, fresh; gives its seal carrier of two sides."""
    kept_demo.begun()
    server.start_worker()
    return Run.objects.get(drawing_number="LH-2041")


def choose(app, label, option):
    app.get_by_role("button", name=label).click()
    app.get_by_role("option", name=option, exact=True).click()


def tab(app, name):
    app.get_by_role("button", name=name, exact=True).click()


def new_run(app, name, machine, material):
    app.get_by_role("button", name="New run").click()
    app.get_by_label("Name", exact=True).fill(name)
    app.get_by_label("Drawing number").fill(f"LH-{len(name)}00")
    choose(app, "Machine", machine)
    choose(app, "Material", material)
    app.get_by_role("button", name="Put it on the bench").click()
    expect(rail(app, "Part")).to_contain_text("missing")


def write_steps(app, *lines):
    for line in lines:
        entry = app.get_by_label("Next step")
        entry.fill(line)
        entry.press("Enter")
        expect(entry).to_have_value("")


def replace_first_step(app, line):
    entry = app.locator('[data-fact="step_o1"] input')  # its name changes with what is typed
    entry.click()
    entry.fill("")
    entry.press_sequentially(line)
    entry.press("Enter")
    expect(app.locator('[data-fact="step_o1"]').get_by_role("alert")).to_have_count(0)


def ready_to_bore(app, number):
    """Say what the program asks for, then take it."""
    tab(app, "Jaw program")
    type_into(app, "Program number", number).press("Enter")
    choose(app, "Spindle turns", "M03, clockwise")
    block = app.get_by_role("region", name="Jaw program")
    expect(block.get_by_role("link", name="Take the jaw program")).to_be_visible()
    expect(block).to_contain_text("NOT RELEASED")
    with app.expect_download() as saved:
        block.get_by_role("link", name="Take the jaw program").click()
    return saved.value.path().read_text()


def test_from_an_empty_run_to_the_jaw_program_of_an_outside_part(app, run):
    new_run(app, "Hub", "Lathe 3", "carbon steel C45")
    replace_first_step(app, "Spigot: 84 h7 x 40 Ra 1.6 r0.8")
    write_steps(app, "Flange: 118 x 14 c0.5")
    tab(app, "Stock")
    type_into(app, "Stock diameter, mm", "122").press("Enter")
    expect(rail(app, "Part")).to_contain_text("Ø 118 × 54")
    rail(app, "Sides").click()
    expect(app.get_by_role("table", name="Both orders, side by side")).to_contain_text("spigot end first, proposed")
    choose(app, "Made first", "flange end first")
    rail(app, "Hold").click()
    choose(app, "Top jaw", "steel 64 high, L3")
    expect(rail(app, "Hold")).to_contain_text("outside Ø 122")
    choose(app, "Grips", "Spigot")
    expect(rail(app, "Hold")).to_contain_text("outside Ø 84")
    rail(app, "Force").click()
    type_into(app, "Gauge pressure, bar", "20").press("Enter")
    rail(app, "Jaws").click()
    tab(app, "On the teeth")
    expect(app.get_by_role("table", name="Teeth compared")).to_contain_text("in force")
    tab(app, "What they close on")
    expect(app.locator('[data-fact="backing"]')).to_contain_text("Ring B")
    text = ready_to_bore(app, "84")
    assert text.startswith("O84\n(DRAFT ")
    assert "POCKET 1: DIA 84.000" in text and "G97 S" in text


def test_from_an_empty_run_to_the_jaw_program_of_an_inside_part(app, run):
    go(app, "/shelf/machine/lathe-5")
    for label, word in WORDS.items():
        type_into(app, label, word).press("Enter")
    app.get_by_role("button", name="Keep the change").click()
    expect(app.get_by_text("Kept.")).to_be_visible()
    app.goto(address(app, "/"))
    new_run(app, "Seat ring", "Lathe 5", "aluminium bronze CuAl10Ni5Fe4")
    replace_first_step(app, "Rim: 168 h8 x 32")
    tab(app, "Bore from end A")
    write_steps(app, "Bore: 148 H7 through")
    rail(app, "Sides").click()
    choose(app, "Made first", "end A first")
    rail(app, "Hold").click()
    choose(app, "Grips", "inside Bore")
    choose(app, "Top jaw", "aluminium 56 high pie, L5 inside")
    expect(rail(app, "Hold")).to_contain_text("inside Ø 148")
    rail(app, "Force").click()
    type_into(app, "Gauge pressure, bar", "5").press("Enter")
    rail(app, "Jaws").click()
    expect(answer(app, "bore_diameter")).to_contain_text("Turn the jaws to")
    text = ready_to_bore(app, "148")
    assert "INSIDE GRIP" in text and "DIA 148.000" in text


def test_both_sides_stand_in_the_rail_and_one_folds(app, run):
    open_stop(app, run, "hold-s1")
    expect(rail(app, "Jaws")).to_contain_text("Ø 122.00 × 14.00 deep, two pockets")
    app.get_by_role("link", name="Side 2, flange end").click()
    expect(rail(app, "Jaws")).to_contain_text("Ø 84.00 × 22.00 deep, two pockets")
    expect(app.get_by_label("To carry to the machine")).to_contain_text("84.00 mm")
    app.keyboard.press("Alt+4")
    expect(app).to_have_url(address(app, f"/runs/{run.pk}/jaws-s2"))
    for view in ("From the front", "Contact", "Travel"):
        app.get_by_role("button", name=view).click()
        expect(app.get_by_role("img").first).to_be_visible()


def test_regular_and_pie_jaws_side_by_side_and_the_real_contact(app, run):
    ring = Run.objects.get(name="Wear ring")
    open_stop(app, ring, "hold-s2")
    table = app.get_by_role("table", name="Jaws compared")
    expect(table.get_by_role("row", name="steel 56 high, L5 inside")).to_contain_text("the wall stands")
    expect(app.get_by_role("table", name="The real contact")).to_contain_text("to size")
    table.get_by_role("button", name="take steel 56 high, L5 inside").click()
    expect(rail(app, "Force")).to_contain_text("stopped")
    app.keyboard.press("z")
    expect(rail(app, "Force")).not_to_contain_text("stopped")


def test_a_pasted_list_is_seen_before_it_is_kept(app, run):
    open_stop(app, run, "part")
    app.get_by_role("button", name="write or paste the whole list").click()
    area = app.get_by_role("textbox", name="Outside steps")
    area.fill("Spigot: 84 h7 x 30 r0.8\nFlange: 118 q7 x 24")
    expect(app.get_by_role("alert")).to_contain_text("Line 2")
    area.fill("Spigot: 84 h7 x 30 r0.8\nFlange: 118 x 24")
    expect(rail(app, "Part")).to_contain_text("Ø 118 × 54")
    expect(app.get_by_role("alert")).to_have_count(0)
    assert not Edit.objects.exists()
    app.get_by_role("button", name="Keep the list").click()
    expect(app.get_by_text("draft 1, kept")).to_be_visible()
    assert Edit.objects.get().path == "part.profile.outside"


def drawing(points):
    made = ezdxf.new("R2010", units=0)
    made.modelspace().add_lwpolyline(points, close=True)
    made.layers.add("FRAME")
    made.modelspace().add_line((0, 90), (50, 90), dxfattribs={"layer": "FRAME"})
    out = io.StringIO()
    made.write(out)
    return out.getvalue()


def test_a_dxf_asks_is_looked_at_and_kept_and_a_bad_one_says_why(app, run, tmp_path):
    good, bad = tmp_path / "part.dxf", tmp_path / "bad.dxf"
    good.write_text(drawing([(0, 0), (0, 42), (40, 42), (40, 59), (54, 59), (54, 0)]))
    bad.write_text("this is no drawing")
    open_stop(app, run, "part")

    def give(file):
        with app.expect_file_chooser() as chooser:
            app.get_by_role("button", name="Read a DXF half-profile").click()
        chooser.value.set_files(file)

    give(bad)
    expect(app.get_by_role("alert")).to_contain_text("not a DXF drawing")
    give(good)
    choose(app, "Layer with the profile", "layer 0")
    choose(app, "Unit of the drawing", "millimetres")
    expect(app.get_by_role("region", name="Drawing of the part")).to_contain_text("Step 1: 84 x 40")
    app.get_by_role("button", name="Put it in place of the profile").click()
    expect(field(app, "Step 1")).to_have_value("84 x 40")
    with app.expect_download() as saved:
        app.get_by_role("link", name="save DXF").click()
    assert "LWPOLYLINE" in saved.value.path().read_text()


def test_a_jaw_set_is_lent_and_recut_on_its_page(app, run):
    go(app, "/shelf/jaw_set/set-7")
    life = app.get_by_role("region", name="Its life")
    life.get_by_role("button", name="Note it").click()
    expect(life).to_contain_text("this is needed here")
    life.get_by_label("Bored to, mm").fill("84.2")
    life.get_by_label("Taken off a side, mm").fill("0.1")
    life.get_by_role("button", name="Note it").click()
    expect(life.get_by_role("listitem").first).to_contain_text("re-cut, to 84.200")
    expect(field(app, "Bored to, mm").last).to_have_value("84.2")


def test_a_hexagon_bar_goes_into_a_collet_by_keyboard(app, run):
    new_run(app, "Plug", "Twin 2", "brass CuZn39Pb3")
    replace_first_step(app, "Collar: 22 f7 x 12 Ra 1.6")
    write_steps(app, "Hexagon: hex 24 x 14")
    tab(app, "Stock")
    choose(app, re.compile("slug Stock$"), "bar")
    choose(app, re.compile("Section$"), "hexagon")
    type_into(app, "Stock diameter, mm", "24").press("Enter")
    rail(app, "Sides").click()
    choose(app, "Made first", "collar end first")
    rail(app, "Hold").click()
    by_keys(app, "Chuck", "Twin 2 main col")
    expect(rail(app, "Hold")).to_contain_text("collet missing")
    by_keys(app, "Collet", "Collet 25")
    expect(rail(app, "Hold")).to_contain_text("hole is round and what it is to hold is hexagon")
    by_keys(app, "Collet", "Collet hex")
    expect(rail(app, "Hold")).to_contain_text("hexagon 24")
    expect(rail(app, "Jaws")).to_contain_text("nothing to bore")
    rail(app, "Jaws").click()
    expect(answer(app, "collet_bearing")).to_contain_text("30.00")
    app.get_by_role("button", name="From the front").click()
    drawing = app.get_by_role("region", name="Drawing")
    expect(drawing.locator('[data-role="jaw"]')).to_have_count(3)  # a collet of three segments


def by_keys(app, label, begins):
    """Choose by keys alone: open, type how it begins, Enter."""
    app.get_by_role("button", name=re.compile(f"{label}$")).focus()
    app.keyboard.press("Enter")
    expect(app.get_by_role("listbox")).to_be_visible()
    app.keyboard.type(begins, delay=30)
    app.keyboard.press("Enter")

"""The shelf's screens over HTTP: adding, changing, what moves, conflicts, removing, and CSV both ways."""

import csv
import io

import pytest

from server.apps.runs.models import Run
from server.apps.shelf.models import Chuck, JawBlank, Machine, Material, ShelfChange

CHUCK = "shelf/chuck/items/lathe-3-chuck"
LATHE = {"name": "Lathe 9", "max_rpm": "3000", "power_kw": "20 hp", "torque_nm": "90"}

TOOLS = ["insert", "groove_insert", "thread_insert", "holder", "drill", "blade"]
SHELF = ["machine", "chuck", "collet", "jaw_blank", "jaw_set", "ring", "plug", *TOOLS, "material"]


def see(client, path, units="metric"):
    return client.get(f"/api/{path}?units={units}").json()


def field(item, name):
    return next(f for f in item["fields"] if f["name"] == name)


def change(client, path, base=0, **fields):
    chart = fields.pop("chart", None)
    more = {"confirmed": fields.pop("confirmed", [])}
    return client.send(path, {"fields": fields, "chart": chart, "base_revision": base} | more, "patch")


def preview(client, kind="chuck", key="lathe-3-chuck", chart=None, units="metric", **fields):
    return client.send(f"shelf/{kind}/preview", {"key": key, "fields": fields, "chart": chart, "units": units})


def effects(client, kind="chuck", key="lathe-3-chuck", chart=None, units="metric", **fields):
    """The plans that a change would move."""
    path = f"shelf/{kind}/items/{key}/effects"
    return client.answer(path, {"fields": fields, "chart": chart, "units": units})[1]


def test_the_list_says_what_is_there_what_is_typical_and_what_is_taken(planner):
    kinds = {k["kind"]: k for k in see(planner, "shelf")}
    assert list(kinds) == SHELF
    lathe = next(i for i in kinds["machine"]["items"] if i["key"] == "lathe-3")
    assert (lathe["line"], lathe["runs"], lathe["typical"]) == ("4\u202f500\xa0rpm · 15\xa0kW", 1, 8)  # how it moves
    duplex = next(i for i in kinds["material"]["items"] if i["key"] == "1-4462")
    assert (duplex["runs"], duplex["typical"]) == (1, 11)
    assert len(kinds["material"]["items"]) == 18


def test_an_item_shows_every_field_with_unit_meaning_and_where_it_is_found(planner):
    item = see(planner, CHUCK)
    assert field(item, "max_grip_n") | {"value": 0} == {
        "name": "max_grip_n",
        "label": "Highest grip",
        "help": "Sum over all jaws",
        "unit": "kN",
        "kind": "quantity",
        "where": "The chuck's table of technical data; multiply a figure for one jaw by the jaws",
        "group": "Its force",
        "value": 0,
        "text": "108",
        "edit_text": "108",
        "options": None,
        "optional": False,
        "typical": False,
    }
    assert field(item, "guide_friction")["typical"] is True
    assert field(item, "machine")["value"] == "lathe-3"
    assert see(planner, CHUCK, "inch")["fields"][2]["unit"] == ""
    assert field(see(planner, CHUCK, "inch"), "max_grip_n")["text"].startswith("24\u202f279")
    assert [r["name"] for r in item["runs"]] == ["Seal carrier"]
    assert len(item["chart"]["curves"]) == 3
    assert item["chart"]["points"][0] == [4, 13]


def test_a_change_of_a_chuck_shows_which_plans_move_before_it_is_kept(demo, planner):
    before = demo.standing["headlines"]["cap"]
    status, seen = preview(planner, chart="4 13\n10 30\n20 60\n32 96")
    assert status == 200
    assert seen["chart"]["points"][1] == [10, 30]
    found = effects(planner, chart="4 13\n10 30\n20 60\n32 96")
    (moved,) = found["effects"]
    assert moved["name"] == "Seal carrier"
    assert moved["text"].startswith("cap 791\xa0rpm → ")
    assert found["takes"] == 1
    demo.refresh_from_db()
    assert (demo.standing["headlines"]["cap"], Chuck.objects.get(key="lathe-3-chuck").revision) == (before, 0)
    status, kept = change(planner, CHUCK, chart="4 13\n10 30\n20 60\n32 96")
    assert (status, kept["revision"]) == (200, 1)
    demo.refresh_from_db()
    assert f"{int(demo.standing['headlines']['cap']):,}".replace(",", "\u202f") in moved["text"]
    assert next(s for s in planner.plan(demo)["stops"] if s["name"] == "force")["answers"][0]["number"] in moved["text"]
    assert kept["changes"][0]["text"] == "Chart of grip against pressure 5 points → 4 points"


def test_a_weaker_chuck_stops_the_plan_and_the_bench_says_so(demo, planner):
    seen = effects(planner, chart="4 5\n32 40", max_grip_n="41")
    assert seen["effects"][0]["verdict"] == "stopped"
    assert "settled, then stopped" in seen["effects"][0]["text"]
    change(planner, CHUCK, chart="4 5\n32 40", max_grip_n="41")
    rows = planner.get("/api/runs").json()["rows"]
    assert [(r["drawing_number"], r["verdict"]) for r in rows] == [("LH-2041", "stopped"), ("LH-2215", "settled")]
    demo.refresh_from_db()
    assert demo.revision == 0  # the plan itself has not changed


def test_a_run_that_is_put_away_is_not_among_what_moves(demo, planner):
    planner.edit(demo, "put_away", value=True)
    assert effects(planner, max_rpm="3000") == {"effects": [], "takes": 0}


def test_bad_entries_are_answered_at_the_field_and_the_rest_still_shows(planner):
    status, seen = preview(planner, max_grip_n="lots", chart="4 13\n10 x", jaws="3")
    assert status == 200
    said = {e["field"]: e["message"] for e in seen["errors"]}
    assert set(said) == {"max_grip_n", "chart"}
    assert said["chart"].startswith("Row 2: ")
    assert field(seen, "max_grip_n")["text"] == "108"
    assert effects(planner, max_grip_n="lots") == {"effects": [], "takes": 0}
    status, answer = change(planner, CHUCK, max_grip_n="lots", nonsense="1", machine="lathe-99")
    assert (status, {e["field"] for e in answer["errors"]}) == (422, {"max_grip_n", "nonsense", "machine"})
    assert not ShelfChange.objects.exists()


def test_figures_that_contradict_each_other_are_told(planner):
    _, seen = preview(planner, "material", "c45", speed_low_m_min="400")
    assert {e["field"] for e in seen["errors"]} == {"speed_low_m_min", "speed_high_m_min"}
    assert change(planner, "shelf/material/items/c45", speed_low_m_min="400")[0] == 422
    _, seen = preview(planner, "jaw_blank", "l3-steel-50", bolt_head_mm="60")
    assert [e["field"] for e in seen["errors"]] == ["bolt_head_mm"]
    _, seen = preview(planner, chart="4 13\n10 12")
    assert [e["message"] for e in seen["errors"]] == ["Chart points must rise: higher pressure, no less grip."]


def test_a_new_item_keeps_what_is_typical_until_the_shop_replaces_it(planner):
    form = see(planner, "shelf/machine/new")
    assert (form["key"], field(form, "turret_stations")["text"], field(form, "max_rpm")["text"]) == ("", "12", "")
    status, made = planner.send("shelf/machine/items", {"fields": LATHE})
    assert (status, made["key"], field(made, "power_kw")["text"]) == (201, "lathe-9", "14.914")  # 20 hp
    assert field(made, "turret_stations")["typical"] is True
    _, same = change(planner, "shelf/machine/items/lathe-9", 1, turret_stations="12")
    assert field(same, "turret_stations")["typical"] is True
    _, kept = change(planner, "shelf/machine/items/lathe-9", 1, confirmed=["turret_stations"])
    assert field(kept, "turret_stations")["typical"] is False
    assert kept["changes"][0]["text"] == "figures confirmed as the shop's own"
    _, kept = change(planner, "shelf/material/items/c45", kc11="2300 N/mm2")
    assert (field(kept, "kc11")["typical"], field(kept, "mc")["typical"]) == (False, True)


def test_a_material_wears_its_tag_in_the_plan_until_its_cutting_figure_is_the_shops_own(demo, planner):
    def basis():
        return next(f["basis"] for f in planner.plan(demo)["stops"][0]["facts"] if f["name"] == "material")

    assert basis() == "typical"
    change(planner, "shelf/material/items/1-4462", confirmed=["kc11"])
    assert basis() == "book"


def test_a_new_chuck_and_a_blank_for_it(demo, planner):
    missing = planner.send("shelf/chuck/items", {"fields": {"name": "Spare"}})[1]["errors"]
    assert {"machine", "max_grip_n", "jaws", "body_diameter_mm"} <= {e["field"] for e in missing}
    fields = {
        "name": "Spare chuck",
        "machine": "lathe-3",
        "jaws": "3",
        "max_rpm": "4000",
        "max_grip_n": "90 kN",
        "max_pressure_bar": "30",
        "reference_height_mm": "50",
        "guide_length_mm": "80",
        "body_diameter_mm": "210",
        "body_length_mm": "84",
        "guide_to_jaw_base_mm": "12",
        "jaw_stroke_mm": "5",
        "serration_pitch_mm": "1.5",
    }
    status, made = planner.send("shelf/chuck/items", {"fields": fields, "chart": "5 15\n30 90"})
    assert (status, made["key"], len(made["chart"]["curves"])) == (201, "spare-chuck", 3)
    blank = {
        "name": "Spare blank",
        "metal": "steel",
        "width_mm": "40",
        "length_mm": "75",
        "height_mm": "50",
        "density_kg_dm3": "7.85",
        "bolt_head_mm": "20",
        "face_radius_mm": "35",
        "chucks": ["spare-chuck"],
    }
    assert planner.send("shelf/jaw_blank/items", {"fields": blank})[0] == 201
    plan = planner.edit(demo, "setups.s1.chuck", value="spare-chuck")[1]
    hold = next(s for s in plan["stops"] if s["name"] == "hold")
    assert "does not fit Spare chuck" in hold["line"]
    demo.refresh_from_db()
    plan = planner.edit(demo, "setups.s1.jaw_blank", value="spare-blank")[1]
    # Honest about what the chuck's record lacks.
    assert "weigh them" in next(s for s in plan["stops"] if s["name"] == "force")["line"]


def test_a_name_stands_for_one_thing(planner):
    assert (
        planner.send("shelf/machine/items", {"fields": LATHE | {"name": "lathe 3"}})[1]["errors"][0]["field"] == "name"
    )
    assert change(planner, "shelf/machine/items/lathe-5", name="Lathe 3")[0] == 422
    keys = [planner.send("shelf/machine/items", {"fields": LATHE | {"name": n}})[1]["key"] for n in ("A b", "A-b", "Ж")]
    assert keys == ["a-b", "a-b-2", "machine"]


def test_changes_of_different_fields_merge_and_of_the_same_field_conflict(planner, signed_in):
    owner = signed_in("owner")
    assert change(planner, CHUCK, max_rpm="4400")[0] == 200
    assert change(owner, CHUCK, jaw_stroke_mm="5.4")[0] == 200  # from the same base, another field
    status, said = change(owner, CHUCK, max_rpm="4300")
    assert (status, said["yours"], said["theirs"], said["field"]) == (
        409,
        "4\u202f300\xa0rpm",
        "4\u202f400\xa0rpm",
        "max_rpm",
    )
    assert change(owner, CHUCK, max_rpm="4400")[0] == 200  # the same again is no conflict
    assert change(owner, CHUCK, 2, max_rpm="4300")[0] == 200
    assert field(see(planner, CHUCK), "max_rpm")["text"] == "4\u202f300"


def test_what_is_taken_stays_and_what_is_not_can_go(demo, planner):
    status, said = planner.send(CHUCK, None, "delete")
    assert (status, "taken by Seal carrier (LH-2041)" in said["title"]) == (409, True)
    status, said = planner.send("shelf/machine/items/lathe-5", None, "delete")
    assert (status, "belong to it" in said["title"]) == (409, True)
    assert planner.send("shelf/material/items/c45", None, "delete")[0] == 204
    assert planner.send("shelf/material/items/c45", None, "delete")[0] == 404
    blanks = JawBlank.objects.count()
    assert planner.send("shelf/jaw_blank/items/l5-steel-56", None, "delete")[0] == 204
    assert planner.send("shelf/chuck/items/lathe-5-chuck", None, "delete")[0] == 409  # a jaw set was bored on it
    assert planner.send("shelf/jaw_set/items/set-15", None, "delete")[0] == 204
    assert planner.send("shelf/chuck/items/lathe-5-chuck", None, "delete")[0] == 204
    assert (Chuck.objects.count(), JawBlank.objects.count()) == (4, blanks - 1)


def test_an_unknown_kind_or_item_is_told(planner):
    answer = planner.get("/api/shelf/spanner/new")
    assert (answer.status_code, answer.json()["title"]) == (404, "There is no such shelf.")
    assert planner.get("/api/shelf/chuck/items/nothing").status_code == 404
    assert planner.get("/api/shelf/chuck/items/a%00b").status_code == 400


def send_file(client, kind, text, keep="none"):
    if keep == "none":
        return client.answer(f"shelf/{kind}/file/look", {"text": text})
    return client.send(f"shelf/{kind}/file", {"text": text, "keep": keep})


@pytest.mark.parametrize("kind", SHELF)
def test_what_is_written_to_a_file_is_read_back_the_same(kind, planner):
    answer = planner.get(f"/api/shelf/{kind}/file")
    assert answer["Content-Disposition"] == f'attachment; filename="{kind}.csv"'
    text = answer.content.decode()
    status, back = send_file(planner, kind, text, "all")
    assert status == 200
    assert {line["outcome"] for line in back["lines"]} == {"same"}
    assert back["kept"] == 0
    assert not ShelfChange.objects.exists()


def test_a_file_from_another_shop_fills_an_empty_shelf(demo, planner):
    text = planner.get("/api/shelf/material/file").content.decode()
    Run.objects.all().delete()
    rows = sorted(Material.objects.values_list("key", "kc11", "name"))
    Material.objects.all().delete()
    status, answer = send_file(planner, "material", text, "all")
    assert (status, answer["kept"], answer["bad"]) == (200, 18, 0)
    assert sorted(Material.objects.values_list("key", "kc11", "name")) == rows


FILE = "key,name,max_rpm,power_kw,torque_nm\nlathe-3,Lathe 3,4400,15,180\n,New one,3000,12,100\n,Bad one,fast,,100\n"


def test_each_bad_row_is_answered_and_good_ones_are_kept_only_if_asked(planner):
    _, answer = send_file(planner, "machine", FILE)
    assert [(x["line"], x["outcome"]) for x in answer["lines"]] == [(2, "changed"), (3, "new"), (4, "bad")]
    assert answer["lines"][2]["messages"][0].startswith("Top speed: “fast” is not a figure")
    assert any("Spindle power is missing" in m for m in answer["lines"][2]["messages"])
    for keep in ("none", "all"):
        assert send_file(planner, "machine", FILE, keep)[1]["kept"] == 0
        assert not Machine.objects.filter(name="New one").exists()
        assert Machine.objects.get(key="lathe-3").max_rpm == 4500
    assert send_file(planner, "machine", FILE, "good")[1]["kept"] == 2
    assert Machine.objects.get(name="New one").power_kw == 12
    assert Machine.objects.get(key="lathe-3").max_rpm == 4400
    assert not Machine.objects.filter(name="Bad one").exists()


@pytest.mark.parametrize(
    ("text", "says"),
    [
        ("", "empty"),
        ("\n\n", "empty"),
        ("name,colour\nx,red", "“colour”"),
        ("name,name\nx,y", "one twice"),
        ('name\n"open', "not a CSV file"),
        ("name\n" + "x\n" * 501, "500 lines"),
    ],
)
def test_a_file_that_cannot_be_read_is_told(text, says, planner):
    status, answer = send_file(planner, "machine", text, "good")
    assert (status, answer["errors"][0]["field"]) == (422, "text")
    assert says in answer["errors"][0]["message"]


def test_files_come_from_every_spreadsheet(planner):
    for text in (FILE.replace(",", ";"), FILE.replace(",", "\t"), "\ufeff" + FILE.replace("\n", "\r\n")):
        assert [x["outcome"] for x in send_file(planner, "machine", text)[1]["lines"]] == ["changed", "new", "bad"]
    short = "name,max_rpm\nLathe 3"
    assert send_file(planner, "machine", short)[1]["lines"][0]["messages"] == [
        "This line has 1 cells; the first line has 2."
    ]


RUN = ("=1+1", "+1", "-1", "@now", "＝1+1", "＋1", "－1", "＠now")
ODD = (*RUN, "'=1", "'", "''", "'tis", "a=1", "a'b", '"', "a;b,c", "＝＝")


def test_a_name_that_a_spreadsheet_would_compute_is_written_as_text_and_comes_back_as_it_was(planner):
    for name in ODD:
        assert planner.send("shelf/machine/items", {"fields": LATHE | {"name": name}})[0] == 201, name
    text = planner.get("/api/shelf/machine/file").content.decode()
    rows = {r["name"] for r in csv.DictReader(io.StringIO(text))}
    assert {f"'{name}" for name in RUN} <= rows
    assert not any(name.startswith(RUN_SIGNS) for name in rows)
    back = send_file(planner, "machine", text)[1]
    assert {line["outcome"] for line in back["lines"]} == {"same"}
    assert {m.name for m in Machine.objects.all()} >= set(ODD)


RUN_SIGNS = ("=", "+", "-", "@", "＝", "＋", "－", "＠")
BINARY = (
    "PK\x03\x04\x14secret\x08,name",
    "name,max_rpm\n\x1bsecret,3000",
    "\x89PNG\r\n\x1a\nsecret",
    "name\nsec\ufffdret",
    "\x7fELFsecret",
)


@pytest.mark.parametrize("text", BINARY)
def test_a_file_that_is_no_text_is_refused_and_not_quoted(text, planner):
    for place in ("shelf/machine/file", "notebook/file"):
        for answer in (planner.answer(f"{place}/look", {"text": text}), planner.send(place, {"text": text})):
            assert (answer[0], answer[1]["errors"][0]["field"]) == (422, "text")
            assert "This is no text file" in answer[1]["errors"][0]["message"]
            assert "secret" not in str(answer)


def test_unknown_columns_are_quoted_shortly(planner):
    names = ",".join(f"column-{i}-{'x' * 500}" for i in range(40))
    status, answer = planner.send("shelf/machine/file", {"text": f"{names}\n1"})
    said = answer["errors"][0]["message"]
    assert (status, "and 37 more" in said, said.count("x" * 20) <= 6, len(said) < 1500) == (422, True, True, True)


def test_looking_at_a_long_file_asks_the_database_a_few_times_and_writes_nothing(
    planner, demo, django_assert_max_num_queries
):
    lines = [f"long-{i},Long drill {i},{5 + i / 100},60,P10-P30,0.1,0.2" for i in range(400)]
    lines += ["long-400,Long drill 399,5,60,P10-P30,0.1,0.2", "long-401,Long drill 401,x,60,P10-P30,0.1,0.2"]
    text = "\n".join(["key,name,DC,LU,application,feed_min,feed_max", *lines])
    before = ShelfChange.objects.count()
    planner.get("/api/shelf")  # what is kept of the shelf is read once
    with django_assert_max_num_queries(45):  # of them 30 for asking, answering and reading the question
        status, answer = send_file(planner, "drill", text)
    assert (status, answer["kept"], answer["bad"]) == (200, 0, 2)
    assert [a["outcome"] for a in answer["lines"][:400]] == ["new"] * 400
    assert answer["lines"][400]["messages"] == ["Name: There is a drill of this name already."]
    assert "not a figure" in answer["lines"][401]["messages"][0]
    assert ShelfChange.objects.count() == before


def test_a_look_says_what_keeping_then_does(planner, demo):
    text = planner.get("/api/shelf/ring/file").content.decode()
    head, first, *rest = text.splitlines()
    cells = first.split(",")
    names = head.split(",")
    cells[names.index("max_bar")] = "9"
    new = ["", "Ring Q", *["" for _ in names[2:]]]
    new[names.index("inner_mm")], new[names.index("outer_mm")] = "70", "110"
    file = "\n".join([head, ",".join(cells), *rest, ",".join(new)])
    looked = [a["outcome"] for a in send_file(planner, "ring", file)[1]["lines"]]
    kept = [a["outcome"] for a in send_file(planner, "ring", file, "all")[1]["lines"]]
    assert looked == kept == ["changed", *["same"] * len(rest), "new"]


def test_a_line_without_a_key_changes_the_item_of_its_name(planner, demo):
    status, answer = send_file(planner, "machine", "name,power_kw\nlathe 3,16", "all")
    assert (status, [a["outcome"] for a in answer["lines"]]) == (200, ["changed"])
    assert Machine.objects.get(key="lathe-3").power_kw == 16

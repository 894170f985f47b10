"""Tools on the shelf: forms, designations refused with the position, files by property codes."""

import csv
import io

import pytest

from calc.data.tools import starting_tools
from server.apps.shelf.models import Tool

TOOLS = ["insert", "groove_insert", "thread_insert", "holder", "drill", "blade"]


def fields(item):
    return {f["name"]: f for f in item["fields"]}


def test_the_starting_tools_are_there_typical_and_stocked_as_the_demo_says(planner, demo):
    kinds = {k["kind"]: k["items"] for k in planner.get("/api/shelf").json()}
    assert {k: len(kinds[k]) for k in TOOLS} == {k: len(rows) for k, rows in starting_tools().items()}
    insert = planner.get("/api/shelf/insert/items/cnmg120412-rough-stainless").json()
    assert fields(insert)["stock"]["text"] == "40"
    assert fields(insert)["feed_max"]["typical"]
    assert not fields(insert)["stock"]["typical"]


@pytest.mark.parametrize(
    ("kind", "given", "field", "says"),
    [
        ("insert", {"code": "CNXG 120408"}, "code", "Position 3"),
        ("insert", {"application": "Q10"}, "application", "is no range"),
        ("insert", {"feed_min": "0.9"}, "feed_max", "cannot end below"),
        ("holder", {"side": "inside", "reach_mm": ""}, "reach_mm", "reach"),
        ("thread_insert", {"pitch_max_mm": "3"}, "pitch_max_mm", "full profile has one pitch"),
        ("thread_insert", {"angle_deg": "47"}, "angle_deg", "one of these angles"),
        ("drill", {"feed_max": "0.001"}, "feed_max", "below the least feed"),
        ("blade", {"reach_mm": "0"}, "reach_mm", "above 0"),
    ],
)
def test_what_is_wrong_is_told_at_its_field_and_nothing_is_kept(planner, demo, kind, given, field, says):
    row = Tool.objects.filter(kind=kind).order_by("key").first()
    status, told = planner.send(f"shelf/{kind}/items/{row.key}", {"fields": given, "base_revision": 0}, "patch")
    assert status == 422
    assert says in " ".join(e["message"] for e in told["errors"] if e["field"] == field)
    assert Tool.objects.get(pk=row.pk).figures == row.figures


def test_a_new_tool_is_put_on_the_shelf_and_offered(planner, demo):
    given = {
        "name": "my finisher",
        "code": "VCGT 110302",
        "application": "N05-N25",
        "feed_min": "0.02",
        "feed_max": "0.1",
        "depth_min": "0.1",
        "depth_max": "1",
    }
    status, item = planner.send("shelf/insert/items", {"fields": given})
    assert status == 201
    assert item["key"] == "my-finisher"
    assert Tool.objects.get(key="my-finisher").figures["code"] == "VCGT 110302"
    again, told = planner.send("shelf/insert/items", {"fields": given})
    assert again == 422
    assert "of this name already" in told["errors"][0]["message"]


@pytest.mark.parametrize(
    ("kind", "codes"),
    [("drill", {"DC", "LU", "SIG"}), ("holder", {"KAPR", "H", "HAND"}), ("groove_insert", {"CW", "RE"})],
)
def test_files_name_their_columns_by_property_codes_and_come_back_the_same(planner, demo, kind, codes):
    text = planner.get(f"/api/shelf/{kind}/file").content.decode()
    assert codes <= set(next(csv.reader(io.StringIO(text))))
    answer = planner.send(f"shelf/{kind}/file", {"text": text, "keep": "all"})[1]
    assert {x["outcome"] for x in answer["lines"]} == {"same"}


def test_both_spellings_are_read_and_bad_rows_are_answered(planner, demo):
    text = (
        "name,DC,reach_mm,application,feed_min,feed_max\nØ9,9,45,P10-P30,0.08,0.2\n"
        "Ø9.5,nine,45,P10-P30,0.08,0.2\nØ11,11,55,X10,0.08,0.2\n"
    )
    looked = planner.answer("shelf/drill/file/look", {"text": text})[1]
    assert [x["outcome"] for x in looked["lines"]] == ["new", "bad", "bad"]
    assert looked["lines"][1]["messages"][0].startswith("Diameter")
    assert "is no range" in looked["lines"][2]["messages"][0]
    assert planner.send("shelf/drill/file", {"text": text, "keep": "all"})[1]["kept"] == 0
    assert planner.send("shelf/drill/file", {"text": text, "keep": "good"})[1]["kept"] == 1
    assert Tool.objects.get(name="Ø9").figures["diameter_mm"] == 9
    twice = "name,DC,diameter_mm\na,1,2\n"
    assert planner.answer("shelf/drill/file/look", {"text": twice})[0] == 422


def test_tools_are_found_by_their_words(planner, demo):
    found = planner.get("/api/find?words=rhombic+carbide").json()
    assert planner.get("/api/find?words=drill+indexable").json()[0]["kind"] == "drill"
    assert all(h["kind"] in ("holder", "insert") for h in found)

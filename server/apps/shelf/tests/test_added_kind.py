"""A kind of tool added through its record alone is on the shelf: list, form, file, find box, history and snapshot."""

from dataclasses import dataclass
from typing import Annotated

import pytest

from calc.fields import Group, Quantity, fields_of
from calc.item import Item
from calc.item_kind import ItemKind
from calc.shelf.all_kinds import KINDS
from calc.tools.all_kinds import TOOL_KINDS
from calc.tools.library import Library
from server.apps.shelf.queries import snapshot


@dataclass(frozen=True)
class Tap(Item):
    __hash__ = Item.__hash__

    pitch_mm: Annotated[float, Quantity("Pitch", "mm", "Of its thread", above=0, high=10, where="On its shank")]


TAP = ItemKind(
    name="tap",
    plural="taps",
    title="Taps",
    noun="tap",
    item=Tap,
    line=lambda t, _: f"pitch {t.pitch_mm:g}",
    groups={"name": "What it is"},
    codes={"pitch_mm": "TP"},
)


@dataclass(frozen=True, eq=False)
class WithTaps(Library):
    taps: Annotated[tuple[Tap, ...], Group("Taps")] = ()


@pytest.fixture
def _added(monkeypatch):
    monkeypatch.setitem(KINDS, "tap", TAP)
    monkeypatch.setitem(TOOL_KINDS, "tap", TAP)
    monkeypatch.setattr(snapshot, "Library", WithTaps)
    monkeypatch.setattr(snapshot, "_kept", None)


@pytest.mark.usefixtures("_added")
def test_it_is_put_on_the_shelf_listed_found_written_and_read_back(demo, planner):
    form = planner.get("/api/shelf/tap/new").json()
    assert [(f["label"], f["unit"], f["where"]) for f in form["fields"][1:]] == [("Pitch", "mm", "On its shank")]
    refused = planner.send("shelf/tap/items", {"fields": {"name": "M8", "pitch_mm": "12"}})
    assert (refused[0], refused[1]["errors"][0]["field"]) == (422, "pitch_mm")
    assert planner.send("shelf/tap/items", {"fields": {"name": "M8 spiral", "pitch_mm": "1.25"}})[0] == 201
    listed = {k["kind"]: k for k in planner.get("/api/shelf").json()}["tap"]
    assert (listed["title"], [i["line"] for i in listed["items"]]) == ("Taps", ["pitch 1.25"])
    assert planner.get("/api/find", {"words": "tap spiral"}).json()[0]["detail"] == "tap · on the shelf"
    written = planner.get("/api/shelf/tap/file").content.decode()
    assert written.splitlines() == ["key,name,TP", "m8-spiral,M8 spiral,1.25"]
    again = written.replace("1.25", "1.5")
    assert planner.send("shelf/tap/file", {"text": again, "keep": "all"})[1]["kept"] == 1
    changed = planner.get("/api/shelf/tap/items/m8-spiral").json()["changes"][0]["text"]
    assert changed == "Pitch 1.25 mm → 1.5 mm".replace(" mm", "\xa0mm")
    assert [t.pitch_mm for t in snapshot.current().tools.taps] == [1.5]
    assert fields_of(WithTaps)[-1].name == TAP.plural

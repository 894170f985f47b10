"""Application ranges, tools as shelf items, and the columns of their files."""

import dataclasses

import pytest

from calc.data.tools import starting_tools
from calc.errors import CalcError
from calc.fields import fields_of
from calc.reading import write
from calc.shelf.all_kinds import KINDS
from calc.tests.tools.shelf import starting_library
from calc.tools.all_kinds import TOOL_KINDS
from calc.tools.kinds.groove_insert import GrooveInsert
from calc.tools.kinds.insert import Insert
from calc.tools.library import Library, Tool
from calc.tools.ranges import read_range

LIB = starting_library()


@pytest.mark.parametrize(
    ("text", "found"),
    [
        ("P10-P30 M20", {"P": (10, 30), "M": (20, 20)}),
        ("p10-30, k05", {"P": (10, 30), "K": (5, 5)}),
        ("S10–S30", {"S": (10, 30)}),
        ("N05; H15-H25", {"N": (5, 5), "H": (15, 25)}),
    ],
)
def test_a_range_as_iso_513_writes_it(text, found):
    assert read_range(text) == found


@pytest.mark.parametrize(
    ("text", "says"),
    [
        ("", "is no range"),
        ("X10", "is no range"),
        ("P5", "is no range"),
        ("P30-P10", "from 01, hard, to 50"),
        ("P10-P60", "from 01"),
        ("P00", "from 01"),
        ("P10-M20", "is no range"),
    ],
)
def test_what_is_no_range_is_told(text, says):
    with pytest.raises(CalcError, match=says):
        read_range(text)


@pytest.mark.parametrize("kind", KINDS.values(), ids=lambda k: k.name)
def test_every_kind_shows_all_that_its_value_holds_under_headings_that_are_used(kind):
    held = {link.field for link in kind.links if link.field} | {"key", "typical", kind.part}
    own = {f.name for f in fields_of(kind.item)} - held
    nested = next((f.nested for f in fields_of(kind.item) if f.name == kind.part), None)
    parts = {f.name for f in fields_of(nested)} - {kind.chart} if nested else set()
    assert kind.fields[0].name == "name"
    assert {f.name for f in kind.fields} == own | parts
    assert {f.group for f in kind.fields} == set(kind.groups.values())
    assert set(kind.order) <= own | parts
    assert {link.kind for link in kind.links} <= set(KINDS)


@pytest.mark.parametrize("kind", TOOL_KINDS.values(), ids=lambda k: k.name)
def test_every_starting_item_survives_writing_and_reading(kind):
    for row in starting_tools()[kind.name]:
        item = kind.read(row)
        assert kind.read(write(item)) == item


def test_every_kind_of_tool_has_its_place_in_a_library():
    assert {k.plural for k in TOOL_KINDS.values()} == {f.name for f in fields_of(Library)}
    assert all(LIB.of_kind(kind) for kind in TOOL_KINDS)
    assert LIB.with_kind("drill", ()).drills == ()
    assert LIB.with_kind("drill", ()).blades == LIB.blades


@pytest.mark.parametrize("kind", KINDS.values(), ids=lambda k: k.name)
def test_columns_go_both_ways_and_no_two_are_one(kind):
    names = [f.name for f in kind.fields]
    columns = [kind.column(n) for n in names]
    assert len(set(kind.columns)) == len(kind.columns)
    assert [kind.field_of(c) for c in columns] == names
    assert [kind.field_of(n) for n in names] == names
    assert set(kind.codes) <= set(names)


def test_a_line_tells_what_tells_it_from_the_next():
    drill, ring = KINDS["drill"], KINDS["ring"]
    feeds = {"application": "P10", "feed_min": 0.1, "feed_max": 0.2}
    made = drill.read({"key": "d", "name": "d", "diameter_mm": 13, "reach_mm": 65, **feeds})
    assert drill.line(made, {}) == "Ø13 · 65 mm deep · none in stock"
    bare = {"key": "r", "name": "r", "inner_mm": 40, "outer_mm": 90}
    limited = ring.line(ring.read({**bare, "max_bar": 12, "max_rpm": 800}), {}).replace("\xa0", " ")
    assert limited == "Ø40 / Ø90 · 12.0 bar, 800 rpm"
    assert ring.line(ring.read(bare), {}) == "Ø40 / Ø90 · no limits on record"


def test_an_insert_goes_where_its_seat_is():
    found = {t.carrier.seat for t in LIB.turning if t.edge.code == "CNMG 120408"}
    assert found == {"CN 1204"}
    # In ANSI figures it sits in the same seat.
    ansi = dataclasses.replace(LIB.inserts[0], code="CNMG 432")
    assert ansi.seat == "CN 1204"


def test_small_letters_of_a_seat_are_the_same_seat():
    insert = LIB.groove_inserts[0]
    holder = next(h for h in LIB.holders if h.seat == insert.seat)
    library = Library(groove_inserts=(insert,), holders=(dataclasses.replace(holder, seat=holder.seat.lower()),))
    assert len(library.grooving) == 1
    assert library.tool(library.grooving[0].key) == library.grooving[0]


def test_a_parting_insert_sits_in_blades_and_a_grooving_one_does_not():
    part, groove = (next(i for i in LIB.groove_inserts if i.use == use) for use in ("part", "groove"))
    assert all(t.edge.use != "groove" for t in LIB.parting)
    assert all(t.edge.use != "part" for t in LIB.grooving)
    both = GrooveInsert("b", "both", part.seat, 3.0, "P10-P30", 0.05, 0.15, use="both")
    library = Library(groove_inserts=(both,), blades=LIB.blades, holders=LIB.holders)
    assert library.parting
    assert groove.seat != part.seat


def test_a_tools_key_names_both_and_its_name_tells_both():
    tool = LIB.turning[0]
    assert tool.key == f"{tool.edge.key}/{tool.carrier.key}"
    assert tool.name == f"{tool.edge.name} on {tool.carrier.name}"
    assert Tool(LIB.drills[0]).key == LIB.drills[0].key
    assert LIB.tool("no-such") is None
    assert LIB.tool(f"{LIB.inserts[0].key}/no-such") is None
    assert LIB.tool(f"{LIB.drills[0].key}/{LIB.holders[0].key}") is None  # a drill carries itself


@pytest.mark.parametrize(
    ("changed", "field"),
    [
        ({"code": "CNXG 120408"}, "code"),
        ({"application": "Q1"}, "application"),
        ({"feed_max": 0.01}, "feed_max"),
        ({"depth_max": 0.01}, "depth_max"),
    ],
)
def test_an_insert_that_contradicts_itself_is_refused_at_its_field(changed, field):
    with pytest.raises(CalcError) as refused:
        dataclasses.replace(LIB.inserts[0], **changed)
    assert [e.field for e in refused.value.errors] == [field]


def test_the_window_of_a_larger_corner_is_wider():
    by_corner = {
        i.code: i for i in LIB.inserts if i.code.startswith("CNMG") and "steel" in i.key and i.purpose != "medium"
    }
    small, large = by_corner["CNMG 120404"], by_corner["CNMG 120412"]
    assert small.feed_max < large.feed_max
    assert isinstance(small, Insert)
    assert small.breaker.feed_max == small.feed_max

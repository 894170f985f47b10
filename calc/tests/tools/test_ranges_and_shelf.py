"""Application ranges, tools as shelf items, and the columns of their files."""

import dataclasses

import pytest

from calc.data.tools import starting_tools
from calc.errors import CalcError
from calc.fields import fields_of
from calc.reading import read, write
from calc.shelf.items import GROUPS, KINDS, NOUNS, TITLES, item_fields
from calc.shelf.properties import CODES, column, field_of
from calc.tests.tools.shelf import starting_library
from calc.tools.library import Library, Tool
from calc.tools.ranges import read_range
from calc.tools.records import TOOL_KINDS, GrooveInsert, Insert

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


@pytest.mark.parametrize("kind", TOOL_KINDS)
def test_every_kind_has_its_title_noun_groups_and_form(kind):
    assert KINDS[kind] is TOOL_KINDS[kind]
    assert TITLES[kind]
    assert NOUNS[kind]
    rows = item_fields(kind)
    assert rows[0].name == "name"
    assert {f.name for f in rows} == {f.name for f in fields_of(TOOL_KINDS[kind])} - {"key"}
    assert {r.group for r in rows} == set(GROUPS[kind].values())


@pytest.mark.parametrize("kind", TOOL_KINDS)
def test_every_starting_item_survives_writing_and_reading(kind):
    for row in starting_tools()[kind]:
        item = read(TOOL_KINDS[kind], row)
        assert read(TOOL_KINDS[kind], write(item)) == item


@pytest.mark.parametrize("kind", CODES)
def test_columns_go_both_ways_and_no_two_are_one(kind):
    names = [f.name for f in item_fields(kind)]
    columns = [column(kind, n) for n in names]
    assert len(set(columns)) == len(columns)
    assert [field_of(kind, c) for c in columns] == names
    assert [field_of(kind, n) for n in names] == names
    assert set(CODES[kind]) <= set(names)


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

"""The record of a kind: forms, rows and files go through it and come back the same."""

import dataclasses

import pytest
from hypothesis import given
from hypothesis import strategies as st

from calc.data.materials import starting_materials
from calc.data.tools import starting_tools
from calc.errors import CalcError
from calc.shelf.all_kinds import KINDS
from calc.shelf.chuck import CHUCK
from calc.shelf.material import MATERIAL
from calc.shelf.ring import RING, Ring
from calc.tests.plans import CHUCK as ONE
from calc.tools.kinds.drill import DRILL


@pytest.mark.parametrize("kind", starting_tools())
def test_what_a_form_holds_of_a_tool_makes_the_same_tool(kind):
    record = KINDS[kind]
    for row in starting_tools()[kind]:
        tool = record.read(row)
        assert record.read({"key": tool.key, **record.flat(tool)}) == tool
        assert record.chart_of(tool) == []


def test_a_chucks_force_stands_beside_its_other_figures_and_its_chart_apart():
    flat = CHUCK.flat(ONE)
    assert flat["max_grip_n"] == ONE.force.max_grip_n
    assert "chart" not in flat
    assert CHUCK.chart_of(ONE) == [(5, 12_500), (40, 100_000)]
    assert CHUCK.read({"key": ONE.key, **flat}, CHUCK.chart_of(ONE)) == ONE


def test_materials_come_back_as_they_were_but_for_who_says_so():
    for row in starting_materials():
        material = MATERIAL.read(row)
        assert MATERIAL.read({"key": material.key, **MATERIAL.flat(material)}) == material
        assert "typical" not in MATERIAL.flat(material)


def test_fields_stand_in_the_order_of_a_data_sheet_under_their_headings():
    assert [f.name for f in CHUCK.fields[:4]] == ["name", "closes", "spindle", "jaws"]
    assert [f.group for f in CHUCK.fields[:4]] == ["The chuck"] * 4
    assert CHUCK.form_field("max_grip_n").group == "Its force"
    assert CHUCK.form_field("machine") is None
    assert CHUCK.link("machine").kind == "machine"
    assert CHUCK.link("max_grip_n") is None


def test_what_may_be_left_empty_is_told():
    assert RING.form_field("max_bar").optional
    assert not RING.form_field("inner_mm").optional
    assert KINDS["machine"].form_field("feed_word").optional  # words may be empty where figures may not
    assert not KINDS["machine"].form_field("power_kw").optional


def test_a_chart_that_falls_is_refused_under_the_charts_own_name():
    flat = {"key": "c", **CHUCK.flat(ONE)}
    with pytest.raises(CalcError) as refused:
        CHUCK.read(flat, [(5, 20_000), (40, 10_000)])
    assert {e.field for e in refused.value.errors} == {"chart"}
    with pytest.raises(CalcError) as refused:
        CHUCK.read(flat | {"max_grip_n": -1, "jaws": 40}, CHUCK.chart_of(ONE))
    assert {e.field for e in refused.value.errors} == {"max_grip_n", "jaws"}


@given(st.floats(1, 900), st.floats(1, 900))
def test_a_ring_is_one_only_where_it_has_metal(inner, outer):
    row = {"key": "r", "name": "r", "inner_mm": inner, "outer_mm": outer}
    if inner < outer:
        assert RING.read(row) == Ring("r", "r", inner, outer)
        return
    with pytest.raises(CalcError) as refused:
        RING.read(row)
    assert [e.field for e in refused.value.errors] == ["inner_mm"]


def test_a_file_calls_a_field_by_its_code_and_takes_it_by_either():
    assert DRILL.columns[:3] == ["key", "name", "DC"]
    assert (DRILL.field_of("DC"), DRILL.field_of("diameter_mm"), DRILL.field_of("feed_min")) == (
        "diameter_mm",
        "diameter_mm",
        "feed_min",
    )
    assert CHUCK.columns[-2:] == ["machine", "chart"]
    assert RING.columns[-1] == "chucks"


def test_two_records_of_one_name_would_be_seen():
    records = list(KINDS.values())
    for shown in ("name", "title", "noun"):
        assert len({getattr(r, shown) for r in records}) == len(records)
    assert all(dataclasses.is_dataclass(r.item) for r in records)

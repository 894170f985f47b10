import math

import pytest

from calc.catalog import CALCULATORS
from calc.chuck.book import ChuckForce
from calc.chuck.grip import ChuckGripInput
from calc.chuck.speed import StackPart
from calc.cuts.turning import CutInput
from calc.describing import describe, json_schema
from calc.errors import Bounds, CalcError, OutOfRange
from calc.fields import fields_of
from calc.reading import read, write
from calc.tests.plans import DOCUMENT


def errors(call):
    with pytest.raises(CalcError) as refused:
        call()
    return {e.field: e.message for e in refused.value.errors}


def test_every_problem_is_named_by_its_dotted_field():
    book = {"max_grip_n": -5, "max_pressure_bar": 30, "reference_height_mm": 60, "guide_length_mm": "abc", "odd": 1}
    found = errors(lambda: read(ChuckGripInput, {"grip_height_mm": 60, "chuck": book}))
    assert set(found) == {"pressure_bar", "chuck.max_grip_n", "chuck.guide_length_mm", "chuck.odd"}
    assert "missing" in found["pressure_bar"]


def test_lists_name_the_row():
    points = [{"pressure_bar": 5, "grip_n": 1}, {"pressure_bar": 9}]
    base = {"max_grip_n": 1, "max_pressure_bar": 1, "reference_height_mm": 1, "guide_length_mm": 1}
    assert "chart.1.grip_n" in errors(lambda: read(ChuckForce, {**base, "chart": points}))


@pytest.mark.parametrize("value", [math.nan, math.inf, -math.inf, 10**400, True, None, [], {}, "\ud800"])
def test_what_is_no_number_is_refused(value):
    assert "mass_kg" in errors(lambda: read(StackPart, {"mass_kg": value, "radius_mm": 1}))


def test_strings_are_read_as_written_with_bare_numbers_in_the_core_unit():
    assert read(StackPart, {"mass_kg": "2 lb", "radius_mm": "1 7/16 in"}) == StackPart(0.90718474, 36.5125)
    assert read(StackPart, {"mass_kg": "2", "radius_mm": "50"}) == StackPart(2, 50)


def test_a_range_is_enforced_in_python_too_and_carries_its_bounds():
    with pytest.raises(CalcError) as refused:
        StackPart(-1, 10)
    assert refused.value.errors[0].field == "mass_kg"
    direct = OutOfRange("mass_kg", -1, Bounds(0, 500, "kg"))
    assert (direct.value, direct.low, direct.high, direct.unit) == (-1, 0, 500, "kg")
    with pytest.raises(CalcError):
        StackPart(math.nan, 10)


def test_bounds_are_in_or_out_as_declared():
    StackPart(0, 0)
    StackPart(500, 2000)
    with pytest.raises(CalcError):
        StackPart(500.001, 1)
    with pytest.raises(CalcError):
        CutInput(0, 0.2, 1, 0.8, 2000, 0.2, speed_m_min=100)  # a diameter is above zero


def test_a_document_survives_writing_and_reading():
    assert read(type(DOCUMENT), write(DOCUMENT)) == DOCUMENT


@pytest.mark.parametrize("name", CALCULATORS)
def test_the_declaration_serves_list_and_schema(name):
    calculator = CALCULATORS[name]
    listed = {row.name: row for row in describe(calculator.input)}
    schema = json_schema(calculator.input)
    assert set(listed) == set(schema["properties"]) == {f.key for f in fields_of(calculator.input)}
    assert all(row.label for row in listed.values())
    assert calculator.summary.endswith(".")

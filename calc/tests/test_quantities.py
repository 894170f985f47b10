import math

import pytest
from hypothesis import given
from hypothesis import strategies as st

from calc.errors import CalcError
from calc.profile.lines import read_line
from calc.quantities import SHOWN, Figure, Sentence, counted, exact_text, from_core, shown_as
from calc.written import parse

# (typed, core unit, system, core value): the conversions are the exact international definitions.
READ = [
    ("1 7/16", "mm", "inch", 36.5125),
    ("1-7/16 in", "mm", "metric", 36.5125),
    ('0.4375"', "mm", "metric", 11.1125),
    (".437", "mm", "inch", 11.0998),
    ("36.5", "mm", "metric", 36.5),
    ("36.5mm", "mm", "inch", 36.5),
    ("7/16", "mm", "inch", 11.1125),
    ("8 thou", "mm", "metric", 0.2032),
    ("Ø84", "mm", "metric", 84.0),
    ("130 psi", "bar", "metric", 8.963184),
    ("9 bar", "bar", "inch", 9.0),
    ("9", "bar", "inch", 0.6205281),
    ("400 sfm", "m/min", "metric", 121.92),
    ("120 m/min", "m/min", "inch", 120.0),
    ("400", "m/min", "inch", 121.92),
    (".008 ipr", "mm/rev", "metric", 0.2032),
    ("0.2", "mm/rev", "metric", 0.2),
    ("2 350", "rpm", "metric", 2350.0),
    ("2\u202f350 rpm", "rpm", "inch", 2350.0),
    ("20 hp", "kW", "metric", 14.913997),
    ("5 lb", "kg", "metric", 2.26796185),
    ("12", "N", "metric", 12_000.0),
    ("1 lbf", "N", "metric", 4.4482216),
    ("-0.035", "mm", "metric", -0.035),
    ("−0.5", "mm", "metric", -0.5),
    ("1e3", "rpm", "metric", 1000.0),
    ("5.", "mm", "metric", 5.0),
]

READ += [("36,5", "mm", "metric", 36.5), (",4375", "mm", "inch", 11.1125), ("0,1250", "mm", "metric", 0.125)]


@pytest.mark.parametrize(("text", "unit", "system", "value"), READ)
def test_reads_what_a_machinist_writes(text, unit, system, value):
    assert parse(text, unit, system) == pytest.approx(value, rel=1e-6)


@pytest.mark.parametrize(
    "text", ["abc", "", " ", "9 bar", "1/0", "5 rpm", "12 12", "--3", "Ø", "1 2 3", "nan", "inf", "1e999"]
)
def test_refuses_what_is_not_a_length_and_names_the_field(text):
    with pytest.raises(CalcError) as refused:
        parse(text, "mm", "metric", "depth_mm")
    assert refused.value.errors[0].field == "depth_mm"
    assert "rite" in refused.value.errors[0].message  # it says what to write


@pytest.mark.parametrize(("text", "ways"), [("36,500", ("36.500", "36500")), ("1,250", ("1.250", "1250"))])
def test_a_comma_gets_a_sentence_never_a_guess(text, ways):
    with pytest.raises(CalcError) as refused:
        parse(text, "mm")
    assert all(way in refused.value.errors[0].message for way in ways)


@given(st.floats(0.001, 9999, allow_nan=False), st.sampled_from(sorted(SHOWN)), st.sampled_from(["metric", "inch"]))
def test_what_is_shown_for_editing_reads_back_as_the_same_value(value, unit, system):
    text = exact_text(from_core(value, unit, shown_as(unit, system)))
    assert parse(text, unit, system) == pytest.approx(value, rel=1e-7)


@given(st.floats(0, 100_000), st.sampled_from(["rpm", "mm", "bar", "N"]), st.sampled_from(["metric", "inch"]))
def test_limits_are_rounded_to_the_safe_side(value, unit, system):
    shown = from_core(value, unit, shown_as(unit, system))

    def number(rounding):
        return float(Figure(value, unit, rounding).number(system).replace("\u202f", "").replace("−", "-"))

    slack = max(1e-9, abs(shown) * 1e-11)
    assert number("down") <= shown + slack
    assert number("up") >= shown - slack


@pytest.mark.parametrize(
    ("figure", "metric", "inch"),
    [
        (Figure(84, "mm"), "84.00\xa0mm", "3.307\xa0in"),
        (Figure(parse("1 3/16 in", "mm"), "mm"), "30.16\xa0mm", "1.188\xa0in"),
        (Figure(83.965, "mm", places=(3, 4)), "83.965\xa0mm", "3.3057\xa0in"),
        (Figure(28, "bar"), "28.0\xa0bar", "406\xa0psi"),
        (Figure(2350.7, "rpm", "down"), "2\u202f350\xa0rpm", "2\u202f350\xa0rpm"),
        (Figure(46_000, "N"), "46.0\xa0kN", "10\u202f341\xa0lbf"),
        (Figure(0.15, "mm/rev"), "0.15\xa0mm/rev", "0.0059\xa0ipr"),
        (Figure(118, "mm", exact=True), "118\xa0mm", "4.64567\xa0in"),
        (Figure(40, "mm", "down", exact=True), "40\xa0mm", "1.5748\xa0in"),
        (Figure(300, "mm", "down", exact=True), "300\xa0mm", "11.81102\xa0in"),
        (Figure(0, "mm", "up", exact=True), "0\xa0mm", "0\xa0in"),
        (Figure(-1e-9, "mm"), "0.00\xa0mm", "0.000\xa0in"),
    ],
)
def test_figures_print_in_both_systems(figure, metric, inch):
    assert figure.text("metric") == metric
    assert figure.text("inch") == inch


@given(st.floats(1, 900), st.sampled_from(["mm", "bar", "m/min", "kg"]))
def test_a_bound_told_in_the_other_system_is_one_that_is_taken(bound, unit):
    told = Figure(bound, unit, "down", exact=True).number("inch").replace("\u202f", "")
    assert parse(told, unit, "inch") <= bound * (1 + 1e-9)
    told = Figure(bound, unit, "up", exact=True).number("inch").replace("\u202f", "")
    assert parse(told, unit, "inch") >= bound * (1 - 1e-9)


def test_rounding_up_ignores_the_noise_of_floats():
    assert Figure(2350.0000000001, "rpm", "up").number() == "2\u202f350"
    assert Figure(math.nextafter(100.0, 200), "rpm", "up").number() == "100"
    assert Figure(9.35e130, "N", "down").number() == "9.350e+127"  # beyond all figures, and still told


def test_a_sentence_follows_the_unit_system():
    said = Sentence("cap {cap}, {why}", cap=Figure(25.4, "mm"), why="grip {braces}")
    assert said.text("inch") == "cap 1.000\xa0in, grip {braces}"


@pytest.mark.parametrize("text", ["1" * 8000, "1 " * 4000, "1/" * 4000, "0." + "0" * 8000, "12 mm" + " " * 9000 + "x"])
def test_what_is_too_long_for_a_figure_is_told_so(text):
    with pytest.raises(CalcError, match="too long for a figure: 40 characters"):
        parse(text, "mm")
    with pytest.raises(CalcError, match="too long for a step"):
        read_line(text, "metric", "Step 1")


def test_a_number_goes_with_its_noun():
    assert [counted(n, "pass", "passes") for n in (0, 1, 2)] == ["0 passes", "1 pass", "2 passes"]
    assert counted(1, "cut") + ", " + counted(12, "cut") == "1 cut, 12 cuts"

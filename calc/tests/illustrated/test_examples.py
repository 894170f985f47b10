"""The worked examples: each answers without a stop, in both unit systems, and reads back as it is written."""

import dataclasses
import math

import pytest

from calc.catalog import CALCULATORS, GROUPS
from calc.describing import written
from calc.errors import CalcError
from calc.fields import Quantity, fields_of
from calc.illustrated.examples import EXAMPLES
from calc.illustrated.graph import Graph
from calc.reading import read, write
from calc.results import as_plain
from calc.scene.shapes import Scene

EVERY = list(CALCULATORS.values())
DRAWN = [c for c in EVERY if c.picture is not None]


def named(calculator):
    return calculator.name


def same(a, b):
    if isinstance(a, float) and isinstance(b, float):
        return math.isclose(a, b, rel_tol=1e-8, abs_tol=1e-12)
    if isinstance(a, dict):
        return a.keys() == b.keys() and all(same(a[k], b[k]) for k in a)
    if isinstance(a, list):
        return len(a) == len(b) and all(map(same, a, b))
    return a == b


def full(tree):
    """Without what is empty: as it is asked with."""
    if isinstance(tree, dict):
        return {k: full(v) for k, v in tree.items() if v not in ("", None)}
    return [full(v) for v in tree] if isinstance(tree, list) else tree


def test_every_calculator_has_an_example_and_a_place_in_the_work():
    assert list(EXAMPLES.keys() ^ CALCULATORS.keys()) == []
    order = [key for key, _ in GROUPS]
    places = [order.index(c.group) for c in EVERY]
    assert places == sorted(places)
    assert len({c.title for c in EVERY}) == len(EVERY)


@pytest.mark.parametrize("system", ["metric", "inch"])
@pytest.mark.parametrize("calculator", EVERY, ids=named)
def test_an_example_answers_without_a_stop_and_leads_with_what_is_looked_at_first(calculator, system):
    shown = calculator.shown(EXAMPLES[calculator.name], "metric").told
    told = calculator.shown(written_in(calculator, system), system).told
    assert "stop" not in [n["level"] for n in told["notes"]]
    names = [a["name"] for a in told["answers"]]
    assert tuple(names[: len(calculator.first)]) == calculator.first
    assert names == [a["name"] for a in shown["answers"]]


def written_in(calculator, system):
    return full(written(read(calculator.input, EXAMPLES[calculator.name]), system))


@pytest.mark.parametrize("system", ["metric", "inch"])
@pytest.mark.parametrize("calculator", EVERY, ids=named)
def test_what_is_shown_reads_back_as_what_was_given(calculator, system):
    given = read(calculator.input, EXAMPLES[calculator.name])
    again = read(calculator.input, written_in(calculator, system), system=system)
    assert same(write(given), write(again))


@pytest.mark.parametrize("calculator", DRAWN, ids=named)
def test_a_picture_has_words_and_no_figure_that_is_none(calculator):
    picture = calculator.shown(EXAMPLES[calculator.name], "metric").picture
    match picture:
        case Scene():
            points = [p for s in picture.shapes for p in s.points]
            words = picture.words
        case Graph():
            points = [p for line in picture.lines for p in line.points] + list(picture.dots)
            words = (picture.words,)
            assert picture.x.low < picture.x.high
            assert picture.y.low < picture.y.high
    assert points
    assert all(math.isfinite(c) for p in points for c in p)
    for system in ("metric", "inch"):
        assert all(len(w.text(system)) > 10 for w in words)


@pytest.mark.parametrize("calculator", EVERY, ids=named)
def test_a_field_that_does_not_matter_may_be_left_out(calculator):
    """What waits on another field has a default: the form hides it."""
    fields = {f.key: f for f in fields_of(calculator.input)}
    for field in fields.values():
        if field.when is not None:
            assert not field.required
            assert field.when.field in fields


@pytest.mark.parametrize(
    ("name", "chosen"),
    [
        ("jaw-mass", {}),
        ("working-limits", {}),
        ("speed-limit", {}),
        ("thread", {"form": "whitworth"}),
        ("jaw-backing", {"side": "id", "grip_diameter_mm": 148.0, "plug": None}),
    ],
)
def test_what_is_hidden_moves_nothing(name, chosen):
    """Another value of a field that does not matter gives the same answer."""
    calculator = CALCULATORS[name]
    given = read(calculator.input, EXAMPLES[name] | chosen)
    hidden = [
        f
        for f in fields_of(calculator.input)
        if f.when is not None and getattr(given, f.when.field) not in f.when.values
    ]
    assert hidden
    for field in hidden:
        if not isinstance(field.spec, Quantity):
            continue
        for value in (0.5, 3.0):
            try:
                other = dataclasses.replace(given, **{field.name: value})
                answer = calculator.function(other)
            except CalcError:
                continue
            assert as_plain(answer) == as_plain(calculator.function(given))


def test_bare_figures_are_in_the_units_shown_and_others_say_theirs():
    shown = CALCULATORS["working-limits"].shown({"low": "1", "high": "30 mm", "rule": "print"}, "inch")
    assert (shown.given.low, shown.given.high) == (25.4, 30.0)


def test_a_result_remembers_what_it_was_made_from():
    given = read(CALCULATORS["cut"].input, EXAMPLES["cut"])
    assert CALCULATORS["cut"].function(given).given is given
    assert "given" not in CALCULATORS["cut"].run(EXAMPLES["cut"])

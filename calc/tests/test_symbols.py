"""The key beside a working: every symbol of every formula says what it stands for."""

from pathlib import Path

import pytest

from calc.plan.compute import compute
from calc.plan.run_file import read_run
from calc.said.stop import steps_said
from calc.symbols import key_of
from calc.tests.pictures import DEMO, FILES
from calc.working import ENTERED, Step, Working, derived


def test_what_an_earlier_line_found_is_called_as_that_line_calls_it():
    w = Working()
    w.step("d_m", "Mean diameter", "(d_o + d_i)/2", "mm", derived("Thin walls"), d_o=90.0, d_i=80.0)
    w.step("h", "Wall over it", "t/d_m", "", derived("Crushing"), t=5.0, d_m=85.0)
    first, second = steps_said(w.steps)
    assert first.symbols == {"d_o": "outer diameter", "d_i": "inner diameter"}
    assert second.symbols == {"t": "thickness of the wall", "d_m": "Mean diameter"}


def test_functions_are_no_symbols_and_each_stands_once():
    step = Step("x", "X", "max(0, d_o - d_i) + sqrt(d_o)*pi", {}, 0.0, "", ENTERED)
    assert list(key_of(step, ())) == ["d_o", "d_i"]


def test_a_symbol_nobody_explains_is_not_explained_by_another():
    assert key_of(Step("x", "X", "Q_9", {}, 0.0, "", ENTERED), ()) == {"Q_9": ""}


@pytest.mark.parametrize("name", DEMO)
def test_every_symbol_of_the_demos_workings_is_in_its_key(name):
    run = read_run((FILES / f"twin-{name}.json").read_text(encoding="utf-8"))
    missing = {
        (step.source, symbol)
        for stop in compute(run.document, run.shelf).stops
        for answer in stop.answers
        for step in steps_said(answer.steps)
        for symbol, meaning in step.symbols.items()
        if not meaning
    }
    assert missing == set()


def test_every_symbol_in_the_core_is_in_the_key():
    """Whatever is put into a formula anywhere, by the text of the code."""
    import ast

    from calc.symbols import AT, COMMON

    known = set(COMMON) | {symbol for at in AT.values() for symbol in at}
    found = set()
    for file in Path(__file__).parents[1].rglob("*.py"):
        if "tests" in file.parts:
            continue
        for node in ast.walk(ast.parse(file.read_text(encoding="utf-8"))):
            if isinstance(node, ast.Call) and isinstance(node.func, ast.Attribute) and node.func.attr == "step":
                found |= {k.arg for k in node.keywords if k.arg}
    assert len(found) > 150
    assert found - known == set()

"""Figures of results: each declared once, printed with label and unit, rounded to its safe side."""

import dataclasses
import re
import typing

import pytest

from calc.catalog import CALCULATORS
from calc.chuck.demand import CutLoad, GripDemandInput, grip_demand
from calc.chuck.speed import GripAtSpeedInput, StackPart, grip_at_speed
from calc.chuck.speed_limit import SpeedLimitInput, speed_limit
from calc.cuts.drilling import DrillInput, drill
from calc.results import Explained, Found, answers, found_of
from calc.threads.thread import ThreadInput, thread
from calc.walls.lobing import WallLobingInput, wall_lobing

HELD = GripAtSpeedInput(46000, "od", (StackPart(2.45, 65.5),), 2350)


def results_of(kind):
    """A result's dataclass and those within it."""
    yield kind
    for name, hint in typing.get_type_hints(kind).items():
        if name in ("working", "notes"):
            continue
        for part in (hint, *typing.get_args(hint)):
            if isinstance(part, type) and dataclasses.is_dataclass(part) and part.__module__ != "calc.quantities":
                yield from results_of(part)


@pytest.mark.parametrize("calculator", CALCULATORS.values(), ids=lambda c: c.name)
def test_every_figure_of_every_answer_is_declared_with_the_unit_its_name_says(calculator):
    units = {"n": "N", "mm": "mm", "rpm": "rpm", "bar": "bar", "kg": "kg", "deg": "deg", "kw": "kW", "nm": "N*m"}
    for kind in results_of(typing.get_type_hints(calculator.function)["return"]):
        for name, found in found_of(kind).items():
            assert found.label or dataclasses.is_dataclass(typing.get_type_hints(kind)[name])
            said = units.get(name.rsplit("_", 1)[-1]) if "_" in name else None
            if said and not name.endswith(("mm_rev", "per_bar")):
                assert found.unit == said, name


def plain(text):
    """The text with ordinary spaces."""
    return re.sub(r"\s", " ", text)


def told(result, system="metric"):
    return {a.name: plain(a.text) for a in answers(result, system)}


def test_a_figure_is_printed_in_either_unit_on_its_safe_side():
    # F_c = 3·2.45·65.5·(2π·2350/60)²/1000 = 29 155.57 N; 46 000 − it = 16 844.43 N; ÷ 4.448222 = 3 786.8 lbf.
    metric, inch = (told(grip_at_speed(HELD), s) for s in ("metric", "inch"))
    assert (metric["centrifugal_n"], metric["grip_n"]) == ("29.2 kN", "16.8 kN")
    assert (inch["centrifugal_n"], inch["grip_n"]) == ("6 555 lbf", "3 786 lbf")
    assert metric["kept_fraction"] == "0.366"  # 0.36618


def test_the_cuts_of_an_answer_are_told_by_their_names():
    cut = CutLoad("Rough", 1000, 300, 500, 60, 40)
    labels = {a.name: a.label for a in answers(grip_demand(GripDemandInput((cut,), 50, 30, 0.2)))}
    assert labels["required_grip_n"] == "Required grip, all jaws"
    assert labels["cuts.0.slip_n"] == "Rough: Against slipping"


def test_lists_words_and_what_is_not_there():
    deep = told(drill(DrillInput(10, 90, 0.1, 2000, 0.2, depth_mm=55)))
    assert deep["pecks_mm"].split(", ") == ["30.00 mm", "40.00 mm", "50.00 mm", "55.00 mm"]
    flat = told(drill(DrillInput(10, 90, 0.1, 2000, 0.2)))
    assert (flat["minutes"], flat["pecks_mm"]) == ("none", "none")


def test_limits_of_a_thread_are_those_of_the_standard_and_never_wider():
    # ISO 965-2: M20, 6g: major 19.958 to 19.623, pitch diameter 18.334 to 18.164.
    found = told(thread(ThreadInput("iso", 20, 2.5)))
    assert (found["major.max"], found["major.min"]) == ("19.958 mm", "19.623 mm")
    assert (found["pitch_diameter.max"], found["pitch_diameter.min"]) == ("18.334 mm", "18.164 mm")


def test_a_shape_is_told_by_its_points_and_a_choice_in_words():
    wall = told(wall_lobing(WallLobingInput(10_000, "od", 100, 90, 30, 210)))
    assert re.fullmatch(r"\d+ points", wall["shape"])
    limit = told(speed_limit(SpeedLimitInput(46000, 16900, "od", (StackPart(2.45, 65.5),), 4500, 4500)))
    # ω² = (46 000 − 16 900) / (3·0.160475) = 245.86² rad²/s²: 2 347.8 rpm
    assert (limit["speed_cap_rpm"], limit["capped_by"]) == ("2 347 rpm", "the grip")


def test_a_figure_without_a_declaration_is_a_fault_of_ours():
    @dataclasses.dataclass(frozen=True, kw_only=True)
    class Bare(Explained):
        grip_n: float

    with pytest.raises(TypeError, match="grip_n"):
        answers(Bare(grip_n=1.0))
    assert Found("Grip", "N").safe == "near"

"""Every formula that settling evaluates for thousands of candidates at once gives each what the calculator gives."""

from __future__ import annotations

from collections.abc import Callable
from typing import Any

import numpy as np
import pytest
from hypothesis import given, settings
from hypothesis import strategies as st

from calc.chuck.demand import GripDemandInput, Pushes, beside, terms_of
from calc.chuck.speed import centrifugal, grip_left
from calc.cuts.chip import Engaged, Metal, chip_of, forces_of
from calc.cuts.drilling import Drilled, drill_forces, drill_power, travel
from calc.cuts.part_off import Stretch, cap_diameter, cross_minutes
from calc.cuts.spindle import Turning, motor_power, spindle_has, spindle_torque, turns
from calc.cuts.tool_life import Worn, edge_life, reference_here
from calc.many import MANY
from calc.plan.cuts.operations import in_solid, torque_across
from calc.route.time import Path, minutes_of
from calc.threads.chip import thread_chip
from calc.working import Working

METAL = Metal(2220.0, 0.14, 1.1, 6.0, 6.0)
WEIGHED = GripDemandInput((), 90.0, 18.0, 0.1, 2.0, False, 3, 3.0, 0.8, 25.0, 900.0)


def chip(w: Any, a: Any, b: Any, c: Any) -> Any:
    engaged = Engaged(a / 20, b / 4, 0.8, 95.0)
    one = chip_of(w, engaged)
    forces = forces_of(w, engaged, one, METAL)
    return one.width, one.thickness, forces.tangential, forces.feed, forces.passive


def pushed(kind: str) -> Callable[..., Any]:
    def of(w: Any, a: Any, b: Any, c: Any) -> Any:
        push = Pushes(100 * a, 80 * b, 60 * c, 80 * b if kind == "unseated" else 0 * b, 80.0, 30.0)
        terms = terms_of(w, "c", push, WEIGHED, beside(w, WEIGHED, 100 * a))
        return tuple(getattr(terms, f) for f in terms.__dataclass_fields__ if f != "mode")

    return of


# name -> the formula of three figures between 0.5 and 30
SHARED: dict[str, Callable[..., Any]] = {
    "speed of the spindle": lambda w, a, b, c: turns(w, Turning(10 * a, None, 3000.0), b),
    "power": lambda w, a, b, c: motor_power(w, 100 * a, 10 * b),
    "torque": lambda w, a, b, c: spindle_torque(w, 100 * a, b),
    "what the spindle has": lambda w, a, b, c: spindle_has(w, 15.0, 200.0, 100 * a),
    "chip and forces": chip,
    "drill's forces": lambda w, a, b, c: drill_forces(w, 100 * a, Drilled(13.0, 4.0, 140.0)),
    "drill's power": lambda w, a, b, c: drill_power(w, a, 100 * b),
    "drill in solid": lambda w, a, b, c: in_solid(w, 100 * a, 3.0),
    "torque as a force": lambda w, a, b, c: torque_across(w, a, 12.0),
    "cap's diameter": lambda w, a, b, c: cap_diameter(w, 10 * a, 3000.0),
    "life": lambda w, a, b, c: edge_life(w, reference_here(w, 250.0, Worn(a / 20, b / 8, 0.2, 2.0)), 10 * c, 0.25),
    "chip of a thread": lambda w, a, b, c: tuple(
        v for v in vars(thread_chip(w, a / 8, 6, internal=False)).values() if v is not None
    ),
    "pull of the jaws": lambda w, a, b, c: centrifugal(w, 3, 0.2, 100 * a),
    "grip left outside": lambda w, a, b, c: grip_left(w, "od", 40_000.0, 1000 * a),
    "grip reached inside": lambda w, a, b, c: grip_left(w, "id", 40_000.0, 1000 * a, 0.8),
    "grip a cut asks": pushed("seated"),
    "grip a cut asks, pulled off its seat": pushed("unseated"),
    "time along": lambda w, a, b, c: minutes_of(
        w, Path("turn", 90.0, 50.0, 40.0, np.ceil(a) * 1.0, b / 100), Turning(c * 10, None, 2500)
    ),
    "time across": lambda w, a, b, c: cross_minutes(w, Stretch(80.0, 0.0, a / 100), Turning(10 * b, None, 2500)),
    "time of a hole": lambda w, a, b, c: minutes_of(
        w, Path("drill", 0.0, 13.0, 30.0, 1.0, a / 100), Turning(10 * b, None, 2500)
    ),
    "time of a part-off": lambda w, a, b, c: minutes_of(
        w, Path("part", 40.0, 0.0, 0.0, 1.0, a / 100, slow=a / 300, slow_below=5.0), Turning(10 * b, None, 2500)
    ),
    "time of a groove": lambda w, a, b, c: minutes_of(
        w, Path("groove", 60.0, 50.0, 8.0, 1.0, a / 100, width=3.0), Turning(10 * b, None, 2500)
    ),
    "time of a thread": lambda w, a, b, c: minutes_of(
        w, Path("thread", 24.0, 22.0, 20.0, 6.0, a / 10), Turning(10 * b, None, 2500)
    ),
    "way of a drill": lambda w, a, b, c: travel(w, 30.0, Drilled(13.0, 0.0, 140.0)),
}
THREE = st.tuples(*[st.floats(0.5, 30)] * 3)


def flat(found: Any) -> list[Any]:
    return list(found) if isinstance(found, tuple) else [found]


@pytest.mark.parametrize("name", SHARED)
@settings(max_examples=30, deadline=None)
@given(rows=st.lists(THREE, min_size=1, max_size=6))
def test_many_at_once_are_what_each_is_alone(name: str, rows: list[tuple[float, float, float]]) -> None:
    formula = SHARED[name]
    columns = [np.array(column) for column in zip(*rows, strict=True)]
    together = [np.broadcast_to(np.asarray(v, dtype=float), len(rows)) for v in flat(formula(MANY, *columns))]
    for place, row in enumerate(rows):
        alone = flat(formula(Working(), *row))
        assert len(alone) == len(together)
        for one, many in zip(alone, together, strict=True):
            assert many[place] == pytest.approx(one, rel=1e-9, abs=1e-12)

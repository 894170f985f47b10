"""Long work in a short grip: where it is refused, where it is not, and what lifts it."""

import pytest

from calc.plan.compute import compute
from calc.plan.hold.solve import HOLD
from calc.plan.paths import replaced
from calc.plan.run_file import read_run
from calc.plan.solve import solve
from calc.tests.plan.test_refused import FILES

CODE = "held-by-its-end"


@pytest.fixture(scope="module")
def shaft():
    """Ø40 x 85 behind a head of Ø60 x 35, 2 mm on both faces: 124 mm, of which a sixth is 20.667."""
    return read_run((FILES / "twin-shaft.json").read_text(encoding="utf-8"))


def codes(run, *changes):
    document = run.document
    for path, value in changes:
        document = replaced(document, path, value)
    hold = solve(document, run.shelf, 0)[HOLD]
    return {n.code for n in hold.notes if n.level == "stop"}


@pytest.mark.parametrize(("deep", "stopped"), [(8.0, True), (20.66, True), (20.67, False), (24.0, False)])
def test_a_sixth_of_its_length_is_the_least(shaft, deep, stopped):
    assert (CODE in codes(shaft, ("setups.s1.hold.depth_mm", deep))) == stopped


def test_a_centre_carries_the_end_that_the_grip_does_not(shaft):
    """A live centre needs its hole, which is another stop."""
    changes = (("setups.s1.hold.depth_mm", 15.0), ("setups.s1.hold.live_centre", True))
    assert CODE not in codes(shaft, *changes)


@pytest.mark.parametrize(("long", "stopped"), [(33.9, False), (34.1, True)])
def test_what_stands_out_no_more_than_its_diameter_is_stubby_and_may(shaft, long, stopped):
    """Ø63 stock: the shank, 35 of head and 4 of faces less 10 in the jaws stand out 63 where the shank is 34 long."""
    changes = (("setups.s1.hold.depth_mm", 10.0), ("part.profile.outside.o1.length_mm", long))
    assert (CODE in codes(shaft, *changes)) == stopped


def test_gripping_it_longer_is_offered_and_takes_it_away(shaft):
    short = replaced(shaft.document, "setups.s1.hold.depth_mm", 15.0)
    result = compute(short, shaft.shelf)
    stop = next(s for s in result.stops if s.key == "hold-s1")
    offered = next(h for h in result.helps(stop) if h.path == "setups.s1.hold.depth_mm")
    assert (offered.value, offered.settles) == (21.0, True)
    after = compute(replaced(short, offered.path, offered.value), shaft.shelf)
    assert next(s for s in after.stops if s.key == "hold-s1").state == "settled"

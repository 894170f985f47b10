"""What would gain most: each idea settled, beside the set-up as it is."""

from dataclasses import replace

import pytest

from calc.plan.compute import compute
from calc.plan.cuts.nearest_limit import nearest_limit
from calc.plan.cuts.solve import CUTS
from calc.plan.force.solve import FORCE
from calc.plan.paths import replaced
from calc.plan.solve import solve
from calc.settle.gain import counted_min, gain_of, ideas, with_idea
from calc.settle.setup import settle_setup
from calc.tests.plan.test_ways_to_hold import HARD, plan


@pytest.fixture(scope="module")
def shaft():
    """Ø90 held on 30 mm of raw stock, its journal turned over a live centre; a hard jaw lies on the shelf too."""
    run = plan("centre")
    first = run.shelf.setups[0]
    return run.document, replace(run.shelf, setups=(replace(first, blanks=(*first.blanks, HARD)),))


def test_every_other_way_that_the_shelf_has_is_an_idea(shaft):
    keys = {i.key for i in ideas(*shaft, 0)}
    assert {"jaws-l3-aluminium-64", "jaws-hard", "deeper"} <= keys
    assert "jaws-l3-steel-64" not in keys  # it is what is taken
    assert "centre" not in keys  # there is one


def test_an_idea_gains_what_settling_both_says(shaft):
    document, shelf = shaft
    before = counted_min(settle_setup(document, shelf, 0).document, shelf, 0)
    hard = next(i for i in ideas(document, shelf, 0) if i.key == "jaws-hard")
    gain = gain_of(document, shelf, 0, hard)
    changed, taken = with_idea(document, shelf, 0, hard)
    after = counted_min(settle_setup(changed, taken, 0).document, taken, 0)
    assert (gain.before_min, gain.after_min) == (pytest.approx(before), pytest.approx(after))
    if gain.gains:
        assert gain.run_h == pytest.approx((before - after) * 40 / 60)
        assert compute(gain.document, taken).verdict == "settled"
    else:
        assert after > before * 0.995


def test_what_is_offered_as_a_gain_is_quicker_and_settled(shaft):
    document, shelf = shaft
    for idea in ideas(document, shelf, 0):
        gain = gain_of(document, shelf, 0, idea)
        assert gain.gains == (gain.why_not is None)
        if gain.gains and gain.before_min is not None:
            assert gain.after_min < gain.before_min
            _, taken = with_idea(document, shelf, 0, idea)
            assert compute(gain.document, taken).verdict == "settled"


def test_a_collet_of_another_chuck_is_an_idea_only_where_it_closes_on_what_is_gripped():
    run = plan("collet")
    document = run.document
    other = replace(run.shelf.setups[0].collet, key="other", face="serrated")
    wide = replace(other, key="wide", nominal_mm=40.0)
    holder = replace(run.shelf.setups[0], collet=None, collets=(other, wide))
    keys = {i.key for i in ideas(document, run.shelf, 0, (holder,))}
    assert keys == {f"collet-{holder.chuck.key}-other"}
    jawed = replace(plan("centre").shelf.setups[0], blanks=(HARD,))
    keys = {i.key for i in ideas(document, run.shelf, 0, (holder, jawed))}
    assert f"jaws-{jawed.chuck.key}-hard" in keys


def test_nearest_limit_of_a_settled_cut_is_not_passed_and_of_a_greedy_one_is():
    run = plan("collet")
    rules = run.document.in_force

    def near(document):
        figures = solve(document, run.shelf, 0)
        return [nearest_limit(c, figures[FORCE].load_of(c.id), rules) for c in figures[CUTS].cuts]

    assert all(n is None or n.share <= 1 + 1e-6 for n in near(run.document))
    setup = run.document.setups[0]
    turn = next(c for c in setup.cuts if c.kind == "turn" and c.stage == "rough")
    greedy = replaced(run.document, f"setups.{setup.id}.cuts.{turn.id}.feed_mm_rev", 2 * turn.feed_mm_rev)
    worst = near(greedy)[[c.id for c in setup.cuts].index(turn.id)]
    assert worst.share >= 1.9
    assert "%" in worst.words.text()

"""A finish that was read with an edge in a material is counted with from then on."""

from dataclasses import replace
from pathlib import Path

import pytest

from calc.plan.compute import compute
from calc.plan.cuts.solve import CUTS
from calc.plan.run_file import read_run

RUN = read_run((Path(__file__).parent / "refused" / "twin-spigot.json").read_text(encoding="utf-8"))


def finishing():
    """The first cut of the plan that is held to the print's finish, with its side."""
    result = compute(RUN.document, RUN.shelf)
    for index, figures in enumerate(result.figures):
        for cut in figures[CUTS].cuts:
            window = cut.consulted.window
            if window is not None and window.schools.finish is not None:
                return index, cut
    raise AssertionError


def seen(ratio, source="measured", wiper=False):
    """The plan where its finishing edge came to so many times the theory; its cut, and its stop."""
    index, cut = finishing()
    text = f"{RUN.shelf.material.key} {ratio} of 2" if ratio else ""
    edges = tuple(
        replace(i, finish=text, edge="wiper" if wiper else i.edge) if i.key == cut.tool.edge.key else i
        for i in RUN.shelf.tools.inserts
    )
    document = replace(RUN.document, rules=replace(RUN.document.in_force, finish_from=source))
    result = compute(document, replace(RUN.shelf, tools=replace(RUN.shelf.tools, inserts=edges)))
    found = next(c for c in result.figures[index][CUTS].cuts if c.id == cut.id)
    return found, result.stop("cuts", index)


def finish_feed(cut):
    return cut.consulted.window.schools.finish.feed_max_mm_rev


def test_twice_as_rough_as_in_theory_is_fed_less_by_the_root_of_two():
    plain, rough = seen(0)[0], seen(2.0)[0]
    assert finish_feed(rough) == pytest.approx(finish_feed(plain) / 2**0.5)
    assert rough.consulted.finish.expected_um == pytest.approx(2 * plain.result.ra_um)


def test_it_stands_at_the_cut_with_where_it_comes_from():
    cut, stop = seen(1.5)
    fact = next(f for f in stop.facts if f.name == f"cut_{cut.id}_ra")
    assert fact.label == "Ra expected"
    assert fact.value == pytest.approx(1.5 * cut.result.ra_um)
    assert "150\xa0% of it was read with this edge, 2 readings" in str(fact.source)


def test_a_plan_whose_edge_left_four_times_the_theory_is_not_settled():
    # It is fed to the print's finish by theory: four times that is missed by far.
    cut, stop = seen(4.0)
    assert stop.state == "stopped"
    assert "finish-missed" in {n.code for n in cut.notes}


def test_the_house_may_go_by_theory_alone():
    cut, stop = seen(4.0, "theory")
    assert (cut.consulted.finish.seen, stop.state) == (None, seen(0)[1].state)
    assert finish_feed(cut) == finish_feed(seen(0)[0])


def test_a_wiper_leaves_half_before_anything_was_read():
    cut = seen(0, wiper=True)[0]
    assert cut.consulted.finish.expected_um == pytest.approx(cut.result.ra_um / 2)

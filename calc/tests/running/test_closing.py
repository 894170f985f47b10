"""A lot's end: planned beside real, how the print was kept, and the cuts that are offered to the notebook."""

import pytest

from calc.running.closing import closing_of, kept_words
from calc.running.pace import Pace
from calc.running.standing import standing_of
from calc.running.story import Change, Sizes, Story
from calc.tests.card.test_steps import computed
from calc.tests.running.lots import lot_of

LOT = lot_of("flange")
SPIGOT = LOT.dimensions[0]
PACE = Pace(7.5, True, 8.0, None, 12.0)


def closed(values, *changes, pace=PACE, stops=None):
    sizes = {SPIGOT.id: Sizes(tuple(range(1, len(values) + 1)), tuple(values))}
    standing = standing_of(LOT, Story(90, 88, changes, sizes))
    return closing_of(standing, pace, {SPIGOT.id: values}, stops or {}, computed("flange"), "2026-11-29")


def said(closing):
    return {r.what.text(): (r.planned.text(), r.real.text()) for r in closing.rows}


def test_planned_stands_beside_real():
    worn = [Change("main.3", "edge", after, why="worn") for after in (29, 55, 86)]
    rows = said(closed([83.98] * 30, *worn, stops={"chips": 12.0, "break": 0.2}))
    assert rows["Good pieces"] == ("240", "88")
    assert rows["Scrap"] == ("5", "2")
    planned = f"{LOT.piece_s / 60 / LOT.used:.2f}\xa0min"
    assert rows["From one piece to the next, stops with it"] == (planned, "7.50\xa0min")
    assert rows["Edge of tool 3, CCMT 09T304"] == ("67 pieces", "29 pieces, of 3 edges")
    assert rows["Edge of tool 2, CNMG 120412"] == ("2 pieces", "the first edge has made 90 pieces")
    assert rows["Stood still: chips"] == ("", "12\xa0min")
    assert "Stood still: a break" not in rows


def test_edges_that_were_only_due_say_so():
    rows = said(closed([83.98], Change("main.3", "edge", 20, why="due")))
    assert rows["Edge of tool 3, CCMT 09T304"][1] == "1 edge changed when due, not worn out"


def test_a_pace_that_nobody_saw_is_not_told():
    assert said(closed([83.98], pace=Pace(7.5, False, 8.0, None, 0.0)))["From one piece to the next, stops with it"][
        1
    ].startswith("too few")


def test_how_the_print_was_kept_by_hand():
    """Alternating 83.980 and 83.984: mean 83.982, s = 0.002·√(30/29); the nearer limit is 0.017 away."""
    values = [83.980, 83.984] * 15
    words = kept_words(closed(values).kept[0])
    cpk = 0.017 / (3 * 0.002 * (30 / 29) ** 0.5)
    assert words.text().startswith("mean 83.9820\xa0mm, spread 0.0021\xa0mm, of 30 pieces")
    assert f"pk {int(cpk * 100) / 100:.2f}" in words.text()
    assert "Cpk takes 25" in kept_words(closed(values[:10]).kept[0]).text()
    assert "too few" in kept_words(closed(values[:1]).kept[0]).text()


def test_what_drifts_is_called_ppk():
    assert "Ppk" in kept_words(closed([83.975 + 0.0003 * n for n in range(30)]).kept[0]).text()


def test_each_cut_is_offered_with_its_true_figures_and_what_its_edge_did():
    worn = [Change("main.3", "edge", after, why="worn") for after in (29, 55, 86)]
    worked = {w.name: w for w in closed([83.98], *worn).worked}
    assert len(worked) == len(computed("flange").views[0].setup.cuts)
    finish = next(w for w in worked.values() if "29 pieces" in w.proven.remarks)
    assert finish.key.startswith("s1.")
    assert finish.proven.speed_m_min > 0
    assert "88 good pieces" in finish.proven.remarks
    assert finish.proven.on == "2026-11-29"
    assert all(len(w.proven.remarks) <= 200 for w in worked.values())
    assert sum("an edge did" in w.proven.remarks for w in worked.values()) == pytest.approx(
        len(next(e for e in LOT.edges if e.key == "main.3").cuts)
    )

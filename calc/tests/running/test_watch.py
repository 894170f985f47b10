"""A dimension watched: when it is measured again, what stops the lot, what is advised, and by which pieces."""

import pytest

from calc.errors import CalcError
from calc.running.entry import entered
from calc.running.standing import standing_of
from calc.running.story import Change, Sizes, Story
from calc.tests.running.lots import lot_of

LOT = lot_of("flange")  # 240 pieces, a spigot Ø 84 h7 and a bore Ø 52 H7, worked to two thirds
SPIGOT = LOT.dimensions[0]
LOW, HIGH = SPIGOT.ask.working_mm
MIDDLE, WIDTH = (LOW + HIGH) / 2, HIGH - LOW


def of(pieces, values, counted=None, *changes, dimension=SPIGOT):
    counted = pieces[-1] if counted is None else counted
    sizes = {dimension.id: Sizes(tuple(pieces), tuple(values))}
    return standing_of(LOT, Story(counted, counted, tuple(changes), sizes))


def offset(after, amount):
    return Change(SPIGOT.edge, "offset", after, amount)


def test_the_limits_to_work_to_are_two_thirds_of_h7():
    """84 h7 is 83.965 to 84: a third of 0.035 kept back, half of it at each end (33 % by the house rule)."""
    assert SPIGOT.ask.print_mm == pytest.approx((83.965, 84.0))
    assert pytest.approx(83.965 + 0.33 * 0.035 / 2) == LOW
    assert pytest.approx(84.0 - 0.33 * 0.035 / 2) == HIGH


def test_before_anything_was_measured_the_next_piece_is():
    standing = standing_of(LOT, Story())
    assert standing.check.pieces == 0
    assert SPIGOT.id in standing.check.dimensions
    assert standing.stops == ()
    assert standing.left == 240


@pytest.mark.parametrize(("pieces", "due"), [([1], 2), ([1, 2], 2 + 9)])
def test_the_first_two_are_measured_then_an_eighth_of_the_edge_until_a_drift_is_told(pieces, due):
    watched = of(pieces, [MIDDLE] * len(pieces)).of(SPIGOT.id)
    assert LOT.edge(SPIGOT.edge).per_edge == 67  # an eighth, up: 9
    assert watched.due == due


def test_a_drift_shortens_the_way_to_the_next_check_to_half_of_what_is_sure():
    """Without scatter all of the slope is sure: 0.0006 a piece from the middle, the limit W/2 away."""
    pieces = range(1, 13)
    watched = of(pieces, [MIDDLE + 0.0006 * (n - 12) for n in pieces]).of(SPIGOT.id)
    assert watched.drift.pieces_left_sure == int(WIDTH / 2 / 0.0006 + 1e-9)
    assert watched.due == 12 + watched.drift.pieces_left_sure // 2


def test_without_a_drift_the_house_rule_says_when():
    pieces = range(1, 13)
    watched = of(pieces, [MIDDLE + 0.0004 * (-1) ** n for n in pieces]).of(SPIGOT.id)
    assert watched.due == 12 + LOT.check_every or watched.drift.pieces_left_sure is not None


def test_an_offset_begins_a_stretch_and_its_first_two_pieces_are_measured():
    pieces = [*range(1, 13), 13]
    standing = of(pieces, [MIDDLE] * 13, 13, offset(12, -0.01))
    watched = standing.of(SPIGOT.id)
    assert [s.first for s in watched.stretches] == [0, 12]
    assert watched.due == 14
    assert "too early" in watched.advice.why.text()


def test_advice_names_what_to_add_and_how_it_came_about():
    watched = of(range(1, 13), [HIGH - 0.001] * 12).of(SPIGOT.id)
    assert watched.advice.offset_mm == pytest.approx(-(WIDTH / 2 - 0.001), abs=0.0006)  # whole thousandths
    assert watched.advice.steps


def test_the_edge_of_another_tool_begins_no_stretch():
    other = next(e.key for e in LOT.edges if e.key != SPIGOT.edge)
    watched = of(range(1, 13), [MIDDLE] * 12, 12, Change(other, "edge", 6)).of(SPIGOT.id)
    assert len(watched.stretches) == 1


def test_a_fresh_edge_takes_back_what_was_added_since():
    pieces = range(1, 21)
    standing = of(pieces, [MIDDLE] * 20, 20, offset(12, -0.007), offset(16, -0.004))
    assert standing.of(SPIGOT.id).fresh_mm == pytest.approx(0.011)


def test_outside_the_print_it_stops_and_the_next_is_measured():
    standing = of([1, 2, 3], [MIDDLE, MIDDLE, 83.960])
    assert any("scrap" in s.text() for s in standing.stops)
    assert standing.check.pieces == 0
    left = of([1, 2, 3], [MIDDLE, MIDDLE, 84.004])
    assert any("metal is left" in s.text() for s in left.stops)


def test_outside_the_limits_to_work_to_the_next_is_measured_and_nothing_stops():
    standing = of([1, 2, 3], [MIDDLE, MIDDLE, HIGH + 0.001])
    watched = standing.of(SPIGOT.id)
    assert (watched.level, watched.due) == ("watch", 4)
    edges_alone = [s for s in standing.stops if "Spigot" in s.text()]
    assert edges_alone == []


def test_a_line_at_the_limit_stops():
    pieces = range(1, 13)
    standing = of(pieces, [HIGH + 0.0002 + 0.0006 * (n - 12) for n in pieces])
    assert any("line is at the limit" in s.text() for s in standing.stops)


def test_an_edge_that_made_what_it_lasts_stops():
    stops = [s.text() for s in of([1, 2], [MIDDLE] * 2).stops]
    assert "Tool 2: its edge has made 2 pieces, as many as it lasts. Change it before the next." in stops


@pytest.mark.parametrize(
    ("given", "words"),
    [
        ("8.398", "ten times off"),
        ("839.8", "ten times off"),
        ("3.3063", "25.4 times off"),
        ("52.01", "That is the size of Bore"),
        ("84.2", "should be about"),
    ],
)
def test_what_looks_wrong_is_asked_about(given, words):
    found = entered(SPIGOT, given, "metric", others=LOT.dimensions)
    assert words in found.far.text()


def test_a_plain_size_is_judged_and_a_warm_one_at_twenty_degrees():
    plain = entered(SPIGOT, "83.982", "metric", others=LOT.dimensions)
    assert (plain.level, plain.far, plain.value) == ("good", None, 83.982)
    warm = entered(SPIGOT, "84.01", "metric", 40.0)
    expansion = SPIGOT.ask.expansion_1e6_k
    assert warm.value == pytest.approx(84.01 / (1 + expansion * 20e-6))
    inch = entered(SPIGOT, "3.30638", "inch")
    assert inch.value == pytest.approx(3.30638 * 25.4)


@pytest.mark.parametrize("given", ["", "wide", "0", "20000", "-84"])
def test_what_is_no_size_is_told_at_its_field(given):
    with pytest.raises(CalcError) as told:
        entered(SPIGOT, given, "metric")
    assert {e.field for e in told.value.errors} == {SPIGOT.id}


def test_a_thread_is_good_tight_or_loose():
    thread = next(d for d in lot_of("kept").dimensions if d.kind == "thread")
    assert entered(thread, "good", "metric").level == "good"
    assert "GO does not go on" in entered(thread, "tight", "metric").told.text()
    assert "scrap" in entered(thread, "loose", "metric").told.text()
    with pytest.raises(CalcError):
        entered(thread, "fine", "metric")


def test_a_finish_is_measured_against_the_print():
    finish = LOT.dimensions[1]
    assert finish.kind == "finish"
    wanted = finish.ask.print_um
    assert entered(finish, str(wanted), "metric").level == "good"
    assert entered(finish, str(wanted + 0.2), "metric").level == "stop"


def test_every_answer_of_a_long_run_is_told_from_the_newest():
    """500 pieces count; what a hundred thousand would do to the figures is left to what is passed in."""
    pieces = range(99_501, 100_001)
    watched = of(pieces, [MIDDLE + 0.0005 * (-1) ** n for n in pieces], 100_000).of(SPIGOT.id)
    assert watched.stretches[0].count == 500
    assert watched.due > 100_000


def test_lots_are_the_sides_or_the_whole():
    assert [lot_of("flange", i).sides for i in (0, 1)] == [(0,), (1,)]
    assert lot_of("collet").sides == (0, 1)


def test_with_all_good_pieces_made_nothing_is_due():
    assert standing_of(LOT, Story(LOT.quantity - 1, LOT.quantity - 1, (), {})).check is not None
    assert standing_of(LOT, Story(LOT.quantity, LOT.quantity, (), {})).check is None

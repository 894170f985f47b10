"""Bars of a run and rapid moves, by hand and by their limits."""

from __future__ import annotations

import pytest
from hypothesis import given
from hypothesis import strategies as st

from calc.route.bars import BarYieldInput, bar_yield
from calc.route.moves import MoveTimeInput, move_time


def bars(**more):
    given_ = {"bar_mm": 3000, "remnant_mm": 150, "part_mm": 42, "kerf_mm": 3, "quantity": 1800, "facing_mm": 1}
    return bar_yield(BarYieldInput(**(given_ | more)))


@pytest.mark.parametrize(
    ("more", "pieces", "make", "needed"),
    [
        ({"first_facing_mm": 1}, 61, 1836, 31),  # (3000 − 151)/46 = 61.93
        ({"bar_mm": 150 + 46 * 62}, 62, 1836, 30),  # exactly 62; 1836/62 = 29.6
        ({"bar_mm": 150 + 46 * 62 - 0.001}, 61, 1836, 31),
        ({"scrap_fraction": 0}, 61, 1800, 30),
        ({"quantity": 50, "scrap_fraction": 0.02}, 61, 51, 1),  # 51.000000000000004 by the machine's figures
        ({"quantity": 1, "scrap_fraction": 0.02}, 61, 2, 1),
        ({"bar_mm": 196 - 1e-6}, 0, 1836, None),
    ],
)
def test_pieces_of_a_bar_and_bars_of_a_run_by_hand(more, pieces, make, needed):
    found = bars(**more)
    assert (found.pieces_per_bar, found.pieces_to_make, found.bars) == (pieces, make, needed)
    assert [n.code for n in found.notes] == ([] if pieces else ["bar-too-short"])


@given(st.floats(10, 6000), st.floats(0, 500), st.floats(1, 300), st.floats(0, 6), st.integers(1, 5000))
def test_what_is_cut_is_there_and_one_more_is_not(bar, left, part, kerf, quantity):
    found = bars(bar_mm=bar, remnant_mm=left, part_mm=part, kerf_mm=kerf, quantity=quantity)
    each = part + kerf + 1
    assert found.pieces_per_bar * each <= max(0, bar - left) + 1e-6 * each
    assert (found.pieces_per_bar + 1) * each > bar - left - 1e-6 * each
    if found.bars is not None:
        assert (found.bars - 1) * found.pieces_per_bar < found.pieces_to_make <= found.bars * found.pieces_per_bar


def move(distance, rapid=24.0, acceleration=3.0):
    return move_time(MoveTimeInput(distance, rapid, acceleration)).seconds


@pytest.mark.parametrize(
    ("distance", "seconds"),
    [
        (100, 0.383),  # 0.1/0.4 + 0.4/3
        (10, 0.115),  # 2·√(0.01/3)
        (0, 0.0),
        (1000 * 0.4**2 / 3, 2 * 0.4 / 3),  # just reaches full rapid
    ],
)
def test_a_move_by_hand(distance, seconds):
    assert move(distance) == pytest.approx(seconds, abs=5e-4)


@given(st.floats(0, 5000), st.floats(0.01, 100), st.floats(1, 60), st.floats(0.2, 20))
def test_farther_takes_longer_and_stopping_between_never_helps(far, further, rapid, acceleration):
    alone, more = move(far, rapid, acceleration), move(far + further, rapid, acceleration)
    assert more > alone >= far / (rapid / 0.06) - 1e-9
    assert move(further, rapid, acceleration) + alone >= more - 1e-9

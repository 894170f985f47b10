"""Tool life."""

import pytest
from hypothesis import given
from hypothesis import strategies as st

from calc.cuts.tool_life import ToolLifeInput, tool_life


def life(**changed):
    base = {"speed_m_min": 200, "feed_mm_rev": 0.3, "depth_mm": 2, "speed_ref": 200, "cut_minutes": 4, "quantity": 100}
    return tool_life(ToolLifeInput(**base | changed))


def test_the_reference_lasts_fifteen_minutes():
    assert life().life_min == pytest.approx(15)


def test_twenty_per_cent_faster_by_hand():
    # (1/1.2)^4 = 0.48225
    assert life(speed_m_min=240).life_min == pytest.approx(15 * 0.482253, rel=1e-5)


def test_feed_and_depth_lower_the_speed_that_lasts():
    # v15 = 200 * 0.5^0.3 * 0.5^0.12 = 200 * 0.5^0.42 -> T = 15 * 0.5^(0.42*4)
    assert life(feed_mm_rev=0.6, depth_mm=4).life_min == pytest.approx(15 * 0.5**1.68)


def test_whole_pieces_edges_and_inserts():
    found = life(edges_per_insert=4)  # 3 pieces an edge, 34 edges, 9 inserts
    assert (found.pieces_per_edge, found.edges, found.inserts) == (3, 34, 9)
    assert life(cut_minutes=3.75).pieces_per_edge == 4  # exactly four


def test_an_edge_that_does_not_last_a_piece_is_stopped():
    found = life(cut_minutes=16)
    assert found.pieces_per_edge == 0
    assert [n.level for n in found.notes] == ["stop"]


def test_cheapest_and_fastest_by_hand():
    # n 0.25: T_fast = 3 * 2 = 6 min, T_cheap = 3 * (2 + 4/2) = 12 min
    found = life(machine_per_min=2, edge_cost=4, change_min=2)
    assert found.fastest_m_min == pytest.approx(200 * (15 / 6) ** 0.25)
    assert found.cheapest_m_min == pytest.approx(200 * (15 / 12) ** 0.25)
    assert life().cheapest_m_min is None


@given(st.floats(20, 400), st.floats(1.01, 2))
def test_faster_never_lasts_longer(speed, times):
    slow, fast = life(speed_m_min=speed).life_min, life(speed_m_min=speed * times).life_min
    assert fast < slow or fast == slow == 60.0  # an hour is the most that is counted


def test_no_life_over_an_hour_is_counted():
    # 15·(200/100)^4 = 240 min by the law
    found = life(speed_m_min=100)
    assert found.life_min == 60.0
    assert "life-counted" in {n.code for n in found.notes}
    assert life(speed_m_min=200).life_min == 15.0


@given(st.floats(0.5, 5), st.floats(0.5, 60), st.floats(0.5, 10))
def test_the_cheapest_speed_is_cheapest(per_min, edge, change):
    found = life(machine_per_min=per_min, edge_cost=edge, change_min=change)

    def cost(v):  # of a piece whose time in cut goes with 1/v
        minutes = 4 * 200 / v
        lasts = 15 * (200 / v) ** 4
        return per_min * minutes + minutes / lasts * (per_min * change + edge)

    best = cost(found.cheapest_m_min)
    assert best <= cost(found.cheapest_m_min * 1.02)
    assert best <= cost(found.cheapest_m_min * 0.98)

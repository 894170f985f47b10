from dataclasses import replace

import pytest
from hypothesis import given
from hypothesis import strategies as st

from calc.errors import CalcError
from calc.jaws.bore import JawBoreInput, jaw_bore

GIVEN = JawBoreInput("od", 84, 54, 40, 35, 40, floor_min_mm=6, edge_mm=0.3, tool_clearance_mm=1)


def codes(given):
    return {n.code: n.level for n in jaw_bore(given).notes}


def test_the_pocket_by_hand():
    r = jaw_bore(GIVEN)
    assert r.bore_diameter_mm == 84
    assert r.bore_depth_mm == 18  # a third of 54, a round figure already
    assert r.floor_mm == 22
    assert r.start_diameter_mm == 68  # 2·35 − 2·1
    assert r.grip_fraction == pytest.approx(1 / 3)
    assert r.groove_depth_mm == pytest.approx(0.4)
    assert r.groove_width_mm == 1.5
    assert r.grip_length_mm == pytest.approx(18 - 1.5 - 0.3)


@pytest.mark.parametrize(("length", "depth"), [(54, 18), (54.1, 18.5), (55.5, 18.5), (56, 19)])
def test_a_third_is_rounded_up_to_half_a_millimetre(length, depth):
    assert jaw_bore(replace(GIVEN, part_length_mm=length)).bore_depth_mm == depth


def test_inside_jaws_start_outside_their_outer_end():
    assert jaw_bore(replace(GIVEN, side="id", grip_diameter_mm=60)).start_diameter_mm == 72


@pytest.mark.parametrize(("depth", "fine"), [(39.999, True), (40.0, True), (40.001, False)])
def test_never_deeper_than_the_plain_length(depth, fine):
    given = replace(GIVEN, depth_mm=depth, jaw_height_mm=60)
    if fine:
        assert jaw_bore(given).bore_depth_mm == depth
    else:
        with pytest.raises(CalcError) as refused:
            jaw_bore(given)
        assert refused.value.errors[0].field == "depth_mm"


@pytest.mark.parametrize(("depth", "stopped"), [(33.99, False), (34.0, False), (34.01, True)])
def test_the_floor_just_above_at_and_below_its_least(depth, stopped):
    assert ("floor-too-thin" in codes(replace(GIVEN, depth_mm=depth))) is stopped


@pytest.mark.parametrize(("depth", "said"), [(18.01, False), (18.0, False), (17.99, True)])
def test_a_third_is_told_when_it_is_missed(depth, said):
    assert ("short-grip" in codes(replace(GIVEN, depth_mm=depth))) is said


@pytest.mark.parametrize(("face", "stopped"), [(41.99, False), (42.0, True), (43.0, True)])
def test_there_must_be_metal_to_bore(face, stopped):
    assert ("no-metal" in codes(replace(GIVEN, face_radius_mm=face))) is stopped


def test_a_short_plain_length_bounds_the_rule():
    r = jaw_bore(replace(GIVEN, plain_length_mm=12))
    assert r.bore_depth_mm == 12
    assert "short-grip" in {n.code for n in r.notes}


def test_a_shoulder_on_the_jaw_face_needs_a_deeper_pocket():
    seated = replace(GIVEN, seat="face", plain_length_mm=20)
    r = jaw_bore(seated)
    assert r.bore_depth_mm == 21
    assert r.grip_length_mm == pytest.approx(19.7)
    with pytest.raises(CalcError):
        jaw_bore(replace(seated, depth_mm=20.0))


def test_nothing_left_to_touch_is_refused():
    with pytest.raises(CalcError):
        jaw_bore(replace(GIVEN, depth_mm=1.5))


def test_plain_length_beyond_the_part_is_refused():
    with pytest.raises(CalcError) as refused:
        replace(GIVEN, plain_length_mm=60)
    assert refused.value.errors[0].field == "plain_length_mm"


@given(st.floats(0, 3))
def test_the_groove_is_always_larger_than_the_edge(edge):
    r = jaw_bore(replace(GIVEN, edge_mm=edge))
    assert r.groove_depth_mm > edge
    assert r.groove_width_mm > edge

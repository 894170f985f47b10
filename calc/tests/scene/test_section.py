"""Each fact that moves a dimension moves the scene, by the same millimetres."""

import pytest

from calc.plan.scenes import drawings_of
from calc.scene.shapes import Scene
from calc.tests.plans import CHUCK, drawn, plan, shelf_with


def view(result, name="section"):
    return drawn(result, name)


def dimensions(result):
    scenes = [one for drawing in drawings_of(result.views[0]) if isinstance(one := drawing.draw(), Scene)]
    return {d.name: d for scene in scenes for d in scene.dimensions}


def shape(result, name):
    return next(s for s in view(result).shapes if s.name == name)


# (fact, new value, dimension that shows it, what it must measure)
MOVES = [
    ("part__profile__outside__o1__diameter_mm", 80.0, "diameter-o1", 80.0),
    ("part__profile__outside__o1__diameter_mm", 80.0, "bore_diameter", 80.0),
    ("part__profile__outside__o1__length_mm", 44.0, "length-o1", 44.0),
    ("part__profile__outside__o1__length_mm", 44.0, "length", 58.0),
    ("part__profile__outside__o2__length_mm", 20.0, "length-o2", 20.0),
    ("part__profile__outside__o2__diameter_mm", 110.0, "diameter-o2", 110.0),
    ("part__stock__diameter_mm", 130.0, "stock", 130.0),
    ("part__profile__inside__i1__diameter_mm", 40.0, "inside-i1", 40.0),
    ("setups__s1__hold__depth_mm", 16.0, "depth", 16.0),
    ("setups__s1__hold__depth_mm", 16.0, "floor", 14.0),
    ("setups__s1__hold__depth_mm", 16.0, "grip-height", 57.0),
    ("setups__s1__hold__jaw_height_mm", 46.0, "jaw-height", 46.0),
    ("setups__s1__hold__jaw_height_mm", 46.0, "floor", 6.0),
    ("setups__s1__cuts__c1__to_diameter_mm", 60.0, "cut_c1_to_diameter_mm", 60.0),
    ("part__face_stock_mm", 5.0, "overhang", 49.0),
]


@pytest.mark.parametrize(("fact", "value", "name", "measures"), MOVES)
def test_a_fact_moves_its_dimension_in_mm(fact, value, name, measures):
    before, after = plan(), plan(**{fact: value})
    name = {"bore_diameter": "bore-jaws"}.get(name, name)
    assert dimensions(after)[name].measured_mm == pytest.approx(measures)
    assert dimensions(after)[name].figure.value == pytest.approx(measures)
    assert dimensions(before)[name].measured_mm != pytest.approx(measures)


def test_the_bored_wall_lies_on_the_part():
    result = plan()
    jaw, part = shape(result, "jaw"), shape(result, "part")
    assert (42.0) in {y for _, y in jaw.points}
    assert max(y for x, y in part.points if x < max(x for x, _ in jaw.points)) == pytest.approx(42.0)
    # seated on the floor: the part's gripped end is where the pocket ends
    assert min(x for x, _ in part.points) == pytest.approx(80 + 15 + 50 - 20)


def test_seated_on_its_shoulder_the_part_stands_off_the_floor():
    result = plan(
        setups__s1__hold__seat="face", part__profile__outside__o1__length_mm=20.0, setups__s1__hold__depth_mm=None
    )
    floor = 80 + 15 + 50 - 21
    assert min(x for x, _ in shape(result, "part").points) == pytest.approx(floor + 1)


def test_cut_regions_are_the_metal_that_goes():
    face, turn = shape(plan(), "cut-c1"), shape(plan(), "cut-c2")
    assert {y for _, y in face.points} == {26.0, 61.0}
    assert {y for _, y in turn.points} == {59.5, 61.0}
    width = max(x for x, _ in face.points) - min(x for x, _ in face.points)
    assert width == pytest.approx(2.0)


def test_a_live_centre_is_drawn_when_there_is_one():
    assert "live-centre" not in {s.name for s in view(plan()).shapes}
    assert "live-centre" in {s.name for s in view(plan(setups__s1__hold__live_centre=True)).shapes}


def test_what_has_no_figures_is_left_out_and_said():
    nothing = view(plan(part__profile__outside__o1__diameter_mm=None))
    assert [s.name for s in nothing.shapes] == ["axis"]
    assert "Part" in str(nothing.words[0])
    no_jaw = view(plan(shelf_with(chuck=None)))
    assert "part" in {s.name for s in no_jaw.shapes}
    assert "jaw" not in {s.name for s in no_jaw.shapes}


def test_words_tell_the_same():
    said = " ".join(w.text("inch") for w in view(plan()).words)
    assert "3.307\xa0in" in said
    assert "Turn" in said


def test_a_longer_chuck_shifts_everything_alike():
    from dataclasses import replace

    before, after = plan(), plan(shelf_with(chuck=replace(CHUCK, body_length_mm=100)))
    for a, b in zip(shape(before, "part").points, shape(after, "part").points, strict=True):
        assert b[0] - a[0] == pytest.approx(20)
        assert b[1] == a[1]

"""The section on paper: well-formed, to scale, and the figures that were asked for."""

import re
import xml.etree.ElementTree as ET

import pytest

from calc.card.picture import plain_svg, svg_of
from calc.plan.hold.solve import HOLD
from calc.plan.part.drawn import drawings
from calc.plan.scenes import section
from calc.tests.card.test_steps import computed

SVG = "{http://www.w3.org/2000/svg}"


@pytest.mark.parametrize("name", ["spigot", "bronze", "collet", "hexagon"])
def test_it_is_drawn_to_scale_with_the_figures_asked_for(name):
    view = computed(name).views[0]
    scene = section(view)
    drawn = ET.fromstring(svg_of(scene, "metric", 86.0, ("bore", "depth")))  # our own
    left, low, right, high = scene.box
    box = [float(v) for v in drawn.get("viewBox").split()]
    assert box == pytest.approx([left, -high, right - left, high - low], abs=2e-3)
    assert drawn.get("width") == "86mm"
    tall = float(drawn.get("height").removesuffix("mm"))
    assert tall / 86 == pytest.approx((high - low) / (right - left), rel=1e-3)
    said = [t.text for t in drawn.iter(f"{SVG}text")]
    wanted = [d for d in scene.dimensions if d.fact in ("bore", "depth")]
    assert len(said) == len(wanted)
    if name == "spigot":
        assert any(f"{view[HOLD].pocket.bore_depth_mm:.2f}" in s for s in said)


def test_in_inches_the_figures_are_inches():
    scene = section(computed("spigot").views[0])
    drawn = ET.fromstring(svg_of(scene, "inch", 86.0, ("depth",)))  # our own
    assert all(t.text.endswith("in") for t in drawn.iter(f"{SVG}text"))


@pytest.mark.parametrize("name", ["spigot", "bronze", "hexagon"])
def test_a_small_picture_has_all_its_words_within_its_edges(name):
    scene = next(iter(drawings(computed(name).views[0]))).draw()
    drawn = ET.fromstring(plain_svg(scene, "inch", 76.0))  # our own
    left, top, wide, tall = (float(v) for v in drawn.get("viewBox").split())
    upright = 0
    for text in drawn.iter(f"{SVG}text"):
        turned = re.match(r"translate\((\S+) (\S+)\) rotate\(-90\)", text.get("transform") or "")
        if turned:  # it stands on its line: its letters reach left of it
            upright += 1
            x, y, size = float(turned[1]), float(turned[2]), float(text.get("font-size"))
            half = 0.3 * size * len(text.text)
            assert left < x - size and x < left + wide
            assert top < y - half and y + half < top + tall
    assert upright > 1
    assert any("stroke-dasharray" in ET.tostring(p, "unicode") for p in drawn.iter(f"{SVG}path"))  # the stock

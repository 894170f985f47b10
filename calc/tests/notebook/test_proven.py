"""How like a proven cut is."""

from dataclasses import replace

import pytest

from calc.errors import CalcError
from calc.notebook.proven import Proven, Situation, likeness, most_like

CUT = Proven(
    "turn",
    "carbon steel C45",
    200,
    0.2,
    iso_group="P",
    stage="rough",
    diameter_mm=50,
    machine="Lathe 3",
    insert="CNMG 120408",
    holder="H",
)
NOW = Situation("turn", "rough", "carbon steel C45", "P", "Lathe 3", "CNMG 120408", "H", 50.0)


def test_the_very_same_is_wholly_like():
    assert likeness(NOW, CUT).score == 100


@pytest.mark.parametrize(
    ("changed", "score"),
    [
        ({"material": "C22"}, 78),
        ({"material": "C22", "iso_group": "M"}, 60),
        ({"insert": "CNMG 120412"}, 90),
        ({"insert": "WNMG 080408"}, 80),
        ({"stage": "finish"}, 90),
        ({"machine": "Lathe 5"}, 90),
        ({"holder": ""}, 95),
        ({"diameter_mm": 100.0}, 85),
        ({"diameter_mm": None}, 85),
        ({"kind": "bore"}, 0),
    ],
)
def test_each_difference_costs_its_weight(changed, score):
    assert likeness(NOW, replace(CUT, **changed)).score == pytest.approx(score)


def test_the_most_like_come_first_and_the_strange_not_at_all():
    far = replace(CUT, material="Ti", iso_group="S", machine="", insert="", holder="", diameter_mm=None)
    near = replace(CUT, machine="Lathe 5")
    assert [x.proven for x in most_like(NOW, [far, near, CUT])] == [CUT, near]


def test_why_is_said():
    said = " ".join(str(r) for r in likeness(NOW, CUT).reasons)
    for word in ("same material", "same edge", "roughing too", "same machine", "same holder", "like diameter"):
        assert word in said


def test_a_cut_needs_its_material_and_a_real_date():
    with pytest.raises(CalcError, match="Write what was cut"):
        replace(CUT, material=" ")
    with pytest.raises(CalcError, match="year-month-day"):
        replace(CUT, on="2026-13-40")

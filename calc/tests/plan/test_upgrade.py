"""Documents of before."""

from __future__ import annotations

from calc.plan.document import Document
from calc.plan.upgrade import upgraded
from calc.reading import read, write


def test_a_document_of_version_1_becomes_version_2_and_one_of_version_2_stays():
    old = {
        "version": 1,
        "part": {
            "quantity": 5,
            "edge_mm": 0.3,
            "face_stock_mm": 1.0,
            "profile": {
                "outside": [
                    {
                        "name": "Spigot",
                        "diameter_mm": 84.0,
                        "length_mm": 40.0,
                        "upper_mm": 0.0,
                        "lower_mm": -0.03,
                        "stock_diameter_mm": None,
                    },
                    {"name": "Flange", "diameter_mm": 118.0, "length_mm": 14.0, "stock_diameter_mm": 122.0},
                ],
                "inside": [{"diameter_mm": 52.0}],
            },
        },
        "setups": [{"name": "Side 2", "hold": {"depth_mm": 20.0}}],
    }
    now = upgraded(old)
    document = read(Document, now)
    assert (document.version, document.part.stock.diameter_mm, document.sides.first_end) == (2, 122.0, "b")
    assert document.setups[0].hold.grip == "outside:Spigot"
    assert [s.name for s in document.part.profile.inside] == ["Bore"]
    assert upgraded(now) == now == write(document)
    assert (
        upgraded(
            {**old, "part": {**old["part"], "profile": {**old["part"]["profile"], "inside": [{"diameter_mm": None}]}}}
        )["part"]["profile"]["inside"]
        == []
    )

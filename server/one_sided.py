"""A seal carrier planned for one side, and a vent plug in inches: what the server's tests work on."""

from __future__ import annotations

from server.apps.demo.runs import INCH
from server.apps.demo.runs import RUNS as DEMO_RUNS
from server.apps.demo.shop import Row

MEDIUM = "cnmg120408-medium-steel/cn1204-out-25"
SEAL_CARRIER: Row = {
    "version": 3,
    "part": {
        "quantity": 240,
        "edge_mm": 0.3,
        "face_stock_mm": 2.0,
        "profile": {
            "outside": [
                {"name": "Spigot", "diameter_mm": 84.0, "length_mm": 40.0, "upper_mm": 0.0, "lower_mm": -0.035},
                {"name": "Flange", "diameter_mm": 118.0, "length_mm": 14.0},
            ],
            "inside": [{"name": "Bore", "diameter_mm": 52.0}],
        },
        "stock": {"diameter_mm": 122.0},
    },
    "sides": {"first_end": "b"},
    "setups": [
        {
            "name": "Side 2, flange end",
            "hold": {"grip": "outside:o1", "depth_mm": 22.0, "friction": "turned"},
            "force": {"pressure_bar": 28.0, "condition": "unknown"},
            "clamp_rpm": 600.0,
            "cuts": [
                {
                    "name": "Face",
                    "kind": "face",
                    "from_diameter_mm": 122.0,
                    "to_diameter_mm": 52.0,
                    "speed_m_min": 90.0,
                    "feed_mm_rev": 0.15,
                    "depth_mm": 1.0,
                    "tool": MEDIUM,
                },
                {
                    "name": "Rough flange",
                    "kind": "turn",
                    "from_diameter_mm": 122.0,
                    "to_diameter_mm": 119.0,
                    "speed_m_min": 90.0,
                    "feed_mm_rev": 0.15,
                    "depth_mm": 1.5,
                    "tool": MEDIUM,
                },
                {
                    "name": "Finish flange",
                    "kind": "turn",
                    "from_diameter_mm": 119.0,
                    "to_diameter_mm": 118.0,
                    "speed_m_min": 110.0,
                    "feed_mm_rev": 0.12,
                    "depth_mm": 0.5,
                    "tool": "dnmg150604-finish-steel/dn1506-out-25",
                },
            ],
        }
    ],
}


TYPED = {"part.profile.outside.o1.diameter_mm": "1 1/2 in", "setups.s1.cuts.c1.depth_mm": "1/16"}

VENT_PLUG: Row = {
    "version": 3,
    "part": {
        "quantity": 600,
        "edge_mm": 0.01 * INCH,
        "face_stock_mm": 0.0,
        "profile": {
            "outside": [
                {
                    "name": "Bar",
                    "diameter_mm": 1.5 * INCH,
                    "length_mm": 0.875 * INCH,
                    "upper_mm": 0.0,
                    "lower_mm": -0.003 * INCH,
                },
                {"name": "Body", "diameter_mm": 1.25 * INCH, "length_mm": 0.75 * INCH},
            ]
        },
        "stock": {"form": "bar", "surface": "drawn", "diameter_mm": 1.5 * INCH},
    },
    "sides": {"first_end": "b"},
    "setups": [
        {
            "name": "Body end",
            "hold": {"grip": "outside:o1", "depth_mm": 0.625 * INCH, "friction": "ground"},
            "jaws": {"floor_min_mm": 6.0, "tool_clearance_mm": 1.0},
            "force": {
                "pressure_bar": 18.0,
                "condition": "unknown",
                "condition_measured": None,
                "condition_date": None,
                "user_max_rpm": None,
            },
            "clamp_rpm": 1900.0,
            "cuts": [
                {
                    "name": "Turn body",
                    "kind": "turn",
                    "from_diameter_mm": 1.5 * INCH,
                    "to_diameter_mm": 1.25 * INCH,
                    "speed_m_min": 304.8,
                    "rpm": None,
                    "feed_mm_rev": 0.006 * INCH,
                    "depth_mm": 0.0625 * INCH,
                    "tool": "ccgt09t304-medium-bright/cc09t3-out-20",
                    "interrupted": False,
                    "feeds": "chuck",
                }
            ],
        }
    ],
}


def runs() -> list[Row]:
    """The demo's runs with this seal carrier in place of its own, and the vent plug."""
    setups = [{"chuck": "lathe-3-chuck", "jaw_blank": "l3-steel-50"}]
    vent = next(r for r in DEMO_RUNS if r["drawing_number"] == "LH-2215") | {"document": VENT_PLUG, "typed": TYPED}
    return [DEMO_RUNS[0] | {"document": SEAL_CARRIER, "setups": setups}, vent]

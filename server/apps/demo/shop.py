"""Larkspur Hydro Works, the made-up shop of the demo: its machines, chucks, jaw blanks and runs."""

from __future__ import annotations

from typing import Any

INCH = 25.4

MACHINES: list[dict[str, Any]] = [
    {"key": "lathe-3", "name": "Lathe 3", "max_rpm": 4500, "power_kw": 15, "torque_nm": 180, "turret_stations": 12},
    {"key": "lathe-5", "name": "Lathe 5", "max_rpm": 3500, "power_kw": 22, "torque_nm": 420, "turret_stations": 12},
    {"key": "twin-2", "name": "Twin 2", "max_rpm": 5000, "power_kw": 11, "torque_nm": 70, "turret_stations": 16},
]

CHUCKS: list[dict[str, Any]] = [
    {
        "key": "lathe-3-chuck", "name": "Lathe 3 chuck, 8-inch class", "machine": "lathe-3", "max_grip_n": 108_000,
        "max_pressure_bar": 32, "max_rpm": 4500, "reference_height_mm": 50, "guide_length_mm": 82,
        "body_diameter_mm": 210, "body_length_mm": 84, "guide_to_jaw_base_mm": 12, "jaw_stroke_mm": 5.5,
        "serration_pitch_mm": 1.5, "heaviest_jaw_kg": 2.2, "master_mass_kg": 1.35, "master_radius_mm": 72,
        "bolt_size": "M12", "bolt_torque_steel_nm": 100, "bolt_torque_aluminium_nm": 70,
        "chart": [(4, 13_000), (10, 33_500), (20, 67_500), (30, 101_000), (32, 107_500)],
    },
    {
        "key": "lathe-5-chuck", "name": "Lathe 5 chuck, 10-inch class", "machine": "lathe-5", "max_grip_n": 150_000,
        "max_pressure_bar": 30, "max_rpm": 3500, "reference_height_mm": 60, "guide_length_mm": 100,
        "piston_area_mm2": 16_200, "force_ratio": 3.0, "efficiency": 0.95, "max_draw_n": 50_000,
        "body_diameter_mm": 254, "body_length_mm": 100, "guide_to_jaw_base_mm": 14, "jaw_stroke_mm": 6.4,
        "serration_pitch_mm": 1.5, "heaviest_jaw_kg": 3.6, "master_mass_kg": 2.3, "master_radius_mm": 88,
        "bolt_size": "M16", "bolt_torque_steel_nm": 210, "bolt_torque_aluminium_nm": 150, "chart": [],
    },
    {
        "key": "twin-2-chuck", "name": "Twin 2 main chuck, 6-inch class", "machine": "twin-2", "max_grip_n": 57_000,
        "max_pressure_bar": 27, "max_rpm": 6000, "reference_height_mm": 40, "guide_length_mm": 62,
        "body_diameter_mm": 165, "body_length_mm": 70, "guide_to_jaw_base_mm": 10, "jaw_stroke_mm": 2.75,
        "serration_pitch_mm": 1.5, "heaviest_jaw_kg": 1.0, "master_mass_kg": 0.62, "master_radius_mm": 55,
        "bolt_size": "M10", "bolt_torque_steel_nm": 60, "bolt_torque_aluminium_nm": 42,
        "chart": [(4, 7_500), (10, 20_500), (20, 42_000), (27, 56_500)],
    },
]  # fmt: skip


def _blank(
    key: str, metal: str, size: tuple[float, float, float], heads: float, face: float, chuck: str
) -> dict[str, Any]:
    width, length, height = size
    return {
        "key": key, "name": f"{metal} {height:g} high, face Ø{2 * face:g}", "metal": metal, "width_mm": width,
        "length_mm": length, "height_mm": height, "density_kg_dm3": 7.85 if metal == "steel" else 2.7,
        "bolt_head_mm": heads, "face_radius_mm": face, "chucks": [chuck],
    }  # fmt: skip


BLANKS: list[dict[str, Any]] = [
    _blank(f"{tag}-{metal}-{height:g}", metal, (width, length, height), heads, face, chuck)
    for tag, chuck, width, length, heads, face, heights in (
        ("l3", "lathe-3-chuck", 40, 75, 20, 35, (50, 64)),
        ("l5", "lathe-5-chuck", 50, 90, 24, 60, (56, 72)),
        ("t2", "twin-2-chuck", 26, 55, 16, 12, (38, 50)),
    )
    for metal in ("steel", "aluminium")
    for height in heights
]

SEAL_CARRIER: dict[str, Any] = {
    "version": 1,
    "part": {
        "quantity": 240, "edge_mm": 0.3, "face_stock_mm": 2.0,
        "profile": {
            "outside": [
                {"name": "Spigot", "diameter_mm": 84.0, "length_mm": 40.0, "upper_mm": 0.0, "lower_mm": -0.035,
                 "stock_diameter_mm": None},
                {"name": "Flange", "diameter_mm": 118.0, "length_mm": 14.0, "upper_mm": None, "lower_mm": None,
                 "stock_diameter_mm": 122.0},
            ],
            "inside": [{"diameter_mm": 52.0}],
        },
    },
    "setups": [
        {
            "name": "Side 2, flange end",
            "hold": {"jaw_height_mm": None, "depth_mm": 22.0, "seat": "floor", "live_centre": False,
                     "friction": "turned"},
            "jaws": {"floor_min_mm": 6.0, "tool_clearance_mm": 1.0},
            "force": {"pressure_bar": 28.0, "condition": "unknown", "condition_measured": None, "condition_date": None,
                      "safety": 2.0, "user_max_rpm": None},
            "clamp_rpm": 600.0,
            "cuts": [
                {"name": "Face", "kind": "face", "from_diameter_mm": 122.0, "to_diameter_mm": 52.0, "speed_m_min": 90.0,
                 "rpm": None, "feed_mm_rev": 0.15, "depth_mm": 1.0, "corner_radius_mm": 0.8, "approach_deg": 95.0,
                 "rake_deg": 6.0, "interrupted": False, "feeds": "chuck"},
                {"name": "Rough flange", "kind": "turn", "from_diameter_mm": 122.0, "to_diameter_mm": 119.0,
                 "speed_m_min": 90.0, "rpm": None, "feed_mm_rev": 0.15, "depth_mm": 1.5, "corner_radius_mm": 0.8,
                 "approach_deg": 95.0, "rake_deg": 6.0, "interrupted": False, "feeds": "chuck"},
                {"name": "Finish flange", "kind": "turn", "from_diameter_mm": 119.0, "to_diameter_mm": 118.0,
                 "speed_m_min": 110.0, "rpm": None, "feed_mm_rev": 0.12, "depth_mm": 0.5, "corner_radius_mm": 0.4,
                 "approach_deg": 93.0, "rake_deg": 6.0, "interrupted": False, "feeds": "chuck"},
            ],
        }
    ],
}  # fmt: skip

VENT_PLUG: dict[str, Any] = {
    "version": 1,
    "part": {
        "quantity": 600, "edge_mm": 0.01 * INCH, "face_stock_mm": 0.0,
        "profile": {
            "outside": [
                {"name": "Bar", "diameter_mm": 1.5 * INCH, "length_mm": 0.875 * INCH, "upper_mm": 0.0,
                 "lower_mm": -0.003 * INCH, "stock_diameter_mm": None},
                {"name": "Body", "diameter_mm": 1.25 * INCH, "length_mm": 0.75 * INCH, "upper_mm": None,
                 "lower_mm": None, "stock_diameter_mm": 1.5 * INCH},
            ],
            "inside": [{"diameter_mm": None}],
        },
    },
    "setups": [
        {
            "name": "Body end",
            "hold": {"jaw_height_mm": None, "depth_mm": 0.625 * INCH, "seat": "floor", "live_centre": False,
                     "friction": "ground"},
            "jaws": {"floor_min_mm": 6.0, "tool_clearance_mm": 1.0},
            "force": {"pressure_bar": 18.0, "condition": "unknown", "condition_measured": None, "condition_date": None,
                      "safety": 2.0, "user_max_rpm": None},
            "clamp_rpm": 1900.0,
            "cuts": [
                {"name": "Turn body", "kind": "turn", "from_diameter_mm": 1.5 * INCH, "to_diameter_mm": 1.25 * INCH,
                 "speed_m_min": 304.8, "rpm": None, "feed_mm_rev": 0.006 * INCH, "depth_mm": 0.0625 * INCH,
                 "corner_radius_mm": 0.4, "approach_deg": 95.0, "rake_deg": 15.0, "interrupted": False,
                 "feeds": "chuck"},
            ],
        }
    ],
}  # fmt: skip

RUNS: list[dict[str, Any]] = [
    {"drawing_number": "LH-2041", "name": "Seal carrier", "machine": "lathe-3", "material": "1-4462", "units": "metric",
     "document": SEAL_CARRIER, "chuck": "lathe-3-chuck", "jaw_blank": "l3-steel-50", "typed": {}},
    {"drawing_number": "LH-2215", "name": "Vent plug", "machine": "twin-2", "material": "6082-t6", "units": "inch",
     "document": VENT_PLUG, "chuck": "twin-2-chuck", "jaw_blank": "t2-steel-38",
     "typed": {"part.profile.outside.0.diameter_mm": "1 1/2 in", "setups.0.cuts.0.depth_mm": "1/16"}},
]  # fmt: skip

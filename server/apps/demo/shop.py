"""Larkspur Hydro Works, the made-up shop of the demo: its machines, chucks, jaws, what is in stock, and its gauge
runs.
"""

from __future__ import annotations

from typing import Any
from uuid import UUID

Row = dict[str, Any]  # what a form would be given, by name
Rows = list[Row]

MACHINES: Rows = [
    {
        "key": "lathe-3",
        "name": "Lathe 3",
        "max_rpm": 4500,
        "power_kw": 15,
        "torque_nm": 180,
        "turret_stations": 12,
        "turret_radius_mm": 210,
        "swing_mm": 420,
        "turning_length_mm": 500,
        "spindle_load_kg": 220,
        "spindle_bore_mm": 61,
        "centre_n": 5000,
        "shank_mm": 25,
        "bar_seat_mm": 40,
        "feed_word": "G95",
        "clamp_word": "G92",
        "program_word": "O",
        "end_word": "M30",
    },
    {
        "key": "lathe-5",
        "name": "Lathe 5",
        "max_rpm": 3500,
        "power_kw": 22,
        "torque_nm": 420,
        "turret_stations": 12,
        "turret_radius_mm": 250,
        "swing_mm": 560,
        "turning_length_mm": 700,
        "spindle_load_kg": 380,
        "spindle_bore_mm": 86,
        "centre_n": 8000,
        "shank_mm": 25,
        "bar_seat_mm": 50,
    },
    {
        "key": "twin-2",
        "name": "Twin 2",
        "max_rpm": 5000,
        "power_kw": 11,
        "torque_nm": 70,
        "turret_stations": 16,
        "turret_radius_mm": 190,
        "swing_mm": 220,
        "turning_length_mm": 400,
        "spindle_load_kg": 90,
        "spindle_bore_mm": 66,
        "spindle_length_mm": 640,
        "feeder_mm": 65,
        "feeder_length_mm": 3200,
        "feeder_rpm": 4500,
        "remnant_mm": 180,
        "second_rpm": 5000,
        "second_kw": 5.5,
        "second_nm": 35,
        "turrets": 2,
        "shank_mm": 20,
        "bar_seat_mm": 25,
    },
]


def _collet_chuck(
    key: str, spindle: str, force: tuple[float, float, float], body: tuple[float, float, float, float, float]
) -> Row:
    """A collet chuck of Twin 2: (highest pressure, piston area, highest draw), (body Ø, length, nose Ø, nose length,
    hole).
    """
    (bar, piston, draw), (diameter, length, nose, nose_length, hole) = force, body
    return {
        "key": key,
        "name": f"Twin 2 {spindle} collet chuck",
        "closes": "collet",
        "spindle": spindle,
        "draws": "back" if spindle == "main" else "dead",
        "jaws": 3,
        "machine": "twin-2",
        "max_grip_n": round(draw * 3.4),
        "max_pressure_bar": bar,
        "max_rpm": 6000,
        "reference_height_mm": 0,
        "guide_length_mm": 0,
        "piston_area_mm2": piston,
        "efficiency": 0.9,
        "max_draw_n": draw,
        "half_angle_deg": 8,
        "body_diameter_mm": diameter,
        "body_length_mm": length,
        "nose_mm": nose,
        "nose_length_mm": nose_length,
        "bore_mm": hole,
        "mass_kg": 7,
        "guide_to_jaw_base_mm": 0,
        "jaw_stroke_mm": 0,
        "serration_pitch_mm": 0,
        "chart": [],
    }


CHUCKS: Rows = [
    {
        "key": "lathe-3-chuck",
        "name": "Lathe 3 chuck, 8-inch class",
        "jaws": 3,
        "machine": "lathe-3",
        "max_grip_n": 108_000,
        "max_pressure_bar": 32,
        "max_rpm": 4500,
        "reference_height_mm": 50,
        "guide_length_mm": 82,
        "body_diameter_mm": 210,
        "body_length_mm": 84,
        "bore_mm": 52,
        "mass_kg": 22,
        "guide_to_jaw_base_mm": 12,
        "jaw_stroke_mm": 5.5,
        "serration_pitch_mm": 1.5,
        "teeth": 24,
        "tnut_radius_0_mm": 60,
        "heaviest_jaw_kg": 2.2,
        "master_mass_kg": 1.35,
        "master_radius_mm": 72,
        "bolt_size": "M12",
        "bolt_torque_steel_nm": 100,
        "bolt_torque_aluminium_nm": 70,
        "chart": [(4, 13_000), (10, 33_500), (20, 67_500), (30, 101_000), (32, 107_500)],
    },
    {
        "key": "lathe-5-chuck",
        "name": "Lathe 5 chuck, 10-inch class",
        "jaws": 3,
        "machine": "lathe-5",
        "max_grip_n": 150_000,
        "max_pressure_bar": 30,
        "max_rpm": 3500,
        "reference_height_mm": 60,
        "guide_length_mm": 100,
        "piston_area_mm2": 16_200,
        "force_ratio": 3.0,
        "efficiency": 0.95,
        "max_draw_n": 50_000,
        "body_diameter_mm": 254,
        "body_length_mm": 100,
        "bore_mm": 75,
        "mass_kg": 38,
        "guide_to_jaw_base_mm": 14,
        "jaw_stroke_mm": 6.4,
        "serration_pitch_mm": 1.5,
        "teeth": 32,
        "tnut_radius_0_mm": 62,
        "heaviest_jaw_kg": 3.6,
        "master_mass_kg": 2.3,
        "master_radius_mm": 88,
        "bolt_size": "M16",
        "bolt_torque_steel_nm": 210,
        "bolt_torque_aluminium_nm": 150,
        "chart": [],
    },
    {
        "key": "twin-2-chuck",
        "name": "Twin 2 main chuck, 6-inch class",
        "jaws": 3,
        "machine": "twin-2",
        "max_grip_n": 57_000,
        "max_pressure_bar": 27,
        "max_rpm": 6000,
        "reference_height_mm": 40,
        "guide_length_mm": 62,
        "body_diameter_mm": 165,
        "body_length_mm": 70,
        "bore_mm": 45,
        "mass_kg": 12,
        "guide_to_jaw_base_mm": 10,
        "jaw_stroke_mm": 2.75,
        "serration_pitch_mm": 1.5,
        "teeth": 18,
        "tnut_radius_0_mm": 45,
        "heaviest_jaw_kg": 1.0,
        "master_mass_kg": 0.62,
        "master_radius_mm": 55,
        "bolt_size": "M10",
        "bolt_torque_steel_nm": 60,
        "bolt_torque_aluminium_nm": 42,
        "chart": [(4, 7_500), (10, 20_500), (20, 42_000), (27, 56_500)],
    },
    _collet_chuck("twin-2-collet", "main", (27, 9_000, 25_000), (120, 84, 78, 14, 42.5)),
    _collet_chuck("twin-2-second", "second", (27, 7_000, 19_500), (105, 72, 66, 12, 36.5)),
]


def _blank(
    key: str, metal: str, size: tuple[float, float, float], seat: tuple[float, float], chuck: str, word: str = ""
) -> Row:
    (width, length, height), (heads, face) = size, seat
    return {
        "key": key,
        "name": f"{metal} {height:g} high{word}",
        "metal": metal,
        "width_mm": width,
        "length_mm": length,
        "height_mm": height,
        "density_kg_dm3": 7.85 if metal == "steel" else 2.7,
        "bolt_head_mm": heads,
        "face_radius_mm": face,
        "chucks": [chuck],
    }


BLANKS: Rows = (
    [
        _blank(f"{tag}-{metal}-{height:g}", metal, (width, length, height), (heads, face), chuck, f", {tag.upper()}")
        for tag, chuck, width, length, heads, face, heights in (
            ("l3", "lathe-3-chuck", 40, 75, 20, 20, (50, 64)),
            ("l5", "lathe-5-chuck", 50, 90, 24, 40, (56, 72)),
            ("t2", "twin-2-chuck", 26, 55, 16, 8, (38, 50)),
        )
        for metal in ("steel", "aluminium")
        for height in heights
    ]
    + [
        _blank(f"l5-inside-{metal}", metal, (50, 50, 56), (24, 15), "lathe-5-chuck", ", L5 inside")
        for metal in ("steel", "aluminium")
    ]
    + [
        _blank(key, "aluminium", (50, 60, 56), (24, face), "lathe-5-chuck", f" pie, L5 {word}")
        | {"kind": "pie", "width_mm": None, "angle_deg": 118}
        for key, face, word in (("l5-pie", 20, "inside"), ("l5-pie-outside", 58, "outside"))
    ]
)


def _hard(tag: str, chuck: str, size: tuple[float, float, float], seat: tuple[float, ...]) -> Row:
    (width, length, height), (heads, face, step, stands_in) = size, seat
    row = _blank(f"{tag}-hard-{height:g}", "steel", (width, length, height), (heads, face), chuck)
    return row | {"name": f"hard {height:g} high, {tag.upper()}", "kind": "hard", "step_mm": step, "seat_mm": stands_in}


BLANKS += [
    _hard("l3", "lathe-3-chuck", (34, 70, 48), (20, 44, 12, 10)),
    _hard("l5", "lathe-5-chuck", (42, 85, 54), (24, 62, 14, 12)),
    _hard("t2", "twin-2-chuck", (24, 50, 36), (16, 10, 15, 0)),
]


def _collet(key: str, name: str, size: tuple[float, float, float], chuck: str, **more: Any) -> Row:
    nominal, closes, bearing = size
    sizes = {"nominal_mm": nominal, "range_mm": closes, "bearing_mm": bearing}
    return {"key": key, "name": name, **sizes, "chucks": [chuck], **more}


COLLETS: Rows = [
    _collet("collet-36", "Collet 36", (36, 0.5, 34), "twin-2-collet"),
    _collet("collet-38-serrated", "Collet 38 serrated", (38.1, 0.5, 34), "twin-2-collet", face="serrated"),
    _collet("collet-24-hexagon", "Collet hexagon 24", (24, 0.5, 30), "twin-2-collet", form="hexagon"),
    _collet("collet-25", "Collet 25", (25, 0.5, 30), "twin-2-collet"),
    _collet("second-34", "Collet 34, second spindle", (34.2, 0.5, 20), "twin-2-second"),
    _collet("second-22", "Collet 22, second spindle", (22.2, 0.5, 12), "twin-2-second", runout_mm=0.015),
]

RINGS: Rows = [
    {
        "key": "ring-a",
        "name": "Ring A",
        "inner_mm": 85,
        "outer_mm": 130,
        "max_bar": 6,
        "max_rpm": 800,
        "chucks": ["lathe-3-chuck"],
    },
    {
        "key": "ring-b",
        "name": "Ring B",
        "inner_mm": 95,
        "outer_mm": 140,
        "max_bar": 6,
        "max_rpm": 750,
        "chucks": ["lathe-3-chuck"],
    },
    {
        "key": "ring-d",
        "name": "Ring D",
        "inner_mm": 134,
        "outer_mm": 188,
        "max_bar": 5,
        "max_rpm": 600,
        "chucks": ["lathe-3-chuck"],
    },
    {
        "key": "ring-e",
        "name": "Ring E",
        "inner_mm": 80,
        "outer_mm": 138,
        "max_bar": 6,
        "max_rpm": 700,
        "chucks": ["lathe-5-chuck"],
    },
    {
        "key": "ring-f",
        "name": "Ring F, old",
        "inner_mm": 150,
        "outer_mm": 210,
        "max_bar": None,
        "max_rpm": None,
        "chucks": ["lathe-5-chuck"],
    },
    {
        "key": "ring-t",
        "name": "Ring T",
        "inner_mm": 48,
        "outer_mm": 88,
        "max_bar": 5,
        "max_rpm": 1200,
        "chucks": ["twin-2-chuck"],
    },
]

PLUGS: Rows = [
    {"key": f"plug-{d}", "name": f"Plug {d}", "diameter_mm": d, "chucks": chucks}
    for d, chucks in (
        (60, ["lathe-3-chuck", "lathe-5-chuck"]),
        (100, ["lathe-3-chuck", "lathe-5-chuck"]),
        (140, ["lathe-5-chuck"]),
        (25, ["twin-2-chuck"]),
    )
]

SETS: Rows = [
    {
        "key": "set-7",
        "name": "Set 7, spigot",
        "chuck": "lathe-3-chuck",
        "blank": "l3-steel-50",
        "side": "od",
        "bored_mm": 84.0,
        "depth_mm": 22,
        "wall_left_mm": 6.4,
        "tooth": 10,
        "damage_mm": 0,
        "numbers": "1-1 2-2 3-3",
        "stored": "cabinet 2, drawer 4",
        "lent_to": "",
        "life": [
            (212, "bored", 83.7, None, "first cut, ring B"),
            (96, "recut", 83.85, 0.15, "marks after a crash"),
            (40, "recut", 84.0, 0.15, "new batch"),
            (12, "refit", 84.0, None, "runout 0.01"),
        ],
    },
    {
        "key": "set-9",
        "name": "Set 9, spigot",
        "chuck": "lathe-3-chuck",
        "blank": "l3-aluminium-50",
        "side": "od",
        "bored_mm": 84.02,
        "depth_mm": 22,
        "wall_left_mm": 4.1,
        "tooth": 10,
        "damage_mm": 0.1,
        "numbers": "1-1 2-2 3-3",
        "stored": "cabinet 2, drawer 5",
        "lent_to": "Lathe 5",
        "life": [
            (150, "bored", 83.9, None, "first cut"),
            (61, "recut", 84.02, 0.12, ""),
            (9, "lent", None, None, "to Lathe 5, a pump cover"),
        ],
    },
    {
        "key": "set-4",
        "name": "Set 4, spigot",
        "chuck": "lathe-3-chuck",
        "blank": "l3-steel-50",
        "side": "od",
        "bored_mm": 84.1,
        "depth_mm": 22,
        "wall_left_mm": 0.12,
        "tooth": 10,
        "damage_mm": 0.08,
        "numbers": "1-1 2-2 3-3",
        "stored": "cabinet 1, drawer 1",
        "lent_to": "",
        "life": [
            (700, "bored", 82.5, None, "first cut"),
            (520, "recut", 82.9, 0.2, ""),
            (410, "recut", 83.3, 0.2, ""),
            (300, "recut", 83.7, 0.2, ""),
            (120, "recut", 84.1, 0.2, ""),
            (30, "damaged", None, None, "chip under a jaw"),
        ],
    },
    {
        "key": "set-15",
        "name": "Set 15, ring inside",
        "chuck": "lathe-5-chuck",
        "blank": "l5-pie",
        "side": "id",
        "bored_mm": 148.0,
        "depth_mm": 12,
        "wall_left_mm": 9.0,
        "tooth": None,
        "damage_mm": 0,
        "numbers": "1-1 2-2 3-3",
        "stored": "rack 3",
        "lent_to": "",
        "life": [(80, "bored", 148.4, None, "first cut, ring E"), (20, "recut", 148.0, 0.2, "")],
    },
    {
        "key": "set-21",
        "name": "Set 21, bar 1 1/2",
        "chuck": "twin-2-chuck",
        "blank": "t2-steel-38",
        "side": "od",
        "bored_mm": 38.1,
        "depth_mm": 15.875,
        "wall_left_mm": 3.0,
        "tooth": 3,
        "damage_mm": 0,
        "numbers": "1-1 2-2 3-3",
        "stored": "rack 1",
        "lent_to": "",
        "life": [(33, "bored", 38.1, None, "first cut, ring T"), (5, "refit", 38.1, None, "runout 0.02")],
    },
]


# What is in stock of the starting tools: pieces by key.
STOCK = {
    "cnmg120412-rough-stainless": 40,
    "cnmg120408-medium-stainless": 30,
    "cnmg120404-finish-stainless": 20,
    "cnmg120408-medium-steel": 30,
    "cnmg120412-rough-steel": 20,
    "cnmg120404-finish-steel": 10,
    "wnmg080412-rough-stainless": 10,
    "wnmg080408-medium-steel": 40,
    "ccmt09t304-finish-stainless": 30,
    "ccmt09t308-medium-stainless": 20,
    "ccmt09t304-finish-steel": 30,
    "ccmt09t308-medium-steel": 20,
    "ccmt060202-finish-steel": 20,
    "ccmt060204-finish-steel": 20,
    "ccgt09t304-finish-bright": 40,
    "ccgt09t302-finish-bright": 10,
    "ccgt09t304-medium-bright": 20,
    "ccgt09t308-medium-bright": 30,
    "ccgt060204-finish-bright": 10,
    "ccgt060204-medium-bright": 10,
    "dcmt11t304-finish-steel": 20,
    "dcgt11t304-finish-bright": 10,
    "vbmt160404-finish-stainless": 10,
    "dnmg150608-medium-steel": 10,
    "cnmg120408-medium-heat": 6,
    "g-2": 20,
    "g-3": 20,
    "gi-2": 5,
    "p-2": 10,
    "p-3": 30,
    "m15-outside": 12,
    "un16-outside": 10,
    "partial-60-inside-16": 6,
    "partial-60-outside-16": 6,
    "drill-13": 3,
    "drill-13-5": 2,
    "drill-20": 2,
    "drill-25": 2,
    "drill-36": 1,
    "drill-40": 1,
    "drill-48": 1,
    "drill-12": 3,
    "drill-10": 4,
    "drill-9": 4,
    "drill-8": 4,
}

# The grip of Lathe 3's chuck as it was measured: it loses a little every week, and comes back when it is greased.
MEASURED_CHUCK = "lathe-3-chuck"  # greased and measured as told here
GREASED_DAYS_AGO = (150, 78, 4)
_BOOK_24_BAR_N = 80_900.0  # the chuck's chart at 24 bar


def _measured(days: int, condition: float, *, sticking: float = 0.012) -> Row:
    model = {"static_n": _BOOK_24_BAR_N * condition, "loss": 0.0058, "sticking": sticking, "top_rpm": 2400.0}
    return {
        "days": days,
        "side": "od",
        "pressure_bar": 24.0,
        "grip_height_mm": 60.0,
        "jaw_mass_kg": 1.45,
        "jaw_radius_mm": 72.0,
        "key": UUID(int=0x6E0B1E000 + days),
        "model": model,
    }


GAUGE_RUNS = [
    _measured(149, 0.96),
    _measured(128, 0.93),
    _measured(107, 0.89, sticking=0.02),
    _measured(86, 0.84, sticking=0.03),
    _measured(77, 0.96),
    _measured(56, 0.93),
    _measured(35, 0.90, sticking=0.02),
    _measured(14, 0.86, sticking=0.03),
    _measured(3, 0.95),
]

SHELF: dict[str, Rows] = {
    "machine": MACHINES,
    "chuck": CHUCKS,
    "collet": COLLETS,
    "jaw_blank": BLANKS,
    "ring": RINGS,
    "plug": PLUGS,
    "jaw_set": SETS,
}

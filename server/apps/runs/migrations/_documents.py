"""How plan documents were kept, and how each form becomes the next: frozen, because kept runs of old rely on it."""

from __future__ import annotations

from dataclasses import dataclass, field
from typing import Any

Plain = dict[str, Any]

# What version 3 fills in where nothing was said.
STEP: Plain = {
    "diameter_mm": None,
    "length_mm": None,
    "upper_mm": None,
    "lower_mm": None,
    "fit": "",
    "end_diameter_mm": None,
    "arc_mm": None,
    "chamfer_mm": None,
    "round_mm": None,
    "corner_mm": None,
    "ra_um": None,
    "thread": "",
    "thread_length_mm": None,
    "groove": False,
}

CUT: Plain = {
    "from_diameter_mm": None,
    "to_diameter_mm": None,
    "speed_m_min": None,
    "rpm": None,
    "feed_mm_rev": None,
    "depth_mm": None,
    "corner_radius_mm": 0.8,
    "approach_deg": 95.0,
    "rake_deg": 6.0,
    "interrupted": False,
    "feeds": "chuck",
    "width_mm": None,
    "point_deg": 140.0,
    "passes": 6,
    "stage": "both",
    "start_mm": 0.0,
    "length_mm": None,
    "tool": "",
    "thread": "",
    "slow_feed_mm_rev": None,
    "slow_below_mm": 5.0,
    "pin_speed": False,
    "pin_feed": False,
    "pin_depth": False,
}

SETUP: Plain = {
    "hold": {
        "grip": "",
        "jaw_height_mm": None,
        "depth_mm": None,
        "seat": "floor",
        "live_centre": False,
        "friction": "auto",
    },
    "jaws": {
        "floor_min_mm": 6.0,
        "tool_clearance_mm": 1.0,
        "tooth": None,
        "position": 0.5,
        "cleanup_mm": 1.0,
        "ring_clearance_mm": 3.0,
        "feeler_mm": None,
        "blue": "none",
        "taper_step_mm": 0.02,
        "reading_mm": None,
        "paper_mm": 0.08,
        "recut_limit_mm": 1.0,
        "program": None,
        "spindle": "ask",
        "boring_speed_m_min": 80.0,
        "boring_feed_mm_rev": 0.12,
        "boring_depth_mm": 1.0,
    },
    "force": {
        "pressure_bar": None,
        "condition": "auto",
        "condition_measured": None,
        "condition_date": None,
        "user_max_rpm": None,
        "wanted_rpm": None,
        "offset_mm": 0.0,
        "pin_pressure": False,
        "brake_s": None,
    },
    "clamp_rpm": None,
}

PART: Plain = {
    "stock": {
        "form": "slug",
        "surface": "rough",
        "diameter_mm": None,
        "smallest_mm": None,
        "largest_mm": None,
        "bore_mm": None,
    },
    "quantity": None,
    "edge_mm": 0.3,
    "face_stock_mm": 0.0,
    "roundness_mm": None,
}

REST: Plain = {
    "sides": {"first_end": "proposed", "two_step": False},
    "rules": {
        "number": 1,
        "safety": 2.0,
        "worn": 1.3,
        "interrupted": 1.25,
        "friction_turned": 0.1,
        "friction_ground": 0.07,
        "friction_rough": 0.15,
        "condition_today": 1.0,
        "condition_week": 0.85,
        "condition_unknown": 0.5,
        "corner_friction_pct": 25.0,
        "corner_condition_pct": 15.0,
        "corner_force_pct": 20.0,
        "wall_share_pct": 33.333333333333336,
        "gauge_days": 90,
        "jaw_boring": "ring",
        "rougher": "rhombic",
        "thread_relief": "groove",
        "part_start": "mid",
        "first_speed": "proven",
        "finish_stock_mm": 0.5,
        "least_life_min": 15.0,
        "raw_stock": "nominal",
    },
}


STEMS = {"outside": "o", "inside": "i", "inside_b": "b", "setups": "s", "cuts": "c", "departures": "d"}


def version_2(plain: Plain) -> Plain:
    """Version 1 had one set-up, held on its first outside step, and one bore that goes through."""
    if plain.get("version") != 1:
        return plain
    part = plain["part"]
    profile = part["profile"]
    steps = profile["outside"]
    stocks = [s["stock_diameter_mm"] for s in steps if s.get("stock_diameter_mm")]
    bores = [{"name": "Bore", "diameter_mm": s["diameter_mm"]} for s in profile.get("inside", []) if s["diameter_mm"]]
    setups = []
    for setup in plain["setups"]:
        force = {k: v for k, v in setup.get("force", {}).items() if k != "safety"}
        hold = {**setup.get("hold", {}), "grip": f"outside:{steps[0]['name']}"}
        setups.append({**setup, "hold": hold, "force": force})
    # A safety of the plan's own, from before there were house rules, is a departure from them.
    safety = max((s.get("force", {}).get("safety", 2.0) for s in plain["setups"]), default=2.0)
    said = "Set in this plan before there were house rules"
    return {
        **plain,
        "version": 2,
        "departures": [] if safety == 2.0 else [{"name": said, "rule": "safety", "value": safety}],
        "setups": setups,
        "sides": {"first_end": "b"},
        "part": {
            **part,
            "profile": {"outside": [_without_stock(s) for s in steps], "inside": bores},
            "stock": {"diameter_mm": max(stocks, default=None)},
        },
    }


def _without_stock(step: Plain) -> Plain:
    return {k: v for k, v in step.items() if k != "stock_diameter_mm"}


def _filled(default: Plain, given: Plain) -> Plain:
    """The given facts, with what is not said put in, part by part."""
    found = dict(default)
    for name, value in given.items():
        inner = default.get(name)
        found[name] = _filled(inner, value) if isinstance(inner, dict) and isinstance(value, dict) else value
    return found


def _items(name: str, items: list[Any], default: Plain, first: int = 1) -> list[Any]:
    return [
        {**_filled(default, item), "id": item.get("id") or f"{STEMS[name]}{n}"} for n, item in enumerate(items, first)
    ]


def version_3(plain: Plain) -> Plain:
    """Every item gets an id that it keeps; what is held is named by the step's id; every fact is filled in."""
    if plain.get("version") == 3:
        return plain
    plain = version_2(plain)
    profile = {n: _items(n, plain["part"]["profile"].get(n, []), STEP) for n in ("outside", "inside", "inside_b")}
    grips = {
        f"{side}:{step['name']}": f"{side}:{step['id']}"
        for side, names in (("outside", ["outside"]), ("inside", ["inside", "inside_b"]))
        for name in names
        for step in profile[name]
    }
    setups, seen = [], 1
    for setup in _items("setups", plain["setups"], SETUP):
        cuts = _items("cuts", setup.get("cuts", []), CUT, seen)
        seen += len(cuts)
        grip = setup["hold"]["grip"]
        hold = {**setup["hold"], "grip": grips.get(grip, "" if ":" in grip and grip != "stock:bore" else grip)}
        setups.append({**setup, "cuts": cuts, "hold": hold})
    rest = _filled(REST, {k: v for k, v in plain.items() if k in REST})
    return {
        "part": {**_filled(PART, plain["part"]), "profile": profile},
        "setups": setups,
        "departures": _items("departures", plain.get("departures", []), {}),
        **rest,
        "version": 3,
    }


def path_3(path: str, document: Plain) -> str | None:
    """A path that counts places, as a path of ids of this version 3 document; None where it leads nowhere."""
    here: Any = document
    found = []
    for part in path.split("."):
        if isinstance(here, list):
            if not part.isdigit() or int(part) >= len(here):
                return None
            here = here[int(part)]
            found.append(here["id"])
        elif isinstance(here, dict):
            here = here.get(part)
            found.append(part)
        else:
            return None
    return ".".join(found)


@dataclass(frozen=True)
class NewFacts:
    """Facts that documents of version 3 get, each with the value that says what was so before there was one.

    They are put into every document, and into the cuts and set-ups that edits hold.
    """

    hold: Plain = field(default_factory=dict)
    jaws: Plain = field(default_factory=dict)
    cut: Plain = field(default_factory=dict)
    rules: Plain = field(default_factory=dict)
    stock: Plain = field(default_factory=dict)
    step: Plain = field(default_factory=dict)
    route: Plain = field(default_factory=dict)

    def setup(self, setup: Plain) -> Plain:
        """A set-up with them."""
        cuts = [{**self.cut, **c} for c in setup["cuts"]]
        return {**setup, "hold": {**self.hold, **setup["hold"]}, "jaws": {**self.jaws, **setup["jaws"]}, "cuts": cuts}

    def value(self, value: Any) -> Any:
        """What an edit holds: a cut, a set-up, a list of them, or such an item that was put in or taken out."""
        if isinstance(value, list):
            return [self.value(v) for v in value]
        if isinstance(value, dict) and value.keys() == {"item", "behind"}:
            return {**value, "item": self.value(value["item"])}
        if isinstance(value, dict) and {"hold", "jaws", "cuts"} <= value.keys():
            return self.setup(value)
        if isinstance(value, dict) and {"kind", "speed_m_min", "feed_mm_rev"} <= value.keys():
            return {**self.cut, **value}
        if isinstance(value, dict) and {"diameter_mm", "chamfer_mm", "thread"} <= value.keys():
            return {**self.step, **value}
        return value

    def document(self, plain: Plain) -> Plain:
        """A document with them."""
        setups = [self.setup(s) for s in plain["setups"]]
        part = plain["part"]
        profile = {name: self.value(steps) for name, steps in part["profile"].items()}
        part = {**part, "profile": profile, "stock": {**self.stock, **part["stock"]}}
        found = {**plain, "part": part, "setups": setups, "rules": {**self.rules, **plain["rules"]}}
        return {**found, "route": {**self.route, **plain.get("route", {})}} if self.route else found

    def fill(self, apps: Any, schema_editor: Any) -> None:
        """Into everything that is kept."""
        # A release's document is what a draft is compared with: a fact that neither had is no difference between them.
        for model in ("Run", "Release"):
            for one in apps.get_model("runs", model).objects.all().iterator():
                one.document = self.document(one.document)
                one.save(update_fields=["document"])
        for edit in apps.get_model("runs", "Edit").objects.all().iterator():
            old, new = self.value(edit.old), self.value(edit.new)
            parts = [[path, self.value(before), self.value(after)] for path, before, after in edit.parts]
            if (old, new, parts) != (edit.old, edit.new, edit.parts):
                edit.old, edit.new, edit.parts = old, new, parts
                edit.save(update_fields=["old", "new", "parts"])

"""Releases as they were frozen in earlier forms, read in the form of today: nothing of them is computed again."""

from __future__ import annotations

from typing import Any

CARRIED = {"pressure": "Gauge", "clamp": "Clamp", "bore": "Bore Ø", "depth": "Deep"}


def as_of_today(view: dict[str, Any], document: dict[str, Any]) -> dict[str, Any]:
    """A plan view from before items had ids; what it could not say yet is empty.

    A set-up's id is made of its place, as the plan's own was when it got one.
    """
    setups = [setup.get("id") or f"s{n}" for n, setup in enumerate(document["setups"], 1)]
    sides = view["sides"]
    return view | {
        "stops": [_stop(s, sides, setups) for s in view["stops"]],
        "sides": [_side(s, setups) for s in sides],
        "at": None,
        "undo": False,
        "redo": False,
        "rules": None,
        "release": None,
    }


def _side(side: dict[str, Any], setups: list[str]) -> dict[str, Any]:
    carry = [{"name": n, "label": label, "text": side["carry"].get(n)} for n, label in CARRIED.items()]
    kept = {n: side[n] for n in ("index", "title", "end", "verdict", "scenes")}
    return kept | {"id": setups[side["index"]], "carry": carry}


def _stop(stop: dict[str, Any], sides: list[dict[str, Any]], setups: list[str]) -> dict[str, Any]:
    place = stop.get("setup")
    side = None if place is None else sides[place]
    setup = None if place is None else setups[place]
    groups = dict.fromkeys(f["group"] for f in stop["facts"] if f["group"])
    chart = side.get("chart") if side and stop["name"] == "force" else None
    return {
        "heading": stop["title"],
        "procedures": [],
        "pictures": [],
        **stop,
        "key": stop["name"] if setup is None else f"{stop['name']}-{setup}",
        "side": place,
        "setup": setup,
        "facts": [{"pin_path": None, "pinned": False} | fact for fact in stop["facts"]],
        "lists": [],
        "tables": [{"words": ""} | table for table in stop.get("tables", [])],
        "headings": [{"key": g, "title": g} for g in groups],
        "chart": _chart(chart) if chart else None,
        "program": side.get("program") if side and stop["name"] == "jaws" else None,
        "checks": [],
        "panels": [],
        "links": [],
    }


def _chart(chart: dict[str, Any]) -> dict[str, Any]:
    return chart | {"over": chart["top"] > chart["cap"], "speed_words": "Speed"}

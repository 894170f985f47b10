"""Releases as they were frozen in earlier forms, read in the form of today: nothing of them is computed again.

Form 1: items had no ids, a side had its chart and program. Form 2: every stop whole, a side with its scenes. Form 3:
every stop in its line, and parts, as a screen is sent them. Form 4: the cuts stand in the chart, and a carried figure
says what is wrong with it. Form 5: a line of working says what its symbols stand for.
"""

from __future__ import annotations

from collections.abc import Iterator
from typing import Any

from server.apps.runs.models import Release

FORM = 5
IN_PARTS = 3  # the form since which a view is kept in parts
POINTS = 4  # the form since which the chart has the cuts in it
CARRIED = {"pressure": "Gauge", "clamp": "Clamp", "bore": "Bore Ø", "depth": "Deep"}
LINE = ("key", "name", "side", "setup", "title", "state", "line", "notes", "problems")
PAGE = ("heading", "facts", "lists", "procedures", "headings", "program", "checks", "panels", "links")
SIDE = ("index", "id", "title", "end", "verdict", "carry")
DRAWN = ("shapes", "dimensions", "labels", "words")

SPEED = ("speed_path", "speed_words")  # one handle for all cuts, until each had its own

Plain = dict[str, Any]


def frozen(release: Release, units: str) -> Plain:
    """The plan that was released, in the units, in the form of today."""
    view: Plain = release.views[units]
    if release.form == 1:
        view = with_ids(view, release.document)
    if release.form < IN_PARTS:
        view = in_parts(view)
    if release.form < POINTS:
        view = with_points(view)
    return with_symbols(view) if release.form < FORM else view


def with_ids(view: Plain, document: Plain) -> Plain:
    """A view of form 1 in form 2; what it could not say yet is empty.

    A set-up's id is made of its place, as the plan's own was when it got one.
    """
    setups = [setup.get("id") or f"s{n}" for n, setup in enumerate(document["setups"], 1)]
    sides = view["sides"]
    return view | {
        "stops": [_stop(s, sides, setups) for s in view["stops"]],
        "sides": [_side(s, setups) for s in sides],
    }


def _side(side: Plain, setups: list[str]) -> Plain:
    carry = [{"name": n, "label": label, "text": side["carry"].get(n)} for n, label in CARRIED.items()]
    kept = {n: side[n] for n in ("index", "title", "end", "verdict", "scenes")}
    return kept | {"id": setups[side["index"]], "carry": carry}


def _stop(stop: Plain, sides: list[Plain], setups: list[str]) -> Plain:
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


def _chart(chart: Plain) -> Plain:
    return chart | {"over": chart["top"] > chart["cap"]}


def with_points(view: Plain) -> Plain:
    """A view of form 3 in form 4: of its cuts the chart says nothing yet."""
    parts = [
        part | {"chart": {**{n: v for n, v in part["chart"].items() if n not in SPEED}, "points": []}}
        if part.get("chart")
        else part
        for part in view["parts"]
    ]
    sides = [side | {"carry": [{"warning": None} | c for c in side["carry"]]} for side in view["sides"]]
    return view | {"parts": parts, "sides": sides}


def with_symbols(view: Plain) -> Plain:
    """A view of form 4 in form 5: of its symbols the working says nothing yet."""
    parts = [
        part | {"steps": [{"symbols": {}} | step for step in part["steps"]]} if part.get("steps") else part
        for part in view["parts"]
    ]
    return view | {"parts": parts}


def in_parts(view: Plain) -> Plain:
    """A view of form 2 in form 3."""
    sides = view["sides"]
    parts = [part for stop in view["stops"] for part in _parts(stop, sides)]
    drawings = [
        {"name": f"drawing:{side['id']}:{scene['name']}", "digest": "", "scene": {n: scene[n] for n in DRAWN}}
        for side in sides
        for scene in side["scenes"]
    ]
    return view | {
        "moment": "",
        "at": None,
        "undo": False,
        "redo": False,
        "rules": None,
        "release": None,
        "stops": [{n: stop[n] for n in LINE} for stop in view["stops"]],
        "sides": [{n: side[n] for n in SIDE} for side in sides],
        "moved": [],
        "view": "",
        "parts": [*parts, *drawings],
    }


def _parts(stop: Plain, sides: list[Plain]) -> Iterator[Plain]:
    key = stop["key"]
    answers = [{n: v for n, v in answer.items() if n != "steps"} for answer in stop["answers"]]
    page = {n: stop[n] for n in PAGE} | {"answers": answers, "offers": list(_offers(stop, sides))}
    yield {"name": f"stop:{key}", "digest": "", "stop": page}
    for kind in ("helps", "tables", "pictures"):
        yield {"name": f"{kind}:{key}", "digest": "", kind: stop[kind]}
    for answer in stop["answers"]:
        yield {"name": f"working:{key}:{answer['name']}", "digest": "", "steps": answer["steps"]}
    if stop["chart"]:
        yield {"name": f"drawing:{stop['setup']}:chart", "digest": "", "chart": stop["chart"]}


def _offers(stop: Plain, sides: list[Plain]) -> Iterator[Plain]:
    """The pictures of a stop, in the order in which they were offered."""

    def offer(of: str, one: Plain) -> Plain:
        return {"of": of, "name": one["name"], "title": one["title"], "group": one.get("group", "")}

    if stop["chart"]:
        yield offer("drawing", {"name": "chart", "title": "Grip against speed"})
    yield from (offer("pictures", p) for p in stop["pictures"] if p["kind"] == "outline")
    scenes = sides[stop["side"] or 0]["scenes"]
    yield from (offer("drawing", s) for s in scenes if not s["stops"] or stop["name"] in s["stops"])
    yield from (offer("pictures", p) for p in stop["pictures"] if p["kind"] == "curves")

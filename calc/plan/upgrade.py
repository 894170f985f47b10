"""Older plan documents in the form of today."""

from __future__ import annotations

from typing import Any

from calc.plan.document import Document
from calc.reading import read, write
from calc.rules import Rules


def upgraded_steps(steps: list[Any]) -> list[Any]:
    """Version 1 outside steps: what their stock was now belongs to the whole part."""
    return [{k: v for k, v in step.items() if k != "stock_diameter_mm"} for step in steps]


def _without_safety(force: dict[str, Any]) -> dict[str, Any]:
    return {k: v for k, v in force.items() if k != "safety"}


def _own_safety(setups: list[Any]) -> list[Any]:
    """A safety of the plan's own, from before there were house rules, is a departure from them."""
    most = max((s.get("force", {}).get("safety", Rules.safety) for s in setups), default=Rules.safety)
    said = "Set in this plan before there were house rules"
    return [] if most == Rules.safety else [{"name": said, "rule": "safety", "value": most}]


def upgraded(plain: dict[str, Any]) -> dict[str, Any]:
    """A version 1 document, plain data, as version 2; one of version 2 comes back with every field filled in.

    Version 1 had one set-up, held on its first outside step, and one bore that goes through. Raises
    CalcError for what neither version would take.
    """
    if plain.get("version") != 1:
        return write(read(Document, plain))  # type: ignore[no-any-return]
    part = plain["part"]
    profile = part["profile"]
    stocks = [s["stock_diameter_mm"] for s in profile["outside"] if s.get("stock_diameter_mm")]
    bores = [{"name": "Bore", "diameter_mm": s["diameter_mm"]} for s in profile.get("inside", []) if s["diameter_mm"]]
    first = profile["outside"][0]["name"]
    setups = [
        {**s, "hold": {**s["hold"], "grip": f"outside:{first}"}, "force": _without_safety(s.get("force", {}))}
        for s in plain["setups"]
    ]
    now = {
        **plain,
        "version": 2,
        "departures": _own_safety(plain["setups"]),
        "setups": setups,
        "sides": {"first_end": "b"},
        "part": {
            **part,
            "profile": {"outside": upgraded_steps(profile["outside"]), "inside": bores},
            "stock": {"diameter_mm": max(stocks, default=None)},
        },
    }
    return write(read(Document, now))  # type: ignore[no-any-return]

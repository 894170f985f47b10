"""A plan as it is sent, put together for reading in tests: every stop with what of it was sent, every side with its
drawings.
"""

from __future__ import annotations

from typing import Any


def together(view: Any) -> Any:
    """The plan of an answer; anything else as it is."""
    if not isinstance(view, dict) or "parts" not in view or "stops" not in view:
        return view
    parts = {part["name"]: part for part in view["parts"]}
    return view | {
        "stops": [stop | _page(stop["key"], parts) for stop in view["stops"]],
        "sides": [side | {"scenes": _scenes(side["id"], parts)} for side in view["sides"]],
    }


def _page(key: str, parts: dict[str, Any]) -> dict[str, Any]:
    found = dict(parts.get(f"stop:{key}", {}).get("stop", {}))
    for kind in ("helps", "tables", "pictures"):
        if f"{kind}:{key}" in parts:
            found[kind] = parts[f"{kind}:{key}"][kind]
    return found


def _scenes(setup: str, parts: dict[str, Any]) -> list[dict[str, Any]]:
    start = f"drawing:{setup}:"
    return [{"name": n[len(start) :]} | p["scene"] for n, p in parts.items() if n.startswith(start) and "scene" in p]

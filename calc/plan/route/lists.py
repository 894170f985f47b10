"""The route as lists for a spreadsheet: the tools by station, and the time of every operation."""

from __future__ import annotations

from collections.abc import Iterator

from calc.plan.route.solve import Operation, RouteFigures, SideTime

Rows = list[list[str]]
TOOLS = ["turret", "station", "offset", "tool", "operations"]
TIMES = ["side", "operation", "station", "in cut s", "moves s", "index s", "spindle s", "in all s"]


def _turret_of(found: RouteFigures, side: SideTime) -> str:
    if len(found.turrets) < 2:
        return "the turret"
    return "main" if side.index == 0 else "second"


def _named(operation: Operation) -> str:
    tool = operation.cut.tool
    return tool.name if tool is not None else f"for {operation.cut.name}: none chosen"


def tools_of(found: RouteFigures) -> Rows:
    """Every tool by its turret and station, with what it does; offset numbers follow the stations. A head first."""
    does: dict[tuple[str, int, str], list[str]] = {}
    for side in found.sides:
        for o in side.operations:
            does.setdefault((_turret_of(found, side), o.station, _named(o)), []).append(o.cut.name)
    rows = ([turret, str(n), str(n), tool, "; ".join(cuts)] for (turret, n, tool), cuts in sorted(does.items()))
    return [TOOLS, *rows]


def _lines(side: SideTime) -> Iterator[list[str]]:
    for h in side.before:
        yield [side.name, h.words, "", "", "", "", "", f"{h.seconds:.1f}"]
    for o in side.operations:
        seconds = (o.cut_s, o.moves_s, o.index_s, o.spindle_s, o.seconds)
        yield [side.name, o.cut.name, str(o.station), *(f"{s:.1f}" for s in seconds)]
    for h in side.after:
        yield [side.name, h.words, "", "", "", "", "", f"{h.seconds:.1f}"]


def times_of(found: RouteFigures) -> Rows:
    """Every operation and every handling of a piece with its seconds, in the order it happens; a head first."""
    return [TIMES, *(line for side in found.sides for line in _lines(side))]

"""The tools of a card by station, and the steps that put them in."""

from __future__ import annotations

from collections.abc import Iterator

from calc.card.readings.runout import HeightAsk
from calc.card.step import CardStep, ToolAt
from calc.plan.cuts.solve import CutFigures
from calc.plan.route.edges import tool_of
from calc.plan.route.solve import RouteFigures
from calc.plan.route.strikes import reach_of
from calc.quantities import Figure, Sentence, counted
from calc.tools.kinds.drill import Drill
from calc.tools.kinds.insert import Insert
from calc.tools.library import Tool

OUT_STEP_MM = 1.0  # bars and drills are set up to a full millimetre further out


def _edge(tool: Tool | None) -> str:
    if tool is None:
        return "no tool chosen"
    return tool.edge.code if isinstance(tool.edge, Insert) else tool.edge.name


def _out(cuts: list[CutFigures]) -> Figure | Sentence:
    """How far it stands out: a bar or drill as far as its deepest cut needs."""
    far = max(reach_of(c) for c in cuts)
    if far <= 0:
        return Sentence("as short as its holder allows")
    return Figure(-(-far // OUT_STEP_MM) * OUT_STEP_MM, "mm", "up")


def _stock(tool: Tool | None) -> Sentence:
    if tool is None:
        return Sentence("choose one at Tools")
    stock = getattr(tool.edge, "stock", 0)
    many = counted(stock, "drill" if isinstance(tool.edge, Drill) else "insert")
    return Sentence("{n}", n=many if stock else "none")


def tools_at(route: RouteFigures) -> tuple[ToolAt, ...]:
    """Every tool by turret and station."""
    cuts: dict[tuple[str, int, str], list[CutFigures]] = {}
    for side in route.sides:
        turret = "" if len(route.turrets) < 2 else "main turret" if side.index == 0 else "second turret"
        for o in side.operations:
            cuts.setdefault((turret, o.station, tool_of(o.cut)), []).append(o.cut)
    found = []
    for (turret, station, _), mine in sorted(cuts.items(), key=lambda one: one[0]):
        tool = mine[0].tool
        carrier = tool.carrier.name if tool is not None and tool.carrier is not None else ""
        names = tuple(c.name for c in mine)
        key = tool.key if tool is not None else ""
        found.append(ToolAt(turret, station, station, _edge(tool), carrier, _out(mine), names, _stock(tool), key))
    return tuple(found)


def touch_offs(route: RouteFigures, tools: tuple[ToolAt, ...]) -> Iterator[CardStep]:
    """Each tool put in and touched off, the blades set to height."""
    kinds = {(c.name): c.planned.kind for side in route.sides for c in (o.cut for o in side.operations)}
    for tool in tools:
        at = f"{tool.turret or 'turret'}, station {tool.station}"
        key = f"{'second' if tool.turret.startswith('second') else 'main'}.{tool.station}"
        where = Sentence("{w}: {e}{h}.", w=at.capitalize(), e=tool.edge, h=f" in {tool.holder}" if tool.holder else "")
        yield CardStep(
            f"tool.{key}",
            "tools",
            f"Tool {tool.station}: put in, touch off",
            (
                where,
                Sentence("It stands out {x}, and makes {c}.", x=tool.out, c=", ".join(tool.cuts)),
                Sentence("Touch off in X and Z, into offset {n}. On the shelf: {s}.", n=str(tool.offset), s=tool.stock),
            ),
            caution=Sentence("By hand wheel, spindle stopped. Edges cut hands."),
        )
        blade = next((c for c in tool.cuts if kinds.get(c) in ("part", "groove")), None)
        if blade is not None:
            yield CardStep(
                f"height.{key}",
                "tools",
                f"Tool {tool.station}: height of the edge",
                (
                    Sentence(
                        "Indicate the edge against the axis, or face a piece and look at its pip. For {c}.", c=blade
                    ),
                ),
                ask=HeightAsk(of=key, tool_key=tool.key),
                kind="read",
            )

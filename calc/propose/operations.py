"""Operations proposed from the part's profile, in the order of the work."""

from __future__ import annotations

from collections.abc import Iterator
from dataclasses import replace

from calc.plan.cuts.inputs import PlannedCut
from calc.plan.cuts.tooling import fitted
from calc.propose.cuts import BAND, bored, drill, face, outside, parted
from calc.propose.figures import figured, tooled
from calc.propose.side import Side
from calc.propose.threads import threads_and_grooves


def propose(side: Side) -> tuple[PlannedCut, ...]:
    """A side's operations in the order of the work, each with a tool where the shelf has one, and first figures.

    Order: face, rough outside, finish outside, drill, rough bore, finish bore, grooves and threads by the shop's
    school with what cleans them up, part-off.
    """
    rough, finish = outside(side)
    drilled = drill(side)
    hole = side.part.stock.bore_mm or 0.0
    if drilled is not None:
        hole = fitted(drilled, side.library).planned.to_diameter_mm or 0.0
    rough_bore, finish_bore = bored(side, hole) if side.inside else ([], [])
    cuts = [
        *face(side),
        *rough,
        *finish,
        *([drilled] if drilled else []),
        *rough_bore,
        *finish_bore,
        *threads_and_grooves(side),
        *parted(side, hole),
    ]
    seen: dict[str, int] = {}
    made = []
    for cut in cuts:
        seen[cut.name] = seen.get(cut.name, 0) + 1
        named = cut if seen[cut.name] == 1 else replace(cut, name=f"{cut.name} {seen[cut.name]}")
        made.append(tooled(named, side))
    return tuple(figured(cut, side) for cut in _of_one_tool(made))


def _of_one_tool(cuts: list[PlannedCut]) -> Iterator[PlannedCut]:
    """The bands of one roughing cut take the tool of its last."""
    tools = {cut.name: cut.tool for cut in cuts}
    for cut in cuts:
        whole = cut.name.partition(BAND)[0]
        yield replace(cut, tool=tools[whole]) if whole != cut.name and whole in tools else cut

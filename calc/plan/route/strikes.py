"""What strikes what when the turret indexes: a tool that hangs out further than the one that has just drawn back."""

from __future__ import annotations

from collections.abc import Iterator, Sequence

from calc.plan.cuts.solve import CutFigures
from calc.plan.cuts.tooling import BESIDE_MM
from calc.plan.route.edges import tool_of
from calc.quantities import Figure
from calc.tools.kinds.drill import Drill
from calc.tools.kinds.holder import Holder
from calc.working import Note


def reach_of(cut: CutFigures) -> float:
    """How far [mm] a cut's tool hangs out toward the chuck: a drill by its reach, a bar as far as its
    cut needs, any other not at all.
    """
    if cut.tool is None:
        return 0.0
    edge, carrier = cut.tool.edge, cut.tool.carrier
    if isinstance(edge, Drill):
        return edge.reach_mm
    inside = isinstance(carrier, Holder) and carrier.side == "inside"
    return cut.planned.start_mm + cut.length_mm + BESIDE_MM if inside else 0.0


def strikes(cuts: Sequence[CutFigures], change_z_mm: float, clear_mm: float) -> Iterator[Note]:
    """Each tool of a turret that comes closer than `clear_mm` to the face while the turret turns, once, in words.

    The tool that worked draws back until its tip stands `change_z_mm` in front of the face; another that hangs out
    further stands nearer by the difference, and swings past there.

    Reference: derived in docs/method.md, “Stations of the turret”.
    """
    if not cuts:
        return
    shortest = min(cuts, key=reach_of)
    told: set[str] = set()
    for cut in sorted(cuts, key=reach_of, reverse=True):
        over = reach_of(cut) - reach_of(shortest)
        if change_z_mm - over >= clear_mm or tool_of(cut) in told:
            continue
        told.add(tool_of(cut))
        words = (
            "The tool of {long} hangs out {x} further than that of {short}. With {short} drawn back to {c} in front of "
            "the face it strikes the part or the jaws at index: change tools {y} in front of the face, or more."
        )
        yield Note(
            "caution",
            "strikes-at-index",
            words,
            long=cut.name,
            short=shortest.name,
            x=Figure(over, "mm", "up"),
            c=Figure(change_z_mm, "mm", "down"),
            y=Figure(over + clear_mm, "mm", "up"),
        )

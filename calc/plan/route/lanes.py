"""The pieces as they come about in time: a lane for each spindle."""

from __future__ import annotations

from collections.abc import Iterator

from calc.plan.pictures import Block, BlockKind, Lane, LanesPicture
from calc.plan.route.solve import RouteFigures, SideTime
from calc.quantities import Figure, Sentence

HOW = {
    "one": "one spindle, all after one another",
    "in-turn": "two spindles at one turret: all after one another",
    "together": "two spindles, a turret at each",
}


def _blocks(side: SideTime, begins: float) -> Iterator[Block]:
    """A side's lane from a moment on [s]: each operation in cut and beside it, each handling."""
    at = begins
    for h in side.before:
        yield Block(h.words, at, h.seconds, "handling")
        at += h.seconds
    for o in side.operations:
        yield Block("", at, o.between_s, "between")
        at += o.between_s
        kind: BlockKind = "together" if o.cut.planned.kind == "part" else "cut"
        yield Block(o.cut.name, at, o.cut_s, kind, f"op_{o.cut.id}", o.path)
        at += o.cut_s
    for h in side.after:
        yield Block(h.words, at, h.seconds, "handling")
        at += h.seconds


def _together(found: RouteFigures) -> tuple[Lane, ...]:
    """Both lanes as they meet: the part-off stands at one time on both, the transfer before it."""
    main, other = found.sides
    last = [o for o in main.operations if o.cut.planned.kind == "part"]
    first = SideTime(main.index, main.name, main.before, tuple(o for o in main.operations if o not in last), main.after)
    meet = max(first.seconds, other.seconds)
    lanes = []
    for side, name in ((first, "main"), (other, "second")):
        blocks = list(_blocks(side, 0.0))
        if meet - side.seconds > 1e-9:
            blocks.append(Block("waits", side.seconds, meet - side.seconds, "waits"))
        blocks.append(Block("transfer", meet, found.transfer_s, "handling"))
        parting = main.part_off_s
        if parting:
            at, fact = meet + found.transfer_s, f"op_{last[0].cut.id}"
            blocks.append(Block("part off, together", at, parting, "together", fact, last[0].path))
        lanes.append(Lane(name, tuple(blocks)))
    return tuple(lanes)


def lanes_of(found: RouteFigures) -> LanesPicture:
    """The picture: a lane for each spindle, to one scale of seconds."""
    if found.lanes == "together":
        lanes = _together(found)
    else:
        blocks: list[Block] = []
        for place, side in enumerate(found.sides):
            begins = blocks[-1].start_s + blocks[-1].seconds if blocks else 0.0
            if place and found.transfer_s:
                blocks.append(Block("transfer", begins, found.transfer_s, "handling"))
                begins += found.transfer_s
            blocks += _blocks(side, begins)
        lanes = (Lane("", tuple(blocks)),)
    slowest = max((o for s in found.sides for o in s.operations), key=lambda o: o.seconds)
    words = Sentence(
        "One piece takes {t}: {how}. Longest: {name}, {s}.",
        t=Figure(found.cycle_s, "s", "up", (1, 1)),
        how=HOW[found.lanes],
        name=slowest.cut.name,
        s=Figure(slowest.seconds, "s", "up", (1, 1)),
    )
    return LanesPicture("lanes", "Lanes", lanes, found.cycle_s, words)

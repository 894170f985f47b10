"""Stop Route as it is shown: what a piece takes and where, the run, and its set-up."""

from __future__ import annotations

import math
from collections.abc import Iterator

from calc.plan.pictures import Block, Lane, LanesPicture
from calc.plan.route.solve import ROUTE, Operation, RouteFigures, SideTime
from calc.plan.stop import Amount, Answer, Entering, Fact, Row, Stop, Table, computed, without_figures
from calc.plan.view import View
from calc.quantities import Figure, Sentence, counted
from calc.route.cycle import SETTING_UP
from calc.working import Note, Working

PIECE, RUN, SETUP = "A piece", "The run", "Setting up"
HOW = {
    "one": "one spindle, all after one another",
    "in-turn": "two spindles at one turret: all after one another",
    "together": "two spindles, a turret at each",
}


def hours(minutes: float) -> str:
    """Minutes as a person says them, rounded up: "3 h 20 min".

    >>> hours(200), hours(59.2), hours(0.4)
    ('3 h 20 min', '1 h', '1 min')
    """
    full, rest = divmod(math.ceil(minutes), 60)
    return " ".join([f"{full} h"] * (full > 0) + [f"{rest} min"] * (rest > 0 or full == 0))


def _seconds(value: float) -> Amount:
    return Amount(value, "s", "up", (1, 1))


def _parts(found: RouteFigures) -> list[tuple[str, str, float]]:
    """What a piece's seconds go to: name, words, seconds of all sides."""
    operations = [o for side in found.sides for o in side.operations]
    handling = sum(h.seconds for side in found.sides for h in (*side.before, *side.after))
    return [
        ("cut", "In cut", sum(o.cut_s for o in operations)),
        ("moves", "Moves of the slide", sum(o.moved.seconds for o in operations)),
        ("index", "Indexing", sum(o.index_s for o in operations)),
        ("spindle", "Spindle changing speed", sum(o.spindle_s for o in operations)),
        ("handling", "Handling", handling + found.transfer_s),
    ]


def _facts(found: RouteFigures) -> Iterator[Fact]:
    total = sum(seconds for _, _, seconds in _parts(found))
    for name, words, seconds in _parts(found):
        share = Sentence("{p} of all the work", p=Figure(100 * seconds / total, "%", places=(0, 0)))
        yield computed(f"route_{name}", words, _seconds(seconds), share, group=PIECE)
    for side in found.sides if len(found.sides) > 1 else ():
        many = counted(len(side.operations), "operation")
        yield computed(f"route_side_{side.index}", side.name, _seconds(side.seconds), many, group=PIECE)
    whole = (0, 0)
    yield computed(
        "route_pieces", "Pieces to make", Amount(float(found.pieces), "", "up", whole), "scrap included", group=RUN
    )
    if found.bars is not None:
        of = Sentence("{n} of a bar", n=counted(found.bars.pieces, "piece"))
        yield computed("route_bars", "Bars", Amount(_known(found.bars_needed), "", "up", whole), of, group=RUN)
    yield computed(
        "route_edges", "Edges", Amount(float(found.edges), "", "up", whole), "of all cuts, by their lives", group=RUN
    )
    yield computed(
        "route_edge_min",
        "Changing edges",
        Amount(found.edge_min, "min", "up", whole),
        "those of the set-up are in",
        group=RUN,
    )
    if found.bars is not None:
        yield computed(
            "route_bar_min", "Changing bars", Amount(found.bar_min, "min", "up", whole), "all but the first", group=RUN
        )
    for place, task in enumerate(found.tasks):
        yield computed(
            f"route_task_{place}", task.words, Amount(task.minutes, "min", "up", whole), "", "typical", SETUP
        )


def _known(value: int | None) -> float | None:
    return None if value is None else float(value)


def _answers(found: RouteFigures) -> tuple[Answer, ...]:
    w = Working()
    total = 0.0
    for task in found.tasks:
        total = w.step("t_u", task.words, "t_u + t_w", "min", SETTING_UP, t_u=total, t_w=task.minutes)
    waits = found.waits_s
    how = Sentence(HOW[found.lanes])
    if waits is not None and waits[1] > 0:
        how = Sentence(
            "the {lane} spindle waits {t} for the other", lane=waits[0], t=Figure(waits[1], "s", "down", (1, 1))
        )
    run = Sentence("{n}, machine running {u} of the time", n=counted(found.pieces, "piece"), u=_used(found))
    return (
        Answer("cycle", "One piece every", Figure(found.cycle_s / 60, "min", "up"), below=how, steps=found.cycle_steps),
        Answer("run", "The run takes", None, words=Sentence(hours(found.run_min)), below=run, steps=found.run_steps),
        Answer(
            "setup",
            "Set-up before it",
            None,
            words=Sentence(hours(found.setup_min)),
            below=Sentence("{n}, typical times", n=counted(len(found.tasks), "task")),
            steps=tuple(w.steps),
        ),
    )


def _used(found: RouteFigures) -> Figure:
    share = next(s.values["u"] for s in found.run_steps if "u" in s.values)
    return Figure(100 * share, "%", places=(0, 0))


def _blocks(side: SideTime, begins: float) -> Iterator[Block]:
    """A side's lane from a moment on [s]: each operation in cut and beside it, each handling."""
    at = begins
    for h in side.before:
        yield Block(h.words, at, h.seconds, "handling")
        at += h.seconds
    for o in side.operations:
        yield Block("", at, o.between_s, "between")
        at += o.between_s
        yield Block(o.cut.name, at, o.cut_s, "together" if o.cut.planned.kind == "part" else "cut", f"op_{o.cut.id}")
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
            blocks.append(
                Block("part off, together", meet + found.transfer_s, parting, "together", f"op_{last[0].cut.id}")
            )
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


def show(view: View) -> Stop:
    """The stop as it is shown."""
    outcome = view.outcome(ROUTE)
    found = outcome.value
    enter = Entering("part", view.document.part)
    facts: tuple[Fact, ...] = (enter("quantity", "quantity", group=RUN),)
    if found is None:
        return without_figures(outcome, facts)
    line = Sentence("{t} a piece · {h}", t=Figure(found.cycle_s / 60, "min", "up"), h=hours(found.run_min))
    notes = tuple(_notes(found))
    facts = (*(f for f in _facts(found) if f.group == PIECE), *facts, *(f for f in _facts(found) if f.group != PIECE))
    return Stop("", "", outcome.state(notes), line, facts, _answers(found), notes, pictures=(lanes_of(found),))


def _notes(found: RouteFigures) -> Iterator[Note]:
    if found.bars is not None and found.bars.pieces == 0:
        yield Note(
            "stop", "bar-too-short", "A bar gives no piece: one takes {e}.", e=Figure(found.bars.each_mm, "mm", "up")
        )
    if found.lanes == "one" and len(found.sides) > 1:
        batches = Figure(found.cycle_s / 60, "min", "up")
        if found.piecewise_s > found.cycle_s:
            words = "In two batches {t} a piece. Piece by piece the jaws would change twice for each: {u}."
            yield Note("info", "two-batches", words, t=batches, u=Figure(found.piecewise_s / 60, "min", "up"))
        else:
            words = "Both sides are in one set of jaws: in two batches or piece by piece, {t} a piece."
            yield Note("info", "one-set", words, t=batches)


def _cells(o: Operation) -> tuple[Figure | Sentence, ...]:
    return (
        Sentence("{s}", s=str(o.station)),
        Figure(o.cut_s, "s", "up", (1, 1)),
        Figure(o.moved.seconds, "s", "up", (1, 1)),
        Figure(o.index_s, "s", "up", (1, 1)),
        Figure(o.spindle_s, "s", "up", (1, 1)),
        Figure(o.seconds, "s", "up", (1, 1)),
    )


def tables(view: View) -> Iterator[Table]:
    """The operations in the order they happen, and where the time goes, the largest first."""
    found = view[ROUTE]
    if found is None:
        return
    head = ("operation", "station", "in cut", "moves", "index", "spindle", "in all")
    rows = [Row(o.cut.name, _cells(o)) for side in found.sides for o in side.operations]
    least, used = (
        Figure(sum(seconds), "s", "up", (1, 1))
        for seconds in ([t.index_s for t in found.turrets], [t.in_order_s for t in found.turrets])
    )
    saved = Sentence("Stations as the turret indexes least: {t} a piece, {o} in the order of use.", t=least, o=used)
    yield Table("operations", "In the order it happens", head, tuple(rows), PIECE, str(saved))
    most = sorted((o for s in found.sides for o in s.operations), key=lambda o: -o.seconds)
    total = sum(s.seconds for s in found.sides)
    share = [
        Row(o.cut.name, (Figure(o.seconds, "s", "up", (1, 1)), Figure(100 * o.seconds / total, "%", places=(0, 0))))
        for o in most
    ]
    yield Table("most", "Where the time goes", ("operation", "takes", "of all"), tuple(share), PIECE)

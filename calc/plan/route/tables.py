"""Tables of stop Route: every operation in time, where the time goes, and what would move the finish."""

from __future__ import annotations

import math
from collections.abc import Iterator

from calc.plan.route.balance import balance
from calc.plan.route.levers import levers
from calc.plan.route.solve import ROUTE, Operation, RouteFigures
from calc.plan.stop import Row, Table
from calc.plan.view import View
from calc.quantities import Figure, Sentence, counted

PIECE, RUN = "A piece", "The run"
CLOCK = " (timed)"


def hours(minutes: float) -> str:
    """Minutes as a person says them, rounded up: "3 h 20 min".

    >>> hours(200), hours(59.2), hours(0.4)
    ('3 h 20 min', '1 h', '1 min')
    """
    full, rest = divmod(math.ceil(minutes), 60)
    return " ".join([f"{full} h"] * (full > 0) + [f"{rest} min"] * (rest > 0 or full == 0))


def _cells(o: Operation) -> tuple[Figure | Sentence, ...]:
    return (
        Sentence("{s}", s=str(o.station)),
        Figure(o.cut_s, "s", "up", (1, 1)),
        Figure(o.moves_s, "s", "up", (1, 1)),
        Figure(o.index_s, "s", "up", (1, 1)),
        Figure(o.spindle_s, "s", "up", (1, 1)),
        Figure(o.seconds, "s", "up", (1, 1)),
    )


def _needs(found: RouteFigures) -> Table:
    """Inserts by designation, against what is on the shelf."""
    rows = []
    for need in found.run.needs:
        lasts = Sentence("not known" if need.per_edge is None else counted(need.per_edge, "piece"))
        stock = Sentence("{n}", n="–" if need.stock is None else str(need.stock))
        short = need.stock is not None and need.stock < need.inserts
        why = Sentence("{n} short", n=str(need.inserts - (need.stock or 0))) if short else None
        cells = (lasts, Sentence("{n}", n=str(need.edges)), Sentence("{n}", n=str(need.inserts)), stock)
        rows.append(Row(need.name, cells, why_not=why))
    head = ("insert or drill", "an edge lasts", "edges", "to have ready", "in stock")
    return Table("needs", "What the run uses up", head, tuple(rows), RUN)


def tables(view: View) -> Iterator[Table]:
    """The operations in the order they happen, and where the time goes, the largest first."""
    found = view[ROUTE]
    if found is None:
        return
    head = ("operation", "station", "in cut", "moves", "index", "spindle", "in all")
    rows = [Row(o.cut.name + CLOCK * o.clocked, _cells(o)) for side in found.sides for o in side.operations]
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
    yield _needs(found)
    across = balance(view, found)
    if across is not None:
        yield across
    moves = [
        Row(lever.words, (Figure(lever.piece_s, "s", "down", (1, 1)), Sentence("{h} sooner", h=hours(lever.run_min))))
        for lever in levers(found)
    ]
    if moves:
        yield Table("levers", "What moves the finish most", ("if", "a piece", "the run"), tuple(moves), RUN)

"""Stop Sides: which end first, and what each order would be held on."""

from __future__ import annotations

from dataclasses import dataclass, replace

from calc.fields import Choice
from calc.plan.document import Document, Stock
from calc.plan.part import PartFigures
from calc.plan.stops import Answer, Outcome, Row, Stop, Table, entered
from calc.profile.body import End
from calc.profile.grips import THIRD, Grip, Reason
from calc.quantities import Figure, Sentence
from calc.working import Note, Step, Working, typical

SECOND_COUNTS = 0.65  # typical: the second side is held on finished metal and decides more
SCORE = typical("30 for length, 25 diameter, 20 finish, 15 stiffness, 10 access; the second side counts 65 %")
POCKETS_APART_MM = 2.0  # on diameter: nearer than this one pocket does for both
CLEAR_MM = 1.0  # the tool stops this far before the jaws
NO_STOCK = Sentence("give the stock's diameter at Part")
OTHER: dict[End, End] = {"a": "b", "b": "a"}


@dataclass(frozen=True)
class Order:
    """One order of the sides: what each operation would be held on, best first, and its score of 100."""

    first: End
    name: str
    holds: tuple[tuple[Grip, ...], tuple[Grip, ...]]
    score: float
    steps: tuple[Step, ...]

    def best(self, index: int) -> Grip | None:
        """The best fit grip of an operation."""
        return next((g for g in self.holds[index] if g.fit), None)


@dataclass(frozen=True)
class SidesFigures:
    """Both orders, the one in force and the one proposed."""

    orders: dict[End, Order]
    proposed: End
    first: End
    decided: bool

    def held_end(self, index: int) -> End:
        """The end that is in the jaws in a set-up."""
        return OTHER[self.first] if index == 0 else self.first

    def grips(self, index: int) -> tuple[Grip, ...]:
        """What a set-up could be held on, best first."""
        return self.orders[self.first].holds[index]


def end_name(document: Document, end: End) -> str:
    """What an end is called: by its own step; by its letter where both ends are of one step."""
    steps = document.part.profile.outside
    if len(steps) == 1:
        return f"end {end.upper()}"
    return f"{(steps[0] if end == 'a' else steps[-1]).name.lower()} end"


def made_first(part: PartFigures, first: End) -> tuple[set[int], float]:
    """(outside steps finished in the first side, how far from its end they reach [mm])."""
    order = part.body.outside if first == "a" else tuple(reversed(part.body.outside))
    sizes = [max(s.step.diameter_mm or 0.0, s.step.last_diameter_mm or 0.0) for s in order]
    at = sizes.index(max(sizes))
    # What lies before the largest step is done from this end; a largest step at the end itself is, too.
    count = max(1, at) if len(order) > 1 else 1
    made = order[:count]
    return {s.index for s in made}, sum(s.end - s.start for s in made)


def _bored_for(stock: Stock, d: float, rule: str) -> float:
    """The size of raw stock that the pocket is bored for, by the house rule; nominal while the batch is not
    measured.
    """
    if rule == "largest" and stock.largest_mm is not None:
        return stock.largest_mm
    if rule == "middle" and stock.largest_mm is not None and stock.smallest_mm is not None:
        return (stock.largest_mm + stock.smallest_mm) / 2
    return d


def _stock_grips(part: PartFigures, first: End, rule: str) -> list[Grip]:
    stock = part.stock
    _, reach = made_first(part, first)
    plain = part.length_mm - reach + part.face_stock_mm - CLEAR_MM
    if len(part.body.outside) == 1:
        plain = part.length_mm * THIRD + part.face_stock_mm  # a plain part is turned as far as the jaws let it
    found = []
    for side, d in (("od", stock.diameter_mm), ("id", stock.bore_mm)):
        if d is None or stock.diameter_mm is None:
            continue
        wall = (stock.diameter_mm - (stock.bore_mm or 0.0)) / 2
        long = plain >= THIRD * part.length_mm - 1e-9
        reasons = [
            Reason(
                Sentence("raw stock, {s}", s={"rough": "rough", "drawn": "drawn", "turned": "turned"}[stock.surface])
            ),
            Reason(
                Sentence(
                    "{x} long" if long else "{x} long, under a third of the part",
                    x=Figure(max(0.0, plain), "mm", "down"),
                ),
                against=plain < 3,
            ),
        ]
        spread = (stock.smallest_mm or d, stock.largest_mm or d) if side == "od" else (d, d)
        bored = _bored_for(stock, d, rule) if side == "od" else d
        score = (
            30 * min(1.0, plain / part.length_mm / THIRD)
            + 25
            + (8 if stock.surface != "rough" else 0)
            + 15
            + (10 if side == "od" else 5)
        )
        found.append(
            Grip(
                "stock" if side == "od" else "stock:bore",
                "Stock" if side == "od" else "Stock bore",
                side,  # type: ignore[arg-type] # one of the two written above
                bored,
                0.0,
                max(plain, 0.0),
                spread[0],
                spread[1],
                False,
                wall,
                stock.bore_mm is None,
                0.0,
                plain >= 3,
                score,
                tuple(reasons),
            )
        )
    return found


def _holds(part: PartFigures, first: End, rule: str) -> tuple[tuple[Grip, ...], tuple[Grip, ...]]:
    made, _ = made_first(part, first)
    names = {part.body.outside[i].step.name for i in made}
    before = Reason(Sentence("only if it was made before"))
    earlier = [replace(g, reasons=(*g.reasons, before), score=g.score / 2) for g in part.grips[OTHER[first]]]
    not_yet = Reason(Sentence("not made yet: the second side makes it"), against=True)
    later = [
        g if g.side == "id" or g.name in names else replace(g, fit=False, reasons=(not_yet, *g.reasons))
        for g in part.grips[first]
    ]

    def ranked(grips: list[Grip]) -> tuple[Grip, ...]:
        return tuple(sorted(grips, key=lambda g: (not g.fit, -g.score)))

    return (*ranked(_stock_grips(part, first, rule)), *ranked(earlier)), ranked(later)


def _order(document: Document, part: PartFigures, first: End) -> Order:
    holds = _holds(part, first, document.in_force.raw_stock)
    one, two = (next((g for g in grips if g.fit), None) for grips in holds)
    w = Working()
    score = w.step(
        "P",
        "Score of this order, of 100",
        "(1 - k)*P_1 + k*P_2",
        "",
        SCORE,
        k=SECOND_COUNTS,
        P_1=one.score if one else 0.0,
        P_2=two.score if two else 0.0,
    )
    return Order(first, end_name(document, first), holds, score, tuple(w.steps))


def solve_sides(document: Document, part: PartFigures) -> SidesFigures:
    """Both orders scored, the better one proposed, the setter's own in force once decided."""
    ends: tuple[End, End] = ("a", "b")
    orders: dict[End, Order] = {end: _order(document, part, end) for end in ends}
    proposed: End = "a" if orders["a"].score >= orders["b"].score - 1e-9 else "b"
    given = document.sides.first_end
    first: End = proposed if given == "proposed" else given
    return SidesFigures(orders, proposed, first, given != "proposed")


def _grip_words(grip: Grip | None) -> str:
    return "nothing fit" if grip is None else f"{'inside ' if grip.side == 'id' else ''}{grip.name}"


def _why(order: Order, index: int) -> Sentence:
    """What speaks for the best grip of an operation, or why there is none."""
    best = order.best(index)
    if best is None:
        grips = order.holds[index]
        return grips[0].why_not or NO_STOCK if grips else NO_STOCK
    said = "; ".join(f"{{r{i}}}" for i in range(len(best.reasons)))
    return Sentence(said, **{f"r{i}": r.sentence for i, r in enumerate(best.reasons)})


def _held(order: Order, index: int) -> Sentence:
    best = order.best(index)
    if best is None:
        return Sentence("nothing fit")
    return Sentence("{g}, Ø{d}", g=_grip_words(best), d=Figure(best.diameter_mm, "mm", exact=True, places=(2, 3)))


def _orders_table(figures: SidesFigures) -> Table:
    ends = tuple(figures.orders)
    orders = [figures.orders[end] for end in ends]
    head = ("", *(f"{o.name} first{', proposed' if o.first == figures.proposed else ''}" for o in orders))
    rows = []
    for index, said in ((0, "First side held on"), (1, "Second side held on")):
        rows.append(Row(said, tuple(_held(o, index) for o in orders)))
        rows.append(Row("because", tuple(_why(o, index) for o in orders)))
    rows.append(Row("Score of 100", tuple(Figure(o.score, "", "down", places=(0, 0)) for o in orders)))
    return Table("orders", "Both orders, side by side", head, tuple(rows))


def _grips_table(document: Document, figures: SidesFigures) -> tuple[Table, ...]:
    """Everything the set-ups could be held on, with what speaks for and against it."""
    made = []
    for index in range(len(document.setups)):
        rows = tuple(
            Row(
                f"{'inside ' if g.side == 'id' else ''}{g.name}",
                (
                    Figure(g.diameter_mm, "mm"),
                    Figure(max(0.0, g.length_mm), "mm", "down"),
                    Sentence(
                        "; ".join(f"{{r{i}}}" for i in range(len(g.reasons))),
                        **{f"r{i}": r.sentence for i, r in enumerate(g.reasons)},
                    ),
                ),
                g.fit and g.key == document.setups[index].hold.grip,
                f"setups.{index}.hold.grip" if g.fit else None,
                g.key,
                None if g.fit else Sentence("not fit"),
            )
            for g in figures.grips(index)
        )
        made.append(
            Table(
                f"grips-{index}",
                f"Side {index + 1}: what it could be held on",
                ("grip", "Ø", "length", "reasons"),
                rows,
            )
        )
    return tuple(made)


def _sharing(document: Document, order: Order) -> list[Note]:
    """Whether one set of jaws with two pockets would do for both sides."""
    one, two = order.best(0), order.best(1)
    if len(document.setups) < 2 or document.sides.two_step or one is None or two is None:
        return []
    apart = abs(one.diameter_mm - two.diameter_mm)
    if one.side != "od" or two.side != "od" or apart < POCKETS_APART_MM:
        return []
    larger, smaller = sorted((one.diameter_mm, two.diameter_mm), reverse=True)
    return [
        Note(
            "info",
            "two-step-suits",
            "One set of jaws could serve both sides: an outer pocket for Ø{a}, an inner one for Ø{b}. It saves a jaw "
            "set.",
            a=Figure(larger, "mm"),
            b=Figure(smaller, "mm"),
        )
    ]


def sides_stop(document: Document, outcome: Outcome[SidesFigures]) -> Stop:
    """The stop as it is shown."""
    figures = outcome.value
    ends: tuple[End, End] = ("a", "b")
    options = {"proposed": "as proposed"} | {end: f"{end_name(document, end)} first" for end in ends}
    first = entered("first_end", "sides.first_end", document.sides.first_end)
    facts = [replace(first, spec=Choice("Made first", options, first.spec.help), options=options)]
    if len(document.setups) > 1:
        facts.append(entered("two_step", "sides.two_step", document.sides.two_step))
    if figures is None:
        return Stop("sides", "Sides", outcome.state(()), outcome.line, tuple(facts), problems=outcome.problems)
    order = figures.orders[figures.first]
    answers = tuple(
        Answer(
            f"order_{figures.first}_{index}",
            title,
            None,
            words=Sentence("{g}", g=_grip_words(order.best(index))),
            steps=order.steps,
        )
        for index, title in enumerate(("First side is held on", "Second side is held on"))
    )
    line = Sentence("{end} first" if figures.decided else "{end} first, as proposed", end=order.name)
    notes = []
    if not figures.decided:
        notes.append(
            Note(
                "info",
                "order-proposed",
                "The {end} is proposed first. Decide it, so that nothing turns round by itself.",
                end=order.name,
            )
        )
    if figures.decided and figures.first != figures.proposed:
        notes.append(
            Note(
                "info",
                "order-other",
                "The other order scores more: {reason}.",
                reason=f"{figures.orders[figures.proposed].name} first",
            )
        )
    notes += _sharing(document, order)
    tables = (_orders_table(figures), *_grips_table(document, figures))
    return Stop("sides", "Sides", outcome.state(tuple(notes)), line, tuple(facts), answers, tuple(notes), tables=tables)

"""Stop Sides solved: which end first, and what each order would be held on."""

from __future__ import annotations

from dataclasses import dataclass, replace

from calc.plan.document import Document
from calc.plan.outcome import Asked, Solved
from calc.plan.part.inputs import Stock
from calc.plan.part.solve import PART, PartFigures
from calc.profile.body import End
from calc.profile.grips import THIRD, Grip, Reason
from calc.quantities import Figure, Sentence
from calc.working import Step, Working, typical

SECOND_COUNTS = 0.65  # typical: the second side is held on finished metal and decides more
SCORE = typical("30 for length, 25 diameter, 20 finish, 15 stiffness, 10 access; the second side counts 65 %")
POCKETS_APART_MM = 2.0  # on diameter: nearer than this one pocket does for both
BAR_MM = 300.0  # of a bar: longer than any jaws are high
CLEAR_MM = 1.0  # the tool stops this far before the jaws
STOCK_GRIPS = ("stock", "stock:bore")  # outside and inside
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


def is_bar_work(document: Document, index: int) -> bool:
    """A set-up works the end of a bar: it is gripped behind the part, which is parted off."""
    return index == 0 and document.part.stock.form == "bar" and document.setups[0].hold.grip in ("", "stock")


def made_first(part: PartFigures, first: End) -> tuple[set[int], float]:
    """(outside steps finished in the first side, how far from its end they reach [mm])."""
    order = part.body.outside if first == "a" else tuple(reversed(part.body.outside))
    sizes = [max(s.step.diameter_mm or 0.0, s.step.last_diameter_mm or 0.0) for s in order]
    at = sizes.index(max(sizes))
    # What lies before the largest step is done from this end; a largest step at the end itself is, too.
    count = max(1, at) if len(order) > 1 else 1
    made = order[:count]
    return {s.index for s in made}, sum(s.end - s.start for s in made)


def made_on_first(document: Document, part: PartFigures, first: End) -> set[int]:
    """The outside steps that the first side finishes: of a bar all of them, before it is parted off."""
    return {s.index for s in part.body.outside} if is_bar_work(document, 0) else made_first(part, first)[0]


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
    if stock.form == "bar":
        plain = BAR_MM  # it is gripped behind the part
    found = []
    for side, d in (("od", stock.diameter_mm), ("id", stock.bore_mm)):
        if d is None or stock.diameter_mm is None:
            continue
        wall = (stock.diameter_mm - (stock.bore_mm or 0.0)) / 2
        long = plain >= THIRD * part.length_mm - 1e-9
        reasons = [
            Reason(
                Sentence("raw stock, {s}", s=stock.surface if not stock.flats else f"{stock.surface} {stock.section}")
            ),
            Reason(
                Sentence("a bar, gripped behind the part")
                if stock.form == "bar"
                else Sentence(
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
                flats=stock.flats if side == "od" else 0,
            )
        )
    return found


def _holds(document: Document, part: PartFigures, first: End) -> tuple[tuple[Grip, ...], tuple[Grip, ...]]:
    made, rule = made_on_first(document, part, first), document.in_force.raw_stock
    steps = {part.body.outside[i].name for i in made}
    before = Reason(Sentence("only if it was made before"))
    earlier = [replace(g, reasons=(*g.reasons, before), score=g.score / 2) for g in part.grips[OTHER[first]]]
    not_yet = Reason(Sentence("not made yet: the second side makes it"), against=True)
    later = [
        g if g.side == "id" or g.step in steps else replace(g, fit=False, reasons=(not_yet, *g.reasons))
        for g in part.grips[first]
    ]

    def ranked(grips: list[Grip]) -> tuple[Grip, ...]:
        return tuple(sorted(grips, key=lambda g: (not g.fit, -g.score)))

    return (*ranked(_stock_grips(part, first, rule)), *ranked(earlier)), ranked(later)


def _order(document: Document, part: PartFigures, first: End) -> Order:
    holds = _holds(document, part, first)
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


def solve_sides(asked: Asked) -> SidesFigures:
    """Both orders scored, the better one proposed, the setter's own in force once decided. Raises Waiting."""
    document, part = asked.document, asked.need(PART)
    ends: tuple[End, End] = ("a", "b")
    orders: dict[End, Order] = {end: _order(document, part, end) for end in ends}
    proposed: End = "a" if orders["a"].score >= orders["b"].score - 1e-9 else "b"
    given = document.sides.first_end
    first: End = proposed if given == "proposed" else given
    return SidesFigures(orders, proposed, first, given != "proposed")


SIDES = Solved("sides", "Sides", solve_sides, per_side=False)

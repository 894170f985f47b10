"""Stop Sides as it is shown: both orders side by side, and all that a side could be held on."""

from __future__ import annotations

from dataclasses import replace

from calc.fields import Choice
from calc.plan.document import Document, setup_path
from calc.plan.sides.solve import NO_STOCK, POCKETS_APART_MM, SIDES, Order, SidesFigures, end_name
from calc.plan.stop import Answer, Entering, Row, Stop, Table, without_figures
from calc.plan.view import View
from calc.profile.body import End
from calc.profile.grips import Grip
from calc.quantities import Figure, Sentence
from calc.working import Note


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
                f"{setup_path(document, index)}.hold.grip" if g.fit else None,
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


def show(view: View) -> Stop:
    """The stop as it is shown."""
    document, outcome = view.document, view.outcome(SIDES)
    figures = outcome.value
    ends: tuple[End, End] = ("a", "b")
    options = {"proposed": "as proposed"} | {end: f"{end_name(document, end)} first" for end in ends}
    enter = Entering("sides", document.sides)
    first = enter("first_end", "first_end")
    facts = [replace(first, spec=Choice("Made first", options, first.spec.help), options=options)]
    if len(document.setups) > 1:
        facts.append(enter("two_step", "two_step"))
    if figures is None:
        return without_figures(outcome, tuple(facts))
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
    return Stop("", "", outcome.state(tuple(notes)), line, tuple(facts), answers, tuple(notes))


def tables(view: View) -> tuple[Table, ...]:
    """Both orders side by side, and what each side could be held on."""
    figures = view[SIDES]
    return () if figures is None else (_orders_table(figures), *_grips_table(view.document, figures))

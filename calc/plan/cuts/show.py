"""Stop Cuts as it is shown: what is entered of every cut, what follows, and the hardest of them."""

from __future__ import annotations

from calc.plan.cuts.clear import CLEAR
from calc.plan.cuts.drawn import pictures
from calc.plan.cuts.ledger import POWER, facts_of, rounded
from calc.plan.cuts.solve import CUTS, CutFigures, CutsFigures
from calc.plan.stop import Amount, Answer, Bar, Entering, Fact, Stop, computed, without_figures
from calc.plan.view import View
from calc.quantities import Figure, Sentence, counted


def show(view: View) -> Stop:
    """The stop as it is shown."""
    outcome, headings = view.outcome(CUTS), {c.id: c.name for c in view.setup.cuts}
    figures, clamp, facts = outcome.value, _clamp(view), facts_of(view)
    if figures is None:
        return without_figures(outcome, (clamp, *facts), headings=headings)
    clear = view[CLEAR]
    notes = (*figures.notes, *(clear.notes if clear else ()))
    whole = computed(
        "minutes", "Time in cut", Amount(figures.minutes, "min", "up"), "of one piece, all cuts of this side"
    )
    many = counted(len(figures.cuts), "cut")
    line = Sentence("{n} · top {rpm}", n=many, rpm=Figure(figures.top_rpm, "rpm", "up"))
    answers = (_reached(figures), _hardest(figures), *_finish(figures))
    return Stop(
        "",
        "",
        outcome.state(notes),
        line,
        (clamp, whole, *facts),
        answers,
        notes,
        pictures=pictures(view, figures),
        headings=headings,
    )


def _clamp(view: View) -> Fact:
    """The clamp of the set-up, and how many cuts it is left for."""
    cuts = view.setup.cuts
    own, left = sum(c.clamp_rpm is not None or c.rpm is not None for c in cuts), None
    if own == len(cuts) > 0:
        left = Sentence("every cut has its own")
    elif own:
        left = Sentence("for {n} without their own", n=f"{len(cuts) - own} of {len(cuts)} cuts")
    return Entering(view.at, view.setup)("clamp", "clamp_rpm", source=left)


def _reached(figures: CutsFigures) -> Answer:
    fastest = figures.fastest
    return Answer(
        "clamp",
        "The program reaches",
        Figure(figures.top_rpm, "rpm", "up"),
        below=Sentence(
            "{cut}; clamp {n}", cut=fastest.name, n=Figure(fastest.clamp_rpm, "rpm") if fastest.clamp_rpm else "not set"
        ),
        steps=tuple(s for s in fastest.working if s.symbol in ("n_top",)),
    )


def _hardest(figures: CutsFigures) -> Answer:
    hardest: CutFigures = max(figures.cuts, key=lambda c: c.over)
    asked, there = rounded(hardest)
    return Answer(
        f"cut_{hardest.id}_power",
        "Hardest on the spindle",
        Figure(hardest.result.power_kw, "kW", asked, POWER),
        below=Sentence("{cut}, worn edge", cut=hardest.name),
        steps=hardest.working,
        bar=Bar(
            min(1.0, hardest.over),
            1.0,
            Sentence("spindle has {p}", p=Figure(hardest.power_available_kw, "kW", there, POWER)),
        ),
    )


def _finish(figures: CutsFigures) -> tuple[Answer, ...]:
    """The finish of the last cut that leaves one."""
    finish = [(c, c.consulted.finish) for c in figures.cuts if c.consulted.finish is not None]
    if not finish:
        return ()
    last, comes_to = finish[-1]
    return (
        Answer(
            f"cut_{last.id}_ra",
            "Finish of the last cut",
            Figure(comes_to.expected_um, "um", "up"),
            "Ra ",
            below=Sentence("{cut}, {how}", cut=last.name, how="as read before" if comes_to.seen else "in theory"),
            steps=tuple(s for s in last.working if s.symbol == "Ra"),
        ),
    )

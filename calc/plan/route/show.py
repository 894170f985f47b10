"""Stop Route as it is shown: what a piece takes and where, the run, and its set-up."""

from __future__ import annotations

from collections.abc import Iterator
from functools import lru_cache

from calc.calendar.words import clock_words
from calc.calendar.working_time import YEARS_MOST, wall
from calc.plan.cuts.cleaning import work_of
from calc.plan.cuts.inputs import PlannedCut
from calc.plan.cuts.solve import CUTS_KEPT, CutFigures
from calc.plan.route.edges import by_lives
from calc.plan.route.inputs import when
from calc.plan.route.lanes import HOW, lanes_of
from calc.plan.route.run import RunFigures
from calc.plan.route.solve import ROUTE, Operation, RouteFigures
from calc.plan.route.strikes import strikes
from calc.plan.route.tables import PIECE, RUN, hours
from calc.plan.stop import Amount, Answer, Entering, Fact, Stop, computed, without_figures
from calc.plan.view import View
from calc.quantities import Figure, Sentence, counted
from calc.route.cycle import BY_CALENDAR, SETTING_UP
from calc.route.order import sequence_notes
from calc.working import Basis, Note, Working

SETUP = "Setting up"
MOVES = ("moves", "index", "spindle")  # by how the machine moves
BELIEVED = 4  # times what an edge lasts by its life: more is asked about
GROUPS = {
    "station": "At a station of your own",
    "clocked_s": "Timed at the machine",
    "lasted_pieces": "How long an edge lasted",
}


def _seconds(value: float) -> Amount:
    return Amount(value, "s", "up", (1, 1))


def _parts(found: RouteFigures) -> list[tuple[str, str, float]]:
    """What a piece's seconds go to: name, words, seconds of all sides."""
    operations = [o for side in found.sides for o in side.operations]
    handling = sum(h.seconds for side in found.sides for h in (*side.before, *side.after))
    return [
        ("cut", "In cut", sum(o.cut_s for o in operations)),
        ("moves", "Moves of the slide", sum(o.moves_s for o in operations)),
        ("index", "Indexing", sum(o.index_s for o in operations)),
        ("spindle", "Spindle changing speed", sum(o.spindle_s for o in operations)),
        ("handling", "Handling", handling + found.transfer_s),
    ]


def _piece_facts(found: RouteFigures, typical: bool) -> Iterator[Fact]:
    total = sum(seconds for _, _, seconds in _parts(found))
    for name, words, seconds in _parts(found):
        share = Sentence("{p} of all the work", p=Figure(100 * seconds / total, "%", places=(0, 0)))
        basis: Basis = "typical" if typical and name in MOVES else "derived"
        yield computed(f"route_{name}", words, _seconds(seconds), share, basis, PIECE)
    for side in found.sides if len(found.sides) > 1 else ():
        many = counted(len(side.operations), "operation")
        yield computed(f"route_side_{side.index}", side.name, _seconds(side.seconds), many, group=PIECE)


def _number(value: float | None, unit: str = "") -> Amount:
    return Amount(value, unit, "up", (0, 0))


def _run_facts(found: RouteFigures) -> Iterator[Fact]:
    run = found.run
    yield computed("route_pieces", "Pieces to make", _number(run.pieces), "scrap included", group=RUN)
    if run.bars is not None:
        of = Sentence("{n} of a bar", n=counted(run.bars.pieces, "piece"))
        yield computed("route_bars", "Bars", _number(run.bars_needed), of, group=RUN)
    yield computed("route_edges", "Edges", _number(run.edges), "by the lives of their cuts", group=RUN)
    if not run.seen:
        of = Sentence("those of the set-up are in")
        yield computed("route_edge_min", "Changing edges", _number(run.edge_min, "min"), of, group=RUN)
    if run.check_min:
        every = "that stop the machine"
        yield computed("route_check_min", "Checks", _number(run.check_min, "min"), every, group=RUN)
    if run.bars is not None and not run.seen:
        yield computed("route_bar_min", "Changing bars", _number(run.bar_min, "min"), "all but the first", group=RUN)
    if run.bars is not None:
        alone = "to the next edge or bar, in the calendar's hours for it"
        if run.unsure:
            lasts = "lasts" if len(run.unsure) == 1 else "last"
            alone += f"; how long {' and '.join(run.unsure)} {lasts} is not known"
        if run.alone_min:
            yield computed("route_alone", "Runs without people", _number(run.alone_min, "min"), alone, group=RUN)


def _setup_facts(found: RouteFigures) -> Iterator[Fact]:
    for place, task in enumerate(found.run.tasks):
        yield computed(f"route_task_{place}", task.words, _number(task.minutes, "min"), "", "typical", SETUP)


@lru_cache(maxsize=2 * CUTS_KEPT)
def _operation_fact(fact: str, path: str, planned: PlannedCut, source: Sentence) -> Fact:
    """What a setter may say of an operation, beside what the plan has found; that of a cut which stays, stays."""
    enter = Entering(path, planned)
    return enter(f"{fact}_{planned.id}", fact, label=planned.name, group=GROUPS[fact], source=source)


def _computed(fact: str, o: Operation) -> Sentence:
    """What the plan has found, where nobody said another thing."""
    if fact == "station":
        return Sentence("at {n}", n=str(o.station))
    if fact == "clocked_s":
        return Sentence("computed {t}", t=Figure(60 * o.cut.minutes + o.moved.seconds, "s", "up", (1, 1)))
    alone = by_lives([o.cut])
    return Sentence("not known") if alone is None else Sentence("computed {n}, by itself", n=counted(alone, "piece"))


def _operation_facts(found: RouteFigures) -> Iterator[Fact]:
    """Where the tool of each operation stands, then what each took by the clock, and how long its edge lasted."""
    operations = [o for side in found.sides for o in side.operations]
    for fact in GROUPS:
        for o in operations:
            yield _operation_fact(fact, o.path, o.cut.planned, _computed(fact, o))


def _answers(found: RouteFigures) -> tuple[Answer, ...]:
    w = Working()
    total = 0.0
    for task in found.run.tasks:
        total = w.step("t_u", task.words, "t_u + t_w", "min", SETTING_UP, t_u=total, t_w=task.minutes)
    waits = found.waits_s
    how = Sentence(HOW[found.lanes])
    if waits is not None and waits[1] > 0:
        how = Sentence(
            "the {lane} spindle waits {t} for the other", lane=waits[0], t=Figure(waits[1], "s", "down", (1, 1))
        )
    pieces = counted(found.run.pieces, "piece")
    run = Sentence("{n}, machine running {u} of the time", n=pieces, u=Figure(100 * found.run.used, "%", places=(0, 0)))
    if found.run.seen:
        run = Sentence("{n}, at the pace that was seen, its stops with it", n=pieces)
    return (
        Answer("cycle", "One piece every", Figure(found.cycle_s / 60, "min", "up"), below=how, steps=found.cycle_steps),
        Answer(
            "run", "The run takes", None, words=Sentence(hours(found.run.run_min)), below=run, steps=found.run.steps
        ),
        Answer(
            "setup",
            "Set-up before it",
            None,
            words=Sentence(hours(found.run.setup_min)),
            below=Sentence("{n}, typical times", n=counted(len(found.run.tasks), "task")),
            steps=tuple(w.steps),
        ),
        *_finished(found.run),
        *_cost(found.run),
    )


def _cost(run: RunFigures) -> Iterator[Answer]:
    if run.cost is not None:
        below = Sentence("set-up, run and {e}, in the shop's money", e=counted(run.edges, "edge"))
        price = Figure(run.cost, "", "up", (2, 2))
        yield Answer("cost", "A good piece costs", price, below=below, steps=run.cost_steps)


def _finished(run: RunFigures) -> Iterator[Answer]:
    clock, w = run.clock, Working()
    if clock is None or clock.begins is None:
        return
    year = wall(clock.calendar, clock.begins).year
    told = [
        None if at is None else clock_words(clock.calendar, at, year)
        for at in (clock.begins, clock.running, clock.done)
    ]
    begins = "set up {b}" if clock.planned else "if it is set up at the earliest, {b}"
    done = told[2] or f"not within {YEARS_MOST} years"
    below = Sentence(begins + ", running {r}", b=told[0] or "", r=told[1] or "")
    # The calendar puts these minutes on the clock; it has no formula.
    minutes = {"t_u": run.setup_min, "t_r": run.run_min}
    w.step("t_c", "Minutes of work that the calendar places", "t_u + t_r", "min", BY_CALENDAR, **minutes)
    yield Answer("finished", "Finished", None, words=Sentence(done), below=below, steps=tuple(w.steps))


def show(view: View) -> Stop:
    """The stop as it is shown."""
    outcome = view.outcome(ROUTE)
    found = outcome.value
    enter = Entering("part", view.document.part)
    enter_route = Entering("route", view.document.route)
    facts: tuple[Fact, ...] = (enter("quantity", "quantity", group=RUN), enter_route("start", "start", group=RUN))
    if view.document.route.order or (found is not None and any(_order_notes(found, view))):
        facts = (*facts, enter_route("order", "order", group=RUN))
    if found is not None and found.lanes == "one" and len(found.sides) > 1:
        facts = (*facts, enter_route("follow", "follow", group=RUN))
    if found is not None:
        every = Sentence("computed {t}, without its stops", t=Figure(found.cycle_s, "s", "up", (1, 1)))
        facts = (*facts, enter_route("seen_s", "seen_s", group=RUN, source=every))
    if found is None:
        return without_figures(outcome, facts)
    line = Sentence("{t} a piece · {h}", t=Figure(found.cycle_s / 60, "min", "up"), h=hours(found.run.run_min))
    notes = tuple(_notes(found, view))
    facts = (
        *_piece_facts(found, view.shelf.machine is not None and view.shelf.machine.typical),
        *facts,
        *_run_facts(found),
        enter_route("stay", "stay", group=SETUP),
        *_setup_facts(found),
        *_operation_facts(found),
    )
    return Stop("", "", outcome.state(notes), line, facts, _answers(found), notes, pictures=(lanes_of(found),))


def _turret_cuts(found: RouteFigures) -> list[list[CutFigures]]:
    """The cuts of each turret."""
    of_sides = [[o.cut for o in side.operations] for side in found.sides]
    return of_sides if len(found.turrets) > 1 else [[cut for cuts in of_sides for cut in cuts]]


def _order_notes(found: RouteFigures, view: View) -> Iterator[Note]:
    """What is unusual in the order, until somebody has said why."""
    reason = view.document.route.order.strip()
    for side in found.sides:
        planned = [o.cut.planned for o in side.operations]
        for note in sequence_notes([work_of(c) for c in planned]):
            if not reason:
                yield note
            else:
                words = "{what} Kept, because: {why}"
                yield Note("info", note.code, words, what=note.sentence, why=reason)


def _seen_notes(found: RouteFigures) -> Iterator[Note]:
    """What was seen at the machine: that it rules, and where it is hard to believe."""
    if found.run.seen:
        words = (
            "The run goes by the pace that was seen: what is changed in the plan moves it only when that is taken out."
        )
        yield Note("info", "pace-seen", words)
        if found.run.used > 1:
            words = "The pace that was seen is faster than the work takes by the plan, {t} a piece: which is wrong?"
            yield Note("caution", "pace-too-fast", words, t=Figure(found.cycle_s, "s", "up", (1, 1)))
    for o in (o for side in found.sides for o in side.operations):
        lasted, alone = o.cut.planned.lasted_pieces, by_lives([o.cut])
        if lasted is not None and alone is not None and lasted > BELIEVED * alone:
            words = (
                "{cut}: an edge is said to last {n}, by its life {a}. Grip is planned for a worn edge, not a blunt one."
            )
            yield Note("caution", "edge-lasts-long", words, cut=o.cut.name, n=counted(lasted, "piece"), a=str(alone))


def _notes(found: RouteFigures, view: View) -> Iterator[Note]:
    bars, clock, today = found.run.bars, found.run.clock, view.shelf.today
    yield from _seen_notes(found)
    if bars is not None and bars.pieces == 0:
        yield Note("stop", "bar-too-short", "A bar gives no piece: one takes {e}.", e=Figure(bars.each_mm, "mm", "up"))
    if view.document.route.stay > sum(len(t.stations) for t in found.turrets):
        words = "More tools stay than the run has: {n} are counted."
        yield Note("info", "stay-all", words, n=counted(sum(len(t.stations) for t in found.turrets), "tool"))
    if clock is not None and clock.done is None:
        words = "By the shop's calendar this run does not end within {n} years."
        yield Note("caution", "never-done", words, n=str(YEARS_MOST))
    yield from _order_notes(found, view)
    machine = view.shelf.machine
    for cuts in _turret_cuts(found) if machine else ():
        yield from strikes(cuts, machine.change_z_mm, view.document.in_force.clearance_mm)  # type: ignore[union-attr]
    yield from found.beside
    start = when(view.document.route.start or "")
    if start is not None and today and start.date().isoformat() < today:
        words = "The start is past: {d}. Move it where it has not begun."
        yield Note("info", "start-past", words, d=f"{start:%Y-%m-%d}")
    if found.lanes == "one" and len(found.sides) > 1:
        batches = Figure(found.batches_s / 60, "min", "up")
        if found.piecewise_s > found.batches_s:
            words = "In two batches {t} a piece. Piece by piece the jaws would change twice for each: {u}."
            yield Note("info", "two-batches", words, t=batches, u=Figure(found.piecewise_s / 60, "min", "up"))
        else:
            words = "Both sides are in one set of jaws: in two batches or piece by piece, {t} a piece."
            yield Note("info", "one-set", words, t=batches)

"""What would move the finish most: each thing that a shop can do about it, with what it is worth."""

from __future__ import annotations

from dataclasses import dataclass

from calc.plan.route.solve import RouteFigures

SHOWN = 6  # the largest
FASTER = 0.10  # of a cut's minutes: what another feed or speed may well give
IN_USE = 0.05  # of the time
LEAST_MIN = 1.0  # of the run: less is not told


@dataclass(frozen=True)
class Lever:
    """Something that would end the run sooner: seconds of a piece, minutes of the set-up and the run."""

    words: str
    piece_s: float
    run_min: float


def _piece(found: RouteFigures, words: str, saved_s: float) -> Lever:
    used = found.run.used
    return Lever(words, saved_s, saved_s * found.run.pieces / 60 / used)


def levers(found: RouteFigures) -> list[Lever]:
    """What would end the run soonest, the most first. On two lanes only the one that is waited for moves the cycle."""
    run, made = found.run, []
    slack = found.waits_s
    for side in found.sides:
        for o in side.operations:
            saved = FASTER * o.cut_s
            if slack is not None and o.cut.planned.kind != "part":
                waited_for = (side.index == 0) == (slack[0] == "second")
                saved = min(saved, slack[1]) if waited_for else 0.0
            made.append(_piece(found, f"{o.cut.name} cut 10 % faster", saved))
    handling = sum(h.seconds for side in found.sides for h in (*side.before, *side.after))
    if found.lanes == "one":
        made.append(_piece(found, "handling halved", handling / 2))
    full = run.run_min - run.edge_min - run.bar_min - run.check_min
    if run.used + IN_USE <= 1:
        made.append(Lever("machine in use 5 % more of the time", 0.0, full - full * run.used / (run.used + IN_USE)))
    made.append(Lever("no edge changed during the run", 0.0, run.edge_min))
    made.append(Lever("no bar changed by hand", 0.0, run.bar_min))
    made.append(Lever("no check that stops the machine", 0.0, run.check_min))
    made += [Lever(f"no “{task.words}”", 0.0, task.minutes) for task in run.tasks]
    worth = [lever for lever in made if lever.run_min >= LEAST_MIN]
    return sorted(worth, key=lambda lever: -lever.run_min)[:SHOWN]

"""Stop Force as it is shown: its ledger, answers and rail line."""

from __future__ import annotations

from calc.chuck.speed import KEPT_LEAST
from calc.fields import Text
from calc.plan.cuts import CutsFigures
from calc.plan.document import Setup
from calc.plan.force import BY, ForceFigures
from calc.plan.hold import HoldFigures
from calc.plan.stops import Answer, Bar, Fact, Help, Outcome, Stop, computed, entered
from calc.quantities import Bare, Beside, Figure, Sentence

HELD_SCALE = 4.0  # the full length of the margin bar, in times what the worst cut asks


def _makes(at: str, setup: Setup, f: ForceFigures | None) -> list[Fact]:
    """What makes the grip."""
    force = setup.force
    charted = Sentence("at the cylinder")
    if f:
        psi = Beside(Figure(f.pressure_bar, "bar"))
        charted = Sentence("{psi}; {g} by its book", psi=psi, g=Figure(f.grip.charted_n, "N", "down"))
    facts = [
        entered("pressure", f"{at}.force.pressure_bar", force.pressure_bar, source=charted),
        entered("condition", f"{at}.force.condition", force.condition,
                source=Sentence("counts {c}", c=Figure(f.condition, "", "down")) if f else None,
                basis="measured" if force.condition == "measured" else "typical"),
    ]  # fmt: skip
    if force.condition == "measured":
        facts += [
            entered("condition_measured", f"{at}.force.condition_measured", force.condition_measured, basis="measured"),
            entered("condition_date", f"{at}.force.condition_date", force.condition_date, basis="measured"),
        ]
    facts.append(
        entered("safety", f"{at}.force.safety", force.safety, source=Sentence("1.5 is the least"), basis="typical")
    )
    facts.append(entered("own_limit", f"{at}.force.user_max_rpm", force.user_max_rpm))
    if f:
        costs = Figure(100 * (1 - f.grip.height_factor), "%", "up")
        facts += [
            computed("height_factor", "Height factor", f.grip.height_factor, "", Sentence("height costs {p}", p=costs),
                     rounding="down"),
            computed("static_grip", "Grip standing still", f.grip.grip_n, "N", "all jaws together", rounding="down"),
            computed("per_jaw", "Of that, one jaw", f.grip.per_jaw_n, "N", "per jaw", rounding="down"),
            computed("allowable", "Chuck allows", f.grip.allowable_grip_n, "N", "at this height, all jaws", "book",
                     rounding="down"),
        ]  # fmt: skip
    return facts


def _takes(f: ForceFigures, hold: HoldFigures, cuts: CutsFigures) -> list[Fact]:
    """What takes the grip, and what is asked of it."""
    stack = sum(p.mass_kg for p in f.stack)
    centre = sum(p.mass_kg * p.radius_mm for p in f.stack) / stack
    facts = [
        computed("stack", "One jaw stack", stack, "kg",
                 Sentence("centre at Ø{d}", d=Figure(2 * centre, "mm", places=(0, 2))), rounding="up"),
        computed("centrifugal", "Speed takes", f.at_top.centrifugal_n, "N",
                 Sentence("at the program's {n}", n=Figure(f.top_rpm, "rpm", "up")), rounding="up"),
        computed("friction", "Friction", hold.friction, "", "typical for the pair", "typical", rounding="down",
                 places=(3, 3)),
    ]  # fmt: skip
    for i, d in enumerate(f.demand.cuts):
        detail = Sentence("slip {a}, tilt {b}, side {c}", a=Bare(Figure(d.slip_n, "N", "up")),
                          b=Bare(Figure(d.tilt_n, "N", "up")), c=Bare(Figure(d.side_n, "N", "up")))  # fmt: skip
        facts.append(computed(f"demand_{i}", f"{d.name} needs", d.required_n, "N", detail, rounding="up"))
    facts.append(
        Fact("not_counted", "Not counted yet", "imbalance, braking", Text("Not counted yet"),
             source=Sentence("loads beside the cuts"), basis="derived")
    )  # fmt: skip
    facts.append(computed("top_rpm", "Program's top speed", cuts.top_rpm, "rpm", cuts.fastest.name, rounding="up"))
    return facts


def _answers(f: ForceFigures) -> tuple[Answer, ...]:
    cap = f.limit.speed_cap_rpm
    kept = f.at_top.kept_fraction
    held = Figure(f.held, "", "down", places=(2, 2))
    return (
        Answer("cap", "Never above", Figure(cap, "rpm", "down"), steps=(*f.demand.working, *f.limit.working),
               below=Sentence("set by {by}; {cut} asks {need} by {mode}", by=BY[f.limit.capped_by],
                              cut=f.demand.governing_cut, need=Figure(f.demand.required_grip_n, "N", "up"),
                              mode=f.demand.governing_mode)),
        Answer("kept", "Grip kept at the program's speed", Figure(100 * kept, "%", "down"),
               below=Sentence("{g} of {g0} at {n}", g=Figure(f.at_top.grip_n, "N", "down"),
                              g0=Figure(f.grip.grip_n, "N", "down"), n=Figure(f.top_rpm, "rpm", "up")),
               steps=(*f.grip.working, *f.at_top.working),
               bar=Bar(min(1.0, kept), KEPT_LEAST, Sentence("a third is the least that is usual"))),
        Answer("held", "Holds the worst cut", held, words=Sentence("×"), steps=f.margin_steps,
               below=Sentence("worst credible corner: {c} ×", c=Figure(f.held_corner, "", "down", places=(2, 2))),
               bar=Bar(min(1.0, f.held / HELD_SCALE), min(1.0, f.safety / HELD_SCALE),
                       Sentence("{s} × is wanted", s=Figure(f.safety, "")))),
    )  # fmt: skip


def force_stop(
    at: str, setup: Setup, hold: HoldFigures | None, cuts: CutsFigures | None, outcome: Outcome[ForceFigures],
    helps: tuple[Help, ...],
) -> Stop:  # fmt: skip
    """The stop as it is shown."""
    f = outcome.value
    facts = _makes(at, setup, f)
    if f is None or hold is None or cuts is None:
        return Stop("force", "Force", outcome.state(()), outcome.line, tuple(facts), problems=outcome.problems)
    facts += _takes(f, hold, cuts)
    cap = f.limit.speed_cap_rpm
    line = Sentence("{p} · cap {n} — {by}", p=Figure(f.pressure_bar, "bar"), n=Figure(cap, "rpm", "down"),
                    by=f.limit.capped_by if f.limit.capped_by != "user" else "own limit")  # fmt: skip
    over = next((n for n in f.notes if n.level == "stop"), None)
    if over is not None:
        line = (
            over.sentence
            if over.code != "over-cap"
            else Sentence(
                "{top} is over the cap of {cap}", top=Figure(f.top_rpm, "rpm", "up"), cap=Figure(cap, "rpm", "down")
            )
        )
    return Stop("force", "Force", outcome.state(f.notes), line, tuple(facts), _answers(f), f.notes, helps)

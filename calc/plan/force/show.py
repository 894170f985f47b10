"""Stop Force as it is shown: its ledger, answers and rail line."""

from __future__ import annotations

from calc.chuck.pressure import LIMIT_WORDS
from calc.fields import Choice, Quantity, fields_of
from calc.plan.cuts.solve import CUTS, CutsFigures
from calc.plan.document import Document
from calc.plan.force.held import LoadHeld
from calc.plan.force.solve import BY, FORCE, ForceFigures
from calc.plan.hold.figures import HoldFigures
from calc.plan.hold.solve import HOLD
from calc.plan.stop import Amount, Answer, Bar, Entering, Fact, Link, Row, Stop, Table, computed, without_figures
from calc.plan.view import View
from calc.quantities import Beside, Figure, Sentence
from calc.rules import Rules
from calc.working import Step

FORCES = (2, 0)  # places: what just holds must not read as too little
HELD_SCALE = 4.0  # the full length of the margin bar, in times what the worst cut asks


def _departures(document: Document) -> list[Fact]:
    """What this plan departs from, with its reason."""
    found, specs = [], {f.name: f.spec for f in fields_of(Rules)}
    for departure in document.departures:
        spec = specs[departure.rule]
        said = Sentence(
            "house rule {x}; {why}",
            x=Figure(
                getattr(document.rules, departure.rule), spec.unit if isinstance(spec, Quantity) else "", places=(2, 2)
            ),
            why=departure.name,
        )
        enter = Entering(f"departures.{departure.id}", departure)
        found.append(enter(f"departure_{departure.id}", "value", label=spec.label, source=said))
    return found


def rules_table(view: View) -> tuple[Table, ...]:
    """The house rules in force, side by side."""
    document = view.document
    own = {d.rule: Sentence("this plan: {why}", why=d.name) for d in document.departures}
    house, rows = Sentence("house rules, revision {n}", n=str(document.rules.number)), []
    for field in fields_of(Rules):
        name, spec = field.name, field.spec
        if name == "number":
            continue
        value = getattr(document.in_force, name)
        shown = (
            Figure(value, spec.unit, places=(2, 2))
            if isinstance(spec, Quantity)
            else Sentence("{x}", x=spec.options[value] if isinstance(spec, Choice) else str(value))
        )
        rows.append(Row(spec.label, (shown, own.get(name, house)), chosen=name in own))
    return (Table("rules", "House rules in force", ("rule", "value", "from"), tuple(rows)),)


def _makes(view: View) -> list[Fact]:
    """What makes the grip."""
    document, force, f, enter = view.document, view.setup.force, view[FORCE], Entering(view.at, view.setup)
    charted = Sentence("at the cylinder")
    if f:
        psi = Beside(Figure(f.pressure_bar, "bar"))
        charted = Sentence("{psi}; {g} by its book", psi=psi, g=Figure(f.grip.charted_n, "N", "down"))
    facts = [
        enter("pressure", "force.pressure_bar", source=charted),
        enter(
            "condition",
            "force.condition",
            source=Sentence(
                "counts {c}: {why}",
                c=Figure(f.condition, "", "down"),
                why=f.condition_source.place or f.condition_source.text,
            )
            if f
            else None,
            basis="measured" if f is not None and f.condition_source.basis == "measured" else "typical",
        ),
    ]
    if force.condition == "measured":
        facts += [
            enter("condition_measured", "force.condition_measured", basis="measured"),
            enter("condition_date", "force.condition_date", basis="measured"),
        ]
    safety = next((d for d in document.departures if d.rule == "safety"), None)
    facts += [
        computed(
            "safety",
            "Safety",
            Amount(document.in_force.safety, "", "down"),
            Sentence("this plan: {why}", why=safety.name)
            if safety
            else Sentence("house rules, revision {n}", n=str(document.rules.number)),
            "entered" if safety else "typical",
        ),
        enter("own_limit", "force.user_max_rpm"),
        enter("wanted", "force.wanted_rpm"),
    ]
    if f:
        costs = Figure(100 * (1 - f.grip.height_factor), "%", "up")
        facts += [
            computed(
                "height_factor",
                "Height factor",
                Amount(f.grip.height_factor, "", "down"),
                Sentence("height costs {p}", p=costs),
            ),
            computed("static_grip", "Grip standing still", Amount(f.grip.grip_n, "N", "down"), "all jaws together"),
            computed("per_jaw", "Of that, one jaw", Amount(f.grip.per_jaw_n, "N", "down"), "per jaw"),
            computed(
                "allowable",
                "Chuck allows",
                Amount(f.grip.allowable_grip_n, "N", "down"),
                "at this height, all jaws",
                "book",
            ),
        ]
    return facts


def _beside(view: View, f: ForceFigures) -> list[Fact]:
    """Loads that are no cuts."""
    enter = Entering(view.at, view.setup)
    asked = f.asked.asked
    weight = Sentence(
        "{m} chucked; its pull at {n} and its weight add to every cut",
        m=Figure(asked.part_mass_kg, "kg", "up"),
        n=Figure(f.top_rpm, "rpm", "up"),
    )
    return [enter("offset", "force.offset_mm", source=weight), enter("brake", "force.brake_s")]


def _pulls(f: ForceFigures, hold: HoldFigures) -> list[Fact]:
    """What pulls outward at speed."""
    if hold.presses_all_round:
        words = Sentence("a collet presses all round, up to its chuck's own limit")
        return [computed("centrifugal", "Speed takes", Amount(0.0, "N", "up"), words, "typical")]
    stack = sum(p.mass_kg for p in f.stack)
    centre = sum(p.mass_kg * p.radius_mm for p in f.stack) / stack
    return [
        computed(
            "stack",
            "One jaw stack",
            Amount(stack, "kg", "up"),
            Sentence("centre at Ø{d}", d=Figure(2 * centre, "mm", places=(0, 2))),
        ),
        computed(
            "centrifugal",
            "Speed takes" if hold.side == "od" else "Speed adds, not credited",
            Amount(f.fastest.at_top.centrifugal_n, "N", "up"),
            Sentence("at the program's {n}", n=Figure(f.top_rpm, "rpm", "up")),
        ),
    ]


def _takes(f: ForceFigures, hold: HoldFigures, cuts: CutsFigures) -> list[Fact]:
    """What takes the grip, and what is asked of it."""
    facts = [
        *_pulls(f, hold),
        computed("friction", "Friction", Amount(hold.friction, "", "down", (3, 3)), "typical for the pair", "typical"),
    ]
    if hold.side == "od" and not hold.presses_all_round:
        facts.append(
            computed(
                "kept",
                "Grip kept at that speed",
                Amount(100 * f.fastest.at_top.kept_fraction, "%", "down"),
                Sentence(
                    "{g} of {g0}; a third is the least",
                    g=Figure(f.fastest.at_top.grip_n, "N", "down"),
                    g0=Figure(f.grip.grip_n, "N", "down"),
                ),
            )
        )
    if f.second_rpm is not None:
        both = Sentence("both hold the piece while the blade goes through: the lower cap counts")
        facts.append(computed("second_cap", "Second spindle holds it to", Amount(f.second_rpm, "rpm", "down"), both))
    for place, load in enumerate(f.loads):
        detail = Sentence(
            "at its {n} there are {g}; cap {cap}",
            n=Figure(load.top_rpm, "rpm", "up"),
            g=Figure(load.counted_n, "N", "down", FORCES),
            cap=Figure(load.cap_rpm, "rpm", "down"),
        )
        facts.append(
            computed(
                f"demand_{load.cut.id}" if load.cut is not None else f"demand_beside_{place}",
                f"{load.name} needs",
                Amount(load.needed_n, "N", "up", FORCES),
                detail,
            )
        )
    facts.append(computed("top_rpm", "Program's top speed", Amount(cuts.top_rpm, "rpm", "up"), cuts.fastest.name))
    return facts


def _wanted(f: ForceFigures, hold: HoldFigures) -> Answer:
    """The other way round: from the speed to the pressure; inside, the window of pressures."""
    at, found = Figure(f.wanted_rpm, "rpm", "up"), f.wanted
    window = f.window_bar
    room = Sentence(
        "{m} of room, then {by}",
        m=Figure(max(0.0, found.margin_n), "N", "down"),
        by=LIMIT_WORDS[found.limited_by or "chuck"],
    )
    if window is None:
        return Answer(
            "wanted",
            "Pressure for the speed wanted",
            None,
            words=Sentence("none"),
            steps=found.working,
            below=Sentence("{n}: {why}", n=at, why=found.notes[0].sentence),
        )
    if hold.side == "id":
        return Answer(
            "wanted",
            "Pressures that hold and that the wall stands",
            Figure(window[0], "bar", "up"),
            steps=found.working,
            below=Sentence("up to {high} at {n}; {room}", high=Figure(window[1], "bar", "down"), n=at, room=room),
        )
    return Answer(
        "wanted",
        "Least pressure for the speed wanted",
        Figure(window[0], "bar", "up"),
        steps=found.working,
        below=Sentence("at {n}; {room}", n=at, room=room),
    )


def _steps_of(f: ForceFigures, load: LoadHeld) -> tuple[Step, ...]:
    """How the need of one load came about."""
    return tuple(s for s in f.asked.nominal.working if s.symbol == "F_m" or s.label.startswith(f"{load.name}:"))


def _answers(f: ForceFigures, hold: HoldFigures) -> tuple[Answer, ...]:
    lowest, worst, weakest = f.lowest, f.worst, f.weakest
    held = Figure(worst.held, "", "down", places=(2, 2))
    return (
        Answer(
            "cap",
            "Never above",
            Figure(lowest.cap_rpm, "rpm", "down"),
            steps=(*f.asked.braking, *_steps_of(f, lowest), *lowest.limit.working),
            below=Sentence(
                "{cut}, set by {by}; it asks {need} by {mode}",
                by=BY[lowest.limit.capped_by],
                cut=lowest.name,
                need=Figure(lowest.needed_n, "N", "up"),
                mode=lowest.needs.mode,
            ),
        ),
        Answer(
            "held",
            "Holds the worst cut",
            held,
            words=Sentence("×"),
            steps=(*f.grip.working, *worst.at_top.working, *_steps_of(f, worst), *worst.steps),
            below=Sentence(
                "{cut} at {n}; worst credible corner: {c} ×, of 1 at least",
                cut=worst.name,
                n=Figure(worst.top_rpm, "rpm", "up"),
                c=Figure(weakest.held_corner, "", "down", places=(2, 2)),
            ),
            bar=Bar(
                min(1.0, worst.held / HELD_SCALE),
                min(1.0, f.safety / HELD_SCALE),
                Sentence("{s} × is wanted", s=Figure(f.safety, "")),
            ),
        ),
        _wanted(f, hold),
    )


def show(view: View) -> Stop:
    """The stop as it is shown."""
    hold, cuts, outcome = view[HOLD], view[CUTS], view.outcome(FORCE)
    f = outcome.value
    facts, chuck = _makes(view) + _departures(view.document), view.taken.chuck
    links = (Link("Measured grip and greasing of this chuck", "gauge", chuck.key),) if chuck else ()
    if f is None or hold is None or cuts is None:
        return without_figures(outcome, tuple(facts), links=links)
    facts += [*_takes(f, hold, cuts), *_beside(view, f)]
    line = Sentence(
        "{p} · cap {n} — {cut}", p=Figure(f.pressure_bar, "bar"), n=Figure(f.cap_rpm, "rpm", "down"), cut=f.lowest.name
    )
    over = next((n for n in f.notes if n.level == "stop"), None)
    if over is not None:
        line = over.sentence
    return Stop("", "", outcome.state(f.notes), line, tuple(facts), _answers(f, hold), f.notes, links=links)

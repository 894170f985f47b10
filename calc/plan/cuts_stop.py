"""Stop Cuts as it is shown: what is entered of every cut, what follows, and the hardest of them."""

from __future__ import annotations

from dataclasses import replace

from calc.fields import Quantity
from calc.plan.cuts import CutFigures, CutsFigures
from calc.plan.document import Setup
from calc.plan.operations import CALLED, LEAVES_OUT
from calc.plan.pictures import Bars, Curves, Range, speed_curves
from calc.plan.planned_cut import PlannedCut
from calc.plan.stops import Answer, Bar, Fact, Help, Outcome, Row, Stop, Table, computed, entered, field_at
from calc.plan.tooling import brought
from calc.quantities import Figure, Sentence

ENTERED_NAMES = (
    "name",
    "kind",
    "from_diameter_mm",
    "to_diameter_mm",
    "speed_m_min",
    "rpm",
    "feed_mm_rev",
    "depth_mm",
    "corner_radius_mm",
    "approach_deg",
    "width_mm",
    "point_deg",
    "passes",
    "rake_deg",
    "interrupted",
    "feeds",
    "stage",
    "start_mm",
    "length_mm",
    "thread",
    "slow_feed_mm_rev",
    "slow_below_mm",
)


PINS = {"speed_m_min": "pin_speed", "rpm": "pin_speed", "feed_mm_rev": "pin_feed", "depth_mm": "pin_depth"}


def _entered_facts(at: str, i: int, c: PlannedCut, figures: CutFigures | None) -> list[Fact]:
    here, group = f"{at}.cuts.{i}", c.name
    result, tool = (figures.result, figures.tool) if figures else (None, None)
    facts = []
    for n in ENTERED_NAMES:
        if n in LEAVES_OUT[c.kind]:
            continue
        if n in brought(tool) and figures is not None and tool is not None:
            spec = field_at(f"{here}.{n}").spec
            unit, label = (spec.unit if isinstance(spec, Quantity) else ""), CALLED.get((c.kind, n), spec.label)
            facts.append(
                computed(
                    f"cut_{i}_{n}",
                    label,
                    getattr(figures.planned, n),
                    unit,
                    Sentence("of {t}", t=tool.edge.name),
                    "book",
                    group=group,
                )
            )
            continue
        if n == "speed_m_min" and c.rpm is not None:
            follows = "follows the fixed rpm; empty that to give a speed"
            speed = result.speed_m_min if result else None
            facts.append(computed(f"cut_{i}_{n}", "Surface speed", speed, "m/min", follows, group=group))
            continue
        source = None
        if n == "depth_mm" and c.kind != "face" and c.depth_mm is not None:
            source = Sentence("{x} on diameter", x=Figure(2 * c.depth_mm, "mm"))
        label = CALLED.get((c.kind, n), "")
        fact = entered(f"cut_{i}_{n}", f"{here}.{n}", getattr(c, n), label=label, group=group, source=source)
        if n in PINS and getattr(c, n) is not None and c.kind != "thread":
            fact = replace(fact, pin_path=f"{here}.{PINS[n]}", pinned=getattr(c, PINS[n]))
        facts.append(fact)
    return facts


def _computed_facts(i: int, c: CutFigures) -> list[Fact]:
    g, r = c.name, c.result
    facts = [
        computed(
            f"cut_{i}_tangential",
            "Tangential force",
            c.tangential_n,
            "N",
            "worn edge" + (", interrupted" if c.planned.interrupted else ""),
            group=g,
            rounding="up",
            places=(2, 0),
        ),
        computed(
            f"cut_{i}_power",
            "Power",
            r.power_kw,
            "kW",
            Sentence("spindle has {p}", p=Figure(c.power_available_kw, "kW", "down")),
            group=g,
            rounding="up",
        ),
        computed(
            f"cut_{i}_torque",
            "Torque",
            r.torque_nm,
            "N*m",
            Sentence("spindle has {m}", m=Figure(c.torque_available_nm, "N*m", "down")),
            group=g,
            rounding="up",
        ),
        computed(
            f"cut_{i}_rpm_here",
            "Speed at the start",
            r.rpm,
            "rpm",
            Sentence(
                "{v} at Ø{d}",
                v=Figure(r.speed_m_min, "m/min"),
                d=Figure(c.diameter_mm, "mm", exact=True, places=(2, 3)),
            ),
            group=g,
        ),
        computed(f"cut_{i}_top", "Top speed", c.top_rpm, "rpm", "at its smallest diameter", group=g, rounding="up"),
    ]
    if r.ra_um is not None:
        facts.append(
            computed(f"cut_{i}_ra", "Theoretical Ra", r.ra_um, "um", "feed and corner", group=g, rounding="up")
        )
    facts.append(computed(f"cut_{i}_passes", "Passes", float(c.passes), "", "stock ÷ depth", group=g))
    facts.append(computed(f"cut_{i}_minutes", "Time in cut", c.minutes, "min", "of one piece", group=g, rounding="up"))
    return facts + _about_facts(i, c)


def _about_facts(i: int, c: CutFigures) -> list[Fact]:
    g, about, facts = c.name, c.about, []
    if about.window is not None:
        w = about.window
        said = {"radius": "two thirds of the corner", "finish": "the finish", "breaker": "the breaker"}[w.bound_by]
        facts.append(
            computed(
                f"cut_{i}_feed_most",
                "Largest feed",
                w.feed_max_mm_rev,
                "mm/rev",
                Sentence("set by {w}; least {f}", w=said, f=Figure(w.feed_min_mm_rev, "mm/rev", "up")),
                "typical",
                group=g,
                rounding="down",
            )
        )
    if about.life is not None:
        life = about.life
        facts.append(
            computed(
                f"cut_{i}_life",
                "Edge lasts",
                life.life_min,
                "min",
                Sentence("{n} pieces; {e} inserts for the run", n=str(life.pieces_per_edge), e=str(life.inserts)),
                "typical",
                group=g,
                rounding="down",
                places=(1, 1),
            )
        )
    if about.bar is not None:
        facts.append(
            computed(
                f"cut_{i}_bend",
                "Bar bends",
                about.bar.deflection_mm,
                "mm",
                Sentence("a side; {r} diameters out", r=Figure(about.bar.overhang_ratio, "", "up", (1, 1))),
                group=g,
                rounding="up",
                places=(3, 4),
            )
        )
    if about.plunge is not None:
        facts.append(
            computed(
                f"cut_{i}_tops",
                "Spindle tops out at",
                about.plunge.cap_diameter_mm,
                "mm",
                "diameter; from there the surface speed falls",
                group=g,
                rounding="up",
            )
        )
    return facts


NOT_SET = Sentence("the tool's own")


def _limit(value: float | None, words: Sentence = NOT_SET) -> Figure | Sentence:
    return words if value is None else Figure(value, "mm", places=(3, 4))


def _tables(figures: CutsFigures) -> tuple[Table, ...]:
    """Limits of threads, depths of their passes, and the pecks of deep holes."""
    found = []
    for i, c in enumerate(figures.cuts):
        t, d = c.about.thread, c.about.drilled
        if t is not None:
            rows = [
                Row(label, (_limit(x.max), _limit(x.min)))
                for label, x in (("major", t.major), ("pitch", t.pitch_diameter), ("minor", t.minor))
            ]
            if t.over_wires_mm:
                rows.append(Row("over the best wires", (_limit(t.over_wires_mm[0]), _limit(t.over_wires_mm[1]))))
            found.append(
                Table(
                    f"thread_{i}",
                    f"Limits of {c.planned.thread}",
                    ("diameter", "largest", "smallest"),
                    tuple(rows),
                    c.name,
                )
            )
            depths = tuple(Row(f"pass {n}", (_limit(x),)) for n, x in enumerate(t.pass_depths_mm, start=1))
            found.append(
                Table(f"passes_{i}", "Passes with an equal chip", ("pass", "depth per side, after it"), depths, c.name)
            )
        if d is not None and d.pecks_mm:
            pecks = tuple(Row(f"peck {n}", (Figure(x, "mm"),)) for n, x in enumerate(d.pecks_mm, start=1))
            found.append(
                Table(
                    f"pecks_{i}",
                    "Pecks, where no coolant comes through the drill",
                    ("peck", "to a depth of"),
                    pecks,
                    c.name,
                )
            )
    return tuple(found)


def _pictures(figures: CutsFigures, clamp: float | None, most: float) -> tuple[Bars | Curves, ...]:
    """Feed windows of the turning cuts, and speed against diameter of what goes across."""
    found: list[Bars | Curves] = []
    for i, c in enumerate(figures.cuts):
        w, p = c.about.window, c.planned
        if w is not None:
            s = w.schools
            rows = [Range("corner radius", s.radius.feed_min_mm_rev, s.radius.feed_max_mm_rev)]
            rows += [Range("finish", None, s.finish.feed_max_mm_rev)] if s.finish else []
            rows += [Range("chip breaker", s.breaker.feed_min_mm_rev, s.breaker.feed_max_mm_rev)] if s.breaker else []
            ends = Figure(w.feed_min_mm_rev, "mm/rev", "up"), Figure(w.feed_max_mm_rev, "mm/rev", "down")
            clash = w.feed_min_mm_rev > w.feed_max_mm_rev
            words = Sentence(
                "They clash: at least {a}, at most {b}." if clash else "All allow {a} to {b}.", a=ends[0], b=ends[1]
            )
            found.append(
                Bars(
                    f"window_{i}",
                    "Feed window",
                    "mm/rev",
                    tuple(rows),
                    Range("shared", w.feed_min_mm_rev, w.feed_max_mm_rev),
                    p.feed_mm_rev,
                    words,
                    c.name,
                )
            )
        if p.kind in ("face", "part") and p.speed_m_min is not None and p.rpm is None:
            a, b = p.from_diameter_mm or 0.0, p.to_diameter_mm or 0.0
            found.append(
                speed_curves(f"across_{i}", c.name, max(a, b), min(a, b), p.speed_m_min, min(most, clamp or most))
            )
    return tuple(found)


def cuts_stop(
    at: str, setup: Setup, outcome: Outcome[CutsFigures], helps: tuple[Help, ...], most_rpm: float = 0.0
) -> Stop:
    """The stop as it is shown."""
    figures = outcome.value
    facts: list[Fact] = []
    for i, planned in enumerate(setup.cuts):
        facts += _entered_facts(at, i, planned, figures.cuts[i] if figures else None)
        if figures:
            facts += _computed_facts(i, figures.cuts[i])
    clamp = entered("clamp", f"{at}.clamp_rpm", setup.clamp_rpm)
    if figures is None:
        return Stop("cuts", "Cuts", outcome.state(()), outcome.line, (clamp, *facts), problems=outcome.problems)
    hardest = max(figures.cuts, key=lambda c: c.over)
    answers: tuple[Answer, ...] = (
        Answer(
            "clamp",
            "The program reaches",
            Figure(figures.top_rpm, "rpm", "up"),
            below=Sentence(
                "{cut}; clamp {n}",
                cut=figures.fastest.name,
                n=Figure(setup.clamp_rpm, "rpm") if setup.clamp_rpm else "not set",
            ),
            steps=tuple(s for s in figures.fastest.working if s.symbol in ("n_top",)),
        ),
        Answer(
            f"cut_{figures.cuts.index(hardest)}_power",
            "Hardest on the spindle",
            Figure(hardest.result.power_kw, "kW", "up"),
            below=Sentence("{cut}, worn edge", cut=hardest.name),
            steps=hardest.working,
            bar=Bar(
                min(1.0, hardest.over),
                1.0,
                Sentence("spindle has {p}", p=Figure(hardest.power_available_kw, "kW", "down")),
            ),
        ),
    )
    finish = [c for c in figures.cuts if c.result.ra_um is not None]
    if finish:
        last = finish[-1]
        answers += (
            Answer(
                f"cut_{figures.cuts.index(last)}_ra",
                "Finish of the last cut",
                Figure(last.result.ra_um or 0, "um", "up"),
                "Ra ",
                below=Sentence("{cut}, in theory", cut=last.name),
                steps=tuple(s for s in last.working if s.symbol == "Ra"),
            ),
        )
    whole = computed(
        "minutes", "Time in cut", figures.minutes, "min", "of one piece, all cuts of this side", rounding="up"
    )
    line = Sentence("{n} cuts · top {rpm}", n=str(len(figures.cuts)), rpm=Figure(figures.top_rpm, "rpm", "up"))
    if len(figures.cuts) == 1:
        line = Sentence("1 cut · top {rpm}", rpm=Figure(figures.top_rpm, "rpm", "up"))
    return Stop(
        "cuts",
        "Cuts",
        outcome.state(figures.notes),
        line,
        (clamp, whole, *facts),
        answers,
        figures.notes,
        helps,
        tables=_tables(figures),
        pictures=_pictures(figures, setup.clamp_rpm, most_rpm),
    )

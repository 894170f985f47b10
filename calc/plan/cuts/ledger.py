"""The facts of each cut: what is entered, and what follows from it."""

from __future__ import annotations

from dataclasses import replace
from functools import lru_cache

from calc.fields import Quantity
from calc.plan.cuts.clear import CLEAR, Nearest
from calc.plan.cuts.consulted import Finish
from calc.plan.cuts.inputs import PlannedCut
from calc.plan.cuts.nearest_limit import near_fact
from calc.plan.cuts.operations import CALLED, LEAVES_OUT
from calc.plan.cuts.solve import CUTS, CUTS_KEPT, CutFigures
from calc.plan.cuts.tooling import brought
from calc.plan.declared import field_at
from calc.plan.force.solve import FORCE
from calc.plan.stop import Amount, Entering, Fact, computed, said
from calc.plan.view import View
from calc.quantities import Figure, Rounding, Sentence, counted
from calc.tools.kinds.insert import Insert

ENTERED_NAMES = (
    "name",
    "kind",
    "from_diameter_mm",
    "to_diameter_mm",
    "speed_m_min",
    "rpm",
    "clamp_rpm",
    "feed_mm_rev",
    "depth_mm",
    "corner_radius_mm",
    "approach_deg",
    "width_mm",
    "point_deg",
    "peck_mm",
    "passes",
    "rake_deg",
    "interrupted",
    "feeds",
    "turns",
    "stage",
    "cleans",
    "start_mm",
    "length_mm",
    "thread",
    "slow_feed_mm_rev",
    "slow_below_mm",
)


PINS = {"speed_m_min": "pin_speed", "rpm": "pin_speed", "feed_mm_rev": "pin_feed", "depth_mm": "pin_depth"}
POWER = (2, 2)


@lru_cache(maxsize=CUTS_KEPT)
def _entered_facts(at: str, c: PlannedCut, figures: CutFigures | None) -> tuple[Fact, ...]:
    here, group = f"{at}.cuts.{c.id}", c.id
    enter = Entering(here, c)
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
                    f"cut_{c.id}_{n}",
                    label,
                    Amount(getattr(figures.planned, n), unit),
                    Sentence("of {t}", t=tool.edge.name),
                    "book",
                    group=group,
                )
            )
            continue
        if n == "clamp_rpm" and c.rpm is not None:
            continue
        if n == "speed_m_min" and c.rpm is not None:
            follows = "follows the fixed rpm; empty that to give a speed"
            speed = result.speed_m_min if result else None
            facts.append(computed(f"cut_{c.id}_{n}", "Surface speed", Amount(speed, "m/min"), follows, group=group))
            continue
        source = None
        if n == "depth_mm" and c.kind != "face" and c.depth_mm is not None:
            source = Sentence("{x} on diameter", x=Figure(2 * c.depth_mm, "mm"))
        label = CALLED.get((c.kind, n), "")
        fact = enter(f"cut_{c.id}_{n}", n, label=label, group=group, source=source)
        if n in PINS and getattr(c, n) is not None and c.kind != "thread":
            fact = replace(fact, pin_path=f"{here}.{PINS[n]}", pinned=getattr(c, PINS[n]))
        facts.append(fact)
    return tuple(facts)


def rounded(c: CutFigures) -> tuple[Rounding, Rounding]:
    """How what is asked of the spindle and what it has are rounded: alike where it has enough, so that a cut at the
    spindle's limit never reads as over it.
    """
    return ("up", "down") if c.over > 1 + 1e-9 else ("near", "near")


@lru_cache(maxsize=CUTS_KEPT)
def _computed_facts(c: CutFigures) -> tuple[Fact, ...]:
    g, r = c.id, c.result
    asked, there = rounded(c)
    facts = [
        computed(
            f"cut_{c.id}_tangential",
            "Tangential force",
            Amount(c.tangential_n, "N", "up", (2, 0)),
            "worn edge" + (", interrupted" if c.job.interrupted else ""),
            group=g,
        ),
        computed(
            f"cut_{c.id}_power",
            "Power",
            Amount(r.power_kw, "kW", asked, POWER),
            Sentence("spindle has {p}", p=Figure(c.power_available_kw, "kW", there, POWER)),
            group=g,
        ),
        computed(
            f"cut_{c.id}_torque",
            "Torque",
            Amount(r.torque_nm, "N*m", asked),
            Sentence("spindle has {m}", m=Figure(c.torque_available_nm, "N*m", there)),
            group=g,
        ),
        computed(
            f"cut_{c.id}_rpm_here",
            "Speed at the start",
            # Where it turns at one speed, that is one figure here and at its top.
            Amount(r.rpm, "rpm", "up" if c.top_rpm - r.rpm < 1 else "near"),
            Sentence(
                "{v} at Ø{d}",
                v=Figure(r.speed_m_min, "m/min"),
                d=Figure(c.diameter_mm, "mm", exact=True, places=(2, 3)),
            ),
            group=g,
        ),
        computed(f"cut_{c.id}_top", "Top speed", Amount(c.top_rpm, "rpm", "up"), "at its smallest diameter", group=g),
    ]
    if c.consulted.finish is not None:
        ra, why = _finish_said(c.consulted.finish)
        label = "Ra expected" if c.consulted.finish.seen else "Theoretical Ra"
        facts.append(computed(f"cut_{c.id}_ra", label, Amount(ra, "um", "up"), why, group=g))
    facts.append(computed(f"cut_{c.id}_passes", "Passes", Amount(float(c.passes), ""), "stock ÷ depth", group=g))
    tool = c.tool
    if tool is not None:
        edge = tool.edge
        name, held = (edge.code if isinstance(edge, Insert) else edge.name), Sentence("{t}", t=tool.name)
        facts.append(said(f"cut_{c.id}_tool", "Tool", name, held, g))
    facts.append(
        computed(f"cut_{c.id}_minutes", "Time in cut", Amount(c.minutes, "min", "up"), "of one piece", group=g)
    )
    return (*facts, *_about_facts(c))


def _about_facts(c: CutFigures) -> list[Fact]:
    g, found, facts = c.id, c.consulted, []
    if found.window is not None:
        w = found.window
        by = {"radius": "two thirds of the corner", "finish": "the finish", "breaker": "the breaker"}[w.bound_by]
        facts.append(
            computed(
                f"cut_{c.id}_feed_most",
                "Largest feed",
                Amount(w.feed_max_mm_rev, "mm/rev", "down"),
                Sentence("set by {w}; least {f}", w=by, f=Figure(w.feed_min_mm_rev, "mm/rev", "up")),
                "typical",
                group=g,
            )
        )
    if found.life is not None:
        life = found.life
        facts.append(
            computed(
                f"cut_{c.id}_life",
                "Edge lasts",
                Amount(life.life_min, "min", "down", (1, 1)),
                Sentence(
                    "{n}; {e} for the run", n=counted(life.pieces_per_edge, "piece"), e=counted(life.inserts, "insert")
                ),
                "typical",
                group=g,
            )
        )
    if found.bar is not None:
        facts.append(
            computed(
                f"cut_{c.id}_bend",
                "Bar bends",
                Amount(found.bar.deflection_mm, "mm", "up", (3, 4)),
                Sentence("a side; {r} diameters out", r=Figure(found.bar.overhang_ratio, "", "up", (1, 1))),
                group=g,
            )
        )
    if found.plunge is not None:
        facts.append(
            computed(
                f"cut_{c.id}_tops",
                "Spindle tops out at",
                Amount(found.plunge.cap_diameter_mm, "mm", "up"),
                "diameter; from there the surface speed falls",
                group=g,
            )
        )
    return facts


FAR_CLEAR_MM = 20.0  # a tool farther from everything is not told of


def _clear_fact(near: Nearest) -> Fact:
    """How far a cut's tool stays from what it is nearest to."""
    amount = Amount(near.distance_mm, "mm", "down", (2, 3))
    return computed(f"cut_{near.cut.id}_clear", "Clear by", amount, Sentence("of {w}", w=near.what), group=near.cut.id)


def _finish_said(finish: Finish) -> tuple[float, Sentence]:
    """What finish is expected [µm], and where that comes from."""
    if finish.seen is None:
        return finish.theory_um, Sentence("feed and corner")
    words = "feed and corner say {a}; {q} of it was read with this edge, {n}"
    figures = {"a": Figure(finish.theory_um, "um", "up"), "q": Figure(100 * finish.seen.ratio, "%", "up", (0, 0))}
    return finish.expected_um, Sentence(words, n=counted(finish.seen.readings, "reading"), **figures)


def facts_of(view: View) -> list[Fact]:
    """All that is entered of every cut, and what follows where it is known."""
    figures = view[CUTS]
    known = {c.id: c for c in figures.cuts} if figures else {}
    facts: list[Fact] = []
    for planned in view.setup.cuts:
        found = known.get(planned.id)
        facts += _entered_facts(view.at, planned, found)
        if found:
            facts += _computed_facts(found)
    if figures is None:
        return facts
    clear, force = view[CLEAR], view[FORCE]
    facts += [near_fact(c, force.load_of(c.id) if force else None, view.document.in_force) for c in figures.cuts]
    if clear is not None:
        facts += [_clear_fact(n) for n in clear.nearest.values() if n.distance_mm < FAR_CLEAR_MM]
    return facts

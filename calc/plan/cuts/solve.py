"""Stop Cuts solved: speed, force, power, time, finish, chip, edge life and bar of every cut, and the top speed."""

from __future__ import annotations

import math
from dataclasses import dataclass, replace
from functools import lru_cache

from calc.cuts.spindle import spindle_has
from calc.cuts.turning import CutResult
from calc.errors import FieldProblem
from calc.plan.cuts.cleaning import spring_notes, work_of
from calc.plan.cuts.consulted import Ask, Consulted, consulted_for
from calc.plan.cuts.inputs import PlannedCut
from calc.plan.cuts.judged import judged
from calc.plan.cuts.minutes import minutes_in_cut
from calc.plan.cuts.operations import ASKED, CALLED, operation
from calc.plan.cuts.tooling import fitted, is_interrupted, job_of, length_of, step_of
from calc.plan.outcome import Asked, Missing, Solved, naming
from calc.plan.part.solve import PartFigures
from calc.plan.sides.driven import DRIVEN
from calc.plan.sides.solve import OTHER, SIDES
from calc.quantities import Figure, Sentence
from calc.route.order import sequence_notes
from calc.tools.choose import Job
from calc.tools.library import Tool
from calc.working import ENTERED, Note, Step, Working, derived, typical

CUTS_KEPT = 256  # cuts whose figures, and whose facts, are kept
REACH = derived("The program's top speed")


@dataclass(frozen=True, eq=False)  # one that is kept is itself
class CutFigures:
    """One cut at its largest diameter, with a worn edge; what it asks of chuck and spindle."""

    name: str
    planned: PlannedCut
    result: CutResult
    passes: int
    diameter_mm: float
    tangential_n: float
    axial_n: float
    radial_n: float
    top_rpm: float
    clamp_rpm: float | None
    power_available_kw: float
    torque_available_nm: float
    torque_only: bool
    working: tuple[Step, ...]
    notes: tuple[Note, ...]
    tool: Tool | None
    job: Job
    length_mm: float
    minutes: float
    consulted: Consulted

    @property
    def id(self) -> str:
        """Its operation's id in the plan."""
        return self.planned.id

    @property
    def over(self) -> float:
        """Share of the spindle's power or torque used, the larger of them."""
        return max(self.result.power_kw / self.power_available_kw, self.result.torque_nm / self.torque_available_nm)


@dataclass(frozen=True)
class CutsFigures:
    """All cuts, and the one that turns fastest."""

    cuts: tuple[CutFigures, ...]
    top_rpm: float
    fastest: CutFigures
    notes: tuple[Note, ...]

    @property
    def minutes(self) -> float:
        """Time in cut of a piece on this side [min]."""
        return sum(c.minutes for c in self.cuts)


def _missing(at: str, planned: PlannedCut) -> list[tuple[str, str]]:
    labels = {"depth_mm": "depth", "width_mm": "blade width"}
    wanted = [
        ("feed_mm_rev", CALLED.get((planned.kind, "feed_mm_rev"), "feed").lower()),
        *((n, labels[n]) for n in ASKED.get(planned.kind, ())),
        ("from_diameter_mm", "from diameter"),
        ("to_diameter_mm", "to diameter"),
    ]
    missing = [(f"{at}.{n}", f"{planned.name} {label}") for n, label in wanted if getattr(planned, n) is None]
    if planned.speed_m_min is None and planned.rpm is None:
        missing.append((f"{at}.speed_m_min", f"{planned.name} speed or rpm"))
    return missing


def _top_rpm(planned: PlannedCut, smallest: float, held_to: float, w: Working) -> float:
    if planned.rpm is not None:
        return w.step("n_top", "This cut's top speed: fixed", "n_e", "rpm", ENTERED, n_e=planned.rpm)
    assert planned.speed_m_min is not None
    if smallest <= 0:
        return w.step("n_top", "Top speed, to the centre", "n_max", "rpm", REACH, n_max=held_to)
    return w.step(
        "n_top",
        "Top speed, at the smallest diameter",
        "min(n_max, 1000*v / (pi*d_min))",
        "rpm",
        REACH,
        n_max=held_to,
        v=planned.speed_m_min,
        d_min=smallest,
    )


@lru_cache(maxsize=CUTS_KEPT)
def _one(at: str, entered: PlannedCut, ask: Ask) -> CutFigures:
    if entered.clamp_rpm is not None:
        ask = replace(ask, clamp_rpm=entered.clamp_rpm)
    part, rules, clamp = ask.part, ask.rules, ask.clamp_rpm
    fit = fitted(entered, ask.library)
    planned = fit.planned
    missing = _missing(at, planned)
    if missing:
        raise Missing(*missing)
    a, b = planned.from_diameter_mm, planned.to_diameter_mm
    assert a is not None and b is not None
    machine, material = part.machine, part.material
    if planned.rpm is not None and planned.rpm > machine.max_rpm:
        words = Sentence("{m} turns {n} at most; give that or less.", m=machine.name, n=Figure(machine.max_rpm, "rpm"))
        raise FieldProblem(f"{at}.rpm", words)
    if entered.clamp_rpm is not None and entered.clamp_rpm > machine.max_rpm:
        words = Sentence("{m} turns {n} at most; give that or less.", m=machine.name, n=Figure(machine.max_rpm, "rpm"))
        raise FieldProblem(f"{at}.clamp_rpm", words)
    held_to = min(machine.max_rpm, clamp) if clamp is not None else machine.max_rpm
    with naming({n: f"{at}.{n}" for n in ("feed_mm_rev", "depth_mm", "speed_m_min", "rpm")}):
        made = operation(planned, material, held_to, rules)
    result = made.result
    w = Working()
    tangential = w.step(
        "F_t*",
        "Tangential force for the grip",
        "k_i * F_t",
        "N",
        typical("house rule for interrupted cuts"),
        k_i=rules.interrupted if is_interrupted(planned, part) else 1.0,
        F_t=result.tangential_n,
    )
    top = _top_rpm(planned, made.smallest_mm, held_to, w)
    spindle = spindle_has(w, machine.power_kw, machine.torque_nm, result.rpm)
    passes, length = _passes(planned, part, abs(a - b) / 2), length_of(planned, part, ask.worked)
    minutes = minutes_in_cut(planned, passes, length, held_to)
    said = consulted_for(fit, result, minutes, length, ask, step_of(planned, part, ask.worked))
    notes = [*judged(planned, result, spindle, part, fit.tool), *said.notes]
    if fit.gone:
        notes.append(
            Note(
                "stop",
                "tool-gone",
                "{name}: its tool is not on the shelf any more, or does not go together. Choose another.",
                name=planned.name,
            )
        )
    return CutFigures(
        name=planned.name,
        planned=planned,
        result=result,
        passes=passes,
        tool=fit.tool,
        length_mm=length,
        minutes=minutes,
        consulted=said,
        job=job_of(planned, part, ask.worked, rules, minutes, ask.quantity),
        diameter_mm=made.diameter_mm,
        tangential_n=tangential,
        axial_n=made.axial_n,
        radial_n=made.radial_n,
        top_rpm=top,
        clamp_rpm=clamp,
        power_available_kw=spindle[0],
        torque_available_nm=spindle[1],
        torque_only=made.torque_only,
        working=(*result.working, *w.steps),
        notes=tuple(notes),
    )


def _passes(planned: PlannedCut, part: PartFigures, stock: float) -> int:
    if planned.kind == "thread":
        return 1 if planned.springs else planned.passes
    if planned.depth_mm is None or not planned.by_depth:
        return 1
    stock = part.face_stock_mm if planned.kind == "face" else stock
    return max(1, math.ceil(stock / planned.depth_mm - 1e-9))


def _last_in_hole(asked: Asked) -> str:
    """What worked last in the hole when a side is done: "bore", "drill" or "none". A hole that goes through is the same
    one from either end.
    """
    inside = [c.kind for c in asked.setup.cuts if c.kind in ("bore", "drill")]
    if inside:
        return "bore" if inside[-1] == "bore" else "drill"  # the very words: what is the same object is the same
    return _before(asked)


def _before(asked: Asked) -> str:
    """What worked last in it when a side begins."""
    if asked.index == 0 or not asked.document.part.profile.goes_through:
        return "none"
    return asked.of(asked.index - 1).need(LAST_IN_HOLE)


LAST_IN_HOLE = Solved("last-in-hole", "Cuts", _last_in_hole)


def _bored_before(before: str, earlier: tuple[PlannedCut, ...], cut: PlannedCut) -> bool:
    """Whether the last cut in this bore before it was a bar's; `before`: what worked in it before this side."""
    if cut.kind != "bore":
        return False
    inside = [c.kind for c in earlier if c.kind in ("bore", "drill")]
    return (inside[-1] if inside else before) == "bore"


def ask_of(asked: Asked) -> Ask:
    """What the cuts of a set-up rest on. Raises Waiting."""
    part, sides = asked.need(DRIVEN), asked.need(SIDES)
    worked = OTHER[sides.held_end(asked.index)]
    quantity = asked.document.part.quantity
    return Ask(part, asked.rules, asked.setup.clamp_rpm, worked, quantity, asked.shelf.tools)


def solve_cuts(asked: Asked) -> CutsFigures:
    """Figures of every cut. Raises Missing, Waiting or CalcError."""
    at, setup, ask = asked.at, asked.setup, ask_of(asked)
    if not setup.cuts:
        raise Missing((f"{at}.cuts", "A cut"))
    machine = ask.part.machine
    if setup.clamp_rpm is not None and setup.clamp_rpm > machine.max_rpm:
        words = Sentence("{m} turns {n} at most; give that or less.", m=machine.name, n=Figure(machine.max_rpm, "rpm"))
        raise FieldProblem(f"{at}.clamp_rpm", words)
    before = _before(asked)
    made = tuple(
        _one(f"{at}.cuts.{c.id}", c, replace(ask, bored_before=_bored_before(before, setup.cuts[:place], c)))
        for place, c in enumerate(setup.cuts)
    )
    fastest = max(made, key=lambda c: c.top_rpm)
    notes = [n for c in made for n in c.notes] + sequence_notes([work_of(c) for c in setup.cuts])
    notes += spring_notes(made)
    notes.append(
        Note(
            "caution",
            "chips",
            "Guards shut. Chips are hot and sharp: never by hand, and long ribbons stop the machine.",
        )
    )
    if any(c.kind == "part" for c in setup.cuts):
        notes.append(
            Note(
                "caution",
                "piece-flies",
                "A parted piece flies: catch it in the catcher, doors shut, and never reach for it.",
            )
        )
    if any(c.clamp_rpm is None and c.planned.rpm is None for c in made):
        notes.append(
            Note(
                "caution",
                "no-clamp",
                "No spindle clamp is set: constant surface speed may run up to {n}.",
                n=Figure(machine.max_rpm, "rpm"),
            )
        )
    return CutsFigures(made, fastest.top_rpm, fastest, tuple(notes))


CUTS = Solved("cuts", "Cuts", solve_cuts)

"""Stop Cuts solved: speed, force, power, time, finish, chip, edge life and bar of every cut, and the top speed."""

from __future__ import annotations

import math
from dataclasses import dataclass, replace
from functools import lru_cache

from calc.cuts.spindle import spindle_has
from calc.cuts.turning import CutResult
from calc.errors import FieldProblem
from calc.plan.cuts.consulted import Ask, Consulted, consulted_for
from calc.plan.cuts.edge import speed_window
from calc.plan.cuts.inputs import PlannedCut
from calc.plan.cuts.minutes import minutes_in_cut
from calc.plan.cuts.operations import ASKED, CALLED, operation
from calc.plan.cuts.tooling import fitted, job_of, length_of, step_of
from calc.plan.outcome import Asked, Missing, Solved, naming
from calc.plan.part.solve import PART, PartFigures
from calc.plan.sides.solve import OTHER, SIDES
from calc.quantities import Figure, Sentence
from calc.route.order import Work, sequence_notes
from calc.tools.choose import Job
from calc.tools.kinds.insert import Insert
from calc.tools.library import Tool
from calc.working import ENTERED, Note, Step, Working, derived, typical

SPLIT_MM = 1.0  # per side, typical: what a finishing edge takes no more of in one cut
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


AT_CLAMP = 0.98  # of a clamp, from where it is what holds a speed down


def _held_down_by(planned: PlannedCut, result: CutResult) -> str:
    """What keeps the surface speed low."""
    if planned.rpm is not None:
        return "its fixed rpm"
    if planned.speed_m_min is not None and result.speed_m_min < planned.speed_m_min * (1 - 1e-6):
        return "its clamp" if planned.clamp_rpm is not None else "the clamp or the machine's top speed"
    least = min(planned.from_diameter_mm or 0.0, planned.to_diameter_mm or 0.0)
    if planned.clamp_rpm is not None and planned.kind in ("turn", "bore") and least > 0:
        reached = (planned.speed_m_min or 0.0) * 1000 / (math.pi * least)
        if reached >= AT_CLAMP * planned.clamp_rpm:  # settled to just what the clamp lets it reach
            return "its clamp"
    return "the speed that was given"


def _does_all_with_a_finishing_edge(planned: PlannedCut, tool: Tool | None) -> bool:
    """All of the stock goes in one cut that also finishes, and its edge is made for that alone."""
    edge = tool.edge if tool else None
    if not isinstance(edge, Insert) or planned.stage == "rough" or planned.kind not in ("turn", "bore"):
        return False
    a, b = planned.from_diameter_mm or 0.0, planned.to_diameter_mm or 0.0
    return edge.purpose == "finish" and abs(a - b) / 2 > SPLIT_MM


def _thread_notes(planned: PlannedCut, result: CutResult, part: PartFigures) -> list[Note]:
    """A thread's speed against the slow end of turning, its feed against what the machine follows."""
    low, feed = part.material.speed_low_m_min, (planned.feed_mm_rev or 0.0) * result.rpm / 1000
    notes = []
    if result.speed_m_min > low * (1 + 1e-9):
        notes.append(
            Note(
                "stop",
                "thread-too-fast",
                "{name}: {v} is above the {low} at which turning begins: a thread is cut slower.",
                name=planned.name,
                v=Figure(result.speed_m_min, "m/min", "up"),
                low=Figure(low, "m/min", "down"),
            )
        )
    if feed > part.machine.threading_m_min * (1 + 1e-9):
        notes.append(
            Note(
                "stop",
                "thread-feed",
                "{name}: its pitch at {n} is a feed of {f}; the machine follows {m} while threading.",
                name=planned.name,
                n=Figure(result.rpm, "rpm"),
                f=Figure(feed, "m/min", "up"),
                m=Figure(part.machine.threading_m_min, "m/min", "down"),
            )
        )
    return notes


def _notes(
    planned: PlannedCut, result: CutResult, machine: tuple[float, float], part: PartFigures, tool: Tool | None
) -> list[Note]:
    notes = [n.named(planned.name) for n in result.notes]
    power, torque = machine
    name = planned.name
    if result.power_kw > power * (1 + 1e-9) or result.torque_nm > torque * (1 + 1e-9):
        notes.append(
            Note(
                "stop",
                "spindle-too-weak",
                "{name}: asks {p} and {m}; at {n} the spindle has {p_av} and {m_av}.",
                name=name,
                p=Figure(result.power_kw, "kW", "up"),
                m=Figure(result.torque_nm, "N*m", "up"),
                n=Figure(result.rpm, "rpm"),
                p_av=Figure(power, "kW", "down"),
                m_av=Figure(torque, "N*m", "down"),
            )
        )
    material = part.material
    low, high = speed_window(planned.kind, tool, material)
    if planned.kind == "thread":
        notes += _thread_notes(planned, result, part)
    elif result.speed_m_min < low * (1 - 1e-9):
        notes.append(
            Note(
                "caution",
                "below-window",
                "{name}: {v} is below the {low} from which carbide stays clean in {m}; {why} holds it down. An edge "
                "builds up and the finish suffers.",
                name=name,
                m=material.name,
                v=Figure(result.speed_m_min, "m/min"),
                low=Figure(low, "m/min"),
                why=_held_down_by(planned, result),
            )
        )
    elif result.speed_m_min > high * (1 + 1e-9):
        notes.append(
            Note(
                "info",
                "speed-outside-window",
                "{name}: {v} is above the typical {low} to {high} for {m}.",
                name=name,
                m=material.name,
                v=Figure(result.speed_m_min, "m/min"),
                low=Figure(low, "m/min"),
                high=Figure(high, "m/min"),
            )
        )
    if _does_all_with_a_finishing_edge(planned, tool):
        notes.append(
            Note(
                "info",
                "split-it",
                "{name}: it takes {x} a side with a finishing edge: split it into roughing and finishing.",
                name=name,
                x=Figure(abs((planned.from_diameter_mm or 0.0) - (planned.to_diameter_mm or 0.0)) / 2, "mm"),
            )
        )
    if planned.depth_mm is not None and planned.by_depth and planned.depth_mm < planned.corner_radius_mm:
        notes.append(
            Note(
                "info",
                "depth-under-radius",
                "{name}: {a} deep with a {r} corner: the chip may not break.",
                name=name,
                a=Figure(planned.depth_mm, "mm"),
                r=Figure(planned.corner_radius_mm, "mm"),
            )
        )
    return notes


# An edit changes one cut of many: the others stand as they were.
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
        k_i=rules.interrupted if planned.interrupted else 1.0,
        F_t=result.tangential_n,
    )
    top = _top_rpm(planned, made.smallest_mm, held_to, w)
    spindle = spindle_has(w, machine.power_kw, machine.torque_nm, result.rpm)
    passes, length = _passes(planned, part, abs(a - b) / 2), length_of(planned, part, ask.worked)
    minutes = minutes_in_cut(planned, passes, length, held_to)
    said = consulted_for(fit, result, minutes, length, ask, step_of(planned, part, ask.worked))
    notes = [*_notes(planned, result, spindle, part, fit.tool), *said.notes]
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
        return planned.passes
    if planned.depth_mm is None or not planned.by_depth:
        return 1
    stock = part.face_stock_mm if planned.kind == "face" else stock
    return max(1, math.ceil(stock / planned.depth_mm - 1e-9))


def _bored_before(before: tuple[PlannedCut, ...], cut: PlannedCut) -> bool:
    """Whether the last cut in this bore before it was a bar's."""
    if cut.kind != "bore":
        return False
    inside = [c for c in before if c.kind in ("bore", "drill")]
    return bool(inside) and inside[-1].kind == "bore"


def ask_of(asked: Asked) -> Ask:
    """What the cuts of a set-up rest on. Raises Waiting."""
    part, sides = asked.need(PART), asked.need(SIDES)
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
    made = tuple(
        _one(f"{at}.cuts.{c.id}", c, replace(ask, bored_before=_bored_before(setup.cuts[:place], c)))
        for place, c in enumerate(setup.cuts)
    )
    fastest = max(made, key=lambda c: c.top_rpm)
    notes = [n for c in made for n in c.notes] + sequence_notes(
        [Work(c.name, c.kind, c.stage, c.inside) for c in setup.cuts]
    )
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

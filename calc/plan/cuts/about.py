"""What is to be known of a cut beside its forces: feed window, edge life, bar, plunge, time, speeds."""

from __future__ import annotations

import math
from dataclasses import dataclass

from calc.cuts.drilling import DrillInput, DrillResult, drill
from calc.cuts.feed_window import FeedWindowInput, FeedWindowResult, feed_window
from calc.cuts.part_off import PartOffInput, PartOffResult, part_off
from calc.cuts.spindle import Turning
from calc.cuts.tool_life import EXPONENTS, ToolLifeInput, ToolLifeResult, tool_life
from calc.cuts.turning import CutResult
from calc.errors import CalcError
from calc.plan.cuts.inputs import PlannedCut
from calc.plan.cuts.tooling import Fitted
from calc.plan.part.solve import PartFigures
from calc.profile.body import End
from calc.profile.contour import Span
from calc.quantities import Figure
from calc.route.time import Path, minutes_of
from calc.rules import Rules
from calc.shelf.material import Material
from calc.threads.designation import designation
from calc.threads.thread import Form, ThreadInput, ThreadResult, thread
from calc.tools.boring_bar import BoringBarInput, BoringBarResult, boring_bar
from calc.tools.kinds.blade import Blade
from calc.tools.kinds.drill import Drill
from calc.tools.kinds.groove_insert import GrooveInsert
from calc.tools.kinds.holder import Holder
from calc.tools.kinds.insert import Insert
from calc.tools.kinds.thread_insert import ThreadInsert
from calc.tools.library import EMPTY, Library, Tool
from calc.tools.turning_columns import usable
from calc.working import Note, Working

# Speed over that of a coated carbide, by what the edge is (typical); aluminium and copper run on bright carbide.
SPEED_FACTORS = {
    ("carbide", "coated"): 1.0,
    ("carbide", "none"): 0.7,
    ("carbide", "diamond"): 1.5,
    ("cermet", "coated"): 1.1,
    ("cermet", "none"): 1.1,
    ("cermet", "diamond"): 1.1,
    ("hss", "none"): 0.25,
    ("hss", "coated"): 0.35,
    ("hss", "diamond"): 0.35,
}
DRILL_SPEED = 0.5  # of the turning window (typical)
REFERENCE_SHARE, REFERENCE_FEED, REFERENCE_DEPTH = 0.85, 0.3, 2.0


@dataclass(frozen=True, eq=False)
class Ask:
    """What the cuts of a set-up rest on."""

    part: PartFigures
    rules: Rules
    clamp_rpm: float | None
    worked: End
    quantity: int | None
    library: Library = EMPTY


@dataclass(frozen=True, eq=False)
class About:
    """None where a figure says nothing about this cut."""

    window: FeedWindowResult | None
    life: ToolLifeResult | None
    bar: BoringBarResult | None
    plunge: PartOffResult | None
    thread: ThreadResult | None
    drilled: DrillResult | None
    notes: tuple[Note, ...]


def speed_factor(tool: Tool | None, material: Material) -> float:
    """Speed of an edge over a coated carbide's (typical)."""
    if tool is None:
        return 1.0
    edge = tool.edge
    if material.iso_group == "N" and edge.substrate == "carbide" and edge.coating == "none":
        return 1.0
    return SPEED_FACTORS[edge.substrate, edge.coating] * (DRILL_SPEED if isinstance(edge, Drill) else 1.0)


def reference_speed(tool: Tool | None, material: Material) -> float:
    """Speed [m/min] that lasts fifteen minutes at the reference feed and depth (typical)."""
    return REFERENCE_SHARE * material.speed_high_m_min * speed_factor(tool, material)


def exponent_of(tool: Tool | None) -> float:
    """Taylor's exponent of an edge (typical)."""
    if tool is None or (tool.edge.substrate != "hss" and tool.edge.coating != "none"):
        return EXPONENTS["coated"]
    return EXPONENTS["hss" if tool.edge.substrate == "hss" else "uncoated"]


def edges_of(tool: Tool | None) -> int:
    """Edges of an insert."""
    match tool.edge if tool else None:
        case Insert() as insert:
            return insert.decoded.edges
        case GrooveInsert() | ThreadInsert() as insert:
            return insert.edges
    return 1


def path_of(planned: PlannedCut, passes: int, length_mm: float) -> Path[float] | None:
    """What the tool goes through; None while facts are missing."""
    a, b, feed = planned.from_diameter_mm, planned.to_diameter_mm, planned.feed_mm_rev
    if a is None or b is None or not feed:
        return None
    return Path(
        planned.kind,
        a,
        b,
        length_mm,
        float(passes),
        feed,
        planned.slow_feed_mm_rev,
        planned.slow_below_mm,
        planned.width_mm,
        planned.point_deg,
    )


def minutes_in_cut(planned: PlannedCut, passes: int, length_mm: float, cap_rpm: float) -> float:
    """Time in cut of one piece [min]; facts that are missing make no time."""
    path = path_of(planned, passes, length_mm)
    if path is None or (planned.speed_m_min is None and planned.rpm is None):
        return 0.0
    return minutes_of(Working(), path, Turning(planned.speed_m_min, planned.rpm, cap_rpm))


def speed_window(kind: str, tool: Tool | None, material: Material) -> tuple[float, float]:
    """Surface speeds [m/min] that are typical for a kind of cut with this edge in this material."""
    # The material's window is a coated carbide's turning; other edges have theirs, and so have drills.
    factor = speed_factor(tool, material) * (DRILL_SPEED if kind == "drill" and tool is None else 1.0)
    return factor * material.speed_low_m_min, factor * material.speed_high_m_min


def about_cut(fit: Fitted, result: CutResult, minutes: float, length_mm: float, ask: Ask, step: Span | None) -> About:
    """Everything beside the forces."""
    notes: list[Note] = []
    window = _window(fit, ask, step)
    bar = _bar(fit, result, length_mm, step)
    plunge = _plunge(fit.planned, ask)
    thread = _thread(fit.planned)
    drilled = _drilled(fit.planned, length_mm, ask)
    life = _life(fit, result, minutes, ask)
    name = fit.planned.name
    for found in (window, bar, plunge):
        notes += (
            [n.named(name) for n in found.notes if n.level != "info" and n.code != "chip-may-not-break"]
            if found is not None
            else []
        )
    if life is not None:
        notes += [n.named(name) for n in life.notes if n.level == "stop"]
    notes += _tool_notes(fit)
    return About(window, life, bar, plunge, thread, drilled, tuple(notes))


def _tool_notes(fit: Fitted) -> list[Note]:
    planned, tool = fit.planned, fit.tool
    if tool is None or not isinstance(tool.edge, Insert) or planned.depth_mm is None:
        return []
    most = usable(tool)
    if planned.depth_mm <= most * (1 + 1e-9):
        return []
    return [
        Note(
            "stop",
            "edge-too-deep",
            "{name}: {a} deep is more than the {m} of edge that {t} may use.",
            name=planned.name,
            a=Figure(planned.depth_mm, "mm", "up"),
            m=Figure(most, "mm", "down"),
            t=tool.edge.name,
        )
    ]


def _window(fit: Fitted, ask: Ask, step: Span | None) -> FeedWindowResult | None:
    planned, edge = fit.planned, fit.tool.edge if fit.tool else None
    if not planned.by_depth or planned.corner_radius_mm <= 0:
        return None
    finishes = planned.stage != "rough" and step is not None
    insert = edge if isinstance(edge, Insert) else None
    return feed_window(
        FeedWindowInput(
            planned.corner_radius_mm,
            ra_um=step.step.ra_um if finishes and step is not None else None,
            depth_mm=planned.depth_mm,
            breaker=insert.breaker if insert else None,
            wiper=insert is not None and insert.edge == "wiper",
        )
    )


def _bar(fit: Fitted, result: CutResult, length_mm: float, step: Span | None) -> BoringBarResult | None:
    planned, carrier = fit.planned, fit.tool.carrier if fit.tool else None
    if (
        not isinstance(carrier, Holder)
        or carrier.side != "inside"
        or planned.from_diameter_mm is None
        or planned.to_diameter_mm is None
    ):
        return None
    limits = step.step.limits_mm if step is not None and planned.stage != "rough" else None
    width = limits[1] - limits[0] if limits else None
    return boring_bar(
        BoringBarInput(
            bore_mm=min(planned.from_diameter_mm, planned.to_diameter_mm),
            bar_mm=carrier.shank_mm,
            overhang_mm=planned.start_mm + length_mm + 1.0,
            force_n=result.passive_n,
            modulus_gpa=carrier.modulus_gpa,
            tolerance_mm=width if width else None,
        )
    )


def _plunge(planned: PlannedCut, ask: Ask) -> PartOffResult | None:
    if planned.kind != "part" or planned.speed_m_min is None or planned.width_mm is None or planned.feed_mm_rev is None:
        return None
    a, b = planned.from_diameter_mm, planned.to_diameter_mm
    assert a is not None and b is not None
    tool = ask.library.tool(planned.tool) if planned.tool else None
    reach = tool.carrier.reach_mm if tool is not None and isinstance(tool.carrier, (Blade, Holder)) else None
    cap = min(ask.part.machine.max_rpm, ask.clamp_rpm or math.inf)
    wanted = (a - b) / 2 + 2.0
    return part_off(
        PartOffInput(
            a,
            planned.width_mm,
            planned.speed_m_min,
            planned.feed_mm_rev,
            cap,
            b,
            slow_feed_mm_rev=planned.slow_feed_mm_rev,
            slow_below_mm=planned.slow_below_mm,
            reach_mm=wanted if reach is not None else None,
            reach_max_mm=reach,
        )
    )


def _thread(planned: PlannedCut) -> ThreadResult | None:
    """Limits, passes and size over wires of a named thread; None where no standard has it."""
    named = designation(planned.thread) if planned.kind == "thread" and planned.thread else None
    if named is None:
        return None
    inside = (planned.to_diameter_mm or 0.0) > (planned.from_diameter_mm or 0.0)
    form: Form = "iso" if named.text.startswith("M") else "un"
    try:
        return thread(ThreadInput(form, named.major_mm, named.pitch_mm, inside, named.grade, planned.passes))
    except CalcError:
        return None


def _drilled(planned: PlannedCut, length_mm: float, ask: Ask) -> DrillResult | None:
    a, b, v, f = planned.from_diameter_mm, planned.to_diameter_mm, planned.speed_m_min, planned.feed_mm_rev
    if planned.kind != "drill" or a is None or b is None or v is None or f is None:
        return None
    m = ask.part.material
    cap = min(ask.part.machine.max_rpm, ask.clamp_rpm or math.inf)
    return drill(DrillInput(b, v, f, m.kc11, m.mc, a, planned.point_deg, length_mm, ask.rules.worn, cap))


def _life(fit: Fitted, result: CutResult, minutes: float, ask: Ask) -> ToolLifeResult | None:
    planned = fit.planned
    depth = planned.depth_mm if planned.by_depth else planned.width_mm
    if planned.kind == "drill":
        depth = ((planned.to_diameter_mm or 0.0) - (planned.from_diameter_mm or 0.0)) / 2
    if minutes <= 0 or not depth or planned.feed_mm_rev is None or planned.kind == "thread":
        return None
    try:
        return tool_life(
            ToolLifeInput(
                result.speed_m_min,
                planned.feed_mm_rev,
                depth,
                reference_speed(fit.tool, ask.part.material),
                minutes,
                ask.quantity or 1,
                edges_of(fit.tool),
                feed_ref=REFERENCE_FEED,
                depth_ref=REFERENCE_DEPTH,
                exponent=exponent_of(fit.tool),
            )
        )
    except CalcError:
        return None  # beyond what the law is for

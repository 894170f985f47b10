"""What the calculators say of a cut beside its forces: feed window, edge life, bar, plunge, thread, drill."""

from __future__ import annotations

import math
from dataclasses import dataclass

from calc.cuts.chip import Engaged, Metal, chip_of, forces_of
from calc.cuts.drilling import DrillInput, DrillResult, drill
from calc.cuts.feed_window import WIPER, FeedWindowInput, FeedWindowResult, feed_window
from calc.cuts.part_off import PartOffInput, PartOffResult, part_off
from calc.cuts.tool_life import ToolLifeInput, ToolLifeResult, tool_life
from calc.cuts.turning import CutResult
from calc.errors import CalcError
from calc.plan.cuts.edge import REFERENCE_DEPTH, REFERENCE_FEED, edges_of, exponent_of, reference_speed
from calc.plan.cuts.fed import feed_notes
from calc.plan.cuts.inputs import PlannedCut
from calc.plan.cuts.tooling import Fitted
from calc.plan.part.solve import PartFigures
from calc.profile.body import End
from calc.profile.contour import Span
from calc.quantities import Figure
from calc.rules import Rules
from calc.threads.designation import designation
from calc.threads.thread import ThreadInput, ThreadResult, thread
from calc.tools.boring_bar import LEAST_CHIP_MM, BoringBarInput, BoringBarResult, boring_bar
from calc.tools.finish import FinishSeen
from calc.tools.kinds.blade import Blade
from calc.tools.kinds.holder import Holder
from calc.tools.kinds.insert import Insert
from calc.tools.library import EMPTY, Library
from calc.tools.rules.turning_columns import usable
from calc.working import Note, Working


@dataclass(frozen=True)
class Ask:
    """What the cuts of a set-up rest on."""

    part: PartFigures
    rules: Rules
    clamp_rpm: float | None
    worked: End
    quantity: int | None
    library: Library = EMPTY
    bored_before: bool = False  # the cut before this one in its bore was a bar's


FINEST, ROUGHEST = 1e-3, 100.0  # Ra [µm] that a window is asked for


@dataclass(frozen=True)
class Finish:
    """What a cut's finish comes to [µm]: by feed, corner and wiper, and what was seen of that edge in this material."""

    theory_um: float
    seen: FinishSeen | None

    @property
    def expected_um(self) -> float:
        """With what was seen."""
        return self.theory_um * (self.seen.ratio if self.seen else 1.0)


@dataclass(frozen=True, eq=False)
class Consulted:
    """What each calculator says of a cut, and what must be told of it; None where one says nothing about it."""

    window: FeedWindowResult | None
    life: ToolLifeResult | None
    bar: BoringBarResult | None
    bar_asked: BoringBarInput | None
    stock_off_mm: float | None  # how far a finishing bar's stock may be off, per side
    plunge: PartOffResult | None
    thread: ThreadResult | None
    drilled: DrillResult | None
    notes: tuple[Note, ...]
    finish: Finish | None = None


def consulted_for(
    fit: Fitted, result: CutResult, minutes: float, length_mm: float, ask: Ask, step: Span | None
) -> Consulted:
    """Everything beside the forces."""
    notes: list[Note] = []
    window = _window(fit, ask, step)
    bar_asked, off = _bar(fit, result, length_mm, (ask, step))
    bar = boring_bar(bar_asked) if bar_asked is not None else None
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
    if window is not None:
        notes += feed_notes(fit.planned, window, _ra_wanted(fit.planned, step))
    if life is not None:
        notes += [n.named(name) for n in life.notes if n.level == "stop"]
    notes += _tool_notes(fit)
    finish = _finish(fit, result, ask)
    return Consulted(window, life, bar, bar_asked, off, plunge, thread, drilled, tuple(notes), finish)


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


def _ra_wanted(planned: PlannedCut, step: Span | None) -> float | None:
    """The finish [µm] that the print asks of what this cut leaves; None for roughing, or where it asks none."""
    return step.step.ra_um if step is not None and planned.stage != "rough" else None


def _finish(fit: Fitted, result: CutResult, ask: Ask) -> Finish | None:
    if result.ra_um is None:
        return None
    edge = fit.tool.edge if fit.tool else None
    wiper = isinstance(edge, Insert) and edge.edge == "wiper"
    return Finish(result.ra_um / (WIPER if wiper else 1.0), _finish_seen(fit, ask))


def _finish_seen(fit: Fitted, ask: Ask) -> FinishSeen | None:
    """What the edge's finish came to in this material; None where none was read, or the house counts by theory."""
    edge = fit.tool.edge if fit.tool else None
    if ask.rules.finish_from != "measured" or not isinstance(edge, Insert):
        return None
    return edge.seen.get(ask.part.material.key)


def _window(fit: Fitted, ask: Ask, step: Span | None) -> FeedWindowResult | None:
    planned, edge = fit.planned, fit.tool.edge if fit.tool else None
    if not planned.by_depth or planned.corner_radius_mm <= 0:
        return None
    insert = edge if isinstance(edge, Insert) else None
    wanted, seen = _ra_wanted(planned, step), _finish_seen(fit, ask)
    if wanted is not None and seen is not None:  # in theory it must be finer by as much as it came out rougher
        wanted = min(max(wanted / seen.ratio, FINEST), ROUGHEST)
    return feed_window(
        FeedWindowInput(
            planned.corner_radius_mm,
            ra_um=wanted,
            depth_mm=planned.depth_mm,
            breaker=insert.breaker if insert else None,
            wiper=insert is not None and insert.edge == "wiper",
        )
    )


# How far the stock before a finishing bar is off, per side (typical): after a bar, and after a drill or a core.
BORED_OFF_MM, DRILLED_OFF_MM = 0.05, 0.15


def _bar(
    fit: Fitted, result: CutResult, length_mm: float, where: tuple[Ask, Span | None]
) -> tuple[BoringBarInput | None, float | None]:
    """What is asked of a bar, and how far its stock may be off a side."""
    ask, step = where
    planned, carrier = fit.planned, fit.tool.carrier if fit.tool else None
    if (
        not isinstance(carrier, Holder)
        or carrier.side != "inside"
        or planned.from_diameter_mm is None
        or planned.to_diameter_mm is None
    ):
        return None, None
    limits = step.step.limits_mm if step is not None and planned.stage != "rough" else None
    width = limits[1] - limits[0] if limits else None
    off = None
    light: float | None = None
    heavy: float | None = None
    if width and planned.kind == "bore" and planned.depth_mm is not None:
        off = BORED_OFF_MM if ask.bored_before else DRILLED_OFF_MM
        light, heavy = (
            _fresh(fit, ask, d) for d in (max(planned.depth_mm - off, LEAST_CHIP_MM), planned.depth_mm + off)
        )
    asked = BoringBarInput(
        bore_mm=min(planned.from_diameter_mm, planned.to_diameter_mm),
        bar_mm=carrier.shank_mm,
        overhang_mm=planned.start_mm + length_mm + 1.0,
        force_n=result.passive_n,
        modulus_gpa=carrier.modulus_gpa,
        tolerance_mm=width if width else None,
        lightest_n=light,
        heaviest_n=heavy,
    )
    return asked, off


def _fresh(fit: Fitted, ask: Ask, depth_mm: float) -> float:
    """Passive force [N] of a depth with a fresh edge."""
    planned, m = fit.planned, ask.part.material
    engaged = Engaged(planned.feed_mm_rev or 0.1, depth_mm, planned.corner_radius_mm, planned.approach_deg)
    metal = Metal(m.kc11, m.mc, planned.rake_deg, m.rake_reference_deg, 1.0)
    w = Working()
    return forces_of(w, engaged, chip_of(w, engaged), metal).passive


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
    if named is None or planned.springs:  # what is said of its thread holds
        return None
    inside = (planned.to_diameter_mm or 0.0) > (planned.from_diameter_mm or 0.0)
    try:
        return thread(ThreadInput(named.form, named.major_mm, named.pitch_mm, inside, named.grade, planned.passes))
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

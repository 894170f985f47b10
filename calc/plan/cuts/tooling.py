"""A planned cut with the figures of its tool, and what it asks of one."""

from __future__ import annotations

import math
from dataclasses import dataclass, replace
from typing import Any

from calc.notebook.proven import Situation
from calc.plan.cuts.inputs import PlannedCut
from calc.plan.part.solve import PartFigures
from calc.profile.body import End
from calc.profile.contour import Span
from calc.profile.grips import from_end
from calc.rules import Rules
from calc.threads.designation import designation
from calc.tools.choose import Job
from calc.tools.kinds.drill import Drill
from calc.tools.kinds.groove_insert import GrooveInsert
from calc.tools.kinds.holder import Holder
from calc.tools.kinds.insert import Insert
from calc.tools.library import Library, Tool

SAME_MM = 0.02
WEAK_KW = 12.0  # typical: below it a machine wants a free-cutting edge
THIN_SHARE = 0.15  # typical: a wall under this share of the radius is pushed away
DRILL_LEAVES_MM = 0.5  # per side, for the bar to clean up
BESIDE_MM = 1.0


@dataclass(frozen=True)
class Fitted:
    """A cut with its tool's figures put in. `tool` is None where none is chosen, or where it is gone (`gone`)."""

    planned: PlannedCut
    tool: Tool | None
    gone: bool = False


def fitted(planned: PlannedCut, library: Library) -> Fitted:
    """The cut as it is with its tool: corner, angles, width and drill are the tool's."""
    if not planned.tool:
        return Fitted(planned, None)
    tool = library.tool(planned.tool)
    if tool is None:
        return Fitted(planned, None, gone=True)
    edge, changed = tool.edge, {}
    if isinstance(edge, Insert):
        changed = {"corner_radius_mm": edge.decoded.corner_radius_mm, "rake_deg": edge.rake_deg}
        if isinstance(tool.carrier, Holder):
            changed["approach_deg"] = tool.carrier.approach_deg
    elif isinstance(edge, GrooveInsert):
        changed = {"width_mm": edge.width_mm, "rake_deg": edge.rake_deg}
    elif isinstance(edge, Drill):
        changed = {"point_deg": edge.point_deg}
        if planned.from_diameter_mm is None or planned.from_diameter_mm < edge.diameter_mm:
            changed["to_diameter_mm"] = edge.diameter_mm
    else:
        changed = {"rake_deg": edge.rake_deg}
    return Fitted(replace(planned, **changed), tool)  # type: ignore[arg-type]


# Facts of a cut that its tool brings: they are shown, and not entered.
def brought(tool: Tool | None) -> tuple[str, ...]:
    """The names of the facts that a tool brings."""
    match tool.edge if tool else None:
        case None:
            return ()
        case Insert():
            return ("corner_radius_mm", "approach_deg", "rake_deg")
        case GrooveInsert():
            return ("width_mm", "rake_deg")
        case Drill():
            return ("to_diameter_mm", "point_deg")
    return ("rake_deg",)


def worked_steps(part: PartFigures, worked: End, *, inside: bool) -> tuple[Span, ...]:
    """Steps as seen from the end that is worked."""
    body = part.body
    if not inside:
        return from_end(body.outside, body.length_mm, worked)
    mine = body.inside if worked == "a" else body.inside_b
    other = body.inside_b if worked == "a" else body.inside
    if mine or not other or other[-1].step.length_mm is not None:
        return mine
    reach = body.length_mm  # a bore from the far end comes out here
    return tuple(Span(reach - s.end, reach - s.start, s.step, s.index) for s in reversed(other))


def step_of(planned: PlannedCut, part: PartFigures, worked: End) -> Span | None:
    """The step that a cut makes: the one of its size, or of its thread; None where no step is near."""
    inside, to = planned.inside, planned.to_diameter_mm
    steps = worked_steps(part, worked, inside=inside)
    if planned.kind == "thread":
        sizes = (planned.from_diameter_mm or 0.0, to or 0.0)
        return next(
            (s for s in steps if s.step.thread and any(abs((s.step.diameter_mm or 0) - x) < 3 for x in sizes)), None
        )
    if to is None:
        return None
    # A roughing cut leaves something: the nearest step that is not passed.
    sign = -1.0 if inside else 1.0
    near = [s for s in steps if s.step.diameter_mm is not None and -SAME_MM <= sign * (to - s.step.diameter_mm) < 4.0]
    return min(near, key=lambda s: abs((s.step.diameter_mm or 0) - to), default=None)


def length_of(planned: PlannedCut, part: PartFigures, worked: End) -> float:
    """Length [mm] along the axis: as entered, else as the profile has it."""
    if planned.length_mm is not None:
        return planned.length_mm
    step = step_of(planned, part, worked)
    if planned.kind == "groove" and planned.width_mm is not None:
        return planned.width_mm
    if step is None:
        return part.length_mm
    if planned.kind == "thread":
        return step.step.thread_length_mm or step.end - step.start
    return max(0.01, step.end - planned.start_mm)


def is_interrupted(planned: PlannedCut, part: PartFigures) -> bool:
    """It strikes: as entered, or between the corners and the flats of a bar that has them."""
    across = part.stock.diameter_mm
    if planned.interrupted or not part.stock.flats or across is None or planned.inside:
        return planned.interrupted
    return max(planned.from_diameter_mm or 0.0, planned.to_diameter_mm or 0.0) > across + 1e-6


def job_of(
    planned: PlannedCut, part: PartFigures, worked: End, rules: Rules, minutes: float, quantity: int | None
) -> Job:
    """What a cut asks of a tool."""
    step, machine, figures = step_of(planned, part, worked), part.machine, part.figures
    a, b, inside = planned.from_diameter_mm, planned.to_diameter_mm, planned.inside
    steps = worked_steps(part, worked, inside=inside)
    falling = figures.falling_deg.get(worked, 0.0)
    more: dict[str, Any] = {}
    if planned.kind in ("turn", "bore") and step is not None:
        after = next((s for s in steps if s.start >= step.end - 1e-6), None)
        here, there = step.step.last_diameter_mm or 0.0, after.step.diameter_mm if after else None
        more["square"] = there is not None and (there < here if inside else there > here)
        more["falling_deg"] = falling if falling < 90 else 0.0
    if planned.kind == "thread":
        named = designation(planned.thread)
        more |= {"pitch_mm": named.pitch_mm if named else planned.feed_mm_rev, "angle_deg": 60.0}
    if planned.kind == "groove":
        more["width_mm"] = planned.length_mm or (step.end - step.start if step is not None else planned.width_mm)
    if planned.kind == "drill" and b is not None:
        more["most_mm"] = (
            b if planned.stage != "rough" or step is None else (step.step.diameter_mm or b) - 2 * DRILL_LEAVES_MM
        )
    wall = part.body.wall_between(0.0, part.length_mm)
    largest = max((s.step.diameter_mm or 0.0 for s in part.body.outside), default=0.0)
    return Job(
        kind=planned.kind,
        group=part.material.iso_group,
        side="inside" if inside and planned.kind != "drill" else "outside",
        stage="finish" if planned.cleans else planned.stage,
        depth_mm=planned.depth_mm if planned.by_depth else None,
        stock_mm=abs(a - b) / 2 if a is not None and b is not None else None,
        reach_mm=planned.start_mm + length_of(planned, part, worked) + (BESIDE_MM if inside else 0.0)
        if planned.kind != "face"
        else 0.0,
        bore_mm=min(a, b) if a is not None and b is not None else None,
        corner_mm=(
            step.step.corner_mm if step is not None and step.step.corner_mm is not None else figures.smallest_corner_mm
        )
        if planned.kind in ("turn", "bore", "groove")
        else None,
        ra_um=step.step.ra_um if step is not None and planned.kind in ("turn", "bore") else None,
        diameter_mm=max(a or 0.0, b or 0.0),
        interrupted=is_interrupted(planned, part),
        thin=wall < THIN_SHARE * largest / 2,
        weak=machine.power_kw < WEAK_KW,
        feeds="away" if planned.feeds_away else "chuck",
        turns=planned.turns,
        quantity=quantity or 1,
        minutes=minutes if math.isfinite(minutes) else 0.0,
        shank_mm=machine.shank_mm,
        bar_seat_mm=machine.bar_seat_mm,
        turret=machine.turret,
        torque_nm=machine.torque_nm,
        kc11=part.material.kc11 * rules.worn,
        mc=part.material.mc,
        rougher=rules.rougher,
        **more,
    )


def edge_name(tool: Tool | None) -> str:
    """What a tool's edge is called in the notebook: an insert by its designation."""
    if tool is None:
        return ""
    return tool.edge.code if isinstance(tool.edge, Insert) else tool.edge.name


def situation_of(planned: PlannedCut, tool: Tool | None, part: PartFigures) -> Situation:
    """A planned cut in the words of the notebook."""
    sizes = [d for d in (planned.from_diameter_mm, planned.to_diameter_mm) if d]
    return Situation(
        planned.kind,
        "finish" if planned.cleans else planned.stage,
        part.material.name,
        part.material.iso_group,
        part.machine.name,
        edge_name(tool),
        tool.carrier.name if tool is not None and tool.carrier is not None else "",
        max(sizes, default=None),
    )

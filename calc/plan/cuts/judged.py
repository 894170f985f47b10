"""What must be said about one cut's figures: spindle, speed window, finishing edge, thread."""

from __future__ import annotations

import math
from typing import Literal

from calc.cuts.direction import winds
from calc.cuts.turning import CutResult
from calc.plan.cuts.edge import speed_window
from calc.plan.cuts.inputs import PlannedCut
from calc.plan.part.solve import PartFigures
from calc.quantities import Figure
from calc.threads.designation import designation
from calc.tools.kinds.drill import Drill
from calc.tools.kinds.holder import Holder
from calc.tools.kinds.insert import Insert
from calc.tools.library import Tool
from calc.working import Note

SPLIT_MM = 1.0  # per side, typical: what a finishing edge takes no more of in one cut
SAME_PITCH = 0.002  # of a pitch: what rounding an inch pitch to two places makes of it
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


def _direction_notes(planned: PlannedCut, tool: Tool | None) -> list[Note]:
    """Spindle and feed against the hand of what cuts, or of what is cut."""
    feeds: Literal["chuck", "away"] = "away" if planned.feeds_away else "chuck"
    wound, thread = winds(planned.turns, feeds), designation(planned.thread)
    wanted: list[tuple[str, str]] = []
    if planned.kind == "thread" and thread is not None:
        wanted.append((thread.text, thread.hand))
    if planned.kind == "drill" or (tool is not None and isinstance(tool.edge, Drill)):
        wanted.append(("a drill", "right"))  # left-hand drills are not on any shelf here
    carrier = tool.carrier if tool is not None else None
    if planned.by_depth and isinstance(carrier, Holder) and carrier.hand != "neutral":
        wanted.append((carrier.name, carrier.hand))
    return [
        Note(
            "stop",
            "wrong-way",
            "{name}: {what} is {hand}-hand; {turns}, fed {way} the chuck, cuts {wound}-hand. Turn the spindle or "
            "feed the other way.",
            name=planned.name,
            what=what,
            hand=hand,
            turns=planned.turns,
            way="away from" if feeds == "away" else "toward",
            wound=wound,
        )
        for what, hand in wanted
        if hand != wound
    ]


def _pitch_notes(planned: PlannedCut) -> list[Note]:
    """A thread cut at another pitch than its name says is not that thread, whatever else holds."""
    named = designation(planned.thread) if planned.kind == "thread" else None
    pitch = planned.feed_mm_rev
    if named is None or pitch is None or abs(pitch - named.pitch_mm) <= SAME_PITCH * named.pitch_mm:
        return []
    return [
        Note(
            "stop",
            "other-pitch",
            "{name}: it is fed {f}, and {t} has a pitch of {p}. Give the thread's own pitch, or name the other thread.",
            name=planned.name,
            f=Figure(pitch, "mm/rev"),
            t=named.text,
            p=Figure(named.pitch_mm, "mm/rev"),
        )
    ]


def judged(
    planned: PlannedCut, result: CutResult, machine: tuple[float, float], part: PartFigures, tool: Tool | None
) -> list[Note]:
    """Notes of one cut's figures; `machine`: power [kW] and torque [N·m] that the spindle has at its speed."""
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
    notes += _direction_notes(planned, tool)
    notes += _pitch_notes(planned)
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
    depth = planned.depth_mm if planned.by_depth and not planned.cleans else None  # a burr is no chip
    if depth is not None and depth < planned.corner_radius_mm:
        notes.append(
            Note(
                "info",
                "depth-under-radius",
                "{name}: {a} deep with a {r} corner: the chip may not break.",
                name=name,
                a=Figure(depth, "mm"),
                r=Figure(planned.corner_radius_mm, "mm"),
            )
        )
    return notes


# An edit changes one cut of many: the others stand as they were.

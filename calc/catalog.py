"""Every calculator by name: the one list behind Python, HTTP and the command line."""

from __future__ import annotations

from collections.abc import Callable
from dataclasses import dataclass
from typing import Any

from calc.chuck.collet import ColletGripInput, collet_grip
from calc.chuck.demand import GripDemandInput, grip_demand
from calc.chuck.exact import grip_exact
from calc.chuck.fit import GripFitInput, grip_fit
from calc.chuck.grip import ChuckGripInput, chuck_grip
from calc.chuck.pressure import PressureNeededInput, pressure_needed
from calc.chuck.speed import GripAtSpeedInput, grip_at_speed
from calc.chuck.speed_limit import SpeedLimitInput, speed_limit
from calc.coolant.mixing import CoolantInput, coolant
from calc.cuts.drilling import DrillInput, drill
from calc.cuts.economic_speed import EconomicSpeedInput, economic_speed
from calc.cuts.feed_window import FeedWindowInput, feed_window
from calc.cuts.part_off import PartOffInput, part_off
from calc.cuts.tool_life import ToolLifeInput, tool_life
from calc.cuts.turning import CutInput, cut
from calc.describing import FieldTold, Json, describe
from calc.fields import Checked
from calc.illustrated import cuts_drawn, grip_drawn, jaws_drawn, limits_drawn
from calc.illustrated.graph import Graph
from calc.jaws.backing import JawBackingInput, jaw_backing
from calc.jaws.bore import JawBoreInput, jaw_bore
from calc.jaws.contact import JawContactInput, jaw_contact
from calc.jaws.mass import JawMassInput, jaw_mass
from calc.jaws.position import JawPositionInput, jaw_position
from calc.jaws.recut import JawRecutInput, jaw_recut
from calc.jaws.stroke import JawStrokeInput, jaw_stroke
from calc.jaws.taper import JawTaperInput, jaw_taper
from calc.limits.capability import CapabilityInput, capability
from calc.limits.drift import DriftInput, drift
from calc.limits.first_off import FirstOffInput, first_off
from calc.limits.working import WorkingLimitsInput, working_limits
from calc.quantities import System
from calc.reading import read
from calc.results import Explained, answers, as_plain
from calc.route.bars import BarYieldInput, bar_yield
from calc.route.moves import MoveTimeInput, move_time
from calc.route.stations import TurretOrderInput
from calc.route.turret import turret_order
from calc.scene.shapes import Scene
from calc.symbols import key_of
from calc.threads.thread import ThreadInput, thread
from calc.tools.boring_bar import BoringBarInput, boring_bar
from calc.tools.insert_code import InsertCodeInput, insert_code
from calc.walls.contact import WallContactInput, wall_contact
from calc.walls.crushing import CrushingInput, crushing
from calc.walls.lobing import WallLobingInput, wall_lobing


@dataclass(frozen=True)
class Shown:
    """What was given, as it was read; the answer as plain data; its picture, where one helps."""

    given: Checked
    told: Json
    picture: Scene | Graph | None


@dataclass(frozen=True)
class Calculator:
    """One function of the core: its name, where in the order of the work it belongs, what it is called, its input
    declaration, what draws its answer, and which figures of it are looked at first.
    """

    name: str
    group: str
    title: str
    function: Callable[[Any], Explained]
    input: type[Checked]
    picture: Callable[[Any, Any], Scene | Graph | None] | None = None
    first: tuple[str, ...] = ()

    @property
    def summary(self) -> str:
        """First line of the function's docstring."""
        return (self.function.__doc__ or "").strip().splitlines()[0]

    def run(self, data: Any) -> Json:
        """Plain data in, plain data out. Raises CalcError naming the fields."""
        return self.answer(data, "metric")

    def answer(self, data: Any, system: System) -> Json:
        """The same, its answers printed in the units of `system`; what it is given is in core units or says its own."""
        return self._told(self.function(read(self.input, data)), system)

    def shown(self, data: Any, system: System) -> Shown:
        """An answer as the screen shows it: bare figures are written in the units of `system`."""
        given = read(self.input, data, system=system)
        result = self.function(given)
        drawn = self.picture(given, result) if self.picture is not None else None
        told = self._told(result, system)
        told["answers"].sort(key=lambda a: self.first.index(a["name"]) if a["name"] in self.first else len(self.first))
        return Shown(given, told, drawn)

    def _told(self, result: Explained, system: System) -> Json:
        told = {
            "notes": [note.as_dict() | {"text": note.sentence.text(system)} for note in result.notes],
            "answers": [answer._asdict() for answer in answers(result, system)],
            "working": [
                step.as_dict() | {"symbols": key_of(step, result.working[:place])}
                for place, step in enumerate(result.working)
            ],
        }
        return as_plain(result) | told  # type: ignore[no-any-return]

    @property
    def fields(self) -> list[FieldTold]:
        """Its declared fields, as plain data."""
        return describe(self.input)


GROUPS: tuple[tuple[str, str], ...] = (
    ("hold", "Hold"),
    ("jaws", "Jaws"),
    ("force", "Force"),
    ("wall", "The wall"),
    ("tools", "Tools"),
    ("cuts", "Cuts"),
    ("route", "Route"),
    ("size", "Set and run"),
)
CALCULATORS: dict[str, Calculator] = {
    c.name: c
    for c in (
        Calculator("jaw-stroke", "hold", "Stroke", jaw_stroke, JawStrokeInput),
        Calculator("collet-grip", "hold", "Grip of a collet", collet_grip, ColletGripInput),
        Calculator("jaw-position", "jaws", "Tooth", jaw_position, JawPositionInput),
        Calculator("jaw-mass", "jaws", "Mass of a jaw", jaw_mass, JawMassInput),
        Calculator(
            "jaw-backing", "jaws", "Ring or plug", jaw_backing, JawBackingInput, first=("choice", "bore_pressure_bar")
        ),
        Calculator("jaw-bore", "jaws", "Pocket", jaw_bore, JawBoreInput),
        Calculator("jaw-contact", "jaws", "Contact", jaw_contact, JawContactInput, jaws_drawn.contact),
        Calculator("jaw-taper", "jaws", "Taper", jaw_taper, JawTaperInput),
        Calculator("jaw-recut", "jaws", "Paper touch-off", jaw_recut, JawRecutInput, first=("verdict", "removal_mm")),
        Calculator("chuck-grip", "force", "Grip at a pressure", chuck_grip, ChuckGripInput, grip_drawn.at_pressure),
        Calculator(
            "grip-at-speed",
            "force",
            "Grip at speed",
            grip_at_speed,
            GripAtSpeedInput,
            grip_drawn.at_speed,
            first=("grip_n", "kept_fraction"),
        ),
        Calculator("grip-fit", "force", "Gauge run", grip_fit, GripFitInput, grip_drawn.gauge_run),
        Calculator("grip-demand", "force", "Grip the cuts need", grip_demand, GripDemandInput),
        Calculator("grip-exact", "force", "The same, by limit analysis", grip_exact, GripDemandInput),
        Calculator(
            "speed-limit",
            "force",
            "Speed cap",
            speed_limit,
            SpeedLimitInput,
            grip_drawn.speed_cap,
            first=("speed_cap_rpm", "capped_by"),
        ),
        Calculator("pressure-needed", "force", "Pressure needed", pressure_needed, PressureNeededInput),
        Calculator("wall-lobing", "wall", "Out of round", wall_lobing, WallLobingInput, jaws_drawn.wall),
        Calculator("wall-contact", "wall", "With the real contact", wall_contact, WallContactInput),
        Calculator("crushing", "wall", "Crushing", crushing, CrushingInput),
        Calculator(
            "insert-code",
            "tools",
            "Insert by its name",
            insert_code,
            InsertCodeInput,
            cuts_drawn.insert,
            first=("iso", "ansi"),
        ),
        Calculator(
            "boring-bar",
            "tools",
            "Boring bar",
            boring_bar,
            BoringBarInput,
            cuts_drawn.bar,
            first=("deflection_mm", "ok"),
        ),
        Calculator("cut", "cuts", "Turning", cut, CutInput, first=("rpm", "power_kw")),
        Calculator("feed-window", "cuts", "Feed window", feed_window, FeedWindowInput, cuts_drawn.feed_window),
        Calculator("drill", "cuts", "Drilling", drill, DrillInput, cuts_drawn.drill),
        Calculator("thread", "cuts", "Thread", thread, ThreadInput, cuts_drawn.thread, first=("depth_mm", "wire_mm")),
        Calculator(
            "part-off",
            "cuts",
            "Parting off",
            part_off,
            PartOffInput,
            cuts_drawn.part_off,
            first=("minutes", "cap_diameter_mm"),
        ),
        Calculator("tool-life", "cuts", "Life of an edge", tool_life, ToolLifeInput, cuts_drawn.life),
        Calculator("economic-speed", "cuts", "Fastest and cheapest speed", economic_speed, EconomicSpeedInput),
        Calculator("coolant", "cuts", "Coolant", coolant, CoolantInput, first=("add_concentrate_l", "add_water_l")),
        Calculator("move-time", "route", "Rapid move", move_time, MoveTimeInput),
        Calculator("turret-order", "route", "Tools on the turret", turret_order, TurretOrderInput, first=("index_s",)),
        Calculator(
            "bar-yield", "route", "Pieces from bars", bar_yield, BarYieldInput, first=("bars", "pieces_to_make")
        ),
        Calculator(
            "working-limits", "size", "Limits to work to", working_limits, WorkingLimitsInput, limits_drawn.limits
        ),
        Calculator("first-off", "size", "First-off", first_off, FirstOffInput),
        Calculator(
            "drift",
            "size",
            "Drift",
            drift,
            DriftInput,
            limits_drawn.drift_line,
            first=("offset_mm", "pieces_left_sure"),
        ),
        Calculator(
            "capability",
            "size",
            "How the print is kept",
            capability,
            CapabilityInput,
            limits_drawn.print_kept,
            first=("cpk", "cpk_low"),
        ),
    )
}

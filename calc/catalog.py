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
from calc.describing import describe
from calc.fields import Checked
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
from calc.symbols import key_of
from calc.threads.thread import ThreadInput, thread
from calc.tools.boring_bar import BoringBarInput, boring_bar
from calc.tools.insert_code import InsertCodeInput, insert_code
from calc.walls.contact import WallContactInput, wall_contact
from calc.walls.crushing import CrushingInput, crushing
from calc.walls.lobing import WallLobingInput, wall_lobing


@dataclass(frozen=True)
class Calculator:
    """One function of the core, its input declaration and its name."""

    name: str
    function: Callable[[Any], Explained]
    input: type[Checked]

    @property
    def summary(self) -> str:
        """First line of the function's docstring."""
        return (self.function.__doc__ or "").strip().splitlines()[0]

    def run(self, data: Any) -> dict[str, Any]:
        """Plain data in, plain data out. Raises CalcError naming the fields."""
        return self.answer(data, "metric")

    def answer(self, data: Any, system: System) -> dict[str, Any]:
        """The same, its answers printed in the units of `system`; what it is given is in core units or says its own."""
        result = self.function(read(self.input, data))
        told = {
            "notes": [note.as_dict() | {"text": note.sentence.text(system)} for note in result.notes],
            "answers": [answer._asdict() for answer in answers(result, system)],
            "working": [
                step.as_dict() | {"symbols": key_of(step, result.working[:place])}
                for place, step in enumerate(result.working)
            ],
        }
        return as_plain(result) | told  # type: ignore[no-any-return]

    def describe(self) -> dict[str, Any]:
        """Name, summary and declared fields."""
        return {"name": self.name, "summary": self.summary, "fields": describe(self.input)}


CALCULATORS: dict[str, Calculator] = {
    c.name: c
    for c in (
        Calculator("chuck-grip", chuck_grip, ChuckGripInput),
        Calculator("jaw-mass", jaw_mass, JawMassInput),
        Calculator("grip-at-speed", grip_at_speed, GripAtSpeedInput),
        Calculator("grip-fit", grip_fit, GripFitInput),
        Calculator("grip-demand", grip_demand, GripDemandInput),
        Calculator("grip-exact", grip_exact, GripDemandInput),
        Calculator("speed-limit", speed_limit, SpeedLimitInput),
        Calculator("collet-grip", collet_grip, ColletGripInput),
        Calculator("pressure-needed", pressure_needed, PressureNeededInput),
        Calculator("jaw-bore", jaw_bore, JawBoreInput),
        Calculator("jaw-position", jaw_position, JawPositionInput),
        Calculator("jaw-stroke", jaw_stroke, JawStrokeInput),
        Calculator("jaw-backing", jaw_backing, JawBackingInput),
        Calculator("jaw-contact", jaw_contact, JawContactInput),
        Calculator("jaw-taper", jaw_taper, JawTaperInput),
        Calculator("jaw-recut", jaw_recut, JawRecutInput),
        Calculator("wall-lobing", wall_lobing, WallLobingInput),
        Calculator("wall-contact", wall_contact, WallContactInput),
        Calculator("crushing", crushing, CrushingInput),
        Calculator("cut", cut, CutInput),
        Calculator("feed-window", feed_window, FeedWindowInput),
        Calculator("insert-code", insert_code, InsertCodeInput),
        Calculator("tool-life", tool_life, ToolLifeInput),
        Calculator("boring-bar", boring_bar, BoringBarInput),
        Calculator("drill", drill, DrillInput),
        Calculator("thread", thread, ThreadInput),
        Calculator("part-off", part_off, PartOffInput),
        Calculator("economic-speed", economic_speed, EconomicSpeedInput),
        Calculator("move-time", move_time, MoveTimeInput),
        Calculator("turret-order", turret_order, TurretOrderInput),
        Calculator("bar-yield", bar_yield, BarYieldInput),
        Calculator("coolant", coolant, CoolantInput),
        Calculator("working-limits", working_limits, WorkingLimitsInput),
        Calculator("first-off", first_off, FirstOffInput),
        Calculator("drift", drift, DriftInput),
        Calculator("capability", capability, CapabilityInput),
    )
}

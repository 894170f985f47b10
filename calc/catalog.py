"""Every calculator by name: the one list behind Python, HTTP and the command line."""

from __future__ import annotations

from collections.abc import Callable
from dataclasses import dataclass
from typing import Any

from calc.chuck.demand import GripDemandInput, grip_demand
from calc.chuck.grip import ChuckGripInput, chuck_grip
from calc.chuck.speed import GripAtSpeedInput, SpeedLimitInput, grip_at_speed, speed_limit
from calc.cuts.turning import CutInput, cut
from calc.describing import describe
from calc.fields import Checked
from calc.jaws.bore import JawBoreInput, jaw_bore
from calc.jaws.mass import JawMassInput, jaw_mass
from calc.reading import read
from calc.results import Explained, as_plain


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
        return as_plain(self.function(read(self.input, data)))  # type: ignore[no-any-return]

    def describe(self) -> dict[str, Any]:
        """Name, summary and declared fields."""
        return {"name": self.name, "summary": self.summary, "fields": describe(self.input)}


CALCULATORS: dict[str, Calculator] = {
    c.name: c
    for c in (
        Calculator("chuck-grip", chuck_grip, ChuckGripInput),
        Calculator("jaw-mass", jaw_mass, JawMassInput),
        Calculator("grip-at-speed", grip_at_speed, GripAtSpeedInput),
        Calculator("grip-demand", grip_demand, GripDemandInput),
        Calculator("speed-limit", speed_limit, SpeedLimitInput),
        Calculator("jaw-bore", jaw_bore, JawBoreInput),
        Calculator("cut", cut, CutInput),
    )
}

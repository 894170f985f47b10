"""Every kind of reading: what it is called, and the unit of what it measures."""

from __future__ import annotations

from calc.card.ask import Ask
from calc.card.readings.coolant import CoolantAsk
from calc.card.readings.feeler import BlueAsk, FeelerAsk
from calc.card.readings.grip import GripAsk
from calc.card.readings.jaws import JawSizeAsk, TouchOffAsk
from calc.card.readings.pressure import PressureAsk
from calc.card.readings.runout import HeightAsk, RunoutAsk
from calc.card.readings.size import FinishAsk, SizeAsk, ThreadAsk

KINDS: dict[type[Ask], str] = {
    PressureAsk: "bar",
    GripAsk: "N",
    FeelerAsk: "mm",
    BlueAsk: "",
    TouchOffAsk: "mm",
    JawSizeAsk: "mm",
    RunoutAsk: "mm",
    HeightAsk: "mm",
    CoolantAsk: "%",
    SizeAsk: "mm",
    FinishAsk: "um",
    ThreadAsk: "",
}
TITLES = {kind.kind: kind.title for kind in KINDS}
UNITS = {kind.kind: unit for kind, unit in KINDS.items()}

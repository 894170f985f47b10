"""A cut that worked, as it is written down, and how like it is to a cut that is planned."""

from __future__ import annotations

import math
from collections.abc import Iterable, Iterator
from dataclasses import dataclass
from datetime import date
from typing import Annotated, Literal

from calc.cuts.kinds import KIND, STAGE, Kind
from calc.errors import FieldError
from calc.fields import Checked, Choice, Quantity, Text
from calc.quantities import Figure, Sentence

CHIP = Choice(
    "Chip",
    {
        "": "not noted",
        "curls": "short curls or sixes",
        "ribbon": "long ribbons",
        "powder": "packed or crushed",
        "blue": "deep blue",
        "straw": "straw to brown",
    },
    "How it came off",
)
COOLANT = Choice(
    "Coolant", {"": "not noted", "flood": "flood", "through": "through the tool", "dry": "dry", "mist": "mist"}, ""
)
OFFERED_FROM = 50.0  # a cut less like it is not offered


@dataclass(frozen=True)
class Proven(Checked):
    """One proven cut. Empty words were not noted."""

    kind: Annotated[Kind, KIND]
    material: Annotated[str, Text("Material", "As on the shelf", most=80)]
    speed_m_min: Annotated[float, Quantity("Surface speed", "m/min", "", above=0, high=3000)]
    feed_mm_rev: Annotated[float, Quantity("Feed", "mm/rev", "", above=0, high=5)]
    iso_group: Annotated[
        Literal["", "P", "M", "K", "N", "S", "H"],
        Choice(
            "ISO 513 group",
            {"": "not noted", "P": "P", "M": "M", "K": "K", "N": "N", "S": "S", "H": "H"},
            "Of the material",
        ),
    ] = ""
    stage: Annotated[Literal["rough", "finish", "both"], STAGE] = "both"
    diameter_mm: Annotated[float | None, Quantity("Diameter", "mm", "Where it cut", above=0, high=1000)] = None
    depth_mm: Annotated[float | None, Quantity("Depth per side", "mm", "", above=0, high=50)] = None
    machine: Annotated[str, Text("Machine", "", most=80)] = ""
    insert: Annotated[str, Text("Insert or drill", "", most=80)] = ""
    holder: Annotated[str, Text("Holder", "", most=80)] = ""
    coolant: Annotated[Literal["", "flood", "through", "dry", "mist"], COOLANT] = ""
    chip: Annotated[Literal["", "curls", "ribbon", "powder", "blue", "straw"], CHIP] = ""
    finish_um: Annotated[float | None, Quantity("Finish Ra", "um", "Measured", above=0, high=100)] = None
    remarks: Annotated[str, Text("Remarks", "What the next one should know", most=200)] = ""
    on: Annotated[str, Text("On", "Such as 2026-11-20", most=10)] = ""

    def contradictions(self) -> Iterator[FieldError]:
        if not self.material.strip():
            yield FieldError("material", Sentence("Write what was cut."))
        if self.on:
            try:
                date.fromisoformat(self.on)
            except ValueError:
                yield FieldError("on", Sentence("Write the date as year-month-day, such as 2026-11-20."))


@dataclass(frozen=True)
class Situation:
    """What is planned, in the words of the notebook."""

    kind: str
    stage: str
    material: str
    iso_group: str
    machine: str
    insert: str
    holder: str
    diameter_mm: float | None


@dataclass(frozen=True)
class Likeness:
    """How like a proven cut is, of 100, and why."""

    proven: Proven
    score: float
    reasons: tuple[Sentence, ...]


def _same(a: str, b: str) -> bool:
    return bool(a) and a.strip().casefold() == b.strip().casefold()


def likeness(now: Situation, proven: Proven) -> Likeness:
    """How like a proven cut is to what is planned: 40 for the material, 20 edge, 10 stage, 10 machine, 5 holder, 15
    diameter.

    Another kind of operation is not like it at all. The weights are typical.

    >>> cut = Proven("turn", "carbon steel C45", 200, 0.2, iso_group="P")
    >>> likeness(Situation("turn", "both", "carbon steel C45", "P", "", "", "", None), cut).score
    50.0
    """
    if proven.kind != now.kind:
        return Likeness(proven, 0.0, (Sentence("another kind of operation"),))
    score, said = 0.0, []
    if _same(proven.material, now.material):
        score += 40
        said.append(Sentence("same material"))
    elif proven.iso_group and proven.iso_group == now.iso_group:
        score += 18
        said.append(Sentence("other material of ISO {g}", g=now.iso_group))
    if _same(proven.insert, now.insert):
        score += 20
        said.append(Sentence("same edge"))
    elif proven.insert and now.insert and proven.insert[:4].casefold() == now.insert[:4].casefold():
        score += 10
        said.append(Sentence("edge of the same shape"))
    if proven.stage == now.stage:
        score += 10
        said.append(
            Sentence("{s}", s={"rough": "roughing too", "finish": "finishing too", "both": "in one go too"}[now.stage])
        )
    if _same(proven.machine, now.machine):
        score += 10
        said.append(Sentence("same machine"))
    if _same(proven.holder, now.holder):
        score += 5
        said.append(Sentence("same holder"))
    if proven.diameter_mm and now.diameter_mm:
        apart = abs(math.log(proven.diameter_mm / now.diameter_mm)) / math.log(2)  # in doublings
        score += 15 * max(0.0, 1 - apart)
        if apart < 0.5:
            said.append(Sentence("at a like diameter, Ø{d}", d=Figure(proven.diameter_mm, "mm")))
    return Likeness(proven, score, tuple(said))


def most_like(now: Situation, notebook: Iterable[Proven], shown: int = 3) -> tuple[Likeness, ...]:
    """The most like ones, the best first; what is less like than half is left out."""
    found = [x for x in (likeness(now, p) for p in notebook) if x.score >= OFFERED_FROM]
    return tuple(sorted(found, key=lambda x: -x.score)[:shown])

"""An exercise and its grade as they are sent: the answer stays behind until one is given."""

from __future__ import annotations

from dataclasses import dataclass
from typing import Literal

from calc.illustrated.graph import Graph
from calc.practice.exercise import Choice, Exercise, Grade, Verdict
from calc.quantities import System, shown_as
from calc.said.drawn import SceneSaid, scene_said
from calc.said.graph import GraphSaid, graph_said
from calc.said.reader import OptionSaid
from calc.said.stop import StepSaid, steps_said
from calc.scene.shapes import Scene


@dataclass(frozen=True)
class KnownSaid:
    """Something that is known."""

    label: str
    value: str


@dataclass(frozen=True)
class ExerciseSaid:
    """A question; `options` are empty where a figure is asked for, in `unit`."""

    ask: str
    known: list[KnownSaid]
    kind: Literal["choice", "figure"]
    options: list[OptionSaid]
    label: str
    unit: str
    scene: SceneSaid | None
    graph: GraphSaid | None


@dataclass(frozen=True)
class GradeSaid:
    """How good an answer is: why, what is right, the rule, what it would have done at the machine, and the working."""

    verdict: Verdict
    why: str
    right: str
    rule: str
    machine: str
    working: list[StepSaid]


def exercise_said(exercise: Exercise, system: System) -> ExerciseSaid:
    """A question in the units of a system, without its answer."""
    answer, picture = exercise.answer, exercise.picture
    return ExerciseSaid(
        ask=exercise.ask.text(system),
        known=[KnownSaid(k.label, k.value.text(system)) for k in exercise.known],
        kind="choice" if isinstance(answer, Choice) else "figure",
        options=[OptionSaid(o.key, o.words.text(system)) for o in answer.options] if isinstance(answer, Choice) else [],
        label="" if isinstance(answer, Choice) else answer.label,
        unit="" if isinstance(answer, Choice) else shown_as(answer.unit, system).unit,
        scene=scene_said(picture, system) if isinstance(picture, Scene) else None,
        graph=graph_said(picture, system) if isinstance(picture, Graph) else None,
    )


def grade_said(exercise: Exercise, grade: Grade, system: System) -> GradeSaid:
    """A grade in the units of a system."""
    return GradeSaid(
        verdict=grade.verdict,
        why=grade.why.text(system),
        right=grade.right.text(system),
        rule=exercise.rule.text(system),
        machine="" if grade.machine is None else grade.machine.text(system),
        working=steps_said(exercise.working),
    )

"""An exercise, what may be answered to it, and how an answer is graded."""

from __future__ import annotations

from dataclasses import dataclass, field
from typing import Any, Literal

from calc.errors import FieldProblem
from calc.illustrated.graph import Graph
from calc.quantities import Figure, Sentence, System
from calc.scene.shapes import Scene
from calc.working import Step
from calc.written import parse

Verdict = Literal["right", "close", "wrong", "dangerous"]
Side = Literal["above", "below"]


@dataclass(frozen=True)
class Option:
    """One of a few answers, and why it is right, wrong or dangerous."""

    key: str
    words: Sentence
    verdict: Verdict
    why: Sentence


@dataclass(frozen=True)
class Choice:
    """An answer chosen from a few, of which one is right."""

    options: tuple[Option, ...]

    @property
    def right(self) -> Option:
        """The right one."""
        return next(o for o in self.options if o.verdict == "right")


@dataclass(frozen=True)
class Asked:
    """An answer that is a figure: what it is in the core's unit, how far off it is right and close, and on which side
    of it a wrong one is dangerous, `dangers` saying what it would do there.
    """

    label: str
    unit: str
    value: float
    right_within: float
    close_within: float
    danger: Side | None = None
    dangers: Sentence = field(default_factory=lambda: Sentence(""))
    places: tuple[int, int] | None = None
    from_side: Sentence = field(default_factory=lambda: Sentence(""))  # what a wrong one on the other side would do

    @property
    def figure(self) -> Figure:
        """The right answer as it is printed."""
        return Figure(self.value, self.unit, places=self.places)


@dataclass(frozen=True)
class Known:
    """Something that is known: its label and value in words."""

    label: str
    value: Sentence


@dataclass(frozen=True)
class Exercise:
    """A question with what is known, its picture, the answer, the rule behind it in plain words and its working."""

    ask: Sentence
    known: tuple[Known, ...]
    answer: Choice | Asked
    rule: Sentence
    working: tuple[Step, ...] = ()
    picture: Scene | Graph | None = None


@dataclass(frozen=True)
class Grade:
    """How good an answer is, why, what is right, and what a dangerous one would have done at the machine."""

    verdict: Verdict
    why: Sentence
    right: Sentence
    machine: Sentence | None


def grade(exercise: Exercise, given: Any, system: System) -> Grade:
    """Grade an answer: the key of an option, or a figure as it is written, a bare one in the unit of `system`.

    Raises CalcError at `given` for what is no answer.

    Reference: docs/method.md, “Practice”
    """
    if isinstance(exercise.answer, Choice):
        return _chosen(exercise.answer, given)
    return _figure(exercise.answer, given, system)


def _chosen(answer: Choice, given: Any) -> Grade:
    found = next((o for o in answer.options if o.key == given), None)
    if found is None:
        raise FieldProblem("given", "Choose one of the answers.")
    machine = found.why if found.verdict == "dangerous" else None
    return Grade(found.verdict, found.why, answer.right.words, machine)


def _figure(answer: Asked, given: Any, system: System) -> Grade:
    if not isinstance(given, str) or not given.strip():
        raise FieldProblem("given", f"{answer.label}: write a figure.")
    value = parse(given, answer.unit, system, "given")
    off = value - answer.value
    side: Side = "above" if off > 0 else "below"
    # A figure typed in another unit is not held to its last bit.
    near = abs(off) * (1 - 1e-9) - 1e-12
    right = Sentence("{x}", x=answer.figure)
    if near <= answer.right_within:
        return Grade("right", Sentence("Within what can be told apart."), right, None)
    words = "It is {d} too much." if off > 0 else "It is {d} too little."
    why = Sentence(words, d=Figure(abs(off), answer.unit, places=answer.places))
    if near <= answer.close_within:
        return Grade("close", why, right, None)
    if side == answer.danger:
        return Grade("dangerous", why, right, answer.dangers)
    return Grade("wrong", why, right, None)

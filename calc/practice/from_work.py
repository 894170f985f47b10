"""An exercise from real work: what a plan asked a calculator, with the shop's own numbers."""

from __future__ import annotations

from collections.abc import Iterator, Mapping
from dataclasses import dataclass
from typing import Any

from calc.catalog import CALCULATORS
from calc.fields import Choice as OneOf
from calc.fields import FieldSpec, Flag, Group, Quantity, Text, fields_of
from calc.from_plan import taken
from calc.plan.compute import PlanResult
from calc.practice.exercise import Asked, Exercise, Known
from calc.quantities import Figure, Sentence, exact_text
from calc.results import found_of

RIGHT, CLOSE = 0.03, 0.10  # of the figure
ENTERED = 6  # digits


@dataclass(frozen=True)
class Asking:
    """A figure that is worth asking for: of which calculator, in which words, with the rule behind it."""

    figure: str
    ask: str
    rule: str


ASKED: Mapping[str, Asking] = {
    "chuck-grip": Asking(
        "grip_n",
        "What do the jaws hold with at this pressure and height?",
        "By the chuck's chart, less what the height and the condition cost.",
    ),
    "grip-at-speed": Asking(
        "grip_n",
        "What is left of the grip at this speed?",
        "Outside, the static grip less the jaws' centrifugal force.",
    ),
    "speed-limit": Asking(
        "speed_cap_rpm",
        "How fast may it turn at most?",
        "The least of what chuck, machine and grip allow; the grip's is where it meets what is needed.",
    ),
    "pressure-needed": Asking(
        "pressure_bar", "Which pressure does it need?", "The grip needed at speed, back through condition and height."
    ),
    "feed-window": Asking(
        "feed_max_mm_rev", "How much may you feed at most?", "The least of corner, finish and chip breaker."
    ),
    "cut": Asking("rpm", "How fast does the spindle turn?", "1000·v/(π·d), up to the highest speed that is allowed."),
    "drill": Asking("thrust_n", "With how much does the drill push?", "Half of k_c·f·d/2·sin(σ/2), more in solid."),
    "part-off": Asking(
        "cap_diameter_mm", "Below which diameter does the surface speed fall?", "1000·v/(π·n) at the highest speed."
    ),
    "tool-life": Asking("pieces_per_edge", "How many pieces does an edge last?", "Its life over the minutes it cuts."),
    "crushing": Asking("stress_n_mm2", "What does the wall carry under the jaws?", "The grip over what the jaws wrap."),
}
MISTAKES = {
    "down": Sentence(
        "You would count on more than there is: at the machine that is where a part comes loose, or breaks."
    ),
    "up": Sentence("You would expect less than comes: at the machine that is where something gives."),
}


@dataclass(frozen=True)
class Moment:
    """A moment of a plan that can be practised: which calculator, where in the plan, its place among those."""

    name: str
    title: str
    words: str
    place: int


def moments(result: PlanResult) -> Iterator[Moment]:
    """What of a plan can be practised, in the order of the work."""
    for name in CALCULATORS:
        if name in ASKED:
            for place, one in enumerate(taken(result, name)):
                if _value(name, one.given) is not None:
                    yield Moment(name, CALCULATORS[name].title, one.words, place)


def of_moment(result: PlanResult, name: str, place: int) -> Exercise:
    """The exercise of a moment. Raises KeyError where the plan has none such."""
    found = taken(result, name) if name in ASKED else []
    if not 0 <= place < len(found):
        raise KeyError(name)
    one, asking, calculator = found[place], ASKED[name], CALCULATORS[name]
    answer = calculator.function(one.given)
    value = getattr(answer, asking.figure)
    if value is None:
        raise KeyError(name)
    declared = found_of(type(answer))[asking.figure]
    within = max(RIGHT * abs(value), 0.5 if float(value).is_integer() else 1e-6)
    asked = Asked(
        declared.label,
        declared.unit,
        float(value),
        within,
        max(CLOSE * abs(value), 2 * within),
        {"down": "above", "up": "below"}.get(declared.safe),  # type: ignore[arg-type] # as the sides are called
        MISTAKES.get(declared.safe, Sentence("")),
        declared.places,
    )
    known = (Known("Where", Sentence("{w}", w=one.words)), *_known(one.given, ""))
    return Exercise(Sentence(asking.ask), known, asked, Sentence("{r}", r=asking.rule), answer.working)


def _value(name: str, given: Any) -> float | None:
    found: float | None = getattr(CALCULATORS[name].function(given), ASKED[name].figure)
    return found


def _known(given: Any, before: str) -> Iterator[Known]:
    """Every figure that was given, as it is declared; what was left out is not told."""
    for field in fields_of(type(given)):
        value = getattr(given, field.name)
        if value is None or value == "" or (field.many and not value):
            continue
        label = f"{before}{field.spec.label}"
        if field.many:
            yield Known(label, Sentence("{w}", w=_listed(field, value)))
        elif isinstance(field.spec, Group):
            yield from _known(value, f"{label}: ")
        else:
            yield Known(label, _said(field, value))


def _listed(field: FieldSpec, value: tuple[Any, ...]) -> Sentence:
    """A list in one line, its rows apart."""
    rows: dict[str, Sentence] = {}
    for i, row in enumerate(value):
        cells = list(_known(row, "")) if isinstance(field.spec, Group) else [Known("", _said(field, row))]
        parts = {f"c{k}": cell.value for k, cell in enumerate(cells)}
        rows[f"r{i}"] = Sentence(", ".join("{" + name + "}" for name in parts), **parts)
    return Sentence("; ".join("{" + name + "}" for name in rows), **rows)


def _said(field: FieldSpec, value: Any) -> Sentence:
    match field.spec:
        case Quantity(unit=unit, places=places):
            # What was entered has few digits and is shown with all of them; what follows from others is rounded.
            figure = Figure(value, unit, places=places, exact=places is None and len(exact_text(value)) <= ENTERED)
            return Sentence("{x}", x=figure)
        case OneOf(options=options):
            return Sentence("{w}", w=options.get(value, str(value)))
        case Flag():
            return Sentence("yes" if value else "no")
        case Text():
            return Sentence("{w}", w=str(value))
    return Sentence("")

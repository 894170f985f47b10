"""The core's calculators, as the API reaches them."""

from __future__ import annotations

from typing import Any

from calc.catalog import CALCULATORS, GROUPS, Calculator
from calc.describing import FieldTold, Json, json_schema, written
from calc.from_plan import taken
from calc.illustrated.examples import EXAMPLES
from calc.illustrated.graph import Graph
from calc.quantities import System, shown_as
from calc.reading import write
from calc.said.drawn import scene_said
from calc.said.graph import graph_said
from calc.scene.shapes import Scene
from server.apps.calculators.schemas import (
    CalculatorAnswer,
    CalculatorShown,
    CalculatorsShown,
    FieldShown,
    TakenListOut,
    TakenOut,
)
from server.apps.runs.queries.find import run_by_id
from server.apps.runs.queries.may import role_may_change
from server.apps.runs.queries.plan import computed
from server.apps.runs.queries.released_plan import released_result
from server.apps.runs.queries.releases import standing_release
from server.apps.shelf import queries as shelf
from server.foundation.problems import NotFound
from server.foundation.roles import sees_drafts

UNKNOWN = "There is no calculator “{name}”. GET /api/calculators lists them."
MOST = 200  # questions of one plan


def all_calculators() -> list[Calculator]:
    """Every calculator, in the catalogue's order."""
    return list(CALCULATORS.values())


def input_schema(calculator: Calculator) -> Json:
    """JSON Schema of a calculator's input, from its one declaration."""
    return json_schema(calculator.input)


def shown(system: System) -> CalculatorsShown:
    """Every calculator as the screen shows it, its units those of `system`."""
    return CalculatorsShown(
        groups=list(GROUPS),
        calculators=[
            CalculatorShown(
                name=c.name,
                group=c.group,
                title=c.title,
                summary=c.summary,
                fields=[_shown(f, system) for f in c.fields],
                example=EXAMPLES[c.name],
            )
            for c in CALCULATORS.values()
        ],
    )


def _shown(field: FieldTold, system: System) -> FieldShown:
    """A field with the unit that is shown; a range is told by the core where it is left."""
    return FieldShown(
        name=field.name,
        label=field.label,
        help=field.help,
        kind=field.kind,
        required=field.required,
        many=field.many,
        unit="" if field.unit is None else shown_as(field.unit, system).unit,
        options=field.options or {},
        when=field.when or {},
        fields=None if field.fields is None else [_shown(f, system) for f in field.fields],
    )


def calculator_named(name: str) -> Calculator:
    """A calculator by its name. Raises NotFound."""
    if name not in CALCULATORS:
        raise NotFound(UNKNOWN.format(name=name))
    return CALCULATORS[name]


def answer(name: str, given: Json, system: System) -> CalculatorAnswer:
    """An answer as the screen shows it. Raises NotFound, and CalcError at the field."""
    found = calculator_named(name).shown(given, system)
    picture = found.picture
    return CalculatorAnswer(
        answers=found.told["answers"],
        notes=found.told["notes"],
        working=found.told["working"],
        given=_keyed(write(found.given)),
        shown=written(found.given, system),
        scene=scene_said(picture, system) if isinstance(picture, Scene) else None,
        graph=graph_said(picture, system) if isinstance(picture, Graph) else None,
    )


def _keyed(given: Json) -> Json:
    """Under the names that are written outside Python, without what was left out."""
    return {name.removesuffix("_"): value for name, value in given.items() if value is not None}


def taken_from(name: str, run_id: int, person: Any) -> TakenListOut:
    """What a run's plan asked a calculator: its draft, or what stands released to who sees that alone.

    Raises NotFound, NotAllowed.
    """
    calculator_named(name)
    run = run_by_id(run_id)
    drafts = sees_drafts(person)
    release = None if drafts else standing_release(run)
    result = computed(run, shelf.current()) if release is None else released_result(release.key)
    role = "" if release or run.put_away else str(getattr(person, "role", ""))
    return TakenListOut(
        revision=run.revision if release is None else release.revision,
        release=None if release is None else release.number,
        taken=[
            TakenOut(
                words=one.words,
                given=_keyed(write(one.given)),
                paths={f: p for f, p in one.paths.items() if role_may_change(role, p)},
            )
            for one in taken(result, name)[:MOST]
        ],
    )

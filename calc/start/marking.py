"""Marks for what was proposed (calc.plan.proposed)."""

from __future__ import annotations

from dataclasses import replace

from calc.plan.document import Mark, Setup, another_side, setup_path
from calc.plan.proposed import OF_THE_PLAN, key_of, mark, proposed
from calc.reading import write
from calc.shelf.taken import SetupShelf
from calc.start.state import Facts, Start, facts_of

REFERENCES = ("chuck", "jaw_blank", "collet")
_NOT_THERE = object()


def marked(before: Start, now: Start) -> Start:
    """The plan with marks for all that is not as it was, and for what was marked before and still stands."""
    was, known = proposed(before.document, before.shelf), {s.id: i for i, s in enumerate(before.document.setups)}
    marks: list[Mark] = []
    first = now.document.sides.first_end
    if first != before.document.sides.first_end or f"{OF_THE_PLAN}.first_end" in was:
        marks.append(mark(OF_THE_PLAN, {"first_end": first}))
    for index, setup in enumerate(now.document.setups):
        place = known.get(setup.id)
        then = (
            _places(another_side(now.document.setups[0], setup.name), SetupShelf())
            if place is None
            else _places(before.document.setups[place], before.shelf.setups[place])
        )
        for name, facts in _places(setup, now.shelf.setups[index]).items():
            at = f"{setup_path(now.document, index)}{name}"
            earlier = then.get(name, {})
            new = {f: v for f, v in facts.items() if v != earlier.get(f, _NOT_THERE) or f"{at}.{f}" in was}
            if new:
                marks.append(mark(at, new))
    return Start(replace(now.document, proposed=tuple(marks)), now.shelf)


def _places(setup: Setup, taken: SetupShelf) -> dict[str, Facts]:
    """The facts of a set-up that may be proposed, by the end of their place's path and by name."""
    own = {kind: key_of(taken, kind) for kind in REFERENCES} | {"clamp_rpm": setup.clamp_rpm}
    found = {"": {name: value for name, value in own.items() if value is not None}}
    found |= {f".{group}": write(getattr(setup, group)) for group in ("hold", "jaws", "force")}
    return found | {f".cuts.{cut.id}": facts_of(cut) for cut in setup.cuts}

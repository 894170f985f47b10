"""Tables of the cuts: limits of threads, depths of their passes, and the pecks of deep holes."""

from __future__ import annotations

from calc.plan.cuts.solve import CUTS
from calc.plan.stop import Row, Table
from calc.plan.view import View
from calc.quantities import Figure, Sentence

NOT_SET = Sentence("the tool's own")


def _limit(value: float | None, words: Sentence = NOT_SET) -> Figure | Sentence:
    return words if value is None else Figure(value, "mm", places=(3, 4))


def tables(view: View) -> tuple[Table, ...]:
    """Limits of threads, depths of their passes, and the pecks of deep holes."""
    figures, found = view[CUTS], []
    if figures is None:
        return ()
    for c in figures.cuts:
        t, d = c.consulted.thread, c.consulted.drilled
        if t is not None:
            rows = [
                Row(label, (_limit(x.max), _limit(x.min)))
                for label, x in (("major", t.major), ("pitch", t.pitch_diameter), ("minor", t.minor))
            ]
            if t.over_wires_mm:
                rows.append(Row("over the best wires", (_limit(t.over_wires_mm[0]), _limit(t.over_wires_mm[1]))))
            found.append(
                Table(
                    f"thread_{c.id}",
                    f"Limits of {c.planned.thread}",
                    ("diameter", "largest", "smallest"),
                    tuple(rows),
                    c.id,
                )
            )
            depths = tuple(Row(f"pass {n}", (_limit(x),)) for n, x in enumerate(t.pass_depths_mm, start=1))
            found.append(
                Table(f"passes_{c.id}", "Passes with an equal chip", ("pass", "depth per side, after it"), depths, c.id)
            )
        if d is not None and d.pecks_mm:
            pecks = tuple(Row(f"peck {n}", (Figure(x, "mm"),)) for n, x in enumerate(d.pecks_mm, start=1))
            found.append(
                Table(
                    f"pecks_{c.id}",
                    "Pecks, where no coolant comes through the drill",
                    ("peck", "to a depth of"),
                    pecks,
                    c.id,
                )
            )
    return tuple(found)

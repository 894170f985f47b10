"""Terms that inputs share: declared once, so that no two inputs take another range for the same thing."""

import dataclasses
from collections import defaultdict
from typing import Annotated

import pytest

from calc import terms
from calc.catalog import CALCULATORS
from calc.describing import calculator, parameters
from calc.errors import CalcError
from calc.fields import Checked, Choice, Quantity, fields_of
from calc.plan.document import Document
from calc.shelf.all_kinds import KINDS

TERMS = {name: t for name, t in vars(terms).items() if isinstance(t, (Quantity, Choice))}


def declared(kind, seen):
    """(class, field) of everything that an input declares, and what is nested in it."""
    if kind in seen:
        return
    seen.add(kind)
    for field in fields_of(kind):
        yield kind, field
        if field.nested is not None:
            yield from declared(field.nested, seen)


def every_input():
    seen = set()
    for kind in (*(c.input for c in CALCULATORS.values()), Document, *(k.item for k in KINDS.values())):
        yield from declared(kind, seen)


def test_what_has_one_name_one_unit_and_one_label_has_one_range():
    found = defaultdict(set)
    for kind, field in every_input():
        spec = field.spec
        if isinstance(spec, Quantity):
            found[field.name, spec.unit, spec.label].add(((spec.low, spec.above, spec.high), kind.__name__))
    differing = {
        key: rows for key, rows in found.items() if len({bounds for bounds, _ in rows}) > 1 and key[0] not in NARROWER
    }
    assert differing == {}


# Where an input is narrower than the term for a reason of its own.
NARROWER = {
    "jaws",  # the closed form of the demand is for 2 to 6
    "wrap_deg",  # the series of a wall need a jaw that wraps at all
    "modulus_gpa",  # and a wall that is one
    "total_grip_n",  # no grip lobes nothing, and touches nowhere
    "static_grip_n",  # a cap is asked for without grip, too: it is zero
    "rpm",  # a cut stands still for nobody
    "diameter_mm",  # of a cut, a drill, a thread, a part
    "smallest_mm",  # the drawing of a part ends at a metre
    "largest_mm",
    "reading_mm",
    "corner_radius_mm",  # the feed window of a sharp corner is none
    "reach_mm",
    "depth_mm",  # of a hole, or of a pocket
    "length_mm",  # of a cut, or of a jaw
    "width_mm",  # of an insert, or of a jaw
    "overhang_mm",
    "face_radius_mm",
    "outer_diameter_mm",
    "inner_diameter_mm",
}


def test_every_term_is_taken_by_two_inputs_at_least():
    # A term's range and unit tell it: what is called otherwise keeps both.
    told = [(f.spec.unit, f.spec.high) for _, f in every_input() if isinstance(f.spec, Quantity)]
    for name, term in TERMS.items():
        if isinstance(term, Quantity):
            assert told.count((term.unit, term.high)) >= 2, name


def test_a_term_called_otherwise_keeps_its_range():
    again = terms.PRESSURE.called("Boring pressure", "With the ring in")
    assert (again.label, again.help) == ("Boring pressure", "With the ring in")
    assert (again.unit, again.above, again.high) == ("bar", 0, 400)
    assert terms.PRESSURE.label == "Gauge pressure"


def test_the_range_is_what_is_enforced_and_what_the_docstring_says():
    low, high = 0.0, 400.0

    @dataclasses.dataclass(frozen=True)
    class Asked(Checked):
        pressure_bar: Annotated[float, terms.PRESSURE]

    @calculator(Asked)
    def ask(given):
        """Ask.

        Parameters
        {parameters}
        """

    assert f"given.pressure_bar: Gauge pressure [bar], above {low:g} to {high:g}; At the cylinder" in ask.__doc__
    assert Asked(high).pressure_bar == high
    for outside in (low, high + 1e-9):
        with pytest.raises(CalcError, match="Gauge pressure"):
            Asked(outside)


@pytest.mark.parametrize("calculator", CALCULATORS.values(), ids=lambda c: c.name)
def test_every_calculators_docstring_has_its_fields_and_an_example(calculator):
    told = calculator.function.__doc__
    assert "{parameters}" not in told
    for line in parameters(calculator.input):
        assert line in told
    for part in ("Returns", "Raises", "Validity", ">>>", "Reference"):
        assert part in told, part

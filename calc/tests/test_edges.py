"""Every calculator at the edges of what it takes: an answer of finite figures, or a sentence; never a crash."""

import json
import math

import pytest
from hypothesis import HealthCheck, given, settings
from hypothesis import strategies as st

from calc.catalog import CALCULATORS
from calc.errors import CalcError
from calc.fields import Choice, Flag, Quantity, fields_of


def numbers(spec):
    low = math.nextafter(spec.above, math.inf) if spec.above is not None else spec.low
    low, high = -1e6 if low is None else low, 1e6 if spec.high is None else spec.high
    edges = [v for v in (low, low + 1e-9, 1e-3, 1.0, high - 1e-9, high) if low <= v <= high]
    if spec.whole:
        return st.integers(math.ceil(low), math.floor(high))
    # One in three at an edge: with all of them there most inputs contradict themselves.
    return st.floats(low, high) | st.floats(low, min(high, low + 1e3)) | st.sampled_from(edges)


def value_of(field):
    match field.spec:
        case Quantity() as spec:
            one = numbers(spec)
        case Choice() as spec:
            one = st.sampled_from(sorted(spec.options))
        case Flag():
            one = st.booleans()
        case _ if field.nested:
            one = data_of(field.nested)
        case _:
            # Words that say something, and words that say nothing.
            one = st.text(max_size=5) | st.sampled_from(
                ["CNMG 120408", "DCMT 21.51", "RCMT 1204M0", "", "6g", "6H", "2A"]
            )
    if field.many:
        least = getattr(field.spec, "least", 0)
        # A series of figures alone has no least of its own: eight are one that something can be said of.
        one = st.lists(one, min_size=least, max_size=max(least, 8 if isinstance(field.spec, Quantity) else 4))
    return one | st.none() if field.nullable else one


def data_of(kind):
    fields = fields_of(kind)
    return st.fixed_dictionaries(
        {f.key: value_of(f) for f in fields if f.required},
        optional={f.key: value_of(f) for f in fields if not f.required},
    )


# Contact solves take a tenth of a second each: a setter would not wait for four hundred of them either.
EXAMPLES = {"grip-exact": 60, "wall-contact": 100, "wall-lobing": 200, "grip-demand": 200}
# A pressure drawn at random is seldom on a chart drawn at random.
EXAMPLES |= {"chuck-grip": 1000}


@pytest.mark.parametrize("name", CALCULATORS)
def test_the_edges_of_every_input_give_finite_figures_or_a_sentence(name):
    answered, refusals = [], []

    @settings(
        max_examples=EXAMPLES.get(name, 200),
        derandomize=True,
        database=None,
        suppress_health_check=list(HealthCheck),
        deadline=None,
    )
    @given(data_of(CALCULATORS[name].input))
    def ask(data):
        try:
            answer = CALCULATORS[name].run(data)
        except CalcError as refused:
            refusals.append(str(refused))
            return
        answered.append(data)
        json.dumps(answer, allow_nan=False)  # raises where a figure is not finite

    ask()
    assert answered  # the inputs are not all refused
    assert all(refusals)

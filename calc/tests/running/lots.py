"""Lots of plans that the tests know."""

from functools import cache

from calc.running.lot import lots_of
from calc.tests.card.test_steps import computed


@cache
def lot_of(name, index=0):
    return lots_of(computed(name))[index]

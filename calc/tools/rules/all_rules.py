"""The book of rules for each kind of cut."""

from __future__ import annotations

from calc.tools.choose import Book
from calc.tools.rules import turning
from calc.tools.rules.drilling import DRILLING
from calc.tools.rules.grooving import GROOVING
from calc.tools.rules.parting import PARTING
from calc.tools.rules.threading import THREADING

BOOKS: dict[str, Book] = {
    "turn": turning.TURNING,
    "face": turning.TURNING,
    "bore": turning.TURNING,
    "drill": DRILLING,
    "groove": GROOVING,
    "thread": THREADING,
    "part": PARTING,
}

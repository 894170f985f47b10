"""Which end first, on how many sets of jaws."""

from __future__ import annotations

from dataclasses import dataclass
from typing import Annotated, Literal

from calc.fields import Checked, Choice, Flag

FIRST = Choice("Made first", {"proposed": "as proposed", "a": "end A", "b": "end B"}, "The other end is held meanwhile")


@dataclass(frozen=True)
class Sides(Checked):
    """Which end first, and whether both sides share one set of jaws."""

    first_end: Annotated[Literal["proposed", "a", "b"], FIRST] = "proposed"
    two_step: Annotated[
        bool, Flag("One set, two pockets", "The outer pocket takes the stock, the inner one the half-finished part")
    ] = False

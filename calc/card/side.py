"""One side's steps at its card: what each is made of."""

from __future__ import annotations

from calc.card.ask import Ask
from calc.card.step import CardStep
from calc.plan.force.solve import FORCE
from calc.plan.hold.solve import HOLD
from calc.plan.view import View
from calc.quantities import Sentence

PLACES = (3, 4)  # of a jaw's diameter
STOPPED = Sentence("Spindle stopped, door open, nobody at the pedal but you.")


class Maker:
    """Makes the steps of one side; ids begin with the set-up's own."""

    def __init__(self, view: View) -> None:
        self.view, self.index, self.at = view, view.index, view.setup.id
        hold, force = view[HOLD], view[FORCE]
        assert hold is not None and force is not None  # a released plan is settled
        self.hold, self.force = hold, force

    def one(self, name: str, title: str, *words: Sentence | str, **more: object) -> CardStep:
        """A step of this side."""
        said = tuple(w if isinstance(w, Sentence) else Sentence(w) for w in words)
        ask = more.get("ask")
        kind = "read" if isinstance(ask, Ask) else more.pop("kind", "do")
        return CardStep(
            f"{self.at}.{name}",
            str(more.pop("place", "jaws")),
            title,
            said,
            self.index,
            kind,  # type: ignore[arg-type] # one of the kinds
            **more,  # type: ignore[arg-type] # the rest of a step's fields
        )

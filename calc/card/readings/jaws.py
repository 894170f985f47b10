"""The jaws' own size: touched off with paper, or measured after boring."""

from __future__ import annotations

from dataclasses import dataclass
from typing import Annotated

from calc import terms
from calc.card.ask import Ask, Told
from calc.errors import CalcError
from calc.fields import Checked, Quantity
from calc.jaws.contact import JawContactInput, jaw_contact
from calc.jaws.recut import JawRecutInput, jaw_recut
from calc.quantities import Bare, Figure, Sentence
from calc.terms import Side
from calc.working import Working, derived

SIZE = derived("Readings at the machine")
FAR_MM = 3.0  # on diameter: farther off nothing was touched that is meant
GOOD_GAP_MM = 0.01  # typical: so much more gap than planned is no matter
PLACES = (3, 4)


@dataclass(frozen=True)
class TouchOffEntry(Checked):
    """X where paper is just held, and the paper."""

    reading_mm: Annotated[float, terms.TOUCH_OFF.called("Touch-off reading", "X, a diameter from the spindle axis")]
    paper_mm: Annotated[float, terms.PAPER] = 0.08


@dataclass(frozen=True, kw_only=True)
class TouchOffAsk(Ask):
    """Where used jaws stand, what comes off, and whether they are moved first."""

    kind = "touch-off"
    title = "Touch off the jaws with paper"
    entry = TouchOffEntry
    side: Side
    target_mm: float
    damage_mm: float
    predicted_mm: float | None  # where they are clamped to stand

    @property
    def expected(self) -> Sentence:
        """Where they were meant to stand."""
        d = Figure(self.predicted_mm or self.target_mm, "mm", places=PLACES)
        return Sentence("they should stand at about Ø{d}", d=d)

    def told(self, entered: TouchOffEntry) -> Told:
        """Size, removal, verdict."""
        given = JawRecutInput(
            self.side, entered.reading_mm, self.target_mm, paper_mm=entered.paper_mm, damage_mm=self.damage_mm
        )
        found = jaw_recut(given)
        words = [n.sentence for n in found.notes if n.code == found.verdict]
        if found.verdict == "cut":
            words.append(Sentence("The jaws stand at Ø{d}.", d=Figure(found.size_mm, "mm", places=PLACES)))
        return Told(
            "Take off, per side" if found.verdict == "cut" else "Move the jaws by, on diameter",
            Figure(found.removal_mm if found.verdict == "cut" else found.move_mm, "mm", places=PLACES),
            tuple(words),
            level="good" if found.verdict == "cut" else "do",
            measured=found.size_mm,
            predicted=self.predicted_mm,
            done=found.verdict == "cut",
            steps=found.working,
        )

    def far(self, entered: TouchOffEntry) -> Sentence | None:
        """Nowhere near."""
        if abs(entered.reading_mm - self.target_mm) <= FAR_MM:
            return None
        words = "The jaws are cut for Ø{d}. Is X a diameter, and touched where they grip?"
        return Sentence(words, d=Bare(Figure(self.target_mm, "mm", places=PLACES)))


@dataclass(frozen=True)
class JawSizeEntry(Checked):
    """What the pocket was bored or turned to."""

    size_mm: Annotated[
        float, Quantity("Measured", "mm", "Diameter where they grip, clamped as they were cut", 1, 4000, places=PLACES)
    ]


@dataclass(frozen=True, kw_only=True)
class JawSizeAsk(Ask):
    """The pocket as it was cut: how pieces sit in it, the smallest to the largest."""

    kind = "jaw-size"
    title = "Measure the jaws"
    entry = JawSizeEntry
    instrument = "size"
    side: Side
    planned_mm: float
    jaw_width_mm: float
    pieces_mm: tuple[float, float]  # the smallest and the largest that comes

    @property
    def expected(self) -> Sentence:
        """What the plan has."""
        return Sentence("planned Ø{d}", d=Figure(self.planned_mm, "mm", places=PLACES))

    def told(self, entered: JawSizeEntry) -> Told:
        """How far off it is, and the widest gap of a piece in it."""
        w = Working()
        off = w.step("e", "Off the plan", "D_m - D_p", "mm", SIZE, D_m=entered.size_mm, D_p=self.planned_mm)
        words, worse = [], 0.0
        for name, piece in zip(("The smallest piece", "The largest piece"), self.pieces_mm, strict=True):
            said, gap = self._sits(name, entered.size_mm, piece)
            words.append(said)
            # Stock spreads: a gap that the plan has too is none of the boring's.
            worse = max(worse, gap - self._sits(name, self.planned_mm, piece)[1])
        fits = worse <= GOOD_GAP_MM
        if fits:
            words.append(Sentence("As the plan has them, near enough."))
        more = "small" if (off < 0) == (self.side == "od") else "far"
        if not fits and more == "small":
            words.append(Sentence("Bore them on to the plan's size." if self.side == "od" else "Turn them on to it."))
        elif not fits:
            words.append(
                Sentence("Too much is off: close them further and cut again, or say so at the plan's jaw stop.")
            )
        return Told(
            "Off the plan, on diameter",
            Figure(off, "mm", places=PLACES),
            tuple(words),
            level="good" if fits else "do",
            measured=entered.size_mm,
            predicted=self.planned_mm,
            done=fits,
            steps=tuple(w.steps),
        )

    def _sits(self, name: str, jaw_mm: float, piece_mm: float) -> tuple[Sentence, float]:
        d = Figure(piece_mm, "mm", places=PLACES)
        try:
            found = jaw_contact(JawContactInput(self.side, jaw_mm, piece_mm, self.jaw_width_mm))
        except CalcError:
            return Sentence("{who}, Ø{d}, does not sit in them.", who=name, d=Bare(d)), FAR_MM
        where = {"full": "all over", "centre": "at mid-jaw", "edges": "on its edges"}[found.mode]
        gap = Figure(found.gap_mm, "mm", "up", (4, 5))
        words = Sentence("{who}, Ø{d}, touches {where}: gap {g}.", who=name, d=Bare(d), where=where, g=gap)
        return words, found.gap_mm

    def far(self, entered: JawSizeEntry) -> Sentence | None:
        """Nowhere near."""
        if abs(entered.size_mm - self.planned_mm) <= FAR_MM:
            return None
        return Sentence("The plan has Ø{d}. Is it measured where they grip?", d=Figure(self.planned_mm, "mm"))

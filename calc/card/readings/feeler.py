"""The feeler at the jaw's tip, and the blue round its mouth: how much taper."""

from __future__ import annotations

from dataclasses import dataclass
from typing import Annotated, Literal

from calc.card.ask import Ask, Teaches, Told, times_off
from calc.fields import Checked, Choice, Quantity
from calc.quantities import Figure, Sentence
from calc.terms import Side
from calc.working import Working, derived

TAPER = derived("Readings at the machine")
NEEDED_MM = 0.02  # per side, typical: below it no taper is needed
STEP_MM = 0.02  # on diameter, typical: between 0.01 and 0.025, by which blue is brought even
FAR_TIMES, FAR_LEAST_MM = 3.0, 0.05
TEACHES_MM = 0.005  # an estimate below it teaches nothing
TEACHES_LEAST, TEACHES_MOST = 0.05, 10.0  # times the estimate: beyond, the reading is of something else
PLACES = (3, 4)
BLUE = Choice(
    "Where the blue is",
    {"base": "at the part's base first", "tip": "at the tip first", "even": "even, all round"},
    "After one press and release, part taken out straight",
)


@dataclass(frozen=True)
class FeelerEntry(Checked):
    """The thickest leaf that goes in."""

    gap_mm: Annotated[
        float, Quantity("Goes in", "mm", "The thickest leaf between jaw and part, at the tip", 0, 2, places=PLACES)
    ]


@dataclass(frozen=True, kw_only=True)
class FeelerAsk(Ask):
    """The gap at the tip at full pressure, which replaces the estimate."""

    kind = "feeler"
    title = "Feeler gauge at the jaw's tip"
    entry = FeelerEntry
    presets = (0.0, 0.03, 0.05, 0.08, 0.10)
    side: Side
    depth_mm: float
    predicted_mm: float | None  # per side
    set_key: str = ""  # of the jaw set on the shelf; empty: these jaws are none yet
    bends_times: float | None = None  # what that prediction took the estimate

    @property
    def expected(self) -> Sentence | None:
        """What the jaws are expected to bend."""
        if self.predicted_mm is None:
            return None
        return Sentence("predicted {x}", x=Figure(max(0.0, self.predicted_mm), "mm", "up", PLACES))

    def told(self, entered: FeelerEntry) -> Told:
        """The taper for the program, with its sign."""
        w = Working()
        taper = w.step("T", "Taper on diameter over the grip", "2*δ", "mm", TAPER, δ=entered.gap_mm)
        needed = entered.gap_mm >= NEEDED_MM - 1e-12
        words: tuple[Sentence, ...]
        if not needed:
            words, u = (Sentence("Below {x} a side: no taper is needed. Then blue it.", x=_mm(NEEDED_MM)),), 0.0
        else:
            sign = 1.0 if self.side == "od" else -1.0
            u = w.step("U", "From the mouth to the floor, on diameter", "s*T", "mm", TAPER, s=sign, T=taper)
            more = "larger" if self.side == "od" else "smaller"
            text = "{more} at the floor than at the tip, on diameter, over {d}. Then blue it."
            words = (Sentence(text, more=more, d=Figure(self.depth_mm, "mm")),)
        teaches = self._teaches(entered, w)
        if teaches is not None:
            words = (*words, Sentence("Kept with the jaw set: its next plan counts with it."))
        return Told(
            "So put into the program",
            Figure(u, "mm", places=PLACES),
            words,
            level="do" if needed else "good",
            prefix="U ",
            measured=entered.gap_mm,
            predicted=self.predicted_mm,
            steps=tuple(w.steps),
            teaches=teaches,
        )

    def _teaches(self, entered: FeelerEntry, w: Working) -> Teaches | None:
        """How many times its estimate this set bends; nothing of jaws that are no set yet, or of next to nothing."""
        estimate = (self.predicted_mm or 0.0) / (self.bends_times or 1.0)
        if not self.set_key or estimate < TEACHES_MM or entered.gap_mm / estimate > TEACHES_MOST:
            return None
        times = w.step(
            "q",
            "This set bends, against the estimate",
            "max(q_0, δ/δ_e)",
            "",
            TAPER,
            q_0=TEACHES_LEAST,
            δ=entered.gap_mm,
            δ_e=estimate,
        )
        return Teaches("jaw_set", self.set_key, "bends_times", times)

    def far(self, entered: FeelerEntry) -> Sentence | None:
        """Three times as much as predicted, or a third."""
        predicted = max(0.0, self.predicted_mm or 0.0)
        if self.predicted_mm is None or not times_off(entered.gap_mm, predicted, FAR_TIMES, FAR_LEAST_MM):
            return None
        words = "{x} was predicted. Is a chip behind the jaw, or a bolt loose? Is that right?"
        return Sentence(words, x=Figure(predicted, "mm", "up", PLACES))


def _mm(value: float) -> Figure:
    return Figure(value, "mm", places=PLACES)


@dataclass(frozen=True)
class BlueEntry(Checked):
    """Where the blue is, and the taper that is in the jaws now."""

    shows: Annotated[Literal["base", "tip", "even"], BLUE]
    taper_mm: Annotated[
        float, Quantity("Taper in the jaws now", "mm", "On diameter, without its sign", 0, 4, places=PLACES)
    ] = 0.0


@dataclass(frozen=True, kw_only=True)
class BlueAsk(Ask):
    """Where the jaws touch, by blue: more taper, less, or done."""

    kind = "blue"
    title = "Blue round the mouth"
    entry = BlueEntry
    side: Side

    def told(self, entered: BlueEntry) -> Told:
        """The next taper."""
        if entered.shows == "even":
            return Told("Blue", Sentence("even"), (Sentence("Done: the jaws touch all along."),), measured=0.0)
        w = Working()
        more = 1.0 if entered.shows == "tip" else -1.0
        wanted = w.step(
            "T", "Next taper, on diameter", "max(0, T_1 + m*z)", "mm", TAPER, T_1=entered.taper_mm, m=more, z=STEP_MM
        )
        sign = 1.0 if self.side == "od" else -1.0
        u = w.step("U", "From the mouth to the floor, on diameter", "s*T", "mm", TAPER, s=sign, T=wanted)
        why = (
            "Blue at the tip first: too little taper. Give {z} more, on diameter, cut, and blue it again."
            if more > 0
            else "Blue at the part's base first: too much taper. Give {z} less, on diameter, cut, and blue it again."
        )
        words = [Sentence(why, z=_mm(STEP_MM))]
        if wanted == 0.0 and more < 0:
            words = [Sentence("Blue at the base first without any taper: look for a burr or a chip at the floor.")]
        return Told(
            "So put into the program",
            Figure(u, "mm", places=PLACES),
            tuple(words),
            level="do",
            prefix="U ",
            measured=more,
            done=False,
            steps=tuple(w.steps),
        )

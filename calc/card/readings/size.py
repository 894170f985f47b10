"""Sizes and finish of the first piece, and the thread's gauges."""

from __future__ import annotations

from collections.abc import Iterator
from dataclasses import dataclass
from typing import Annotated, Literal

from calc.card.ask import Ask, Level, Teaches, Told, times_off
from calc.errors import FieldError
from calc.fields import Checked, Choice, Flag, Quantity
from calc.limits.first_off import AT_C, FirstOffInput, first_off
from calc.quantities import Bare, Figure, Sentence
from calc.tools.finish import LEAST, MOST
from calc.working import Source, Working, derived

READ = derived("Readings at the machine")
LIMIT_PLACES = (4, 5)
FAR_MM = 0.3  # of a size: more than a first piece is off
FAR_FINISH = 3.0
MOST_TURNS = {"metric": 2.0, "unified": 3.0}
STANDARD = {
    "metric": Source("standard", "ISO 1502: NOT GO enters two turns at most", "ISO 1502"),
    "unified": Source("standard", "ASME B1.2: NOT GO enters three turns at most", "ASME B1.2"),
}


@dataclass(frozen=True)
class SizeEntry(Checked):
    """A size of the first piece, and how warm the piece is."""

    measured_mm: Annotated[float, Quantity("Measured", "mm", "As the piece is now", 0, 10_000, places=LIMIT_PLACES)]
    part_temp_c: Annotated[float, Quantity("Temperature, °C", "", "Of the piece when measured", -20, 150)] = AT_C


@dataclass(frozen=True, kw_only=True)
class SizeAsk(Ask):
    """One dimension of the first piece with the limits of print and machine: the offset of the tool that makes it."""

    kind = "size"
    title = "Size of the first piece"
    entry = SizeEntry
    instrument = "size"
    name: str
    outside: bool
    print_mm: tuple[float, float]
    working_mm: tuple[float, float]
    expansion_1e6_k: float
    offset: int  # number of the tool's offset
    tool: str
    nominal_mm: float = 0.0

    @property
    def target_mm(self) -> float:
        """The working middle."""
        return sum(self.working_mm) / 2

    @property
    def expected(self) -> Sentence:
        """The working limits, and the print's."""
        (a, b), (c, d) = self.working_mm, self.print_mm
        return Sentence(
            "work to {a}–{b}; the print has {c}–{d}",
            a=Bare(_size(a, "up")),
            b=_size(b, "down"),
            c=Bare(_size(c, "up")),
            d=_size(d, "down"),
        )

    def told(self, entered: SizeEntry) -> Told:
        """The correction of the tool's offset, and whether the piece is good."""
        found = first_off(FirstOffInput(entered.measured_mm, self.target_mm, self.expansion_1e6_k, entered.part_temp_c))
        size, (low, high), (work_low, work_high) = found.at_20_mm, self.print_mm, self.working_mm
        warm = entered.part_temp_c != AT_C
        words = [Sentence("At 20 °C it is {d}.", d=_size(size))] if warm else []
        good = low - 1e-9 <= size <= high + 1e-9
        small = size < low
        if work_low - 1e-9 <= size <= work_high + 1e-9:
            words.append(Sentence("Within the working limits."))
        elif good:
            words.append(Sentence("A good piece by the print, outside the working limits: correct it before the next."))
        elif small == self.outside:
            words.append(Sentence("The metal is gone: this piece is scrap. Correct, and make another first piece."))
        else:
            words.append(Sentence("Metal is left: correct, and cut this piece again."))
        words.append(
            Sentence("Offset {n}, X, of {t}: as a diameter.", n=str(self.offset), t=self.tool)
            if abs(found.correction_mm) >= 0.0005
            else Sentence("Leave offset {n} as it is.", n=str(self.offset))
        )
        return Told(
            f"Add to offset {self.offset}, X",
            Figure(found.correction_mm, "mm", places=(3, 4)),
            tuple(words),
            level="good" if good and abs(found.correction_mm) < 0.0005 else "do",
            passes=good,
            done=good,
            measured=size,
            predicted=self.target_mm,
            steps=found.working,
        )

    def far(self, entered: SizeEntry) -> Sentence | None:
        """Further off than a first piece is."""
        if abs(entered.measured_mm - self.target_mm) <= FAR_MM:
            return None
        words = "{n} should be about {d}. Is it that dimension, and the right unit?"
        return Sentence(words, n=self.name, d=_size(self.target_mm))


def _size(value: float, rounding: Literal["near", "up", "down"] = "near") -> Figure:
    return Figure(value, "mm", rounding, LIMIT_PLACES)


@dataclass(frozen=True)
class FinishEntry(Checked):
    """What the finish was measured at."""

    ra_um: Annotated[float, Quantity("Measured Ra", "um", "Along the part, away from marks", above=0, high=100)]


@dataclass(frozen=True, kw_only=True)
class FinishAsk(Ask):
    """The finish against the theory and the print; their ratio is kept for the material and the edge."""

    kind = "finish"
    title = "Finish of the first piece"
    entry = FinishEntry
    name: str
    theory_um: float
    print_um: float | None
    predicted_um: float | None = None  # with what was read before; none: nothing was
    edge: str = ""  # the insert's key
    material: str = ""

    @property
    def wanted_um(self) -> float:
        """What is predicted."""
        return self.theory_um if self.predicted_um is None else self.predicted_um

    @property
    def expected(self) -> Sentence:
        """In theory, or as it was read before, and by the print."""
        said: dict[str, Figure | str] = {"how": "in theory" if self.predicted_um is None else "as read before"}
        said["a"] = Figure(self.wanted_um, "um", "up")
        if self.print_um is None:
            return Sentence("{how} Ra {a}", **said)
        return Sentence("{how} Ra {a}; the print asks for {b}", b=Figure(self.print_um, "um", "down"), **said)

    def told(self, entered: FinishEntry) -> Told:
        """Measured to theory, and whether the print is kept."""
        w = Working()
        ratio = w.step("q", "Measured to theory", "Ra_m/Ra", "", READ, Ra_m=entered.ra_um, Ra=self.theory_um)
        good = self.print_um is None or entered.ra_um <= self.print_um * (1 + 1e-9)
        words = (
            Sentence("The print is kept.")
            if good
            else Sentence("Rougher than the print asks: less feed, or a new edge.")
        )
        if self.print_um is None:
            words = Sentence("The print asks for none here.")
        teaches = None
        if self.edge and self.material and LEAST <= ratio <= MOST:
            teaches = Teaches("insert", self.edge, "finish", ratio, self.material)
        kept = (Sentence("Kept with the edge, for this material."),) if teaches else ()
        return Told(
            "Measured to theory",
            Figure(ratio, "", "up", (2, 2)),
            (words, *kept),
            level="good" if good else "do",
            measured=entered.ra_um,
            predicted=self.wanted_um,
            passes=good,
            done=good,
            steps=tuple(w.steps),
            teaches=teaches,
        )

    def far(self, entered: FinishEntry) -> Sentence | None:
        """Three times what is predicted, or a third."""
        if not times_off(entered.ra_um, self.wanted_um, FAR_FINISH, 0.2):
            return None
        words = "Ra {a} is predicted. Is it measured in Ra, and in this unit?"
        return Sentence(words, a=Figure(self.wanted_um, "um", "up"))


GO = Choice(
    "GO", {"all": "goes all the way", "part": "stops on the way", "not": "does not go on"}, "By hand, without force"
)


@dataclass(frozen=True)
class ThreadEntry(Checked):
    """What both gauges do."""

    go: Annotated[Literal["all", "part", "not"], GO]
    not_go_turns: Annotated[float, Quantity("NOT GO enters, turns", "", "Until it stops; 0: it does not", 0, 100)] = 0.0
    wiped: Annotated[bool, Flag("Wiped and deburred", "A burr holds a gauge as metal does")] = True

    def contradictions(self) -> Iterator[FieldError]:
        if self.go == "not" and self.not_go_turns > 0:
            words = "Where GO does not go on NOT GO cannot: look which gauge is which."
            yield FieldError("not_go_turns", Sentence(words))


@dataclass(frozen=True, kw_only=True)
class ThreadAsk(Ask):
    """A thread by its GO and NOT GO gauges."""

    kind = "thread"
    title = "Thread gauges"
    entry = ThreadEntry
    name: str
    outside: bool
    system: Literal["metric", "unified"]
    offset: int

    @property
    def expected(self) -> Sentence:
        """What a good thread does."""
        most = f"{MOST_TURNS[self.system]:g}"
        return Sentence("GO goes all the way; NOT GO enters {n} turns at most", n=most)

    def told(self, entered: ThreadEntry) -> Told:
        """Good, cut again, or scrap."""
        w, n, most = Working(), str(self.offset), MOST_TURNS[self.system]
        values = {"u": entered.not_go_turns, "u_m": most}
        over = w.step("m", "Turns too many", "max(0, u - u_m)", "", STANDARD[self.system], **values)
        deeper, back = ("nearer to the axis, X−", "away from the axis, X+")[:: 1 if self.outside else -1]
        level: Level = "do"
        if over > 0:
            answer, level = Sentence("scrap"), "stop"
            words = [Sentence("Too deep: NOT GO enters. Move offset {n} {w}, and make another.", n=n, w=back)]
        elif entered.go == "all":
            answer, level, words = Sentence("good"), "good", [Sentence("GO goes all the way, NOT GO does not.")]
        elif not entered.wiped:
            answer, words = Sentence("not yet"), [Sentence("Wipe and deburr it first, then gauge again.")]
        else:
            tight = "Too tight: move offset {n} {w} by {x} to {y}, and run the thread again, the piece held as it is."
            answer = Sentence("cut again")
            words = [
                Sentence(tight, n=n, w=deeper, x=Bare(_size(0.02)), y=_size(0.05)),
                Sentence("Where GO stops on the way, look for a burr and a taper first."),
            ]
        return Told(
            "The thread is",
            answer,
            tuple(words),
            level=level,
            measured=entered.not_go_turns,
            passes=level == "good",
            done=level == "good",
            steps=tuple(w.steps),
        )

"""The program that bores soft jaws: its moves, and its words in ISO 6983.

X is a diameter, Z is 0 at the jaws' face and below 0 inside them, both told of the tool's imaginary
sharp tip. The tool is called by the person: what differs between controls is asked, never assumed.
"""

from __future__ import annotations

import math
from collections.abc import Iterator, Sequence
from dataclasses import dataclass
from typing import Literal, NamedTuple

from calc.quantities import Sentence, System, from_core, shown_as
from calc.terms import Side

AWAY_MM = 50.0  # Z of approach and retreat, in front of ring and jaws
CLEAR_MM = 2.0  # Z before the jaws' face
OFF_MM = 1.0  # on diameter, off the wall before a rapid back
FINISH_MM = 0.4  # on diameter, left for the finishing pass
FLOOR_MM = 0.1  # left on the floor by the roughing passes


@dataclass(frozen=True)
class Pocket:
    """One pocket: diameter at its mouth, taper on diameter (larger at the floor outside, smaller inside), depths
    [mm].
    """

    diameter_mm: float
    depth_mm: float
    groove_width_mm: float
    groove_depth_mm: float
    taper_mm: float = 0.0


@dataclass(frozen=True)
class Boring:
    """What is to be bored: pockets from the jaws' face inward, where to start [mm], how to cut."""

    side: Side
    pockets: tuple[Pocket, ...]
    start_mm: float
    depth_of_cut_mm: float
    feed_mm_rev: float
    speed_m_min: float
    limit_rpm: float
    plug_mm: float | None = None  # what the jaws are closed on at the bottom: its top lies at the last floor
    clear_mm: float = 3.0  # of the plug, per side

    @property
    def floor_to_mm(self) -> float:
        """How far in a floor is faced: to where boring began, never over a plug."""
        return self.start_mm if self.plug_mm is None else max(self.start_mm, self.plug_mm + 2 * self.clear_mm)

    @property
    def sign(self) -> int:
        """1 where boring goes outward, −1 where turning goes inward."""
        return 1 if self.side == "od" else -1

    @property
    def rpm(self) -> float:
        """Constant speed [rpm], whole: the surface speed at the largest diameter cut, within the limit."""
        widest = max(self.start_mm, *(p.diameter_mm for p in self.pockets))
        return float(math.floor(min(self.limit_rpm, 1000 * self.speed_m_min / (math.pi * widest))))


class Move(NamedTuple):
    """One move, a tuple since there are hundreds: rapid or at feed, to X (a diameter) and Z [mm].

    `note` stands beside it; `finishes`: with it the finishing of a pocket begins.
    """

    kind: Literal["rapid", "feed"]
    x_mm: float
    z_mm: float
    note: str = ""
    finishes: bool = False


def _rough(b: Boring, pocket: Pocket, top: float) -> Iterator[Move]:
    """Straight passes from the start diameter to just short of the wall, and just short of the floor."""
    goal = pocket.diameter_mm - b.sign * FINISH_MM
    room = b.sign * (goal - b.start_mm)
    if room <= 0:
        return
    passes = max(1, math.ceil(room / (2 * b.depth_of_cut_mm) - 1e-9))
    floor = top - pocket.depth_mm + FLOOR_MM
    for i in range(1, passes + 1):
        x = b.start_mm + b.sign * room * i / passes
        # Over a plug a pass ends before it.
        end = floor if b.plug_mm is None or x >= b.floor_to_mm else floor + CLEAR_MM
        yield Move("rapid", x, top + CLEAR_MM, f"pass {i} of {passes}")
        yield Move("feed", x, end)
        yield Move("feed", x - b.sign * OFF_MM, end)
        yield Move("rapid", x - b.sign * OFF_MM, top + CLEAR_MM)


def _finish(b: Boring, pocket: Pocket, top: float) -> Iterator[Move]:
    """The wall with its taper, the floor groove, the floor faced back to where boring began."""
    floor = top - pocket.depth_mm
    at_groove = floor + pocket.groove_width_mm

    def wall(z: float) -> float:
        return pocket.diameter_mm + b.sign * pocket.taper_mm * (top - z) / pocket.depth_mm

    bottom = wall(floor) + b.sign * 2 * pocket.groove_depth_mm
    yield Move("rapid", pocket.diameter_mm, top + CLEAR_MM, "finish", finishes=True)
    yield Move("feed", pocket.diameter_mm, top)
    yield Move("feed", wall(at_groove), at_groove, "wall")
    # Into the groove at 45 degrees, so that an ordinary boring edge can follow.
    yield Move("feed", bottom, at_groove - (abs(bottom - wall(at_groove)) / 2), "groove")
    yield Move("feed", bottom, floor)
    yield Move("feed", b.floor_to_mm, floor, "floor")
    yield Move("rapid", b.floor_to_mm, top + CLEAR_MM)


def moves_of(b: Boring) -> tuple[Move, ...]:
    """Every move, from in front of the jaws and back there."""
    moves = [Move("rapid", b.start_mm, AWAY_MM, "approach")]
    top = 0.0
    for number, pocket in enumerate(b.pockets, 1):
        cut = [*_rough(b, pocket, top), *_finish(b, pocket, top)]
        name = f"pocket {number}, " if len(b.pockets) > 1 else ""
        moves += [m._replace(note=name + m.note) if m.note else m for m in cut]
        moves.append(Move("rapid", b.start_mm, CLEAR_MM))
        top -= pocket.depth_mm
    return (*moves, Move("rapid", b.start_mm, AWAY_MM, "retreat"))


@dataclass(frozen=True)
class Dialect:
    """What differs between controls: words as the control takes them, and which way the spindle turns."""

    program_word: str
    number: int
    feed_word: str
    clamp_word: str
    end_word: str
    spindle_word: str


def _number(value: float, system: System) -> str:
    shown = shown_as("mm", system)
    text = f"{from_core(value, 'mm', shown):.{3 if system == 'metric' else 4}f}"
    return "0.000"[: len(text)] if float(text) == 0 else text


def _comment(text: str) -> str:
    """Words as a control takes them: capitals, plain letters, no brackets within."""
    plain = text.upper().replace("(", " ").replace(")", " ")
    for special, word in (
        ("Ø", "DIA "),
        ("×", "X"),
        ("–", "-"),
        ("—", "-"),
        ("−", "-"),
        ("°", " DEG"),
        ("µ", "U"),
        ("·", ","),
        ("\u202f", ""),
        ("\xa0", " "),
        ("’", "'"),
        ("“", ""),
        ("”", ""),
    ):
        plain = plain.replace(special, word)
    plain = " ".join(plain.split())
    return f"({plain.encode('ascii', 'replace').decode()})"


def program_text(b: Boring, dialect: Dialect, header: Sequence[str], system: System) -> str:
    """The program in ISO 6983 words; `header` stands before it as comments, in the units of `system`."""
    unit = "mm" if system == "metric" else "inch"
    feed = from_core(b.feed_mm_rev, "mm/rev", shown_as("mm/rev", system))
    lines = [f"{dialect.program_word}{dialect.number}"]
    lines += [_comment(h) for h in header]
    lines += [
        _comment(f"units {unit}: set the control to {unit} before"),
        _comment("x is a diameter; z0 is the face of the jaws, minus is inside them"),
        _comment("programmed point: the imaginary sharp tip; no radius compensation"),
        _comment("call your boring tool and its offset here, then run block by block"),
        "G90",
        f"{dialect.clamp_word} S{math.floor(b.limit_rpm + 1e-9)}",
        f"G97 S{b.rpm:.0f} {dialect.spindle_word}",
        f"{dialect.feed_word}",
    ]
    fed = False
    first, *rest = moves_of(b)
    # Out of the way along Z first, then across: wherever the tool was called.
    lines += [f"G00 Z{_number(first.z_mm, system)} {_comment(first.note)}", f"G00 X{_number(first.x_mm, system)}"]
    for m in rest:
        word = "G00" if m.kind == "rapid" else "G01"
        line = f"{word} X{_number(m.x_mm, system)} Z{_number(m.z_mm, system)}"
        if m.kind == "feed" and not fed:
            line += f" F{feed:.3f}" if system == "metric" else f" F{feed:.4f}"
            fed = True
        lines.append(line + (f" {_comment(m.note)}" if m.note else ""))
    lines += ["M05", dialect.end_word]
    return "\n".join(lines) + "\n"


@dataclass(frozen=True)
class JawProgram:
    """What would be cut, None where the jaws have no figures; `reasons` keep it from being written."""

    boring: Boring | None
    reasons: tuple[Sentence, ...]

    @property
    def ready(self) -> bool:
        """It can be written."""
        return self.boring is not None and not self.reasons

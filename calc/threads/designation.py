"""What a thread is called, read: metric ISO (M24x1.5-6g) and unified (3/4-16 UNF-2A)."""

from __future__ import annotations

import re
from dataclasses import dataclass
from typing import Literal

# ISO 261 coarse pitches [mm] by major diameter [mm].
COARSE = {
    1.6: 0.35,
    2: 0.4,
    2.5: 0.45,
    3: 0.5,
    3.5: 0.6,
    4: 0.7,
    5: 0.8,
    6: 1,
    7: 1,
    8: 1.25,
    10: 1.5,
    12: 1.75,
    14: 2,
    16: 2,
    18: 2.5,
    20: 2.5,
    22: 2.5,
    24: 3,
    27: 3,
    30: 3.5,
    33: 3.5,
    36: 4,
    39: 4,
    42: 4.5,
    45: 4.5,
    48: 5,
    52: 5,
    56: 5.5,
    60: 5.5,
    64: 6,
}
INCH = 25.4
_METRIC = re.compile(
    r"M\s?(\d+(?:\.\d+)?)(?:\s?[x×](\d+(?:\.\d+)?))?(?:[\s-]+(\d[a-hA-H](?:\d[a-hA-H])?))?(?:[\s-]*(LH))?", re.ASCII
)
_UNIFIED = re.compile(
    r"(?:(\d+)[\s-])?(?:(\d+)/(\d+)|#(\d+)|(\d*\.\d+|\d+))-(\d+(?:\.\d+)?)\s?"
    r"(UN[CFRJ]?[CF]?|UNEF|UNS)(?:[\s-]*([123][AB]))?(?:[\s-]*(LH))?",
    re.ASCII,
)


Hand = Literal["right", "left"]


@dataclass(frozen=True)
class Designation:
    """A thread's name in one spelling, its form, its major diameter and pitch [mm]."""

    text: str
    form: Literal["iso", "un"]
    major_mm: float
    pitch_mm: float
    grade: str = ""  # the class, 6g or 2A, where one is named
    hand: Hand = "right"


def designation(text: str) -> Designation | None:
    """The thread a text names, None where it names none (or a coarse metric thread without a known pitch).

    >>> designation("M24x1.5 6g")
    Designation(text='M24x1.5-6g', form='iso', major_mm=24.0, pitch_mm=1.5, grade='6g', hand='right')
    >>> designation("3/4-16 UNF-2A")
    Designation(text='3/4-16 UNF-2A', form='un', major_mm=19.05, pitch_mm=1.5875, grade='2A', hand='right')
    """
    said = " ".join(text.split())
    found = _METRIC.fullmatch(said)
    if found:
        major = float(found[1])
        pitch = float(found[2]) if found[2] else COARSE.get(major)
        if pitch is None or not 0 < pitch < major:
            return None
        name = f"M{found[1]}" + (f"x{found[2]}" if found[2] else "")
        return Designation(_joined(name, found[3], found[4]), "iso", major, pitch, found[3] or "", _hand(found[4]))
    found = _UNIFIED.fullmatch(said)
    if not found:
        return None
    whole, top, bottom, gauge, decimal, per_inch, series, grade, hand = found.groups()
    if gauge:
        size, written = 0.060 + 0.013 * int(gauge), f"#{gauge}"
    elif decimal:
        size, written = float(decimal), decimal
    else:
        if int(bottom) == 0:
            return None
        size, written = int(whole or 0) + int(top) / int(bottom), (f"{whole} " if whole else "") + f"{top}/{bottom}"
    if float(per_inch) <= 0:
        return None
    pitch = INCH / float(per_inch)
    if not pitch < size * INCH:
        return None
    return Designation(
        _joined(f"{written}-{per_inch} {series}", grade, hand),
        "un",
        round(size * INCH, 6),
        pitch,
        grade or "",
        _hand(hand),
    )


def _hand(said: str | None) -> Hand:
    return "left" if said else "right"


def _joined(*parts: str | None) -> str:
    return "-".join(p for p in parts if p)

"""What an edge's finish came to at the machine against the theory, by material, as it stands on the edge's page."""

from __future__ import annotations

import re
from collections.abc import Iterator
from dataclasses import dataclass

from calc.errors import FieldError
from calc.quantities import Sentence

LEAST, MOST = 0.3, 5.0  # of the theory: beyond, something else leaves the surface
COUNTED = 9  # readings before the newest that are counted beside it: an edge's grade and a machine change slowly
ONE = re.compile(r"(?P<material>[a-z0-9][a-z0-9-]*) (?P<ratio>\d+(\.\d+)?)( of (?P<readings>\d{1,6}))?")


@dataclass(frozen=True)
class FinishSeen:
    """Measured Ra over the theory's, the mean of so many readings, in the material of this key."""

    material: str
    ratio: float
    readings: int = 1

    def __str__(self) -> str:
        return f"{self.material} {self.ratio:.4g} of {self.readings}"


def finish_seen(text: str) -> dict[str, FinishSeen]:
    """What was seen, by the material's key. What cannot be read is left out (`finish_problems` tells it).

    >>> finish_seen("c45 1.2 of 3; duplex-1-4462 0.9")["c45"].ratio
    1.2
    """
    found = (ONE.fullmatch(part.strip()) for part in text.split(";"))
    seen = (FinishSeen(m["material"], float(m["ratio"]), int(m["readings"] or 1)) for m in found if m)
    return {one.material: one for one in seen if LEAST <= one.ratio <= MOST}


def finish_problems(text: str) -> Iterator[FieldError]:
    """What cannot be read of it."""
    for part in filter(None, (p.strip() for p in text.split(";"))):
        if not finish_seen(part):
            words = (
                "“{p}” cannot be read. Write the material's key, a ratio from {a} to {b} and of how many readings, "
                "such as c45 1.2 of 3."
            )
            yield FieldError("finish", Sentence(words, p=part[:40], a=f"{LEAST:g}", b=f"{MOST:g}"))


def finish_learnt(text: str, material: str, ratio: float) -> str:
    """The same with one more reading; one out of its range is none of the edge's and changes nothing.

    >>> finish_learnt("c45 1.2 of 3", "c45", 1.6)
    'c45 1.3 of 4'
    """
    if not LEAST <= ratio <= MOST:
        return text
    seen = finish_seen(text)
    before = seen.get(material)
    beside = min(before.readings, COUNTED) if before else 0
    mean = ((before.ratio * beside if before else 0.0) + ratio) / (beside + 1)
    seen[material] = FinishSeen(material, mean, (before.readings if before else 0) + 1)
    return "; ".join(str(one) for one in seen.values())

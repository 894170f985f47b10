"""What every item of the shelf is known by."""

from __future__ import annotations

from dataclasses import dataclass
from typing import Annotated

from calc.fields import Checked, Text

Key = Annotated[str, Text("Key", "Stable short name", most=60)]
Name = Annotated[str, Text("Name", "What the shop calls it", most=80, where="Your own word for it")]


@dataclass(frozen=True)
class Item(Checked):
    """Anything on the shelf."""

    key: Key
    name: Name

    # Figures are looked up by what they rest on many times a keystroke, and the key tells items apart well
    # enough for that. A dataclass makes a hash of all fields unless its own body names this one.
    def __hash__(self) -> int:
        return hash(self.key)

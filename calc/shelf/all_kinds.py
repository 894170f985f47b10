"""The kinds of things on the shelf, in the order it shows them: everything else reads this list."""

from __future__ import annotations

from typing import Any

from calc.item_kind import ItemKind
from calc.shelf.chuck import CHUCK
from calc.shelf.collet import COLLET
from calc.shelf.jaw_blank import JAW_BLANK
from calc.shelf.jaw_set import JAW_SET
from calc.shelf.machine import MACHINE
from calc.shelf.material import MATERIAL
from calc.shelf.plug import PLUG
from calc.shelf.ring import RING
from calc.tools.all_kinds import TOOL_KINDS

_ALL: tuple[ItemKind[Any], ...] = (
    MACHINE,
    CHUCK,
    COLLET,
    JAW_BLANK,
    JAW_SET,
    RING,
    PLUG,
    *TOOL_KINDS.values(),
    MATERIAL,
)
KINDS: dict[str, ItemKind[Any]] = {kind.name: kind for kind in _ALL}

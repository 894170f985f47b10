"""The kinds of tool, in the order a shelf shows them: the one list behind shelf, library, files and screens."""

from __future__ import annotations

from typing import Any

from calc.item_kind import ItemKind
from calc.tools.kinds.blade import BLADE
from calc.tools.kinds.drill import DRILL
from calc.tools.kinds.groove_insert import GROOVE_INSERT
from calc.tools.kinds.holder import HOLDER
from calc.tools.kinds.insert import INSERT
from calc.tools.kinds.thread_insert import THREAD_INSERT

TOOL_KINDS: dict[str, ItemKind[Any]] = {
    kind.name: kind for kind in (INSERT, GROOVE_INSERT, THREAD_INSERT, HOLDER, DRILL, BLADE)
}

"""The order of the tests: what takes long begins first, so that no process has it left over at the end."""

from __future__ import annotations

import pytest

FIRST = ("commands/", "e2e/")


@pytest.hookimpl(trylast=True)
def pytest_collection_modifyitems(items: list[pytest.Item]) -> None:
    """Tests of the commands and the journeys first, each group in its own order."""
    items.sort(key=lambda item: next((i for i, start in enumerate(FIRST) if item.nodeid.startswith(start)), len(FIRST)))

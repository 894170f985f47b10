"""What holds for all tests: their order, and what processes that run them beside each other share."""

from __future__ import annotations

from collections.abc import Iterator

import pytest

FIRST = ("commands/", "e2e/")  # what takes long begins first, so that no process has it left over at the end


@pytest.hookimpl(trylast=True)
def pytest_collection_modifyitems(items: list[pytest.Item]) -> None:
    """Tests of the commands and the journeys first, each group in its own order."""
    items.sort(key=lambda item: next((i for i, start in enumerate(FIRST) if item.nodeid.startswith(start)), len(FIRST)))


@pytest.fixture(scope="session", autouse=True)
def _tables_are_emptied_by_their_rows() -> Iterator[None]:
    """Between tests the tables hold little: taking the rows out takes a fifth of the time that new tables do."""
    from django.db.backends.postgresql.operations import DatabaseOperations

    def deleting(self: DatabaseOperations, style: object, tables: list[str], **_: bool) -> list[str]:
        return [f"DELETE FROM {self.quote_name(table)}" for table in tables]  # noqa: S608 # names of Django's models

    with pytest.MonkeyPatch.context() as patch:
        patch.setattr(DatabaseOperations, "sql_flush", deleting)
        yield


@pytest.fixture(scope="session", autouse=True)
def _demo_is_begun_once(tmp_path_factory: pytest.TempPathFactory, request: pytest.FixtureRequest) -> None:
    """Processes beside each other begin the demo once: it takes each of them seconds."""
    if hasattr(request.config, "workerinput"):
        from server import kept_demo

        kept_demo.shared = tmp_path_factory.getbasetemp().parent

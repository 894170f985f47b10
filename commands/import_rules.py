"""Rules of imports that allow what is named and nothing else, for import-linter."""

from __future__ import annotations

import sys
from collections.abc import Iterator
from typing import Any

from grimp import ImportGraph
from importlinter import Contract, ContractCheck, fields, output

TESTS = ("tests", "conftest")


def _below(graph: ImportGraph, package: str) -> Iterator[tuple[str, str]]:
    """(importer, imported) of every import made in a package, its tests left out."""
    for module in sorted({package, *graph.find_descendants(package)}):
        if not any(part in TESTS for part in module.split(".")):
            for imported in sorted(graph.find_modules_directly_imported_by(module)):
                yield module, imported


def _words(given: Any) -> list[str]:
    """A list that was given, which the library hands out under the field's own type."""
    return [str(word) for word in given]


class _Allowing(Contract):
    """What is told of the imports that are not allowed."""

    def render_broken_contract(self, check: ContractCheck) -> None:
        for line in check.metadata["wrong"]:
            output.print_error(line)


class Libraries(_Allowing):
    """A package imports itself, Python's own modules and the libraries that are named."""

    package = fields.StringField()
    allowed = fields.ListField(subfield=fields.StringField())

    def check(self, graph: ImportGraph, verbose: bool) -> ContractCheck:  # noqa: ARG002 - as the library asks
        known = {str(self.package), *_words(self.allowed), *sys.stdlib_module_names}
        wrong = [f"{a} imports {b}" for a, b in _below(graph, str(self.package)) if b.split(".")[0] not in known]
        return ContractCheck(kept=not wrong, metadata={"wrong": wrong})


class Doors(_Allowing):
    """Packages side by side import each other's named modules only."""

    package = fields.StringField()
    doors = fields.ListField(subfield=fields.StringField())

    def check(self, graph: ImportGraph, verbose: bool) -> ContractCheck:  # noqa: ARG002 - as the library asks
        root = str(self.package)
        deep, doors = len(root.split(".")), _words(self.doors)
        wrong = []
        for importer, imported in _below(graph, root):
            mine, theirs = importer.split("."), imported.split(".")
            if not imported.startswith(f"{root}.") or mine[: deep + 1] == theirs[: deep + 1]:
                continue
            if len(theirs) < deep + 2 or theirs[deep + 1] not in doors:
                wrong.append(f"{importer} imports {imported}")
        return ContractCheck(kept=not wrong, metadata={"wrong": wrong})

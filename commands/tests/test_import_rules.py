"""Each rule of imports is broken in a copy, and the check sees it."""

from __future__ import annotations

import os
import shutil
import subprocess
from collections.abc import Iterator
from pathlib import Path

import pytest

from commands.places import ROOT

LINT = ROOT / ".venv" / "bin" / "lint-imports"
COPIED = ("calc", "server", "commands", "devices")
LEFT_OUT = shutil.ignore_patterns("__pycache__", "static", "tests", "*.json")

# (module that imports, what it imports and must not)
BREAKS = [
    ("server/apps/notebook/queries.py", "server.apps.runs.models"),
    ("server/apps/gauge/queries.py", "server.apps.shelf.models"),
    ("server/apps/house/api.py", "server.apps.runs.models"),
    ("server/apps/house/api.py", "server.apps.house.models"),
    ("server/apps/runs/api.py", "server.apps.runs.models"),
    ("server/apps/runs/queries/find.py", "server.apps.runs.actions.undo"),
    ("server/apps/runs/convert/rows.py", "server.apps.runs.queries.find"),
    ("server/apps/shelf/convert.py", "server.apps.shelf.queries.item"),
    ("server/apps/notebook/models.py", "server.apps.notebook.queries"),
    ("server/apps/gauge/models.py", "calc.chuck.fit"),
    ("server/apps/gauge/known.py", "server.apps.gauge.actions.runs"),
    ("server/apps/runs/migrations/0004_documents_of_version_2.py", "calc.plan.document"),
    ("server/foundation/queries.py", "server.apps.runs.models"),
    ("calc/plan/solve.py", "calc.settle.setup"),
    ("calc/plan/solve.py", "calc.said.plan"),
    ("calc/chuck/grip.py", "calc.plan.document"),
    ("calc/profile/steps.py", "calc.scene.shapes"),
    ("calc/tools/choose.py", "calc.shelf.taken"),
    ("calc/errors.py", "calc.rules"),
    ("calc/reading.py", "requests"),
    ("calc/quantities.py", "django"),
    ("calc/catalog.py", "server.foundation.roles"),
]


@pytest.fixture(scope="module")
def copy(tmp_path_factory: pytest.TempPathFactory) -> Path:
    place = tmp_path_factory.mktemp("copy")
    for name in COPIED:
        shutil.copytree(ROOT / name, place / name, ignore=LEFT_OUT)
    shutil.copy(ROOT / "pyproject.toml", place)
    return place


@pytest.fixture
def broken(copy: Path, request: pytest.FixtureRequest) -> Iterator[Path]:
    module, imported = request.param
    file = copy / module
    before = file.read_text()
    file.write_text(f"{before}\n\nimport {imported}  # noqa\n")
    yield copy
    file.write_text(before)


def lint(place: Path) -> subprocess.CompletedProcess[str]:
    env = os.environ | {"PYTHONPATH": str(place)}
    return subprocess.run([LINT, "--no-cache"], cwd=place, env=env, capture_output=True, text=True, check=False)


def test_the_copy_itself_keeps_every_rule(copy: Path) -> None:
    found = lint(copy)
    assert found.returncode == 0, found.stdout


@pytest.mark.parametrize("broken", BREAKS, indirect=True, ids=[f"{a} imports {b}" for a, b in BREAKS])
def test_a_rule_that_is_broken_is_seen(broken: Path) -> None:
    found = lint(broken)
    assert found.returncode == 1
    assert "BROKEN" in found.stdout

"""Where things are, and running programs."""

from __future__ import annotations

import hashlib
import os
import subprocess
import sys
from collections.abc import Iterable
from pathlib import Path

ROOT = Path(__file__).resolve().parent.parent
DATA = ROOT / ".data"
VENV = ROOT / ".venv"
PYTHON = VENV / "bin" / "python"
WEB = ROOT / "web"
STAMPS = DATA / "stamps"
# Compiled once and kept out of the tree: each of the programs below starts in a third of the time.
COMPILED = DATA / "compiled"


class Stop(SystemExit):
    """End with a sentence for the person at the terminal."""

    def __init__(self, sentence: str) -> None:
        print(sentence, file=sys.stderr)
        super().__init__(1)


def say(sentence: str) -> None:
    """A line for the person at the terminal."""
    print(sentence, flush=True)


def run(command: list[str | Path], *, cwd: Path = ROOT, env: dict[str, str] | None = None, quiet: bool = False) -> None:
    """Run a program to its end; stop with its output where it fails."""
    done = subprocess.run(
        [str(c) for c in command],
        cwd=cwd,
        env=env,
        text=True,
        check=False,
        stdout=subprocess.PIPE if quiet else None,
        stderr=subprocess.STDOUT if quiet else None,
    )
    if done.returncode:
        if quiet:
            print(done.stdout, file=sys.stderr)
        raise Stop(f"This failed: {' '.join(str(c) for c in command)}")


def digest(paths: Iterable[Path], extra: str = "") -> str:
    """A hash of files' names and contents; folders are walked."""
    found: list[Path] = []
    for path in paths:
        found += sorted(p for p in path.rglob("*") if p.is_file()) if path.is_dir() else [path] if path.exists() else []
    whole = hashlib.sha256(extra.encode())
    for path in found:
        whole.update(str(path.relative_to(ROOT)).encode() + b"\0" + hashlib.sha256(path.read_bytes()).digest())
    return whole.hexdigest()


def is_fresh(name: str, stamp: str) -> bool:
    """Whether the step `name` was last done for this stamp."""
    file = STAMPS / name
    return file.exists() and file.read_text() == stamp


def mark_fresh(name: str, stamp: str) -> None:
    """Remember what the step `name` was done for."""
    STAMPS.mkdir(parents=True, exist_ok=True)
    (STAMPS / name).write_text(stamp)


def environment(**more: str) -> dict[str, str]:
    """The environment for the application's own programs."""
    return {
        **os.environ,
        "PYTHONPATH": str(ROOT),
        "DJANGO_SETTINGS_MODULE": "server.config.settings",
        "PYTHONPYCACHEPREFIX": str(COMPILED),
        "PYTHONDONTWRITEBYTECODE": "",  # wherever a machine asks for it: the folder above is no part of the tree
        **more,
    }

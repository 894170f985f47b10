"""Where things are, and running programs."""

from __future__ import annotations

import hashlib
import os
import secrets
import subprocess
import sys
from collections.abc import Iterable
from pathlib import Path

ROOT = Path(__file__).resolve().parent.parent
HERE = ROOT / ".data"
DATA = Path(os.environ.get("NOBLE_ANVIL_DATA") or HERE)  # a shop's own: its database, its secrets
VENV = ROOT / ".venv"
PYTHON = VENV / "bin" / "python"
WEB = ROOT / "web"
STAMPS = HERE / "stamps"
# Compiled once and kept out of the tree: each of the programs below starts in a third of the time.
COMPILED = HERE / "compiled"


class Stop(SystemExit):
    """End with a sentence for the person at the terminal."""

    def __init__(self, sentence: str) -> None:
        print(sentence, file=sys.stderr)
        super().__init__(1)


def say(sentence: str) -> None:
    """A line for the person at the terminal."""
    print(sentence, flush=True)


def closed(folder: Path) -> Path:
    """A folder that only its owner looks into; made where it is not there."""
    folder.mkdir(parents=True, exist_ok=True, mode=0o700)
    folder.chmod(0o700)
    return folder


def open_data() -> None:
    """The data's folder, passable so that PostgreSQL's own user comes to its part; each folder below is closed."""
    for folder in (HERE, DATA):
        folder.mkdir(exist_ok=True, parents=True)
        folder.chmod(0o711)
    for folder in (DATA / "secrets", STAMPS, COMPILED):
        closed(folder)


def kept(file: Path, text: str) -> None:
    """Write a file that only its owner reads, whole or not at all."""
    part = file.with_name(f"{file.name}.part")
    part.unlink(missing_ok=True)
    with os.fdopen(os.open(part, os.O_WRONLY | os.O_CREAT | os.O_EXCL, 0o600), "w") as out:
        out.write(text)
        out.flush()
        os.fsync(out.fileno())
    part.replace(file)


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
        # A tool that needs none of its own signs with one that nobody knows.
        "NOBLE_ANVIL_SECRET_KEY": secrets.token_urlsafe(50),
        "PYTHONPATH": str(ROOT),
        "DJANGO_SETTINGS_MODULE": "server.config.settings",
        "PYTHONPYCACHEPREFIX": str(COMPILED),
        "PYTHONDONTWRITEBYTECODE": "",  # wherever a machine asks for it: the folder above is no part of the tree
        **more,
    }

"""Set up what is missing or out of date, and nothing else."""

from __future__ import annotations

import ctypes.util
import importlib.util
import os
import re
import shutil
import subprocess
import sys
from pathlib import Path

from commands.browser import CHROMIUM, HEADLESS
from commands.places import (
    PYTHON,
    ROOT,
    VENV,
    WEB,
    Stop,
    digest,
    environment,
    is_fresh,
    mark_fresh,
    open_data,
    run,
    say,
)

# What puts text on paper: library -> Debian's package.
DRAWING = {"pango-1.0": "libpango-1.0-0", "pangoft2-1.0": "libpangoft2-1.0-0", "harfbuzz-subset": "libharfbuzz-subset0"}
WEB_SOURCES = (
    "src",
    "public",
    "index.html",
    "vite.config.ts",
    "vite.keeper.config.ts",
    "tsconfig.json",
    "package.json",
)


def postgres_programs() -> Path | None:
    """The folder with initdb and pg_ctl, the newest version there is."""
    found = sorted(Path("/usr/lib/postgresql").glob("*/bin/initdb"), key=lambda p: int(p.parts[4]))
    return found[-1].parent if found else None


def ensure_debian(browser: bool) -> None:
    """Install Debian's packages when root, else say which line would."""
    missing = []
    if postgres_programs() is None:
        missing.append("postgresql")
    # What draws text into a PDF.
    missing += [package for library, package in DRAWING.items() if ctypes.util.find_library(library) is None]
    if importlib.util.find_spec("ensurepip") is None:
        missing.append("python3-venv")
    if browser and shutil.which("pdftoppm") is None:  # a card on paper, as a picture
        missing.append("poppler-utils")
    is_root = os.geteuid() == 0
    if browser and not HEADLESS.exists() and (is_root or not CHROMIUM.exists()):
        missing += [HEADLESS.name, "fonts-dejavu-core"]
    if not missing:
        return
    if not is_root:
        line = f"sudo apt-get update && sudo apt-get install -y --no-install-recommends {' '.join(missing)}"
        raise Stop(f"Some Debian packages are missing. Run this line, then start again:\n\n    {line}\n")
    say(f"Installing from Debian: {', '.join(missing)} …")
    quiet = environment(DEBIAN_FRONTEND="noninteractive")
    run(["apt-get", "update", "-qq"], quiet=True, env=quiet)
    install: list[str | Path] = ["apt-get", "install", "-y", "-qq", "--no-install-recommends"]
    try:
        run([*install, *missing], quiet=True, env=quiet)
    except Stop:
        if HEADLESS.name not in missing:
            raise
        # Older releases have it only as a whole.
        run([*install, *(CHROMIUM.name if m == HEADLESS.name else m for m in missing)], quiet=True, env=quiet)


def ensure_python() -> None:
    """The virtual environment, exactly as the lock file says."""
    lock = ROOT / "requirements.txt"
    stamp = digest([lock], sys.version)
    if is_fresh("python", stamp) and PYTHON.exists():
        return
    say("Setting up Python packages …")
    if not PYTHON.exists():
        run([sys.executable, "-m", "venv", VENV], quiet=True)
    version = re.search(r"^uv==(\S+)", lock.read_text(), re.MULTILINE)
    assert version is not None, "uv is in the lock file"
    run([PYTHON, "-m", "pip", "install", "-q", "--disable-pip-version-check", f"uv=={version[1]}"], quiet=True)
    run([VENV / "bin" / "uv", "pip", "sync", "-q", "--python", PYTHON, "--require-hashes", lock], quiet=True)
    mark_fresh("python", stamp)


def _node_version() -> str:
    node = shutil.which("node")
    version = (
        subprocess.run([node, "--version"], capture_output=True, text=True, check=False).stdout.strip() if node else ""
    )
    if not version or int(version.lstrip("v").split(".")[0]) < 20 or not shutil.which("npm"):
        raise Stop("Node 20 or newer with npm is needed to build the screens. Install it, then start again.")
    return version


def ensure_web_packages() -> None:
    """node_modules, exactly as the lock file says."""
    stamp = digest([WEB / "package-lock.json"], _node_version())
    if is_fresh("npm", stamp) and (WEB / "node_modules").exists():
        return
    say("Setting up the screens' packages …")
    run(["npm", "ci", "--ignore-scripts", "--no-audit", "--no-fund", "--loglevel=error"], cwd=WEB, quiet=True)
    mark_fresh("npm", stamp)


def ensure_fonts() -> None:
    """Fonts cut down to the glyphs that the screens use."""
    stamp = digest([ROOT / "commands" / "fonts.py", WEB / "package-lock.json"])
    if is_fresh("fonts", stamp) and (WEB / "src" / "app" / "fonts").exists():
        return
    run([PYTHON, "-m", "commands.fonts"], env=environment())
    mark_fresh("fonts", stamp)


def ensure_build() -> None:
    """The production build and its collected static files."""
    found = [p for name in WEB_SOURCES for p in ((WEB / name).rglob("*") if (WEB / name).is_dir() else [WEB / name])]
    # Tests are not built, so a change of theirs builds nothing.
    sources = sorted(p for p in found if p.is_file() and ".test." not in p.name and p.parent.name != "tests")
    stamp = digest(sources, digest([WEB / "package-lock.json"]))
    if is_fresh("build", stamp) and (WEB / "dist" / ".vite" / "manifest.json").exists():
        return
    say("Building the screens …")
    run(["npm", "run", "--silent", "build"], cwd=WEB, quiet=True)
    shutil.rmtree(ROOT / "server" / "static", ignore_errors=True)
    # Not the API library's own pages: nobody serves them, and packing them takes half a minute.
    collect: list[str | Path] = [PYTHON, "-m", "django", "collectstatic", "--noinput", "-i", "ninja", "-v", "0"]
    run(collect, env=environment(), quiet=True)
    mark_fresh("build", stamp)


def ensure(*, browser: bool = False) -> None:
    """Everything that the application needs to run; with `browser`, what its tests need too."""
    open_data()
    ensure_debian(browser)
    ensure_python()
    ensure_web_packages()
    ensure_fonts()
    ensure_build()

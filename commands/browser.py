"""The browser that drives the screens, in tests and tools: Debian's Chromium."""

from __future__ import annotations

import os
from pathlib import Path

# Without its windows it takes a third of the processor's time; the whole of it does where that is what there is.
HEADLESS, CHROMIUM = Path("/usr/bin/chromium-headless-shell"), Path("/usr/bin/chromium")
FLAGS = (
    "--disable-gpu",
    "--disable-quic",
    "--no-first-run",
    "--disable-background-networking",
    "--disable-component-update",
    "--disable-sync",
)


def launching() -> dict[str, object]:
    """How Playwright launches it; without its sandbox only where root makes that necessary."""
    root = ["--no-sandbox"] if os.geteuid() == 0 else []
    return {"executable_path": str(HEADLESS if HEADLESS.exists() else CHROMIUM), "args": [*FLAGS, *root]}

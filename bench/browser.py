"""Debian's Chromium for the tools."""

from __future__ import annotations

import os
from collections.abc import Iterator
from contextlib import contextmanager

from playwright.sync_api import Page, sync_playwright

FLAGS = [
    "--disable-gpu",
    "--disable-quic",
    "--no-first-run",
    "--disable-background-networking",
    "--disable-component-update",
    "--disable-sync",
]


@contextmanager
def browser_page(width: int = 1280, height: int = 800) -> Iterator[Page]:
    """A page in a fresh browser."""
    flags = [*FLAGS, "--no-sandbox"] if os.geteuid() == 0 else FLAGS
    with sync_playwright() as play:
        browser = play.chromium.launch(executable_path="/usr/bin/chromium", args=flags)
        page = browser.new_page(viewport={"width": width, "height": height}, reduced_motion="reduce")
        yield page
        browser.close()

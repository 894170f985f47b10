"""Debian's Chromium for the tools."""

from __future__ import annotations

from collections.abc import Iterator
from contextlib import contextmanager

from playwright.sync_api import Page, sync_playwright

from commands.browser import launching


@contextmanager
def browser_page(width: int = 1280, height: int = 800) -> Iterator[Page]:
    """A page in a fresh browser."""
    with sync_playwright() as play:
        browser = play.chromium.launch(**launching())
        page = browser.new_page(viewport={"width": width, "height": height}, reduced_motion="reduce")
        yield page
        browser.close()

"""The pictures in docs/screenshots, taken from the demo: `./anvil shots`."""

from __future__ import annotations

import os

from playwright.sync_api import Page

from bench.browser import browser_page
from commands.places import ROOT, say

FOLDER = ROOT / "docs" / "screenshots"
URL = os.environ["NOBLE_ANVIL_URL"]


def _open(page: Page, path: str) -> None:
    page.goto(URL + path)
    page.wait_for_load_state("networkidle")
    page.evaluate("document.fonts.ready")
    page.wait_for_timeout(300)


def _runs(page: Page) -> dict[str, str]:
    _open(page, "/")
    links = page.get_by_role("link").all()
    return {link.inner_text().split("\n")[0]: link.get_attribute("href") or "" for link in links}


def _keep(page: Page, name: str) -> None:
    page.screenshot(path=FOLDER / f"{name}.png")
    say(f"docs/screenshots/{name}.png")


def main() -> None:
    with browser_page() as page:
        runs = _runs(page)
        carrier, plug = (runs[name].removesuffix("/part") for name in ("Seal carrier", "Vent plug"))
        _keep(page, "bench")
        for stop in ("part", "hold", "jaws", "force", "cuts"):
            _open(page, f"{carrier}/{stop}")
            _keep(page, f"plan-{stop}")
        _open(page, f"{carrier}/force")
        page.keyboard.press("w")
        page.wait_for_timeout(200)
        _keep(page, "plan-working")
        _open(page, f"{plug}/cuts")
        _keep(page, "plan-inch")
        _open(page, f"{carrier}/force")
        page.get_by_role("textbox", name="Own speed limit, rpm").fill("400")
        page.wait_for_timeout(700)
        _keep(page, "plan-stopped")


if __name__ == "__main__":
    main()

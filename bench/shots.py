"""The pictures in docs/screenshots, taken from the demo: `./anvil shots`."""

from __future__ import annotations

import os
import uuid

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
    links = page.locator("main").get_by_role("link").all()
    return {link.inner_text(): link.get_attribute("href") or "" for link in links}


MADE_UP = [
    ("Pump shaft", "LH-3001", "lathe-3", "c45", "36.5", "180", "24"), ("Wicket gate bush", "LH-1877", "twin-2", "", "30", "42", "160"),
    ("Governor cam ring", "LH-2330", "lathe-5", "gjs-500", "148", "", ""), ("Relief valve seat", "LH-2198", "twin-2", "1-4301", "", "", "400"),
    ("Servo piston", "LH-2044", "lathe-3", "42crmo4", "62", "95", "36"), ("Thrust collar", "LH-1752", "", "", "110", "24", "12"),
]  # fmt: skip


def _fill_bench(page: Page) -> None:
    """More made-up runs, as far as their shop got with them, and one that is stopped."""
    for name, number, machine, material, diameter, length, quantity in MADE_UP:
        given = {"name": name, "drawing_number": number, "machine": machine or None, "material": material or None,
                 "diameter": diameter, "length": length, "quantity": quantity}  # fmt: skip
        page.evaluate(SEND, ["/api/runs", given])
    runs = _runs(page)
    servo = runs["Servo piston"].split("/")[2]
    for path, entry in [
        ("setups.0.jaw_blank", {"value": "l3-steel-50"}), ("setups.0.hold.depth_mm", {"text": "45"}),
    ]:  # fmt: skip
        page.evaluate(
            SEND, [f"/api/runs/{servo}/edits", {"path": path, "base_revision": 0, "key": str(uuid.uuid4())} | entry]
        )


def _make_history(page: Page, run: str) -> None:
    """Some edits as a shop makes them, an undo among them."""
    for path, entry in [
        ("part.profile.outside.0.diameter_mm", {"text": "83.95"}), ("setups.0.force.pressure_bar", {"text": "27"}),
        ("setups.0.jaw_blank", {"value": "l3-aluminium-50"}), ("setups.0.force.condition", {"value": "today"}),
    ]:  # fmt: skip
        at = page.evaluate("(run) => fetch(`/api/runs/${run}/pulse`).then((r) => r.json())", run)["revision"]
        page.evaluate(
            SEND, [f"/api/runs/{run}/edits", {"path": path, "base_revision": at, "key": str(uuid.uuid4())} | entry]
        )
    page.evaluate(SEND, [f"/api/runs/{run}/undo", {"key": str(uuid.uuid4())}])


SEND = """
([path, body]) => fetch(path, {
  method: 'POST', body: JSON.stringify(body),
  headers: {'Content-Type': 'application/json', 'X-CSRFToken': document.cookie.match(/csrftoken=([^;]+)/)[1]},
}).then((r) => r.ok || r.text().then((t) => { throw new Error(t); }))
"""


def _keep(page: Page, name: str) -> None:
    page.screenshot(path=FOLDER / f"{name}.png")
    say(f"docs/screenshots/{name}.png")


def main() -> None:
    with browser_page() as page:
        runs = _runs(page)
        carrier, plug = (runs[name].removesuffix("/part") for name in ("Seal carrier", "Vent plug"))
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
        _open(page, "/shelf/chuck/lathe-3-chuck")
        _keep(page, "shelf-chuck")
        number = carrier.rsplit("/", 1)[-1]
        _make_history(page, number)
        _open(page, f"{carrier}/history")
        _keep(page, "history")
        page.evaluate("localStorage.setItem('noble-anvil-set', 'dark')")
        _open(page, f"{carrier}/jaws")
        _keep(page, "plan-dark")
        page.evaluate("localStorage.clear()")
        _fill_bench(page)
        _open(page, "/")
        _keep(page, "bench")
    with browser_page(390, 844) as page:
        _open(page, f"{carrier}/force")
        _keep(page, "plan-phone")


if __name__ == "__main__":
    main()

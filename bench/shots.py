"""The pictures in docs/screenshots, taken from the demo: `./anvil shots`."""

from __future__ import annotations

import os
import subprocess
import tempfile
import uuid
from pathlib import Path

from playwright.sync_api import Page

from bench.browser import browser_page
from calc.practice.exercise import Choice
from calc.practice.kinds import KINDS
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
    ("Pump shaft", "LH-3001", "lathe-3", "c45", "36.5", "180", "24"),
    ("Wicket gate bush", "LH-1877", "twin-2", "", "30", "42", "160"),
    ("Governor cam ring", "LH-2330", "lathe-5", "gjs-500", "148", "", ""),
    ("Relief valve seat", "LH-2198", "twin-2", "1-4301", "", "", "400"),
    ("Servo piston", "LH-2044", "lathe-3", "42crmo4", "62", "95", "36"),
    ("Thrust collar", "LH-1752", "", "", "110", "24", "12"),
]


def _fill_bench(page: Page) -> None:
    """More made-up runs, as far as their shop got with them, and one that is stopped."""
    for name, number, machine, material, diameter, length, quantity in MADE_UP:
        given = {
            "name": name,
            "drawing_number": number,
            "machine": machine or None,
            "material": material or None,
            "outside": f"{diameter} x {length}" if length else diameter,
            "quantity": quantity,
        }
        page.evaluate(SEND, ["/api/runs", given])
    runs = _runs(page)
    servo = runs["Servo piston"].split("/")[2]
    for path, entry in [("setups.s1.jaw_blank", {"value": "l3-steel-50"}), ("setups.s1.hold.depth_mm", {"text": "45"})]:
        page.evaluate(
            SEND, [f"/api/runs/{servo}/edits", {"path": path, "base_revision": 0, "key": str(uuid.uuid4())} | entry]
        )


def _edit(page: Page, run: str, path: str, entry: dict[str, str]) -> None:
    at = page.evaluate("(run) => fetch(`/api/runs/${run}/pulse`).then((r) => r.json())", run)["revision"]
    page.evaluate(
        SEND, [f"/api/runs/{run}/edits", {"path": path, "base_revision": at, "key": str(uuid.uuid4())} | entry]
    )


def _make_history(page: Page, run: str) -> None:
    """Some edits as a shop makes them, an undo among them."""
    for path, entry in [
        ("part.profile.outside.o1.diameter_mm", {"text": "83.95"}),
        ("setups.s1.force.pressure_bar", {"text": "24.5"}),
        ("setups.s1.clamp_rpm", {"text": "1400"}),
        ("setups.s1.force.condition", {"value": "today"}),
    ]:
        _edit(page, run, path, entry)
    page.evaluate(SEND, [f"/api/runs/{run}/undo", {"key": str(uuid.uuid4())}])


def _release(page: Page, run: str) -> None:
    """Release a plan, then change it: what an operator sees stands, and the draft differs from it."""
    asked = page.evaluate("(run) => fetch(`/api/runs/${run}/releases`).then((r) => r.json())", run)
    page.evaluate(
        SEND,
        [
            f"/api/runs/{run}/releases",
            {
                "base_revision": asked["revision"],
                "note": "first lot",
                "key": str(uuid.uuid4()),
                "confirmed": [c["code"] for c in asked["cautions"]],
            },
        ],
    )
    page.evaluate(
        SEND,
        [
            f"/api/runs/{run}/edits",
            {
                "path": "setups.s1.force.pressure_bar",
                "text": "26.8",
                "base_revision": asked["revision"],
                "key": str(uuid.uuid4()),
            },
        ],
    )


SEND = """
([path, body]) => fetch(path, {
  method: 'POST', body: JSON.stringify(body),
  headers: {'Content-Type': 'application/json', 'X-CSRFToken': document.cookie.match(/anvil-token-\\w+=([^;]+)/)[1]},
}).then((r) => r.ok || r.text().then((t) => { throw new Error(t); }))
"""


def _keep(page: Page, name: str) -> None:
    page.screenshot(path=FOLDER / f"{name}.png")
    say(f"docs/screenshots/{name}.png")


def _tools_and_cuts(page: Page, carrier: str) -> None:
    """The table of cuts."""
    _open(page, f"{carrier}/cuts-s1")
    page.get_by_role("button", name="Finish Spigot", exact=True).click()
    page.wait_for_timeout(500)
    _keep(page, "plan-cuts")


def _times(page: Page, bush: str) -> None:
    """What happens when on both spindles, and on which machine."""
    _open(page, f"{bush}/route")
    _keep(page, "plan-route")
    _open(page, "/board")
    _keep(page, "board")


def _at_the_machine(page: Page, carrier: str) -> None:
    """The half set carrier on a setter's tablet, and its card on paper."""
    desk = page.viewport_size
    page.set_viewport_size({"width": 1024, "height": 768})
    page.evaluate(SEND, ["/api/session/look-as", {"role": "setter"}])
    _open(page, f"{carrier}/card")
    for title, press, name in (
        ("Feeler gauge at the jaw's tip: done", "0.050", "card-step"),
        ("Measure Spigot: open", "", "card-first-off"),
    ):
        page.get_by_role("button", name=title).first.click()
        if press:
            page.get_by_role("button", name=press, exact=True).click()
        else:
            page.get_by_label("Measured").fill("84.021")
            page.get_by_label("Temperature, °C").fill("31")
        page.wait_for_timeout(900)
        _keep(page, name)
    paper = page.request.get(f"{URL}/api{carrier}/card.pdf").body()
    with tempfile.TemporaryDirectory() as folder:
        file = Path(folder) / "card.pdf"
        file.write_bytes(paper)
        drawn = ["pdftoppm", "-png", "-r", "80", "-f", "1", "-l", "1", "-singlefile", file, FOLDER / "card-paper"]
        subprocess.run(drawn, check=True)
    say("docs/screenshots/card-paper.png")
    page.evaluate(SEND, ["/api/session/look-as", {"role": "planner"}])
    page.set_viewport_size(desk or {"width": 1280, "height": 800})


def _while_it_runs(page: Page, ring: str) -> None:
    """The wear ring, half made, and what it came to."""
    desk = page.viewport_size
    page.set_viewport_size({"width": 1024, "height": 768})
    page.evaluate(SEND, ["/api/session/look-as", {"role": "setter"}])
    _open(page, f"{ring}/running")
    _keep(page, "running")
    page.get_by_role("tab", name="At its end").click()
    page.wait_for_timeout(600)
    _keep(page, "running-end")
    page.evaluate(SEND, ["/api/session/look-as", {"role": "planner"}])
    page.set_viewport_size(desk or {"width": 1280, "height": 800})


def _practised(page: Page) -> None:
    """Two exercises, one of them answered, and how far somebody is after some more."""
    for kind, seed, which in PRACTISED:
        shown = KINDS[kind].exercise(seed, 1).answer
        given = shown.options[int(which)].key if isinstance(shown, Choice) else which
        answer = {"key": str(uuid.uuid4()), "kind": kind, "seed": seed, "level": 1, "given": given, "units": "metric"}
        page.evaluate(SEND, ["/api/practice/answers", answer])
    _open(page, "/practice/read-blue?seed=6&level=1&version=1")
    page.get_by_text("Less taper.", exact=True).click()
    page.get_by_role("button", name="Answer").click()
    page.wait_for_timeout(600)
    _keep(page, "practice-blue")
    _open(page, "/practice/fault?seed=4&level=1&version=1")
    _keep(page, "practice-fault")
    _open(page, "/practice")
    _keep(page, "practice")


# Kind, seed, which of the answers, or the figure that is written: as somebody practises, not all of it right.
PRACTISED: tuple[tuple[str, int, int | str], ...] = (
    ("ring", 4, 0),
    ("ring", 5, 1),
    ("jaws-close", 1, 0),
    ("jaws-close", 2, 2),
    ("drill-first", 1, 1),
    ("grip-left", 3, "30 kN"),
    ("gauges", 2, 0),
    ("gauges", 3, 0),
    ("limits", 2, "50"),
)


def main() -> None:
    with browser_page() as page:
        runs = _runs(page)
        carrier, plug = (runs[name] for name in ("Seal carrier", "Vent plug"))
        bush = runs["Guide bush"]
        for stop in ("part", "jaws-s2", "force-s2"):
            _open(page, f"{carrier}/{stop}")
            _keep(page, f"plan-{stop.removesuffix('-s2')}")
        _tools_and_cuts(page, carrier)
        _times(page, bush)
        _at_the_machine(page, carrier)
        _while_it_runs(page, runs["Wear ring"])
        _practised(page)
        _open(page, "/calculators/drift")
        _keep(page, "calculator")
        _open(page, "/notebook")
        page.get_by_role("radio", name="everything").click()
        page.wait_for_timeout(500)
        _keep(page, "notebook")
        _make_history(page, carrier.rsplit("/", 1)[-1])
        _release(page, plug.rsplit("/", 1)[-1])
        _open(page, f"{plug}/releases")
        page.get_by_role("heading", name="Released", exact=True).scroll_into_view_if_needed()
        page.get_by_role("table").scroll_into_view_if_needed()
        page.wait_for_timeout(300)
        _keep(page, "release")
        _open(page, "/chucks/lathe-3-chuck/gauge")
        _keep(page, "gauge")
        _fill_bench(page)
        _open(page, "/")
        _keep(page, "bench")


if __name__ == "__main__":
    main()

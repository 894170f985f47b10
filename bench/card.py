"""The card at the machine: opened, kept without network, read, and made into paper."""

from __future__ import annotations

import time

from playwright.sync_api import Page

from bench.browser import browser_page
from bench.measure import URL, Client, row, times

REPEAT = 20
KEPT = """async () => {
  for (const name of await caches.keys()) {
    if (!name.startsWith('anvil-cards-of-')) continue;
    const kept = await (await caches.open(name)).keys();
    if (kept.some(r => r.url.includes('/card?'))) return navigator.serviceWorker.controller !== null;
  }
  return false;
}"""


def _opened(page: Page, path: str) -> float:
    """From going to a card to its first button [ms]."""
    page.goto("about:blank")
    start = time.perf_counter()
    page.goto(URL + path, wait_until="commit")
    page.locator("[data-hand]").first.wait_for()
    return (time.perf_counter() - start) * 1000


def _led_to(page: Page, path: str) -> float:
    """From pressing a link to a card on the bench to its first button [ms]."""
    page.goto(URL + "/")
    page.wait_for_load_state("networkidle")
    start = time.perf_counter()
    page.evaluate("to => { history.pushState({}, '', to); dispatchEvent(new PopStateEvent('popstate')) }", path)
    page.locator("[data-hand]").first.wait_for()
    return (time.perf_counter() - start) * 1000


def _in_the_browser(run: int) -> tuple[list[float], list[float], list[float]]:
    path = f"/runs/{run}/card"
    with browser_page(1024, 768) as page:
        page.goto(URL + "/")
        _opened(page, path)
        while not page.evaluate(KEPT):
            page.wait_for_timeout(50)
        there = [_opened(page, path) for _ in range(REPEAT)]
        led = [_led_to(page, path) for _ in range(REPEAT // 2)]
        page.context.set_offline(True)
        away = [_opened(page, path) for _ in range(REPEAT)]
        page.context.set_offline(False)
    return there, led, away


def _folder(client: Client, run: int) -> list[float]:
    start = time.perf_counter()
    asked = client.answered(client.question(f"/api/runs/{run}/folder", {"units": "metric"}))
    if asked["state"] != "done":
        raise RuntimeError(f"The folder was not made: {asked['told']}")
    return [(time.perf_counter() - start) * 1000]


def card(client: Client) -> None:
    """The demo's half-set card, over HTTP and in the browser."""
    run = client.run
    row("card over HTTP", times(REPEAT, lambda _: client.get(f"/api/runs/{run}/card")), "")
    look = {"release": 1, "step": "s1.pressure", "units": "metric"}
    values = [{"pressure_bar": f"{20 + i / 50:.2f}"} for i in range(60)]
    found = times(40, lambda i: client.post(f"/api/runs/{run}/card/look", look | {"values": values[i]}))
    row("reading to its consequence, the plan computed with it", found, "≤ 100 ms")
    there, led, away = _in_the_browser(run)
    client.close()  # the server ends a connection that was quiet so long; the next request opens another
    row("a card opened from the bench, to its first button", led, "≤ 300 ms")
    row("a card opened in a browser that has nothing of the application open", there, "")
    row("the same without network, from what is kept", away, "≤ 500 ms")
    row("a card as PDF", times(5, lambda _: client.fetch(f"/api/runs/{run}/card.pdf"), warm=0), "≤ 2 s")
    row("a run's folder as one PDF, by a worker", _folder(client, run), "≤ 30 s")

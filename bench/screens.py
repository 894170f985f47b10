"""The screens in the browser, timed from outside: key to pixels, a cold load, frames of a drag."""

from __future__ import annotations

import json
import time

from bench.browser import browser_page
from bench.measure import URL, Client, row

# Counts from the key press to the first frame painted after the figure changed.
WATCH = """
(label) => new Promise((resolve) => {
  const target = document.querySelector('aside');
  const field = document.querySelector(`input[aria-label="${label}"]`);
  let start = 0;
  field.addEventListener('keydown', () => { start = performance.now(); }, { once: true });
  const watcher = new MutationObserver(() => {
    watcher.disconnect();
    requestAnimationFrame(() => setTimeout(() => resolve(performance.now() - start), 0));
  });
  watcher.observe(target, { childList: true, characterData: true, subtree: true });
  setTimeout(() => resolve(5000), 5000);  // told as it is, never waited for without end
})
"""


def key_to_pixels(run: int) -> list[float]:
    """Typing a digit into the pressure until the cap on the slip has been painted anew."""
    label = "Gauge pressure, bar"
    found = []
    with browser_page() as page:
        page.goto(f"{URL}/runs/{run}/force")
        page.wait_for_load_state("networkidle")
        field = page.get_by_role("textbox", name=label)
        field.click()
        field.fill("29.1")
        page.wait_for_timeout(500)
        for i in range(60):
            page.keyboard.press("End")
            page.evaluate(f"() => {{ window.__measured = ({WATCH})({json.dumps(label)}); }}")
            page.keyboard.press("Backspace" if i % 2 else "9")
            found.append(page.evaluate("window.__measured"))  # the promise is awaited
    return found[5:]


def cold_load(run: int) -> list[float]:
    """From asking for a plan with an empty cache until its answers are painted."""
    found = []
    for _ in range(8):
        with browser_page() as page:
            page.goto("about:blank")
            start = time.perf_counter()
            page.goto(f"{URL}/runs/{run}/force", wait_until="commit")
            page.locator('[data-answer="cap"]').wait_for()
            found.append((time.perf_counter() - start) * 1000)
    return found


def live_gauge() -> tuple[float, float]:
    """(readings a second on the screen, milliseconds that the screen is behind the gauge) over five seconds of a
    run.
    """
    with browser_page() as page:
        page.goto(f"{URL}/chucks/lathe-3-chuck/gauge")
        page.get_by_role("button", name="New run").click()
        page.get_by_label("Gauge pressure, bar").fill("24")
        page.get_by_label("Gauge height, mm").fill("60")
        page.get_by_role("button", name="Read from Simulated gauge").click()
        arriving = page.get_by_role("region", name="Readings arriving").get_by_role("status")
        arriving.wait_for()

        def count() -> int:
            return int(arriving.inner_text().split(" ")[0])

        while count() < 5:
            page.wait_for_timeout(20)
        start, before = time.perf_counter(), count()
        page.wait_for_timeout(5000)
        seconds, after = time.perf_counter() - start, count()
        rate = (after - before) / seconds
        # At 20 a second, every reading that is missing is 50 ms behind.
        return rate, max(0.0, (20 * seconds - (after - before)) * 50)


# Times between painted frames while the pointer drags.
FRAMES = """
() => new Promise((resolve) => {
  const gaps = [];
  let last = performance.now();
  const end = last + 3000;
  const frame = (now) => {
    gaps.push(now - last);
    last = now;
    if (now < end) requestAnimationFrame(frame); else resolve(gaps.slice(2));
  };
  requestAnimationFrame(frame);
})
"""


def drag(client: Client) -> None:
    """Dragging the section of each side of the seal carrier, closer by two."""
    for side in (1, 2):
        with browser_page() as page:
            page.goto(f"{URL}/runs/{client.run}/jaws-{side}")
            page.wait_for_load_state("networkidle")
            page.get_by_role("button", name="Closer").click()
            page.get_by_role("button", name="Closer").click()
            box = page.get_by_role("group", name="Drawing: plus").bounding_box() or {
                "x": 0,
                "y": 0,
                "width": 100,
                "height": 100,
            }
            middle = (box["x"] + box["width"] / 2, box["y"] + box["height"] / 2)
            page.mouse.move(*middle)
            page.mouse.down()
            page.evaluate(f"() => {{ window.__frames = ({FRAMES})(); }}")
            for i in range(150):
                page.mouse.move(middle[0] + 120 * ((i % 40) / 40 - 0.5), middle[1] + 60 * ((i % 25) / 25 - 0.5))
            row(f"a frame while dragging side {side}", page.evaluate("window.__frames"), "≤ 16.7 ms")

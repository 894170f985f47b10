"""Finding things on the plan screen as a person would."""

from __future__ import annotations

import re
import uuid
from collections.abc import Callable

from playwright.sync_api import Locator, Page, expect

from server.apps.runs.actions.asked import Asked
from server.apps.runs.actions.release import release
from server.apps.runs.models import Run
from server.apps.runs.queries import releases
from server.apps.runs.queries.look import Look
from server.foundation.models import Person

# Long, so that a busy machine makes no test red: how fast things are is the bench's to tell.
PATIENCE_MS = 40_000
expect.set_options(timeout=PATIENCE_MS)


def until(app: Page, true: Callable[[], bool]) -> None:
    """Wait for what happens behind the screen: an edit shown is kept a moment later."""
    for _ in range(PATIENCE_MS // 100):
        if true():
            return
        app.wait_for_timeout(100)
    raise AssertionError("It did not come true in time.")


GO = "path => { history.pushState(null, '', path); dispatchEvent(new PopStateEvent('popstate')) }"


def go(app: Page, path: str) -> None:
    """Go to a place of the application as a link does, from a page of it: nothing is loaded anew."""
    app.evaluate(GO, path)


def open_stop(app: Page, run: Run, stop: str) -> None:
    """Open a stop of a run."""
    go(app, f"/runs/{run.pk}/{stop}")
    title = stop.partition("-")[0].capitalize()
    expect(app.get_by_role("region", name=f"Facts of {title}", exact=True)).to_be_visible()


def address(app: Page, path: str) -> str:
    """A place of the application by its path."""
    return "/".join(app.url.split("/")[:3]) + path


def released(run: Run) -> None:
    """Release the run's plan as it is, every caution confirmed: what an operator is shown."""
    by = Person.objects.get(username="owner")
    codes = [c.code for c in releases.page(run, "metric").cautions]
    release(run.pk, codes, "", Asked(by, Look(), uuid.uuid4(), run.revision, "released"))


def look_as(app: Page, role: str) -> None:
    """Take another role of the demo."""
    app.get_by_role("button", name="· demo").click()
    app.get_by_role("menuitem", name=role, exact=True).click()
    expect(app.get_by_role("button", name=f"{role} · demo")).to_be_visible()


def field(app: Page, label: str) -> Locator:
    """An entry field by its label."""
    return app.get_by_role("textbox", name=label, exact=True)


def type_into(app: Page, label: str, text: str) -> Locator:
    """Click a field and type over what is there; nothing is kept yet."""
    entry = field(app, label)
    entry.click()
    entry.fill("")
    entry.press_sequentially(text)
    return entry


def rail(app: Page, title: str) -> Locator:
    """A stop in the rail."""
    stops = app.get_by_role("navigation", name="Stops of the plan")
    return stops.get_by_role("link", name=re.compile(f"^{title}"))


def answer(app: Page, name: str) -> Locator:
    """An answer on the slip."""
    return app.locator(f'[data-answer="{name}"]')


def dimension(app: Page, name: str) -> Locator:
    """A dimension of the drawing."""
    return app.locator(f'[data-dimension="{name}"]')

"""Finding things on the plan screen as a person would."""

from __future__ import annotations

import re

from playwright.sync_api import Locator, Page, expect

from server.apps.runs.models import Run


def open_stop(app: Page, run: Run, stop: str) -> None:
    """Open a stop of a run."""
    base = app.url.split("/runs")[0].rstrip("/")
    app.goto(f"{base}/runs/{run.pk}/{stop}")
    expect(app.get_by_role("navigation", name="Stops of the plan")).to_be_visible()


def address(app: Page, path: str) -> str:
    """A place of the application by its path."""
    return "/".join(app.url.split("/")[:3]) + path


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

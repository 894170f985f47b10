"""The real application, served on the test database, driven in Debian's Chromium."""

from __future__ import annotations

from collections.abc import Iterator

import pytest
from django.db import connection
from playwright.sync_api import Page

from commands.browser import launching
from e2e import served
from e2e.screen import PATIENCE_MS
from e2e.served import Server
from server import kept_demo, one_sided
from server.apps.demo import runs as demo_runs
from server.apps.demo import shop
from server.apps.runs.models import Run


@pytest.fixture(scope="session")
def browser_type_launch_args():
    """Debian's Chromium."""
    return launching()


@pytest.fixture(scope="session")
def browser_context_args():
    """A desk's screen, without motion."""
    return {"viewport": {"width": 1280, "height": 800}, "reduced_motion": "reduce", "locale": "en-GB"}


@pytest.fixture(scope="session")
def server(django_db_setup: None) -> Iterator[Server]:
    """One server for all journeys."""
    served.running = Server()
    served.running.start()
    yield served.running
    served.running.stop()
    served.running.stop_worker()


@pytest.fixture
def run(server: Server, transactional_db: None, monkeypatch: pytest.MonkeyPatch) -> Run:
    """The demo, fresh, with a seal carrier of one side, which it gives, and the vent plug."""
    monkeypatch.setattr(demo_runs, "RUNS", one_sided.runs())
    monkeypatch.setattr(shop, "GREASED_DAYS_AGO", ())
    monkeypatch.setattr(shop, "GAUGE_RUNS", [])
    kept_demo.begun("one-sided")
    server.start_worker()
    return Run.objects.get(drawing_number="LH-2041")


BUSY = """
select count(*) from pg_stat_activity
where datname = current_database() and pid <> pg_backend_pid() and state in ('active', 'idle in transaction')
"""
WATCH = """
window.__violations = [];
addEventListener('securitypolicyviolation', e => __violations.push(e.violatedDirective + ' ' + e.blockedURI))
"""


@pytest.fixture
def app(page: Page, server: Server, run: Run) -> Iterator[Page]:
    """A browser at the bench; afterwards no policy violation and no uncaught error may have been seen."""
    errors: list[str] = []
    page.on("pageerror", lambda error: errors.append(str(error)))
    page.add_init_script(WATCH)
    page.set_default_timeout(PATIENCE_MS)
    page.goto(server.url)
    yield page
    if server.process is not None and page.url != "about:blank":
        assert page.evaluate("window.__violations") == []
    assert errors == []
    # No page may still ask for news while the tables are emptied.
    page.goto("about:blank")
    quiet = 0
    for _ in range(100):  # nor may the server still work for one that has gone: it was quiet a few times on end
        with connection.cursor() as cursor:
            cursor.execute(BUSY)
            quiet = quiet + 1 if cursor.fetchone() == (0,) else 0
        if quiet == 3:
            break
        page.wait_for_timeout(50)

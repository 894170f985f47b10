"""The real application, served on the test database, driven in Debian's Chromium."""

from __future__ import annotations

import os
import subprocess
import threading
from collections.abc import Iterator

import pytest
from django.conf import settings
from django.db import connection
from playwright.sync_api import Page

from commands.cluster import free_port
from commands.places import environment
from commands.start import end, serve, serve_worker, wait_until_answering
from devices.gauge import Gauge
from e2e.screen import PATIENCE_MS
from server import one_sided
from server.apps.demo import runs as demo_runs
from server.apps.demo import shop
from server.apps.demo.actions import load_demo
from server.apps.runs.models import Run

FLAGS = [
    "--disable-gpu",
    "--disable-quic",
    "--no-first-run",
    "--disable-background-networking",
    "--disable-component-update",
    "--disable-sync",
]


@pytest.fixture(scope="session")
def browser_type_launch_args():
    """Debian's Chromium; without its sandbox only where root makes that necessary."""
    root = ["--no-sandbox"] if os.geteuid() == 0 else []
    return {"executable_path": "/usr/bin/chromium", "args": [*FLAGS, *root]}


@pytest.fixture(scope="session")
def browser_context_args():
    """A desk's screen, without motion."""
    return {"viewport": {"width": 1280, "height": 800}, "reduced_motion": "reduce", "locale": "en-GB"}


class Server:
    """The application's server, which a test may stop and start again."""

    def __init__(self) -> None:
        self.port = free_port()
        self.process: subprocess.Popen[bytes] | None = None
        self.worker: subprocess.Popen[bytes] | None = None
        # Six times as fast as the demo's, so that a journey does not wait twelve seconds.
        self.gauge = Gauge(0, rate=120.0, count=120, seed=3)
        threading.Thread(target=self.gauge.serve_forever, daemon=True).start()

    @property
    def url(self) -> str:
        """Where it answers."""
        return f"http://127.0.0.1:{self.port}"

    def start(self) -> None:
        """Start it and wait until it answers."""
        name = settings.DATABASES["default"]["NAME"]
        gauge = f"Simulated gauge=127.0.0.1:{self.gauge.server_address[1]}"
        env = environment(
            NOBLE_ANVIL_DB_NAME=name, NOBLE_ANVIL_DEMO="1", NOBLE_ANVIL_SECRET_KEY="for-tests", NOBLE_ANVIL_GAUGES=gauge
        )
        self.process = serve(self.port, env, "--processes", "1")
        if self.worker is None:
            self.worker = serve_worker(env)
        wait_until_answering(self.port, self.process)

    def stop(self) -> None:
        """Stop it."""
        if self.process is not None:
            end(self.process)
            self.process = None


@pytest.fixture(scope="session")
def server(django_db_setup: None) -> Iterator[Server]:
    """One server for all journeys."""
    running = Server()
    running.start()
    yield running
    running.stop()
    if running.worker is not None:
        end(running.worker)


@pytest.fixture
def run(server: Server, transactional_db: None, monkeypatch: pytest.MonkeyPatch) -> Run:
    """The demo, fresh, with a seal carrier of one side, which it gives, and the vent plug."""
    monkeypatch.setattr(demo_runs, "RUNS", one_sided.runs())
    monkeypatch.setattr(shop, "GREASED_DAYS_AGO", ())
    monkeypatch.setattr(shop, "GAUGE_RUNS", [])
    load_demo()
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

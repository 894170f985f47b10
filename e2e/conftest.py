"""The real application, served by gunicorn on the test database, driven in Debian's Chromium."""

from __future__ import annotations

import os
import subprocess
from collections.abc import Iterator

import pytest
from django.conf import settings
from playwright.sync_api import Page

from commands.cluster import free_port
from commands.places import environment
from commands.start import end, serve, wait_until_answering
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

    @property
    def url(self) -> str:
        """Where it answers."""
        return f"http://127.0.0.1:{self.port}"

    def start(self) -> None:
        """Start it and wait until it answers."""
        name = settings.DATABASES["default"]["NAME"]
        env = environment(NOBLE_ANVIL_DB_NAME=name, NOBLE_ANVIL_DEMO="1", NOBLE_ANVIL_SECRET_KEY="for-tests")
        self.process = serve(self.port, env, workers=1)
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


@pytest.fixture
def run(server: Server, transactional_db: None) -> Run:
    """The demo, fresh; gives its seal carrier."""
    load_demo()
    return Run.objects.get(drawing_number="LH-2041")


WATCH = "window.__violations = []; addEventListener('securitypolicyviolation', e => __violations.push(e.violatedDirective + ' ' + e.blockedURI))"


@pytest.fixture
def app(page: Page, server: Server, run: Run) -> Iterator[Page]:
    """A browser at the bench; afterwards no policy violation and no uncaught error may have been seen."""
    errors: list[str] = []
    page.on("pageerror", lambda error: errors.append(str(error)))
    page.add_init_script(WATCH)
    page.set_default_timeout(8000)
    page.goto(server.url)
    yield page
    if server.process is not None and page.url != "about:blank":
        assert page.evaluate("window.__violations") == []
    assert errors == []
    # No page may still ask for news while the tables are emptied.
    page.goto("about:blank")
    page.wait_for_timeout(200)

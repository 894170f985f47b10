"""The application's own processes for the journeys, on the test database of the process that runs the tests."""

from __future__ import annotations

import subprocess
import threading

from django.conf import settings

from commands.cluster import free_port
from commands.places import environment
from commands.processes import end, serve, serve_listener, serve_worker, wait_until_answering
from devices.gauge import Gauge

running: Server | None = None


class Server:
    """The application's server, which a test may stop and start again."""

    def __init__(self) -> None:
        self.port = free_port()
        self.process: subprocess.Popen[bytes] | None = None
        self.worker: subprocess.Popen[bytes] | None = None
        self.listener: subprocess.Popen[bytes] | None = None
        # Six times as fast as the demo's, so that a journey does not wait twelve seconds.
        self.gauge = Gauge(0, rate=120.0, count=120, seed=3)
        threading.Thread(target=self.gauge.serve_forever, daemon=True).start()

    @property
    def url(self) -> str:
        """Where it answers."""
        return f"http://127.0.0.1:{self.port}"

    @property
    def env(self) -> dict[str, str]:
        """What its processes are told."""
        gauge = f"Simulated gauge=127.0.0.1:{self.gauge.server_address[1]}"
        name = str(settings.DATABASES["default"]["NAME"])
        return environment(
            NOBLE_ANVIL_DB_NAME=name, NOBLE_ANVIL_SECRET_KEY=settings.SECRET_KEY, NOBLE_ANVIL_GAUGES=gauge
        )

    def start(self) -> None:
        """Start it and wait until it answers."""
        self.process = serve(self.port, self.env, "--processes", "1")
        wait_until_answering(self.port, self.process)

    def start_worker(self) -> None:
        """See to it that long questions are answered. One that ended by itself has written why."""
        if self.worker is None or self.worker.poll() is not None:
            self.worker = serve_worker(self.env)

    def start_listener(self, machine: str, port: int) -> None:
        """Have a machine listened to."""
        self.listener = serve_listener({**self.env, "NOBLE_ANVIL_MACHINES": f"{machine}=127.0.0.1:{port}"})

    def stop_listener(self) -> None:
        """Listen to nothing."""
        if self.listener is not None:
            end(self.listener)
            self.listener = None

    def stop(self) -> None:
        """Stop it."""
        if self.process is not None:
            end(self.process)
            self.process = None

    def stop_worker(self) -> None:
        """Let nobody answer long questions."""
        if self.worker is not None:
            end(self.worker)
            self.worker = None


def rest() -> None:
    """Let nothing of the journeys answer questions that another test asks: both may run in one process, by turns."""
    if running is not None:
        running.stop_worker()

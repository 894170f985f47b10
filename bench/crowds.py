"""Much of everything: thousands of runs, thousands of edits, many people."""

from __future__ import annotations

import random
import threading
import time
import urllib.error
import uuid

from bench.browser import browser_page
from bench.measure import PRESSURE, URL, Client, times
from commands.places import say


def copies(run: int, first: int, count: int) -> list[int]:
    """So many runs like one, with drawing numbers from `first` on."""
    from django.db import transaction

    from server.apps.runs.models import Run, RunSetup

    source = Run.objects.get(pk=run)
    chosen = list(source.setups.all())
    made = []
    for i in range(count):
        name = f"{('Seal carrier', 'Pump shaft', 'Wear ring', 'Guide bush')[i % 4]} {i}"
        made.append(
            Run(
                drawing_number=f"LH-{first + i}",
                name=name,
                machine_id=source.machine_id,
                units="metric",
                material_id=source.material_id,
                document=source.document,
                standing=source.standing,
                stands_on=source.stands_on,
                attention=i % 3,
                words=f"lh-{first + i} {name} {source.words}".lower(),
            )
        )
    # At once: a chore that looked between the two would see sides that took nothing from the shelf.
    with transaction.atomic():
        runs = Run.objects.bulk_create(made, batch_size=500)
        RunSetup.objects.bulk_create(
            (
                RunSetup(run=r, item=c.item, chuck_id=c.chuck_id, jaw_blank_id=c.jaw_blank_id)
                for r in runs
                for c in chosen
            ),
            batch_size=500,
        )
    return [r.pk for r in runs]


def many_runs(client: Client, count: int = 5000) -> tuple[list[float], list[float]]:
    """The bench with thousands of runs: a page of it, and finding by words."""
    copies(client.run, 10_000, count)
    listed = times(60, lambda i: client.get(f"/api/runs?page={i % 20}"))
    found = times(60, lambda i: client.get(f"/api/runs?find=guide%20bush%20{i}"))
    return listed, found


def long_history(client: Client, count: int = 2000) -> tuple[list[float], list[float]]:
    """A run with thousands of edits: the history's first page, and the screen from click to lines."""
    from server.apps.runs.models import Edit, Run

    run = Run.objects.get(pk=client.run)
    by = run.edits.first().by
    Edit.objects.bulk_create(
        Edit(
            run=run,
            revision=run.revision + i + 1,
            path=PRESSURE,
            old=28.0,
            new=28.0 + i / 1000,
            key=uuid.uuid4(),
            by=by,
            label="Gauge pressure",
            moved={"cap": [800.0, 800.0 + i]},
        )
        for i in range(count)
    )
    Run.objects.filter(pk=run.pk).update(revision=run.revision + count)
    client.revision = run.revision + count
    asked = times(60, lambda _: client.get(f"/api/runs/{run.pk}/history"))
    opened = []
    with browser_page() as page:
        page.goto(f"{URL}/runs/{run.pk}")
        page.wait_for_load_state("networkidle")
        for _ in range(12):
            link = page.get_by_role("link", name="draft")
            link.wait_for()
            opened.append(
                page.evaluate(
                    """() => new Promise((resolve) => {
                      const start = performance.now();
                      document.querySelector('a[href$="/history"]').click();
                      const look = () => document.querySelector('[data-revision]')
                        ? setTimeout(() => resolve(performance.now() - start), 0) : requestAnimationFrame(look);
                      look();
                    })"""
                )
            )
            page.go_back()
    return asked, opened[2:]


def crowd(people: int = 100, seconds: float = 60) -> tuple[list[float], int]:
    """Many people, four at a run, each editing every five seconds and asking for news; (edit times, errors)."""
    runs = copies(Client().run, 30_000, people // 4)
    spent: list[float] = []
    errors: list[str] = []
    until = time.monotonic() + seconds

    def person(number: int) -> None:
        choose = random.Random(number)
        try:
            client = Client()
            path = (PRESSURE, "setups.s1.clamp_rpm")[number % 2]
            while time.monotonic() < until:
                time.sleep(choose.uniform(4.0, 6.0))
                client.run = runs[number % len(runs)]
                client.revision = client.get(f"/api/runs/{client.run}/pulse")["revision"]
                start = time.perf_counter()
                try:
                    client.edit(choose.randrange(300), path)
                except urllib.error.HTTPError as answer:
                    if answer.code != 409:  # somebody else was at this fact just now: an answer, too
                        raise
                spent.append((time.perf_counter() - start) * 1000)
                client.get(f"/api/runs/{client.run}/pulse")
        except Exception as error:
            errors.append(repr(error))

    threads = [threading.Thread(target=person, args=[i]) for i in range(people)]
    for t in threads:
        t.start()
    for t in threads:
        t.join()
    for error in errors[:3]:
        say(f"error: {error}")
    return spent, len(errors)


def many_readings(runs: int = 20, each: int = 5000) -> None:
    """Gauge runs with a hundred thousand readings in one chuck, not counted with in plans."""
    from datetime import timedelta

    from django.utils import timezone

    from server.apps.gauge.models import GaugeRun, Reading
    from server.apps.shelf.models import Chuck
    from server.foundation.models import Person

    chuck, by = Chuck.objects.get(key="lathe-3-chuck"), Person.objects.get(username="setter")
    chance = random.Random(1)
    for i in range(runs):
        run = GaugeRun.objects.create(
            chuck=chuck,
            side="od",
            on=timezone.localdate() - timedelta(days=i),
            by=by,
            source="live",
            pressure_bar=24,
            grip_height_mm=60,
            key=uuid.uuid4(),
        )
        Reading.objects.bulk_create(
            (
                Reading(run=run, number=n, rpm=n / 2, grip_n=70_000 - 0.0056 * (n / 2) ** 2 + chance.gauss(0, 200))
                for n in range(1, each + 1)
            ),
            batch_size=1000,
        )

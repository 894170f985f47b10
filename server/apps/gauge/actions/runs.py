"""Taking a gauge run in, leaving readings out, keeping it so that plans count with it; greasing."""

from __future__ import annotations

from dataclasses import dataclass
from datetime import date
from typing import Any
from uuid import UUID

from django.db import transaction
from django.utils import timezone

from calc.card.ask import Gauged
from calc.chuck.calibration import condition_of_fit, usable
from calc.chuck.readings import read_readings
from calc.errors import CalcError, FieldError
from calc.fields import Quantity
from calc.typed import typed_value
from server.apps.gauge import queries
from server.apps.gauge.known import today
from server.apps.gauge.models import GaugeRun, Greasing, Reading
from server.apps.gauge.schemas import GaugeRunIn
from server.apps.runs.actions.follow_shelf import follow
from server.apps.shelf import queries as shelf
from server.apps.shelf.actions.load import renew
from server.foundation.once import digest_of, was_sent
from server.foundation.problems import BadValue, Conflict
from server.foundation.roles import require_setter

FIELDS = {
    "pressure": ("pressure_bar", Quantity("Gauge pressure", "bar", "During the run", above=0, high=400), False),
    "height": (
        "grip_height_mm",
        Quantity("Gauge height", "mm", "Middle of the gauge above the guide", low=0, high=500),
        False,
    ),
    "jaw_mass": ("jaw_mass_kg", Quantity("Top jaw's mass", "kg", "Of one", above=0, high=500), True),
    "jaw_radius": ("jaw_radius_mm", Quantity("Its centre", "mm", "From the axis", above=0, high=2000), True),
}


@dataclass(frozen=True)
class KeptAt:
    """What a reading of a card is kept by: chuck and jaw set (database ids), day, key, and where it was read."""

    chuck_id: int
    jaw_set_id: int | None
    on: date
    key: UUID
    note: str


def _read(given: GaugeRunIn) -> dict[str, float | None]:
    problems: list[FieldError] = []
    values: dict[str, float | None] = {}
    for name, (column, spec, nullable) in FIELDS.items():
        try:
            values[column] = typed_value(name, spec, getattr(given, name), nullable=nullable, system=given.units)
        except CalcError as error:
            problems += error.errors
    if problems:
        raise CalcError(problems)
    return values


def day(text: str, field: str = "on") -> date:
    """A day that is not to come. Raises BadValue."""
    try:
        found = date.fromisoformat(text or today())
    except ValueError:
        raise BadValue(field, f"Write the day as year-month-day, such as {today()}.") from None
    if found.isoformat() > today():
        raise BadValue(field, "This day is still to come.")
    return found


@transaction.atomic
def take_in(chuck_key: str, given: GaugeRunIn, person: Any) -> GaugeRun:
    """A new run: typed or pasted readings, or none yet where they come from a gauge. The same key takes it in once."""
    setter = require_setter(person)
    shelf.hold()
    chuck_id = queries.chuck_id_of(chuck_key)
    if was_sent(given.key, setter, digest_of("gauge run", chuck_key, given.dict(exclude={"key"}))):
        return queries.run_by_key(given.key)
    on_shelf = shelf.current()
    if given.side not in ("od", "id"):
        raise BadValue("side", "Say whether the gauge was gripped outside or inside.")
    if given.jaw_set and given.jaw_set not in on_shelf.ids["jaw_set"]:
        raise BadValue("jaw_set", "Choose one that is on the shelf.")
    values, on = _read(given), day(given.on)
    points = () if given.source == "live" else read_readings(given.readings)
    run = GaugeRun.objects.create(
        chuck_id=chuck_id,
        jaw_set_id=on_shelf.ids["jaw_set"].get(given.jaw_set or ""),
        side=given.side,
        on=on,
        by=setter,
        source=given.source,
        note=" ".join(given.note.split()),
        key=given.key,
        **values,
    )
    Reading.objects.bulk_create(Reading(run=run, number=i, rpm=p.rpm, grip_n=p.grip_n) for i, p in enumerate(points, 1))
    return run


@transaction.atomic
def leave_out(run_id: int, numbers: list[int], left_out: bool, person: Any) -> GaugeRun:
    """Leave readings out of the fit, or take them in again. Raises Conflict once the run counts."""
    require_setter(person)
    run = queries.run_by_id(run_id)
    if run.kept_at is not None:
        raise Conflict("This run counts in plans already: its readings stay as they are.")
    run.readings.filter(number__in=numbers).update(left_out=left_out)
    return run


@transaction.atomic
def keep(run_id: int, person: Any) -> GaugeRun:
    """Let plans count with a run. Raises Conflict where its fit may not count."""
    require_setter(person)
    shelf.hold_to_change()
    run = queries.run_by_id(run_id)
    if run.kept_at is not None:
        return run
    fit = queries.fit_of(run, list(run.readings.all()))
    if not usable(fit):
        raise Conflict("This fit may not count: " + " ".join(n.text for n in fit.notes))
    chuck = shelf.current().chucks[run.chuck_id]
    try:
        run.condition = condition_of_fit(fit.static_grip_n, run.pressure_bar, run.grip_height_mm, chuck.force)
    except CalcError as error:
        raise Conflict(" ".join(e.message for e in error.errors)) from error
    if not 0.05 <= run.condition <= 1.2:
        raise Conflict(
            f"Measured over book is {run.condition:.2f}: outside 0.05 to 1.2 pressure, height or gauge is wrong."
        )
    run.static_grip_n, run.transmission, run.r_squared = fit.static_grip_n, fit.transmission, fit.r_squared
    run.kept_at = timezone.now()
    run.save()
    renew()
    follow("chuck", run.chuck_id)
    return run


@transaction.atomic
def keep_reading(gauged: Gauged, at: KeptAt, person: Any) -> None:
    """Keep one reading at rest, of a card, as a run of the chuck: plans count with it from now on.

    Who may read at a card has been asked there; the same key keeps it once.
    """
    shelf.hold_to_change()
    mass, radius = gauged.jaw or (None, None)
    run, is_new = GaugeRun.objects.get_or_create(
        key=at.key,
        defaults={
            "chuck_id": at.chuck_id,
            "jaw_set_id": at.jaw_set_id,
            "side": gauged.side,
            "on": at.on,
            "by": person,
            "source": "card",
            "pressure_bar": gauged.pressure_bar,
            "grip_height_mm": gauged.height_mm,
            "jaw_mass_kg": mass,
            "jaw_radius_mm": radius,
            "note": at.note,
            "kept_at": timezone.now(),
            "static_grip_n": gauged.grip_n,
            "condition": gauged.condition,
        },
    )
    if is_new:
        Reading.objects.create(run=run, number=1, rpm=0.0, grip_n=gauged.grip_n)
        renew()
        follow("chuck", at.chuck_id)


@transaction.atomic
def remove(run_id: int, person: Any) -> None:
    """Take away a run that does not count."""
    require_setter(person)
    run = queries.run_by_id(run_id)
    if run.kept_at is not None:
        raise Conflict("This run counts in plans: its record stays.")
    run.delete()


@transaction.atomic
def grease(chuck_key: str, on: str, note: str, person: Any) -> None:
    """Note that a chuck was greased."""
    setter = require_setter(person)
    shelf.hold_to_change()
    chuck_id = queries.chuck_id_of(chuck_key)
    Greasing.objects.update_or_create(
        chuck_id=chuck_id, on=day(on), defaults={"by": setter, "note": " ".join(note.split())}
    )
    renew()
    follow("chuck", chuck_id)


@transaction.atomic
def append(run_id: int, points: list[tuple[float, float]]) -> int:
    """Keep readings as they arrive; gives how many there are."""
    GaugeRun.objects.select_for_update().get(pk=run_id)  # two screens may read one gauge into one run
    last = Reading.objects.filter(run_id=run_id).order_by("-number").values_list("number", flat=True).first() or 0
    Reading.objects.bulk_create(
        Reading(run_id=run_id, number=last + i, rpm=rpm, grip_n=grip) for i, (rpm, grip) in enumerate(points, 1)
    )
    return last + len(points)


def ready_for_gauge(run_id: int, person: Any) -> GaugeRun:
    """A run that readings may still be added to. Raises Conflict."""
    require_setter(person)
    run = queries.run_by_id(run_id)
    if run.kept_at is not None or run.source != "live":
        raise Conflict("This run takes no readings from a gauge.")
    return run

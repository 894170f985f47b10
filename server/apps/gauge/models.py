"""Grip gauge runs with their readings, and the greasing log, each of a chuck."""

from __future__ import annotations

from django.conf import settings
from django.db import models


class GaugeRun(models.Model):
    """One run of the gauge in a chuck. What was fitted is kept beside the readings once the run counts."""

    chuck = models.ForeignKey("shelf.Chuck", on_delete=models.PROTECT, related_name="gauge_runs")
    jaw_set = models.ForeignKey(
        "shelf.JawSet", null=True, blank=True, on_delete=models.PROTECT, related_name="gauge_runs"
    )
    side = models.CharField(max_length=2, choices=[("od", "outside"), ("id", "inside")])
    on = models.DateField()
    by = models.ForeignKey(settings.AUTH_USER_MODEL, on_delete=models.PROTECT)
    source = models.CharField(max_length=5, choices=[("typed", "typed"), ("live", "live"), ("card", "card")])
    pressure_bar = models.FloatField()
    grip_height_mm = models.FloatField()
    jaw_mass_kg = models.FloatField(null=True, blank=True, help_text="Of one top jaw")
    jaw_radius_mm = models.FloatField(null=True, blank=True, help_text="Its centre of mass from the axis")
    note = models.CharField(max_length=120, blank=True)
    key = models.UUIDField(unique=True, help_text="Made by the sender, so that sending twice keeps once")
    kept_at = models.DateTimeField(null=True, blank=True, help_text="From when it counts in plans")
    static_grip_n = models.FloatField(null=True, blank=True)
    condition = models.FloatField(null=True, blank=True, help_text="Measured over book")
    transmission = models.FloatField(null=True, blank=True)
    r_squared = models.FloatField(null=True, blank=True)

    class Meta:
        ordering = ["-on", "-pk"]
        indexes = [models.Index(fields=["chuck", "-on"], name="gauge_run_of_chuck")]


class Reading(models.Model):
    """One reading, as it came; left out of the fit when the setter says so."""

    run = models.ForeignKey(GaugeRun, on_delete=models.CASCADE, related_name="readings")
    number = models.PositiveIntegerField()
    rpm = models.FloatField()
    grip_n = models.FloatField()
    left_out = models.BooleanField(default=False)

    class Meta:
        ordering = ["number"]
        constraints = [models.UniqueConstraint(fields=["run", "number"], name="reading_number_once")]


class Greasing(models.Model):
    """An entry of a chuck's greasing log."""

    chuck = models.ForeignKey("shelf.Chuck", on_delete=models.CASCADE, related_name="greasings")
    on = models.DateField()
    by = models.ForeignKey(settings.AUTH_USER_MODEL, on_delete=models.PROTECT)
    note = models.CharField(max_length=120, blank=True)

    class Meta:
        ordering = ["-on", "-pk"]
        constraints = [models.UniqueConstraint(fields=["chuck", "on"], name="greased_once_a_day")]

"""What happens at a card: steps ticked or skipped, and readings with what followed from them. Nothing is taken away."""

from __future__ import annotations

from django.conf import settings
from django.db import models


class Mark(models.Model):
    """A step ticked, skipped with its reason, or opened again; the last of a step counts, by when it was done."""

    release = models.ForeignKey("runs.Release", on_delete=models.PROTECT, related_name="marks")
    step = models.CharField(max_length=60)
    state = models.CharField(max_length=7, choices=[("done", "done"), ("skipped", "skipped"), ("open", "opened again")])
    reason = models.CharField(max_length=160, blank=True)
    key = models.UUIDField(unique=True, help_text="Made by the sender, so that sending twice keeps once")
    by = models.ForeignKey(settings.AUTH_USER_MODEL, on_delete=models.PROTECT)
    at = models.DateTimeField(help_text="When it was done, as the tablet says that it was done on")
    came_at = models.DateTimeField(auto_now_add=True)

    class Meta:
        ordering = ["at", "pk"]
        indexes = [models.Index(fields=["release", "step"], name="mark_of_step")]


class Reading(models.Model):
    """A reading, kept for ever: what was read and with what, what was predicted, and what followed in words.

    `measured` and `predicted` are in core units; what it is kept against stands beside it by its own row.
    """

    release = models.ForeignKey("runs.Release", on_delete=models.PROTECT, related_name="card_readings")
    step = models.CharField(max_length=60)
    kind = models.CharField(max_length=12)
    of = models.CharField(max_length=60, blank=True, help_text="The tool, size or side that it is of")
    values = models.JSONField(help_text="What was entered, core units, by name")
    typed = models.JSONField(default=dict, help_text="What was typed, by name")
    instrument = models.CharField(max_length=60, blank=True)
    measured = models.FloatField(null=True, blank=True)
    predicted = models.FloatField(null=True, blank=True)
    level = models.CharField(max_length=4, choices=[("good", "good"), ("do", "do"), ("stop", "stop")])
    passes = models.BooleanField(default=True, help_text="What was measured is as the print asks")
    told = models.JSONField(help_text="Units -> what followed, as it was shown")
    machine = models.ForeignKey("shelf.Machine", null=True, blank=True, on_delete=models.PROTECT)
    material = models.ForeignKey("shelf.Material", null=True, blank=True, on_delete=models.PROTECT)
    chuck = models.ForeignKey("shelf.Chuck", null=True, blank=True, on_delete=models.PROTECT)
    jaw_set = models.ForeignKey("shelf.JawSet", null=True, blank=True, on_delete=models.PROTECT)
    ring = models.ForeignKey(
        "shelf.Ring", null=True, blank=True, on_delete=models.PROTECT, help_text="What the jaws were cut on"
    )
    tools = models.ManyToManyField("shelf.Tool", help_text="The edge that it tells of, and what carries it")
    key = models.UUIDField(unique=True, help_text="Made by the sender, so that sending twice keeps once")
    by = models.ForeignKey(settings.AUTH_USER_MODEL, on_delete=models.PROTECT)
    twice = models.BooleanField(
        default=False, help_text="It and one of another tablet were made without knowing of each other"
    )
    at = models.DateTimeField(help_text="When it was read, as the tablet says that it was read on")
    came_at = models.DateTimeField(auto_now_add=True)

    class Meta:
        ordering = ["at", "pk"]
        indexes = [
            models.Index(fields=["release", "step"], name="reading_of_step"),
            models.Index(fields=["kind", "chuck"], name="reading_of_chuck"),
            models.Index(fields=["kind", "jaw_set"], name="reading_of_jaw_set"),
            models.Index(fields=["kind", "material"], name="reading_of_material"),
        ]

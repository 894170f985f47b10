"""What happens while pieces come off: pieces, what was measured of them, edges and offsets changed, stops.

What was wrong is corrected in place, and the correction stands beside it for ever.
"""

from __future__ import annotations

from django.conf import settings
from django.db import models


class Lot(models.Model):
    """Pieces of a release that are counted together (calc.running.lot), and how many there are."""

    release = models.ForeignKey("runs.Release", on_delete=models.PROTECT, related_name="lots")
    key = models.CharField(max_length=12)
    counted = models.PositiveIntegerField(default=0)
    good = models.PositiveIntegerField(default=0)
    began_at = models.DateTimeField(null=True, blank=True, help_text="When its first piece was counted")
    last_at = models.DateTimeField(null=True, blank=True)
    closed_at = models.DateTimeField(null=True, blank=True)
    revision = models.PositiveIntegerField(default=0, help_text="Counts whatever is kept of it")
    machine_count = models.PositiveIntegerField(null=True, blank=True, help_text="What its machine said last")
    counted_then = models.PositiveIntegerField(default=0, help_text="Pieces that were counted when it said so")

    class Meta:
        ordering = ["pk"]
        constraints = [models.UniqueConstraint(fields=["release", "key"], name="lot_once")]


class Listened(models.Model):
    """A machine that is listened to: when it said something last, and what is wrong with it."""

    name = models.CharField(max_length=80, unique=True)
    heard_at = models.DateTimeField(null=True, blank=True)
    trouble = models.CharField(max_length=200, blank=True)


class News(models.Model):
    """What was noted of a machine's tools, to be told to it once."""

    machine = models.CharField(max_length=80)
    line = models.CharField(max_length=80)
    told = models.BooleanField(default=False)

    class Meta:
        ordering = ["pk"]
        indexes = [models.Index(fields=["machine"], name="news_untold", condition=models.Q(told=False))]


class Piece(models.Model):
    """One piece, counted."""

    lot = models.ForeignKey(Lot, on_delete=models.PROTECT, related_name="pieces")
    number = models.PositiveIntegerField()
    good = models.BooleanField()
    reason = models.CharField(max_length=160, blank=True, help_text="Why it is scrap")
    source = models.CharField(max_length=60, blank=True, help_text="The machine that counted it; none: a person")
    key = models.UUIDField(unique=True, help_text="Made by the sender, so that sending twice counts once")
    by = models.ForeignKey(settings.AUTH_USER_MODEL, null=True, on_delete=models.PROTECT)
    at = models.DateTimeField(help_text="When it was done, as the tablet says that it was counted on")
    came_at = models.DateTimeField(auto_now_add=True)

    class Meta:
        ordering = ["number"]
        constraints = [models.UniqueConstraint(fields=["lot", "number"], name="piece_once")]
        indexes = [models.Index(fields=["lot", "good"], name="piece_scrap", condition=models.Q(good=False))]


class Measured(models.Model):
    """A value of a piece, core unit, at 20 °C."""

    lot = models.ForeignKey(Lot, on_delete=models.PROTECT, related_name="measured")
    piece = models.PositiveIntegerField(help_text="Its number")
    dimension = models.CharField(max_length=60)
    value = models.FloatField()
    typed = models.CharField(max_length=60, blank=True)
    temp_c = models.FloatField(default=20.0)
    instrument = models.CharField(max_length=60, blank=True)
    by = models.ForeignKey(settings.AUTH_USER_MODEL, null=True, on_delete=models.PROTECT)
    at = models.DateTimeField()

    class Meta:
        ordering = ["piece"]
        constraints = [models.UniqueConstraint(fields=["lot", "dimension", "piece"], name="measured_once")]


class Happening(models.Model):
    """An edge changed, an offset moved, or a stop; after so many pieces."""

    KINDS = [("edge", "edge"), ("offset", "offset"), ("stop", "stop")]

    lot = models.ForeignKey(Lot, on_delete=models.PROTECT, related_name="happenings")
    kind = models.CharField(max_length=6, choices=KINDS)
    edge = models.CharField(max_length=20, blank=True, help_text="Turret and station")
    after = models.PositiveIntegerField(help_text="Pieces that were counted")
    amount_mm = models.FloatField(default=0.0, help_text="Added to the offset, X as a diameter")
    why = models.CharField(max_length=20, blank=True)
    note = models.CharField(max_length=160, blank=True)
    source = models.CharField(max_length=60, blank=True, help_text="The machine that told it; none: a person")
    key = models.UUIDField(unique=True, help_text="Made by the sender, so that sending twice keeps once")
    by = models.ForeignKey(settings.AUTH_USER_MODEL, null=True, on_delete=models.PROTECT)
    at = models.DateTimeField()
    until = models.DateTimeField(null=True, blank=True, help_text="When it went on after a stop; none: it stands still")

    class Meta:
        ordering = ["after", "at", "pk"]
        indexes = [models.Index(fields=["lot", "kind"], name="happening_kind")]


class Correction(models.Model):
    """What was kept of a piece before it was corrected, what stands now, and why. Never altered."""

    lot = models.ForeignKey(Lot, on_delete=models.PROTECT, related_name="corrections")
    piece = models.PositiveIntegerField(help_text="Its number")
    dimension = models.CharField(max_length=60, blank=True, help_text="Of a value; none: whether it is good")
    before = models.JSONField(null=True)
    now = models.JSONField(null=True)
    why = models.CharField(max_length=160)
    by = models.ForeignKey(settings.AUTH_USER_MODEL, null=True, on_delete=models.PROTECT)
    at = models.DateTimeField(auto_now_add=True)

    class Meta:
        ordering = ["pk"]
        indexes = [models.Index(fields=["lot", "piece"], name="correction_of_piece")]


class Lesson(models.Model):
    """What the next one should know, written at a lot's end; found again by part and by material."""

    lot = models.ForeignKey(Lot, on_delete=models.PROTECT, related_name="lessons")
    drawing_number = models.CharField(max_length=40)
    part = models.CharField(max_length=80)
    material = models.CharField(max_length=80, blank=True)
    machine = models.CharField(max_length=80, blank=True)
    text = models.CharField(max_length=400)
    by = models.ForeignKey(settings.AUTH_USER_MODEL, on_delete=models.PROTECT)
    at = models.DateTimeField(auto_now_add=True)

    class Meta:
        ordering = ["-at", "-pk"]
        indexes = [
            models.Index(fields=["drawing_number"], name="lesson_of_part"),
            models.Index(fields=["material"], name="lesson_of_material"),
        ]

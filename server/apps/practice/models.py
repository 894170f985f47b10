"""What somebody practised: every answer, and when a subject is due again."""

from __future__ import annotations

from django.conf import settings
from django.db import models

VERDICTS = [(v, v) for v in ("right", "close", "wrong", "dangerous")]


class Attempt(models.Model):
    """One answer. Never altered."""

    person = models.ForeignKey(settings.AUTH_USER_MODEL, on_delete=models.CASCADE, related_name="attempts")
    kind = models.CharField(max_length=24)
    seed = models.PositiveIntegerField()
    level = models.PositiveSmallIntegerField()
    generator = models.PositiveSmallIntegerField()
    units = models.CharField(max_length=6)
    given = models.CharField(max_length=80, help_text="As it was written, or the key of what was chosen")
    verdict = models.CharField(max_length=9, choices=VERDICTS)
    at = models.DateTimeField(auto_now_add=True)

    class Meta:
        ordering = ["-pk"]
        indexes = [models.Index(fields=["person", "kind", "-at"], name="attempt_of_whom")]


class Subject(models.Model):
    """How far somebody is with a kind of exercise, and when it is due again."""

    person = models.ForeignKey(settings.AUTH_USER_MODEL, on_delete=models.CASCADE, related_name="subjects")
    kind = models.CharField(max_length=24)
    level = models.PositiveSmallIntegerField(default=1)
    streak = models.PositiveSmallIntegerField(default=0, help_text="Right ones in a row, at this level")
    memory = models.JSONField(help_text="The card of the spaced-repetition library")
    due = models.DateTimeField()

    class Meta:
        ordering = ["pk"]
        constraints = [models.UniqueConstraint(fields=["person", "kind"], name="subject_once")]


class Practiser(models.Model):
    """Somebody who hides how far they are from the owner."""

    person = models.OneToOneField(settings.AUTH_USER_MODEL, on_delete=models.CASCADE, related_name="practiser")
    hidden = models.BooleanField(default=False)

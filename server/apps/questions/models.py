"""Questions that take long, with what came of them."""

from __future__ import annotations

from django.conf import settings
from django.db import models


class Question(models.Model):
    """One question of one person. What it rests on when it was asked (`basis`) tells whether it is still worth an
    answer; the newest question of a person about one thing (`slot`) is the only one that is.
    """

    class State(models.TextChoices):
        WAITING = "waiting", "waiting"
        WORKING = "working", "working"
        DONE = "done", "done"
        FAILED = "failed", "failed"  # with a problem: what it was asked of does not allow an answer
        CANCELLED = "cancelled", "cancelled"
        DROPPED = "dropped", "dropped"  # what it rested on has changed

    key = models.UUIDField(primary_key=True, help_text="Made by the sender, so that sending twice asks once")
    kind = models.CharField(max_length=20)
    arguments = models.JSONField()
    subject = models.CharField(max_length=64, help_text="Digest of kind and arguments")
    basis = models.CharField(max_length=80, help_text="What it rested on when it was asked")
    slot = models.CharField(max_length=80, help_text="Of one person the newest question of a slot stands")
    by = models.ForeignKey(settings.AUTH_USER_MODEL, on_delete=models.CASCADE)
    state = models.CharField(max_length=10, choices=State.choices, default=State.WAITING)
    tries = models.PositiveSmallIntegerField(default=0)
    job = models.BigIntegerField(null=True, help_text="Of the queue")
    done = models.PositiveIntegerField(default=0, help_text="Of `of`: how far it has come")
    of = models.PositiveIntegerField(default=0)
    told = models.TextField(blank=True, help_text="What happened to it, in a sentence")
    answer = models.JSONField(null=True, help_text="As it is sent")
    problem = models.JSONField(null=True, help_text="Title, status and field errors, where it has no answer")
    found = models.JSONField(null=True, help_text="What taking the answer needs, and is not sent")
    asked_at = models.DateTimeField(auto_now_add=True)
    ended_at = models.DateTimeField(null=True)

    class Meta:
        indexes = [
            models.Index(fields=["by", "state"], name="question_open"),
            models.Index(fields=["subject", "basis"], name="question_same"),
            models.Index(fields=["asked_at"], name="question_age"),
        ]

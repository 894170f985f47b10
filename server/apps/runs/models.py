"""Runs: a part to make, its plan document, what it takes from the shelf, and every edit."""

from __future__ import annotations

from django.conf import settings
from django.db import models

from server.foundation.models import Revised

PLANNING = "planning"
PLACES = [
    (PLANNING, "planning"),
    ("ready", "ready to set"),
    ("setting", "setting"),
    ("proving", "proving"),
    ("running", "running"),
]


class Run(Revised):
    """A production run and its plan. `revision` counts the edits.

    `standing`, `attention` and `words` follow from the rest: kept so that the bench can order and find among
    thousands. They are written with every change of the run, from the very shelf that it was computed with; where the
    shelf has changed since, or the day has, `stands_on` says so, and they are computed again before they are shown.
    """

    drawing_number = models.CharField(max_length=40)
    name = models.CharField(max_length=80)
    machine = models.ForeignKey("shelf.Machine", null=True, blank=True, on_delete=models.PROTECT)
    material = models.ForeignKey("shelf.Material", null=True, blank=True, on_delete=models.PROTECT)
    units = models.CharField(max_length=6, choices=[("metric", "metric"), ("inch", "inch")], default="metric")
    document = models.JSONField(help_text="calc.plan.document.Document")
    typed = models.JSONField(default=dict, help_text="Path -> the text that was typed for it")
    gone = models.JSONField(default=list, help_text="Ids of items that were taken out: never given again")
    put_away = models.BooleanField(default=False)
    released_at = models.DateTimeField(null=True, blank=True, help_text="When it first went to the machine")
    place = models.CharField(max_length=8, default=PLANNING, choices=PLACES, help_text="Where it stands at the machine")
    placed_at = models.DateTimeField(null=True, blank=True)
    placed_by = models.CharField(max_length=150, blank=True)
    really = models.JSONField(
        null=True,
        default=None,
        blank=True,
        help_text="How it goes at the machine once pieces come: began, at [s since 1970], left_min, said",
    )
    changed_at = models.DateTimeField(auto_now=True)
    standing = models.JSONField(
        default=dict, help_text="Lines of the stops, what is needed, figures of the bench and the history"
    )
    stands_on = models.CharField(
        max_length=10, default="", blank=True, help_text="The day `standing` holds for; none: the shelf has changed"
    )
    attention = models.PositiveSmallIntegerField(default=1, help_text="0 stopped, 1 open, 2 settled")
    words = models.TextField(default="", help_text="What the bench finds it by, in small letters")

    class Meta:
        ordering = ["drawing_number", "pk"]
        constraints = [models.CheckConstraint(condition=models.Q(units__in=["metric", "inch"]), name="run_units_known")]
        indexes = [
            models.Index(fields=["put_away", "attention", "-changed_at"], name="run_bench_order"),
            models.Index(fields=["stands_on"], name="run_stands_on"),
        ]

    def __str__(self) -> str:
        return f"{self.drawing_number} {self.name}"


class RunSetup(models.Model):
    """What one set-up of the plan takes from the shelf; kept while the set-up is out of the plan."""

    run = models.ForeignKey(Run, on_delete=models.CASCADE, related_name="setups")
    item = models.CharField(max_length=12, help_text="The set-up's id in the document")
    chuck = models.ForeignKey("shelf.Chuck", null=True, blank=True, on_delete=models.PROTECT)
    jaw_blank = models.ForeignKey("shelf.JawBlank", null=True, blank=True, on_delete=models.PROTECT)
    jaw_set = models.ForeignKey("shelf.JawSet", null=True, blank=True, on_delete=models.PROTECT)
    collet = models.ForeignKey("shelf.Collet", null=True, blank=True, on_delete=models.PROTECT)

    class Meta:
        ordering = ["pk"]
        constraints = [models.UniqueConstraint(fields=["run", "item"], name="run_setup_once")]


class Release(models.Model):
    """A plan as it went to the machine: every figure, word and working in both unit systems. Never altered."""

    run = models.ForeignKey(Run, on_delete=models.PROTECT, related_name="releases")
    number = models.PositiveIntegerField(help_text="Of the run, from 1")
    revision = models.PositiveIntegerField(help_text="The draft that it is")
    rules = models.PositiveIntegerField(help_text="Revision of the house rules it was computed under")
    document = models.JSONField(help_text="calc.plan.document.Document")
    taken = models.JSONField(default=dict, help_text="calc.shelf.taken.Shelf, with the tools of its cuts alone")
    form = models.PositiveSmallIntegerField(default=5, help_text="Of the views; earlier ones are read as today's")
    views = models.JSONField(help_text="Units -> the plan as the screen showed it")
    lines = models.JSONField(default=dict, help_text="Units -> the stops in one line each, for the bench")
    figures = models.JSONField(default=dict, help_text="Units -> what the bench shows of each side, by name")
    words = models.TextField(default="", help_text="What it is found by, in small letters: its own, not the draft's")
    programs = models.JSONField(
        default=dict, help_text="Units -> set-up -> the jaw-boring program's text, where it could be written"
    )
    confirmed = models.JSONField(help_text="The cautions that were confirmed: code, text and where")
    note = models.CharField(max_length=200, blank=True)
    key = models.UUIDField(unique=True, help_text="Made by the sender, so that sending twice releases once")
    by = models.ForeignKey(settings.AUTH_USER_MODEL, on_delete=models.PROTECT)
    at = models.DateTimeField(auto_now_add=True)

    class Meta:
        ordering = ["-number"]
        constraints = [models.UniqueConstraint(fields=["run", "number"], name="release_number_once")]


class Edit(models.Model):
    """One change: of what its path names, or of the parts that are kept below it. The plan's history, never altered.

    `form` tells edits from before items had ids, whose paths count places: told in the history, taken back no more.
    """

    run = models.ForeignKey(Run, on_delete=models.CASCADE, related_name="edits")
    revision = models.PositiveIntegerField(help_text="Of the run, after this edit")
    path = models.CharField(max_length=120)
    old = models.JSONField(null=True)
    new = models.JSONField(null=True)
    parts = models.JSONField(default=list, help_text="[path, old, new] of each fact, where the edit changed several")
    form = models.PositiveSmallIntegerField(default=2)
    typed = models.CharField(max_length=200, blank=True)
    typed_before = models.CharField(max_length=200, blank=True)
    label = models.CharField(max_length=160, blank=True, help_text="What the fact was called then")
    moved = models.JSONField(default=dict, help_text="Headline figures it moved, and the verdict: [before, after]")
    reverses = models.ForeignKey("self", null=True, blank=True, on_delete=models.PROTECT, related_name="reversed_by")
    continues = models.ForeignKey(
        "self",
        null=True,
        blank=True,
        on_delete=models.PROTECT,
        related_name="continued_by",
        help_text="The edit that this one carries on: both are undone together",
    )
    how = models.CharField(max_length=6, default="edit", choices=[("edit", "edit"), ("undo", "undo"), ("redo", "redo")])
    key = models.UUIDField(unique=True, help_text="Made by the sender, so that sending twice keeps once")
    by = models.ForeignKey(settings.AUTH_USER_MODEL, on_delete=models.PROTECT)
    at = models.DateTimeField(auto_now_add=True)

    class Meta:
        ordering = ["revision"]
        constraints = [models.UniqueConstraint(fields=["run", "revision"], name="edit_revision_once")]
        indexes = [
            models.Index(fields=["run", "path", "revision"]),
            models.Index(fields=["run", "by", "revision"], name="edit_own"),
        ]

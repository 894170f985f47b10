"""Cuts that worked. Ranges are the core's (calc.notebook.proven), checked before a row is written."""

from __future__ import annotations

from django.conf import settings
from django.db import models


class InTheNotebook(models.Manager["ProvenCut"]):
    """Those that nobody took out."""

    def get_queryset(self) -> models.QuerySet[ProvenCut]:
        return super().get_queryset().filter(taken_out=False)


class ProvenCut(models.Model):
    """One proven cut. Never altered: a better one is written beside it. One that is taken out can be put back."""

    objects = InTheNotebook()
    with_taken_out = models.Manager["ProvenCut"]()

    kind = models.CharField(max_length=10)
    stage = models.CharField(max_length=10)
    material = models.CharField(max_length=80)
    iso_group = models.CharField(max_length=1, blank=True)
    diameter_mm = models.FloatField(null=True)
    speed_m_min = models.FloatField()
    feed_mm_rev = models.FloatField()
    depth_mm = models.FloatField(null=True)
    machine = models.CharField(max_length=80, blank=True)
    insert = models.CharField(max_length=80, blank=True)
    holder = models.CharField(max_length=80, blank=True)
    coolant = models.CharField(max_length=10, blank=True)
    chip = models.CharField(max_length=10, blank=True)
    finish_um = models.FloatField(null=True)
    remarks = models.CharField(max_length=200, blank=True)
    on = models.DateField(null=True)
    run_name = models.CharField(max_length=130, blank=True, help_text="Of the run it was kept from")
    by = models.ForeignKey(settings.AUTH_USER_MODEL, null=True, on_delete=models.PROTECT)
    at = models.DateTimeField(auto_now_add=True)
    key = models.UUIDField(unique=True, help_text="Made by the sender, so that sending twice keeps one")
    taken_out = models.BooleanField(default=False)

    class Meta:
        ordering = ["-at", "-pk"]
        indexes = [models.Index(fields=["kind", "iso_group"], name="proven_kind_group")]

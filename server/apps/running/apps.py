"""Django's entry."""

from django.apps import AppConfig


class RunningConfig(AppConfig):
    name = "server.apps.running"
    label = "running"

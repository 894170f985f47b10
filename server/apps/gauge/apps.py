"""Django's entry."""

from django.apps import AppConfig


class GaugeConfig(AppConfig):
    name = "server.apps.gauge"
    label = "gauge"

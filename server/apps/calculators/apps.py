from django.apps import AppConfig


class CalculatorsConfig(AppConfig):
    name = "server.apps.calculators"

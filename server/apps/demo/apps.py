from django.apps import AppConfig


class DemoConfig(AppConfig):
    name = "server.apps.demo"

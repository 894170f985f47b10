from django.apps import AppConfig


class QuestionsConfig(AppConfig):
    name = "server.apps.questions"

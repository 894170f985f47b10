"""The server's settings with questions for tests."""

from server.config.settings import *  # noqa: F403

QUESTION_KINDS = "server.apps.questions.tests.kinds.ALL_KINDS"

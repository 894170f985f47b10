"""Loaded once by the process that the computing ones are made from, so that a new one is there at once."""

import django

django.setup()

import scipy.optimize  # noqa: E402, F401 - a second, which no question should wait for
from django.conf import settings  # noqa: E402
from django.utils.module_loading import import_string  # noqa: E402

from calc.quantities import warm  # noqa: E402 - Django first
from server.apps.questions.actions import answer  # noqa: E402, F401 - what it brings with it is wanted
from server.apps.questions.kind import every_kind  # noqa: E402

every_kind()
for chore in settings.CHORES:
    import_string(chore)
warm()

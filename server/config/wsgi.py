"""Entry of the web server. Loads what the first request would otherwise wait for."""

import gc
import os

from django.core.wsgi import get_wsgi_application

os.environ.setdefault("DJANGO_SETTINGS_MODULE", "server.config.settings")
application = get_wsgi_application()

from calc.quantities import warm  # noqa: E402 - after Django, so that a broken setting is told first

warm()
gc.collect()
gc.freeze()  # what is loaded now stays: the collector need not look at it again
# A plan makes many short-lived objects and keeps its figures; at the usual thresholds every eighth
# answer waited 150 ms while all of them were looked through. Memory stays: there are few cycles.
gc.set_threshold(20_000, 10, 50)

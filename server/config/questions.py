"""Every kind of question that takes long. Each stands in the app whose question it is."""

from __future__ import annotations

from server.apps.card.actions.folder import FOLDER
from server.apps.gauge.live import LISTEN
from server.apps.notebook.actions.heavy import NOTEBOOK_FILE
from server.apps.questions.kind import QuestionKind
from server.apps.runs.actions.gains import GAIN
from server.apps.runs.actions.heavy import CHECK, SETTLE
from server.apps.runs.actions.start import START
from server.apps.shelf.actions.heavy import EFFECTS, FILE

ALL_KINDS: tuple[QuestionKind, ...] = (CHECK, SETTLE, START, GAIN, EFFECTS, FILE, NOTEBOOK_FILE, FOLDER, LISTEN)

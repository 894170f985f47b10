"""The tasks of the queue: a question handed to what answers it. Cancelled, a task ends what it waits for."""

from __future__ import annotations

from procrastinate.contrib.django import app

from server.apps.questions.work import computed, listened


@app.task(name="answer_computing", queue="computing")
async def answer_computing(question: str) -> None:
    """Let the computing process answer a question."""
    await computed(question)


@app.task(name="answer_listening", queue="listening")
async def answer_listening(question: str) -> None:
    """Answer a question that mostly waits for something outside."""
    await listened(question)

"""The tasks of the queue: a question handed to what answers it. Cancelled, a task ends what it waits for."""

from __future__ import annotations

from procrastinate.contrib.django import app

from server.apps.questions.work import computed, listened


@app.task(name="answer_computing", queue="computing")
async def answer_computing(question: str, seconds: float = 60.0) -> None:
    """Let the computing process answer a question in so much time; an earlier version put none into the queue."""
    await computed(question, seconds)


@app.task(name="answer_listening", queue="listening")
async def answer_listening(question: str, seconds: float = 60.0) -> None:
    """Answer a question that mostly waits for something outside, which knows itself how long."""
    await listened(question)

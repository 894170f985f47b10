"""A run's folder as one PDF, made by a worker and read back."""

import io
import uuid

import pypdf
import pytest

from server.apps.card.tests.test_card import mark, read, released, setter  # noqa: F401 # fixtures
from server.apps.card.tests.test_paper import decoded, text_of

pytestmark = pytest.mark.django_db


def folder(person, run, **asked):
    status, found = person.answer(f"runs/{run.pk}/folder", asked)
    assert status == 200, found
    answer = person.get(found["href"])
    assert (answer.status_code, answer["Content-Type"]) == (200, "application/pdf")
    assert len(answer.content) == found["size"]
    return answer.content


def test_card_releases_readings_and_the_working_of_every_figure_are_in_it(setter, released, tmp_path):  # noqa: F811
    mark(setter, released, "s1.clean")
    read(setter, released, "s1.runout", {"reading_mm": 0.01}, instrument="Indicator 1")
    made = folder(setter, released)
    pages = pypdf.PdfReader(io.BytesIO(made)).pages
    for number, page in enumerate(pages, 1):
        assert f"page {number} of {len(pages)}" in text_of([page])
        assert "release 1" in text_of([page])
    whole = text_of(pages)
    for words in ("Tools by station", "Releases", "by planner", "Readings", "Indicator 1", "done by setter"):
        assert words in whole
    # The working behind the pressure: its lines with formula, figures put in, and source.
    for words in (
        "Force",
        "F_c = z * S / 1000",
        "derived: method, What speed costs, or adds",
        "typical: the worst credible corner",
    ):
        assert words in whole
    assert decoded(made, tmp_path) == f"http://127.0.0.1/runs/{released.pk}/card"


def test_it_is_of_one_moment_and_of_who_asked(setter, planner, operator, released):  # noqa: F811
    _, found = setter.answer(f"runs/{released.pk}/folder", {"units": "inch", "paper": "Letter"})
    assert planner.get(found["href"]).status_code == 404
    assert operator.get(found["href"]).status_code == 403
    mark(setter, released, "s1.clean")
    answer = setter.get(found["href"])
    assert (answer.status_code, "Ask again" in answer.json()["title"]) == (409, True)
    gone = setter.get(f"/api/runs/{released.pk}/folder/{uuid.uuid4()}.pdf")
    assert gone.status_code == 404


def test_without_a_release_there_is_none(setter, demo):  # noqa: F811
    status, told = setter.answer(f"runs/{demo.pk}/folder", {})
    assert (status, "Nothing of this run is released" in told["title"]) == (404, True)

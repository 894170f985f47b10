"""The card on paper, read back: text, pages, fonts, and the code that opens it."""

import io
import subprocess

import pypdf
import pytest
import zxingcpp
from PIL import Image

from server.apps.card.tests.test_card import mark, read, released, setter  # noqa: F401 # fixtures
from server.apps.runs.models import Run
from server.apps.runs.tests.test_releases import release

pytestmark = pytest.mark.django_db


def printed(person, run, **asked):
    more = "&".join(f"{n}={v}" for n, v in asked.items())
    answer = person.get(f"/api/runs/{run.pk}/card.pdf?{more}")
    assert answer.status_code == 200, answer.content[:300]
    assert answer["Content-Type"] == "application/pdf"
    return answer.content


def paper(person, run, **asked):
    return pypdf.PdfReader(io.BytesIO(printed(person, run, **asked)))


@pytest.fixture
def plain(setter, released):  # noqa: F811
    """The card at which nothing was done, A4."""
    if not PLAIN:
        PLAIN.append(printed(setter, released))
    return PLAIN[0]


PLAIN = []  # printed once: it is the same for every test


def text_of(pages):
    return " ".join(" ".join(p.extract_text() for p in pages).split())


def fonts(page):
    for font in page["/Resources"]["/Font"].values():
        one = font.get_object()
        yield from (d.get_object() for d in one.get("/DescendantFonts", [one]))


@pytest.mark.parametrize(("size", "points"), [("A4", (595.3, 841.9)), ("Letter", (612.0, 792.0))])
def test_every_page_has_its_number_and_its_release(setter, released, size, points):  # noqa: F811
    pages = paper(setter, released, paper=size).pages
    assert len(pages) > 2
    for number, page in enumerate(pages, 1):
        said = text_of([page])
        assert f"page {number} of {len(pages)}" in said
        assert "release 1" in said
        assert (float(page.mediabox.width), float(page.mediabox.height)) == pytest.approx(points, abs=0.5)
    whole = text_of(pages)
    for words in ("LH-2041", "Seal carrier", "Lathe 3", "Tools by station", "First spin, slow", "Mount the jaws"):
        assert words in whole
    assert "not for the machine" not in whole


def test_its_fonts_are_in_it(plain):
    pages = pypdf.PdfReader(io.BytesIO(plain)).pages
    for page in pages:
        for font in fonts(page):
            assert any(n.startswith("/FontFile") for n in font["/FontDescriptor"].get_object()), font["/BaseFont"]
    assert any("Plex" in f["/BaseFont"] for f in fonts(pages[0]))


def test_its_code_opens_the_card(plain, released, tmp_path):  # noqa: F811
    for page in (1, 2):  # of every page
        assert decoded(plain, tmp_path, page) == f"http://127.0.0.1/runs/{released.pk}/card"


def decoded(pdf, tmp_path, page=1):
    """What a camera reads on a page."""
    file = tmp_path / "card.pdf"
    file.write_bytes(pdf)
    drawn = ["pdftoppm", "-png", "-r", "150", "-f", str(page), "-l", str(page), "-singlefile", file, tmp_path / "card"]
    subprocess.run(drawn, check=True)
    (found,) = zxingcpp.read_barcodes(Image.open(tmp_path / "card.png"))
    return found.text


def test_what_was_done_and_read_stands_on_it(setter, released):  # noqa: F811
    mark(setter, released, "s1.clean")
    read(setter, released, "s1.runout", {"reading_mm": 0.01})
    whole = text_of(paper(setter, released).pages)
    assert "done by setter" in whole
    assert "0.010 mm" in whole


def test_a_draft_says_across_every_page_that_it_is_not_for_the_machine(planner, operator, released):  # noqa: F811
    pages = paper(planner, released, draft="true").pages
    for page in pages:
        assert "not for the machine" in text_of([page])
        assert "draft" in text_of([page])
    assert operator.get(f"/api/runs/{released.pk}/card.pdf?draft=true").status_code == 403


def test_the_same_card_makes_the_same_paper(setter, released):  # noqa: F811
    one, two = (text_of(paper(setter, released, units="inch").pages) for _ in range(2))
    assert one == two
    assert "psi" in one


def test_a_very_long_name_stays_on_the_page(planner, setter, demo):  # noqa: F811
    Run.objects.filter(pk=demo.pk).update(name='Carrier "with" \\ {braces} ' + "x" * 54)
    assert release(planner, Run.objects.get(pk=demo.pk))[0] == 200
    pages = paper(setter, demo).pages
    assert f"page 1 of {len(pages)}" in text_of(pages[:1])

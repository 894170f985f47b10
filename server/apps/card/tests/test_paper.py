"""The card on paper, read back: text, pages, fonts, and the code that opens it."""

import io

import pypdf
import pytest
import zxingcpp
from PIL import Image
from weasyprint import HTML

from server.apps.card.paper import _code
from server.apps.card.tests.test_card import mark, read, released, setter  # noqa: F401 # fixtures
from server.apps.runs.models import Run

pytestmark = pytest.mark.django_db


def paper(person, run, **asked):
    more = "&".join(f"{n}={v}" for n, v in asked.items())
    answer = person.get(f"/api/runs/{run.pk}/card.pdf?{more}")
    assert answer.status_code == 200, answer.content[:300]
    assert answer["Content-Type"] == "application/pdf"
    return pypdf.PdfReader(io.BytesIO(answer.content))


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


def test_its_fonts_are_in_it(setter, released):  # noqa: F811
    for page in paper(setter, released).pages:
        for font in fonts(page):
            assert any(n.startswith("/FontFile") for n in font["/FontDescriptor"].get_object()), font["/BaseFont"]
    assert any("Plex" in f["/BaseFont"] for f in fonts(paper(setter, released).pages[0]))


def test_its_code_opens_the_card(setter, released):  # noqa: F811
    svg = _code("http://127.0.0.1:8787/runs/1/card")
    assert decoded(svg) == "http://127.0.0.1:8787/runs/1/card"
    assert f"/runs/{released.pk}/card" in text_of(paper(setter, released).pages[:1]).replace(" ", "")


def decoded(svg):
    """What a camera reads of a code, drawn from its path: rows of dark squares."""
    pdf = HTML(string=f"<style>@page{{size:60mm;margin:8mm}}svg{{width:44mm;height:44mm}}</style>{svg}").write_pdf()
    page = pypdf.PdfReader(io.BytesIO(pdf)).pages[0]
    found = zxingcpp.read_barcodes(rasterized(page))
    return found[0].text if found else None


def rasterized(page, scale=6):
    """A page of filled and stroked lines alone, as a picture."""
    wide, high = float(page.mediabox.width), float(page.mediabox.height)
    image = Image.new("L", (round(wide * scale), round(high * scale)), 255)
    at, width, where = [1.0, 0.0, 0.0, 1.0, 0.0, 0.0], 1.0, (0.0, 0.0)
    stack = []

    def by(m, n):
        return [
            m[0] * n[0] + m[1] * n[2],
            m[0] * n[1] + m[1] * n[3],
            m[2] * n[0] + m[3] * n[2],
            m[2] * n[1] + m[3] * n[3],
            m[4] * n[0] + m[5] * n[2] + n[4],
            m[4] * n[1] + m[5] * n[3] + n[5],
        ]

    def point(x, y):
        px, py = x * at[0] + y * at[2] + at[4], x * at[1] + y * at[3] + at[5]
        return px * scale, (high - py) * scale

    content = pypdf.generic.ContentStream(page["/Contents"], page.pdf)
    for operands, operator in content.operations:
        values = [float(o) for o in operands] if operator in (b"cm", b"w", b"m", b"l") else []
        if operator == b"q":
            stack.append((at, width))
        elif operator == b"Q":
            at, width = stack.pop()
        elif operator == b"cm":
            at = by(values, at)
        elif operator == b"w":
            width = values[0]
        elif operator == b"m":
            where = tuple(values)
        elif operator == b"l":
            (x0, y0), (x1, y1) = where, values
            a, b = point(x0, y0 - width / 2), point(x1, y1 + width / 2)
            image.paste(
                0, tuple(round(v) for v in (min(a[0], b[0]), min(a[1], b[1]), max(a[0], b[0]), max(a[1], b[1])))
            )
            where = (x1, y1)
    return image


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


def test_a_very_long_name_stays_on_the_page(setter, released):  # noqa: F811
    Run.objects.filter(pk=released.pk).update(name='Carrier "with" \\ {braces} ' + "x" * 54)
    pages = paper(setter, released).pages
    assert f"page 1 of {len(pages)}" in text_of(pages[:1])

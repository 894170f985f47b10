"""An accessibility scan of every screen, and the text equivalent of the drawing."""

import pytest
from playwright.sync_api import expect

from commands.places import WEB
from e2e.screen import open_stop

AXE = (WEB / "node_modules" / "axe-core" / "axe.min.js").read_text()


def serious(page):
    page.evaluate(AXE)
    found = page.evaluate("axe.run(document, {resultTypes: ['violations']})")["violations"]
    return [
        (v["id"], [n["html"][:160] for n in v["nodes"]][:3]) for v in found if v["impact"] in ("serious", "critical")
    ]


def test_the_bench(app):
    expect(app.get_by_role("heading", name="Bench")).to_be_visible()
    assert serious(app) == []


@pytest.mark.parametrize("stop", ["part", "hold", "jaws", "force", "cuts"])
def test_every_stop(app, run, stop):
    open_stop(app, run, stop)
    assert serious(app) == []


def test_working_keys_and_a_refused_entry(app, run):
    open_stop(app, run, "force")
    app.keyboard.press("w")
    expect(app.get_by_role("region", name="Working of")).to_be_visible()
    assert serious(app) == []
    app.keyboard.press("w")
    app.get_by_role("textbox", name="Gauge pressure, bar").fill("abc")
    expect(app.get_by_role("alert")).to_be_visible()
    assert serious(app) == []


def test_the_drawing_has_a_text_equivalent(app, run):
    open_stop(app, run, "jaws")
    drawing = app.get_by_role("img", name="Half-section")
    expect(drawing).to_be_visible()
    assert "bored Ø84.00" in drawing.get_attribute("aria-label")
    open_stop(app, run, "force")
    assert "the cap is 811 rpm" in app.get_by_role("img", name="Grip against spindle speed").get_attribute("aria-label")


def test_the_sign_in_page(page, server, run):
    """Without the demo nobody is signed in: the page asks. Here the demo's people are away."""
    from server.foundation.models import Person

    Person.objects.update(is_active=False)
    page.goto(server.url)
    expect(page.get_by_role("button", name="Sign in")).to_be_visible()
    assert serious(page) == []
    Person.objects.create_user("setter", password="soft-jaws-and-tea", role="planner")
    page.get_by_label("Name").fill("setter")
    page.get_by_label("Password").fill("wrong")
    page.get_by_role("button", name="Sign in").click()
    expect(page.get_by_role("alert")).to_contain_text("do not fit together")
    page.get_by_label("Password").fill("soft-jaws-and-tea")
    page.get_by_role("button", name="Sign in").click()
    expect(page.get_by_role("link", name="Seal carrier")).to_be_visible()

"""An accessibility scan of every screen, and the text equivalent of the drawing."""

from playwright.sync_api import expect

from commands.places import WEB
from e2e.screen import address, go, look_as, open_stop
from server.apps.runs.models import Run

STOPS = ("part", "sides", "hold", "jaws", "force", "tools", "cuts", "route")
# What WCAG 2 asks at levels A and AA; what is only advice is never found serious.
RULES = ["wcag2a", "wcag2aa", "wcag21a", "wcag21aa", "wcag22aa"]
CONTRAST = "color-contrast"
AXE = (WEB / "node_modules" / "axe-core" / "axe.min.js").read_text()


def serious(page, only=RULES, without=()):
    """What axe finds serious on the page in view, by the rules named, some left out."""
    if not page.evaluate("'axe' in window"):
        page.evaluate(AXE)
    options = {"resultTypes": ["violations"], "preload": False, "runOnly": only}
    options["rules"] = {name: {"enabled": False} for name in without}
    found = page.evaluate("options => axe.run(document, options)", options)["violations"]
    return [
        (v["id"], [n["html"][:160] for n in v["nodes"]][:3]) for v in found if v["impact"] in ("serious", "critical")
    ]


PLACES = {
    "/": "Bench",
    "/new": "New run",
    "/board": "Board",
    "/shelf": "Shelf",
    "/shelf/chuck/lathe-3-chuck": "Shelf",
    "/shelf/chuck/new": "Shelf",
    "/shelf/material": "Shelf",
    "/shelf/jaw_set/set-7": "Shelf",
    "/people": "People",
    "/notebook": "Notebook",
    "/practice": "Practice",
    "/practice/apprentice": "The apprentice’s bench",
    "/practice/read-blue?seed=3&level=1": "Read the blue",
    "/calculators": "Calculators",
    "/rules": "House rules",
    "/trail": "Trail",
    "/runs/{run}/releases": "Releases of Seal carrier",
    "/runs/{run}/history": "History of Seal carrier",
}


SCREENS = {"desk": (1280, 800), "tablet": (1024, 768), "phone": (390, 844)}


def seen_in_both_sets(app):
    """What is wrong with the page in view, at every size, in the light and in the dark set.

    The sets differ in their colours alone: in the dark one only contrast can be another. What is seen on what is the
    same at every size, so contrast, which takes longest, is looked at on a desk.
    """
    found = {}
    for size, (width, height) in SCREENS.items():
        app.set_viewport_size({"width": width, "height": height})
        wrong = serious(app, without=() if size == "desk" else (CONTRAST,))
        if size == "desk":
            app.evaluate("document.documentElement.dataset.set = 'dark'")
            wrong += serious(app, [CONTRAST])
            app.evaluate("document.documentElement.dataset.set = 'light'")
        if wrong:
            found[size] = wrong
    app.set_viewport_size({"width": 1280, "height": 800})
    return found


def test_the_set_that_was_chosen_is_on_every_page(app, run):
    app.evaluate("localStorage.setItem('noble-anvil-set', 'dark')")
    for path in ("/", f"/runs/{run.pk}/force"):
        app.goto(address(app, path))
        expect(app.locator("html")).to_have_attribute("data-set", "dark")


def test_every_place_in_both_sets_at_three_sizes(app, run):
    look_as(app, "owner")
    found = {}
    for path, title in PLACES.items():
        go(app, path.format(run=run.pk))
        expect(app.get_by_role("heading", name=title, level=1)).to_be_attached()
        app.wait_for_load_state("networkidle")
        found[path] = seen_in_both_sets(app)
    assert found == {path: {} for path in PLACES}


SIZES = {"desk": (1280, 800), "tablet": (1024, 768), "phone": (390, 844), "desk at 200 %": (640, 400)}


SEEN = "[innerWidth, document.documentElement.scrollWidth]"
HANGING = """() => [...document.querySelectorAll('body *')]
  .filter(e => e.getBoundingClientRect().right > innerWidth + 0.5)
  .map(e => `${e.tagName} to ${Math.round(e.getBoundingClientRect().right)}: ${(e.textContent || '').slice(0, 40)}`)
  .slice(-3)"""


def hanging(app, width, height):
    """What hangs over the edge of a window of this size; None where all fits.

    A browser that is busy takes a new size late, once in a while not at all: then it is told again.
    """
    app.set_viewport_size({"width": width, "height": height})
    for _ in range(50):
        seen, wide = app.evaluate(SEEN)
        if seen == width and wide <= width:
            return None
        app.wait_for_timeout(100)
        if seen != width:
            app.set_viewport_size({"width": width, "height": height})
    return seen, wide, app.evaluate(HANGING)


def test_nothing_hangs_over_the_edge(app, run):
    Run.objects.filter(pk=run.pk).update(
        name="Extraordinarily-long-named-seal-carrier-without-a-single-space-in-its-name",
        drawing_number="LH-2041-REVISION-Q-SHEET-14-OF-27-METRIC",
    )
    over = []
    for path in [
        "/",
        "/new",
        "/board",
        "/rules",
        *(f"/runs/{run.pk}/{s}" for s in (*STOPS, "history")),
        "/shelf/chuck/lathe-3-chuck",
    ]:
        go(app, path)
        app.wait_for_load_state("networkidle")
        for units in ("metric", "inch") if path.startswith("/runs/") else ("metric",):
            for size, (width, height) in SIZES.items():
                if (found := hanging(app, width, height)) is not None:
                    over.append((path, size, units, found))
            app.keyboard.press("u")
    assert over == []


def test_every_stop_in_both_sets_at_three_sizes(app, run):
    found = {}
    for stop in STOPS:
        open_stop(app, run, stop)
        found[stop] = seen_in_both_sets(app)
    assert found == {stop: {} for stop in STOPS}


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
    assert "the cap is 791 rpm" in app.get_by_role("group", name="Grip against spindle speed").get_attribute(
        "aria-label"
    )


def test_the_sign_in_page(page, server, run):
    """Without the demo nobody is signed in: the page asks. Here the demo's people are away."""
    from server.foundation.models import Person

    Person.objects.update(is_active=False)
    page.goto(server.url)
    expect(page.get_by_role("button", name="Sign in")).to_be_visible()
    assert serious(page) == []
    Person.objects.create_user("ada", password="soft-jaws-and-tea", role="planner")
    page.get_by_label("Name").fill("ada")
    page.get_by_label("Password").fill("wrong")
    page.get_by_role("button", name="Sign in").click()
    expect(page.get_by_role("alert")).to_contain_text("do not fit together")
    page.get_by_label("Password").fill("soft-jaws-and-tea")
    page.get_by_role("button", name="Sign in").click()
    expect(page.get_by_role("link", name="Seal carrier")).to_be_visible()

"""Words on some pictures as the browser draws them: none stands on another.

All pictures, at more sizes and with letters counted, are held by the screens' own tests.
"""

from playwright.sync_api import expect

from e2e.screen import open_stop

SIZES = {"desk": (1280, 800), "phone": (390, 844)}
# Upright figures are turned; what a text fills is what the browser says it fills.
TEXTS = """
() => [...document.querySelectorAll('section[aria-label="Drawing"] svg text')].map(text => {
  const box = text.getBoundingClientRect()
  return [text.textContent, box.left, box.top, box.right, box.bottom]
}).filter(t => t[0].trim() !== '')
"""
SPARE = 1.5  # px, of the room that a line has over its letters


def clashes(texts):
    """Pairs of texts that share ground."""
    found = []
    for i, (one, left, top, right, bottom) in enumerate(texts):
        for other, x0, y0, x1, y1 in texts[i + 1 :]:
            across = min(right, x1) - max(left, x0)
            down = min(bottom, y1) - max(top, y0)
            if across > SPARE and down > SPARE:
                found.append((one, other))
    return found


def words(app):
    """The words of the picture in sight, once it is there: some pictures are loaded when they are first looked at."""
    expect(app.locator('section[aria-label="Drawing"] svg path').first).to_be_attached()
    app.evaluate("() => new Promise(done => requestAnimationFrame(() => requestAnimationFrame(done)))")
    app.wait_for_timeout(60)  # the picture is measured anew
    return app.evaluate(TEXTS)


def test_no_word_stands_on_another_on_any_picture_of_a_plan(app, run):
    wrong, looked = {}, {}
    for stop in ("part", "jaws", "force"):
        open_stop(app, run, stop)
        assert words(app), stop
        views = app.locator('section[aria-label="Drawing"] > div:first-child > button[aria-pressed]')
        for place in range(max(1, views.count())):
            if views.count():
                views.nth(place).click()
                expect(views.nth(place)).to_have_attribute("aria-pressed", "true")
            for size, (width, height) in SIZES.items():
                app.set_viewport_size({"width": width, "height": height})
                texts = words(app)
                looked[stop, size] = looked.get((stop, size), 0) + len(texts)
                if clashes(texts):
                    wrong[stop, place, size] = clashes(texts)
            app.set_viewport_size({"width": 1280, "height": 800})
    assert min(looked.values()) > 5, looked  # of each stop some picture has words
    assert wrong == {}

"""A card at the machine while the server is away: it goes on, waits, and is sent once."""

import re

import pytest
from django.contrib.sessions.models import Session
from playwright.sync_api import expect

from e2e.screen import PATIENCE_MS, address, look_as, released, until
from e2e.test_card import go_to, open_card, run  # noqa: F401 # a fixture
from server.apps.card.models import Mark, Reading
from server.apps.runs.models import Run
from server.conftest import _signed_in
from server.foundation.models import Person, Shop

KEPT = """async () => {
  for (const name of await caches.keys()) {
    if (!name.startsWith('anvil-cards-of-')) continue;
    const asked = await (await caches.open(name)).keys();
    if (asked.some(r => r.url.includes('/done')) && asked.some(r => r.url.includes('/card?'))) return true;
  }
  return false;
}"""


def until_kept(app):
    """Wait until this browser keeps the card in view."""
    until(app, lambda: app.evaluate("navigator.serviceWorker.controller !== null") and app.evaluate(KEPT))


def heading(app, title):
    return app.get_by_role("heading", name=title, level=2)


@pytest.fixture
def away(server):
    """Stops the server; it is there again afterwards, whatever comes of the test."""
    yield server.stop
    if server.process is None:
        server.start()


def test_a_card_that_was_opened_goes_on_without_the_server(app, run, server, away):  # noqa: F811
    open_card(app, run)
    app.get_by_role("button", name="Begin").click()
    until_kept(app)
    away()
    app.get_by_role("button", name="Done. Next: grease the chuck").click()
    expect(heading(app, "Grease the chuck")).to_be_visible()
    expect(app.get_by_text("The server does not answer")).to_be_visible()
    app.reload()  # the page itself comes from what is kept
    expect(heading(app, "Grease the chuck")).to_be_visible()
    expect(app.get_by_text(re.compile("One step waits here"))).to_be_visible()
    go_to(app, "Feeler gauge at the jaw's tip")
    app.get_by_role("button", name="0.050").click()
    app.get_by_role("button", name=re.compile("^Keep it here, not judged yet")).click()
    expect(app.get_by_text(re.compile("Nobody has judged yet what you read: feeler gauge"))).to_be_visible()
    app.reload()
    expect(app.get_by_text(re.compile("2 steps wait here"))).to_be_visible()
    assert Mark.objects.count() == 0
    server.start()
    expect(app.get_by_text("The server does not answer")).to_have_count(0)
    until(app, lambda: Reading.objects.count() == 1)
    until(app, lambda: Mark.objects.count() == 2)
    go_to_done(app, "Feeler gauge at the jaw's tip")
    expect(app.get_by_text("U 0.100")).to_be_visible()
    app.reload()
    expect(heading(app, "Grease the chuck")).to_be_visible()
    assert {m.step: m.state for m in Mark.objects.all()} == {"s1.clean": "done", "s1.feeler": "done"}
    assert all(m.came_at > m.at for m in Mark.objects.all())


def go_to_done(app, title):
    app.get_by_role("button", name=f"{title}: done", exact=True).click()
    expect(heading(app, title)).to_be_visible()


def test_another_place_leads_to_the_cards_that_are_kept(app, run, away):  # noqa: F811
    open_card(app, run)
    until_kept(app)
    away()
    app.goto(address(app, "/"))
    app.get_by_role("link", name="Seal carrier, release 1").click()
    expect(app.locator("dd", has_text="24.3 bar").first).to_be_visible()
    app.goto(address(app, f"/runs/{run.pk + 1}/card"))  # one that was not opened
    expect(app.get_by_text("This tablet keeps the cards that were opened on it")).to_be_visible()


def test_two_tablets_without_network_merge_and_a_double_reading_says_so(
    app,
    run,  # noqa: F811
    server,
    away,
    browser,
    browser_context_args,
):
    context = browser.new_context(**browser_context_args)
    other = context.new_page()
    other.set_default_timeout(PATIENCE_MS)
    other.goto(address(app, "/"))
    look_as(other, "operator")
    for page in (app, other):
        if page is app:
            open_card(page, run)
        else:
            page.goto(address(app, f"/runs/{run.pk}/card"))
        until_kept(page)
    away()
    app.get_by_role("button", name="Begin").click()
    app.get_by_role("button", name="Done. Next: grease the chuck").click()
    go_to(other, "Grease the chuck")
    other.get_by_role("button", name=re.compile("^Done. Next")).click()
    for page, gap in ((app, "0.050"), (other, "0.000")):
        go_to(page, "Feeler gauge at the jaw's tip")
        page.get_by_role("button", name="nothing goes in" if gap == "0.000" else gap).click()
        page.get_by_role("button", name=re.compile("^Keep it here")).click()
    server.start()
    until(app, lambda: Reading.objects.count() == 2 and Mark.objects.count() == 4)
    assert {m.step: m.by.username for m in Mark.objects.exclude(step="s1.feeler")} == {
        "s1.clean": "setter",
        "s1.grease": "operator",
    }
    assert all(r.twice for r in Reading.objects.all())
    for page in (app, other):
        page.reload()
        page.get_by_role("button", name=re.compile("Feeler gauge at the jaw's tip: (done|open)")).first.click()
        expect(page.get_by_text(re.compile("Read twice, neither knowing of the other"))).to_be_visible()
    other.goto("about:blank")
    context.close()


def sign_in(app):
    app.get_by_label("Name").fill("sam")
    app.get_by_label("Password").fill("soft-jaws-and-tea")
    app.get_by_role("button", name="Sign in").click()


def test_an_ended_session_signs_in_before_it_sends_and_signing_out_clears(app, run, server, away):  # noqa: F811
    Shop.objects.update(kind="real")
    Session.objects.all().delete()
    Person.objects.create_user("sam", password="soft-jaws-and-tea", role="setter")
    card = address(app, f"/runs/{run.pk}/card")
    app.goto(card)
    sign_in(app)
    app.get_by_role("button", name="Begin").click()
    until_kept(app)
    away()
    app.get_by_role("button", name="Done. Next: grease the chuck").click()
    expect(app.get_by_text(re.compile("One step waits here"))).to_be_visible()
    Session.objects.all().delete()
    server.start()
    expect(app.get_by_text("1 entry from the machine waits on this tablet for sam to sign in.")).to_be_visible()
    assert Mark.objects.count() == 0
    sign_in(app)
    until(app, lambda: Mark.objects.count() == 1)
    assert Mark.objects.get().by.username == "sam"
    app.goto(address(app, "/"))
    app.get_by_role("button", name="sam · setter").click()
    app.get_by_role("menuitem", name="Sign out", exact=True).click()
    expect(app.get_by_role("button", name="Sign in")).to_be_visible()
    assert app.evaluate("caches.keys()") == [n for n in app.evaluate("caches.keys()") if "cards-of" not in n]
    away()
    app.goto(card)  # nobody's card is shown to whoever comes next
    expect(app.get_by_role("heading", name="Seal carrier")).to_have_count(0)


def test_a_release_that_was_replaced_meanwhile_is_told(app, run, server, away):  # noqa: F811
    open_card(app, run)
    until_kept(app)
    away()
    app.get_by_role("button", name="Begin").click()
    app.get_by_role("button", name="Done. Next: grease the chuck").click()
    _signed_in("planner").edit(Run.objects.get(pk=run.pk), "part.quantity", value=77)
    released(Run.objects.get(pk=run.pk))
    server.start()
    expect(app.get_by_text("This release was replaced.")).to_be_visible()
    until(app, lambda: Mark.objects.count() == 1)
    assert Mark.objects.get().release.number == 1  # what was done was done at the card that was there

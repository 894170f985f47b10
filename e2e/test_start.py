"""From a print to a settled plan, and to the machine: every click and every key counted."""

import re
import time

import pytest
from playwright.sync_api import expect

from e2e.screen import rail, until
from server import kept_demo
from server.apps.runs.models import Edit, Release, Run

FOLLOWER = {
    "name": "Gland follower",
    "number": "LH-2260",
    "machine": "Lathe 3",
    "material": "stainless 1.4301",
    "units": "mm",
    "outside": "96x12;64h8x26 Ra1.6",
    "bore": "40H7",
    "quantity": "60",
    "stock": ("100", "42"),
}
# An inch part of our own: a collar with a pilot, of aluminium.
COLLAR = {
    "name": "Pilot collar",
    "number": "LH-2271",
    "machine": "Lathe 3",
    "material": "aluminium 6082-T6",
    "units": "inch",
    "outside": "4.5x.75;2.75h8x1.25 Ra63",
    "bore": "1.5H7",
    "quantity": "25",
    "stock": ("4.625", "2.125"),
}
SETUP_CLICKS, SETUP_KEYS, RELEASE_CLICKS = 20, 110, 6


@pytest.fixture
def run(server, transactional_db):
    """The whole demo shop, fresh: its chucks are greased and measured."""
    kept_demo.begun()
    server.start_worker()


class Hand:
    """A person at the screen, whose clicks and keys are counted."""

    def __init__(self, app):
        self.app, self.clicks, self.keys = app, 0, 0

    def click(self, role, name, **more):
        self.clicks += 1
        self.app.get_by_role(role, name=name, **more).click()

    def write(self, text):
        self.keys += len(text)
        self.app.keyboard.type(text)

    def next(self, times=1):
        for _ in range(times):
            self.keys += 1
            self.app.keyboard.press("Tab")

    def choose(self, label, option):
        self.click("button", re.compile(rf"{label}$"))
        self.click("option", option, exact=True)

    def tick(self, box):
        self.clicks += 1
        box.check()


class Keyboard(Hand):
    """The same person without a mouse: what is to be pressed is reached by Tab."""

    MOST = 150  # stops on the way round a page

    def reach(self, target):
        for _ in range(self.MOST):
            if target.evaluate("element => element === document.activeElement"):
                return
            self.next()
        raise AssertionError(f"{target} is not reached by Tab")

    def click(self, role, name, **more):
        target = self.app.get_by_role(role, name=name, **more)
        expect(target).to_be_visible()
        self.reach(target)
        if role != "textbox":
            self.press("Enter")

    def press(self, key):
        self.keys += 1
        self.app.keyboard.press(key)

    def tick(self, box):
        self.reach(box)
        self.press("Space")

    def choose(self, label, option):
        self.click("button", re.compile(rf"{label}$"))
        wanted = self.app.get_by_role("option", name=option, exact=True)
        expect(wanted).to_be_visible()
        for _ in range(self.MOST):
            if wanted.evaluate("element => element === document.activeElement"):
                break
            self.press("ArrowDown")
        self.press("Enter")


def from_the_print(hand, part):
    """A new run, written off the print by hand."""
    hand.click("button", "New run")
    expect(hand.app.get_by_label("Name", exact=True)).to_be_focused()
    hand.write(part["name"])
    hand.next()
    hand.write(part["number"])
    hand.choose("Machine", part["machine"])
    hand.choose("Material", part["material"])
    if part["units"] == "inch":
        hand.click("radio", "inch")
    hand.click("textbox", re.compile("^Outside"))
    hand.write(part["outside"])
    hand.next()
    hand.write(part["bore"])
    hand.next()
    hand.write(part["quantity"])
    hand.click("textbox", re.compile("^Stock diameter"))
    hand.write(part["stock"][0])
    hand.next()
    hand.write(part["stock"][1])


@pytest.mark.parametrize(
    ("part", "by"), [(FOLLOWER, Hand), (COLLAR, Hand), (FOLLOWER, Keyboard)], ids=["metric", "inch", "by keys alone"]
)
def test_from_a_print_to_the_machine(app, run, part, by):
    hand = by(app)
    from_the_print(hand, part)
    began = time.monotonic()
    hand.click("button", "Propose the set-ups")
    expect(app.get_by_text(re.compile("values proposed")).first).to_be_visible()
    first = time.monotonic() - began
    until(app, lambda: Edit.objects.filter(run__name=part["name"]).count() == 2)
    whole = time.monotonic() - began
    made = Run.objects.get(name=part["name"])
    assert made.standing["verdict"] == "settled"
    expect(rail(app, "Force")).to_contain_text("cap")
    clicks, keys = hand.clicks, hand.keys
    hand.click("button", "Side 1 looks right")
    expect(app.get_by_role("button", name="Side 1 looks right")).to_have_count(0)
    hand.click("button", "Side 2 looks right")
    expect(app.get_by_role("button", name="Side 2 looks right")).to_have_count(0)
    hand.click("link", "not for the machine")
    expect(app.get_by_label("What always holds")).to_be_visible()
    for box in app.get_by_role("checkbox").all():
        hand.tick(box)
    hand.click("button", re.compile("^Sign, and release"))
    expect(app.get_by_text("Release 1 is at the machine.")).to_be_visible()
    until(app, lambda: Release.objects.filter(run=made).count() == 1)
    more = hand.clicks - clicks
    print(
        f"\n{part['name']}: settled with {clicks} clicks and {keys} keys, {first:.1f} s to the first values, "
        f"{whole:.1f} s to all of them; released with {more} clicks more"
    )
    if by is Hand:
        assert (clicks <= SETUP_CLICKS, keys <= SETUP_KEYS, more <= RELEASE_CLICKS) == (True, True, True)
    else:
        assert hand.clicks == 0

"""Practice in the browser: an exercise answered, a dangerous answer told, real work, and what an owner sees."""

import re

from playwright.sync_api import expect

from calc.practice.kinds import KINDS
from e2e.screen import address, go, look_as


def option(kind, seed, verdict):
    """The words of an option that is right, or dangerous."""
    return next(o.words.text() for o in KINDS[kind].exercise(seed, 1).answer.options if o.verdict == verdict)


def test_an_exercise_is_answered_and_the_next_one_comes(app, run):
    app.goto(address(app, "/"))
    app.get_by_role("link", name="Practice", exact=True).click()
    app.get_by_role("link", name=re.compile("^Begin: ")).click()
    expect(app.get_by_role("heading", name="Which end is made first?")).to_be_visible()
    expect(app.get_by_role("group", name=re.compile("^Drawing"))).to_be_visible()
    app.get_by_role("radio", name=re.compile("end")).first.click(force=True)
    app.get_by_role("button", name="Answer").click()
    grade = app.get_by_label("Grade")
    expect(grade).to_contain_text("The rule: Look for the diameter")
    grade.get_by_text("Show the working").click()
    grade.get_by_role("button", name="Next").click()
    expect(app.get_by_role("button", name="Answer")).to_be_visible()


def test_a_dangerous_answer_says_what_it_would_have_done_and_the_subject_is_due(app, run):
    go(app, "/practice/jaws-close?seed=5&level=1&version=1")
    app.get_by_text(option("jaws-close", 5, "dangerous"), exact=True).click()
    app.get_by_role("button", name="Answer").click()
    expect(app.get_by_role("alert", name="Grade")).to_contain_text("Dangerous.")
    app.get_by_role("link", name="All subjects").click()
    row = app.get_by_role("row", name=re.compile("Which way the jaws are pressed"))
    expect(row).to_contain_text("1 of 1")
    look_as(app, "owner")
    go(app, "/practice")
    expect(app.get_by_role("region", name="Who has practised")).to_be_visible()


def test_a_figure_is_answered_in_inches_by_keys_alone(app, run):
    value = KINDS["paper"].exercise(12, 1).answer.value
    go(app, "/practice/paper?seed=12&level=1&version=1&units=inch")
    entry = app.get_by_label(re.compile("^The jaws are now, in"))
    expect(entry).to_be_focused()
    app.keyboard.type(f"{value / 25.4:.4f}")
    app.keyboard.press("Enter")
    expect(app.get_by_label("Grade")).to_contain_text("Right.")
    app.keyboard.press("Enter")
    expect(app.get_by_role("button", name="Answer")).to_be_visible()


def test_a_moment_of_a_plan_is_practised(app, run):
    go(app, f"/practice/from/{run.pk}")
    app.get_by_role("button", name=re.compile("^Grip at a pressure")).first.click()
    app.get_by_label(re.compile("^Static grip")).fill("900")
    app.keyboard.press("Enter")
    expect(app.get_by_role("alert", name="Grade")).to_contain_text("You would count on more than there is")


def test_the_apprentice_brings_jaws_even_and_sees_what_speed_takes(app, run):
    go(app, "/practice/apprentice")
    holds = app.get_by_role("region", name="What it holds")
    expect(holds).to_contain_text("41.4 kN")
    slider = app.get_by_role("slider", name="Spindle speed")
    slider.focus()
    app.keyboard.press("Home")
    expect(holds.get_by_text("54.6 kN")).to_have_count(2)  # standing still, twice
    taper = 0.038
    for _ in range(9):
        app.get_by_label("Taper, on diameter, mm").fill(f"{taper:.3f}")
        app.get_by_role("button", name="Cut the jaws").click()
        status = app.get_by_role("region", name="The jaws").get_by_role("status")
        expect(status).to_have_text(re.compile("Even after|Not even yet"))
        app.wait_for_timeout(300)
        if "Even after" in status.inner_text():
            break
        taper += 0.02
    expect(app.get_by_role("button", name="A new set of jaws")).to_be_visible()

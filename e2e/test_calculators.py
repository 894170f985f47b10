"""Calculators by themselves: filled with an example, answering as one types, with a plan's figures and back."""

import re

from playwright.sync_api import expect

from e2e.screen import address, go, until
from server.apps.runs.models import Run


def test_a_calculator_answers_as_one_types_in_both_unit_systems(app, run):
    app.goto(address(app, "/"))
    app.get_by_role("link", name="Calculators").click()
    app.get_by_role("link", name="Feed window", exact=True).click()
    answer = app.get_by_role("region", name="Answer")
    expect(answer).to_contain_text("0.282 mm/rev")  # opened with its worked example
    expect(app.get_by_role("img", name=re.compile("All allow 0.267"))).to_be_visible()
    app.get_by_label(re.compile("^Ra|^Finish")).fill("1.6")
    expect(app.get_by_role("img", name=re.compile("They clash"))).to_be_visible()
    app.get_by_label("Corner radius, mm").fill("1/64 in")
    expect(app.locator("[data-old]")).to_have_count(0)
    app.get_by_role("radio", name="inch").click()
    expect(answer).to_contain_text("ipr")
    expect(app.get_by_label("Corner radius, in")).to_have_value("0.015625")
    app.get_by_label("Corner radius, in").fill("wide")
    expect(app.get_by_text(re.compile("“wide” is not a figure"))).to_be_visible()
    expect(app.get_by_text("The answer waits for what is marked.")).to_be_visible()


def test_rows_are_pasted_and_a_drift_is_drawn(app, run):
    go(app, "/calculators/grip-fit")
    cell = app.get_by_label("Spindle speed, row 1")
    expect(cell).to_have_value("0")
    paste = """(cell, text) => {
      const data = new DataTransfer();
      data.setData("text", text);
      cell.dispatchEvent(new ClipboardEvent("paste", { clipboardData: data, bubbles: true, cancelable: true }));
    }"""
    cell.evaluate(paste, "0\t40\n1000\t36\n2000\t24\n3000\t4\n")
    expect(app.get_by_role("region", name="Answer")).to_contain_text("40.0 kN")  # 40 − 4·(n/1000)²
    app.get_by_role("button", name="Take out row 4").click()
    expect(app.get_by_label("Spindle speed, row 4")).to_have_count(0)
    go(app, "/calculators/drift")
    app.get_by_label("Sizes, mm, one a line").fill("\n".join(f"{83.97 + 0.001 * i:.3f}" for i in range(10)))
    expect(app.get_by_role("img", name=re.compile("10 sizes; the line is at 83.9790"))).to_be_visible()


def test_what_does_not_matter_is_not_shown(app, run):
    go(app, "/calculators/jaw-mass")
    expect(app.get_by_label("Width, mm")).to_be_visible()
    app.get_by_role("radio", name="full-wrap pie").click()
    expect(app.get_by_label("Width, mm")).to_have_count(0)
    expect(app.get_by_label("Outer radius, mm")).to_be_visible()


def test_figures_of_a_plan_are_taken_and_put_back(app, run):
    go(app, "/calculators/cut")
    app.get_by_role("button", name="Take from a plan").click()
    app.get_by_label("Which run").fill(run.drawing_number)
    app.get_by_role("button", name=re.compile(run.drawing_number)).click()
    app.get_by_role("region", name="Take from a plan").get_by_role("button", name=re.compile("Face")).first.click()
    expect(app.get_by_role("region", name="From a plan")).to_contain_text("Face")
    app.get_by_label("Feed, mm/rev").fill("0.17")
    app.get_by_role("button", name="Put 1 figure back into the plan").click()
    expect(app.get_by_text("The plan has them now.")).to_be_visible()
    until(app, lambda: "0.17" in str(Run.objects.get(pk=run.pk).document["setups"]))

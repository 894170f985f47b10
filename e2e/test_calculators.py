"""Calculators by themselves: a question that belongs to no plan."""

from __future__ import annotations

from playwright.sync_api import expect

from e2e.screen import address, go


def test_a_calculator_answers_with_its_working_and_tells_what_is_wrong(app, run):
    app.goto(address(app, "/"))
    app.get_by_role("link", name="Calculators").click()
    app.get_by_role("link", name="coolant").click()
    form = app.get_by_role("form", name="coolant")
    form.get_by_label("Refractometer").fill("4")
    form.get_by_label("Factor", exact=True).fill("1.5")
    form.get_by_label("Strength wanted, %").fill("eight")
    form.get_by_label("In the tank, l").fill("200")
    form.get_by_role("button", name="Compute").click()
    expect(app.get_by_role("alert").first).to_be_visible()
    form.get_by_label("Strength wanted, %").fill("8")
    form.get_by_role("button", name="Compute").click()
    answer = app.get_by_role("table", name="Answer")
    expect(answer.get_by_role("row", name="Add concentrate")).to_contain_text(
        "4.4 l"
    )  # 200 * (8 - 6)/(100 - 8) = 4.348
    expect(app.get_by_role("table", name="Working")).to_contain_text("200 · (8 − 6) / (100 − 8)")


def test_an_insert_code_is_explained(app, run):
    go(app, "/calculators/insert-code")
    app.get_by_label("Designation").fill("cnmg 432")
    app.get_by_role("button", name="Compute").click()
    expect(app.get_by_role("table", name="Answer")).to_contain_text("CNMG 120408")

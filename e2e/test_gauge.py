"""A chuck's grip measured: read from a gauge, fitted, kept, and counted with in a plan; greasing noted."""

import re

from playwright.sync_api import expect

from e2e.screen import go, look_as, open_stop, until
from server.apps.gauge.models import GaugeRun, Reading


def test_a_run_is_read_from_the_gauge_kept_and_counted_with(app, run):
    open_stop(app, run, "force")
    app.get_by_role("link", name="Measured grip and greasing of this chuck").click()
    expect(app.get_by_text("No greasing is on record")).to_be_visible()
    look_as(app, "setter")
    go(app, "/chucks/lathe-3-chuck/gauge")
    app.get_by_role("button", name="Greased just now").click()
    expect(app.get_by_text("Greased today.")).to_be_visible()

    app.get_by_role("button", name="New run").click()
    app.get_by_role("button", name="Read from Simulated gauge").click()
    expect(app.get_by_text(re.compile("needed|figure", re.IGNORECASE)).first).to_be_visible()
    app.get_by_label("Gauge pressure, bar").fill("14")
    app.get_by_label("Gauge height, mm").fill("60")
    app.get_by_role("button", name="Read from Simulated gauge").click()
    expect(app.get_by_role("region", name="Readings arriving")).to_contain_text("readings so far")
    expect(app.get_by_text("The gauge has ended its run: 120 readings.")).to_be_visible()
    assert Reading.objects.count() == 120
    app.get_by_role("button", name="Let plans count with it").click()
    expect(app.get_by_text(re.compile("; plans count with it"))).to_be_visible()
    kept = GaugeRun.objects.get()
    assert kept.static_grip_n is not None
    assert abs(kept.static_grip_n - 46_000) < 1_000

    look_as(app, "planner")
    open_stop(app, run, "force")
    app.get_by_role("button", name=re.compile("Chuck condition")).click()
    app.get_by_role("option", name="the best that is known").click()
    expect(app.locator('[data-fact="condition"]')).to_contain_text("gauge run of")
    until(app, lambda: GaugeRun.objects.filter(kept_at__isnull=False).exists())


def test_typed_readings_are_told_what_is_wrong_and_an_outlier_is_left_out(app, run):
    go(app, "/chucks/lathe-3-chuck/gauge")
    app.get_by_role("button", name="New run").click()
    app.get_by_label("Gauge pressure, bar").fill("24")
    app.get_by_label("Gauge height, mm").fill("60")
    readings = app.get_by_label("Readings, typed or pasted from a CSV file")
    lines = [f"{n}; {70 - 5.6e-6 * n * n:.2f}" for n in range(0, 2401, 200)]
    readings.fill("rpm; grip kN\n" + "\n".join(lines).replace(".", ","))
    app.get_by_role("button", name="Take these readings in").click()
    expect(app.get_by_text(re.compile("comma for its decimals"))).to_be_visible()
    lines[5] = "1000; 76"
    readings.fill("rpm; grip kN\n" + "\n".join(lines))
    app.get_by_role("button", name="Take these readings in").click()
    expect(app.get_by_text(re.compile("1 of the readings stand off the curve, the first at 1"))).to_be_visible()
    app.get_by_role("button", name="leave the outliers out").click()
    expect(app.get_by_text(re.compile("stand off the curve"))).to_have_count(0)
    expect(app.get_by_role("button", name="take 1 in again")).to_be_visible()
    app.get_by_role("button", name="Let plans count with it").click()
    expect(app.get_by_text("Condition: measured over book")).to_be_visible()

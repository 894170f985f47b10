"""Gauge runs: typed in, read live from a simulated gauge, fitted, kept, counted with in plans; the greasing log."""

import threading
import uuid
from contextlib import contextmanager
from datetime import date, timedelta

import pytest
from django.utils import timezone

from devices.gauge import GOOD, POOR, Faults, Gauge
from server.apps.gauge import live
from server.apps.gauge.known import measured
from server.apps.gauge.models import GaugeRun, Greasing, Reading
from server.apps.shelf import queries as shelf
from server.apps.shelf.queries import NO_STATE
from server.foundation.models import Person

TODAY = date.today()
RUN = {"source": "typed", "side": "od", "pressure": "24", "height": "60", "jaw_mass": "1.5", "jaw_radius": "70"}
TABLE = "rpm; grip kN\n" + "\n".join(f"{n}; {70 - 5.6e-6 * n * n:.4f}" for n in range(0, 2601, 200))


def take_in(person, chuck, **given):
    return person.send(f"chucks/{chuck}/gauge-runs", {**RUN, "readings": TABLE, "key": str(uuid.uuid4()), **given})


@pytest.fixture(autouse=True)
def _one_day(monkeypatch):
    """These tests stay on one day, even where midnight passes while they run."""
    monkeypatch.setattr(timezone, "localdate", lambda *_: TODAY)


@pytest.fixture
def chuck(demo):
    return demo.setups.first().chuck.key


@contextmanager
def gauge(settings, model=GOOD, faults=None, rate=2000.0, count=120):
    with Gauge(0, model, faults or Faults(), rate, count, seed=4) as running:
        threading.Thread(target=running.serve_forever, daemon=True).start()
        settings.GAUGES = f"Test gauge=127.0.0.1:{running.server_address[1]}"
        yield running
        running.shutdown()


def heard(person, run_id, name="Test gauge"):
    """What comes of reading a gauge, and how far it was told to have come."""
    status, answer = person.answer(f"gauge-runs/{run_id}/listen", {"gauge": name})
    assert status == 200, answer
    return answer


@pytest.mark.django_db
def test_a_typed_run_is_fitted_with_curve_and_figures(planner, chuck):
    status, page = take_in(planner, chuck)
    assert status == 201, page
    assert (page["total"], page["kept"], page["problem"], page["outliers"]) == (14, False, "", [])
    figures = {f["label"]: f["text"] for f in page["figures"]}
    assert figures["Grip standing still"] == "70.0\xa0kN"
    assert page["curve"][0] == [0, pytest.approx(70.0)]
    inch = planner.get(f"/api/gauge-runs/{page['id']}?units=inch").json()
    assert (inch["unit"], inch["readings"][0]["grip"]) == ("lbf", pytest.approx(15736.6, abs=0.1))


@pytest.mark.django_db
@pytest.mark.parametrize(
    ("given", "field", "words"),
    [
        ({"readings": ""}, "readings", "no readings yet"),
        ({"readings": "rpm; grip kN\n0; 40,5"}, "readings", "Write 40.5"),
        ({"readings": "rpm; grip kN\n0;4\n9;3\n5;2\n7;1"}, "readings", "falls and rises"),
        ({"pressure": ""}, "pressure", "needed"),
        ({"height": "tall"}, "height", "not"),
        ({"side": "up"}, "side", "outside or inside"),
        ({"on": "yesterday"}, "on", "year-month-day"),
        ({"on": (TODAY + timedelta(days=3)).isoformat()}, "on", "still to come"),
        ({"jaw_set": "none-such"}, "jaw_set", "on the shelf"),
    ],
)
def test_what_is_wrong_is_told_at_its_field_and_nothing_is_kept(planner, chuck, given, field, words):
    status, answer = take_in(planner, chuck, **given)
    assert status == 422, answer
    told = [e["message"] for e in answer["errors"] if e["field"] == field]
    assert told
    assert words in told[0] or field in ("pressure", "height")
    assert not GaugeRun.objects.exists()


@pytest.mark.django_db
def test_an_outlier_is_told_left_out_and_taken_in_again(planner, chuck):
    wild = TABLE.replace("1000; 64.4000", "1000; 72.0")
    assert wild != TABLE
    _, page = take_in(planner, chuck, readings=wild)
    assert page["outliers"] == [6]
    off = [r["off"] for r in page["readings"]]
    assert sum(off) == pytest.approx(0, abs=0.01)  # least squares with a free start: what stands off cancels
    assert max(range(len(off)), key=lambda i: abs(off[i])) == 5
    status, out = planner.send(f"gauge-runs/{page['id']}/left-out", {"numbers": [6], "left_out": True})
    assert (status, out["outliers"], out["readings"][5]["left_out"]) == (200, [], True)
    assert out["readings"][5]["off"] is None
    assert {f["label"]: f["text"] for f in out["figures"]}["Grip standing still"] == "70.0\xa0kN"


@pytest.mark.django_db
def test_a_kept_run_counts_in_the_plans_of_its_chuck_until_it_expires(planner, demo, chuck):
    path = "setups.s1.force.condition"
    planner.edit(demo, path, value="auto")
    demo.refresh_from_db()
    _, page = take_in(planner, chuck)
    status, kept = planner.send(f"gauge-runs/{page['id']}/keep", None)
    assert (status, kept["kept"]) == (200, True), kept
    run = GaugeRun.objects.get()
    fact = next(f for s in planner.plan(demo)["stops"] for f in s["facts"] if f["path"] == path)
    assert fact["basis"] == "measured"
    assert f"gauge run of {TODAY.isoformat()}" in fact["source"]
    assert f"{run.condition:.3f}"[:4] in fact["source"]
    listed = planner.get(f"/api/chucks/{chuck}/gauge").json()
    assert listed["counts"] == run.pk
    # The house rule says how long.
    planner.send("rules", {"base_number": 1, "values": {"gauge_days": "1"}, "reason": "trying it out"})
    GaugeRun.objects.update(on=TODAY - timedelta(days=5))
    assert planner.get(f"/api/chucks/{chuck}/gauge").json()["counts"] is None


@pytest.mark.django_db
def test_the_chucks_latest_condition_counts_with_the_transmission_of_the_jaws_that_are_on(planner, demo, chuck):
    one, other = (shelf.current().ids["jaw_set"][s.key] for s in shelf.current().sets_of_chuck(chuck)[:2])
    by = Person.objects.get(username="planner")
    common = {"chuck": demo.setups.first().chuck, "side": "od", "by": by, "pressure_bar": 24, "grip_height_mm": 60}

    def kept(days_ago, **more):
        on = TODAY - timedelta(days=days_ago)
        GaugeRun.objects.create(**common, **more, on=on, key=uuid.uuid4(), kept_at=timezone.now())

    kept(30, source="typed", jaw_set_id=one, condition=0.95, transmission=0.9)
    kept(20, source="live", jaw_set_id=other, condition=0.9, transmission=0.8)
    kept(5, source="card", jaw_set_id=one, condition=0.7)
    counts, pk = measured(NO_STATE), common["chuck"].pk
    seen = {s: (c.condition, c.transmission_for(c.jaw_set)) for s in (one, other) if (c := counts.calibration(pk, s))}
    assert seen == {one: (0.7, 0.9), other: (0.7, 0.8)}
    assert counts.calibration(pk, None).condition == 0.7


@pytest.mark.django_db
def test_a_fit_that_may_not_count_is_refused_with_the_reason(planner, chuck):
    _, page = take_in(planner, chuck, readings="rpm; grip kN\n0; 70\n1000; 50\n2000; 71\n2600; 40")
    assert not page["usable"]
    status, answer = planner.send(f"gauge-runs/{page['id']}/keep", None)
    assert (status, "explains" in answer["title"]) == (409, True)
    _, heavy = take_in(planner, chuck, jaw_mass="30")
    assert "transmission-odd" in {n["code"] for n in heavy["notes"]}
    _, off = take_in(planner, chuck, pressure="1")
    status, answer = planner.send(f"gauge-runs/{off['id']}/keep", None)
    assert status == 409


@pytest.mark.django_db
def test_a_run_that_counts_stays_as_it_is(planner, chuck):
    key = str(uuid.uuid4())
    _, page = take_in(planner, chuck, key=key)
    assert take_in(planner, chuck, key=key)[1]["id"] == page["id"]  # sent twice, taken in once
    planner.send(f"gauge-runs/{page['id']}/keep", None)
    assert planner.send(f"gauge-runs/{page['id']}/left-out", {"numbers": [1], "left_out": True})[0] == 409
    assert planner.send(f"gauge-runs/{page['id']}", None, "delete")[0] == 409
    _, other = take_in(planner, chuck)
    assert planner.send(f"gauge-runs/{other['id']}", None, "delete")[0] == 204
    assert planner.get(f"/api/gauge-runs/{other['id']}").status_code == 404
    assert planner.get(f"/api/gauge-runs/{2**40}").status_code == 404


@pytest.mark.django_db
def test_the_greasing_log_reminds_for_the_day(planner, operator, chuck):
    assert "No greasing" in planner.get(f"/api/chucks/{chuck}/gauge").json()["grease"]
    before = (TODAY - timedelta(days=3)).isoformat()
    assert (
        planner.send(f"chucks/{chuck}/greasings", {"on": before})[1]["grease"] == "Greased 3 days ago: grease it today."
    )
    assert planner.send(f"chucks/{chuck}/greasings", {"note": "moly"})[1]["grease"] == "Greased today."
    assert planner.send(f"chucks/{chuck}/greasings", {"note": "again"})[0] == 200
    assert Greasing.objects.count() == 2
    assert operator.send(f"chucks/{chuck}/greasings", {})[0] == 403
    assert planner.get("/api/chucks/none-such/gauge").status_code == 404


@pytest.mark.django_db
def test_a_falling_condition_is_told_before_it_matters(planner, chuck):
    for days, condition in ((20, 0.95), (14, 0.93), (8, 0.91), (2, 0.89)):
        _, page = take_in(planner, chuck, on=(TODAY - timedelta(days=days)).isoformat())
        planner.send(f"gauge-runs/{page['id']}/keep", None)
        GaugeRun.objects.filter(pk=page["id"]).update(condition=condition)
    page = planner.get(f"/api/chucks/{chuck}/gauge").json()
    assert [p["condition"] for p in page["trend"]] == [0.95, 0.93, 0.91, 0.89]
    # 0.02 in six days: 0.85 is reached twelve days after the last run.
    assert f"falls below 0.85 on {(TODAY + timedelta(days=10)).isoformat()}" in page["warning"]
    GaugeRun.objects.filter(pk=page["runs"][0]["id"]).update(condition=0.84)
    warning = planner.get(f"/api/chucks/{chuck}/gauge").json()["warning"]
    assert warning == "The condition is 0.84, below 0.85: grease the chuck, and measure again."


@pytest.mark.django_db
def test_the_demos_chuck_loses_slowly_and_recovers_when_it_is_greased(planner, signed_in, chuck):
    from server.apps.demo import shop
    from server.apps.gauge.actions.load import load_past
    from server.foundation.models import Person

    past = [shop._measured(30, 0.95), shop._measured(20, 0.91), shop._measured(10, 0.87), shop._measured(2, 0.96)]
    load_past(chuck, (4,), past, Person.objects.get(username="setter"))
    page = planner.get(f"/api/chucks/{chuck}/gauge").json()
    measured = [p["condition"] for p in page["trend"]]
    assert measured[0] > measured[1] > measured[2]
    assert measured[3] > measured[2]
    assert page["runs"][0]["kept"]
    assert 0.6 <= float(page["runs"][0]["transmission"]) <= 1.2
    assert page["grease"] == "Greased 4 days ago: grease it today."


# --- live ------------------------------------------------------------------------------------------


@pytest.mark.django_db(transaction=True)
def test_readings_arrive_are_kept_and_fit_the_gauges_own_model(planner, chuck, settings):
    with gauge(settings):
        _, page = take_in(planner, chuck, source="live", readings="", jaw_mass="", jaw_radius="")
        assert page["problem"]
        came = heard(planner, page["id"])
    assert (came["good"], came["total"], Reading.objects.count()) == (True, 120, 120)
    first = planner.get(f"/api/gauge-runs/{page['id']}/readings").json()
    assert (len(first["points"]), first["total"]) == (120, 120)
    assert planner.get(f"/api/gauge-runs/{page['id']}/readings?after=117").json()["points"] == first["points"][117:]
    assert planner.get(f"/api/gauge-runs/{page['id']}/readings?after=120").json() == {"points": [], "total": 120}
    done = planner.get(f"/api/gauge-runs/{page['id']}").json()
    static = float({f["label"]: f["text"] for f in done["figures"]}["Grip standing still"].split("\xa0")[0])
    assert static == pytest.approx(GOOD.static_n / 1000, rel=0.02)
    assert done["usable"]


@pytest.mark.django_db(transaction=True)
@pytest.mark.parametrize(
    ("faults", "words", "kept"),
    [
        (Faults(silent=True), "says nothing", 0),
        (Faults(nonsense=True), "what is no reading", 21),
        (Faults(stops_after=30), "broke off", 30),
    ],
)
def test_a_gauge_that_goes_wrong_gets_its_sentence_and_nothing_is_lost(
    planner, chuck, settings, faults, words, kept, monkeypatch
):
    monkeypatch.setattr(live, "SILENT_S", 0.4)
    with gauge(settings, faults=faults):
        _, page = take_in(planner, chuck, source="live", readings="")
        came = heard(planner, page["id"])
    assert (came["good"], came["total"]) == (False, kept)
    assert words in came["told"]
    assert Reading.objects.count() == kept


@pytest.mark.django_db(transaction=True)
def test_a_gauge_that_is_not_there_or_not_the_shops(planner, operator, chuck, settings):
    settings.GAUGES = "Test gauge=127.0.0.1:9, bad one, =1.2.3.4:5, x=nowhere"
    assert list(live.gauges()) == ["Test gauge"]
    _, page = take_in(planner, chuck, source="live", readings="")
    assert "does not answer at 127.0.0.1:9" in heard(planner, page["id"])["told"]
    assert planner.answer(f"gauge-runs/{page['id']}/listen", {"gauge": "Other"})[0] == 404
    assert operator.answer(f"gauge-runs/{page['id']}/listen", {"gauge": "Test gauge"})[0] == 403


@pytest.mark.django_db(transaction=True)
def test_reading_ends_when_nobody_waits_for_it_and_keeps_what_came(planner, chuck, settings):
    class Enough(Exception):
        pass

    def tell(total, _):
        if total >= 10:
            raise Enough

    with gauge(settings, rate=200.0):
        _, page = take_in(planner, chuck, source="live", readings="")
        with pytest.raises(Enough):
            live.listen(page["id"], "Test gauge", tell)
    assert 10 <= Reading.objects.count() < 120


@pytest.mark.django_db(transaction=True)
def test_a_gauge_that_says_nothing_for_a_while_is_still_asked_whether_anybody_waits(planner, chuck, settings):
    told = []
    with gauge(settings, rate=2.0, count=3):  # half a second between two readings
        _, page = take_in(planner, chuck, source="live", readings="")
        live.listen(page["id"], "Test gauge", lambda total, _: told.append(total))
    assert len(told) > 4 > len(set(told))


def test_a_poor_chuck_grips_less_and_sticks_more():
    import random

    from devices.gauge import grips

    good, poor = (list(grips(m, 200, random.Random(1))) for m in (GOOD, POOR))
    assert max(f for _, f in poor) < 0.7 * max(f for _, f in good)
    # Coming down, the guides hold back: at the same speed there is less grip than going up.
    up = next(f for n, f in poor[:100] if n > 2300)
    down = next(f for n, f in poor[100:] if n < 2300)
    assert down < up


@pytest.mark.parametrize("line", ["R 1 2", "R 1 x 3", "R 1 -5 3", "R 1 5 9e9", "X 1 2 3", "", "R 1 nan 3"])
def test_what_is_no_reading(line):
    assert live.parse(line) is None

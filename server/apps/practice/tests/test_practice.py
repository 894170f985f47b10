"""Practice: an exercise without its answer, grades that are kept once, what is due, who sees whom, paper, real work."""

import uuid
from datetime import timedelta
from io import BytesIO

import pytest
from django.utils import timezone
from pypdf import PdfReader

from calc.practice.exercise import Choice
from calc.practice.kinds import GENERATOR, KINDS
from server import kept_demo
from server.apps.practice.models import Attempt, Subject
from server.apps.runs.models import Run
from server.conftest import _signed_in
from server.foundation.models import Person


def answer(person, kind, seed, given, level=1, units="metric", key=None):
    body = {"key": key or str(uuid.uuid4()), "kind": kind, "seed": seed, "level": level, "given": given, "units": units}
    return person.send("practice/answers", body)


def right(kind, seed, level=1):
    found = KINDS[kind].exercise(seed, level).answer
    return found.right.key if isinstance(found, Choice) else repr(found.value)


def wrong(kind, seed, verdict):
    options = KINDS[kind].exercise(seed, 1).answer.options
    return next(o.key for o in options if o.verdict == verdict)


def verdicts(kind, seed):
    return [o.verdict for o in KINDS[kind].exercise(seed, 1).answer.options]


def subject(person, kind):
    return next(s for s in person.get("/api/practice").json()["subjects"] if s["kind"] == kind)


@pytest.mark.parametrize("kind", KINDS)
def test_an_exercise_is_sent_without_its_answer_in_either_unit(planner, kind):
    for units in ("metric", "inch"):
        found = planner.get(f"/api/practice/exercises/{kind}?seed=5&level=1&units={units}").json()
        assert (found["seed"], found["level"], found["generator"]) == (5, 1, GENERATOR)
        assert found["told"] == ""
        text = str(found)
        assert "verdict" not in text
        assert "dangerous" not in text
        exercise = found["exercise"]
        assert (exercise["kind"] == "choice") == bool(exercise["options"])
    assert planner.get(f"/api/practice/exercises/{kind}").json()["kind"] == kind  # a seed is drawn


def test_a_link_of_another_version_says_so(planner):
    found = planner.get("/api/practice/exercises/ring?seed=1&generator=99").json()
    assert "version 99" in found["told"]
    assert planner.get("/api/practice/exercises/none").status_code == 404
    assert planner.get("/api/practice/exercises/ring?seed=-1").status_code == 422


def test_an_answer_is_graded_and_kept_once(planner):
    key = str(uuid.uuid4())
    for _ in range(2):
        status, found = answer(planner, "ring", 4, right("ring", 4), key=key)
        assert (status, found["grade"]["verdict"]) == (200, "right")
        assert found["grade"]["working"]
    assert Attempt.objects.count() == 1
    assert found["subject"]["answers"] == 1
    status, told = answer(planner, "ring", 4, "none of them")
    assert (status, [e["field"] for e in told["errors"]]) == (422, ["given"])
    assert Attempt.objects.count() == 1
    assert answer(planner, "ring", 4, right("ring", 4) + "x", key=key)[0] in (409, 422)


def test_a_figure_is_read_in_the_units_that_are_shown(planner):
    value = KINDS["paper"].exercise(9, 1).answer.value
    assert answer(planner, "paper", 9, f"{value / 25.4:.6f}", units="inch")[1]["grade"]["verdict"] == "right"
    assert answer(planner, "paper", 9, f"{value:.3f} mm", units="inch")[1]["grade"]["verdict"] == "right"


def test_a_dangerous_answer_is_told_as_such_and_is_due_at_once(planner):
    found = answer(planner, "jaws-close", 3, wrong("jaws-close", 3, "dangerous"))[1]
    assert found["grade"]["verdict"] == "dangerous"
    assert found["grade"]["machine"]
    soon = found["subject"]["due"]
    assert soon < (timezone.now() + timedelta(minutes=15)).isoformat()
    assert found["subject"]["dangerous"] == 1


def test_right_ones_are_due_later_and_later_and_lead_to_the_next_level(planner, db):
    me = Person.objects.get(username="planner")
    for seed in range(3):
        answer(planner, "gauges", seed, right("gauges", seed))
    row = Subject.objects.get(person=me, kind="gauges")
    assert (row.level, row.streak) == (2, 0)
    first = row.due
    row.memory["due"] = row.memory["last_review"] = (timezone.now() - timedelta(days=9)).isoformat()
    row.save()
    answer(planner, "gauges", 7, right("gauges", 7, 2), level=2)
    assert Subject.objects.get(pk=row.pk).due > first + timedelta(days=1)
    # An easier one than one's own counts for nothing, a dangerous one leads back.
    answer(planner, "gauges", 8, right("gauges", 8), level=1)
    assert Subject.objects.get(pk=row.pk).streak == 1
    seed = next(s for s in range(50) if "dangerous" in verdicts("gauges", s))
    answer(planner, "gauges", seed, wrong("gauges", seed, "dangerous"))
    assert Subject.objects.get(pk=row.pk).level == 1


def test_what_is_due_longest_comes_next_then_what_was_never_practised(planner, db):
    assert planner.get("/api/practice").json()["next"] == next(iter(KINDS))
    answer(planner, "bar", 1, right("bar", 1))
    assert planner.get("/api/practice").json()["next"] != "bar"
    Subject.objects.filter(kind="bar").update(due=timezone.now() - timedelta(days=1))
    assert planner.get("/api/practice").json()["next"] == "bar"
    assert subject(planner, "bar")["is_due"]


def test_an_owner_sees_who_practised_and_what_is_hidden_stays_hidden(demo):
    operator, owner = _signed_in("operator"), _signed_in("owner")
    answer(operator, "bar", 1, right("bar", 1))
    assert operator.get("/api/practice/people").status_code == 403
    rows = {p["name"]: p for p in owner.get("/api/practice/people").json()}
    assert (rows["operator"]["answers"], rows["operator"]["subjects"]) == (1, {"bar": 1})
    assert operator.send("practice/hidden", {"hidden": True})[0] == 204
    assert operator.get("/api/practice").json()["hidden"]
    row = next(p for p in owner.get("/api/practice/people").json() if p["name"] == "operator")
    assert (row["hidden"], row["answers"], row["last"], row["subjects"]) == (True, 0, None, {})


def test_a_sheet_has_ten_exercises_and_their_answers_on_the_back(planner):
    for paper in ("A4", "Letter"):
        found = planner.get(f"/api/practice/sheet.pdf?seed=11&units=inch&paper={paper}")
        assert found["Content-Type"] == "application/pdf"
        pages = [p.extract_text() for p in PdfReader(BytesIO(found.content)).pages]
        back = next(i for i, text in enumerate(pages) if "Answers of sheet 11" in text)
        front = "\n".join(pages[:back])
        assert all(f"{n}. " in front for n in range(1, 11))
        assert "10. " in "\n".join(pages[back:])
    once, twice = (planner.get("/api/practice/sheet.pdf?seed=11").content for _ in range(2))
    assert once == twice


@pytest.fixture
def carrier(db):
    kept_demo.half_set()
    return Run.objects.get(drawing_number="LH-2041")


def test_a_moment_of_a_plan_is_an_exercise_and_is_graded(carrier):
    setter = _signed_in("setter")
    found = setter.get(f"/api/practice/from/{carrier.pk}").json()
    assert found["release"] is None
    one = next(m for m in found["moments"] if m["name"] == "chuck-grip")
    at = f"practice/from/{carrier.pk}/chuck-grip/{one['place']}"
    asked = setter.get(f"/api/{at}").json()["exercise"]
    assert asked["kind"] == "figure"
    assert "Gauge pressure" in [k["label"] for k in asked["known"]]
    status, told = setter.send(at, {"given": "500 kN"})
    assert (status, told["verdict"]) == (200, "dangerous")
    assert setter.send(at, {"given": told["right"].replace("\xa0", " ")})[1]["verdict"] == "right"
    assert not Attempt.objects.exists()
    assert setter.get(f"/api/practice/from/{carrier.pk}/chuck-grip/99").status_code == 404


def test_a_draft_is_practised_only_by_who_sees_it(carrier, planner):
    operator = _signed_in("operator")
    found = operator.get(f"/api/practice/from/{carrier.pk}").json()
    assert found["release"] == 1
    assert found["moments"]
    drafted = Run.objects.exclude(releases__isnull=False).first()
    assert operator.get(f"/api/practice/from/{drafted.pk}").status_code in (403, 404)
    assert planner.get(f"/api/practice/from/{drafted.pk}").status_code == 200


def test_the_apprentices_chuck_answers_and_its_jaws_are_brought_even(planner):
    given = {"seed": 3, "pressure_bar": 20, "height_mm": 60, "rpm": 1500, "grease": "week", "units": "inch"}
    status, found = planner.send("practice/apprentice", given)
    assert status == 200, found
    assert [k["value"].split("\xa0")[1] for k in found["shown"]] == ["psi", "in", "rpm"]
    assert found["cuts"] == []
    assert found["blue"] is None
    status, found = planner.send("practice/apprentice", given | {"tapers": ["0", "4 thou"]})
    assert [c["shows"] for c in found["cuts"]] == ["blue has crept in at the mouth", "blue has crept in at the floor"]
    assert found["blue"]["shapes"]
    status, told = planner.send("practice/apprentice", given | {"tapers": ["0.1 mm", "wide"]})
    assert (status, [e["field"] for e in told["errors"]]) == (422, ["tapers.1"])
    assert planner.send("practice/apprentice", given | {"pressure_bar": 99})[0] == 422

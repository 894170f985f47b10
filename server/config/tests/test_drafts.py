"""Who sees only releases finds no word of a draft, wherever they ask and whatever they know."""

import json
import uuid

import pytest

from server.apps.runs.models import Edit
from server.config.tests.test_permissions import ENDPOINTS, KEYED, taken_back
from server.foundation.models import Person, Shop

pytestmark = pytest.mark.django_db
SECRET = "zqsecret"
FIGURE = "98765"  # of a draft
DRAFT = {
    "name": f"{SECRET} carrier",
    "drawing_number": f"{SECRET}-2041",
    "part.quantity": FIGURE,
    "part.profile.outside.o1.name": f"{SECRET} spigot",
    "setups.s1.name": f"{SECRET} side",
}
MORE = [
    ("get", "runs?find=zqsecret", None),
    ("get", "runs?put_away=true", None),
    ("get", "find?words=zqsecret&run={run}", None),
    ("get", "find?words=98765&run={run}", None),
    ("get", "find?words=Lathe", None),
    ("get", "runs/{run}/plan?whole=true", None),
    ("get", "runs/{run}/plan?at=0&whole=true", None),
    ("get", "runs/{run}/plan?since=0", None),
    ("get", "runs/{run}/plan?release=1&whole=true", None),
    ("get", "runs/{run}/plan?release=2&whole=true", None),
    ("get", "runs/{run}/sides/s1/jaw-program?release=1", None),
    ("get", "runs/{run}/route-times.csv", None),
    ("get", "runs/{never}/plan", None),
    ("get", "runs/{never}/pulse", None),
    ("get", "runs/{never}/history", None),
    ("get", "runs/{never}/sides/s1/jaw-program", None),
    ("post", "runs/{run}/undo", {"key": "{mine}"}),
    ("post", "runs/{run}/redo", {"key": "{mine}"}),
    ("post", "runs/{run}/edits", {"path": "part.quantity", "text": "1", "base_revision": 0, "key": "{mine}"}),
    ("post", "runs/{run}/releases", {"confirmed": [], "base_revision": 0, "key": "{released}"}),
    ("get", "questions/{question}", None),
    ("get", "shelf", None),
    ("get", "shelf/machine/items/lathe-3", None),
    ("get", "shelf/chuck/items/lathe-3-chuck", None),
    ("post", "shelf/chuck/preview", {"key": "lathe-3-chuck"}),
    ("delete", "shelf/machine/items/lathe-3", None),
    ("get", "notebook/cuts?find=zqsecret", None),
]


def release(planner, run):
    asked = planner.get(f"/api/runs/{run.pk}/releases").json()
    key = str(uuid.uuid4())
    body = {"base_revision": asked["revision"], "confirmed": [c["code"] for c in asked["cautions"]], "key": key}
    assert planner.send(f"runs/{run.pk}/releases", body)[0] == 200
    return key


@pytest.fixture
def known(planner, demo, signed_in):
    """A run that was released twice and is a draft again, one never released, and every key that there is."""
    Shop.objects.update(kind="real")
    released = release(planner, demo)
    assert planner.edit(demo, "part.edge_mm", text="0.4")[0] == 200
    demo.refresh_from_db()
    release(planner, demo)
    for path, text in DRAFT.items():
        demo.refresh_from_db()
        assert planner.edit(demo, path, text=text)[0] == 200, path
    never = planner.send(f"runs/{demo.pk}/copy", {"name": f"{SECRET} never", "drawing_number": f"{SECRET}-9"})[1]["id"]
    status, _ = planner.send(f"runs/{demo.pk}/sides/s1/cuts/c1/keep", {"fields": {}, "key": str(uuid.uuid4())})
    assert status == 201
    planner.answer(f"runs/{demo.pk}/sides/s1/checks/real-contact", {})
    mine = str(Edit.objects.order_by("pk").last().key)
    known = {"run": demo.pk, "never": never, "mine": mine, "released": released, "question": planner.question}
    # Whoever planned and is now an operator knows all of it.
    Person.objects.filter(username="planner").update(role="operator")
    return known


def asked(client, known, method, path, body):
    names = known | {"name": "cut", "person": 1, "proven": 1}
    if path.startswith(KEYED) and body is not None and "key" not in body:
        body = {"key": str(uuid.uuid4())} | body
    said = {n: names.get(v[1:-1], v) if isinstance(v, str) else v for n, v in (body or {}).items()}
    answer = client.generic(
        method.upper(), f"/api/{path.format(**names)}", json.dumps(said), content_type="application/json"
    )
    return answer.status_code, answer.content.decode(errors="replace").lower()  # a PDF is no text


def test_no_endpoint_tells_an_operator_a_word_of_a_draft(known, planner, signed_in):
    told = []
    for method, path, body, *_ in [*ENDPOINTS, *MORE]:
        if (method, path) == ("delete", "runs/{run}"):
            continue
        for client in (planner, signed_in("operator")):
            with taken_back():
                status, said = asked(client, known, method, path, body)
                if SECRET in said or FIGURE in said.replace(" ", "").replace("\xa0", ""):
                    told.append((method, path, status))
    assert told == []


def test_the_words_are_there_for_who_sees_drafts(known, signed_in):
    setter = signed_in("setter")
    seen = sum(SECRET in asked(setter, known, method, path, body)[1] for method, path, body in MORE if method == "get")
    assert seen >= 8


def test_an_operator_sees_what_is_released_under_its_own_name_and_finds_it_by_that(known, signed_in):
    operator = signed_in("operator")
    row = operator.get("/api/runs").json()["rows"]
    assert [(r["name"], r["drawing_number"], r["quantity"], r["needs"]) for r in row] == [
        ("Seal carrier", "LH-2041", 240, "release 2")
    ]
    assert operator.get("/api/runs?find=seal").json()["total"] == 1
    hits = operator.get("/api/find?words=seal").json()
    assert [(h["title"], h["detail"]) for h in hits] == [("Seal carrier", "run · LH-2041 · release 2")]
    assert operator.get(f"/api/runs/{known['run']}/plan").json()["run"]["name"] == "Seal carrier"
    assert operator.get("/api/shelf/machine/items/lathe-3").json()["runs"] is None


def test_a_replaced_release_and_its_program_are_not_worked_by(known, signed_in, planner):
    operator, setter = signed_in("operator"), signed_in("setter")
    for place in ("plan", "sides/s1/jaw-program"):
        answer = operator.get(f"/api/runs/{known['run']}/{place}?release=1")
        assert answer.status_code == 403
        assert "release 2 is the one to work by" in answer.json()["title"]
        assert setter.get(f"/api/runs/{known['run']}/{place}?release=1").status_code in (200, 404)
        assert operator.get(f"/api/runs/{known['run']}/{place}?release=2").status_code in (200, 404)

"""Every endpoint asked as nobody and as every role."""

import json
import uuid
from contextlib import contextmanager

import pytest
from django.db import transaction
from django.test import Client

from calc.plan.document import new_document
from calc.plan.run_file import RunFile, write_run
from calc.shelf.taken import Shelf
from server.apps.notebook.models import ProvenCut
from server.apps.runs.models import Edit, Run
from server.apps.shelf.models import Machine
from server.config.api import api
from server.foundation.models import Person, Shop

PRESSURE, CONDITION = "setups.s1.force.pressure_bar", "setups.s1.force.condition"
KEEP = {"path": PRESSURE, "text": "27", "base_revision": 0}
SET = {"path": CONDITION, "value": "today", "base_revision": 0}
CUT = {"path": "setups.s1.cuts", "name": "Skim", "kind": "turn"}
RUN_FILE = write_run(RunFile("Read in", "X-2", new_document(), Shelf()))
NAMES = {"name": "Copy", "drawing_number": "X-1"}
LATHE = {"fields": {"name": "Lathe 9", "max_rpm": "3000", "power_kw": "10", "torque_nm": "90"}}
PERSON = {"username": "new", "password": "soft-jaws-and-tea", "role": "setter"}
LOOK = (200, 200, 200, 200)
PLAN = (403, 403, 200, 200)
DRAFT = (403, 200, 200, 200)
MAKE = (403, 403, 201, 201)
GONE = (403, 403, 204, 204)
ASK = (403, 403, 202, 202)
AT_LOT = {"release": 1, "lot": "s1"}
NO_QUESTION = "00000000-0000-4000-8000-000000000000"
WORKED = {"fields": {"kind": "turn", "material": "C45", "speed_m_min": "200", "feed_mm_rev": "0.2"}}
GAUGE = {"source": "live", "side": "od", "pressure": "24", "height": "60"}
# (method, path, body, what operator, setter, planner and owner get)
BENCH = {"seed": 1, "pressure_bar": 20, "height_mm": 60, "rpm": 900, "grease": "today"}
ENDPOINTS = [
    ("get", "session", None, LOOK),
    ("post", "session/look-as", {"role": "owner"}, (403, 403, 403, 403)),  # this is no demo
    ("post", "session/password", {"old": "x", "new": "y"}, (422, 422, 422, 422)),
    ("delete", "session/everywhere", None, (204, 204, 204, 204)),
    ("get", "trail", None, (403, 403, 403, 200)),
    ("get", "people", None, (403, 403, 403, 200)),
    ("post", "people", PERSON, (403, 403, 403, 201)),
    ("patch", "people/{person}", {"role": "setter"}, (403, 403, 403, 200)),
    ("get", "chucks/lathe-3-chuck/gauge", None, LOOK),
    ("post", "chucks/lathe-3-chuck/greasings", {"note": "moly"}, (403, 200, 200, 200)),
    ("post", "chucks/lathe-3-chuck/gauge-runs", GAUGE, (403, 201, 201, 201)),
    ("get", "gauge-runs/{run}", None, (404, 404, 404, 404)),  # this is no gauge run's number
    ("post", "gauge-runs/{run}/left-out", {"numbers": [], "left_out": True}, (403, 404, 404, 404)),
    ("post", "gauge-runs/{run}/keep", None, (403, 404, 404, 404)),
    ("delete", "gauge-runs/{run}", None, (403, 404, 404, 404)),
    ("post", "gauge-runs/{run}/listen", {"gauge": "Simulated gauge"}, (403, 404, 404, 404)),
    ("get", "gauge-runs/{run}/readings", None, (404, 404, 404, 404)),
    ("get", "rules", None, LOOK),
    ("get", "calendar", None, LOOK),
    ("post", "calendar", {"base_number": 2, "values": {"zone": "UTC"}}, PLAN),
    ("post", "rules", {"base_number": 1, "values": {"safety": "2.5"}, "reason": "said why"}, PLAN),
    ("get", "runs", None, LOOK),
    ("post", "runs", NAMES, MAKE),
    ("post", "runs/{run}/copy", NAMES, MAKE),
    ("get", "runs/{run}/file", None, DRAFT),
    ("post", "runs/file", {"text": RUN_FILE}, MAKE),
    ("get", "runs/{run}/plan", None, (404, 200, 200, 200)),  # nothing is released yet
    ("get", "runs/{run}/pulse", None, (404, 200, 200, 200)),
    ("get", "runs/{run}/history", None, DRAFT),
    ("get", "board", None, DRAFT),
    ("get", "board.ics", None, DRAFT),
    ("get", "runs/{run}/stays", None, DRAFT),
    ("post", "runs/{run}/board", {"base_revision": 0, "begins": 1.8e9}, PLAN),
    ("get", "runs/{run}/card", None, (404, 404, 404, 404)),  # nothing is released yet
    ("get", "runs/{run}/card.pdf", None, (404, 404, 404, 404)),
    ("get", "runs/{run}/card/1/done", None, (404, 404, 404, 404)),
    ("post", "runs/{run}/folder", {}, (403, 404, 404, 404)),  # nothing is released yet
    ("get", f"runs/{{run}}/folder/{NO_QUESTION}.pdf", None, (403, 404, 404, 404)),
    ("get", "runs/{run}/card/took", None, (403, 200, 200, 200)),
    ("post", "runs/{run}/card/marks", {"release": 1, "step": "s1.clean", "state": "done"}, (404, 404, 403, 403)),
    ("post", "runs/{run}/card/look", {"release": 1, "step": "s1.pressure", "values": {}}, (404, 404, 404, 404)),
    ("post", "runs/{run}/card/readings", {"release": 1, "step": "s1.pressure", "values": {}}, (404, 404, 403, 403)),
    ("get", "runs/{run}/running", None, (404, 404, 404, 404)),  # nothing is released yet
    ("get", "runs/{run}/running/1/s1/pulse", None, (404, 404, 404, 404)),
    ("get", "runs/{run}/running/1/s1/pieces/1", None, (404, 404, 404, 404)),
    ("get", "runs/{run}/running/1/s1/pieces.csv", None, (404, 404, 404, 404)),
    ("get", "runs/{run}/running/1/s1/closing", None, (404, 404, 404, 404)),
    ("post", "runs/{run}/running/closing", AT_LOT, (404, 404, 403, 403)),
    ("get", "runs/{run}/last-time", None, DRAFT),
    ("post", "runs/{run}/running/pieces", AT_LOT, (404, 404, 403, 403)),
    ("post", "runs/{run}/running/sizes", AT_LOT | {"values": {}}, (404, 404, 403, 403)),
    ("post", "runs/{run}/running/changes", AT_LOT | {"kind": "edge", "edge": "main.1"}, (404, 404, 403, 403)),
    ("post", "runs/{run}/running/stops", AT_LOT | {"what": "on"}, (404, 404, 403, 403)),
    ("post", "runs/{run}/running/corrections", AT_LOT | {"piece": 1, "why": "x"}, (404, 404, 403, 403)),
    ("post", "runs/{run}/running/file", AT_LOT | {"text": "piece"}, (404, 404, 403, 403)),
    ("post", "instruments/read", {"name": "none"}, (404, 404, 403, 403)),
    ("get", "shelf/machine/lathe-3/readings", None, DRAFT),
    ("get", "runs/{run}/releases", None, DRAFT),
    ("post", "runs/{run}/releases", {"base_revision": 0, "confirmed": []}, (403, 403, 422, 422)),
    ("get", "runs/{run}/releases/1/differences", None, (403, 404, 404, 404)),
    ("get", "find", None, LOOK),
    ("post", "runs/{run}/preview", KEEP, PLAN),
    ("post", "runs/{run}/preview", SET, (403, 200, 200, 200)),
    ("post", "runs/{run}/parts", {"names": ["helps:force-s1"]}, DRAFT),
    ("post", "runs/{run}/edits", KEEP, PLAN),
    ("post", "runs/{run}/edits", SET, (403, 200, 200, 200)),
    ("post", "runs/{run}/items", CUT, PLAN),
    ("post", "runs/{run}/items/remove", {"path": "setups.s1.cuts.c1", "base_revision": 0}, PLAN),
    ("post", "runs/{run}/items/move", {"path": "setups.s1.cuts.c1", "behind": "c2", "base_revision": 0}, PLAN),
    ("post", "runs/{run}/items/across", {"path": "setups.s1.cuts.c1", "base_revision": 0}, (403, 403, 422, 422)),
    ("post", "runs/{run}/items/split", {"path": "setups.s1.cuts.c2", "base_revision": 0}, PLAN),
    ("post", "runs/{run}/sides/s1/proposal", {"base_revision": 0}, PLAN),
    ("post", "runs/{run}/start", {"base_revision": 0}, PLAN),
    ("post", "runs/{run}/start/settle", {}, (403, 403, 202, 202)),
    ("post", "runs/{run}/start/settled", {"base_revision": 0, "question": NO_QUESTION}, (403, 403, 404, 404)),
    ("post", "runs/{run}/sides/s1/looks-right", {"base_revision": 0}, PLAN),
    ("post", "runs/{run}/sides/s1/settle", {}, ASK),
    ("post", "runs/{run}/sides/s1/settled", {"base_revision": 0, "question": NO_QUESTION}, (403, 403, 404, 404)),
    ("get", "runs/{run}/sides/s1/ideas", None, DRAFT),
    ("post", "runs/{run}/sides/s1/ideas/deeper", {}, ASK),
    (
        "post",
        "runs/{run}/sides/s1/ideas/deeper/taken",
        {"base_revision": 0, "question": NO_QUESTION},
        (403, 403, 404, 404),
    ),
    ("get", f"questions/{NO_QUESTION}", None, (403, 404, 404, 404)),
    ("delete", f"questions/{NO_QUESTION}", None, (404, 404, 404, 404)),
    ("get", "runs/{run}/sides/s1/cuts/c1/tools", None, DRAFT),
    ("get", "runs/{run}/sides/s1/cuts/c1/proven", None, DRAFT),
    ("post", "runs/{run}/sides/s1/cuts/c1/keep", {"fields": {"chip": "curls"}}, (403, 201, 201, 201)),
    ("post", "runs/{run}/sides/s1/cuts/c1/proven", {"proven": 2**40, "base_revision": 0}, (403, 403, 404, 404)),
    ("get", "notebook/cuts", None, LOOK),
    ("post", "notebook/cuts", WORKED, (403, 201, 201, 201)),
    ("delete", "notebook/cuts/{proven}", None, GONE),
    ("post", "notebook/cuts/{proven}/back", {}, (403, 403, 404, 404)),  # it is in there
    ("get", "notebook/everything", None, DRAFT),
    ("get", "notebook/file", None, LOOK),
    ("post", "notebook/file", {"text": "material\nC45"}, PLAN),
    ("post", "notebook/file/look", {"text": "material\nC45"}, ASK),
    ("post", "runs/{run}/undo", {}, (403, 409, 409, 409)),  # nobody has done anything yet
    ("post", "runs/{run}/redo", {}, (403, 409, 409, 409)),
    ("post", "runs/{run}/restore", {"revision": 0, "base_revision": 0}, PLAN),
    ("post", "runs/{run}/sides/s1/checks/real-contact", {}, (403, 202, 202, 202)),
    ("get", "runs/{run}/sides/s1/jaw-program", None, (404, 409, 409, 409)),  # nobody has given it a number yet
    ("get", "runs/{run}/part.dxf", None, DRAFT),
    ("get", "runs/{run}/route-tools.csv", None, DRAFT),
    ("post", "runs/{run}/drawing", {"text": "no drawing"}, (403, 403, 422, 422)),
    ("post", "runs/{run}/profile", {"text": "no drawing", "base_revision": 0}, (403, 403, 422, 422)),
    ("delete", "runs/{run}", None, GONE),
    ("get", "shelf", None, LOOK),
    ("get", "shelf/machine/new", None, LOOK),
    ("get", "shelf/machine/items/lathe-3", None, LOOK),
    ("post", "shelf/machine/preview", {"key": "lathe-3"}, LOOK),
    ("post", "shelf/machine/items", LATHE, MAKE),
    ("patch", "shelf/machine/items/lathe-3", {"fields": {"power_kw": "16"}}, PLAN),
    ("delete", "shelf/machine/items/spare", None, GONE),
    ("post", "shelf/jaw_set/items/set-7/life", {"what": "refit"}, (403, 200, 200, 200)),
    ("get", "shelf/machine/file", None, LOOK),
    ("post", "shelf/machine/file", {"text": "name\nLathe 8"}, PLAN),
    ("post", "shelf/machine/file/look", {"text": "name\nLathe 8"}, ASK),
    ("post", "shelf/machine/items/lathe-3/effects", {"fields": {}}, (403, 202, 202, 202)),
    ("get", "calc", None, LOOK),
    ("post", "calc/{name}", {}, (422, 422, 422, 422)),
    ("get", "calculators", None, LOOK),
    ("get", "practice", None, LOOK),
    ("get", "practice/exercises/bar", None, LOOK),
    ("post", "practice/answers", {"kind": "bar", "seed": 1, "level": 1, "given": "x"}, (422, 422, 422, 422)),
    ("post", "practice/apprentice", BENCH, LOOK),
    ("post", "practice/hidden", {"hidden": True}, (204, 204, 204, 204)),
    ("get", "practice/people", None, (403, 403, 403, 200)),
    ("get", "practice/sheet.pdf?seed=1", None, LOOK),
    ("get", "practice/from/{run}", None, (404, 200, 200, 200)),
    ("get", "practice/from/{run}/cut/0", None, (404, 200, 200, 200)),
    ("post", "practice/from/{run}/cut/0", {"given": "1"}, (404, 200, 200, 200)),
    ("post", "calculators/cut", {"given": {}}, (422, 422, 422, 422)),
    ("get", "calculators/cut/from/{run}", None, (404, 200, 200, 200)),
    ("delete", "session", None, (204, 204, 204, 204)),
]
KEYED = (
    "runs/",
    "chucks/",
    "notebook/",
    "practice/answers",
    "gauge-runs/",
    "shelf/machine/file/look",
    "shelf/machine/items/lathe-3/effects",
)
ROLES = ("operator", "setter", "planner", "owner")


def ask(client, run, method, path, body):
    if path.startswith(KEYED) and body is not None:
        body = {"key": str(uuid.uuid4())} | body
    person = Person.objects.get(username="operator").pk
    worked = ProvenCut.objects.first()
    answer = client.generic(
        method.upper(),
        f"/api/{path.format(run=run.pk, name='cut', person=person, proven=worked.pk)}",
        json.dumps(body),
        content_type="application/json",
    )
    return answer.status_code


@contextmanager
def taken_back():
    """Whatever is done to the database within is undone: the demo is loaded once for the whole matrix."""
    with transaction.atomic():
        yield
        transaction.set_rollback(True)


def test_who_may(nobody, signed_in, demo):
    Shop.objects.update(kind="real")
    Machine.objects.create(key="spare", name="Spare", max_rpm=1, power_kw=1, torque_nm=1, turret_stations=1)
    wrong = []
    for method, path, body, gets in ENDPOINTS:
        with taken_back():
            if ask(nobody, demo, method, path, body) != 401:
                wrong.append(("nobody", method, path))
        for role, wanted in zip(ROLES, gets, strict=True):
            with taken_back():
                got = ask(signed_in(role), demo, method, path, body)
                if got != wanted:
                    wrong.append((role, method, path, got, wanted))
                if wanted == 403 and (Edit.objects.count(), Run.objects.count(), Machine.objects.count()) != (0, 2, 4):
                    wrong.append((role, method, path, "something was kept"))
    assert wrong == []


def test_the_matrix_has_every_endpoint():
    described = set()
    for path, methods in api.get_openapi_schema()["paths"].items():
        name = path.removeprefix("/api/").replace("{run_id}", "{run}").replace("{person_id}", "{person}")
        name = "calc/{name}" if name.startswith("calc/") else name
        name = (
            name.replace("exercises/{kind}", "exercises/bar")
            .replace("{kind}", "machine")
            .replace("{setup}", "s1")
            .replace("{form}", "dxf")
            .replace("{of}", "tools")
            .replace("checks/{name}", "checks/real-contact")
            .replace("calculators/{name}", "calculators/cut")
            .replace("/{name}/{place}", "/cut/0")
            .replace("sheet.pdf", "sheet.pdf?seed=1")
            .replace("{number}", "1")
            .replace("{lot}", "s1")
            .replace("{piece}", "1")
            .replace("{idea}", "deeper")
            .replace("cuts/{cut}", "cuts/c1")
            .replace("chucks/{key}", "chucks/lathe-3-chuck")
        )
        for place in ("questions", "folder"):
            name = name.replace(f"{place}/{{key}}", f"{place}/{NO_QUESTION}")
        name = name.replace("jaw_set/items/{key}", "jaw_set/items/set-7")
        name = name.replace("{key}", "spare" if "delete" in methods and len(methods) == 1 else "lathe-3")
        described |= {(method, name.replace("lathe-3", "spare") if method == "delete" else name) for method in methods}
    assert described - {("post", "session")} == {(m, p) for m, p, *_ in ENDPOINTS}


@pytest.mark.parametrize(
    "path", ["runs", "runs/{run}/edits", "runs/{run}/undo", "calc/cut", "session", "people", "shelf/chuck/items"]
)
def test_changes_need_the_csrf_token(path, demo):
    strict = Client(SERVER_NAME="127.0.0.1", enforce_csrf_checks=True)
    strict.force_login(Person.objects.get(username="owner"))
    answer = strict.post(
        f"/api/{path.format(run=demo.pk)}", json.dumps({"username": "a", "password": "b"}), "application/json"
    )
    assert answer.status_code == 403


def test_a_run_that_is_not_there_is_404(planner):
    for run_id in (999, 2**70):
        for place in ("plan", "pulse", "history"):
            assert planner.get(f"/api/runs/{run_id}/{place}").status_code == 404
        assert planner.send(f"runs/{run_id}/undo", {"key": str(uuid.uuid4())})[0] == 404
        assert planner.send(f"runs/{run_id}", None, "delete")[0] == 404


def test_what_is_no_number_of_a_draft_is_told(planner, demo):
    assert planner.get(f"/api/runs/{demo.pk}/plan?at=-1").status_code == 422
    assert planner.get(f"/api/runs/{demo.pk}/plan?at=7").status_code == 404

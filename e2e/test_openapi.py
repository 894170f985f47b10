"""The API against its own document: generated requests, and no answer that the document does not know."""

import json
from datetime import timedelta

import pytest
import requests
import schemathesis
from hypothesis import HealthCheck, Phase, settings
from schemathesis.checks import CHECKS

from commands.places import ROOT

DOCUMENT = json.loads((ROOT / "docs" / "openapi.json").read_text())
# Who asks is said by the session below; generated cookies would only be turned away.
for _methods in DOCUMENT["paths"].values():
    for _operation in _methods.values():
        _operation.pop("security", None)
# Signing out, or becoming somebody who may do nothing, would end the test; both are asked elsewhere.
LEFT_OUT = [("DELETE", "/api/session"), ("POST", "/api/session"), ("POST", "/api/session/look-as")]
SCHEMA = schemathesis.openapi.from_dict(DOCUMENT)
# By the first name of the path; of each, what takes things away is asked last.
OPERATIONS: dict[str, list[tuple[str, str]]] = {}
for _path, _methods in DOCUMENT["paths"].items():
    for _method in _methods:
        if (_method.upper(), _path) not in LEFT_OUT:
            OPERATIONS.setdefault(_path.split("/")[2], []).append((_method.upper(), _path))
for _asked in OPERATIONS.values():
    _asked.sort(key=lambda operation: operation[0] == "DELETE")


def token(session):
    """What shows that a change comes from the page."""
    return next(c.value for c in session.cookies if "anvil-token" in c.name)


@pytest.fixture
def owner(server, run):
    """A session of the demo's owner, with its token."""
    session = requests.Session()
    session.get(server.url + "/", timeout=10)
    session.headers["X-CSRFToken"] = token(session)
    assert session.post(server.url + "/api/session/look-as", json={"role": "owner"}, timeout=10).ok
    session.headers["X-CSRFToken"] = token(session)
    return session


@pytest.mark.parametrize("name", OPERATIONS)
def test_no_request_makes_the_server_fail(name, server, owner, run):
    for method, path in OPERATIONS[name]:
        try:
            assert asked(SCHEMA[path][method], server, owner, run)
        except Exception as error:
            error.add_note(f"{method} {path}")
            raise


def asked(operation, server, owner, run):
    """What the server answered to cases of an operation. Raises where an answer is none that the document knows."""
    seen = []

    def ask(case):
        if "run_id" in case.path_parameters and len(seen) % 2:
            case.path_parameters["run_id"] = run.pk  # every other one at a run that is there
        if "key" in case.path_parameters and len(seen) % 2:
            case.path_parameters["key"] = "lathe-3"
        answer = case.call(base_url=server.url, session=owner, timeout=20)
        seen.append(answer.status_code)
        if answer.status_code in (414, 431):  # the web server's own words for an address of many kilobytes
            return
        case.validate_response(
            answer,
            checks=CHECKS.get_by_names(
                [
                    "not_a_server_error",
                    "status_code_conformance",
                    "content_type_conformance",
                    "response_schema_conformance",
                ]
            ),
        )

    test = settings(
        max_examples=4,
        deadline=timedelta(seconds=20),
        phases=[Phase.generate],
        derandomize=True,
        database=None,
        suppress_health_check=list(HealthCheck),
    )(schemathesis_given(operation)(ask))
    test()
    return seen


def schemathesis_given(operation):
    """Hypothesis' decorator for the cases of one operation, right ones and wrong ones."""
    from hypothesis import given
    from hypothesis import strategies as st
    from schemathesis import GenerationMode

    good = operation.as_strategy(generation_mode=GenerationMode.POSITIVE)
    try:
        bad = operation.as_strategy(generation_mode=GenerationMode.NEGATIVE)
        return given(st.one_of(good, bad))
    except Exception:  # where nothing can be wrong there are no wrong cases
        return given(good)
